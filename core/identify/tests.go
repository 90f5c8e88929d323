package identify

import (
	"fmt"
	"math"
	"slices"
	"strings"
)

// Test is a look or a small test, with how to make it and what it may show.
type Test struct {
	ID          string
	Short       string // within a sentence
	Name        string // as a question
	How         string
	Where       string
	LookFor     string
	Caution     string
	On          Group // what it can be made on
	Clear       bool  // it says nothing of what is painted
	Observation bool  // nothing is touched or put on it
	Disturbs    bool  // scrapes or heats: never on a suspect of lead
	// Cost is its trouble and harm, in the bits of information that it must
	// bring to be worth making. Working default.
	Cost     float64
	Sees     string // the property it sees; several that see one are no independent witnesses
	Outcomes []Outcome
	// Rows are the chances of the outcomes, each for what its selector names;
	// the first that fits counts. Factors of a second table multiply them.
	Rows, Factors []row
}

// Outcome is one answer to a test.
type Outcome struct {
	ID, Name string
	Draw     string // how the page draws it: a motif and what varies in it
}

// row gives the chances of the outcomes of a test, in their order. Of names
// materials, groups of materials, finishes after a stroke, or both; several are
// parted by spaces.
type row struct {
	of string
	p  []float64
}

// NotSure is an answer to every test.
const NotSure = "not_sure"

// shared is the share of one test's information that another test of the same property has already
// given. Working default: two solvents fail alike on a polished film, and two looks at one edge are
// nearly one.
var shared = map[string]float64{
	"solvent": .35, "hard": .5, "water": 0, "rag": .3, "wax": .3, "look": .5, "stuff": .5, "metal": .4, "cover": .5,
}

func selects(sel string, h *Hypothesis) bool {
	for _, s := range strings.Fields(sel) {
		what, on, _ := strings.Cut(s, "/")
		if h.Material < 0 {
			continue
		}
		m := &Materials[h.Material]
		if what != "" && what != "*" && what != m.ID && groupIDs[what]&m.Group == 0 {
			continue
		}
		f := finishes[h.Finish].id
		if on == "" || on == f || slices.Contains(finishGroups[on], f) {
			return true
		}
	}
	return false
}

// slip is how often an answer is a slip of the eye or of the hand, and so says
// nothing. Working default.
const slip = .03

// sharp is the power to which the rows are raised: written by hand, they spread
// too much over outcomes that one rarely sees. Tuned on the seen cases until
// beliefs of 85 to 95 % were right about nine times in ten.
const sharp = 1.4

// chances[t][h][o] is the chance of an outcome of a test under a hypothesis.
var chances = func() [][][]float64 {
	out := make([][][]float64, len(Tests))
	for t := range Tests {
		x := &Tests[t]
		n := len(x.Outcomes)
		out[t] = make([][]float64, len(Hypotheses))
		for h := range Hypotheses {
			p := slices.Repeat([]float64{1}, n)
			for _, rows := range [][]row{x.Rows, x.Factors} {
				for _, r := range rows {
					if selects(r.of, &Hypotheses[h]) {
						if len(r.p) != n {
							panic(fmt.Sprintf("identify: %s of %s has %d chances for %d outcomes", r.of, x.ID, len(r.p), n))
						}
						for o := range p {
							p[o] *= r.p[o]
						}
						break
					}
				}
			}
			sum := 0.
			for o := range p {
				p[o] = math.Pow(p[o], sharp)
				sum += p[o]
			}
			for o := range p {
				p[o] = (1-slip)*p[o]/sum + slip/float64(n)
			}
			out[t][h] = p
		}
	}
	return out
}()

// TestNamed is the index of a test; below 0 if there is none of that id.
func TestNamed(id string) int {
	return slices.IndexFunc(Tests, func(t Test) bool { return t.ID == id })
}

// outcome is the index of an outcome; below 0 if the test has none of that id.
func (t *Test) outcome(id string) int {
	return slices.IndexFunc(t.Outcomes, func(o Outcome) bool { return o.ID == id })
}

