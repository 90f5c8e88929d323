package check

import (
	"cmp"
	"slices"

	"rutile/core/craft"
)

// caseSet is a set of cases for one zone, kept so that verifying repairs does
// not allocate.
type caseSet struct {
	candidates []Candidate
	doubt      float64
	barred     bool // lead forbids dry work
	lead       LeadState
	book       *Book
	stop       func() bool // tells that the answer is no longer wanted; may be nil
	cases      []Case
	merged     []Hit
}

// run judges the zone as every candidate and merges the findings. It stops and returns false when
// the answer is no longer wanted, and at the first case about which the walk alone tells enough:
// the rules are then not needed.
func (w *caseSet) run(c *craft.Craft, z *Zone, enough func(*Case) bool) ([]Hit, bool) {
	if w.cases == nil {
		w.set(c, z)
	}
	for i := range w.cases {
		k := &w.cases[i]
		k.Zone = z
		if w.stop != nil && w.stop() {
			return nil, false
		}
		k.walk(true)
		if enough != nil && enough(k) {
			return nil, false
		}
		k.ask(w.book.Rules...)
	}
	w.merge()
	if len(w.cases) > 1 {
		for i := range w.merged {
			h := &w.merged[i]
			for j := range w.cases {
				if !slices.ContainsFunc(w.cases[j].hits, func(o Hit) bool { return o.same(h) && o.Severity >= h.Severity }) {
					h.If = w.assumed(c, z, h.Case)
				}
			}
		}
	}
	return w.merged, true
}

// set makes a case of everything that the zone may be.
func (w *caseSet) set(c *craft.Craft, z *Zone) {
	w.candidates, w.doubt = z.candidates(c)
	w.lead, _ = z.Lead(c)
	w.barred, w.book = w.lead.bars(), z.book()
	w.cases = make([]Case, len(w.candidates))
	for i := range w.cases {
		k := &w.cases[i]
		k.Craft, k.Zone, k.Facts, k.Doubt, k.Barred, k.Lead = c, z, &w.candidates[i].Facts, w.doubt, w.barred, w.lead
	}
}

// merge takes together what was found of all the zone may be, each at its most
// severe.
func (w *caseSet) merge() {
	w.merged = w.merged[:0]
	for i := range w.cases {
	hits:
		for _, h := range w.cases[i].hits {
			for j := range w.merged {
				o := &w.merged[j]
				if o.same(&h) && (!h.Rule.Each || o.Step == h.Step) {
					if h.Severity > o.Severity || h.Severity == o.Severity && worse(&h, o) {
						*o = h
					}
					continue hits
				}
			}
			w.merged = append(w.merged, h)
		}
	}
	w.temper()
}

// temper makes a watch of a fail that holds only for unlikely candidates: a fail is expected to go
// wrong, and that is not. Untested surfaces keep their worst verdict.
func (w *caseSet) temper() {
	all := 0.
	for i := range w.candidates {
		all += w.candidates[i].P
	}
	for i := range w.merged {
		h := &w.merged[i]
		if h.Severity != Fail || all == 0 {
			continue
		}
		p := 0.
		for j := range w.cases {
			if slices.ContainsFunc(w.cases[j].hits, func(o Hit) bool { return o.same(h) && o.Severity == Fail }) {
				p += w.candidates[j].P
			}
		}
		if p/all < riskFail {
			h.Severity = Watch
		}
	}
}

// expected is the risk of peeling over everything that the surface may be, each
// counted by the belief in it; the worst where nothing was tested.
func (w *caseSet) expected() float64 {
	var sum, p float64
	for i := range w.cases {
		sum, p = sum+w.candidates[i].P*w.cases[i].Risk, p+w.candidates[i].P
	}
	if p == 0 {
		return w.worst().Risk
	}
	return sum / p
}

// worse orders findings that say the same of two things a zone may be.
func worse(h, o *Hit) bool {
	switch {
	case h.Stain != nil && o.Stain != nil:
		return h.Stain.DeltaE > o.Stain.DeltaE
	case h.Bound != nil && o.Bound != nil:
		return h.Case.Risk > o.Case.Risk
	}
	return false
}

// worst is the case with the highest risk of peeling.
func (w *caseSet) worst() *Case {
	best := &w.cases[0]
	for i := range w.cases {
		if w.cases[i].Risk > best.Risk {
			best = &w.cases[i]
		}
	}
	return best
}

func verdict(hits []Hit) Verdict {
	v := Sound
	for i := range hits {
		v = max(v, Verdict(hits[i].Severity))
	}
	return v
}

