package craft

// Traits are what a coat family is like once it is dry. Working defaults.
type Traits struct {
	// Rigid coats crack where what they lie on flexes.
	Rigid bool
	// Soaps tells that zinc and fresh alkaline mineral turn its binder to soap.
	Soaps bool
	// Hard ranks brittleness from 0, rubbery, to 3: what is far harder and
	// thinner than what it lies on cracks over it.
	Hard int
	// Durability ranks how much wear it takes as the last coat, from 0, none, to 5, a
	// floor.
	Durability int
	// Outside tells that it is weatherproof.
	Outside bool
	// Blocks tells that two faces of it stick together until it is cured.
	Blocks bool
}

// TraitsOf is indexed by Coat.
var TraitsOf = [NoCoat + 1]Traits{
	MK: {Rigid: true, Hard: 1, Durability: 0},
	MB: {Rigid: true, Hard: 1, Durability: 0},
	CP: {Hard: 1, Durability: 0},
	AC: {Hard: 0, Durability: 2, Blocks: true},
	ME: {Rigid: true, Hard: 1, Durability: 3, Blocks: true},
	OE: {Rigid: true, Soaps: true, Hard: 3, Durability: 4, Outside: true},
	AE: {Rigid: true, Hard: 3, Durability: 3, Outside: true},
	SH: {Rigid: true, Hard: 2, Durability: 1},
	BP: {Hard: 1, Durability: 1, Outside: true},
	SO: {Rigid: true, Soaps: true, Hard: 2, Durability: 1, Outside: true},
	SW: {Hard: 1, Durability: 1, Outside: true},
	EP: {Rigid: true, Hard: 3, Durability: 3, Outside: true},
	MP: {Rigid: true, Soaps: true, Hard: 2, Durability: 1, Outside: true},
	ZP: {Hard: 1, Durability: 1, Outside: true},
	PP: {Hard: 1, Outside: true},
	GP: {Hard: 1, Durability: 1, Outside: true},
	MS: {Hard: 0, Durability: 1, Outside: true},
	FX: {Hard: 0, Durability: 3},
	WP: {Hard: 1, Durability: 3, Blocks: true},
	WH: {Rigid: true, Hard: 2, Durability: 5},
	OP: {Rigid: true, Soaps: true, Hard: 2, Durability: 4, Outside: true},
	WX: {Durability: 1},
	OL: {Soaps: true, Durability: 3, Outside: true},
	TX: {Durability: 3},
	CM: {},
	GZ: {},
}

// DurabilityNeeded is the durability that the last coat must have for a wear. The weather needs
// other things than durability. Working default.
var DurabilityNeeded = [numWears]int{Display: 0, Handled: 1, Seat: 3, Tabletop: 4, WetWear: 4, Outdoor: 1, Floor: 5}

// Softens is how long after painting water still softens it, in hours at 23 C: easily up to Easy,
// with effort up to Works, and only by wearing it out up to Never. All are 0 for a paint that water
// does not soften.
type Softens struct{ Easy, Works, Never float64 }

// Harm is what a cleaner damages.
type Harm struct {
	// Substrates it harms where they are bare, by id, and the top families that it harms on any
	// substrate.
	Substrates []string
	Families   []Family
	// Ruins tells that the surface is spoilt; otherwise care is enough.
	Ruins bool
	Says  string // what happens, as a sentence
}

var films = []Family{ShellacFilm, VarnishFilm, LacquerFilm, AcrylicPaint, PrimerFilm, AlkydPaint, PorousPaint}

