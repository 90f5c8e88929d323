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
	// BlocksDays is for how many days two faces of it stick together where they close on each other.
	BlocksDays float64
}

// TraitsOf is indexed by Coat.
var TraitsOf = [NoCoat + 1]Traits{
	MK: {Rigid: true, Hard: 1, Durability: 0},
	MB: {Rigid: true, Hard: 1, Durability: 0},
	CP: {Hard: 1, Durability: 0},
	AC: {Hard: 0, Durability: 2, BlocksDays: 7},
	ME: {Rigid: true, Hard: 1, Durability: 3, BlocksDays: 3},
	OE: {Rigid: true, Soaps: true, Hard: 3, Durability: 4, Outside: true, BlocksDays: 7},
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
	WP: {Hard: 1, Durability: 3, BlocksDays: 3},
	WH: {Rigid: true, Hard: 2, Durability: 5, BlocksDays: 3},
	OP: {Rigid: true, Soaps: true, Hard: 2, Durability: 4, Outside: true, BlocksDays: 7},
	WX: {Durability: 1},
	OL: {Soaps: true, Durability: 3, Outside: true},
	PA: {Rigid: true, Hard: 2, Durability: 1, Outside: true},
	ET: {Rigid: true, Hard: 2, Durability: 0, Outside: true},
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

// AbrasionLimit is how much abrasion a surface stands. The zero value is no answer.
type AbrasionLimit struct {
	// Any tells that it stands every grit.
	Any bool
	// Coarsest is the lowest grit number that does no harm by hand, and Worst the lowest that is no
	// more than a risk; 0 where that is the same. PadOnly and None allow less still.
	Coarsest, Worst int
	PadOnly, None   bool
	// Thin layers are cut through; on others the scratches show. Ruins tells that a scratch is the
	// end of it.
	Thin, Ruins bool
	Says        string
}

// Polish is the grit from which on sanding by hand only polishes: it cuts nothing, and gives no key.
// Working default.
const Polish = 400

// Harms grades an abrasion of the surface: no harm, a risk or ruin.
func (l *AbrasionLimit) Harms(grit int, how How) Stand {
	byHand := how != Machine
	switch {
	case l.Any || how == Pad && !l.None:
		return Stands
	case l.None && l.Ruins:
		return Ruined
	case l.None:
		return AtRisk
	case byHand && grit >= Polish:
		return Stands
	case !l.Thin:
		if l.PadOnly || grit < l.Coarsest {
			return AtRisk
		}
		return Stands
	case l.PadOnly:
		if byHand && grit >= l.Worst {
			return AtRisk
		}
		return Ruined
	case grit < l.Coarsest:
		if byHand && l.Worst > 0 && grit >= l.Worst {
			return AtRisk
		}
		return Ruined
	case !byHand:
		return AtRisk
	}
	return Stands
}

// LimitVeneer is what any veneer stands, LimitPaper printed paper, and LimitMirror a mirror.
var (
	LimitVeneer = AbrasionLimit{Coarsest: 150, Worst: 100, Thin: true, Says: "there is only half a millimetre of veneer: nothing coarser than 150, by hand"}
	LimitPaper  = AbrasionLimit{Coarsest: 220, Worst: 150, Thin: true, Says: "the print is one sheet of paper: take the shine off with 220 or finer, by hand, or use a fine pad"}
	LimitMirror = AbrasionLimit{None: true, Ruins: true, Says: "a scratched mirror is ruined: use a primer made for glass instead"}
)

const (
	saysMetal = "scratches coarser than 120 show on metal, and finer than 320 only polishes"
	saysFilm  = "it stands any grit"
)

// Limits are what surfaces allow, by the exposed family. Working defaults.
var Limits = [NumFamilies]AbrasionLimit{
	WoodBare:        {Any: true, Says: saysFilm},
	BoardRaw:        {Any: true, Says: saysFilm},
	WoodOily:        {Any: true, Says: saysFilm},
	ShellacFilm:     {Any: true, Says: saysFilm},
	ShellacNew:      {Any: true, Says: saysFilm},
	VarnishFilm:     {Any: true, Says: saysFilm},
	LacquerFilm:     {Any: true, Says: saysFilm},
	AcrylicPaint:    {Any: true, Says: saysFilm},
	PrimerFilm:      {Any: true, Says: saysFilm},
	Promoted:        {Any: true, Says: saysFilm},
	AlkydPaint:      {Any: true, Says: saysFilm},
	PorousPaint:     {Any: true, Says: saysFilm},
	MelamineFilm:    {Coarsest: 220, Worst: 100, Thin: true, Says: "the printed layer is thin: take the shine off with 220 or finer, by hand"},
	VinylRigid:      {Coarsest: 220, Worst: 180, Thin: true, Says: "foil tears and cuts through: use a fine pad, or 220 and finer by hand"},
	VinylSoft:       {PadOnly: true, Worst: 220, Thin: true, Says: "vinyl cloth cuts through: use a fine pad and nothing else"},
	PlasticHard:     {Coarsest: 320, Says: "scratches in plastic show through: sand wet with 320"},
	Polyolefin:      {Coarsest: 320, Says: "coarser grit only makes it fuzzy: sand wet with 320"},
	MetalFerrous:    {Any: true, Says: saysFilm},
	MetalZinc:       {PadOnly: true, Says: "grit cuts through zinc: a pad is enough"},
	MetalLight:      {Coarsest: 120, Says: saysMetal},
	MetalNonferrous: {Coarsest: 120, Says: saysMetal},
	MetalChrome:     {Coarsest: 120, Says: saysMetal},
	PowderFilm:      {Any: true, Says: saysFilm},
	GlassSmooth:     {None: true, Says: "scratches in glass and glaze stay: key it only where it will not show, or use a primer made for it"},
	MineralPorous:   {Any: true, Says: saysFilm},
	Leather:         {PadOnly: true, Worst: 220, Thin: true, Says: "grit cuts through the grain of leather: use a fine pad"},
	Textile:         {Any: true, Says: saysFilm},
	WaxFilm:         {Any: true, Says: saysFilm},
	OilFilm:         {Any: true, Says: saysFilm},
}

// CutThrough are the defaults for what is below something that is stripped off, by substrate: the
// board under a foil or a printed paper.
var CutThrough = map[string]Family{"vinyl_wrap": BoardRaw, "paper_foil_board": BoardRaw}

// FreshMineral is how many days cement and plaster stay alkaline enough to turn
// an oil binder to soap. Working default.
const FreshMineral = 120.
