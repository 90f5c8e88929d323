package craft

// Ground is what an effect must find to work on.
type Ground uint8

// The grounds.
const (
	GroundAny    Ground = iota // any surface
	GroundPaint                // a paint of the plan
	GroundPowder               // a powder paint, which alone flakes
	GroundSoft                 // a paint that water takes back
	GroundSealed               // a film that is not absorbent
	GroundTack                 // size within its tack
	GroundMedium               // a coat over lift medium
)

// EffectRow describes one decorative effect.
type EffectRow struct {
	ID, Name         string
	How, Wants, Trap string
	Ground           Ground
	// Wears tells that it exposes what is below at edges and raised places, Deep that it may go
	// down to the bare material there, and Wets that it brings water onto the paint.
	Wears, Deep, Wets bool
	// Shows tells that it lives by a colour below that differs.
	Shows bool
	// Cracks tells that it lives by a coat that cracks or is pulled off over a
	// medium, and Layered that the layers below it are part of it.
	Cracks, Layered bool
	// Absorbent tells that it needs an absorbent base, and Thins that paint is thinned for it past
	// its usual range.
	Absorbent, Thins bool
	// Veil tells that its coats are meant to let the ground be seen.
	Veil bool
	// Lays is the product that it leaves on the surface, empty for none; Covers
	// tells that it then lies all over.
	Lays   string
	Covers bool
	// By are the products that make it without a step of its own.
	By []string
	// Excludes are effects that undo it or cannot share a face with it.
	Excludes []string
	// Dusty tells that it leaves dust, and Dries what the face then is; the zero value, bare
	// wood, where that stays as it was.
	Dusty bool
	Dries Family
	// Pores tells that it stays in open grain, Sealed that it must not be worked on an absorbent
	// surface, and Raised that it is raised above the face.
	Pores, Sealed, Raised bool
	// LeastCoats of the paint it is worked on, and ClearCoats over it; 0 for as
	// many as there are.
	LeastCoats, ClearCoats int
	// Rests is the hours that it is left before the next coat: any, or only
	// wax and oil that are rubbed in. Working defaults.
	Rests    float64
	RubsOnly bool
	// SealedBy are the roles of what must lie over it, empty where it may stay
	// open, and Shines the least sheen of the whole, DeadFlat where that is free.
	SealedBy []Role
	Shines   Sheen
	// Settles is the hours until it may be worked over, and Minutes the work on a
	// square metre. Working defaults.
	Settles, Minutes float64
	// Recipes are how it is made: one, or one for each way of crackling; none for what is worked on
	// dry paint and sealed.
	Recipes []Recipe
	// Cards are what it changes on the laying cards of its coats.
	Cards []EffectCard
}

// DriesTo is the family that the face then is; false where that stays as it was.
func (r *EffectRow) DriesTo() (Family, bool) { return r.Dries, r.Dries != WoodBare }

// Flakes tells whether it is paint that flakes.
func (r *EffectRow) Flakes() bool { return r.Ground == GroundPowder }

// Settled tells whether a number of hours is close enough to its resting time, which is a rule of
// thumb.
func (r *EffectRow) Settled(hours float64) bool { return hours >= .85*r.Rests }

// Effect is an index into a [Craft]'s effects.
type Effect uint8

// NoEffect stands for a solid look.
const NoEffect Effect = 255

// Effect returns the index of an effect id.
func (c *Craft) Effect(id string) (Effect, bool) {
	for i := range c.Effects {
		if c.Effects[i].ID == id {
			return Effect(i), true
		}
	}
	return NoEffect, false
}

// LookSolid is the look without an effect.
const LookSolid = "solid"

// Pieces of recipes that several looks have: the colour that shows below, and a coat pulled off over
// lift medium.
var (
	underPaint = RecipePart{Kind: LayOne, For: ForUnder, Coats: []int{2}, Tone: ToneUnder}
	underWorn  = RecipePart{Kind: LayOne, For: ForUnder, Coats: []int{2}, Tone: ToneUnder, ShowsOld: true}
	lifted     = []RecipePart{underPaint, {Kind: LayOne, For: ForLiftMedium}, {Kind: LayOne, For: ForThinTop}, {Kind: WorkIt}, {Kind: SealIt}}
	closed     = []Role{RoleClear, RoleWax}
)

