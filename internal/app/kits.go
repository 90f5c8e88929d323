package app

import (
	"slices"

	"rutile/core/plan"
	"rutile/internal/wire"
)

// habitsOf is the set of habits of some ids.
func habitsOf(ids []string) plan.HabitSet {
	var out plan.HabitSet
	for _, id := range ids {
		if h, ok := plan.HabitNamed(id); ok {
			out = out.Add(h)
		}
	}
	return out
}

// kitOf is a kit as plans use it.
func kitOf(k *wire.Kit) plan.Kit {
	out := plan.Kit{ID: k.ID, Name: k.Name, Says: k.Says, Tools: k.Tools, Products: k.Products}
	out.Choice[plan.UseEveryday], out.Choice[plan.UseMatt], out.Choice[plan.UseHard], out.Choice[plan.UseWeather] = k.Everyday, k.Matt, k.Hard, k.Weather
	return out
}

func kitFrom(k *plan.Kit) wire.Kit {
	return wire.Kit{
		ID: k.ID, Name: k.Name, Says: k.Says, Tools: k.Tools, Products: k.Products,
		Everyday: k.Choice[plan.UseEveryday], Matt: k.Choice[plan.UseMatt], Hard: k.Choice[plan.UseHard], Weather: k.Choice[plan.UseWeather],
	}
}

// KitOf is everything in some kits, by their ids among those of the program and a studio's own: the usual
// kit where none is named. False where there is none of some id.
func KitOf(ids []string, own []wire.Kit) (*plan.Kit, bool) {
	cores := make([]plan.Kit, len(own))
	for i := range own {
		cores[i] = kitOf(&own[i])
	}
	if len(ids) == 0 {
		ids = []string{plan.Kits[0].ID}
	}
	var kits []plan.Kit
	for _, id := range ids {
		k, ok := plan.KitNamed(id, cores)
		if !ok {
			return nil, false
		}
		kits = append(kits, k)
	}
	return plan.Together(kits), true
}

// benchOf is when a studio works.
func benchOf(b *wire.Bench) plan.Bench {
	if b == nil {
		return plan.UsualBench
	}
	out := plan.Bench{From: b.FromH, To: b.ToH}
	for i, id := range wire.Weekdays {
		out.Days[i] = slices.Contains(b.Days, id)
	}
	return out.OrUsual()
}

func benchFrom(b plan.Bench) wire.Bench {
	out := wire.Bench{FromH: b.From, ToH: b.To, Days: []string{}}
	for i, on := range b.Days {
		if on {
			out.Days = append(out.Days, wire.Weekdays[i])
		}
	}
	return out
}

func kitWords() wire.KitWords {
	out := wire.KitWords{Bench: benchFrom(plan.UsualBench)}
	for i := range plan.Kits {
		out.Kits = append(out.Kits, kitFrom(&plan.Kits[i]))
	}
	for _, t := range plan.Tools {
		out.Tools = append(out.Tools, word(t.ID, t.Name, ""))
	}
	for _, u := range plan.PaintUses {
		out.Uses = append(out.Uses, word(u.ID, u.Name, ""))
	}
	for _, h := range plan.Habits {
		out.Habits = append(out.Habits, wire.HabitWord{Word: word(h.ID, h.Name, h.Says), Risk: h.Risk})
	}
	return out
}
