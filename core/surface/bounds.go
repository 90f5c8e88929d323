package surface

import (
	"math"

	"rutile/core/craft"
)

// What a search must know of coats before it walks them: the walk itself counts by the same
// functions.

// Transmission is the share of a bleeder, 0 to 1, that one coat of a product lets through. If the
// coat only dilutes and lies over another that does, it dilutes by the root of that. dilutes tells
// whether the coat is one of those.
func Transmission(c *craft.Craft, p craft.Product, b craft.Bleeder, diluted bool) (share float64, dilutes bool) {
	share = c.LetsThrough(p, b)
	if c.Products[p].Block.Blocks() {
		return share, false
	}
	if diluted {
		share = math.Sqrt(share)
	}
	return share, true
}

// LeastTransmission is the least share of a bleeder, 0 to 1, that the coats of some steps let
// through, whatever is below them.
func LeastTransmission(c *craft.Craft, steps []Step, b craft.Bleeder) float64 {
	out, diluted := 1., false
	for i := range steps {
		s := &steps[i]
		if x, ok := c.Effect(s.Effect); ok && s.Do == Effect && c.Effects[x].Lays != "" {
			lays, _ := c.Product(c.Effects[x].Lays)
			share, _ := Transmission(c, lays, b, false)
			out *= share
		}
		if s.Do != Coat || c.Products[s.Product].Coat == craft.NoCoat {
			continue
		}
		if s.Scope != All { // the spots may be where it comes through
			share, _ := Transmission(c, s.Product, b, false)
			out *= share
			continue
		}
		for range s.NumCoats() {
			share, dilutes := Transmission(c, s.Product, b, diluted)
			out *= share
			diluted = diluted || dilutes
		}
	}
	return out
}

// CoatWait is the hours after one coat of a step until the next of the same.
func CoatWait(c *craft.Craft, f *Facts, s *Step) float64 {
	if !s.Auto {
		return s.WaitH
	}
	w := windowOf(&c.Products[s.Product], &c.Products[s.Product], 1, f.Climate)
	return w.from
}
