package craft

import (
	"fmt"
	"slices"
	"strings"
)

// Stand is how a surface stands something that is done to it.
type Stand uint8

// The grades. The zero value is no answer: every surface must give one.
const (
	NoAnswer Stand = iota
	Stands         // no harm
	NeedsCare
	AtRisk
	Ruined // or whoever works on it is hurt
)

// Treatment is something done to a surface that may harm it: a cleaner, or a way of stripping.
type Treatment string

// The ways of stripping. What a tin of stripper is made of is on its label; where nothing is said a
// stripper is taken as one of solvent.
const (
	StripChemical Treatment = "chemical"
	StripCaustic  Treatment = "caustic"
	StripScrape   Treatment = "scrape"
	StripHeat     Treatment = "heat"
	StripSand     Treatment = "sand"
)

// Treatments are the columns of [StandsOf], in its order: first the cleaners, then the ways of
// stripping.
var Treatments = []Treatment{
	"vacuum_tack", "detergent", "degreaser_alkaline", "vinegar_water", "white_spirit", "alcohol", "acetone",
	"deglosser_liquid", "ammonia_water", "biocide_wash", "rust_converter", "dry_brush",
	StripChemical, StripCaustic, StripScrape, StripHeat, StripSand,
}

// StandsOf is how each family of surfaces stands each of [Treatments]: a dot for no harm, c for care,
// r for a risk, x for ruin. A surface of the family stands the same unless [StandsExcept] has a row
// for it. Working defaults.
var StandsOf = [NumFamilies]string{
	//               v d d v w a a d a b r d   c c s h s
	WoodBare:        "........ccr." + ".c.c.",
	BoardRaw:        "...c....ccr." + "cr.r.",
	WoodOily:        "........ccr." + ".r.c.",
	ShellacFilm:     ".....xx.xcr." + "...c.",
	ShellacNew:      ".....xx.xcr." + "...c.",
	VarnishFilm:     "......x..cr." + ".....",
	LacquerFilm:     ".....cxc.cr." + "...x.",
	AcrylicPaint:    ".....cxc.cr." + ".....",
	PrimerFilm:      "......x..cr." + ".....",
	Promoted:        "......xx.cr." + ".....",
	AlkydPaint:      "......x..cr." + ".....",
	PorousPaint:     "......x..cr." + ".....",
	MelamineFilm:    "......xc...c" + "rrcxx",
	VinylRigid:      "....c.xx...c" + "xr.xc",
	VinylSoft:       "....c.xx.r.c" + "xxxxx",
	PlasticHard:     "....c.xx...c" + "xcrxr",
	Polyolefin:      "....c.cx...c" + "xcrxr",
	MetalFerrous:    "...c.....c.." + "...c.",
	MetalZinc:       "..cr....rcr." + ".xcrr",
	MetalLight:      "..cc....xcrc" + ".xcc.",
	MetalNonferrous: "..cc....xcrc" + ".rcc.",
	MetalChrome:     "...c....ccrc" + ".ccrr",
	PowderFilm:      "......cc.c.." + "..cr.",
	GlassSmooth:     "...........c" + ".c.xr",
	MineralPorous:   "...xc....cr." + "cr.r.",
	Leather:         "..ccccxxcrrc" + "xxxxx",
	Textile:         "..cccccrcrr." + "xxxxx",
	WaxFilm:         "........ccr." + "...c.",
	OilFilm:         "........ccr." + "...c.",
}

// Exception is a surface that stands a treatment otherwise than its family does.
type Exception struct {
	To         []Treatment
	Substrates []string // where they are bare, for a cleaner
	Finishes   []string
	Veneer     bool // any veneer
	Stand      Stand
	Says       string // what happens, as a sentence
}