// The effects. What each needs of a surface, what it does, and how it is made, is in its row.
var defaultEffects = []EffectRow{
	{
		ID: "chippy", Name: "Chippy",
		Cards:  chippyCards,
		How:    "powder paint without additive over a sealed, slick film; resist patches of wax, or of shellac or lacquer that is still tacky",
		Wants:  "at least two coats; warm air speeds the flaking; scrape with a metal blade, sand with 220 to 400, then vacuum",
		Trap:   "nothing chips on bare wood; chipping can start again whenever it gets wet, so seal with wax or oil, never a water-based clear; it settles over two or three days",
		Ground: GroundPowder, Wears: true, Shows: true, By: []string{"paint_milk"}, Minutes: 20,
		Dusty: true, LeastCoats: 2, Rests: 48, Excludes: []string{"gild", "decoupage", "marble", "crackle"},
		Recipes: []Recipe{{
			Parts: []RecipePart{
				{Kind: LayResist}, {Kind: LayOne, For: ForFlaking, Coats: []int{2}, Tone: ToneUnder, Skip: true},
				{Kind: LayPaint, For: ForFlaking}, {Kind: WorkIt, Dusts: true, Warm: true, After: 48}, {Kind: SealIt},
			},
			Ground: ForBarrier, ClearGround: true, // white would show in every chip
		}},
	},
	{
		ID: "layered_chippy", Name: "Layered and chippy",
		Cards:   chippyCards,
		How:     "two to four colours under one solid top colour",
		Wants:   "lower layers fully dry, with contrast between layers",
		Trap:    "you cannot choose which layer shows where",
		Layered: true, Ground: GroundPowder, Wears: true, Shows: true, By: []string{"paint_milk"}, Minutes: 25,
		Dusty: true, LeastCoats: 2, Rests: 48, Excludes: []string{"gild", "decoupage", "marble", "crackle"},
		Recipes: []Recipe{{
			Parts: []RecipePart{
				{Kind: LayResist}, {Kind: LayOne, For: ForFlaking, Coats: []int{2}, Tone: ToneUnder}, {Kind: RestIt, Before: overnight},
				{Kind: LayPaint, For: ForFlaking}, {Kind: WorkIt, Dusts: true, Warm: true, After: 48}, {Kind: SealIt},
			},
			Ground: ForBarrier,
		}},
	},
	{
		ID: "crackle", Name: "Crackle",
		Cards:  crackleCards,
		How:    "a dry base coat, crackle medium, then one thick stroke of water-based matt paint",
		Wants:  "contrast between base and top; the top stroke sets the direction; the thicker the coat, the wider the cracks",
		Trap:   "no second stroke; it sets within minutes; wipe a mistake back to the base while wet",
		Ground: GroundPaint, Cracks: true, Shows: true, By: []string{"crackle_medium"}, Minutes: 5, Excludes: []string{"lift_off"},
		Recipes: []Recipe{
			{Parts: []RecipePart{underPaint, {Kind: LayOne, For: ForCrackMedium}, {Kind: LayOne, For: ForThinTop}, {Kind: SealIt}}},
			{Over: CrackLift, Parts: lifted},
			{Over: CrackTacky, Parts: []RecipePart{underPaint, {Kind: LayOne, For: ForTacky, HalfTacky: true}, {Kind: LayOne, For: ForFlaking}, {Kind: WorkIt}, {Kind: SealIt}}},
		},
	},
	{
		ID: "lift_off", Name: "Lift-off",
		Cards:  liftCards,
		How:    "lift medium between two colours; the top coat is pulled off in streaks with a rag or roller",
		Wants:  "a flat part; stand an upright part flat, or use a fan",
		Trap:   "runs on upright parts",
		Ground: GroundMedium, Cracks: true, Wears: true, Shows: true, By: []string{"lift_medium"}, Minutes: 15,
		Recipes: []Recipe{{Parts: lifted}},
	},
	{
		ID: "distress_wet", Name: "Worn with a damp cloth",
		Cards:  distressCards,
		How:    "a damp cloth on clay or chalk paint, at edges and handled places",
		Wants:  "doing within hours; the longer you wait, the more effort it takes",
		Trap:   "soaks and loosens a flaking film",
		Ground: GroundSoft, Wears: true, Wets: true, Shows: true, Minutes: 15, Excludes: []string{"gild"},
		Recipes: []Recipe{{Parts: []RecipePart{underWorn, {Kind: LayPaint, For: ForWipingBack}, {Kind: WorkIt}, {Kind: SealIt}}}},
	},
	{
		ID: "distress_dry", Name: "Worn with abrasive",
		Cards:  distressCards,
		How:    "sand dry paint with 220, then 320",
		Wants:  "a choice of which colour below is to show",
		Trap:   "cuts through to the wood and exposes whatever bleeds",
		Ground: GroundPaint, Wears: true, Deep: true, Shows: true, Minutes: 12,
		Dusty: true, SealedBy: closed, // what is rubbed open must be closed again
		Recipes: []Recipe{{Parts: []RecipePart{
			underWorn, {Kind: LayPaint, For: ForWorn}, {Kind: WorkIt, Grit: 320, DeepGrit: 220, Dusts: true},
			{Kind: LayOne, For: ForScuffAndSeal, Coats: []int{1, 2}, Deep: true, Skip: true}, {Kind: SealIt},
		}}},
	},
	{
		ID: "enamelware", Name: "Enamelware",
		Cards:  enamelwareCards,
		How:    "a dark base, a pale coat thinned to level out, worn at the rims, then a satin or gloss clear",
		Wants:  "metal",
		Trap:   "evenly spaced spots look like an animal print",
		Ground: GroundPaint, Wears: true, Shows: true, Veil: true, Minutes: 15,
		Excludes: []string{"chippy", "layered_chippy", "crackle"}, Shines: Satin,
		Recipes: []Recipe{{Parts: []RecipePart{
			{Kind: LayOne, For: ForEnamelware, Tone: ToneDark}, {Kind: LayOne, For: ForEnamelware, Coats: []int{2}, ThinPct: 10}, // for smoothness
			{Kind: WorkIt, After: 24}, {Kind: SealIt},
		}}},
	},
	{
		ID: "shade_highlight", Name: "Shaded and highlighted",
		How:    "darker in recesses, lighter dry-brushed on edges",
		Wants:  "soft transitions",
		Trap:   "",
		Ground: GroundPaint, Lays: "paint_acrylic", Settles: 2, Minutes: 25,
	},
	{
		ID: "glaze", Name: "Glazed",
		Cards:  glazeCards,
		How:    "sealed paint; glaze small sections and wipe with the grain; next glaze after a day; clear coat after a day if brushed, overnight if sprayed",
		Wants:  "time; judge it when dry",
		Trap:   "on absorbent paint it grabs at once",
		Ground: GroundSealed, Lays: "glaze_wb", Covers: true, By: []string{"glaze_wb", "glaze_stain"}, Minutes: 20,
		Excludes: []string{"chippy", "layered_chippy"},
		Recipes:  []Recipe{{Parts: []RecipePart{{Kind: LayPaint}, {Kind: LayOne, For: ForUnderGlaze}, {Kind: LayOne, For: ForGlaze}, {Kind: WorkIt}, {Kind: SealIt, Clears: true}}}},
	},
	{
		ID: "drawn_grain", Name: "Drawn grain",
		Cards:  drawnGrainCards,
		How:    "a generous glaze straight on matt paint, dragged with a dry brush held short",
		Wants:  "two days before wax",
		Trap:   "",
		Ground: GroundPaint, Lays: "glaze_stain", Covers: true, Minutes: 25,
		Absorbent: true, Rests: 48, RubsOnly: true, Excludes: []string{"marble"},
		Recipes: []Recipe{{Parts: []RecipePart{{Kind: LayPaint, For: ForWipingBack}, {Kind: LayOne, For: ForDragging}, {Kind: WorkIt, After: 48}, {Kind: SealIt}}}},
	},
	{
		ID: "marble", Name: "Marble",
		Cards:  marbleCards,
		How:    "mid-tone sponged on, misted, blotted and feathered while wet; a second layer; irregular fine veins",
		Wants:  "a reference picture; a smooth, primed base; three coats of hard clear",
		Trap:   "veins that are straight, centred or evenly spaced",
		Ground: GroundPaint, Lays: "paint_acrylic", Covers: true, Settles: 3, Minutes: 60, Thins: true, SealedBy: closed, ClearCoats: 3,
	},
	{
		ID: "limed", Name: "Limed",
		Cards: limedCards,
		How:   "white wax or wash rubbed into open grain and wiped",
		Wants: "open-grained wood with the grain brushed out",
		Trap:  "",
		Lays:  "wax_white", Covers: true, By: []string{"wax_white"}, Veil: true, Minutes: 15, Pores: true, Absorbent: true,
		Excludes: []string{"marble", "crackle"},
		Recipes:  []Recipe{{Parts: []RecipePart{{Kind: LayOne, For: ForLiming}}, NoGround: true, See: true}},
	},
	{
		ID: "stamp", Name: "Stamped",
		How:    "little paint, rolled or dabbed on",
		Wants:  "a dry base; seal afterwards",
		Trap:   "smudges: sand back and wax again",
		Ground: GroundPaint, Lays: "paint_acrylic", Settles: 2, Minutes: 15, SealedBy: closed,
	},
	{
		ID: "stencil", Name: "Stencilled",
		How:    "little paint, rolled or dabbed through a stencil",
		Wants:  "a dry base; seal afterwards",
		Trap:   "smudges: sand back and wax again",
		Ground: GroundPaint, Lays: "paint_acrylic", Settles: 2, Minutes: 20, SealedBy: closed,
	},
	{
		ID: "gild", Name: "Gilded",
		Cards:  gildCards,
		How:    "size, wait until it is tacky, lay the leaf, brush off, seal",
		Wants:  "a smooth, sealed base in a warm colour",
		Trap:   "too wet and the leaf drowns; too dry and it does not stick",
		Ground: GroundTack, Settles: 12, Minutes: 60, Dries: PrimerFilm,
		SealedBy: []Role{RoleClear, RoleWax, RolePrimer}, // shellac seals leaf
		Recipes: []Recipe{{Parts: []RecipePart{
			{Kind: LayOne, For: ForLeafGround, Coats: []int{2}, Tone: ToneLeaf}, {Kind: LayOne, For: ForSize}, {Kind: WorkIt}, {Kind: SealIt, For: ForLeafSeal},
		}}},
	},
	{
		ID: "decoupage", Name: "Decoupage",
		How:   "paper or transfer, glued down and sealed with several thin clear coats",
		Wants: "a sealed base without wax",
		Trap:  "bubbles; water-based clear makes some inks run",
		Lays:  "clear_wb", Covers: true, Settles: 2, Minutes: 40, Sealed: true, SealedBy: closed,
		Recipes: []Recipe{{Parts: []RecipePart{{Kind: LayPaint}, {Kind: LayOne, For: ForPlainSeal, Skip: true}, {Kind: WorkIt, After: overnight}, {Kind: SealIt, Clears: true}}}},
	},
	{
		ID: "raised_stencil", Name: "Raised stencil",
		How:    "paste through a stencil, dried, sanded, painted",
		Wants:  "a flat, dry base",
		Trap:   "sliding parts and shelves",
		Ground: GroundPaint, Lays: "paint_acrylic", Settles: 8, Minutes: 40, Raised: true,
		Recipes: []Recipe{{Parts: []RecipePart{{Kind: LayPaint}, {Kind: WorkIt, After: 24, Sand: 240, Dusts: true}, {Kind: LayAgain}, {Kind: SealIt}}}}, // paste is white
	},
	{
		ID: "colour_blend", Name: "Blended colours",
		Cards:  blendCards,
		How:    "two or three wet colours worked into each other with mist",
		Wants:  "slow-drying paint; work one section at a time",
		Trap:   "muddy colours when overworked",
		Ground: GroundPaint, Lays: "paint_acrylic", Settles: 3, Minutes: 30, Thins: true,
	},
	{
		ID: "wash_wipe", Name: "Wash, wiped back",
		Cards: washCards,
		How:   "thinned paint brushed on and wiped back to a thin veil; can be repeated",
		Wants: "texture or grain; turn the rag often",
		Trap:  "grabs on an absorbent base",
		Wets:  true, Thins: true, Veil: true, Sealed: true, Settles: 2, Minutes: 15,
		Recipes: []Recipe{{Parts: []RecipePart{{Kind: LayOne, For: ForThinTop, ThinPct: 100}, {Kind: WorkIt, After: 4}, {Kind: SealIt}}, See: true}},
	},
	{
		ID: "dusting", Name: "Dusted with pigment",
		How:    "dry pigment powder worked into cracks and recesses; the excess lifted with wax",
		Wants:  "crackle or grain to hold it; wax afterwards",
		Trap:   "a little goes a long way; too much greys the whole piece",
		Cracks: true, Minutes: 10, SealedBy: []Role{RoleWax}, // it is worked into cracks
		Recipes: []Recipe{{Parts: []RecipePart{underPaint, {Kind: LayOne, For: ForCrackMedium}, {Kind: LayOne, For: ForThinTop}, {Kind: WorkIt, Before: 24}, {Kind: SealIt}}}},
	},
	{
		ID: "dry_brush", Name: "Dry-brushed",
		How:    "a nearly dry brush over raised parts",
		Wants:  "texture underneath",
		Trap:   "a loaded brush",
		Ground: GroundPaint, Lays: "paint_acrylic", Settles: 1, Minutes: 15,
	},
	{
		ID: "fabric_dye", Name: "Dyed cloth",
		Cards: clothCards,
		How:   "soaked cloth, thinned paint, sanded soft between coats, then buffed wax or a sealer",
		Wants: "a colour darker than the cloth",
		Trap:  "stiff if the paint is not thinned enough",
		Veil:  true, By: []string{"fabric_wash"}, Minutes: 10,
		Recipes: []Recipe{{
			Parts: []RecipePart{
				{Kind: LayOne, For: ForDyeing, ThinPct: 150}, {Kind: SmoothIt, Grit: 320},
				{Kind: LayOne, For: ForDyeing, Coats: []int{1, 2}, ThinPct: 150}, {Kind: SmoothIt, Grit: 320}, {Kind: LayOne, For: ForResistWax},
			},
			NoGround: true, See: true,
		}},
	},
}

