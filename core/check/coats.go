package check

import (
	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/surface"
)

// Coloured is one coat of a plan over the whole face, as far as its colour goes.
type Coloured struct {
	colour.Layer
	Step, CoatNo int // from 1
	Product      craft.Product
}

// CoatColours are the coats of a zone's plan that change its colour, in their order.
func CoatColours(c *craft.Craft, z *Zone) []Coloured {
	k := &Case{Craft: c, Zone: z, Facts: &z.Facts}
	k.Trace.Walk(c, &z.Facts, z.Steps)
	k.look()
	var out []Coloured
	for i := range k.Trace.Events {
		e := &k.Trace.Events[i]
		if e.After.Regions[surface.Field].Coats == 0 && len(out) > 0 { // all of it is gone again
			out = out[:0]
		}
		if e.Doing.Do != surface.Coat || e.Doing.Scope != surface.All {
			continue
		}
		p := &c.Products[e.Doing.Product]
		if p.Hiding < leastHiding {
			continue
		}
		want, _ := z.ColourOf(p, e.Doing.Colour)
		want = colour.Masstone(want)
		out = append(out, Coloured{colour.Layer{Paint: want, Power: k.scatters(p, want, e.Doing)}, e.Step, e.CoatNo, e.Doing.Product})
	}
	return out
}

// GroundColour is the colour of a zone as it is.
func GroundColour(c *craft.Craft, z *Zone) colour.RGB {
	return (&Case{Craft: c, Zone: z, Facts: &z.Facts}).ground()
}