// StandsExcept are the exceptions to [StandsOf]. Working defaults.
var StandsExcept = []Exception{
	{To: []Treatment{"detergent", "degreaser_alkaline"}, Substrates: []string{"mdf", "particleboard", "paper_foil_board"}, Stand: NeedsCare, Says: "Water swells raw board: use a wrung-out cloth, never a wet one."},
	{To: []Treatment{"alcohol"}, Substrates: []string{"plastic_acrylic"}, Stand: Ruined, Says: "Alcohol crazes acrylic plastic."},
	{To: []Treatment{"alcohol"}, Substrates: []string{"plastic_unknown"}, Stand: NeedsCare, Says: "Alcohol crazes some plastics: try it first where it does not show."},
	{To: []Treatment{"acetone", "deglosser_liquid"}, Substrates: []string{"plastic_unknown"}, Stand: Ruined, Says: "Strong solvent melts or crazes most plastics."},
	{To: []Treatment{"ammonia_water"}, Substrates: []string{"mirror"}, Stand: Ruined, Says: "Ammonia creeps behind a mirror and blackens its backing."},
	{To: []Treatment{"vinegar_water"}, Substrates: []string{"terracotta"}, Stand: NeedsCare, Says: "Acid eats the lime in some clays: try it first where it does not show, and rinse."},
	{To: []Treatment{"white_spirit"}, Substrates: []string{"foam_craft"}, Stand: Ruined, Says: "Solvent melts craft foam."},
	{To: []Treatment{"deglosser_liquid"}, Substrates: []string{"paper_foil_board"}, Stand: Ruined, Says: "Solvent takes the print off its paper."},

	{To: []Treatment{StripCaustic}, Substrates: []string{"oak", "chestnut", "mahogany"}, Stand: Ruined, Says: "Caustic stripper turns oak and mahogany black and opens their joints."},
	{To: []Treatment{StripCaustic}, Substrates: []string{"walnut", "cherry", "unknown_wood"}, Stand: AtRisk, Says: "Caustic stripper darkens wood with tannin."},
	{To: []Treatment{StripCaustic}, Substrates: []string{"plywood"}, Veneer: true, Stand: Ruined, Says: "Caustic stripper dissolves the glue below a veneer."},
	{To: []Treatment{StripHeat}, Veneer: true, Stand: Ruined, Says: "Hot air melts the glue: the veneer comes up in blisters."},
	{To: []Treatment{StripHeat}, Substrates: []string{"plywood"}, Stand: AtRisk, Says: "Hot air melts the glue between the plies."},
	{To: []Treatment{StripHeat}, Substrates: []string{"willow", "rush", "seagrass", "paper_cord", "bamboo", "rattan"}, Stand: Ruined, Says: "Cane and grass scorch and catch fire under hot air."},
	{To: []Treatment{StripHeat}, Finishes: []string{"catalysed", "paint_factory"}, Stand: AtRisk, Says: "Two-part and baked coats give off fumes under hot air and hardly soften."},
	{To: []Treatment{StripHeat}, Finishes: []string{"lacquer"}, Stand: Ruined, Says: "Nitrocellulose lacquer flares up under hot air."},
	{To: []Treatment{StripHeat}, Substrates: []string{"galvanised"}, Stand: AtRisk, Says: "Hot zinc gives off fumes that make people ill."},
	{To: []Treatment{StripSand}, Veneer: true, Stand: Ruined, Says: "There is only half a millimetre of veneer: coarse grit goes through it."},
	{To: []Treatment{StripScrape}, Veneer: true, Stand: AtRisk, Says: "A scraper digs into veneer: keep it flat and sharp, and let the finish go in thin curls."},
	{To: []Treatment{StripSand}, Substrates: []string{"mirror"}, Stand: Ruined, Says: "A scratched mirror is ruined."},
	{To: []Treatment{StripSand, StripScrape, StripChemical}, Substrates: []string{"paper_foil_board"}, Stand: NeedsCare, Says: "The printed paper goes as well, down to the board."},
}

