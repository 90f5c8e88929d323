// Package damage works out the repairs before painting: how much filler and glue, in how many
// batches, and how long.
package damage

import (
	"cmp"
	"fmt"
	"math"
	"strings"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
)

// Defect is damage as a survey records it.
type Defect struct {
	ID     string
	Count  int     // at least 1
	SizeMM float64 // across, or wide; 0 if not measured
	LongCM float64 // along; 0 if not measured
	Bends  bool    // it is in cane, cloth or leather
}

// Filler is what fills it.
type Filler uint8

// The fillers.
const (
	NoFiller Filler = iota
	Fine
	TwoPart
)

// Row says how damage of one kind is repaired. Volumes follow from simple solids; depths that are
// usually not measured are working defaults.
type Row struct {
	ID string
	// Across and Along name its sizes; empty where it has none.
	Across, Along string
	// SizeMM and LongCM are used if nothing was measured. Working defaults.
	SizeMM, LongCM float64
	How            string
	// Filler, and from what size across in millimetres it is a two-part one.
	Filler  Filler
	TwoFrom float64
	// Fills is what one takes, in cubic millimetres; nil for nothing.
	Fills func(s, l float64) float64
	// Glues is the area of one to be glued, in square millimetres; nil for none.
	Glues func(s, l float64) float64
	// Minutes of work on one besides the filling: opening, cleaning, sanding flush. Working
	// default.
	Minutes float64
}

// Filler is what fills damage: nothing where filler would crack out of what bends.
func (d *Defect) Filler() Filler {
	row, ok := RowOf(d.ID)
	if !ok || d.Bends {
		return NoFiller
	}
	if row.Filler == Fine && cmp.Or(d.SizeMM, row.SizeMM) >= row.TwoFrom {
		return TwoPart
	}
	return row.Filler
}

// backed is the repair, on a material that flexes, of damage that would otherwise be filled.
const backed = "Reweave it, sew it, or glue a patch behind it: filler cracks out of anything that flexes."

// dish is half an ellipsoid of a depth; bore a cylinder; groove a furrow of
// three sides; plate an area of a thickness. All in millimetres.
func dish(s, depth float64) float64      { return 2. / 3 * math.Pi * s * s / 4 * depth }
func bore(s, depth float64) float64      { return math.Pi * s * s / 4 * depth }
func groove(s, l, depth float64) float64 { return s * depth / 2 * l }

// patch is an area: long and wide, or round where no length is known.
func patch(s, l float64) float64 {
	if l > 0 {
		return s * l
	}
	return math.Pi * s * s / 4
}

const (
	never = 1e9 // a two-part filler is never needed
	skim  = .2  // mm
)

