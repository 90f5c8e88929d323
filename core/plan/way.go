package plan

import (
	"slices"

	"rutile/core/craft"
)

// Way is a way of working: what a painter reaches for, as choices that a plan
// keeps to.
type Way struct {
	ID, Name string
	Says     string // what it is, as a sentence
	// Holds is what makes paint hold.
	Holds Holds
	// ScuffFirst sands before the last cleaning, which then is a solvent wipe.
	ScuffFirst bool
	// Sand tells when an old surface is sanded.
	Sand Sanding
	// Additive is the bonding additive in powder paint, by volume, for the way that
	// lives by it; 0 stands for half. AdditiveFirst has it in the first coat only.
	Additive      float64
	AdditiveFirst bool
	// Water is the ratio of water to powder; 0 stands for equal parts.
	Water float64
	// Seal is what seals an everyday paint, and FlakeSeal one that flakes.
	Seal      Sealing
	FlakeSeal FlakeSealing
	// Resist is what keeps paint from holding in patches, where it is to flake.
	Resist Resisting
	// Crackle is what a coat cracks over.
	Crackle craft.Crackling
	// Deep wears a dry paint through with 220; otherwise 320 stops at the
	// undercoat.
	Deep bool
	// Method applies paint, primer and clear: brush, roller or spray; empty for the brush.
	Method string
	// NextDay leaves every coat until the next day, where its window allows.
	NextDay bool
	// Cure is how far the last coat has hardened when it is put back together; 0
	// stands for a third.
	Cure float64
	// Knots tells where a blocking coat goes against local stains.
	Knots Knotting
	// Paints are the ids of the paints that it uses; none stands for all.
	Paints []string
	// NoSmell leaves out what is carried in solvent or alcohol.
	NoSmell bool
	// Shelf are the ids of the products there are; nil for every kind.
	Shelf []string
	// Without are the ids of products that it does not use.
	Without []string
	// HabitsOff are the habits that it leaves out.
	HabitsOff HabitSet
}

// Holds is what makes paint hold.
type Holds uint8

// The five main ways to make paint hold, and whichever is best.
const (
	Whichever Holds = iota
	ScuffAndSeal
	Prime
	Additive
	StraightOn
	Chemical
)

// Sanding tells when an old surface is sanded.
type Sanding uint8

// The choices.
const (
	SandByNeed Sanding = iota
	SandAlways
	SandNever
)

// Sealing is what seals an everyday paint.
type Sealing uint8

// The choices.
const (
	SealByWear Sealing = iota
	SealWax            // wax or oil
	SealClear          // a clear coat
)

// FlakeSealing is what seals a paint that flakes.
type FlakeSealing uint8

// The choices.
const (
	FlakeWax  FlakeSealing = iota // wax or oil
	FlakeMist                     // a mist of shellac, then a clear coat
)

// Resisting is what keeps paint from holding in patches.
type Resisting uint8

// The choices.
const (
	ResistEither  Resisting = iota // wax or nothing
	ResistWax                      // wax
	ResistShellac                  // shellac, painted over while it is tacky
	ResistLacquer                  // lacquer, painted over while it is tacky
)

// Knotting is where a blocking coat goes against local stains.
type Knotting uint8

// The choices.
const (
	KnotsEither Knotting = iota
	KnotsSpots           // on the spots alone
	KnotsAll             // over the whole face
)

// Choice is one way of answering a question on which painters disagree.
type Choice struct{ ID, Name string }

// The choices by field, in the order of their values.
var (
	HoldChoices = []Choice{
		{"any", "Whatever is best"}, {"scuff_and_seal", "Scuff and seal"}, {"prime", "Prime"},
		{"additive", "Additive in the paint"}, {"straight_on", "No primer"}, {"chemical", "Deglosser instead of sanding"},
	}
	SandChoices      = []Choice{{"by_need", "Where needed"}, {"always", "Always a little"}, {"never", "Never"}}
	SealChoices      = []Choice{{"by_wear", "To suit the wear"}, {"wax", "Wax or oil"}, {"clear", "Clear coat"}}
	FlakeSealChoices = []Choice{{"wax", "Wax or oil only"}, {"mist", "A mist of shellac, then a clear"}}
	ResistChoices    = []Choice{{"either", "Wax where needed"}, {"wax", "Wax"}, {"shellac", "Shellac, still tacky"}, {"lacquer", "Lacquer, still tacky"}}
	CrackleChoices   = []Choice{{"medium", "Crackle medium"}, {"lift", "Lift medium, pulled off in streaks"}, {"tacky", "Tacky shellac or lacquer under powder paint"}}
	KnotChoices      = []Choice{{"either", "Whatever is enough"}, {"spots", "Only spots"}, {"all", "The whole face"}}
	WayMethods       = []string{"brush", "roller", "spray"}
)