// Harms are what each cleaner damages, by its id.
var Harms = map[string][]Harm{
	"alcohol": {
		{nil, []Family{ShellacFilm}, true, "Alcohol dissolves shellac."},
		{[]string{"plastic_acrylic"}, nil, true, "Alcohol crazes acrylic plastic."},
	},
	"acetone": {
		{[]string{"foam_craft"}, []Family{PlasticHard, VinylRigid, VinylSoft, MelamineFilm}, true, "Acetone melts and clouds plastic."},
		{nil, films, true, "Acetone dissolves or lifts any film."},
	},
	"ammonia_water": {
		{[]string{"brass", "copper"}, nil, true, "Ammonia corrodes brass and copper."},
		{[]string{"mirror"}, nil, true, "Ammonia creeps behind a mirror and blackens its backing."},
		{[]string{"aluminium"}, nil, true, "Ammonia attacks aluminium."},
		{nil, []Family{ShellacFilm}, true, "Ammonia dissolves shellac."},
	},
	"degreaser_alkaline": {
		{[]string{"aluminium", "brass"}, nil, false, "Alkali stains aluminium and brass: apply it briefly and rinse at once."},
		{[]string{"mdf", "particleboard", "paper_foil_board"}, nil, false, "Water swells raw board: use a wrung-out cloth, never a wet one."},
	},
	"detergent": {
		{[]string{"mdf", "particleboard", "paper_foil_board"}, nil, false, "Water swells raw board: use a wrung-out cloth, never a wet one."},
	},
	"vinegar_water": {
		{[]string{"stone", "concrete"}, nil, true, "Acid etches marble, limestone and cement."},
	},
	"white_spirit": {
		{[]string{"foam_craft"}, nil, true, "Solvent melts craft foam."},
		{[]string{"plastic_polyolefin"}, nil, false, "White spirit swells some plastics: try it first where it does not show."},
	},
	"deglosser_liquid": {
		{[]string{"foam_craft"}, []Family{PlasticHard, Polyolefin, VinylRigid, VinylSoft}, true, "Deglosser softens and crazes plastic."},
		{[]string{"paper_foil_board"}, nil, true, "Solvent takes the print off its paper."},
	},
}

// AbrasionLimit is how much abrasion a surface stands.
type AbrasionLimit struct {
	// Coarsest is the lowest grit number allowed by hand, 0 where there is no
	// limit; PadOnly and None allow less still.
	Coarsest      int
	PadOnly, None bool
	// Thin layers are cut through; on others the scratches show.
	Thin bool
	Says string
}

// LimitVeneer is what any veneer stands, and LimitPaper printed paper.
var (
	LimitVeneer = AbrasionLimit{Coarsest: 150, Thin: true, Says: "there is only half a millimetre of veneer: nothing coarser than 150, by hand"}
	LimitPaper  = AbrasionLimit{PadOnly: true, Thin: true, Says: "the print is one sheet of paper: use a fine pad and nothing else"}
)

// Limits are what surfaces allow, by the exposed family.
var Limits = map[Family]AbrasionLimit{
	MelamineFilm: {Coarsest: 180, Thin: true, Says: "the printed layer is thin: take the shine off with 180 or finer, by hand"},
	VinylRigid:   {PadOnly: true, Thin: true, Says: "foil tears and cuts through: use a fine pad and nothing else"},
	VinylSoft:    {PadOnly: true, Thin: true, Says: "vinyl cloth cuts through: use a fine pad and nothing else"},
	MetalZinc:    {PadOnly: true, Says: "grit cuts through zinc and gouges soft metal: a pad is enough"},
	GlassSmooth:  {None: true, Says: "scratches in glass and glaze stay: use a primer made for it instead"},
	PlasticHard:  {Coarsest: 320, Says: "scratches in plastic show through: sand wet with 320"},
	Polyolefin:   {Coarsest: 320, Says: "coarser grit only makes it fuzzy: sand wet with 320"},
	Leather:      {PadOnly: true, Thin: true, Says: "grit cuts through the grain of leather: use a fine pad"},
}

// CutThrough are the defaults for what is below something that is stripped off, by substrate: the
// board under a foil or a printed paper.
var CutThrough = map[string]Family{"vinyl_wrap": BoardRaw, "paper_foil_board": BoardRaw}

// FreshMineral is how many days cement and plaster stay alkaline enough to turn
// an oil binder to soap. Working default.
const FreshMineral = 120.
