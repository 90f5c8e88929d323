package craft

// Ground is what an effect must find to work on.
type Ground uint8

// The grounds.
const (
	GroundAny    Ground = iota // whatever lies there
	GroundPaint                // a paint of the plan
	GroundPowder               // a powder paint, which alone flakes
	GroundSoft                 // a paint that water takes back
	GroundSealed               // a film that does not drink
	GroundTack                 // size within its tack
	GroundMedium               // a coat over lift medium
)

// EffectRow describes one decorative effect.
type EffectRow struct {
	ID, Name         string
	How, Wants, Trap string
	Ground           Ground
	// Wears tells that it lays open what is below at edges and raised places,
	// Deep that it may go down to the bare material there, and Wets that it
	// brings water onto the paint.
	Wears, Deep, Wets bool
	// Shows tells that it lives by a colour below that differs.
	Shows bool
	// Cracks tells that it lives by a coat that cracks or is pulled off over a
	// medium, and Layered that the layers below it are part of it.
	Cracks, Layered bool
	// Thirsty tells that it wants a ground that drinks, and Thins that paint is
	// thinned for it past its usual range.
	Thirsty, Thins bool
	// Veil tells that its coats are meant to let the ground be seen.
	Veil bool
	// Lays is the product that it leaves on the surface, empty for none; Covers
	// tells that it then lies all over.
	Lays   string
	Covers bool
	// By are the products that make it without a step of its own.
	By []string
	// Excludes are effects that undo it or cannot stand beside it.
	Excludes []string
	// Dusty tells that it leaves dust, and Dries what the face then is, NumFamilies
	// where that stays as it was.
	Dusty bool
	Dries Family
	// Pores tells that it lies in open grain, Sealed that what it is worked over
	// must not drink, and Raised that it stands up from the face.
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
}

// Flakes tells whether it is paint that lets go.
func (r *EffectRow) Flakes() bool { return r.Ground == GroundPowder }

// Settled tells whether so many hours are as good as what it rests: nobody has
// that figure by the hour.
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

