package craft

// EffectRow describes one decorative effect.
type EffectRow struct {
	ID, Name         string
	How, Wants, Trap string
}

// LookSolid is the look without an effect.
const LookSolid = "solid"

var defaultEffects = []EffectRow{
	{"chippy", "Chippy", "powder paint without additive over a sealed slick film; resist patches of wax, or of shellac or lacquer still tacky", "at least two coats; warm air speeds it; scrape with a metal blade, then 220 to 400, vacuum", "nothing chips on raw wood; it may never stop if wetted again: seal with wax or oil, never a water-based clear; it settles over two or three days"},
	{"layered_chippy", "Layered and chippy", "two to four colours under a solid one", "underlayers fully dry, contrast between layers", "no one can choose which layer shows"},
	{"crackle", "Crackle", "a dry base coat, medium, then a thick one-stroke coat of water-based matt paint", "contrast between base and top; the top stroke sets the direction; the thicker the coat, the wider the cracks", "no second stroke; done in minutes; a mistake is wiped back to the base while wet"},
	{"lift_off", "Lift-off", "lift medium between two colours, the top coat pulled off in streaks with a rag or roller", "a flat part, or a fan on an upright one", "runs on uprights"},
	{"distress_wet", "Worn with a damp cloth", "damp cloth on clay or chalk paint, at edges and handled places", "within hours; the later, the more effort", "soaks a flaky film loose"},
	{"distress_dry", "Worn with abrasive", "220, then 320 on dry paint", "the colour below decided beforehand", "cuts to the wood and exposes what bleeds"},
	{"enamelware", "Enamelware", "a dark base, a pale coat thinned for smoothness, worn at the rims, satin or gloss clear", "metal", "regular spots look like an animal print"},
	{"shade_highlight", "Shaded and highlighted", "darker in recesses, lighter dry-brushed on edges", "soft joins", ""},
	{"glaze", "Glazed", "sealed paint, glaze on small sections, wiped with the grain; next glaze after a day; clear over it after a day if brushed, overnight if sprayed", "time; judged dry", "on thirsty paint it grabs at once"},
	{"drawn_grain", "Drawn grain", "generous glaze straight on matt paint, dragged with a dry brush held short", "two days before wax", ""},
	{"marble", "Marble", "mid-tone sponged on, misted, blotted, feathered while wet; second layer; irregular fine veins", "a reference picture; a levelled, primed ground; hard clear, three coats", "veins straight, centred or evenly spaced"},
	{"limed", "Limed", "white wax or wash in open grain, wiped", "open-grained wood, grain brushed", ""},
	{"stamp", "Stamped", "little paint, rolled or dabbed", "dry ground, sealed over after", "smudges: sand back and wax again"},
	{"stencil", "Stencilled", "little paint, rolled or dabbed through a stencil", "dry ground, sealed over after", "smudges: sand back and wax again"},
	{"gild", "Gilded", "size, wait for the right tack, lay leaf, brush off, seal", "a smooth sealed ground of a warm colour", "too wet drowns the leaf, too dry does not take it"},
	{"decoupage", "Decoupage", "paper or transfer bedded and sealed with several thin clears", "sealed ground, no wax", "bubbles; water-based clear lifts some inks"},
	{"raised_stencil", "Raised stencil", "paste through a stencil, dried, sanded, painted", "flat dry ground", "sliding parts and shelves"},
	{"colour_blend", "Blended colours", "two or three wet colours worked into each other with mist", "slow drying, one section at a time", "mud when overworked"},
	{"wash_wipe", "Wash, wiped back", "thinned paint brushed on and wiped back to a veil, repeatable", "texture or grain; a rag turned often", "grabs on thirsty ground"},
	{"dusting", "Dusted with pigment", "dry pigment powder worked into cracks and recesses, the excess lifted with wax", "crackle or grain to hold it; wax after", "goes a long way; too much greys the whole"},
	{"dry_brush", "Dry-brushed", "a nearly dry brush over raised parts", "texture below", "a loaded brush"},
	{"fabric_dye", "Dyed cloth", "cloth soaked, thinned paint, sanded soft between coats, wax or sealer buffed", "darker than the cloth", "stiff if under-thinned"},
}

// DefectRow describes one kind of damage.
type DefectRow struct{ ID, Name string }

// Defects lists the kinds of damage a survey may record. A knot is no damage,
// but is counted in the same place.
var Defects = []DefectRow{
	{"chip", "Chip"}, {"dent", "Dent"}, {"gouge", "Gouge"}, {"hole", "Hole"}, {"crack", "Crack"},
	{"open_joint", "Open joint"}, {"lifted_veneer", "Lifted veneer"}, {"loose_foil", "Loose foil"},
	{"flaking", "Flaking"}, {"blister", "Blister"}, {"swollen_board", "Swollen board"}, {"worm", "Worm holes"},
	{"burn", "Burn"}, {"water_damage", "Water damage"}, {"warped", "Warped"}, {"rust_pit", "Rust pit"},
	{"missing_veneer", "Missing veneer"}, {"old_runs", "Old runs and brush marks"}, {"craters", "Craters"},
	{"knot", "Knot"},
}

// Strips, Fillers and Resists are the other ids that steps may name.
var (
	Strips  = []string{"chemical", "scrape", "heat", "sand"}
	Fillers = []string{"filler_two_part", "filler_fine"}
	Resists = []string{"wax", "shellac_tacky", "lacquer_tacky"}
	Scopes  = []string{"all", "knots", "spots"}
)
