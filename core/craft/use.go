package craft

// Sheen is how much a surface shines.
type Sheen uint8

// The sheens, least first. NoSheen is one that was not recorded.
const (
	NoSheen Sheen = iota
	DeadFlat
	Matt
	Eggshell
	Satin
	SemiGloss
	Gloss
	numSheens
)

// SheenRow describes one sheen.
type SheenRow struct {
	ID    string
	Name  string
	Units float64 // gloss units at 60 degrees, about
	Key   float64 // the key an unabraded film of this sheen offers
}

// Sheens is indexed by Sheen. An unrecorded sheen is taken as satin.
var Sheens = [numSheens]SheenRow{
	NoSheen:   {"", "sheen not recorded, assumed satin", 35, .4},
	DeadFlat:  {"dead_flat", "dead flat", 2, .7},
	Matt:      {"matt", "matt", 8, .7},
	Eggshell:  {"eggshell", "eggshell", 20, .5},
	Satin:     {"satin", "satin", 35, .4},
	SemiGloss: {"semi_gloss", "semi-gloss", 60, .3},
	Gloss:     {"gloss", "gloss", 85, .2},
}

// SheenNamed returns the sheen with an id; false if there is none.
func SheenNamed(id string) (Sheen, bool) {
	for i := DeadFlat; i < numSheens; i++ {
		if Sheens[i].ID == id {
			return i, true
		}
	}
	return NoSheen, false
}

// Wear is how hard a zone will be used.
type Wear uint8

// The wear classes.
const (
	Display Wear = iota
	Handled
	Seat
	Tabletop
	WetWear
	Outdoor
	Floor
	numWears
)

// WearRow describes one wear class.
type WearRow struct {
	ID, Name string
	Phrase   string  // the wear within a sentence
	Demand   float64 // the strength every boundary must have
	// Hard wear makes an unsealed porous paint a failure and not a risk.
	Hard bool
}

// Wears is indexed by Wear.
var Wears = [numWears]WearRow{
	Display:  {"display", "Display only", "display", .30, false},
	Handled:  {"handled", "Handled every day", "everyday handling", .50, false},
	Seat:     {"seat", "Seat", "a seat", .62, true},
	Tabletop: {"tabletop", "Table top", "a table top", .65, true},
	WetWear:  {"wet", "Often wet", "a wet place", .66, true},
	Outdoor:  {"outdoor", "Outdoors", "the weather", .68, true},
	Floor:    {"floor", "Walked on", "a floor", .70, true},
}

// WearNamed returns the wear class with an id; false if there is none.
func WearNamed(id string) (Wear, bool) {
	for i := range Wears {
		if Wears[i].ID == id {
			return Wear(i), true
		}
	}
	return 0, false
}

// Uses is a set of the ways a piece is used.
type Uses uint8

// The uses.
const (
	Indoor Uses = 1 << iota
	UseOutdoor
	Damp
	HotItems
	Food
	Child
	Lamp
)

// UseRow describes one use.
type UseRow struct {
	ID, Name string
	Bit      Uses
}

// UseRows lists the uses.
var UseRows = []UseRow{
	{"indoor", "Indoors", Indoor},
	{"outdoor", "Outdoors", UseOutdoor},
	{"damp", "A damp place", Damp},
	{"hot_items", "Hot mugs and dishes", HotItems},
	{"food", "Touches food", Food},
	{"child", "Used by a child", Child},
	{"lamp", "A lamp, or with wiring", Lamp},
}

// Names are the uses in words, within a sentence.
func (u Uses) Names() []string {
	var out []string
	for _, r := range UseRows {
		if u&r.Bit != 0 {
			out = append(out, Lower(r.Name))
		}
	}
	return out
}

// UsesNamed returns the bit of a use; false if there is none of that id.
func UsesNamed(id string) (Uses, bool) {
	for _, u := range UseRows {
		if u.ID == id {
			return u.Bit, true
		}
	}
	return 0, false
}

// How is the way something is sanded.
type How string

// The ways to abrade.
const (
	Hand    How = "hand"
	Machine How = "machine"
	Wet     How = "wet"
	Pad     How = "pad"
)

