package app

import (
	"fmt"
	"slices"

	"rutile/core/craft"
	"rutile/core/plan"
	"rutile/internal/wire"
)

// MostCompared is how many ways are set side by side at the most.
const MostCompared = 5

func choice(among []plan.Choice, id string) int {
	return slices.IndexFunc(among, func(c plan.Choice) bool { return c.ID == id })
}

// wayOf is a way as plans are made by it.
func wayOf(w *wire.Way) plan.Way {
	at := func(among []plan.Choice, id string) int { return max(0, choice(among, id)) }
	return plan.Way{
		ID: w.ID, Name: w.Name, Says: w.Says,
		Holds: plan.Holds(at(plan.HoldChoices, w.Holds)), ScuffFirst: w.ScuffFirst, Sand: plan.Sanding(at(plan.SandChoices, w.Sand)),
		Additive: w.Additive, AdditiveFirst: w.AdditiveFirst, Water: w.Water, Seal: plan.Sealing(at(plan.SealChoices, w.Seal)),
		Resist:    plan.Resisting(at(plan.ResistChoices, w.Resist)),
		FlakeSeal: plan.FlakeSealing(at(plan.FlakeSealChoices, w.FlakeSeal)), Crackle: craft.Crackling(at(plan.CrackleChoices, w.Crackle)),
		Deep: w.Deep, Method: w.Method, NextDay: w.NextDay, Cure: w.Cure, Knots: plan.Knotting(at(plan.KnotChoices, w.Knots)),
		Paints: w.Paints, NoSmell: w.NoSmell, Shelf: w.Shelf, Without: w.Without, HabitsOff: habitsOf(w.HabitsOff),
	}
}

// wayFrom writes a way of the core.
func wayFrom(w *plan.Way) wire.Way {
	return wire.Way{
		ID: w.ID, Name: w.Name, Says: w.Says,
		Holds: plan.HoldChoices[w.Holds].ID, ScuffFirst: w.ScuffFirst, Sand: plan.SandChoices[w.Sand].ID,
		Additive: w.Additive, AdditiveFirst: w.AdditiveFirst, Water: w.Water, Resist: plan.ResistChoices[w.Resist].ID,
		Seal: plan.SealChoices[w.Seal].ID, FlakeSeal: plan.FlakeSealChoices[w.FlakeSeal].ID,
		Crackle: plan.CrackleChoices[w.Crackle].ID, Deep: w.Deep, Method: w.Method, NextDay: w.NextDay, Cure: w.Cure,
		Knots: plan.KnotChoices[w.Knots].ID, Paints: w.Paints, NoSmell: w.NoSmell, Shelf: w.Shelf, Without: w.Without,
	}
}

func wayWords() wire.WayWords {
	list := func(cs []plan.Choice) []wire.Word {
		out := make([]wire.Word, len(cs))
		for i, c := range cs {
			out[i] = wire.Word{ID: c.ID, Name: c.Name}
		}
		return out
	}
	amounts := func(ms []plan.Measure) []wire.Word {
		out := make([]wire.Word, len(ms))
		for i, m := range ms {
			out[i] = wire.Word{ID: fmt.Sprint(m.Amount), Name: m.Name}
		}
		return out
	}
	w := wire.WayWords{
		Main: plan.Main(), Most: MostCompared,
		Additive: amounts(plan.AdditiveMeasures), Water: amounts(plan.WaterMeasures), Cure: amounts(plan.CureMeasures),
		Holds: list(plan.HoldChoices), Sand: list(plan.SandChoices), Seal: list(plan.SealChoices), FlakeSeal: list(plan.FlakeSealChoices),
		Resist: list(plan.ResistChoices), Crackle: list(plan.CrackleChoices), Knots: list(plan.KnotChoices),
	}
	for _, id := range plan.WayMethods {
		m, _ := craft.MethodNamed(id)
		w.Method = append(w.Method, wire.Word{ID: m.ID, Name: m.Name})
	}
	for i := range plan.Ways {
		w.Ways = append(w.Ways, wayFrom(&plan.Ways[i]))
	}
	for t, r := range plan.Terms {
		w.Terms = append(w.Terms, wire.Term{ID: r.ID, Name: r.Name, Points: r.Points, Unit: r.Unit, Says: r.Says, Yours: plan.Term(t) < plan.NumWeights})
	}
	return w
}

// WayNamed returns the way of an id, among one's own and those that come with the
// program.
func WayNamed(id string, own []wire.Way) (plan.Way, bool) {
	cores := make([]plan.Way, len(own))
	for i := range own {
		cores[i] = wayOf(&own[i])
	}
	return plan.WayNamed(id, cores)
}
