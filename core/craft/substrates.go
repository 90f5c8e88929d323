package craft

// Implied is a bleeder that a substrate or a finish always brings.
type Implied struct {
	Bleeder Bleeder
	Level   uint8
}

// Energy is how readily a liquid wets the bare material.
type Energy uint8

// The wetting classes.
const (
	EnergyVeryLow Energy = iota
	EnergyLow
	EnergyMedium
	EnergyHigh
)

var energyIDs = [...]string{"very_low", "low", "medium", "high"}

// String returns the energy's id.
func (e Energy) String() string { return energyIDs[e] }

// Group gathers substrates for choosing from.
type Group string

// The groups of substrates.
const (
	GroupWood    Group = "wood"
	GroupBoard   Group = "board"
	GroupCane    Group = "cane"
	GroupFilm    Group = "laminate and vinyl"
	GroupCloth   Group = "cloth and leather"
	GroupMetal   Group = "metal"
	GroupGlass   Group = "glass"
	GroupMineral Group = "mineral"
	GroupPlastic Group = "plastic"
)

// SubstrateRow describes what a part is made of.
type SubstrateRow struct {
	ID       string
	Name     string
	Group    Group
	Family   Family
	Porosity float64 // 0 is not absorbent, 1 fully
	Need     float64 // how much the bare material depends on being abraded
	Energy   Energy
	Bleeds   []Implied
	// Knotted is the resin level where knots are counted; 0 if it has none.
	Knotted uint8
	// Grip scales every grip on the bare material; 1 except for metals that nearly every coat comes
	// off.
	Grip    float64
	Unknown bool
	Colour  string // usual colour for the ground, as #rrggbb
	Caution string
}

// Paper tells that its face is printed paper, which a grit cuts through.
func (r *SubstrateRow) Paper() bool { return r.ID == "paper_foil_board" }

// Glazed tells that its face is a glaze.
func (r *SubstrateRow) Glazed() bool { return r.ID == "ceramic_glazed" }

// Mirror tells that it has a backing, and that a scratch is the end of it.
func (r *SubstrateRow) Mirror() bool { return r.ID == "mirror" }

// Foam tells that solvent melts it.
func (r *SubstrateRow) Foam() bool { return r.ID == "foam_craft" }

// Sensitises tells that the dust of this wood makes people allergic. Working default.
func (r *SubstrateRow) Sensitises() bool {
	switch r.ID {
	case "oak", "cedar", "redwood", "chestnut", "mahogany", "teak", "rosewood", "walnut":
		return true
	}
	return false
}

// Alkaline tells that it turns an oil binder to soap while it is new.
func (r *SubstrateRow) Alkaline() bool {
	return r.ID == "concrete" || r.ID == "plaster" || r.ID == "stone"
}

var (
	tannin1 = []Implied{{Tannin, 1}}
	tannin2 = []Implied{{Tannin, 2}}
	resin1  = []Implied{{Resin, 1}}
	salts1  = []Implied{{Salts, 1}}
)

func softwood(id, name, colour string) SubstrateRow {
	return SubstrateRow{id, name, GroupWood, WoodBare, .6, .1, EnergyHigh, resin1, 2, 1, false, colour, "the grain raises; resin streaks even where no knot shows"}
}

func hardwood(id, name, colour string) SubstrateRow {
	return SubstrateRow{id, name, GroupWood, WoodBare, .4, .1, EnergyHigh, nil, 0, 1, false, colour, "dense woods take paint less evenly than softwood"}
}

func woven(id, name, colour string) SubstrateRow {
	return SubstrateRow{id, name, GroupCane, WoodBare, .8, .1, EnergyHigh, nil, 0, 1, false, colour, "brittle when dry; absorbent; flexes"}
}

func plastic(id, name, colour string) SubstrateRow {
	return SubstrateRow{id, name, GroupPlastic, PlasticHard, 0, .8, EnergyMedium, nil, 0, 1, false, colour, "strong solvents craze it"}
}

func mineral(id, name, colour string) SubstrateRow {
	return SubstrateRow{id, name, GroupMineral, MineralPorous, .8, .1, EnergyHigh, salts1, 0, 1, false, colour, "alkaline when new"}
}

