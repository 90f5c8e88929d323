package craft

// Soil is something lying on a surface that should not be there.
type Soil uint8

// The soils.
const (
	Dust Soil = iota
	Grime
	Grease
	WaxPolish
	Silicone
	NicotineSoil
	Mould
	Adhesive
	RustLoose
	Oxide
	SaltsSoil
	CleanerResidue
	Softener
	StripperResidue
	Limescale
	OilCutting
	ReleaseAgent
	// NumSoils counts the soils.
	NumSoils
)

// MaxLevel is the heaviest level of a soil or a bleeder: 1 light, 2 marked,
// 3 heavy.
const MaxLevel = 3

// SoilRow describes one soil.
type SoilRow struct {
	ID   string
	Name string
	// Harm is the share of adhesion lost at level 2 if the soil is left.
	Harm float64
	// Sticky soils are driven into the surface by abrasion; washing then
	// cannot bring them below level 1.
	Sticky bool
	// Creeps tells that even level 1 fails a water-based coat.
	Creeps bool
	// Remedy names the cleaners that shift it, best first, as a painter would
	// use them one after another.
	Remedy []string
	// Advice says the same in words.
	Advice string
}

// Soils is indexed by Soil.
var Soils = [NumSoils]SoilRow{
	Dust:            {"dust", "dust", .15, false, false, []string{"vacuum_tack"}, "vacuum, tack cloth or a damp wipe"},
	Grime:           {"grime", "grime from hands", .35, false, false, []string{"detergent"}, "a detergent wash"},
	Grease:          {"grease", "grease", .55, true, false, []string{"degreaser_alkaline"}, "alkaline degreaser and two rinses, or a solvent"},
	WaxPolish:       {"wax_polish", "wax polish", .65, true, true, []string{"white_spirit", "detergent"}, "white spirit with fresh rags, then detergent"},
	Silicone:        {"silicone", "silicone polish", .75, true, true, []string{"white_spirit"}, "solvent, then shellac as a barrier: it never washes out completely"},
	NicotineSoil:    {"nicotine", "nicotine", .40, false, false, []string{"degreaser_alkaline"}, "alkaline degreaser and rinse, then a blocking coat"},
	Mould:           {"mould", "mould", .40, false, false, []string{"biocide_wash"}, "a biocide wash, drying, and finding where the damp comes from"},
	Adhesive:        {"adhesive", "old adhesive", .50, false, false, []string{"white_spirit"}, "warm water or solvent and a scraper"},
	RustLoose:       {"rust_loose", "loose rust", .70, false, false, []string{"dry_brush", "rust_converter"}, "wire brush, abrasive, rust converter"},
	Oxide:           {"oxide", "oxide", .40, false, false, []string{"alcohol"}, "sand, wipe with alcohol, and coat the same day"},
	SaltsSoil:       {"salts", "salt bloom", .50, false, false, []string{"dry_brush"}, "brush off dry, never wash it in; let it dry, then seal"},
	CleanerResidue:  {"cleaner_residue", "cleaner left on the surface", .30, false, false, []string{"detergent"}, "rinse twice with clear water"},
	Softener:        {"softener", "fabric softener", .40, false, false, []string{"detergent"}, "a wash"},
	StripperResidue: {"stripper_residue", "stripper residue", .55, false, false, []string{"white_spirit", "detergent"}, "white spirit or alcohol, then detergent"},
	Limescale:       {"limescale", "limescale and soap scum", .40, false, false, []string{"vinegar_water"}, "vinegar and water, rinsed"},
	OilCutting:      {"oil_cutting", "cutting oil", .55, false, false, []string{"degreaser_alkaline"}, "acetone or degreaser"},
	ReleaseAgent:    {"release_agent", "release agent", .55, false, false, []string{"alcohol"}, "alcohol or solvent, wiped with two rags"},
}

// String returns the soil's id.
func (s Soil) String() string {
	if s < NumSoils {
		return Soils[s].ID
	}
	return "?"
}

// Carrier is what a product or a cleaner is carried in.
type Carrier uint8

// The carriers.
const (
	Dry Carrier = iota
	Water
	Alcohol
	Solvent
	StrongSolvent
	Paste
	OilCarrier
)

var carrierIDs = [...]string{"none", "water", "alcohol", "solvent", "strong_solvent", "paste", "oil"}

// String returns the carrier's id.
func (c Carrier) String() string { return carrierIDs[c] }

// Volatile tells whether the carrier gives off vapour that needs ventilation and no flames.
func (c Carrier) Volatile() bool {
	return c == Alcohol || c == Solvent || c == StrongSolvent
}

// Shift is what one pass of a cleaner does to a soil.
type Shift struct {
	Soil   Soil
	Levels uint8 // how many levels one pass takes off
	UpTo   uint8 // heaviest level it works on; 0 means any
	// After tells that it works only once white spirit has loosened the soil.
	After bool
}

// WaxRemover is the cleaner that takes a wax finish off.
const WaxRemover = "white_spirit"

// RustConverter is the wash that steel may meet after it was brushed bright.
const RustConverter = "rust_converter"