// doing fills in what the effects do to a surface.
func doing(rows []EffectRow) []EffectRow {
	type do = func(*EffectRow)
	paintOver := func(hours, minutes float64) do {
		return func(r *EffectRow) {
			r.Ground, r.Lays, r.Settles, r.Minutes = GroundPaint, "paint_acrylic", hours, minutes
		}
	}
	closed := []Role{RoleClear, RoleWax}
	sealed := func(f do) do {
		return func(r *EffectRow) {
			f(r)
			r.SealedBy = closed
		}
	}
	does := map[string]do{
		"chippy": func(r *EffectRow) {
			r.Ground, r.Wears, r.Shows, r.By, r.Minutes = GroundPowder, true, true, []string{"paint_milk"}, 20
			r.Dusty, r.LeastCoats, r.Rests = true, 2, 48
			r.Excludes = []string{"gild", "decoupage", "marble", "crackle"}
		},
		"layered_chippy": func(r *EffectRow) {
			r.Layered = true
			r.Ground, r.Wears, r.Shows, r.By, r.Minutes = GroundPowder, true, true, []string{"paint_milk"}, 25
			r.Dusty, r.LeastCoats, r.Rests = true, 2, 48
			r.Excludes = []string{"gild", "decoupage", "marble", "crackle"}
		},
		"crackle": func(r *EffectRow) {
			r.Ground, r.Cracks, r.Shows, r.By, r.Minutes = GroundPaint, true, true, []string{"crackle_medium"}, 5
			r.Excludes = []string{"lift_off"}
		},
		"lift_off": func(r *EffectRow) {
			r.Ground, r.Cracks, r.Wears, r.Shows, r.By, r.Minutes = GroundMedium, true, true, true, []string{"lift_medium"}, 15
		},
		"distress_wet": func(r *EffectRow) {
			r.Ground, r.Wears, r.Wets, r.Shows, r.Minutes = GroundSoft, true, true, true, 15
			r.Excludes = []string{"gild"}
		},
		"distress_dry": func(r *EffectRow) {
			r.Ground, r.Wears, r.Deep, r.Shows, r.Minutes = GroundPaint, true, true, true, 12
			r.Dusty, r.SealedBy = true, closed // what is rubbed open must be closed again
		},
		"enamelware": func(r *EffectRow) {
			r.Ground, r.Wears, r.Shows, r.Veil, r.Minutes = GroundPaint, true, true, true, 15
			r.Excludes, r.Shines = []string{"chippy", "layered_chippy", "crackle"}, Satin
		},
		"shade_highlight": paintOver(2, 25),
		"glaze": func(r *EffectRow) {
			r.Ground, r.Lays, r.Covers, r.By, r.Minutes = GroundSealed, "glaze_wb", true, []string{"glaze_wb", "glaze_stain"}, 20
			r.Excludes = []string{"chippy", "layered_chippy"}
		},
		"drawn_grain": func(r *EffectRow) {
			r.Ground, r.Lays, r.Covers, r.By, r.Minutes = GroundPaint, "glaze_stain", true, nil, 25
			r.Thirsty, r.Rests, r.RubsOnly = true, 48, true
			r.Excludes = []string{"marble"}
		},
		"marble": func(r *EffectRow) {
			r.Ground, r.Lays, r.Covers, r.Settles, r.Minutes = GroundPaint, "paint_acrylic", true, 3, 60
			r.Thins, r.SealedBy, r.ClearCoats = true, closed, 3
		},
		"limed": func(r *EffectRow) {
			r.Lays, r.Covers, r.By, r.Veil, r.Minutes = "wax_white", true, []string{"wax_white"}, true, 15
			r.Pores, r.Thirsty = true, true
			r.Excludes = []string{"marble", "crackle"}
		},
		"stamp":   sealed(paintOver(2, 15)),
		"stencil": sealed(paintOver(2, 20)),
		"gild": func(r *EffectRow) {
			r.Ground, r.Settles, r.Minutes, r.Dries = GroundTack, 12, 60, PrimerFilm
			r.SealedBy = []Role{RoleClear, RoleWax, RolePrimer} // shellac seals leaf
		},
		"decoupage": func(r *EffectRow) {
			r.Lays, r.Covers, r.Settles, r.Minutes = "clear_wb", true, 2, 40
			r.Sealed, r.SealedBy = true, closed
		},
		"raised_stencil": func(r *EffectRow) {
			paintOver(8, 40)(r)
			r.Raised = true
		},
		"colour_blend": func(r *EffectRow) {
			paintOver(3, 30)(r)
			r.Thins = true
		},
		"wash_wipe": func(r *EffectRow) {
			r.Wets, r.Thins, r.Veil, r.Sealed, r.Settles, r.Minutes = true, true, true, true, 2, 15
		},
		"dusting": func(r *EffectRow) {
			r.Cracks, r.Minutes, r.SealedBy = true, 10, []Role{RoleWax} // it is worked into cracks
		},
		"dry_brush": paintOver(1, 15),
		"fabric_dye": func(r *EffectRow) {
			r.Veil, r.By, r.Minutes = true, []string{"fabric_wash"}, 10
		},
	}
	for i := range rows {
		rows[i].Dries = NumFamilies
		if f := does[rows[i].ID]; f != nil {
			f(&rows[i])
		}
	}
	return rows
}

// LookSolid is the look without an effect.
const LookSolid = "solid"

