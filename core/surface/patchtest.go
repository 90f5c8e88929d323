package surface

import (
	"math"

	"rutile/core/craft"
)

// PatchTest is a rated patch test: one coat on a board of the same material, or on a hidden spot of
// the piece itself, and cut across.
type PatchTest struct {
	Product  craft.Product
	On       craft.Family
	Bare     bool
	Additive float64
	// Hidden tells that it was made on the piece itself.
	Hidden bool
	// Class is the class of the cross-cut scale (ASTM D3359, method B), 0 to 5.
	Class int
	// Under are the factors of the conditions it was made under; that of the
	// grip does not count. 0 counts as 1.
	Under [NumTerms]float64
	// Cap is what held below it; 0 counts as 1.
	Cap float64
}

// CutRow describes one class of the cross-cut scale.
type CutRow struct {
	Name, Says string
	Gone       float64 // share of the squares' area that is gone, about
	// Strength, 1 being a full bond, that the class stands for. Working default.
	Strength float64
}

// CrossCut is the cross-cut scale (ASTM D3359, method B), from 0B to 5B: what is
// gone of a lattice of cuts after tape was pulled off it.
var CrossCut = [...]CutRow{
	{"0B", "More than two thirds has come off", .8, .20},
	{"1B", "Whole squares have come off, a third to two thirds of the area", .5, .37},
	{"2B", "Flaked along the cuts and in some squares, up to a third of the area", .25, .52},
	{"3B", "Small flakes along the cuts and where they cross, up to a seventh", .1, .67},
	{"4B", "Specks where the cuts cross, a twentieth at most", .03, .81},
	{"5B", "The cuts are clean, nothing has come off", 0, .94},
}

// CutHow says how a patch is cut and rated, in order. The spacing by thickness is
// that of ASTM D3359, method B.
var CutHow = []string{
	"Wait until the day given above; a soft coat fails a test that it would pass once hard.",
	"With a sharp blade make six cuts two millimetres apart, down to the old surface, then six across them. Where all the coats together are thinner than a twentieth of a millimetre, make eleven cuts one millimetre apart.",
	"Brush the dust off, press strong clear tape over the grid, rub it down, and after a minute pull it back on itself in one go.",
	"Compare in good light. Between two drawings, choose the worse one. Only the grid counts, not the edge of the tape.",
	"Never cut through an old coat that may contain lead; make the test on a test board instead.",
	"The scale is that of ASTM D3359, method B. A workshop test is a good check, not a certificate.",
}

// How far a rating may be off, as a spread of the log of the strength. A board
// is not the piece. Working defaults.
const (
	spreadHidden = .15
	spreadBoard  = .20
)

// sameMix is how far the additive of two coats may differ, in parts to one of
// paint, for one to tell of the other.
const sameMix = .05

// tells tells whether the patch test says something of a boundary.
func (x *PatchTest) tells(c *craft.Craft, b *Boundary) bool {
	return c.SameKind(x.Product, b.Product) && x.On == b.On && x.Bare == b.Bare && math.Abs(x.Additive-b.Additive) < sameMix && (x.Cap == 0 || x.Cap == 1)
}

// surprise is how many of its own spreads the table may be off before a patch test
// that came out worse is believed over it. Working default.
const surprise = 3

// Learn adjusts the grip of a boundary by the ratings of patch tests of the same coat on the same
// surface: the log of the grip is normal about the table's with the pair's own spread, every rating
// is a noisy observation of it after the conditions of the test are divided out, and Bayes' rule
// for two normals combines them. Ratings far worse than the table allows widen the table's spread
// until they are no more than a surprise: what has come off has come off, what has held has only
// held so far. A grip is never more than full strength. Only the first call counts.
func (b *Boundary) Learn(c *craft.Craft, tests []PatchTest, doubt float64) {
	if b.PatchTests > 0 || b.Factors[Grip] <= 0 {
		return
	}
	var sum, seen float64 // of the ratings, and of their precision
	n := 0
	for i := range tests {
		x := &tests[i]
		if !x.tells(c, b) {
			continue
		}
		under := 1.
		for t, f := range x.Under {
			if Term(t) != Grip && f > 0 {
				under *= f
			}
		}
		spread := spreadBoard
		if x.Hidden {
			spread = spreadHidden
		}
		w := 1 / (spread * spread)
		sum += w * min(0, math.Log(CrossCut[min(max(x.Class, 0), 5)].Strength/under))
		seen += w
		n++
	}
	if n == 0 {
		return
	}
	table, v := math.Log(b.Factors[Grip]), pairVariance(c, b, doubt)
	if off := sum/seen - table; off < 0 {
		v = max(v, off*off/(surprise*surprise))
	}
	precision := seen + 1/v
	b.PatchTests, b.GripBefore, b.pair = n, b.Factors[Grip], 1/precision
	b.Factors[Grip] = math.Exp((sum + table/v) / precision)
	b.multiply()
}
