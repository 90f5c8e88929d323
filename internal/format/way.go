package format

import (
	"fmt"
	"regexp"
	"slices"

	"rutile/core/craft"
	"rutile/core/plan"
)

// Way is a way of working: the choices that plans are made by.
type Way struct {
	ID            string   `json:"id"`
	Name          string   `json:"name"`
	Says          string   `json:"says,omitempty" doc:"What it is, as a sentence"`
	Holds         string   `json:"holds,omitempty" enum:"any,scuff_and_seal,prime,additive,straight_on,chemical" doc:"What makes paint hold"`
	ScuffFirst    bool     `json:"scuff_first,omitempty" doc:"Sand first, and wipe with solvent after"`
	Sand          string   `json:"sand,omitempty" enum:"by_need,always,never" doc:"When an old surface is sanded"`
	Additive      float64  `json:"additive,omitempty" doc:"Bonding additive in powder paint, by volume; absent: half"`
	AdditiveFirst bool     `json:"additive_first,omitempty" doc:"The additive goes into the first coat only"`
	Water         float64  `json:"water,omitempty" doc:"Water to powder, by volume; absent: equal parts"`
	Seal          string   `json:"seal,omitempty" enum:"by_wear,wax,clear" doc:"What closes a paint for every day"`
	FlakeSeal     string   `json:"flake_seal,omitempty" enum:"wax,mist" doc:"What closes a paint that flakes"`
	Resist        string   `json:"resist,omitempty" enum:"either,wax,shellac,lacquer" doc:"What keeps paint from holding in patches, where it is to flake"`
	Crackle       string   `json:"crackle,omitempty" enum:"medium,lift,tacky" doc:"What a coat cracks over"`
	Deep          bool     `json:"deep,omitempty" doc:"Wear dry paint down to the material"`
	Method        string   `json:"method,omitempty" enum:"brush,roller,spray"`
	NextDay       bool     `json:"next_day,omitempty" doc:"Every coat waits until the next day"`
	Cure          float64  `json:"cure,omitempty" doc:"How hard the last coat is when it is put back together; absent: a third"`
	Knots         string   `json:"knots,omitempty" enum:"either,spots,all" doc:"Where a blocker goes against what rises in spots"`
	Paints        []string `json:"paints,omitempty" doc:"The only paints used; absent: all"`
	NoSmell       bool     `json:"no_smell,omitempty" doc:"Nothing carried in solvent or alcohol"`
	Shelf         []string `json:"shelf,omitzero" doc:"The only products there are; absent: every kind"`
	Without       []string `json:"without,omitempty" doc:"Products that are not used"`
}

// MostCompared is how many ways are set side by side at the most.
const MostCompared = 5

// MostWays is how many ways of its own a studio may keep.
const MostWays = 20

// idPattern is what ids of zones and of ways look like.
const idPattern = "^[a-z0-9][a-z0-9_-]{0,39}$"

var idForm = regexp.MustCompile(idPattern)

// check tells what of a way of one's own cannot be, at a path.
func (w *Way) check(at string) error {
	bad := func(field, value, says string) error { return &Error{at + "." + field, value, says} }
	if !idForm.MatchString(w.ID) {
		return bad("id", fmt.Sprintf("%q", w.ID), "an id is small letters, digits, - and _, 40 at most")
	}
	if len([]rune(w.Name)) == 0 || len([]rune(w.Name)) > MaxName {
		return bad("name", fmt.Sprintf("%q", clip(w.Name)), "a way needs a name of at most 200 characters")
	}
	if len([]rune(w.Says)) > MaxText {
		return bad("says", "", "at most 2000 characters")
	}
	for _, x := range []struct {
		field, value string
		among        []plan.Choice
	}{
		{"holds", w.Holds, plan.HoldChoices}, {"sand", w.Sand, plan.SandChoices}, {"seal", w.Seal, plan.SealChoices},
		{"flake_seal", w.FlakeSeal, plan.FlakeSealChoices}, {"resist", w.Resist, plan.ResistChoices}, {"crackle", w.Crackle, plan.CrackleChoices}, {"knots", w.Knots, plan.KnotChoices},
	} {
		if x.value != "" && choice(x.among, x.value) < 0 {
			return bad(x.field, fmt.Sprintf("%q", x.value), "there is no such choice")
		}
	}
	if w.Method != "" && !slices.Contains(plan.WayMethods, w.Method) {
		return bad("method", fmt.Sprintf("%q", w.Method), "brush, roller or spray")
	}
	for _, x := range []struct {
		field    string
		value    float64
		from, to float64
	}{{"additive", w.Additive, .05, 1}, {"water", w.Water, .8, 2}, {"cure", w.Cure, .1, .9}} {
		if x.value != 0 && !(x.value >= x.from && x.value <= x.to) {
			return bad(x.field, fmt.Sprint(x.value), fmt.Sprintf("between %v and %v", x.from, x.to))
		}
	}
	for _, x := range []struct {
		field string
		ids   []string
	}{{"paints", w.Paints}, {"shelf", w.Shelf}, {"without", w.Without}} {
		for i, id := range x.ids {
			if _, ok := craft.Default().Product(id); !ok {
				return bad(fmt.Sprintf("%s[%d]", x.field, i), fmt.Sprintf("%q", id), "there is no such product")
			}
		}
	}
	return nil
}

func choice(among []plan.Choice, id string) int {
	return slices.IndexFunc(among, func(c plan.Choice) bool { return c.ID == id })
}

