// Package effect estimates what aged effects will do: how much a powder paint
// chips, and how wide a coat cracks over a medium.
package effect

import "math"

// Chipping is what decides how much of a powder paint comes off.
type Chipping struct {
	// Strength of the weak boundary, 0 to 1, as the check estimates it.
	Strength float64
	Coats    int // of powder paint
	// Heated with warm air, Wetted while it sets, and Resist where something was applied to keep it
	// off: in patches, or all over while it was tacky.
	Heated, Wetted, Resist bool
}

// Share is how much of the area chips: the low, the usual and the high case.
type Share struct{ P10, P50, P90 float64 }

// The logit of the chipped share. Working defaults, set by what painters see: whole face over tacky
// shellac, warmed and wetted, most of it; unscuffed old gloss more than half; scuffed old varnish under
// three coats a third, from a tenth to two thirds; dry shellac on varnish one in seven, up to a third;
// raw wood none.
const (
	chipBase, chipStrength = 1.4, -6.75
	chipCoat               = .2
	chipHeat, chipWet      = .7, 1.0
	chipResist             = .8
	tenth                  = 1.2815515655446004 // of a normal, from its middle to its 90th part of a hundred
)

// The spread of that logit: the weaker the bond, the less can be foretold. Working default.
const (
	chipSpread, chipSpreadPer = 1.36, -.74
	leastSpread, widestSpread = .5, 1.3
)

// Share estimates the chipped share of the area. It cannot be promised: the spread is wide on
// purpose.
func (c Chipping) Share() Share {
	x := chipBase + chipStrength*c.Strength + chipCoat*float64(c.Coats-2)
	if c.Heated {
		x += chipHeat
	}
	if c.Wetted {
		x += chipWet
	}
	if c.Resist {
		x += chipResist
	}
	at := func(x float64) float64 { return 1 / (1 + math.Exp(-x)) }
	spread := min(widestSpread, max(leastSpread, chipSpread+chipSpreadPer*c.Strength))
	return Share{at(x - tenth*spread), at(x), at(x + tenth*spread)}
}

// CrackWidth is about how wide, in millimetres, a coat cracks over a crackle
// medium that is still open: .8 mm for every hundred micrometres of wet film.
// Working default.
func CrackWidth(wetUM float64) float64 { return .8 * wetUM / 100 }
