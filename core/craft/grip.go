package craft

// Blank is the grip taken for a pair that no one has a figure for.
const Blank = .3

// row is one line of the grip table, in the order of the coat columns MK to
// OL. A blank cell is written with the underscore constant below.
type row [OL + 1]float64

const __ = Blank

// defaultGrip is the share of a full bond a coat family reaches on a surface
// family that is clean, dry and has its proper key. Working defaults.
var defaultGrip = [NumFamilies]row{
	//                MK    MB    CP    AC    ME    OE    AE    SH    BP    SO    SW    EP    MP    ZP    PP    GP    MS    FX    WP    WH    OP    WX    OL
	WoodBare:        {.95, .95, .90, .90, .90, .95, .80, .95, .90, .95, .90, .90, .80, __, __, __, __, __, .90, .90, .95, .80, .95},
	BoardRaw:        {.90, .90, .90, .90, .90, .90, .80, .95, .90, .95, .85, .90, .80, __, __, __, __, __, .85, .85, .90, .80, .90},
	WoodOily:        {.45, .65, .50, .50, .60, .55, .60, .85, .65, .78, .55, .75, __, __, __, __, __, __, .50, .50, .50, .70, .90},
	ShellacFilm:     {.50, .70, .80, .78, .82, .80, .75, 1.0, .88, .85, .75, .50, .75, __, __, __, __, __, .65, .65, .70, .90, .60},
	ShellacNew:      {.50, .75, .85, .85, .88, .90, .75, 1.0, .90, .90, .85, .25, .85, .60, __, __, __, __, .88, .78, .90, .90, .60},
	VarnishFilm:     {.35, .65, .70, .65, .75, .85, .75, .90, .90, .90, .80, .80, .75, __, __, __, __, __, .78, .78, .90, .90, .40},
	LacquerFilm:     {.30, .60, .65, .60, .70, .75, .60, .85, .85, .80, .70, .75, .65, __, __, __, __, __, .70, .70, .75, .90, .40},
	AcrylicPaint:    {.50, .75, .85, .95, .90, .80, .65, .80, .90, .80, .90, .60, .70, __, __, __, __, .85, .90, .90, .82, .90, .40},
	PrimerFilm:      {.60, .85, .88, .92, .92, .95, .85, .85, .92, .92, .92, .85, .85, __, __, __, __, .85, .88, .88, .90, .90, .40},
	Promoted:        {.2, .4, .6, .78, .78, .70, .85, .5, .82, .5, .6, .82, __, __, .9, __, __, .80, .6, .6, .5, .5, .1},
	AlkydPaint:      {.30, .60, .65, .60, .70, .95, .80, .85, .90, .95, .75, .70, .85, __, __, __, __, __, .65, .65, .90, .90, .40},
	PorousPaint:     {.85, .90, .95, .85, .85, .80, .75, .85, .85, .85, .85, .60, .75, __, __, __, __, __, .90, .90, .85, .95, .95},
	MelamineFilm:    {.15, .55, .57, .35, .55, .50, .50, .75, .88, .65, .55, .85, __, __, __, .70, __, __, .40, .40, .45, .60, .10},
	VinylRigid:      {.12, .35, .40, .45, .55, .40, .60, .60, .82, .45, .50, .60, __, __, .80, .60, __, .75, .45, .45, .35, .60, .10},
	VinylSoft:       {.10, .25, .35, .40, .45, .25, .30, .35, .70, .30, .45, .30, __, __, .60, __, __, .88, .40, .40, .25, .50, .10},
	PlasticHard:     {.10, .30, .35, .52, .60, .45, .75, .55, .80, .45, .45, .75, __, __, .90, .60, __, .60, .45, .45, .40, .60, .10},
	Polyolefin:      {.03, .08, .10, .10, .15, .12, .20, .15, .25, .15, .12, .25, __, __, .78, .2, __, .2, .10, .10, .10, .20, .05},
	MetalFerrous:    {.15, .35, .45, .35, .50, .75, .80, .70, .70, .70, .45, .95, .95, .6, __, .6, __, __, .40, .40, .60, .70, .40},
	MetalZinc:       {.10, .30, .40, .45, .50, .35, .60, .60, .78, .35, .45, .90, .45, .92, __, .6, __, __, .40, .40, .35, .70, .20},
	MetalLight:      {.10, .30, .40, .45, .50, .55, .65, .60, .72, .55, .48, .90, .55, .90, __, .6, __, __, .40, .40, .50, .70, .20},
	MetalNonferrous: {.10, .28, .38, .38, .48, .50, .65, .70, .75, .50, .42, .88, .60, .40, __, .6, __, __, .45, .45, .50, .75, .20},
	MetalChrome:     {.05, .20, .28, .28, .36, .38, .40, .50, .50, .38, .32, .65, .40, .40, __, .45, __, __, .30, .30, .38, .50, .15},
	PowderFilm:      {.10, .35, .45, .42, .58, .60, .65, .70, .86, .65, .52, .85, __, __, __, .6, __, __, .42, .42, .50, .70, .10},
	GlassSmooth:     {.05, .15, .25, .22, .30, .35, .50, .50, .65, .40, .30, .70, __, __, __, .92, __, __, .30, .30, .30, .50, .05},
	MineralPorous:   {.85, .85, .90, .90, .85, .50, .60, .75, .85, .50, .85, .70, __, __, __, __, .92, __, .70, .70, .50, .70, .60},
	Leather:         {.20, .35, .55, .60, .55, .30, .35, .30, .60, .30, .45, __, __, __, __, __, __, .90, .55, .55, .35, .85, .75},
	Textile:         {.40, .50, .80, .80, .60, .40, .50, .30, .50, __, .50, __, __, __, __, __, __, .80, .60, .60, __, .80, .50},
	WaxFilm:         {.15, .20, .40, .20, .25, .25, .25, .45, .30, .25, .22, .20, __, __, __, __, __, __, .15, .15, .20, .95, .60},
	OilFilm:         {.50, .60, .60, .50, .60, .85, .65, .85, .70, .85, .65, .60, __, __, __, __, __, __, .45, .45, .85, .85, .95},
}

