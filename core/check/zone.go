package check

import (
	"cmp"

	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/identify"
	"rutile/core/measure"
	"rutile/core/shelf"
	"rutile/core/surface"
)

// Zone is what is judged: what a survey knows, what is wanted, and the plan.
type Zone struct {
	surface.Facts
	// SoilsKnown tells that somebody looked for soils.
	SoilsKnown bool
	// Made is the year the piece was made, 0 if not known.
	Made int
	// LeadTest is the test for lead that was noted, if any.
	LeadTest *LeadTest
	// LeadYear is the year before which old paint is suspected of lead by local
	// rules; 0 for the usual one.
	LeadYear int
	// Today is the day of the check as 2026-11-24; empty where there is no
	// clock, and then every date counts as past.
	Today string
	// Tests are what was found out about the surface; nil where nothing was.
	Tests *identify.Belief
	// PatchTests are the patch tests that were rated.
	PatchTests []surface.PatchTest
	// Colour of the target as #rrggbb, empty where none was chosen.
	Colour string
	// Sheen of the target; NoSheen where it is open.
	Sheen craft.Sheen
	Look  string // "solid" or an effect's id
	// Ground is the colour it has now as #rrggbb; empty for the usual one.
	Ground string
	// Unmasked are what is fitted to the zone and is neither to be taken off nor
	// masked, in words.
	Unmasked []string
	// Match are the zones of the piece, for those that are to look the same; Own is the place of
	// this one among them, from 1, 0 where it is not there.
	Match []Base
	Own   int
	// Beside are the chemicals in the plans of the piece's other zones that must not meet certain
	// others.
	Beside []Chemical
	// Cans are the cans that the piece's coats are taken from, in the order in which products name them.
	Cans []Can
	// Relief is how much more there is to cover than the tape says; 0 counts as 1.
	Relief float64
	Steps  []surface.Step
	// Book is what it is judged by; nil for the rule book.
	Book *Book
	// Units are those that findings are worded in.
	Units measure.Units
}

// Can is a can of the piece as a zone sees it.
type Can struct {
	shelf.Can
	// Elsewhere is what the other zones of the piece take of it, in litres.
	Elsewhere float64
}

// book is what the zone is judged by.
func (z *Zone) book() *Book {
	if z.Book != nil {
		return z.Book
	}
	return Standard()
}

// lightness is L* of the finished colour: of the last coat of paint over the
// whole zone, if it has a colour of its own, else of the target, else of white.
func (z *Zone) lightness(c *craft.Craft) float64 {
	hex := z.Colour
	for i := range z.Steps {
		s := &z.Steps[i]
		p := &c.Products[s.Product]
		if s.Do != surface.Coat || s.Scope != surface.All || p.Role != craft.RolePaint || !p.Opaque() {
			continue
		}
		hex = cmp.Or(s.Colour, z.Colour)
		if p.Can > 0 {
			hex = cmp.Or(s.Colour, p.Colour, z.Colour)
		}
	}
	return Lightness(hex)
}

// Lightness is CIELAB L*, 0 to 100, of an sRGB colour as #rrggbb; a colour
// that cannot be read counts as white, on which every stain shows.
func Lightness(hex string) float64 {
	col, ok := colour.Parse(hex)
	if !ok {
		return 100
	}
	return col.Light()
}
