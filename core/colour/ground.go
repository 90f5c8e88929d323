package colour

import "rutile/core/craft"

// Ground is the colour a surface usually has before anything is done to it: the
// old finish's own, or the substrate's, darkened by a clear finish. Working
// default.
func Ground(sub *craft.SubstrateRow, fin *craft.FinishRow) RGB {
	hex := fin.Colour
	if hex == "" {
		hex = sub.Colour
	}
	c, ok := Parse(hex)
	if !ok || fin.Colour != "" || fin.Deepen == 0 {
		return c
	}
	const warmth = 1.25
	l, a, b := c.Lab()
	return FromLab(max(0, l-fin.Deepen), a*warmth, b*warmth)
}