// The words where a family's answer has none of its own: what happens to a surface that stands a
// treatment with care, at risk, or not at all. One %s stands for the surface.
var harmWords = map[Treatment][3]string{
	"detergent":          {"Use a wrung-out cloth on %s, not a wet one.", "Water harms %s.", "Water ruins %s."},
	"degreaser_alkaline": {"Alkali stains %s: apply it briefly and rinse at once.", "Alkali attacks %s.", "Alkali ruins %s."},
	"vinegar_water":      {"Acid may mark %s: apply it briefly and rinse at once.", "Acid attacks %s.", "Acid etches marble, limestone and cement."},
	"white_spirit":       {"White spirit swells or darkens some of this: try it on %s first where it does not show.", "White spirit attacks %s.", "White spirit ruins %s."},
	"alcohol":            {"Alcohol softens or pales %s: try it first where it does not show, and wipe once.", "Alcohol attacks %s.", "Alcohol dissolves shellac."},
	"acetone":            {"Acetone dulls %s: try it first where it does not show.", "Acetone attacks %s.", "Acetone melts, clouds or dissolves %s."},
	"deglosser_liquid":   {"Deglosser softens %s: try it first where it does not show.", "Deglosser takes the colour of %s.", "Deglosser softens and crazes %s."},
	"ammonia_water":      {"Ammonia darkens or dulls %s: try it first where it does not show.", "Ammonia attacks %s.", "Ammonia corrodes or dissolves %s."},
	"biocide_wash":       {"Bleach in it pales %s: rinse well.", "Bleach in it takes the colour of %s.", "Bleach ruins %s."},
	"rust_converter":     {"Rust converter marks %s.", "Rust converter stains %s black: it is for rusty steel.", "Rust converter ruins %s."},
	"dry_brush":          {"A stiff brush scratches %s: use a soft one.", "A brush scratches %s.", "A brush ruins %s."},
	StripChemical:        {"Keep the stripper short on %s and take it off while it is wet.", "Stripper may cloud or lift %s: only where it was tried first.", "Stripper melts or dissolves %s."},
	StripCaustic:         {"Caustic stripper burns skin and eyes, and darkens %s: neutralise it with vinegar to pH 6 to 8, rinse, and let it dry for days.", "Caustic stripper attacks %s.", "Caustic stripper destroys %s."},
	StripScrape:          {"A scraper scratches %s: keep it flat.", "A scraper gouges %s.", "A scraper cuts %s."},
	StripHeat:            {"Hot air scorches %s: low setting, and keep moving.", "Hot air may crack, blister or discolour %s.", "Hot air melts, cracks or scorches %s, and what comes off is harmful."},
	StripSand:            {"Sanding %s off is coarse work.", "Sanding leaves scratches in %s that stay.", "Sanding goes through %s."},
}

// Answer is how a surface stands a treatment, and what happens.
type Answer struct {
	Stand Stand
	words string // with one %s for the surface, where of names one
	of    string
}

// Because is an answer with its sentence.
func Because(s Stand, says string) Answer { return Answer{Stand: s, words: says} }

// Says is what happens, as a sentence; empty for no harm.
func (a Answer) Says() string {
	if a.of == "" {
		return a.words
	}
	return fmt.Sprintf(a.words, a.of)
}

// StandsTo tells how a surface stands a treatment: what is on top of it by its family, the material
// and the finish by their exceptions. bare tells that the material itself is exposed; a cleaner does
// not reach it otherwise, a stripper always does.
func (c *Craft) StandsTo(to Treatment, top Family, sub Substrate, fin Finish, veneer, bare bool) Answer {
	at, known := treatmentAt[to]
	if !known {
		return Answer{Stand: NoAnswer}
	}
	strips := at >= firstStrip
	worst := c.familyStands(to, at, top, sub, fin, veneer, bare || strips)
	if strips && c.Substrates[sub].Family != top {
		if a := c.familyStands(to, at, c.Substrates[sub].Family, sub, fin, veneer, true); a.Stand > worst.Stand {
			worst = a
		}
	}
	return worst
}

// Where each treatment is in Treatments, where the ways of stripping begin there, and the exceptions to each.
var (
	treatmentAt = map[Treatment]int{}
	firstStrip  = slices.Index(Treatments, StripChemical)
	exceptions  = make([][]*Exception, len(Treatments))
)

func init() {
	for at, to := range Treatments {
		treatmentAt[to] = at
		for i := range StandsExcept {
			if x := &StandsExcept[i]; slices.Contains(x.To, to) {
				exceptions[at] = append(exceptions[at], x)
			}
		}
	}
}

// familyStands is the answer of one family, or of the worst exception to it.
func (c *Craft) familyStands(to Treatment, at int, f Family, sub Substrate, fin Finish, veneer, bare bool) Answer {
	var a Answer
	for _, x := range exceptions[at] {
		applies := bare && x.Veneer && veneer ||
			bare && c.Substrates[sub].Family == f && slices.Contains(x.Substrates, c.Substrates[sub].ID) ||
			len(x.Finishes) > 0 && c.Finishes[fin].Family == f && !c.Finishes[fin].Bare && slices.Contains(x.Finishes, c.Finishes[fin].ID)
		if applies && x.Stand > a.Stand {
			a = Because(x.Stand, x.Says)
		}
	}
	if a.Stand != NoAnswer {
		return a
	}
	a.Stand = letters[StandsOf[f][at]]
	if a.Stand > Stands {
		a.words = harmWords[to][a.Stand-NeedsCare]
		if strings.Contains(a.words, "%s") {
			a.of = Families[f].Name
		}
	}
	return a
}

var letters = map[byte]Stand{'.': Stands, 'c': NeedsCare, 'r': AtRisk, 'x': Ruined}
