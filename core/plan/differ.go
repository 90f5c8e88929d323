package plan

import (
	"fmt"
	"math"
	"strings"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/surface"
)

// DaysOf is how many days a plan for a zone takes at a bench, without the wait for hardness before things
// go back.
func DaysOf(c *craft.Craft, z *check.Zone, steps []surface.Step, b Bench) int {
	with := *z
	with.Steps = steps
	if idle(steps) > 0 {
		with.Steps = steps[:len(steps)-2]
	}
	return Days(Trips(c, []check.Zone{with}, b))
}

// much is by how many hours of work, and oddly by how much chance of peeling, two plans differ so that a
// painter would speak of it. Working defaults.
const much, oddly = .75, .04

// Differ says in a sentence how another plan for a zone differs from one: what it costs more, and what it
// spares.
func Differ(c *craft.Craft, z *check.Zone, b Bench, one, other *Plan) string {
	var worse, better []string
	say := func(is bool, words string) {
		if is {
			worse = append(worse, words)
		} else {
			better = append(better, words)
		}
	}
	if x := other.Judged.Risk - one.Judged.Risk; math.Abs(x) >= oddly {
		say(x > 0, map[bool]string{true: "it holds less well", false: "it holds better"}[x > 0])
	}
	if x := other.Judged.Stain - one.Judged.Stain; math.Abs(x) >= 1 {
		say(x > 0, map[bool]string{true: "a stain may show", false: "no stain shows"}[x > 0])
	}
	// What else can go wrong, where that is not what was said just now.
	if x := other.Judged.Watches.Len() - one.Judged.Watches.Len(); x > 0 && len(worse) == 0 || x < 0 && len(better) == 0 {
		say(x > 0, map[bool]string{true: "more can go wrong", false: "less can go wrong"}[x > 0])
	}
	if n := DaysOf(c, z, other.Steps, b) - DaysOf(c, z, one.Steps, b); n != 0 {
		words := "a day"
		if n > 1 || n < -1 {
			words = measure.Count(max(n, -n), "day", "days")
		}
		say(n > 0, words+map[bool]string{true: " longer", false: " shorter"}[n > 0])
	}
	if x := other.Amounts[HandsOn] - one.Amounts[HandsOn]; math.Abs(x) >= much {
		say(x > 0, about(math.Abs(x))+map[bool]string{true: " more work", false: " less work"}[x > 0])
	}
	for _, trait := range []struct {
		of          func(*surface.Step) bool
		with, spare string
	}{
		{func(s *surface.Step) bool { return s.Do == surface.Strip }, "it must be stripped", "nothing to strip"},
		{func(s *surface.Step) bool { return s.Do == surface.Abrade }, "it must be sanded", "nothing to sand"},
		{func(s *surface.Step) bool {
			return s.Do == surface.Coat && s.Scope == surface.All && c.Products[s.Product].Role == craft.RolePrimer
		}, "it needs a primer", "no primer"},
		{func(s *surface.Step) bool {
			return s.Do == surface.Coat && (c.Products[s.Product].Role == craft.RoleClear || c.Products[s.Product].Role == craft.RoleWax)
		}, "it needs a seal", "no seal"},
	} {
		has := func(p *Plan) bool {
			for i := range p.Steps {
				if trait.of(&p.Steps[i]) {
					return true
				}
			}
			return false
		}
		switch a, o := has(one), has(other); {
		case o && !a:
			worse = append(worse, trait.with)
		case a && !o:
			better = append(better, trait.spare)
		}
	}
	if a, o := SmellWords(one.Amounts[Smell]), SmellWords(other.Amounts[Smell]); a != o {
		x := other.Amounts[Smell] > one.Amounts[Smell]
		say(x, map[bool]string{true: "it smells more", false: "it smells less"}[x])
	}
	const most = 2
	worse, better = worse[:min(most, len(worse))], better[:min(most, len(better))]
	switch {
	case len(worse) == 0 && len(better) == 0:
		return "Much the same: " + Ground(c, other.Steps) + ", then " + Finish(c, other.Steps) + "."
	case len(worse) == 0:
		return sentence(craft.List(better))
	case len(better) == 0:
		return sentence(craft.List(worse))
	}
	return sentence(craft.List(worse) + ", but " + craft.List(better))
}

func sentence(s string) string { return craft.Upper(s) + "." }

// about words hours as people say them.
func about(h float64) string {
	switch n := math.Round(h); {
	case n <= 1:
		return "an hour"
	default:
		return fmt.Sprintf("%.0f hours", n)
	}
}

// OneIn words a chance as one face in so many.
func OneIn(risk float64) string {
	n := int(math.Round(1 / max(risk, 1e-3)))
	words := [...]string{2: "two", 3: "three", 4: "four", 5: "five", 6: "six", 7: "seven", 8: "eight", 9: "nine", 10: "ten"}
	if n < len(words) && n >= 2 {
		return "one face in " + words[n]
	}
	if n < 2 {
		return "nearly every face"
	}
	return fmt.Sprintf("one face in %d", n)
}

// Front is what must stand in front of a plan, before its verdict: how many faces painted like this peel.
// Empty where it holds.
func Front(risk float64) string {
	if check.RiskVerdict(risk) == check.Sound {
		return ""
	}
	return "About " + OneIn(risk) + " painted like this peels under this wear."
}

// Refit says from when things may go back, where a plan waits for hardness and what goes back is hardware
// that closes on nothing: the next day, with care. Empty where that is not so.
func Refit(z *check.Zone, steps []surface.Step) string {
	if idle(steps) <= day || z.Touching || z.Uses&(craft.Food|craft.Child) != 0 {
		return ""
	}
	return "Handles and knobs can go back the next day if they must: do them up loosely, put nothing on it, and press in no rosette for " + measure.Hours(idle(steps)) + "."
}

// WorkHours words hours of work as the range that they lie in.
func WorkHours(hours float64) string {
	return measure.Between(surface.HoursRange(hours))
}

// Leaves words the habits that a plan does not keep: what each of them risks.
func (s HabitSet) Leaves() []string {
	var out []string
	for h := range NumHabits {
		if s.Has(h) {
			out = append(out, Habits[h].Risk)
		}
	}
	return out
}

// Buying words what a plan needs that the kit has not, within a sentence; empty for nothing.
func Buying(items []Item) string {
	var buy, borrow []string
	for _, x := range items {
		if x.Borrow {
			borrow = append(borrow, craft.Lower(x.Name))
		} else {
			buy = append(buy, craft.Lower(x.Name))
		}
	}
	var out []string
	if len(buy) > 0 {
		out = append(out, "buy "+craft.List(buy))
	}
	if len(borrow) > 0 {
		out = append(out, "borrow "+craft.List(borrow))
	}
	return strings.Join(out, ", and ")
}
