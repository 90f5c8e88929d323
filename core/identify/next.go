package identify

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"rutile/core/craft"
)

// Purpose says what the next test is for.
type Purpose struct {
	// Class names what would be done about a surface: surfaces of one class need not be
	// distinguished. Nil distinguishes every substrate and finish.
	Class func(Surface) string
	// Lead forbids tests that scrape or heat.
	Lead bool
	// Skip are tests that the painter would rather not make now.
	Skip []string
}

// Suggestion is a test worth making.
type Suggestion struct {
	Test *Test
	// Bits is what it is expected to tell, in bits, and Worth that less its
	// trouble and harm.
	Bits, Worth float64
	// Likely are its outcomes with how likely each is.
	Likely []float64
}

// Next is what could be tested next.
type Next struct {
	// Best first; where looks alone have settled it, what touches it first.
	Tests []Suggestion
	// Settled is the share of belief in which the same would be done, and Done
	// tells that no further test would change that, one at least having been
	// more than a look.
	Settled float64
	Done    bool
	// Barred are tests that lead forbids.
	Barred []*Test

	alike bool // the same would be done about all that a plan is judged for
}

// Settled is the share of belief in one class from which further tests would
// not change what is done, where all that a plan is judged for is of that class
// too. Working default.
const Settled = .93

// negligible is the probability below which hypotheses are not distinguished from each other.
const negligible = .001

// madeFrom is the share of belief in what a test can be made on, below which it
// is not offered.
const madeFrom = .6

// Next ranks the remaining tests by expected information about what to do, less their effort and
// harm.
func (b *Belief) Next(a Purpose) Next {
	out := b.ranked(a)
	out.Done = out.Settled >= Settled && out.alike || len(out.Tests) == 0 || out.Tests[0].Worth <= 0
	if out.Done && !b.Touched() {
		// Looks alone deceive: one small test belongs to every belief, the one that
		// tells most of what it is.
		a.Class = nil
		out.Tests = b.ranked(a).Tests
		looks := func(s Suggestion) int {
			if s.Test.Observation {
				return 1
			}
			return 0
		}
		slices.SortStableFunc(out.Tests, func(x, y Suggestion) int { return looks(x) - looks(y) })
		out.Done = len(out.Tests) == 0 || out.Tests[0].Test.Observation
	}
	return out
}

// ranked is [Belief.Next] without the decision whether to stop.
func (b *Belief) ranked(a Purpose) Next {
	classes := map[string]int{}
	class := make([]int, len(b.P))
	for h := range b.P {
		x := &Hypotheses[h]
		id := ""
		if x.Material >= 0 && b.P[h] >= negligible {
			if a.Class != nil {
				id = a.Class(b.surface(h))
			} else {
				id = Materials[x.Material].ID + "/" + finishes[x.Finish].id
			}
		} else {
			id = somethingElse
		}
		n, ok := classes[id]
		if !ok {
			n = len(classes)
			classes[id] = n
		}
		class[h] = n
	}
	mass := make([]float64, len(classes))
	for h, p := range b.P {
		mass[class[h]] += p
	}
	var out Next
	// No test settles what the tables do not know.
	known := slices.Clone(mass)
	rest := class[len(class)-1]
	known[rest] = 0
	out.Settled = max(slices.Max(known)/(1-mass[rest]), mass[rest])
	out.alike = true
	walked := b.Surfaces()
	for _, s := range walked {
		out.alike = out.alike && (s.Else || class[s.of] == class[walked[0].of])
	}
	before := entropy(mass)
	given := make([]float64, len(classes))
	for t := range Tests {
		x := &Tests[t]
		if slices.Contains(b.tests, t) || slices.Contains(a.Skip, x.ID) || x.ID == "age" && b.Known.Made != 0 {
			continue
		}
		can := b.sum(func(h *Hypothesis) bool {
			return h.Material < 0 || x.On&Materials[h.Material].Group != 0 && (!x.Clear || !slices.Contains(finishGroups["opaque"], finishes[h.Finish].id))
		})
		if can < madeFrom {
			continue
		}
		if a.Lead && x.Disturbs {
			out.Barred = append(out.Barred, x)
			continue
		}
		w := 1.
		if slices.ContainsFunc(b.tests, func(u int) bool { return Tests[u].Sees == x.Sees }) {
			w = 1 - shared[x.Sees]
		}
		s := Suggestion{Test: x, Likely: make([]float64, len(x.Outcomes))}
		after, sum := 0., 0.
		for o := range x.Outcomes {
			clear(given)
			whole := 0.
			for h, p := range b.P {
				c := chance(t, h, o)
				if w < 1 {
					c = math.Pow(c, w)
				}
				given[class[h]] += p * c
				whole += p * c
			}
			s.Likely[o] = whole
			sum += whole
			for i := range given {
				given[i] /= whole
			}
			after += whole * entropy(given)
		}
		for o := range s.Likely {
			s.Likely[o] /= sum
		}
		s.Bits = max(0, before-after/sum) * can
		s.Worth = s.Bits - x.Cost
		out.Tests = append(out.Tests, s)
	}
	slices.SortStableFunc(out.Tests, func(x, y Suggestion) int { return cmp.Compare(y.Worth, x.Worth) })
	return out
}

// entropy is Shannon's, in bits.
func entropy(p []float64) float64 {
	e := 0.
	for _, x := range p {
		if x > 0 {
			e -= x * math.Log2(x)
		}
	}
	return e
}

// Meets is a class of [Purpose] for a zone without a plan: what a coat would lie on, what may
// bleed, and whether old paint or varnish may contain lead.
func Meets(c *craft.Craft) func(Surface) string {
	return func(s Surface) string {
		sub, ok := c.Substrate(s.Substrate)
		fin, known := c.Finish(s.Finish)
		if !ok || !known {
			return somethingElse
		}
		row, film := &c.Substrates[sub], &c.Finishes[fin]
		top := film.Family
		if film.Bare {
			top = row.Family
		}
		id := fmt.Sprint(row.Family, top, film.Under, film.Lets, film.Coating == craft.CoatingPaint, film.Powdery)
		for _, x := range slices.Concat(row.Bleeds, film.Bleeds) {
			if x.Level > 1 {
				id += x.Bleeder.String()
			}
		}
		return id
	}
}