// DefectRow describes one kind of damage. Loose damage comes off by itself, and Uneven shows under
// a shine.
type DefectRow struct {
	ID, Name string
	Loose    Loose
	Uneven   bool
}

// Loose is a set of kinds of loose material.
type Loose uint8

// The kinds of loose material.
const (
	LooseFlakes Loose = 1 << iota
	LooseBlisters
	LooseVeneer
	LooseFoil
	LooseJoint
)

// Falls are those that lie all over, so that nothing painted onto them can outlast
// them; the others are places, and have a rule of their own.
const Falls = LooseFlakes | LooseBlisters

// Names lists what is loose, in words.
func (l Loose) Names() []string {
	var out []string
	for i := range Defects {
		if d := &Defects[i]; d.Loose&l != 0 {
			out = append(out, Lower(d.Name))
		}
	}
	return out
}

// Defects lists the kinds of damage a survey may record. A knot is no damage,
// but is counted in the same place.
var Defects = []DefectRow{
	{ID: "chip", Name: "Chip", Uneven: true}, {ID: "dent", Name: "Dent", Uneven: true}, {ID: "gouge", Name: "Gouge", Uneven: true},
	{ID: "hole", Name: "Hole"}, {ID: "crack", Name: "Crack", Uneven: true},
	{ID: "open_joint", Name: "Open joint", Loose: LooseJoint},
	{ID: "lifted_veneer", Name: "Lifted veneer", Loose: LooseVeneer},
	{ID: "loose_foil", Name: "Loose foil", Loose: LooseFoil},
	{ID: "flaking", Name: "Flaking", Loose: LooseFlakes},
	{ID: "blister", Name: "Blister", Loose: LooseBlisters, Uneven: true},
	{ID: "swollen_board", Name: "Swollen board", Uneven: true}, {ID: "worm", Name: "Worm holes"},
	{ID: "burn", Name: "Burn"}, {ID: "water_damage", Name: "Water damage"}, {ID: "warped", Name: "Warped"},
	{ID: "rust_pit", Name: "Rust pit", Uneven: true}, {ID: "missing_veneer", Name: "Missing veneer", Uneven: true},
	{ID: "old_runs", Name: "Old runs and brush marks", Uneven: true}, {ID: "craters", Name: "Craters", Uneven: true},
	{ID: "knot", Name: "Knot"},
}

// The fillers.
const (
	FillerTwoPart = "filler_two_part"
	FillerFine    = "filler_fine"
)

// Strips, Fillers and Resists are the other ids that steps may name.
var (
	Strips  = []string{"chemical", "scrape", "heat", "sand", "caustic"}
	Fillers = []string{FillerTwoPart, FillerFine}
	Resists = []string{"wax", "shellac_tacky", "lacquer_tacky"}

	// ResistNames are their names within a sentence.
	ResistNames = map[string]string{"wax": "wax", "shellac_tacky": "shellac, still tacky", "lacquer_tacky": "lacquer, still tacky"}
	Scopes      = []string{"all", "knots", "spots"}
)
