package craft

import "slices"

// Divide is something about which good painters disagree: who does it, how often it goes wrong, and
// what would make it sure.
type Divide struct {
	// Way is the id of the way of working that does it, empty where no way is built on it.
	Way  string
	Says string // as sentences
}

// DividedBond is a coat on a surface about which painters disagree.
type DividedBond struct {
	On    Family
	Coats []Coat
	Divide
}

// DividedBonds lists them. Working defaults.
var DividedBonds = []DividedBond{
	{MelamineFilm, []Coat{CP}, Divide{"straight_on", "Painters divide here. Those who paint straight on do it over a clean, scuffed face, and about one face in four peels once it is handled. A bonding primer or two coats of shellac below make it sure."}},
	{ShellacNew, []Coat{WH}, Divide{"", "Painters divide here. Some lay floor-grade clear over shellac the next day and it holds; many makers forbid it. A label that names shellac makes it sure, and so does a water-based primer in its place."}},
}

// Divided is what painters disagree about where a coat goes on a surface; nil for nothing.
func Divided(on Family, k Coat) *Divide {
	for i := range DividedBonds {
		if x := &DividedBonds[i]; x.On == on && slices.Contains(x.Coats, k) {
			return &x.Divide
		}
	}
	return nil
}

// Clash is a coat that must not lie straight on another, however well each grips by itself.
type Clash struct {
	Over, Under []Coat
	Says        string // why, as a sentence
}

// Clashes lists them; they hold unless a label allows it. Working defaults.
var Clashes = []Clash{
	{[]Coat{EP}, []Coat{SH}, "Its solvents lift the shellac, and it shrinks so hard that it peels."},
	{[]Coat{EP}, []Coat{ET}, "The acid in etch primer keeps the hardener of two-part coats from working where they meet."},
}

// ClashOf tells why a coat must not lie on another; nil where it may.
func ClashOf(over, under Coat) *Clash {
	for i := range Clashes {
		if x := &Clashes[i]; slices.Contains(x.Over, over) && slices.Contains(x.Under, under) {
			return x
		}
	}
	return nil
}

// FirstOn are the coats that are made to be the first on a bare material; none where any will do. Working
// default.
var FirstOn = map[Family][]Coat{
	MetalFerrous: {MP, EP, ET, PA},
	MetalZinc:    {ZP, EP},
	MetalLight:   {ZP, ET, EP, PA, BP},
	GlassSmooth:  {GP},
	Polyolefin:   {PP},
}
