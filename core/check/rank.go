package check

import (
	"cmp"

	"rutile/core/craft"
	"rutile/core/surface"
)

// rank orders edits: what they leave wrong, then the risk, then the trouble.
type rank struct {
	fails, watches int
	risk           float64
	trouble        float64
}

func (a rank) compare(b rank) int {
	return cmp.Or(
		cmp.Compare(a.fails, b.fails), cmp.Compare(a.watches, b.watches),
		cmp.Compare(a.risk, b.risk), cmp.Compare(a.trouble, b.trouble))
}

// rankOf ranks a plan that was judged last, by what is said of it.
func rankOf(c *craft.Craft, w *caseSet, said []Hit, steps []surface.Step) rank {
	var out rank
	for i := range said {
		switch said[i].Severity {
		case Fail:
			out.fails++
		case Watch:
			out.watches++
		}
	}
	if r := w.worst().Risk; r >= RiskShown {
		out.risk = r
	}
	// A stain below what the eye sees still is a margin worth something.
	const perDeltaE = 2
	stain := 0.
	for i := range w.cases {
		for _, s := range w.cases[i].Stains {
			if w.cases[i].Opaque {
				stain = max(stain, s.DeltaE)
			}
		}
	}
	// And so is a bond stronger than it need be.
	const perBond = 4
	weakest := 1.
	for _, b := range w.worst().Bonds {
		weakest = min(weakest, b.Strength)
	}
	out.trouble = trouble(c, steps) + perDeltaE*stain + perBond*(1-weakest)
	return out
}

// trouble weighs what a plan costs a painter: trips, materials and smell.
// Working default, used only to order repairs that are equally good.
func trouble(c *craft.Craft, steps []surface.Step) float64 {
	t := 0.
	for i := range steps {
		t++
		if s := &steps[i]; s.Do == surface.Coat {
			p := &c.Products[s.Product]
			per := 1 + float64(p.Price)/1000/p.Cover + .4*float64(p.Smell)
			if p.TwoPart {
				per += 1.5
			}
			if s.Scope != surface.All {
				per *= .4
			}
			t += per * float64(s.NumCoats())
		}
	}
	return t
}
