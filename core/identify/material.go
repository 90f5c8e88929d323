// Package identify turns looks and small tests into a belief about a surface's material and finish,
// says which test to make next, and names answers that contradict each other. The tables of this
// package are working defaults from general knowledge of old finishes and materials, not
// measurements.
package identify

import "slices"

// Material is what a thing may be made of, as far as small tests tell.
type Material struct {
	ID, Name string
	Group    Group
	// Substrates are the craft's substrates it stands for, the usual one first.
	Substrates []string
	Veneer     bool
	// Prior is how often a painter meets it, where nothing is known. Working
	// default.
	Prior float64
	// Finishes are what may be on it, with how often each is met. Working
	// default.
	Finishes map[string]float64
}

// Group gathers materials on which the same tests can be made.
type Group uint16

// The groups.
const (
	Wood Group = 1 << iota
	Board
	Printed
	Cane
	Metal
	Glass
	Mineral
	Plastic
	Cloth
	anything = Wood | Board | Printed | Cane | Metal | Glass | Mineral | Plastic | Cloth
)

// groupIDs name the groups in the tables' selectors.
var groupIDs = map[string]Group{
	"wood": Wood, "board": Board, "printed": Printed, "cane": Cane, "metal": Metal, "glassy": Glass,
	"mineral": Mineral, "plastic": Plastic, "cover": Cloth,
}

// groupNames say a group within a sentence.
var groupNames = []struct {
	Group
	Name string
}{
	{Wood, "wood"}, {Board, "board"}, {Printed, "laminate, foil or printed board"}, {Cane, "cane"}, {Metal, "metal"},
	{Glass, "glass or glaze"}, {Mineral, "clay, stone or plaster"}, {Plastic, "plastic"}, {Cloth, "cloth or leather"},
}

// finish is a finish that a material may have. Finishes that behave the same under a coat and that
// no small test distinguishes are one.
type finish struct{ id, name string }

var finishes = []finish{
	{"none", "Bare"},
	{"stain_only", "Stain without a film"},
	{"wax", "Wax"},
	{"oil", "Oil"},
	{"shellac", "Shellac"},
	{"lacquer", "Lacquer"},
	{"varnish_oil", "Oil varnish or polyurethane"},
	{"finish_wb", "Water-based clear"},
	{"catalysed", "Catalysed lacquer"},
	{"paint_alkyd_old", "Old oil paint"},
	{"paint_acrylic_old", "Old acrylic paint"},
	{"paint_porous_old", "Old chalky paint"},
	{"paint_porous_waxed", "Old matt paint under wax"},
	{"paint_factory", "Factory two-part or baked paint"},
	{"powder", "Powder coating"},
	{"plating", "Plating"},
}

// alike are finishes of the craft that count as another here.
var alike = map[string]string{"polyurethane": "varnish_oil"}

// finishGroups name several finishes in the tables' selectors.
var finishGroups = map[string][]string{
	"clear":  {"shellac", "lacquer", "varnish_oil", "finish_wb", "catalysed"},
	"opaque": {"paint_alkyd_old", "paint_acrylic_old", "paint_porous_old", "paint_porous_waxed", "paint_factory", "powder"},
	"open":   {"none", "stain_only"},
}

type shares = map[string]float64

// onWood are the finishes of old and new wooden things.
var onWood = shares{
	"none": .07, "stain_only": .04, "wax": .10, "oil": .06, "shellac": .14, "lacquer": .14, "varnish_oil": .19, "finish_wb": .04,
	"catalysed": .05, "paint_alkyd_old": .07, "paint_acrylic_old": .05, "paint_porous_old": .02, "paint_porous_waxed": .03, "paint_factory": .01,
}