// CleanerRow describes one cleaner.
type CleanerRow struct {
	ID      string
	Name    string
	Carrier Carrier
	Shifts  []Shift
	// Rinses is how many clear-water rinses it needs, 0 if none.
	Rinses int
	// Residue is the level of cleaner residue left when it is not rinsed.
	Residue uint8
	// Key is a chemical key it gives, as a gain before the surface's best is
	// taken into account; 0 for none.
	Key float64
	// DryHours is how long the surface needs afterwards before a coat, at
	// 23 C and 50 %. Working default.
	DryHours float64
	// Minutes of work per square metre and pass. Working default.
	Minutes float64
	Alkali  bool // caustic to skin and eyes
	Ammonia bool
	Biocide bool
	// Loosens takes flaking material off.
	Loosens bool
	Warns   string
	// Everyday tells that it is used for everything it removes; the others only for what they are
	// made for.
	Everyday bool
	// Serves are the places in plans and proposals that it fills.
	Serves []Serve
}

// OnlyDust tells that it removes dust and nothing else, as dusting off between steps does.
func (c *CleanerRow) OnlyDust() bool { return len(c.Shifts) == 1 && c.Shifts[0].Soil == Dust }

// Shift returns the cleaner's action on s, if it has one at the given level.
func (c *CleanerRow) Shift(s Soil, level uint8) (Shift, bool) {
	for _, x := range c.Shifts {
		if x.Soil == s && (x.UpTo == 0 || level <= x.UpTo) {
			return x, true
		}
	}
	return Shift{}, false
}

var defaultCleaners = []CleanerRow{
	{"vacuum_tack", "Vacuum and tack cloth", Dry, []Shift{{Soil: Dust, Levels: 3}}, 0, 0, 0, 0, 2, false, false, false, false, "under water-based paint, use an oily tack cloth lightly", false, nil},
	{"detergent", "Detergent wash", Water, []Shift{{Soil: Grime, Levels: 2}, {Soil: Dust, Levels: 3}, {Soil: Softener, Levels: 2}, {Soil: WaxPolish, Levels: 1, UpTo: 1, After: true}, {Soil: StripperResidue, Levels: 1, UpTo: 1, After: true}}, 1, 1, 0, 1, 8, false, false, false, false, "never flood MDF, particleboard or veneer: they swell", true, []Serve{{ForWash, 1}}},
	{"degreaser_alkaline", "Alkaline degreaser", Water, []Shift{{Soil: Grease, Levels: 2}, {Soil: Grime, Levels: 2}, {Soil: NicotineSoil, Levels: 2}, {Soil: OilCutting, Levels: 2}, {Soil: Dust, Levels: 3}}, 2, 2, 0, 1.5, 12, true, false, false, false, "not on aluminium or brass; gloves and goggles", true, nil},
	{"vinegar_water", "Vinegar and water", Water, []Shift{{Soil: Grime, Levels: 1, UpTo: 1}, {Soil: Limescale, Levels: 2}, {Soil: CleanerResidue, Levels: 2}, {Soil: Dust, Levels: 3}}, 0, 0, 0, 1, 8, false, false, false, false, "not on stone or marble", false, nil},
	{"white_spirit", "White spirit", Solvent, []Shift{{Soil: WaxPolish, Levels: 2}, {Soil: Silicone, Levels: 1}, {Soil: Adhesive, Levels: 2}, {Soil: StripperResidue, Levels: 2}, {Soil: Grease, Levels: 1}, {Soil: Dust, Levels: 3}}, 0, 0, 0, 1.5, 10, false, false, false, false, "flammable; not on some plastics; wash afterwards", true, []Serve{{ForSolvent, 2}}},
	{"alcohol", "Alcohol wipe", Alcohol, []Shift{{Soil: ReleaseAgent, Levels: 2}, {Soil: Grease, Levels: 1, UpTo: 1}, {Soil: Oxide, Levels: 2}, {Soil: StripperResidue, Levels: 2}, {Soil: Dust, Levels: 3}}, 0, 0, 0, .3, 6, false, false, false, false, "dissolves shellac and crazes acrylic plastic; flammable", true, []Serve{{ForSolvent, 1}}},
	{"acetone", "Acetone", Solvent, []Shift{{Soil: OilCutting, Levels: 2}, {Soil: ReleaseAgent, Levels: 2}, {Soil: Grease, Levels: 2}, {Soil: Adhesive, Levels: 2}, {Soil: Dust, Levels: 3}}, 0, 0, 0, .1, 6, false, false, false, false, "never on plastic or on any film; very flammable", false, nil},
	{"deglosser_liquid", "Liquid deglosser", Solvent, []Shift{{Soil: Grease, Levels: 1, UpTo: 1}, {Soil: Dust, Levels: 3}}, 0, 0, .6, .5, 8, false, false, false, false, "not on plastics; ventilate", false, []Serve{{ForDeglossing, 1}}},
	{"ammonia_water", "Ammonia water", Water, []Shift{{Soil: Grime, Levels: 1}, {Soil: Dust, Levels: 3}}, 1, 1, 0, 1, 10, true, true, false, false, "not on brass, copper, aluminium or mirror backing; never with bleach", false, nil},
	{"biocide_wash", "Biocide wash", Water, []Shift{{Soil: Mould, Levels: 2}}, 1, 1, 0, 4, 8, false, false, true, false, "never mixed with another cleaner", false, nil},
	{"rust_converter", "Rust converter", Water, []Shift{{Soil: RustLoose, Levels: 2}}, 0, 0, 0, 3, 10, false, false, false, false, "after brushing off loose rust", false, nil},
	{"dry_brush", "Dry brush", Dry, []Shift{{Soil: SaltsSoil, Levels: 2}, {Soil: RustLoose, Levels: 1}, {Soil: Dust, Levels: 1}}, 0, 0, 0, 0, 5, false, false, false, true, "not where lead is suspected", true, []Serve{{ForBrushing, 1}}},
}