var defaultSubstrates = []SubstrateRow{
	softwood("pine", "Pine", "#e0bd85"),
	softwood("spruce", "Spruce", "#e6cb9c"),
	softwood("fir", "Fir", "#ddb98a"),
	{"cedar", "Cedar", GroupWood, WoodBare, .6, .15, EnergyMedium, tannin2, 0, 1, false, "#b57a55", "strong tannins"},
	{"redwood", "Redwood", GroupWood, WoodBare, .6, .15, EnergyMedium, tannin2, 0, 1, false, "#a86a4c", "strong tannins"},
	{"oak", "Oak", GroupWood, WoodBare, .5, .1, EnergyHigh, tannin2, 0, 1, false, "#c09a66", "open grain shows through; iron and damp leave a blue-black stain"},
	{"chestnut", "Chestnut", GroupWood, WoodBare, .5, .1, EnergyHigh, tannin2, 0, 1, false, "#b48c5c", "open grain shows through; iron and damp leave a blue-black stain"},
	{"walnut", "Walnut", GroupWood, WoodBare, .4, .1, EnergyHigh, tannin2, 0, 1, false, "#76563c", ""},
	{"mahogany", "Mahogany", GroupWood, WoodBare, .4, .1, EnergyHigh, []Implied{{Tannin, 2}, {Dye, 1}}, 0, 1, false, "#8d4f36", "old pieces are often dyed red as well"},
	{"cherry", "Cherry", GroupWood, WoodBare, .3, .1, EnergyHigh, tannin1, 0, 1, false, "#b5734b", ""},
	hardwood("maple", "Maple", "#e3cba2"),
	hardwood("birch", "Birch", "#e4cda6"),
	hardwood("beech", "Beech", "#d9b48c"),
	hardwood("ash", "Ash", "#dfc8a0"),
	hardwood("lime", "Lime", "#e2cda8"),
	hardwood("poplar", "Poplar", "#d8cda3"),
	{"teak", "Teak", GroupWood, WoodOily, .2, .2, EnergyLow, tannin1, 0, 1, false, "#a3733f", "naturally oily: wipe with solvent just before sealing"},
	{"rosewood", "Rosewood", GroupWood, WoodOily, .2, .2, EnergyLow, tannin1, 0, 1, false, "#5e3427", "naturally oily: wipe with solvent just before sealing"},
	{"unknown_wood", "Unknown wood", GroupWood, WoodBare, .5, .1, EnergyHigh, tannin1, 0, 1, true, "#b58d62", "treat it as bleeding until a test says otherwise"},
	{"plywood", "Plywood", GroupBoard, BoardRaw, .7, .1, EnergyHigh, nil, 0, 1, false, "#d9bb8b", "edges are absorbent"},
	{"hardboard", "Hardboard", GroupBoard, BoardRaw, .7, .1, EnergyHigh, []Implied{{Dye, 1}}, 0, 1, false, "#7f5b3c", "edges are absorbent"},
	{"mdf", "MDF", GroupBoard, BoardRaw, .7, .1, EnergyHigh, nil, 0, 1, false, "#b89670", "edges are absorbent; water swells it"},
	{"particleboard", "Particleboard", GroupBoard, BoardRaw, .7, .1, EnergyHigh, nil, 0, 1, false, "#c2a377", "edges are absorbent; water swells it"},
	{"bamboo", "Bamboo", GroupCane, LacquerFilm, .1, .5, EnergyMedium, nil, 0, 1, false, "#d6b878", "hard, slick skin, often lacquered"},
	{"rattan", "Rattan or cane", GroupCane, LacquerFilm, .1, .5, EnergyMedium, nil, 0, 1, false, "#cfa66b", "hard, slick skin, often lacquered"},
	woven("willow", "Willow", "#a98459"),
	woven("rush", "Rush", "#b9a36a"),
	woven("seagrass", "Seagrass", "#b5a677"),
	woven("paper_cord", "Paper cord", "#c9ab7d"),
	{"paper_foil_board", "Printed paper on board", GroupFilm, MelamineFilm, .1, .7, EnergyMedium, nil, 0, 1, false, "#c7a377", "the paper tears and swells: scuff with a pad, use hardly any water, shellac first"},
	{"laminate_hpl", "High-pressure laminate", GroupFilm, MelamineFilm, .02, .9, EnergyLow, nil, 0, 1, false, "#e9e6df", "the printed layer is thin: sand the shine off, not the print"},
	{"melamine", "Melamine board", GroupFilm, MelamineFilm, .02, .9, EnergyLow, nil, 0, 1, false, "#f0eee8", "the printed layer is thin: sand the shine off, not the print"},
	{"vinyl_wrap", "Vinyl-wrapped board", GroupFilm, VinylRigid, .01, .8, EnergyLow, []Implied{{Plasticiser, 1}}, 0, 1, false, "#e7e4dc", "peels or shrinks with heat; strip loose foil"},
	{"vinyl_fabric", "Vinyl cloth", GroupCloth, VinylSoft, .01, .4, EnergyLow, []Implied{{Plasticiser, 2}}, 0, 1, false, "#7c2f2c", "flexes; its plasticiser permanently softens hard coats"},
	{"leather", "Leather", GroupCloth, Leather, .3, .4, EnergyMedium, nil, 0, 1, false, "#7a4b2e", "flexes; aniline-dyed leather bleeds"},
	{"fabric_woven", "Woven cloth", GroupCloth, Textile, .95, 0, EnergyHigh, nil, 0, 1, false, "#cfc6b4", "can only be dyed darker; undiluted paint makes it stiff"},
	{"fabric_pile", "Velvet or pile", GroupCloth, Textile, .95, 0, EnergyHigh, nil, 0, 1, false, "#9c5b52", "can only be dyed darker; undiluted paint makes it stiff"},
	{"steel", "Steel", GroupMetal, MetalFerrous, 0, .6, EnergyHigh, []Implied{{Rust, 1}}, 0, 1, false, "#8d9398", "flash-rusts under water-based coats"},
	{"cast_iron", "Cast iron", GroupMetal, MetalFerrous, 0, .6, EnergyHigh, []Implied{{Rust, 1}}, 0, 1, false, "#5c5e61", "flash-rusts under water-based coats"},
	{"galvanised", "Galvanised steel", GroupMetal, MetalZinc, 0, .6, EnergyMedium, nil, 0, 1, false, "#b4bbc0", "oil and alkyd paints turn to soap on zinc and come off"},
	{"aluminium", "Aluminium", GroupMetal, MetalLight, 0, .6, EnergyMedium, nil, 0, 1, false, "#c9cdd0", "its oxide grows back within hours"},
	{"brass", "Brass", GroupMetal, MetalNonferrous, 0, .6, EnergyMedium, nil, 0, 1, false, "#c3a253", "ammonia corrodes it"},
	{"copper", "Copper", GroupMetal, MetalNonferrous, 0, .6, EnergyMedium, nil, 0, 1, false, "#b87850", "ammonia corrodes it"},
	{"stainless", "Stainless steel", GroupMetal, MetalNonferrous, 0, .8, EnergyLow, nil, 0, .75, false, "#bfc3c6", "most coats come off it"},
	{"chrome", "Chrome", GroupMetal, MetalChrome, 0, 1, EnergyLow, nil, 0, 1, false, "#d5dade", "nearly everything comes off it"},
	{"glass", "Glass", GroupGlass, GlassSmooth, 0, .3, EnergyHigh, nil, 0, 1, false, "#d8e4e2", "needs a primer made for glass, not sanding"},
	{"mirror", "Mirror", GroupGlass, GlassSmooth, 0, .3, EnergyHigh, nil, 0, 1, false, "#cfd8da", "ammonia attacks the backing"},
	{"ceramic_glazed", "Glazed ceramic", GroupGlass, GlassSmooth, 0, .3, EnergyHigh, nil, 0, 1, false, "#ebe8e0", "needs a primer made for glass or tile, not sanding"},
	{"terracotta", "Terracotta", GroupMineral, MineralPorous, .9, .1, EnergyHigh, salts1, 0, 1, false, "#bf6f4a", "damp from behind lifts any film; sometimes sealed with wax"},
	mineral("stone", "Stone", "#b9b4a7"),
	mineral("concrete", "Concrete", "#a5a49d"),
	mineral("plaster", "Plaster", "#e8e2d6"),
	plastic("plastic_abs", "ABS plastic", "#d7d3ca"),
	plastic("plastic_acrylic", "Acrylic plastic", "#e2e6e6"),
	plastic("plastic_pvc", "Rigid PVC", "#e8e7e3"),
	plastic("resin_cast", "Cast resin", "#d8cdb9"),
	{"plastic_polyolefin", "Polyethylene or polypropylene", GroupPlastic, Polyolefin, 0, .3, EnergyVeryLow, nil, 0, 1, false, "#dcdad4", "almost nothing sticks without a promoter"},
	{"plastic_unknown", "Unknown plastic", GroupPlastic, Polyolefin, 0, .5, EnergyLow, nil, 0, 1, true, "#d5d2ca", "assume the worst until tested"},
	{"foam_craft", "Craft foam", GroupPlastic, PlasticHard, .3, .2, EnergyMedium, nil, 0, 1, false, "#eeeae0", "solvent and aerosol coats melt it: water-based only"},
}