// Materials lists what a thing may be made of.
var Materials = []Material{
	{"softwood", "Softwood (pine)", Wood, []string{"pine", "spruce", "fir", "cedar", "redwood"}, false, .16, onWood},
	{"oak", "Open-grained wood (oak)", Wood, []string{"oak", "chestnut", "ash"}, false, .10, onWood},
	{"dark_wood", "Dark wood (mahogany, walnut)", Wood, []string{"mahogany", "walnut", "cherry"}, false, .10, onWood},
	{"pale_wood", "Pale dense wood (beech)", Wood, []string{"beech", "birch", "maple", "lime", "poplar"}, false, .08, onWood},
	{"oily_wood", "Oily wood (teak)", Wood, []string{"teak", "rosewood"}, false, .02, shares{"none": .25, "oil": .45, "wax": .05, "lacquer": .1, "varnish_oil": .12, "shellac": .02, "catalysed": .01}},
	{"veneer", "Veneer", Wood, []string{"unknown_wood"}, true, .13, shares{
		"none": .02, "stain_only": .01, "wax": .04, "oil": .03, "shellac": .14, "lacquer": .28, "varnish_oil": .22, "finish_wb": .05,
		"catalysed": .12, "paint_alkyd_old": .02, "paint_acrylic_old": .04, "paint_porous_old": .005, "paint_porous_waxed": .02, "paint_factory": .01,
	}},
	{"mdf", "MDF or plywood", Board, []string{"mdf", "plywood", "hardboard", "particleboard"}, false, .05, shares{"none": .25, "lacquer": .04, "catalysed": .04, "paint_alkyd_old": .1, "paint_acrylic_old": .35, "paint_porous_old": .02, "paint_factory": .2}},
	{"paper_board", "Printed paper on chipboard", Printed, []string{"paper_foil_board"}, false, .07, shares{"none": .9, "paint_alkyd_old": .02, "paint_acrylic_old": .06, "paint_porous_old": .02}},
	{"laminate", "Laminate or melamine", Printed, []string{"melamine", "laminate_hpl"}, false, .07, shares{"none": .9, "paint_alkyd_old": .03, "paint_acrylic_old": .06, "paint_porous_old": .01}},
	{"vinyl_wrap", "Vinyl foil", Printed, []string{"vinyl_wrap"}, false, .03, shares{"none": .95, "paint_alkyd_old": .01, "paint_acrylic_old": .04}},
	{"cane", "Cane or wicker", Cane, []string{"rattan", "bamboo", "willow", "rush", "seagrass", "paper_cord"}, false, .02, shares{"none": .45, "lacquer": .25, "varnish_oil": .1, "paint_alkyd_old": .1, "paint_acrylic_old": .1}},
	{"steel", "Steel or iron", Metal, []string{"steel", "cast_iron"}, false, .04, shares{"none": .12, "lacquer": .03, "paint_alkyd_old": .3, "paint_acrylic_old": .05, "paint_factory": .25, "powder": .15, "plating": .1}},
	{"zinc", "Galvanised steel", Metal, []string{"galvanised"}, false, .01, shares{"none": .7, "paint_alkyd_old": .15, "paint_acrylic_old": .05, "powder": .1}},
	{"aluminium", "Aluminium", Metal, []string{"aluminium"}, false, .01, shares{"none": .5, "lacquer": .05, "paint_alkyd_old": .1, "paint_acrylic_old": .05, "paint_factory": .1, "powder": .2}},
	{"brass", "Brass or copper", Metal, []string{"brass", "copper"}, false, .01, shares{"none": .55, "lacquer": .4, "plating": .05}},
	{"stainless", "Stainless steel", Metal, []string{"stainless", "chrome"}, false, .01, shares{"none": 1}},
	{"glass", "Glass or glazed ceramic", Glass, []string{"glass", "mirror", "ceramic_glazed"}, false, .02, shares{"none": .93, "paint_alkyd_old": .04, "paint_acrylic_old": .03}},
	{"terracotta", "Terracotta", Mineral, []string{"terracotta"}, false, .015, shares{"none": .75, "wax": .1, "paint_acrylic_old": .1, "paint_porous_old": .05}},
	{"stone", "Stone, concrete or plaster", Mineral, []string{"plaster", "stone", "concrete"}, false, .015, shares{"none": .5, "wax": .1, "paint_alkyd_old": .1, "paint_acrylic_old": .15, "paint_porous_old": .15}},
	{"plastic_hard", "Hard plastic", Plastic, []string{"plastic_abs", "plastic_acrylic", "plastic_pvc", "resin_cast", "foam_craft"}, false, .015, shares{"none": .9, "paint_acrylic_old": .1}},
	{"polyolefin", "Polyethylene or polypropylene", Plastic, []string{"plastic_polyolefin"}, false, .01, shares{"none": 1}},
	{"vinyl_cloth", "Vinyl cloth", Cloth, []string{"vinyl_fabric"}, false, .015, shares{"none": 1}},
	{"leather", "Leather", Cloth, []string{"leather"}, false, .01, shares{"none": .85, "wax": .15}},
	{"cloth", "Cloth", Cloth, []string{"fabric_woven", "fabric_pile"}, false, .015, shares{"none": 1}},
}

// Hypothesis is one thing that a surface may be. Material and Finish index [Materials] and the
// finishes; the last of [Hypotheses], with both below 0, is everything that the tables do not know.
type Hypothesis struct {
	Material, Finish int
	prior            float64 // without knowing anything
}

// other is how often something is met that no table here describes, under
// which every answer is as likely as the next. Working default: it lets a
// belief fall where the answers fit nothing.
const other = .01

// Hypotheses lists everything a surface may be.
var Hypotheses = func() []Hypothesis {
	var out []Hypothesis
	for m := range Materials {
		sum := 0.
		for _, w := range Materials[m].Finishes {
			sum += w
		}
		for f := range finishes {
			if w := Materials[m].Finishes[finishes[f].id]; w > 0 {
				out = append(out, Hypothesis{m, f, Materials[m].Prior * w / sum * (1 - other)})
			}
		}
	}
	return append(out, Hypothesis{-1, -1, other})
}()

// MaterialOf is the index of the material that a substrate of the craft is, or
// below 0 where that is not known of it.
func MaterialOf(substrate string) int {
	return slices.IndexFunc(Materials, func(m Material) bool { return !m.Veneer && slices.Contains(m.Substrates, substrate) })
}

// Same tells whether two finishes of the craft are one as far as small tests
// tell.
func Same(a, b string) bool { return finishOf(a) >= 0 && finishOf(a) == finishOf(b) }

// finishOf is the index of a finish of the craft, below 0 if tests do not distinguish it.
func finishOf(id string) int {
	if a, ok := alike[id]; ok {
		id = a
	}
	return slices.IndexFunc(finishes, func(f finish) bool { return f.id == id })
}
