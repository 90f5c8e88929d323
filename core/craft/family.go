package craft

import "slices"

// Family is the kind of surface under a coat: the rows of the grip table. A bare substrate has one,
// an old finish has one, and a dried coat becomes one.
type Family uint8

// The surface families.
const (
	WoodBare Family = iota
	BoardRaw
	WoodOily
	ShellacFilm // an old finish of shellac: it has wax in it
	ShellacNew  // new dewaxed shellac, the tie coat
	VarnishFilm
	LacquerFilm
	AcrylicPaint
	PrimerFilm
	Promoted
	AlkydPaint
	PorousPaint
	MelamineFilm
	VinylRigid
	VinylSoft
	PlasticHard
	Polyolefin
	MetalFerrous
	MetalZinc
	MetalLight
	MetalNonferrous
	MetalChrome
	PowderFilm
	GlassSmooth
	MineralPorous
	Leather
	Textile
	WaxFilm
	OilFilm
	// NumFamilies counts the families.
	NumFamilies
)

// FamilyRow describes one surface family.
type FamilyRow struct {
	ID   string
	Name string // as a painter would say it, for the middle of a sentence
	// Need is how much an existing film, or a dried coat past its window,
	// depends on being abraded: 0 not at all, 1 wholly.
	Need float64
	// Natural is the key that the bare surface has without sanding, 0 where it follows from the
	// gloss. Bare porous surfaces are keyed by nature, bare metal nearly so.
	Natural float64
	// Best is the best key abrasion may give here without harm; a key counts
	// as a share of it. 1 where the surface stands full abrasion.
	Best float64
	// ScuffGrit and ScuffHow say how a painter keys this surface; grit 0 with
	// how empty means it is not abraded at all.
	ScuffGrit int
	ScuffHow  How
	// Porous surfaces absorb the first coat.
	Porous bool
}

// Unsure is what a bare surface adds to the spread of the log of a strength, by family: one chrome
// holds what the next one sheds. Working default.
var Unsure = [NumFamilies]float64{MetalChrome: .2}

// Unkeyed is the most that any coat reaches on a bare surface without abrasion, by family; 0 where
// there is no such limit. Working default.
var Unkeyed = [NumFamilies]float64{MetalChrome: .4}

// BareMetal tells whether the family is bare metal.
func (f Family) BareMetal() bool { return f >= MetalFerrous && f <= MetalChrome }

// Families is indexed by Family.
var Families = [NumFamilies]FamilyRow{
	WoodBare:        {"wood_bare", "bare wood", 0, 1, 1, 220, Hand, true},
	BoardRaw:        {"board_raw", "raw board", 0, 1, 1, 220, Hand, true},
	WoodOily:        {"wood_oily", "bare oily wood", 0, 1, 1, 180, Hand, true},
	ShellacFilm:     {"shellac_film", "shellac", .3, 0, 1, 320, Hand, false},
	ShellacNew:      {"shellac_new", "new shellac", .3, 0, 1, 320, Hand, false},
	VarnishFilm:     {"varnish_film", "varnish", .6, 0, 1, 220, Hand, false},
	LacquerFilm:     {"lacquer_film", "lacquer", .6, 0, 1, 220, Hand, false},
	AcrylicPaint:    {"acrylic_paint", "acrylic paint", .4, 0, 1, 240, Hand, false},
	PrimerFilm:      {"primer_film", "primer", .6, 0, 1, 240, Hand, false},
	Promoted:        {"promoted", "plastic with promoter", 0, 1, 1, 0, "", false},
	AlkydPaint:      {"alkyd_paint", "oil paint", .6, 0, 1, 220, Hand, false},
	PorousPaint:     {"porous_paint", "matt porous paint", 0, 0, 1, 240, Hand, true},
	MelamineFilm:    {"melamine_film", "laminate", .9, 0, 1, 220, Hand, false},
	VinylRigid:      {"vinyl_rigid", "rigid vinyl", .8, 0, .7, 0, Pad, false},
	VinylSoft:       {"vinyl_soft", "soft vinyl", .4, 0, .7, 0, Pad, false},
	PlasticHard:     {"plastic_hard", "hard plastic", .8, 0, .75, 320, Wet, false},
	Polyolefin:      {"polyolefin", "polyolefin plastic", .3, 0, .75, 320, Wet, false},
	MetalFerrous:    {"metal_ferrous", "bare steel or iron", .6, .7, 1, 180, Hand, false},
	MetalZinc:       {"metal_zinc", "zinc", .6, .7, .7, 0, Pad, false},
	MetalLight:      {"metal_light", "light alloy", .6, .7, 1, 240, Hand, false},
	MetalNonferrous: {"metal_nonferrous", "bright metal", .6, .7, 1, 240, Hand, false},
	MetalChrome:     {"metal_chrome", "chrome", 1, 0, 1, 240, Hand, false},
	PowderFilm:      {"powder_film", "powder coating", .8, 0, 1, 220, Hand, false},
	GlassSmooth:     {"glass_smooth", "glass or glaze", .3, 0, 1, 0, "", false},
	MineralPorous:   {"mineral_porous", "porous mineral", 0, 1, 1, 120, Hand, true},
	Leather:         {"leather", "leather", .4, 0, 1, 0, Pad, false},
	Textile:         {"textile", "cloth", 0, 1, 1, 0, "", true},
	WaxFilm:         {"wax_film", "wax", 0, 1, 1, 0, "", false},
	OilFilm:         {"oil_film", "an oiled surface", .1, 0, 1, 240, Hand, false},
}