// Coating is what kind of coating a finish is, as far as that tells of lead.
type Coating uint8

// The kinds. Old paint and old oil varnish were made with lead, and factory coats as well; other clears
// hardly; wax, oil, stain, foil and plating are no coatings in this sense.
const (
	NoCoating Coating = iota
	CoatingClear
	CoatingGlaze
	CoatingFactory // also a finish that nobody knows
	CoatingVarnish
	CoatingPaint
)

// FinishRow describes a present finish.
type FinishRow struct {
	ID   string
	Name string
	// Bare finishes leave the substrate's own family to be met.
	Bare bool
	// Family is what a coat meets; Under what a white spirit wash exposes
	// below a wax, NumFamilies for the substrate's own.
	Family, Under Family
	// Lets is the share of stains from below that an intact film lets through, and LetsDye the same
	// for dye.
	Lets, LetsDye float64
	// Coating is what kind of coating it is, as far as that tells of lead.
	Coating Coating
	// Powdery films need binding before anything holds on them.
	Powdery bool
	Bleeds  []Implied
	Dye     bool // an alcohol coat dissolves a dye below it
	// Hard films are two-part or baked: strong solvent does not lift them.
	Hard    bool
	Unknown bool
	Tells   string // how it gives itself away
	// Colour of the ground if it hides the substrate; Deepen darkens the
	// substrate's colour, in L*, where it does not.
	Colour string
	Deepen float64
}

