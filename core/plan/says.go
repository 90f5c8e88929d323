package plan

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/identify"
	"rutile/core/measure"
	"rutile/core/surface"
)

// Range is a figure with what it is at its best and at its worst.
type Range struct{ Low, Likely, High float64 }

// How far the tables may be off: a bond may be a twelfth better or worse, and there may be a third
// less of a bleeder or half as much again. Working defaults.
const (
	bondOff             = 1. / 12
	stainLess, stainOff = .67, 1.5
)

// Risks is the risk of peeling, 0 to 1, of a plan that was checked, where every
// bond holds a little better or worse than the tables say.
func Risks(c *craft.Craft, r *check.Result) Range {
	a := r.Adhesion
	if a == nil {
		return Range{}
	}
	with := func(by float64) float64 {
		hold := 1.
		for i := range a.Boundary {
			b := a.Boundary[i].Boundary
			b.Strength = min(1, b.Strength*by)
			hold *= 1 - b.Risk(c, a.Demand, r.Doubt)
		}
		return 1 - hold
	}
	return Range{with(1 + bondOff), a.Risk, with(1 - bondOff)}
}

// Stains is the worst stain of a plan that was checked, in CIEDE2000 units, with less or more of
// the bleeder than surveyed.
func Stains(r *check.Result) Range {
	if len(r.Stains) == 0 {
		return Range{}
	}
	de := r.Stains[0].DeltaE
	return Range{de * stainLess, de, de * stainOff}
}

// Depends lists what a plan that was checked rests on, what matters most first, as
// clauses.
func Depends(c *craft.Craft, z *check.Zone, r *check.Result) []string {
	var out []string
	known := z.Known(c)
	switch {
	case c.Finishes[z.Finish].Unknown || c.Substrates[z.Substrate].Unknown:
		out = append(out, "what it is: that is not known, and the plan covers every possibility")
	case known.Finish == identify.Assumed && !c.Finishes[z.Finish].Bare:
		out = append(out, "the old finish being "+craft.Lower(c.Finishes[z.Finish].Name)+": not tested")
	}
	if !z.SoilsKnown {
		out = append(out, "no dirt worse than hand grime: not checked")
	}
	if a := r.Adhesion; a != nil {
		w := &a.Boundary[0]
		how := "how well " + craft.Lower(c.Products[w.Product].Name) + " grips " + a.OnWhat(c, &w.Boundary)
		if w.PatchTests > 0 {
			how += ", as your patch tests show"
		}
		out = append(out, how)
		for i := range a.Boundary {
			b := &a.Boundary[i]
			if b.First && b.Need > 0 && b.KeyGiven >= .6 && b.Under == craft.NoProduct && touched(z.Steps) {
				out = append(out, "the shine being gone before the first coat")
				break
			}
		}
	}
	for i := range r.Stains {
		s := &r.Stains[i]
		if s.Blocked && s.Load > 1 {
			out = append(out, blocker(c, z.Steps, s.Bleeder)+" holding "+craft.Bleeders[s.Bleeder].Name+" back")
			break
		}
	}
	for i := range r.Trace.Events {
		for _, b := range r.Trace.Events[i].Boundaries() {
			const within = 12
			if b.Under == craft.NoProduct || b.CoatNo > 1 || math.IsInf(b.Latest, 1) || b.Latest > within {
				continue
			}
			out = append(out, fmt.Sprintf("coming back within %s of the %s", measure.Hours(b.Latest), craft.Lower(c.Products[b.Under].Name)))
		}
	}
	if r.Chippy {
		out = append(out, "how much flakes off, which cannot be promised")
	}
	slices.Sort(out[min(1, len(out)):])
	return slices.Compact(out)
}

func touched(steps []surface.Step) bool {
	return slices.ContainsFunc(steps, func(s surface.Step) bool { return s.Do == surface.Abrade })
}

// blocker names the coat of a plan that lets least of a bleeder through.
func blocker(c *craft.Craft, steps []surface.Step, b craft.Bleeder) string {
	name, least := "the primer", 1.
	for i := range steps {
		if s := &steps[i]; s.Do == surface.Coat {
			if t := c.LetsThrough(s.Product, b); t < least {
				name, least = craft.Lower(c.Products[s.Product].Name), t
			}
		}
	}
	return name
}

// Amount words an amount of a term, with its unit.
func Amount(t Term, x float64) string {
	figure, row := figureOf(t, x), &Terms[t]
	switch {
	case t == Peel:
		return figure + " with a margin"
	case row.One == "": // the figure has it
		return figure
	case figure == "1":
		return "1 " + row.One
	}
	return figure + " " + row.Unit
}

// figureOf is an amount without what it counts; stains and lengths of time have
// their unit.
func figureOf(t Term, x float64) string {
	switch t {
	case Peel:
		return check.Percent(-math.Expm1(-x))
	case Stain:
		return fmt.Sprintf("ΔE %.1f", x)
	case Elapsed:
		return measure.Hours(x)
	case HandsOn:
		return measure.Number(x) + " h"
	case Cost:
		return fmt.Sprintf("%.2f", x)
	}
	return strings.TrimSuffix(fmt.Sprintf("%.1f", x), ".0")
}

// SmellWords say how much of a smell a plan makes.
func SmellWords(x float64) string {
	switch {
	case x < .5:
		return "almost none"
	case x < 4:
		return "faint"
	case x < 8:
		return "for a day"
	}
	return "strong: not indoors"
}

// TripsOf counts the trips that steps take, one for every coat.
func TripsOf(steps []surface.Step) int {
	n := 0
	for i := range steps {
		switch steps[i].Do {
		case surface.Wait:
		case surface.Dust:
			if i == 0 || steps[i-1].Do != surface.Abrade {
				n++
			}
		case surface.Coat:
			n += steps[i].NumCoats()
		default:
			n++
		}
	}
	return n
}

// Compare says why one plan comes before another, by the terms that tell most.
func Compare(w Weights, best, other *Plan) string {
	w = w.OrUsual()
	type gap struct {
		t Term
		x float64
	}
	var gaps []gap
	for t := range NumTerms {
		if x := w.Of(t) * (other.Amounts[t] - best.Amounts[t]); math.Abs(x) >= .05 {
			gaps = append(gaps, gap{t, x})
		}
	}
	if len(gaps) == 0 {
		return "It comes out equal."
	}
	slices.SortStableFunc(gaps, func(a, b gap) int { return cmp.Compare(math.Abs(b.x), math.Abs(a.x)) })
	const most = 4
	var out []string
	for _, g := range gaps[:min(most, len(gaps))] {
		more := "more"
		if g.x < 0 {
			more = "less"
		}
		out = append(out, fmt.Sprintf("%s %.1f points %s (%s instead of %s)", craft.Lower(Terms[g.t].Name), math.Abs(g.x), more, Amount(g.t, other.Amounts[g.t]), figureOf(g.t, best.Amounts[g.t])))
	}
	return fmt.Sprintf("It scores %.1f points worse: %s.", other.Points-best.Points, strings.Join(out, ", "))
}