// Rows are the kinds of damage with their repairs; other kinds need none.
var Rows = []Row{
	{ID: "chip", Across: "across", SizeMM: 8, TwoFrom: 10, Filler: Fine, Minutes: 2,
		How:   "Cut back loose edges, fill slightly proud, sand flush.",
		Fills: func(s, _ float64) float64 { return dish(s, .3*s) }},
	{ID: "dent", Across: "across", SizeMM: 15, TwoFrom: never, Filler: Fine, Minutes: 4,
		How:   "In bare wood, raise it first with a damp cloth and an iron; fill what is left.",
		Fills: func(s, _ float64) float64 { return dish(s, .12*s) }},
	{ID: "gouge", Across: "wide", Along: "long", SizeMM: 4, LongCM: 5, TwoFrom: 3, Filler: Fine, Minutes: 3,
		How:   "Open it with a blade to give the filler a key, fill, sand flush.",
		Fills: func(s, l float64) float64 { return groove(s, l, .6*s) }},
	{ID: "hole", Across: "across", SizeMM: 5, TwoFrom: 4, Filler: Fine, Minutes: 1.5,
		How: "Fill to the bottom, slightly proud, and sand flush.",
		Fills: func(s, _ float64) float64 {
			if s < 4 {
				return bore(s, 5)
			}
			return bore(s, 15)
		}},
	{ID: "crack", Across: "wide", Along: "long", SizeMM: 1, LongCM: 20, TwoFrom: 2, Filler: Fine, Minutes: 4,
		How:   "Find out whether it moves; glue a moving crack, do not fill it.",
		Fills: func(s, l float64) float64 { return s * 8 * l }},
	{ID: "open_joint", Along: "long", LongCM: 10, Minutes: 12,
		How:   "Scrape out the old glue, glue, and clamp square.",
		Glues: func(_, l float64) float64 { return 20 * l }},
	{ID: "lifted_veneer", Across: "wide", Along: "long", SizeMM: 30, LongCM: 10, Minutes: 10,
		How:   "Lift it only as far as it goes, work glue under it, press it flat under a block.",
		Glues: func(s, l float64) float64 { return s * l }},
	{ID: "loose_foil", Across: "wide", Along: "long", SizeMM: 50, LongCM: 20, Minutes: 8,
		How:   "Glue it where it is sound; strip foil that is brittle or lifts easily.",
		Glues: func(s, l float64) float64 { return s * l }},
	{ID: "flaking", Across: "across", Along: "long", SizeMM: 100, Minutes: 8, Filler: Fine, TwoFrom: never,
		How:   "Scrape to a sound edge and feather it. If it may contain lead: wet, never dry, until it is tested.",
		Fills: func(s, l float64) float64 { return patch(s, l) * skim }},
	{ID: "blister", Across: "across", Along: "long", SizeMM: 20, Minutes: 5, Filler: Fine, TwoFrom: never,
		How:   "Cut it out to where the film holds, feather the edge, fill the step.",
		Fills: func(s, l float64) float64 { return patch(s, l) * skim }},
	{ID: "swollen_board", Across: "thick", Along: "long", SizeMM: 18, LongCM: 20, Minutes: 15, Filler: TwoPart,
		How:   "Let it dry, cut back the swelling, seal with shellac, and level with filler.",
		Fills: func(s, l float64) float64 { return s * l * .8 }},
	{ID: "worm", Across: "across", SizeMM: 1.5, TwoFrom: never, Filler: Fine, Minutes: .3,
		How:   "Fresh dust means live worm: treat it first, and keep the piece away from others.",
		Fills: func(s, _ float64) float64 { return bore(s, 8) }},
	{ID: "burn", Across: "across", Along: "long", SizeMM: 25, Filler: TwoPart, Minutes: 6,
		How:   "Scrape to clean wood, fill, and seal: char bleeds.",
		Fills: func(s, l float64) float64 { return patch(s, l) * 2 }},
	{ID: "water_damage", Across: "across", SizeMM: 150, Minutes: 10,
		How: "Find the damp and let it dry out; block any stain."},
	{ID: "warped", Minutes: 25, How: "Plane or sand until it moves freely, and remember that paint adds thickness."},
	{ID: "rust_pit", Across: "across", SizeMM: 4, Filler: TwoPart, Minutes: 3,
		How:   "Brush it bright, convert the remaining rust, prime, fill with a filler for metal.",
		Fills: func(s, _ float64) float64 { return bore(s, 1) }},
	{ID: "missing_veneer", Across: "wide", Along: "long", SizeMM: 30, LongCM: 5, Filler: TwoPart, Minutes: 8,
		How:   "Square the edges, level with filler; under a clear finish, inlay new veneer instead.",
		Fills: func(s, l float64) float64 { return s * l * .6 }},
	{ID: "old_runs", Across: "across", SizeMM: 50, Minutes: 6, How: "Sand flat with a block; scrape soft runs first."},
	{ID: "craters", Across: "across", SizeMM: 3, TwoFrom: never, Filler: Fine, Minutes: 1,
		How:   "Silicone: wash with white spirit, seal with shellac, and only then fill.",
		Fills: func(s, _ float64) float64 { return dish(s, .5) }},
}

// RowOf returns the repair of a kind of damage; false where it needs none.
func RowOf(id string) (*Row, bool) {
	for i := range Rows {
		if Rows[i].ID == id {
			return &Rows[i], true
		}
	}
	return nil, false
}

// Figures of the fillers. Working defaults.
const (
	// overfill is the share filled proud of the surface, or left on the board.
	overfill = 1.3
	// glueBed is the thickness of a glue line, in millimetres.
	glueBed = .25
	// TwoPartGrams is the mass of a millilitre of two-part filler.
	TwoPartGrams = 1.8
	// HardenerShare is the hardener of a two-part filler, by mass.
	HardenerShare = .02
	// workAt20 and sandAt20 are how long it can be worked at 20 C, and when it
	// can be sanded, in minutes; each 10 C more halve them.
	workAt20, sandAt20 = 8., 15.
	// usable is the share of that time left once it is mixed and on the knife.
	usable = .75
	// ball is the most that is mixed at once, in millilitres.
	ball = 60.
	// mixing takes this long for a batch, and each place this long to fill, in
	// minutes, and each millilitre this much more.
	mixing, perPlace, perML = 2., .6, .08
	// fineHours is how long a layer of fine filler dries at 23 C and 50 %, and
	// fineDeep the most that dries in one, in millimetres.
	fineHours, fineDeep = 1.5, 3.
	// glueHours is how long a joint stays in clamps.
	glueHours = 1.
	// perClamp is how much of a joint one clamp holds, in centimetres.
	perClamp = 15.
)

// Item is what one line of damage takes.
type Item struct {
	Defect   string
	Filler   Filler
	ML, Glue float64 // millilitres, of all of them
	Minutes  float64 // hands-on, of all of them
	Clamps   int
	How      string
}

// Batches are how a two-part filler is mixed.
type Batches struct {
	N                int
	ML, Grams        float64 // of each, without the hardener
	Hardener         float64 // grams, of each
	WorkMin, SandMin float64 // minutes it can be worked, and until it can be sanded
}

// Work is what all the damage takes.
type Work struct {
	Items   []Item
	TwoPart Batches
	TwoML   float64
	FineML  float64
	FineH   float64 // hours until the fine filler can be sanded
	GlueML  float64
	GlueH   float64 // hours in clamps
	Clamps  int
	Minutes float64 // hands-on, mixing included
	TooCold bool    // for two-part filler or glue to harden in good time
}