var defaultFinishes = []FinishRow{
	{ID: "none", Name: "Bare", Bare: true, Lets: 1, LetsDye: 1, Tells: "nothing over the material: a drop of water, a rag or a nail touches the material itself"},
	{ID: "wax", Name: "Wax", Family: WaxFilm, Under: NumFamilies, Lets: 1, LetsDye: 1, Tells: "a white spirit rag turns yellow-grey; a fingernail leaves a groove; water beads, then whitens", Deepen: 6},
	{ID: "oil", Name: "Oil", Family: OilFilm, Lets: 1, LetsDye: 1, Tells: "no film to scrape, sheen in the grain, a slight smell", Deepen: 9},
	{ID: "shellac", Name: "Shellac", Coating: CoatingClear, Family: ShellacFilm, Lets: .25, LetsDye: .6, Dye: true, Tells: "alcohol makes it sticky within a minute", Deepen: 12},
	{ID: "lacquer", Name: "Lacquer", Coating: CoatingClear, Family: LacquerFilm, Lets: .5, LetsDye: .6, Dye: true, Tells: "alcohol acts slowly, lacquer thinner dissolves it at once", Deepen: 9},
	{ID: "varnish_oil", Name: "Oil varnish", Family: VarnishFilm, Lets: .35, LetsDye: .6, Coating: CoatingVarnish, Tells: "alcohol and thinner only wrinkle it or do nothing; ambered; scrapes to a curl or powder", Deepen: 14},
	{ID: "polyurethane", Name: "Polyurethane", Family: VarnishFilm, Lets: .35, LetsDye: .6, Coating: CoatingVarnish, Tells: "alcohol and thinner do nothing; ambered; scrapes to a curl or powder", Deepen: 12},
	{ID: "finish_wb", Name: "Water-based clear", Coating: CoatingClear, Family: VarnishFilm, Lets: 1, LetsDye: 1, Tells: "clear, not ambered; alcohol softens it slowly", Deepen: 6},
	{ID: "catalysed", Name: "Catalysed lacquer", Coating: CoatingClear, Family: LacquerFilm, Lets: .35, LetsDye: .6, Hard: true, Tells: "nothing dissolves it; looks like hard plastic", Deepen: 8},
	{ID: "paint_alkyd_old", Name: "Old oil paint", Family: AlkydPaint, Lets: .4, LetsDye: .6, Coating: CoatingPaint, Tells: "alcohol does not soften it; chalks or yellows", Colour: "#e3dabd"},
	{ID: "paint_acrylic_old", Name: "Old acrylic paint", Family: AcrylicPaint, Lets: 1, LetsDye: 1, Coating: CoatingPaint, Tells: "alcohol softens it and colours the rag", Colour: "#dcd8cc"},
	{ID: "paint_porous_old", Name: "Old chalky paint", Family: PorousPaint, Lets: 1, LetsDye: 1, Coating: CoatingPaint, Powdery: true, Tells: "chalky, absorbs water, rubs off on a damp cloth", Colour: "#cfd2c8"},
	{ID: "factory_film", Name: "Printed factory film", Coating: CoatingFactory, Family: MelamineFilm, Lets: 1, LetsDye: 1, Tells: "repeating print, perfectly even, plastic edge band", Colour: "#d3b88e"},
	{ID: "paint_porous_waxed", Name: "Old matt paint under wax", Family: WaxFilm, Under: PorousPaint, Lets: 1, LetsDye: 1, Coating: CoatingPaint, Tells: "chalky paint with a soft sheen that a white spirit rag removes", Colour: "#c9ccc0"},
	{ID: "paint_factory", Name: "Factory two-part or baked paint", Coating: CoatingFactory, Family: LacquerFilm, Lets: 1, LetsDye: 1, Hard: true, Tells: "perfectly even and hard; nothing softens it", Colour: "#e9e8e3"},
	{ID: "stain_only", Name: "Stain without a film", Bare: true, Lets: 1, LetsDye: 1, Bleeds: []Implied{{Dye, 2}}, Tells: "coloured, absorbs water, colours a wet cloth", Deepen: 22},
	{ID: "foil", Name: "Vinyl foil", Family: VinylRigid, Lets: 1, LetsDye: 1, Bleeds: []Implied{{Plasticiser, 1}}, Tells: "a seam or lifted corner; rounded edges without a joint", Colour: "#e6e2d8"},
	{ID: "powder", Name: "Powder coating", Coating: CoatingFactory, Family: PowderFilm, Lets: 1, LetsDye: 1, Tells: "even orange-peel texture on metal, no brush marks; solvent does nothing", Colour: "#dfe0dd"},
	{ID: "plating", Name: "Plating", Family: MetalChrome, Lets: 1, LetsDye: 1, Tells: "mirror-bright, flakes to another metal underneath", Colour: "#d0d4d6"},
	{ID: "unknown", Name: "Not known", Coating: CoatingFactory, Unknown: true, Lets: 1, LetsDye: 1, Tells: "anything not tested", Deepen: 10},
}

// plausible lists, by what a bare substrate's family is, the finishes that an
// untested surface may carry. The check walks every one of them and reports
// the worst. "none" stands where people overlook nothing by it.
var plausible = map[Family][]string{
	WoodBare:        {"wax", "oil", "shellac", "lacquer", "varnish_oil"},
	WoodOily:        {"wax", "oil", "lacquer", "varnish_oil"},
	BoardRaw:        {"none", "lacquer", "paint_acrylic_old"},
	LacquerFilm:     {"none", "wax"},
	MetalFerrous:    {"none", "lacquer", "paint_alkyd_old", "powder"},
	MetalZinc:       {"none", "powder"},
	MetalLight:      {"none", "powder", "lacquer"},
	MetalNonferrous: {"none", "lacquer"},
	MetalChrome:     {"none", "lacquer"},
	MineralPorous:   {"none", "wax", "paint_porous_old"},
	Leather:         {"none", "wax"},
}