// String returns the family's id.
func (f Family) String() string {
	if f < NumFamilies {
		return Families[f].ID
	}
	return "none"
}

// Coat is the family a coat belongs to: what the grip table's columns are
// named after.
type Coat uint8

// The coat families. NoCoat colours or treats the surface without a film.
const (
	MK Coat = iota // milk paint, powder, no additive
	MB             // milk paint with the full bonding additive
	CP             // chalk and clay paint
	AC             // acrylic
	ME             // mineral and water-borne enamel
	OE             // oil enamel
	AE             // aerosol enamel or lacquer
	SH             // shellac
	BP             // bonding primer
	SO             // solvent stain blocker
	SW             // water-based stain blocker
	EP             // epoxy primer
	MP             // metal primer
	ZP             // primer for zinc
	PP             // plastic promoter
	GP             // glass primer
	MS             // masonry sealer
	FX             // flexible paint
	WP             // water-based clear
	WH             // water-based clear, hard
	OP             // oil-based clear
	WX             // wax
	OL             // oil
	PA             // aerosol primer
	ET             // etch primer
	TX             // fabric wash
	CM             // crackle or lift medium
	GZ             // glaze
	// NoCoat leaves no film.
	NoCoat
	// NumCoats counts the columns that have a grip figure.
	NumCoats = NoCoat
)

// CoatRow describes one coat family.
type CoatRow struct {
	ID   string
	Name string
	// Sens is how much the coat suffers when the surface lacks its key.
	Sens float64
	// Floor is what is left of the bond when the lower coat's window was
	// missed by its own length and nothing was scuffed.
	Floor float64
	// Self is the grip on another coat of the same product inside its window.
	Self float64
	// Binds tells that the coat soaks into and binds an old powdery paint.
	Binds bool
	// Block is the coat's row in the blocking table unless its product names
	// another.
	Block BlockKind
	// Made are the surfaces a special primer is made for; none stands for any.
	// It limits what is advised and not what is judged.
	Made []Family
}

// MadeFor tells whether the coat is recommended for a surface.
func (r *CoatRow) MadeFor(f Family) bool { return len(r.Made) == 0 || slices.Contains(r.Made, f) }

// Coats is indexed by Coat.
var Coats = [NoCoat + 1]CoatRow{
	MK:     {"MK", "milk paint", .95, .55, .85, false, BlockFilmless, nil},
	MB:     {"MB", "milk paint with additive", .7, .55, .90, false, BlockFilmless, nil},
	CP:     {"CP", "chalk paint", .45, .55, .95, false, BlockPaint, nil},
	AC:     {"AC", "acrylic", .75, .55, .95, false, BlockPaint, nil},
	ME:     {"ME", "enamel", .55, .55, .95, false, BlockPaint, nil},
	OE:     {"OE", "oil enamel", .65, .4, .95, false, BlockOil, nil},
	AE:     {"AE", "aerosol coat", .5, .55, .95, false, BlockOil, nil},
	SH:     {"SH", "shellac", .3, .55, 1, true, BlockShellacClear, nil},
	BP:     {"BP", "bonding primer", .45, .65, .95, false, BlockBond, nil},
	SO:     {"SO", "solvent stain blocker", .5, .55, .95, true, BlockStainOil, nil},
	SW:     {"SW", "water-based stain blocker", .6, .65, .95, false, BlockStainWater, nil},
	EP:     {"EP", "epoxy primer", .5, .4, .95, false, BlockEpoxy, nil},
	MP:     {"MP", "metal primer", .5, .55, .95, false, BlockMetal, []Family{MetalFerrous}},
	ZP:     {"ZP", "primer for zinc and light alloy", .5, .65, .95, false, BlockGalv, []Family{MetalZinc, MetalLight}},
	PP:     {"PP", "plastic promoter", .3, .55, .95, false, BlockNothing, []Family{PlasticHard, Polyolefin, VinylRigid}},
	GP:     {"GP", "glass primer", .2, .55, .95, false, BlockNothing, []Family{GlassSmooth}},
	MS:     {"MS", "masonry sealer", .5, .55, .95, true, BlockMasonry, []Family{MineralPorous}},
	FX:     {"FX", "flexible paint", .6, .55, .95, false, BlockFlexible, nil},
	WP:     {"WP", "water-based clear", .7, .65, .95, true, BlockFilmless, nil},
	WH:     {"WH", "hard water-based clear", .7, .4, .95, true, BlockFilmless, nil},
	OP:     {"OP", "oil-based clear", .65, .55, .95, true, BlockOil, nil},
	WX:     {"WX", "wax", .5, .55, .95, false, BlockFilmless, nil},
	OL:     {"OL", "oil", .5, .55, .95, false, BlockFilmless, nil},
	PA:     {"PA", "aerosol primer", .5, .7, .95, true, BlockNothing, nil},
	ET:     {"ET", "etch primer", .5, .55, .95, false, BlockNothing, []Family{MetalFerrous, MetalLight, MetalNonferrous}},
	TX:     {"TX", "fabric wash", .5, .55, .95, false, BlockFilmless, nil},
	CM:     {"CM", "medium", .5, .55, .95, false, BlockNothing, nil},
	GZ:     {"GZ", "glaze", .5, .55, .95, false, BlockFilmless, nil},
	NoCoat: {"none", "no film", 0, 1, 1, false, BlockNothing, nil},
}

// String returns the coat family's id.
func (c Coat) String() string {
	if c <= NoCoat {
		return Coats[c].ID
	}
	return "?"
}