// coldest is the temperature below which neither hardens in good time.
// Working default.
const coldest = 8.

// Of works out what damage takes in a workshop's air.
func Of(ds []Defect, air drying.Climate) Work {
	var w Work
	deep, apply := 0., 0.
	for _, d := range ds {
		row, ok := RowOf(d.ID)
		if !ok {
			continue
		}
		n := float64(max(1, d.Count))
		s, l := d.SizeMM, d.LongCM*10
		if s == 0 {
			s = row.SizeMM
		}
		if l == 0 {
			l = row.LongCM * 10
		}
		it := Item{Defect: d.ID, How: row.How, Minutes: n * row.Minutes}
		if d.Bends && row.Filler != NoFiller {
			it.How = backed
		} else if row.Fills != nil {
			it.Filler = d.Filler()
			it.ML = n * row.Fills(s, l) / 1000 * overfill
			on := n*perPlace + it.ML*perML
			it.Minutes += on
			if it.Filler == TwoPart {
				w.TwoML += it.ML
				apply += on
			} else {
				w.FineML += it.ML
				deep = max(deep, depth(row.ID, s))
			}
		}
		if row.Glues != nil {
			it.Glue = n * row.Glues(s, l) * glueBed / 1000
			it.Clamps = int(n) * max(1, int(math.Ceil(l/10/perClamp)))
			w.GlueML += it.Glue
			w.Clamps += it.Clamps
		}
		w.Minutes += it.Minutes
		w.Items = append(w.Items, it)
	}
	if w.TwoML > 0 {
		slow := math.Exp2((20 - air.TempC) / 10)
		b := Batches{WorkMin: workAt20 * slow, SandMin: sandAt20 * slow}
		b.N = max(1, int(math.Ceil(apply/(b.WorkMin*usable)-1e-9)), int(math.Ceil(w.TwoML/ball)))
		b.ML = w.TwoML / float64(b.N)
		b.Grams = b.ML * TwoPartGrams
		b.Hardener = b.Grams * HardenerShare
		w.TwoPart = b
		w.Minutes += mixing * float64(b.N)
	}
	if w.FineML > 0 {
		w.FineH = max(1, math.Ceil(deep/fineDeep)) * fineHours * drying.Factor(craft.Water, air)
	}
	if w.GlueML > 0 {
		w.GlueH = glueHours * drying.Factor(craft.Water, air)
	}
	w.TooCold = air.TempC < coldest && (w.TwoML > 0 || w.GlueML > 0)
	return w
}

// depth is how deep a fine filler lies, in millimetres.
func depth(id string, s float64) float64 {
	switch id {
	case "chip":
		return .3 * s
	case "dent":
		return .12 * s
	case "gouge":
		return .6 * s
	case "hole":
		return 5
	case "crack", "worm":
		return 8
	}
	return .5
}

// Says is what the work comes to, in sentences, the most telling first.
func (w *Work) Says(u measure.Units) []string {
	var out []string
	if b := w.TwoPart; b.N > 0 {
		each := ", one batch:"
		if b.N > 1 {
			each = fmt.Sprintf(" in %d batches, each", b.N)
		}
		out = append(out, fmt.Sprintf("Two-part filler, %s%s %s filler with %s hardener. At this temperature you can work it for %s and sand it after %s.",
			Millilitres(w.TwoML), each, grams(b.Grams), grams(b.Hardener), measure.Hours(b.WorkMin/60), measure.Hours(b.SandMin/60)))
	}
	if w.FineML > 0 {
		out = append(out, fmt.Sprintf("Fine filler, %s; at this temperature dry enough to sand after about %s.", Millilitres(w.FineML), measure.Hours(w.FineH)))
	}
	if w.GlueML > 0 {
		s := fmt.Sprintf("Wood glue, %s; in clamps for about %s, %d of them.", Millilitres(w.GlueML), measure.Hours(w.GlueH), w.Clamps)
		if w.Clamps == 1 {
			s = strings.Replace(s, ", 1 of them", ", one of them", 1)
		}
		out = append(out, s)
	}
	if w.TwoML+w.FineML > 0 {
		out = append(out, "Primer shows what bare filler hides: expect a second, smaller round with fine filler after it.")
	}
	if w.TooCold {
		out = append(out, "Below "+u.Temp(coldest)+" filler and glue hardly harden: warm the piece first.")
	}
	return out
}

// Millilitres words an amount of filler or glue, rounded up.
func Millilitres(ml float64) string {
	switch {
	case ml < 1:
		return "less than 1 ml"
	case ml < 20:
		return fmt.Sprintf("%.0f ml", math.Ceil(ml))
	}
	return fmt.Sprintf("%.0f ml", math.Ceil(ml/5)*5)
}

func grams(g float64) string {
	switch {
	case g < .1:
		return "a trace of"
	case g < 1:
		return fmt.Sprintf("%.1f g", g)
	case g < 10:
		return strings.TrimSuffix(fmt.Sprintf("%.1f", g), ".0") + " g"
	}
	return fmt.Sprintf("%.0f g", g)
}