// core is the way as plans are made by it.
func (w *Way) core() plan.Way {
	at := func(among []plan.Choice, id string) int { return max(0, choice(among, id)) }
	return plan.Way{
		ID: w.ID, Name: w.Name, Says: w.Says,
		Holds: plan.Holds(at(plan.HoldChoices, w.Holds)), ScuffFirst: w.ScuffFirst, Sand: plan.Sanding(at(plan.SandChoices, w.Sand)),
		Additive: w.Additive, AdditiveFirst: w.AdditiveFirst, Water: w.Water, Seal: plan.Sealing(at(plan.SealChoices, w.Seal)),
		Resist:    plan.Resisting(at(plan.ResistChoices, w.Resist)),
		FlakeSeal: plan.FlakeSealing(at(plan.FlakeSealChoices, w.FlakeSeal)), Crackle: plan.Crackling(at(plan.CrackleChoices, w.Crackle)),
		Deep: w.Deep, Method: w.Method, NextDay: w.NextDay, Cure: w.Cure, Knots: plan.Knotting(at(plan.KnotChoices, w.Knots)),
		Paints: w.Paints, NoSmell: w.NoSmell, Shelf: w.Shelf, Without: w.Without,
	}
}

// wayFrom writes a way of the core.
func wayFrom(w *plan.Way) Way {
	return Way{
		ID: w.ID, Name: w.Name, Says: w.Says,
		Holds: plan.HoldChoices[w.Holds].ID, ScuffFirst: w.ScuffFirst, Sand: plan.SandChoices[w.Sand].ID,
		Additive: w.Additive, AdditiveFirst: w.AdditiveFirst, Water: w.Water, Resist: plan.ResistChoices[w.Resist].ID,
		Seal: plan.SealChoices[w.Seal].ID, FlakeSeal: plan.FlakeSealChoices[w.FlakeSeal].ID,
		Crackle: plan.CrackleChoices[w.Crackle].ID, Deep: w.Deep, Method: w.Method, NextDay: w.NextDay, Cure: w.Cure,
		Knots: plan.KnotChoices[w.Knots].ID, Paints: w.Paints, NoSmell: w.NoSmell, Shelf: w.Shelf, Without: w.Without,
	}
}

// WayWords are the ways that come with the program, and the questions a way of
// one's own answers, the usual answer of each first.
type WayWords struct {
	Ways      []Way  `json:"ways" doc:"Those that come with the program, the usual one first"`
	Holds     []Word `json:"holds"`
	Sand      []Word `json:"sand"`
	Seal      []Word `json:"seal"`
	FlakeSeal []Word `json:"flake_seal"`
	Resist    []Word `json:"resist"`
	Crackle   []Word `json:"crackle"`
	Knots     []Word `json:"knots"`
	Method    []Word `json:"method"`
	// Amounts have the number for an id.
	Additive []Word   `json:"additive" doc:"Amounts in words, the usual one first; the id is the number"`
	Water    []Word   `json:"water" doc:"The same"`
	Cure     []Word   `json:"cure" doc:"The same"`
	Terms    []Term   `json:"terms" doc:"What plans are weighed by, in the order of weights"`
	Main     []string `json:"main" doc:"The ways that are set side by side where nobody chooses"`
	Most     int      `json:"most" doc:"As many are set side by side at the most"`
}

// Term is something that plans are weighed by.
type Term struct {
	ID     string  `json:"id"`
	Name   string  `json:"name"`
	Points float64 `json:"points" doc:"What one unit of it weighs"`
	Unit   string  `json:"unit"`
	Says   string  `json:"says"`
	Yours  bool    `json:"yours" doc:"The painter weighs it"`
}

func wayWords() WayWords {
	list := func(cs []plan.Choice) []Word {
		out := make([]Word, len(cs))
		for i, c := range cs {
			out[i] = Word{ID: c.ID, Name: c.Name}
		}
		return out
	}
	amounts := func(ms []plan.Measure) []Word {
		out := make([]Word, len(ms))
		for i, m := range ms {
			out[i] = Word{ID: fmt.Sprint(m.Amount), Name: m.Name}
		}
		return out
	}
	w := WayWords{
		Main: plan.Main(), Most: MostCompared,
		Additive: amounts(plan.AdditiveMeasures), Water: amounts(plan.WaterMeasures), Cure: amounts(plan.CureMeasures),
		Holds: list(plan.HoldChoices), Sand: list(plan.SandChoices), Seal: list(plan.SealChoices), FlakeSeal: list(plan.FlakeSealChoices),
		Resist: list(plan.ResistChoices), Crackle: list(plan.CrackleChoices), Knots: list(plan.KnotChoices),
	}
	for _, id := range plan.WayMethods {
		m, _ := craft.MethodNamed(id)
		w.Method = append(w.Method, Word{ID: m.ID, Name: m.Name})
	}
	for i := range plan.Ways {
		w.Ways = append(w.Ways, wayFrom(&plan.Ways[i]))
	}
	for t, r := range plan.Terms {
		w.Terms = append(w.Terms, Term{r.ID, r.Name, r.Points, r.Unit, r.Says, plan.Term(t) < plan.NumWeights})
	}
	return w
}

// WayNamed returns the way of an id, among one's own and those that come with the
// program.
func WayNamed(id string, own []Way) (plan.Way, bool) {
	cores := make([]plan.Way, len(own))
	for i := range own {
		cores[i] = own[i].core()
	}
	return plan.WayNamed(id, cores)
}