// Options choose what a check works out.
type Options struct {
	// NoRepairs leaves repairs out.
	NoRepairs bool
	// Every reports what another finding of the same cause tells already as well.
	Every bool
	// FirstOnly works out repairs for the first finding only.
	FirstOnly bool
	// Budget bounds the work of verifying repairs, in walked coats and steps;
	// 0 is enough for any plan a painter makes. Once it is spent, findings
	// come without edits.
	Budget int
	// Stop is called now and then, and tells that the answer is no longer wanted; Check's result is
	// then useless. Nil for never.
	Stop func() bool
}

func (o *Options) stopped() bool { return o.Stop != nil && o.Stop() }

// usualBudget keeps the longest plan's answer well under a second.
const usualBudget = 100_000

// Check judges a zone. It never changes the zone, but the result's trace refers
// to the zone's steps. The same zone always gives the same result.
func Check(c *craft.Craft, z *Zone, o Options) Result {
	w := caseSet{stop: o.Stop}
	hits, ok := w.run(c, z, nil)
	if !ok {
		return Result{}
	}
	k := w.worst()
	now := z.now(hits)
	r := Result{
		Verdict: verdict(now), Minutes: -1,
		Hours: k.Trace.End.Hours, Trace: k.Trace, Facts: *k.Facts, Candidates: w.candidates, Doubt: w.doubt,
	}
	if z.Area > 0 {
		r.Minutes = k.Trace.End.Minutes
	}
	r.Appearance, r.Chips, r.Chippy, r.meantToFlake = k.Appearance, k.Chips, k.Chippy, k.meantToFlake
	r.CrackMM = k.crack()
	r.Cured, r.Ready = curedIn(c, k.Facts, &k.Trace)
	if len(k.Bonds) > 0 {
		bs := slices.Clone(k.Bonds)
		slices.SortStableFunc(bs, func(a, b Bond) int {
			return cmp.Or(cmp.Compare(b.Risk, a.Risk), cmp.Compare(a.Strength, b.Strength))
		})
		r.Adhesion = &Adhesion{
			Risk: k.Risk, Expected: w.expected(), If: w.assumed(c, z, k), Demand: k.Demand, Weakest: bs[0].Boundary,
			Variant: *k.Facts, Boundary: bs, zone: z,
		}
	}
	if k.Opaque {
		for b := range k.Stains {
			most := k.Stains[b]
			for i := range w.cases {
				if s := w.cases[i].Stains[b]; s.DeltaE > most.DeltaE {
					most = s
				}
			}
			if most.Load > 0 {
				r.Stains = append(r.Stains, most)
			}
		}
		slices.SortStableFunc(r.Stains, func(a, b Stain) int { return cmp.Compare(b.DeltaE, a.DeltaE) })
	}
	order := slices.Clone(now)
	slices.SortStableFunc(order, func(a, b Hit) int {
		switch {
		case a.Severity != b.Severity:
			return int(b.Severity) - int(a.Severity)
		case a.harm() != b.harm():
			return int(b.harm()) - int(a.harm())
		case a.Rule.group != b.Rule.group:
			return a.Rule.group - b.Rule.group
		case a.Stain != nil && b.Stain != nil:
			return cmp.Compare(b.Stain.DeltaE, a.Stain.DeltaE)
		case a.Bound != nil && b.Bound != nil:
			return cmp.Compare(a.Bound.Strength/a.Case.Demand, b.Bound.Strength/b.Case.Demand)
		}
		return 0
	})
	var also [][]string
	if !o.Every {
		order, also = once(order)
	}
	r.Findings = make([]Finding, len(order))
	m := Repairer{budget: usualBudget}
	if o.Budget > 0 {
		m.budget = o.Budget
	}
	m.work.stop = o.Stop
	for i := range order {
		if o.stopped() {
			break
		}
		h := &order[i]
		f := Finding{Code: h.Rule.Code, Severity: h.Severity, Step: h.Step, Subject: h.Subject, Title: h.Rule.Title, Stage: h.Rule.stage(), Unfinished: h.Rule.Unfinished, Refuses: h.Refuses, Done: z.wasDone(h)}
		title, why := h.Rule.Say(h.Case, h)
		if title != "" {
			f.Title = title
		}
		if h.If != "" {
			why = "If " + h.If + ": " + craft.Lower(why)
		}
		f.Why = why
		f.Figures = figures(h)
		if also != nil {
			f.Also = also[i]
		}
		if h.Rule.Divides != nil {
			f.Divided = h.Rule.Divides(h.Case, h)
		}
		if !o.NoRepairs && (i == 0 || !o.FirstOnly) {
			f.Repairs = m.repairs(c, z, hits, h)
		}
		r.Findings[i] = f
	}
	return r
}