// Hows lists the ways to abrade with their names.
var Hows = []struct {
	ID   How
	Name string
}{{Hand, "by hand"}, {Machine, "by machine"}, {Wet, "wet"}, {Pad, "with a scouring pad"}}

// PadGain is the key a fine scouring pad gives.
const PadGain = .7

// ShallowGrit is the grit from which on wearing an edge takes the top coat only, working default.
const ShallowGrit = 320

// KeyGrits are the coarsest and the finest grit that give a film all the key it can have.
func KeyGrits() (from, to int) {
	for _, x := range keyByGrit {
		if x.key == 1 {
			if from == 0 {
				from = int(x.grit)
			}
			to = int(x.grit)
		}
	}
	return from, to
}

// keyByGrit is the key gained by the last grit, at the usual grits; linear in between.
var keyByGrit = []struct{ grit, key float64 }{
	{24, .95}, {150, .95}, {180, 1}, {240, 1}, {320, .75}, {400, .6}, {600, .4}, {1000, .25}, {5000, .1},
}

// KeyGain returns the key a grit gives, 0 to 1, before the surface's best is
// taken into account. The pad's does not depend on a grit. Working default.
func KeyGain(grit int, how How) float64 {
	if how == Pad || grit <= 0 {
		return PadGain
	}
	g := float64(grit)
	if g <= keyByGrit[0].grit {
		return keyByGrit[0].key
	}
	for i := 1; i < len(keyByGrit); i++ {
		a, b := keyByGrit[i-1], keyByGrit[i]
		if g <= b.grit {
			return a.key + (b.key-a.key)*(g-a.grit)/(b.grit-a.grit)
		}
	}
	return keyByGrit[len(keyByGrit)-1].key
}

// MinGrit and MaxGrit bound what can be bought as an abrasive.
const (
	MinGrit = 24
	MaxGrit = 5000
)

// MethodRow describes a way of applying a coat.
type MethodRow struct {
	ID, Name string
	Loss     float64 // share of the paint that never reaches the surface
	// Minutes of work per square metre and coat on a plain part, Edge those per metre of edges that
	// are cut along, and SetUp those before and after every coat: stirring, straining, covering the
	// bench and cleaning up; for the gun masking and cleaning it as well. Working defaults.
	Minutes, Edge, SetUp float64
}

// Methods lists the ways of applying; the first is taken when none is said.
var Methods = []MethodRow{
	{"brush", "Brush", .05, 17, .5, 20},
	{"foam", "Foam or sponge", .05, 12, .4, 14},
	{"roller", "Roller", .10, 11, .5, 24},
	{"spray", "Spray", .30, 5, 0, 50},
	{"aerosol", "Aerosol can", .40, 7, 0, 15},
	{"pad", "Pad", .10, 11, .2, 14},
	{"rag", "Rag", .10, 12, .1, 12},
}

// MethodNamed returns the method with an id, or the brush and false.
func MethodNamed(id string) (MethodRow, bool) {
	for _, m := range Methods {
		if m.ID == id {
			return m, true
		}
	}
	return Methods[0], false
}

// Minutes of work per square metre of the steps that are not coats, and MinutesSetUp per visit to a
// zone. MinutesBetween is the light sanding with fine paper between two coats of a paint or clear that
// is to lie smooth, and the mixing is that of every coat. Working defaults.
const (
	MinutesAbradeHand    = 16.
	MinutesAbradeMachine = 8.
	MinutesDust          = 4.
	MinutesRaiseGrain    = 5.
	MinutesSetUp         = 8.
	MinutesStrip         = 40.
	MinutesFill          = 10.
	MinutesRepair        = 30.
	MinutesMask          = 6.
	MinutesRemove        = 6.
	MinutesReassemble    = 10.
	MinutesBetween       = 4.
	MinutesMixPowder     = 10.
	MinutesMixTwoPart    = 8.
	MinutesMixOwn        = 15.
	HoursRaiseGrainDries = 2.
	// Hours until work goes on after stripping with a chemical, filling and
	// gluing.
	HoursStripDries  = 12.
	HoursFillTwoPart = .35
	HoursFillFine    = 2.
	HoursGlueHardens = 4.
)

// LeadYear is the year before which old paint and varnish are suspected of
// lead, unless local rules say otherwise. Working default.
const LeadYear = 1980