// OnSkin is what coats reach on the bare skin of cane and bamboo, where that is more than on the lacquer
// that it otherwise counts as: cans find nothing there to dissolve, and oil gets in. Working default.
var OnSkin = [NumCoats]float64{AE: .75, OL: .70}

// The columns that the main table leaves out: those of few surfaces, fabric wash, mediums and glaze,
// and the primers for metal from the can. A cell absent here is Blank.
var defaultGripExtra = map[Coat]map[Family]float64{
	TX: {Textile: .85},
	// Aerosol primer grips wood and old films as a solvent primer does, and what it is not labelled
	// for by half.
	PA: {
		WoodBare: .95, BoardRaw: .95, WoodOily: .78, ShellacFilm: .85, ShellacNew: .75, VarnishFilm: .90, LacquerFilm: .80,
		AcrylicPaint: .80, PrimerFilm: .92, Promoted: .85, AlkydPaint: .95, PorousPaint: .85, MelamineFilm: .65, VinylRigid: .45,
		VinylSoft: .30, PlasticHard: .60, Polyolefin: .20, MetalFerrous: .80, MetalZinc: .55, MetalLight: .70, MetalNonferrous: .60,
		MetalChrome: .40, PowderFilm: .65, GlassSmooth: .45, MineralPorous: .50, Leather: .30, Textile: Blank, WaxFilm: .25, OilFilm: .85,
	},
	// Etch primer bites metal and nothing else, and chrome not either.
	ET: {MetalFerrous: .85, MetalZinc: .60, MetalLight: .80, MetalNonferrous: .70, MetalChrome: .40, PowderFilm: .40, PrimerFilm: .60},
	CM: {
		AcrylicPaint: .85, AlkydPaint: .85, PorousPaint: .85, PrimerFilm: .85,
		VarnishFilm: .85, LacquerFilm: .85, ShellacFilm: .85, ShellacNew: .85,
	},
	// Leaf size belongs with the glass primers and goes on sealed films.
	GP: {VarnishFilm: .75, ShellacFilm: .75, ShellacNew: .80, LacquerFilm: .7, AcrylicPaint: .75, PrimerFilm: .75, AlkydPaint: .7},
	// Between clear coats a glaze holds like a coat of paint.
	GZ: {VarnishFilm: .88, ShellacFilm: .75, ShellacNew: .85, LacquerFilm: .75, PorousPaint: .85, AcrylicPaint: .85, PrimerFilm: .85},
}