// Tests lists the tests, in an order in which one could make them all.
var Tests = []Test{
	{
		ID: "kind", Short: "Kind of piece", Name: "What kind of piece is it?", Sees: "kind", Observation: true, On: anything, Cost: .01,
		How: "Think of the whole piece this zone belongs to.", Where: "The whole piece", LookFor: "How it was made and what it is for.",
		Outcomes: []Outcome{
			{"old_joinery", "Made by hand, with joints", "thing:chest"}, {"factory", "Factory-made, of real wood", "thing:chair"},
			{"flat_pack", "Flat pack", "thing:panel"}, {"kitchen", "A kitchen or fitted front", "thing:door"},
			{"upholstered", "A cover or cushion", "thing:seat"}, {"metalwork", "Metalwork", "thing:locker"},
			{"garden", "Garden or porch furniture", "thing:pot"}, {"ornament", "An ornament, vessel or lamp", "thing:lamp"},
			{"woven", "Woven", "thing:basket"}, {"moulded", "Moulded in one piece", "thing:crate"},
		},
		Rows: []row{
			{"softwood oak dark_wood", []float64{.5, .3, .03, .06, 0, .01, .04, .04, .01, .01}},
			{"pale_wood", []float64{.25, .5, .04, .1, .01, .01, .03, .04, .01, .01}},
			{"oily_wood", []float64{.08, .4, .03, .05, 0, 0, .4, .03, 0, .01}},
			{"veneer", []float64{.22, .6, .05, .07, .01, 0, 0, .04, 0, .01}},
			{"board", []float64{.01, .2, .3, .4, 0, 0, .01, .05, 0, .03}},
			{"paper_board", []float64{.01, .12, .75, .1, 0, 0, 0, .01, 0, .01}},
			{"laminate", []float64{0, .15, .45, .36, 0, .01, .01, .01, 0, .01}},
			{"vinyl_wrap", []float64{0, .05, .35, .57, 0, 0, 0, .02, 0, .01}},
			{"cane", []float64{.02, .1, 0, 0, .02, 0, .12, .04, .7, 0}},
			{"steel", []float64{.01, .06, .03, .05, 0, .7, .08, .06, .01, 0}},
			{"zinc", []float64{0, .02, 0, .01, 0, .65, .28, .04, 0, 0}},
			{"aluminium", []float64{0, .05, .03, .12, 0, .55, .12, .1, 0, .03}},
			{"brass", []float64{.02, .02, 0, .03, 0, .45, .02, .46, 0, 0}},
			{"stainless", []float64{0, .06, .03, .42, 0, .38, .03, .08, 0, 0}},
			{"glassy", []float64{.03, .06, .02, .15, 0, .02, .07, .64, 0, .01}},
			{"mineral", []float64{.01, 0, 0, .02, 0, 0, .5, .46, 0, .01}},
			{"plastic", []float64{0, .04, .05, .06, .01, 0, .22, .14, .04, .44}},
			{"cover", []float64{.01, .03, 0, 0, .94, 0, .01, .01, 0, 0}},
		},
		Factors: []row{
			{"/shellac", []float64{1.6, .3, .05, .1, 1, 1, .1, 1, 1, 1}},
			{"/wax /stain_only", []float64{1.2, .8, .3, .5, 1, 1, .7, 1, 1, 1}},
			{"/lacquer", []float64{.3, 1.5, .6, .8, 1, 1, .2, 1, 1, 1}},
			{"/finish_wb", []float64{.3, 1.3, 1, 1, 1, 1, .4, 1, 1, 1}},
			{"/catalysed", []float64{.05, 1.3, 1, 1.8, 1, 1, .1, 1, 1, 1}},
			{"/paint_porous_old /paint_porous_waxed", []float64{1.4, .7, .4, .5, 1, 1, .6, 1, 1, 1}},
			{"/paint_factory /powder", []float64{.05, .8, 1, 2, 1, 1.1, .6, .6, 1, 1}},
			{"*", []float64{1, 1, 1, 1, 1, 1, 1, 1, 1, 1}},
		},
	},
	{
		ID: "age", Short: "The age", Name: "How old does it look?", Sees: "age", Observation: true, On: anything, Cost: .02,
		How: "Saw marks, screws, labels and staples tell more than style.", Where: "Backs, undersides, drawer joints",
		LookFor: "Hand-cut joints and slotted screws before about 1930; staples, cross-head screws and chipboard after 1960.",
		Outcomes: []Outcome{
			{"before_1930", "Before about 1930", "age:dovetail"}, {"y1930_60", "1930 to 1960", "age:slotted"},
			{"y1960_90", "1960 to 1990", "age:crosshead"}, {"after_1990", "After 1990", "age:cam"},
		},
		Rows: []row{
			{"board", []float64{.005, .05, .25, .7}}, {"paper_board", []float64{.002, .02, .3, .68}}, {"laminate", []float64{.002, .08, .4, .52}},
			{"vinyl_wrap", []float64{.001, .009, .3, .69}}, {"plastic", []float64{.01, .1, .4, .49}}, {"vinyl_cloth", []float64{.03, .2, .42, .35}},
			{"veneer", []float64{.2, .35, .28, .17}}, {"stainless", []float64{.01, .1, .35, .54}}, {"oily_wood", []float64{.08, .17, .45, .3}},
			{"*", []float64{.3, .27, .23, .2}},
		},
		Factors: []row{
			{"/shellac", []float64{2.6, .55, .2, .12}}, {"/lacquer", []float64{.08, 1.5, 1.5, .8}}, {"/varnish_oil", []float64{.75, 1, 1.4, .75}},
			{"/finish_wb", []float64{.04, .06, .4, 3.6}}, {"/catalysed", []float64{.01, .12, 1.6, 2.5}}, {"/paint_alkyd_old", []float64{1.1, 1.3, 1, .45}},
			{"/paint_acrylic_old", []float64{.3, .45, 1.2, 2.1}}, {"/paint_porous_old", []float64{1.6, .8, .5, .9}}, {"/paint_porous_waxed", []float64{1.2, .9, .7, 1.2}},
			{"/paint_factory", []float64{.05, .6, 1.5, 1.9}}, {"/powder", []float64{.01, .1, 1.2, 2.7}}, {"/wax", []float64{1.5, .8, .6, .9}},
			{"/oil", []float64{.7, .7, 1.1, 1.5}}, {"*", []float64{1, 1, 1, 1}},
		},
	},
	{
		ID: "face", Short: "The face", Name: "What does the face look like?", Sees: "look", Observation: true, On: anything, Cost: .01,
		How: "Hold it to a window and look along it.", Where: "The middle of the face, and where it is least worn",
		LookFor: "Brush marks, a glossy film, or grain that you can feel.",
		Outcomes: []Outcome{
			{"paint_brushed", "Paint with brush marks", "face:brushed"}, {"paint_even", "An even colour without marks", "face:even"},
			{"clear_film", "A clear film over grain", "face:film"}, {"soft_sheen", "A soft sheen, grain you can feel", "face:sheen"},
			{"dry", "Dull and dry", "face:dry"}, {"bare_metal", "Bare metal", "face:metal"}, {"glassy", "Glassy", "face:glass"},
			{"clay", "Clay, stone or plaster", "face:clay"}, {"cloth", "Cloth or hide", "face:cloth"}, {"plastic", "Plastic, perfectly even", "face:plastic"},
		},
		Rows: []row{
			{"wood/open board/open cane/open", []float64{0, 0, .03, .12, .84, 0, 0, 0, .01, 0}},
			{"wood/wax", []float64{0, 0, .09, .79, .12, 0, 0, 0, 0, 0}}, {"wood/oil", []float64{0, 0, .06, .69, .25, 0, 0, 0, 0, 0}},
			{"wood/clear board/clear cane/clear", []float64{0, .01, .88, .08, .02, 0, 0, 0, 0, .01}},
			{"/paint_alkyd_old", []float64{.75, .23, 0, .01, .01, 0, 0, 0, 0, 0}}, {"/paint_acrylic_old", []float64{.63, .34, 0, .01, .02, 0, 0, 0, 0, 0}},
			{"/paint_porous_old", []float64{.74, .1, 0, .02, .13, 0, 0, .01, 0, 0}}, {"/paint_porous_waxed", []float64{.58, .07, .01, .33, .01, 0, 0, 0, 0, 0}},
			{"/paint_factory /powder", []float64{.02, .91, 0, 0, 0, 0, .01, 0, 0, .06}},
			{"paper_board", []float64{0, .1, .25, .12, .03, 0, 0, 0, 0, .5}}, {"laminate", []float64{0, .14, .07, .02, .01, 0, .02, 0, 0, .74}},
			{"vinyl_wrap", []float64{0, .2, .08, .03, 0, 0, 0, 0, .01, .68}}, {"brass/lacquer", []float64{0, 0, .15, 0, 0, .85, 0, 0, 0, 0}},
			{"metal", []float64{0, .03, .02, 0, .02, .93, 0, 0, 0, 0}}, {"glassy", []float64{0, .02, 0, 0, 0, 0, .95, .02, 0, .01}},
			{"mineral/wax", []float64{0, .02, 0, .28, 0, 0, .02, .68, 0, 0}}, {"mineral", []float64{.01, .01, 0, .02, .12, 0, 0, .84, 0, 0}},
			{"plastic", []float64{0, .06, 0, 0, .01, 0, .03, 0, 0, .9}}, {"cover", []float64{0, .01, 0, .02, .01, 0, 0, 0, .94, .02}},
		},
	},
	{
		ID: "edge", Short: "The edges", Name: "What do the edges and the back show?", Sees: "stuff", Observation: true, On: anything, Cost: .03,
		How: "Turn it over or take a drawer out, and look at an unfinished edge.", Where: "Back, underside, inside of a door, screw holes",
		LookFor: "Grain that goes round the edge, a skin over something else, or crumbs.",
		Outcomes: []Outcome{
			{"solid", "The grain goes round the edge", "edge:solid"}, {"layers", "A thin skin over another layer", "edge:layers"},
			{"crumbs", "Crumbs, chips or brown fibre", "edge:crumbs"}, {"band", "A band or foil ends there", "edge:band"},
			{"metal", "Metal", "edge:metal"}, {"stone", "Clay, stone or plaster", "edge:stone"}, {"glass", "Glass", "edge:glass"},
			{"plastic", "The same plastic all the way through", "edge:plastic"}, {"fibres", "Fibres or a backing", "edge:fibres"},
		},
		Rows: []row{
			{"veneer", []float64{.09, .84, .05, .02, 0, 0, 0, 0, 0}}, {"wood", []float64{.94, .03, .01, .01, 0, 0, 0, 0, .01}},
			{"board", []float64{.01, .12, .84, .02, 0, 0, 0, 0, .01}}, {"paper_board", []float64{.01, .06, .42, .5, 0, 0, 0, .01, 0}},
			{"laminate", []float64{0, .26, .17, .55, 0, 0, 0, .02, 0}}, {"vinyl_wrap", []float64{0, .08, .28, .58, 0, 0, 0, .06, 0}},
			{"cane", []float64{.1, .01, 0, 0, 0, 0, 0, .01, .88}}, {"metal", []float64{0, .02, 0, 0, .97, 0, 0, .01, 0}},
			{"glassy", []float64{0, .01, 0, 0, 0, .3, .68, .01, 0}}, {"mineral", []float64{0, 0, .03, 0, 0, .96, .01, 0, 0}},
			{"plastic", []float64{0, .01, .01, .01, 0, .01, .01, .95, 0}}, {"cover", []float64{0, .04, 0, 0, 0, 0, 0, .04, .92}},
		},
	},
	{
		ID: "repeat", Short: "The grain", Name: "Does the grain repeat?", Sees: "print", Observation: true, On: Wood | Board | Printed, Cost: .03,
		How: "Pick a knot or a flame in the pattern and look for a copy of it.", Where: "Along the whole face, and from one door to the next",
		LookFor: "The same mark twice means it is a print.",
		Outcomes: []Outcome{
			{"repeats", "The same mark appears again", "grain:repeats"}, {"varied", "No two marks alike", "grain:varied"}, {"no_grain", "No visible grain", "grain:none"},
		},
		Rows: []row{
			{"/opaque", []float64{.005, .06, .935}}, {"wood/open wood/wax wood/oil", []float64{.01, .96, .03}}, {"wood", []float64{.02, .95, .03}},
			{"board", []float64{.01, .15, .84}}, {"paper_board", []float64{.72, .08, .2}}, {"laminate vinyl_wrap", []float64{.42, .04, .54}},
		},
	},
	{
		ID: "knock", Short: "The sound", Name: "How does it sound, and how heavy is it?", Sees: "stuff", Observation: true, On: anything, Cost: .02,
		How: "Knock with a knuckle, and lift one end.", Where: "The middle of the largest face",
		LookFor: "A warm knock, a dull heavy one, a ring, a clink, a hollow click, or no sound at all.",
		Outcomes: []Outcome{
			{"wood", "A warm wooden knock", "sound:wood"}, {"dense", "Dull and heavy", "sound:dense"}, {"ring", "It rings", "sound:ring"},
			{"clink", "It clinks", "sound:clink"}, {"hollow", "A light hollow click", "sound:hollow"}, {"soft", "It gives, without a sound", "sound:soft"},
		},
		Rows: []row{
			{"veneer", []float64{.58, .38, 0, 0, .04, 0}}, {"wood", []float64{.93, .06, 0, 0, .01, 0}}, {"board printed", []float64{.1, .86, 0, 0, .03, .01}},
			{"cane", []float64{.78, .02, 0, 0, .15, .05}}, {"metal", []float64{.01, .06, .88, .03, .02, 0}}, {"glassy", []float64{0, .05, .06, .88, .01, 0}},
			{"mineral", []float64{.01, .2, .04, .73, .02, 0}}, {"plastic", []float64{.02, .05, 0, .03, .88, .02}}, {"cover", []float64{.02, .03, 0, 0, .02, .93}},
		},
	},
	{
		ID: "magnet", Short: "The magnet", Name: "Does a magnet hold?", Sees: "metal", On: Metal, Cost: .03,
		How: "Hold a small magnet to it, with a slip of paper between.", Where: "Anywhere flat", LookFor: "Whether the magnet stays by itself.",
		Outcomes: []Outcome{{"holds", "It holds", "magnet:holds"}, {"no", "It falls off", "magnet:falls"}},
		Rows: []row{
			{"steel", []float64{.98, .02}}, {"zinc", []float64{.95, .05}}, {"aluminium", []float64{.01, .99}}, {"brass", []float64{.04, .96}}, {"stainless", []float64{.3, .7}},
		},
	},
	{
		ID: "metal_look", Short: "Look of the metal", Name: "What does the metal look like?", Sees: "look", Observation: true, On: Metal, Cost: .02,
		How: "Wipe a spot dry and look at it in daylight.", Where: "Inside, or under a foot", LookFor: "Spangles, rust, a mirror, yellow, white powder, or a coat.",
		Outcomes: []Outcome{
			{"spangled", "Grey with spangles", "metal:spangled"}, {"rust", "Brown with rust", "metal:rust"}, {"bright", "Mirror bright", "metal:bright"},
			{"yellow", "Yellow or red", "metal:yellow"}, {"white_dull", "Dull silver, white powder", "metal:dull"}, {"coated", "An even coat", "metal:coated"},
			{"orange_peel", "A coat with an orange-peel texture", "metal:peel"},
		},
		Rows: []row{
			{"/powder", []float64{.01, .03, 0, 0, .01, .35, .6}}, {"/paint_factory", []float64{.01, .12, 0, 0, .01, .76, .1}},
			{"/plating", []float64{.01, .12, .82, .02, .02, .01, 0}}, {"zinc/opaque", []float64{.4, .08, .01, 0, .06, .42, .03}},
			{"steel/opaque", []float64{.01, .5, .01, 0, .01, .42, .05}}, {"/opaque", []float64{.02, .05, .02, 0, .08, .75, .08}},
			{"steel", []float64{.01, .8, .12, 0, .04, .03, 0}}, {"zinc", []float64{.72, .05, .02, 0, .2, .01, 0}}, {"aluminium", []float64{.02, .01, .15, .01, .78, .02, .01}},
			{"brass", []float64{0, .02, .08, .88, .01, .01, 0}}, {"stainless", []float64{.01, .03, .86, 0, .09, .01, 0}},
		},
	},
	{
		ID: "species", Short: "The wood inside", Name: "What does the bare wood look like inside?", Sees: "species", Observation: true, On: Wood, Cost: .05,
		How: "Find wood that was never finished, and look at the end grain.", Where: "Inside a drawer, under a top, behind a plate",
		LookFor: "Growth rings and knots, open pores, a dark even grain, a pale fine one, or a greasy feel.",
		Outcomes: []Outcome{
			{"rings_knots", "Growth rings, knots", "wood:rings"}, {"open_pores", "Open pores, like short strokes", "wood:pores"}, {"dark_even", "Dark and even", "wood:dark"},
			{"pale_fine", "Pale and fine", "wood:pale"}, {"greasy", "Brown and greasy to touch", "wood:greasy"},
		},
		Rows: []row{
			{"softwood", []float64{.92, .03, .01, .04, 0}}, {"oak", []float64{.02, .92, .03, .02, .01}}, {"dark_wood", []float64{.01, .12, .82, .02, .03}},
			{"pale_wood", []float64{.05, .06, .03, .86, 0}}, {"oily_wood", []float64{0, .12, .2, .01, .67}}, {"veneer", []float64{.08, .32, .34, .24, .02}},
		},
	},
	{
		ID: "worn", Short: "Worn places", Name: "What do worn and chipped places show?", Sees: "worn", Observation: true, On: anything &^ Glass, Cost: .03,
		How: "Look where hands, feet and keys have been.", Where: "Round handles and locks, on edges and feet",
		LookFor: "Other paint below, fine cracks like a net, wood rubbed bare, clear flakes, or chalk.",
		Outcomes: []Outcome{
			{"layers_paint", "Chips show older paint", "worn:layers"}, {"crazed", "Fine cracks like a net", "worn:crazed"}, {"rubbed_thin", "Gently rubbed away", "worn:rubbed"},
			{"flakes_clear", "Clear flakes, white edges", "worn:flakes"}, {"chalky_rub", "Soft and chalky", "worn:chalky"}, {"rust", "Rust", "worn:rust"}, {"clean", "Hardly any wear", "worn:clean"},
		},
		Rows: []row{
			{"/shellac", []float64{0, .32, .48, .05, 0, 0, .15}}, {"/lacquer", []float64{0, .25, .17, .33, 0, 0, .25}}, {"/varnish_oil", []float64{0, .22, .45, .07, .01, 0, .25}},
			{"/finish_wb", []float64{0, .02, .25, .14, 0, 0, .59}}, {"/catalysed", []float64{0, .02, .1, .12, 0, 0, .76}},
			{"steel/paint_alkyd_old steel/paint_acrylic_old", []float64{.48, .04, .02, .01, .05, .3, .1}}, {"/paint_alkyd_old", []float64{.6, .08, .05, .02, .05, 0, .2}},
			{"/paint_acrylic_old", []float64{.35, .03, .1, .02, .02, 0, .48}}, {"/paint_porous_old", []float64{.12, .02, .1, 0, .74, 0, .02}}, {"/paint_porous_waxed", []float64{.1, .01, .22, 0, .48, 0, .19}},
			{"steel/paint_factory", []float64{.08, .01, .05, .01, .01, .36, .48}}, {"steel/powder", []float64{.03, .01, .02, .01, .01, .2, .72}}, {"/paint_factory /powder", []float64{.08, .02, .06, .03, .01, 0, .8}},
			{"/plating", []float64{0, 0, .12, .13, 0, .5, .25}}, {"steel", []float64{0, 0, .1, 0, 0, .8, .1}}, {"zinc", []float64{.01, 0, .35, 0, .04, .2, .4}},
			{"printed", []float64{.02, .01, .08, .05, 0, 0, .84}}, {"board/open", []float64{.01, 0, .4, 0, .02, 0, .57}}, {"/wax /oil", []float64{0, .01, .7, .01, .01, 0, .27}},
			{"/open", []float64{.01, .02, .68, .01, .03, 0, .25}},
		},
	},
	{
		ID: "amber", Short: "The colour of the film", Name: "What colour is the film itself?", Sees: "amber", Observation: true, On: Wood | Cane | Board | Printed, Clear: true, Cost: .04,
		How: "Look at a run, a thick edge or a chip against white paper.", Where: "In corners and along mouldings, where it ran",
		LookFor:  "Amber, water-clear, or no film at all.",
		Outcomes: []Outcome{{"amber", "Amber", "film:amber"}, {"clear", "Clear", "film:clear"}, {"no_film", "There is no film", "film:none"}},
		Rows: []row{
			{"/shellac", []float64{.72, .22, .06}}, {"/lacquer", []float64{.26, .69, .05}}, {"/varnish_oil", []float64{.78, .18, .04}}, {"/finish_wb", []float64{.03, .92, .05}},
			{"/catalysed", []float64{.05, .9, .05}}, {"/wax", []float64{.04, .1, .86}}, {"/oil", []float64{.08, .07, .85}}, {"printed/none", []float64{.02, .55, .43}},
			{"/open", []float64{.01, .03, .96}}, {"/opaque", []float64{.08, .12, .8}},
		},
	},
	{
		ID: "water", Short: "The drop of water", Name: "What does a drop of water do?", Sees: "water", On: anything &^ (Metal | Glass), Cost: .08,
		How: "Leave a drop of clean water for two minutes, then blot it.", Where: "A hidden, level spot",
		LookFor: "Soaking in, a dark patch, a bead that leaves no trace, or a white bloom.", Caution: "Blot it promptly: water swells raw board and leaves rings on wax and shellac.",
		Outcomes: []Outcome{
			{"soaks", "Soaks in at once", "drop:soaks"}, {"slow_dark", "Darkens slowly", "drop:darkens"}, {"beads", "Beads, leaves no trace", "drop:beads"}, {"blooms", "Beads, then a white bloom", "drop:blooms"},
		},
		Rows: []row{
			{"/shellac", []float64{.01, .04, .42, .53}}, {"/lacquer", []float64{.01, .04, .72, .23}}, {"/varnish_oil", []float64{.01, .04, .87, .08}}, {"/finish_wb", []float64{.01, .06, .83, .1}},
			{"/catalysed", []float64{0, .01, .97, .02}}, {"/paint_alkyd_old", []float64{.01, .05, .92, .02}}, {"/paint_acrylic_old", []float64{.03, .11, .77, .09}}, {"/paint_porous_old", []float64{.8, .17, .02, .01}},
			{"/paint_porous_waxed", []float64{.05, .15, .38, .42}}, {"/paint_factory /powder", []float64{0, .01, .98, .01}}, {"mineral/wax", []float64{.03, .2, .7, .07}}, {"leather/wax", []float64{.03, .25, .68, .04}},
			{"/wax", []float64{.04, .12, .36, .48}}, {"/oil", []float64{.07, .63, .26, .04}}, {"paper_board", []float64{.02, .1, .86, .02}}, {"printed plastic vinyl_cloth", []float64{0, .01, .98, .01}},
			{"leather", []float64{.12, .5, .37, .01}}, {"cloth", []float64{.82, .08, .1, 0}}, {"cane", []float64{.35, .5, .14, .01}}, {"mineral", []float64{.88, .08, .04, 0}},
			{"oily_wood", []float64{.2, .5, .29, .01}}, {"/open", []float64{.8, .15, .04, .01}},
		},
	},
	{
		ID: "damp_rag", Short: "The damp rag", Name: "What comes off on a damp white rag?", Sees: "rag", On: anything &^ Glass, Cost: .05,
		How: "Wring a white rag out well and rub ten times with one finger.", Where: "A hidden spot", LookFor: "Chalk, dye, plain dirt, or nothing.",
		Caution: "Keep the rag damp where old paint may contain lead, and bag it.",
		Outcomes: []Outcome{
			{"chalk", "Chalk in its own colour", "rag:chalk"}, {"dye", "Brown or red dye", "rag:dye"}, {"dirt", "Grey dirt", "rag:dirt"}, {"clean", "Nothing", "rag:clean"},
		},
		Rows: []row{
			{"/paint_porous_old", []float64{.79, .03, .12, .06}}, {"/paint_alkyd_old", []float64{.22, .01, .5, .27}}, {"/paint_porous_waxed", []float64{.1, .02, .58, .3}},
			{"/stain_only", []float64{.02, .56, .2, .22}}, {"/paint_acrylic_old", []float64{.05, .02, .4, .53}}, {"leather", []float64{.02, .3, .45, .23}}, {"cloth", []float64{.01, .22, .3, .47}},
			{"dark_wood/none", []float64{.01, .18, .5, .31}}, {"mineral/none", []float64{.14, .01, .55, .3}}, {"aluminium/none zinc/none", []float64{.08, .01, .6, .31}}, {"/open", []float64{.01, .04, .58, .37}}, {"*", []float64{.01, .03, .58, .38}},
		},
	},
	{
		ID: "white_spirit", Short: "White spirit", Name: "What does a white spirit rag take off?", Sees: "wax", On: anything &^ Plastic, Cost: .1,
		How: "Wet a white rag with white spirit and rub an area the size of your palm for half a minute.", Where: "A hidden spot", LookFor: "A yellow-grey rag and the shine gone; plain dirt; or the wood absorbing it.",
		Caution: "Flammable; open a window, no flame, and lay the rag flat outdoors to dry.",
		Outcomes: []Outcome{
			{"yellow_grey", "Yellow-grey, and the shine goes", "rag:wax"}, {"dirt", "Dirt, and the shine stays", "rag:dirt"}, {"soaks", "It soaks in and darkens", "drop:soaks"}, {"nothing", "Nothing", "rag:clean"},
		},
		Rows: []row{
			{"/wax", []float64{.86, .09, .03, .02}}, {"/paint_porous_waxed", []float64{.82, .12, .03, .03}}, {"/shellac", []float64{.24, .48, 0, .28}}, {"/lacquer", []float64{.17, .48, 0, .35}},
			{"/varnish_oil", []float64{.17, .5, 0, .33}}, {"/finish_wb", []float64{.05, .3, 0, .65}}, {"/catalysed", []float64{.04, .25, 0, .71}}, {"/paint_alkyd_old", []float64{.08, .52, .02, .38}},
			{"/paint_acrylic_old", []float64{.05, .35, .03, .57}}, {"/paint_porous_old", []float64{.05, .15, .68, .12}}, {"/oil", []float64{.06, .38, .46, .1}}, {"/paint_factory /powder", []float64{.03, .4, 0, .57}},
			{"wood/open board/open cane/open", []float64{.02, .2, .72, .06}}, {"mineral", []float64{.02, .12, .82, .04}}, {"cloth", []float64{.01, .25, .6, .14}}, {"leather", []float64{.06, .5, .22, .22}}, {"*", []float64{.03, .35, 0, .62}},
		},
	},
	{
		ID: "fingernail", Short: "Fingernail", Name: "What does a fingernail do?", Sees: "hard", On: anything &^ (Metal | Glass), Cost: .05,
		How: "Draw a fingernail over it, pressing hard.", Where: "A hidden spot", LookFor: "A groove with a curl of wax, a dent, powder, or nothing.",
		Outcomes: []Outcome{{"furrow", "A groove and a waxy curl", "nail:furrow"}, {"dent", "A dent", "nail:dent"}, {"powder", "Powder", "nail:powder"}, {"hard", "Nothing", "nail:hard"}},
		Rows: []row{
			{"/wax", []float64{.72, .14, .01, .13}}, {"/paint_porous_waxed", []float64{.6, .13, .1, .17}}, {"/shellac", []float64{.16, .07, .03, .74}}, {"/lacquer", []float64{.09, .07, .02, .82}},
			{"/varnish_oil", []float64{.07, .1, .02, .81}}, {"/finish_wb", []float64{.02, .2, 0, .78}}, {"/catalysed", []float64{.01, .03, 0, .96}}, {"/paint_alkyd_old", []float64{.02, .12, .05, .81}},
			{"/paint_acrylic_old", []float64{.03, .52, .02, .43}}, {"/paint_porous_old", []float64{.02, .1, .7, .18}}, {"/oil", []float64{.05, .45, .02, .48}}, {"softwood/open", []float64{.01, .6, .02, .37}},
			{"/paint_factory /powder", []float64{.01, .06, 0, .93}}, {"paper_board", []float64{.02, .42, 0, .56}}, {"laminate", []float64{0, .03, 0, .97}}, {"vinyl_wrap", []float64{.02, .55, 0, .43}},
			{"polyolefin", []float64{.05, .65, 0, .3}}, {"plastic_hard", []float64{0, .12, 0, .88}}, {"cover", []float64{.02, .75, .01, .22}}, {"mineral", []float64{.02, .06, .22, .7}}, {"/open", []float64{.01, .42, .02, .55}},
		},
	},
	{
		ID: "scrape", Short: "Blade", Name: "What does a blade scrape off?", Sees: "hard", On: Wood | Board | Cane | Printed, Disturbs: true, Cost: .3,
		How: "Draw a sharp blade, held upright, over a spot the size of your thumbnail.", Where: "Where it will never be seen", LookFor: "Soft shavings, a tough curl, brittle amber powder, or chalk.",
		Caution: "Never where old paint may contain lead. It permanently spoils a print.",
		Outcomes: []Outcome{
			{"wax_shavings", "Soft shavings of wax", "scrape:wax"}, {"curl", "A tough curl", "scrape:curl"}, {"amber_powder", "Brittle powder, amber or white", "scrape:powder"}, {"chalk", "Chalk", "scrape:chalk"}, {"none", "Nothing but wood", "scrape:wood"},
		},
		Rows: []row{
			{"/wax", []float64{.72, .04, .04, .01, .19}}, {"/paint_porous_waxed", []float64{.15, .05, .02, .7, .08}}, {"/shellac", []float64{.06, .06, .79, .01, .08}}, {"/lacquer", []float64{.02, .12, .74, .02, .1}},
			{"/varnish_oil", []float64{.02, .45, .46, .01, .06}}, {"/finish_wb", []float64{.01, .76, .1, .03, .1}}, {"/catalysed", []float64{.01, .6, .14, .02, .23}}, {"/paint_alkyd_old", []float64{.01, .55, .3, .1, .04}},
			{"/paint_acrylic_old", []float64{.02, .86, .02, .05, .05}}, {"/paint_porous_old", []float64{.01, .04, .02, .87, .06}}, {"/oil", []float64{.08, .04, .05, .01, .82}}, {"/paint_factory", []float64{.01, .55, .15, .05, .24}},
			{"*", []float64{.01, .03, .02, .03, .91}},
		},
	},
	{
		ID: "alcohol", Short: "Alcohol", Name: "What does alcohol do?", Sees: "solvent", On: Wood | Board | Printed | Cane | Metal, Cost: .12,
		How: "Hold a cotton bud wet with alcohol on it for a minute, then touch and wipe.", Where: "A hidden spot", LookFor: "Whether it turns sticky within a minute, softens slowly, colours the cotton, or does nothing.",
		Caution: "Flammable; open a window, no flame. It crazes acrylic plastic.",
		Outcomes: []Outcome{
			{"sticky", "Sticky within a minute", "bud:sticky"}, {"softens_slow", "Dulls and softens slowly", "bud:soft"}, {"colours_rag", "Colours the cotton", "bud:coloured"}, {"nothing", "Nothing", "bud:clean"},
		},
		Rows: []row{
			{"/shellac", []float64{.88, .09, .01, .02}}, {"/lacquer", []float64{.06, .62, .02, .3}}, {"/varnish_oil", []float64{.01, .1, .01, .88}}, {"/finish_wb", []float64{.04, .58, .03, .35}}, {"/catalysed", []float64{0, .03, .01, .96}},
			{"/paint_alkyd_old", []float64{.01, .07, .04, .88}}, {"/paint_acrylic_old", []float64{.07, .2, .66, .07}}, {"/paint_porous_old", []float64{.01, .04, .2, .75}}, {"/paint_porous_waxed", []float64{.02, .06, .1, .82}},
			{"/wax", []float64{.02, .08, .02, .88}}, {"/oil", []float64{.01, .05, .04, .9}}, {"/stain_only", []float64{.01, .03, .6, .36}}, {"/paint_factory /powder", []float64{0, .03, .02, .95}}, {"*", []float64{.01, .03, .03, .93}},
		},
	},
	{
		ID: "thinner", Short: "Lacquer thinner", Name: "What does lacquer thinner do?", Sees: "solvent", On: Wood | Board | Printed | Cane | Metal, Cost: .25,
		How: "Touch it with a cotton bud wet with lacquer thinner for half a minute, then wipe.", Where: "Where it will never be seen", LookFor: "Whether it dissolves at once, wrinkles, colours the cotton, or does nothing.",
		Caution: "Harmful vapour, very flammable: outdoors or at an open window, with gloves. It permanently marks plastics and most films.",
		Outcomes: []Outcome{
			{"dissolves", "Dissolves at once", "bud:dissolves"}, {"wrinkles", "Wrinkles or swells", "bud:wrinkles"}, {"colours_rag", "Colours the cotton", "bud:coloured"}, {"nothing", "Nothing", "bud:clean"},
		},
		Rows: []row{
			{"/shellac", []float64{.2, .62, .02, .16}}, {"/lacquer", []float64{.93, .05, .01, .01}}, {"/varnish_oil", []float64{.02, .52, .01, .45}}, {"/finish_wb", []float64{.1, .62, .05, .23}}, {"/catalysed", []float64{.01, .06, .01, .92}},
			{"/paint_alkyd_old", []float64{.04, .65, .08, .23}}, {"/paint_acrylic_old", []float64{.2, .35, .4, .05}}, {"/paint_porous_old", []float64{.02, .06, .15, .77}}, {"/paint_porous_waxed", []float64{.03, .1, .12, .75}},
			{"/wax", []float64{.1, .05, .02, .83}}, {"/oil", []float64{.04, .08, .03, .85}}, {"/stain_only", []float64{.02, .02, .5, .46}}, {"/paint_factory /powder", []float64{.01, .14, .03, .82}},
			{"vinyl_wrap", []float64{.05, .72, .03, .2}}, {"paper_board", []float64{.02, .2, .05, .73}}, {"*", []float64{.01, .02, .02, .95}},
		},
	},
	{
		ID: "hot_pin", Short: "The hot pin", Name: "What does a hot pin do?", Sees: "heat", On: Printed | Plastic | Cloth, Disturbs: true, Cost: .35,
		How: "Heat a needle, held with pliers, and touch it where it does not show.", Where: "Under an edge or inside a seam", LookFor: "Melting with a smell of plastic, charring with a smell of wood or hair, or nothing.",
		Caution:  "Never where old paint may contain lead or near solvent; a needle, never a flame; open a window.",
		Outcomes: []Outcome{{"melts", "It melts", "pin:melts"}, {"chars", "It chars", "pin:chars"}, {"nothing", "Nothing", "pin:nothing"}},
		Rows: []row{
			{"vinyl_wrap", []float64{.85, .02, .13}}, {"laminate", []float64{.02, .08, .9}}, {"paper_board", []float64{.04, .54, .42}}, {"polyolefin", []float64{.97, .01, .02}}, {"plastic", []float64{.9, .03, .07}},
			{"vinyl_cloth", []float64{.93, .02, .05}}, {"leather", []float64{.02, .35, .63}}, {"cloth", []float64{.27, .58, .15}},
		},
	},
	{
		ID: "smell", Short: "The smell", Name: "What does it smell of when you rub it warm?", Sees: "smell", On: anything &^ (Metal | Glass), Cost: .04,
		How: "Rub hard with a dry thumb until it is warm, then smell.", Where: "Inside, where air does not reach", LookFor: "Wax, oil, plastic, or nothing.",
		Outcomes: []Outcome{{"wax", "Wax or turpentine", "smell:wax"}, {"oil", "Oil", "smell:oil"}, {"plastic", "Plastic", "smell:plastic"}, {"none", "Nothing", "smell:none"}},
		Rows: []row{
			{"/wax", []float64{.58, .04, .01, .37}}, {"/paint_porous_waxed", []float64{.45, .02, .01, .52}}, {"/oil", []float64{.03, .55, .01, .41}}, {"/shellac", []float64{.13, .02, .01, .84}},
			{"/lacquer /varnish_oil", []float64{.09, .04, .02, .85}}, {"vinyl_wrap", []float64{.01, 0, .42, .57}}, {"vinyl_cloth", []float64{.01, .01, .58, .4}}, {"plastic", []float64{.01, .01, .4, .58}}, {"leather", []float64{.12, .08, .03, .77}},
			{"oily_wood", []float64{.05, .3, .01, .64}}, {"*", []float64{.03, .03, .04, .9}},
		},
	},
	{
		ID: "tape", Short: "The tape", Name: "What does tape pull off?", Sees: "rag", On: anything &^ (Glass | Cloth), Cost: .12,
		How: "Press a strip of strong clear tape on it and pull it off in one go.", Where: "A hidden spot", LookFor: "Powder on the glue, flakes, or nothing.",
		Caution:  "Where old paint may contain lead, fold the tape together at once and bag it.",
		Outcomes: []Outcome{{"powder", "Powder", "tape:powder"}, {"flakes", "Flakes", "tape:flakes"}, {"clean", "Nothing", "tape:clean"}},
		Rows: []row{
			{"/paint_porous_old", []float64{.72, .15, .13}}, {"/paint_porous_waxed", []float64{.12, .08, .8}}, {"zinc/opaque printed/opaque", []float64{.04, .58, .38}}, {"/paint_alkyd_old", []float64{.08, .36, .56}},
			{"/paint_acrylic_old", []float64{.03, .2, .77}}, {"/lacquer /shellac", []float64{.02, .1, .88}}, {"mineral/none", []float64{.15, .02, .83}}, {"*", []float64{.01, .03, .96}},
		},
	},
	{
		ID: "uv", Short: "UV torch", Name: "How does it glow under a UV torch?", Sees: "uv", Observation: true, On: Wood | Cane | Printed, Clear: true, Cost: .15,
		How: "Make the room dark and shine a UV torch at it from a hand's width away.", Where: "A clean spot; polish glows too", LookFor: "Orange, greenish, milky blue, or nothing.",
		Caution:  "Never look into the lamp or point it at anyone.",
		Outcomes: []Outcome{{"orange", "Orange", "glow:orange"}, {"green", "Greenish", "glow:green"}, {"bluish", "Milky blue", "glow:blue"}, {"none", "Hardly at all", "glow:none"}},
		Rows: []row{
			{"/shellac", []float64{.81, .04, .05, .1}}, {"/lacquer", []float64{.06, .57, .12, .25}}, {"/varnish_oil", []float64{.05, .1, .1, .75}}, {"/finish_wb", []float64{.01, .04, .55, .4}}, {"/catalysed", []float64{.02, .1, .5, .38}},
			{"/wax", []float64{.05, .03, .32, .6}}, {"/oil", []float64{.08, .06, .1, .76}}, {"printed", []float64{.01, .04, .5, .45}}, {"/paint_acrylic_old", []float64{.01, .04, .4, .55}}, {"*", []float64{.03, .05, .13, .79}},
		},
	},
	{
		ID: "scratch_metal", Short: "The scratch", Name: "What does a scratch show?", Sees: "metal", On: Metal, Disturbs: true, Cost: .2,
		How: "Scratch once with the corner of a coin.", Where: "Under a foot, inside a rim", LookFor: "Soft silver, dull grey, yellow, hard bright grey, or only the coat.",
		Caution: "Never through old paint that may contain lead.",
		Outcomes: []Outcome{
			{"silver_soft", "Soft, silver white", "scratch:silver"}, {"grey", "Dull grey", "scratch:grey"}, {"yellow", "Yellow or red", "scratch:yellow"}, {"steel", "Hard, bright grey", "scratch:steel"}, {"chips", "Only the coat", "scratch:coat"},
		},
		Rows: []row{
			{"steel/opaque", []float64{.02, .06, .01, .5, .41}}, {"zinc/opaque", []float64{.06, .52, .01, .06, .35}}, {"aluminium/opaque", []float64{.6, .05, .01, .03, .31}},
			{"steel", []float64{.02, .07, .02, .88, .01}}, {"zinc", []float64{.1, .76, .01, .13, 0}}, {"aluminium", []float64{.9, .07, .01, .02, 0}}, {"brass", []float64{.01, .01, .95, .03, 0}}, {"stainless", []float64{.02, .02, .01, .95, 0}},
		},
	},
	{
		ID: "mark", Short: "The mark", Name: "Is there a mark moulded into it?", Sees: "mark", Observation: true, On: Plastic, Cost: .02,
		How: "Look for a triangle with letters.", Where: "Underneath", LookFor: "PE or PP, or other letters.",
		Outcomes: []Outcome{{"pe_pp", "PE or PP", "mark:pp"}, {"other", "Other letters", "mark:abs"}, {"none", "None", "mark:none"}},
		Rows:     []row{{"polyolefin", []float64{.68, .02, .3}}, {"plastic", []float64{.02, .38, .6}}},
	},
	{
		ID: "back", Short: "The back of the cover", Name: "What is the back of the cover like?", Sees: "cover", Observation: true, On: Cloth, Cost: .05,
		How: "Lift the dust cover under the seat, or look inside a seam.", Where: "Under the seat", LookFor: "A knitted or woven backing under a skin, suede, or the same cloth.",
		Outcomes: []Outcome{{"knit", "A backing under a skin", "back:knit"}, {"suede", "Like suede", "back:suede"}, {"woven", "The same cloth", "back:woven"}},
		Rows:     []row{{"vinyl_cloth", []float64{.9, .03, .07}}, {"leather", []float64{.03, .93, .04}}, {"cloth", []float64{.05, .03, .92}}},
	},
}