var defaultEffects = doing([]EffectRow{
	{ID: "chippy", Name: "Chippy", How: "powder paint without additive over a sealed slick film; resist patches of wax, or of shellac or lacquer still tacky", Wants: "at least two coats; warm air speeds it; scrape with a metal blade, then 220 to 400, vacuum", Trap: "nothing chips on raw wood; it may never stop if wetted again: seal with wax or oil, never a water-based clear; it settles over two or three days"},
	{ID: "layered_chippy", Name: "Layered and chippy", How: "two to four colours under a solid one", Wants: "underlayers fully dry, contrast between layers", Trap: "no one can choose which layer shows"},
	{ID: "crackle", Name: "Crackle", How: "a dry base coat, medium, then a thick one-stroke coat of water-based matt paint", Wants: "contrast between base and top; the top stroke sets the direction; the thicker the coat, the wider the cracks", Trap: "no second stroke; done in minutes; a mistake is wiped back to the base while wet"},
	{ID: "lift_off", Name: "Lift-off", How: "lift medium between two colours, the top coat pulled off in streaks with a rag or roller", Wants: "a flat part, or a fan on an upright one", Trap: "runs on uprights"},
	{ID: "distress_wet", Name: "Worn with a damp cloth", How: "damp cloth on clay or chalk paint, at edges and handled places", Wants: "within hours; the later, the more effort", Trap: "soaks a flaky film loose"},
	{ID: "distress_dry", Name: "Worn with abrasive", How: "220, then 320 on dry paint", Wants: "the colour below decided beforehand", Trap: "cuts to the wood and exposes what bleeds"},
	{ID: "enamelware", Name: "Enamelware", How: "a dark base, a pale coat thinned for smoothness, worn at the rims, satin or gloss clear", Wants: "metal", Trap: "regular spots look like an animal print"},
	{ID: "shade_highlight", Name: "Shaded and highlighted", How: "darker in recesses, lighter dry-brushed on edges", Wants: "soft joins", Trap: ""},
	{ID: "glaze", Name: "Glazed", How: "sealed paint, glaze on small sections, wiped with the grain; next glaze after a day; clear over it after a day if brushed, overnight if sprayed", Wants: "time; judged dry", Trap: "on thirsty paint it grabs at once"},
	{ID: "drawn_grain", Name: "Drawn grain", How: "generous glaze straight on matt paint, dragged with a dry brush held short", Wants: "two days before wax", Trap: ""},
	{ID: "marble", Name: "Marble", How: "mid-tone sponged on, misted, blotted, feathered while wet; second layer; irregular fine veins", Wants: "a reference picture; a levelled, primed ground; hard clear, three coats", Trap: "veins straight, centred or evenly spaced"},
	{ID: "limed", Name: "Limed", How: "white wax or wash in open grain, wiped", Wants: "open-grained wood, grain brushed", Trap: ""},
	{ID: "stamp", Name: "Stamped", How: "little paint, rolled or dabbed", Wants: "dry ground, sealed over after", Trap: "smudges: sand back and wax again"},
	{ID: "stencil", Name: "Stencilled", How: "little paint, rolled or dabbed through a stencil", Wants: "dry ground, sealed over after", Trap: "smudges: sand back and wax again"},
	{ID: "gild", Name: "Gilded", How: "size, wait for the right tack, lay leaf, brush off, seal", Wants: "a smooth sealed ground of a warm colour", Trap: "too wet drowns the leaf, too dry does not take it"},
	{ID: "decoupage", Name: "Decoupage", How: "paper or transfer bedded and sealed with several thin clears", Wants: "sealed ground, no wax", Trap: "bubbles; water-based clear lifts some inks"},
	{ID: "raised_stencil", Name: "Raised stencil", How: "paste through a stencil, dried, sanded, painted", Wants: "flat dry ground", Trap: "sliding parts and shelves"},
	{ID: "colour_blend", Name: "Blended colours", How: "two or three wet colours worked into each other with mist", Wants: "slow drying, one section at a time", Trap: "mud when overworked"},
	{ID: "wash_wipe", Name: "Wash, wiped back", How: "thinned paint brushed on and wiped back to a veil, repeatable", Wants: "texture or grain; a rag turned often", Trap: "grabs on thirsty ground"},
	{ID: "dusting", Name: "Dusted with pigment", How: "dry pigment powder worked into cracks and recesses, the excess lifted with wax", Wants: "crackle or grain to hold it; wax after", Trap: "goes a long way; too much greys the whole"},
	{ID: "dry_brush", Name: "Dry-brushed", How: "a nearly dry brush over raised parts", Wants: "texture below", Trap: "a loaded brush"},
	{ID: "fabric_dye", Name: "Dyed cloth", How: "cloth soaked, thinned paint, sanded soft between coats, wax or sealer buffed", Wants: "darker than the cloth", Trap: "stiff if under-thinned"},
})

// DefectRow describes one kind of damage. Loose damage is what lets go by
// itself, and Uneven what a shine shows.
type DefectRow struct {
	ID, Name string
	Loose    Loose
	Uneven   bool
}

// Loose is a set of what lets go by itself.
type Loose uint8

// What lets go.
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

// Strips, Fillers and Resists are the other ids that steps may name.
var (
	Strips  = []string{"chemical", "scrape", "heat", "sand"}
	Fillers = []string{"filler_two_part", "filler_fine"}
	Resists = []string{"wax", "shellac_tacky", "lacquer_tacky"}
	Scopes  = []string{"all", "knots", "spots"}
)