// Measure is an amount that a way may say, as a painter words it.
type Measure struct {
	Amount float64
	Name   string
}

// The amounts by field, the usual first. Working defaults.
var (
	AdditiveMeasures = []Measure{{craft.AdditiveFull, "Half as much as paint"}, {.1, "A little"}, {1, "As much as paint"}}
	WaterMeasures    = []Measure{{1, "Equal parts"}, {.8, "A little less than powder"}, {1.5, "Half as much again"}, {2, "Twice as much"}}
	CureMeasures     = []Measure{{.3, "Once it can be handled with care"}, {.6, "Once it is hard enough for everyday use"}}
)

// Ways are the ways that come with the program, the usual one first.
var Ways = []Way{
	{ID: "best", Name: "Whatever is best", Says: "Every way to make paint hold is compared, and the best plan is used."},
	{ID: "scuff_and_seal", Name: "Scuff and seal", Says: "A light sanding and two coats of clear shellac, then any paint.", Holds: ScuffAndSeal},
	{ID: "prime", Name: "Prime", Says: "A bonding or stain-blocking primer under the paint.", Holds: Prime},
	{ID: "additive", Name: "Additive in the paint", Says: "Powder paint with bonding additive in every coat, and no primer.", Holds: Additive},
	{ID: "straight_on", Name: "No primer", Says: "Matt or self-priming paint directly on a scuffed surface.", Holds: StraightOn},
	{ID: "chemical", Name: "Deglosser", Says: "Liquid deglosser instead of sanding, then primer or paint.", Holds: Chemical},
	{ID: "careful", Name: "Slow and careful", Says: "Every coat dries until the next day, and hardware goes back once the paint is hard enough for everyday use.", NextDay: true, Cure: .6, Sand: SandAlways},
	{ID: "by_wax", Name: "Matt and wax", Says: "Chalk or clay paint, sealed with wax or oil.", Paints: []string{"paint_chalk", "paint_clay", "paint_diy_chalk", "paint_milk"}, Seal: SealWax},
	{ID: "scuff_first", Name: "Scuff, then solvent", Says: "Sanding first and a solvent wipe afterwards; only where no grease, wax or silicone was found.", ScuffFirst: true},
	{ID: "indoors", Name: "Without solvent", Says: "Only water-based products, for work at a kitchen table or in a flat.", NoSmell: true},
	{ID: "sprayed", Name: "Sprayed", Says: "Primer, paint and clear from a spray gun; what can make people allergic, with the brush.", Method: "spray"},
}

// Main are the ids of the ways of working that differ in what makes paint hold: those compared by
// default.
func Main() []string {
	var out []string
	for i := range Ways {
		if Ways[i].Holds != Whichever {
			out = append(out, Ways[i].ID)
		}
	}
	return out
}

// WayNamed returns the way of an id, among those that come with the program and
// one's own; false if there is none.
func WayNamed(id string, own []Way) (Way, bool) {
	for _, list := range [][]Way{own, Ways} {
		for i := range list {
			if list[i].ID == id {
				return list[i], true
			}
		}
	}
	return Way{}, false
}

// uses tells whether a way uses a product.
func (w *Way) uses(p *craft.ProductRow) bool {
	switch {
	case w.Shelf != nil && !slices.Contains(w.Shelf, p.ID), slices.Contains(w.Without, p.ID):
		return false
	case w.NoSmell && p.Carrier.Volatile():
		return false
	case p.Role == craft.RolePaint && len(w.Paints) > 0 && !slices.Contains(w.Paints, p.ID):
		return false
	case w.Method == "spray" && p.Role == craft.RolePaint && p.Aerosol:
		return false
	}
	return true
}

// additive is the ratio of the bonding additive.
func (w *Way) additive() float64 {
	if w.Additive > 0 {
		return w.Additive
	}
	return AdditiveMeasures[0].Amount
}

// cure is how far the last coat has hardened when it is put back together.
func (w *Way) cure() float64 {
	if w.Cure > 0 {
		return w.Cure
	}
	return CureMeasures[0].Amount
}
