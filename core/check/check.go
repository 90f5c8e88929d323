package check

import (
	"cmp"
	"slices"

	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/identify"
	"rutile/core/measure"
	"rutile/core/surface"
)

// Zone is what is judged: what a survey knows, what is wanted, and the plan.
type Zone struct {
	surface.Facts
	// SoilsKnown tells that somebody looked for soils.
	SoilsKnown bool
	// Made is the year the piece was made, 0 where nobody knows.
	Made int
	// LeadTest is the test for lead that was noted, if any.
	LeadTest *LeadTest
	// LeadYear is the year before which old paint is suspected of lead by local
	// rules; 0 for the usual one.
	LeadYear int
	// Today is the day of the check as 2026-11-24; empty where there is no
	// clock, and then every date counts as past.
	Today string
	// Tests are what was found out about the surface; nil where nothing was.
	Tests *identify.Belief
	// Boards are the patch tests that were rated.
	Boards []surface.Board
	// Colour of the target as #rrggbb, empty where none was chosen.
	Colour string
	// Sheen of the target; NoSheen where it is open.
	Sheen craft.Sheen
	Look  string // "solid" or an effect's id
	// Ground is the colour it has now as #rrggbb; empty for the usual one.
	Ground string
	// Stays are what is fitted to the zone and is neither to be taken off nor
	// masked, in words.
	Stays []string
	// Match are the other zones of the piece, for those that are to look the same.
	Match []Base
	Steps []surface.Step
	// Units are those that findings are worded in.
	Units measure.Units
}

// lightness is L* of the finished colour: of the last coat of paint over the
// whole zone, if it has a colour of its own, else of the target, else of white.
func (z *Zone) lightness(c *craft.Craft) float64 {
	hex := z.Colour
	for i := range z.Steps {
		s := &z.Steps[i]
		p := &c.Products[s.Product]
		if s.Do != surface.Coat || s.Scope != surface.All || p.Role != craft.RolePaint || !p.Opaque() {
			continue
		}
		hex = cmp.Or(s.Colour, z.Colour)
	}
	return Lightness(hex)
}

// Lightness is CIELAB L*, 0 to 100, of an sRGB colour as #rrggbb; a colour
// that cannot be read counts as white, on which every stain shows.
func Lightness(hex string) float64 {
	col, ok := colour.Parse(hex)
	if !ok {
		return 100
	}
	return col.Light()
}

// Result is a judged zone.
type Result struct {
	Verdict  Verdict
	Adhesion *Adhesion // nil while there is no coat
	Stains   []Stain   // of every bleeder there is, worst first
	Findings []Finding
	// Minutes hands-on, negative where the area is not known, and hours from
	// the first step to the end of the last wait.
	Minutes, Hours float64
	// Trace is the walk of the worst of the things the zone may be.
	Trace surface.Trace
	Facts surface.Facts
	// May are the things the surface may be that were walked, and Doubt what not
	// knowing adds to the spread of the log of a strength.
	May   []May
	Doubt float64
	// Story is what its coats look like, Chips how much of a powder paint will let
	// go, and Cured when it may be used; Ready tells whether there is anything to
	// use.
	Story Story
	Chips Chips
	Cured Cured
	Ready bool
	// Chippy tells that flakes are wanted.
	Chippy bool
	// CrackMM is how wide the coat over a crackle medium will crack, in
	// millimetres; 0 where nothing cracks.
	CrackMM float64
	letsGo  func(*surface.Boundary) bool
}

// Meant tells whether a boundary is meant to let go.
func (r *Result) Meant(b *surface.Boundary) bool { return r.letsGo(b) }

// Finding is one thing a rule has to say.
type Finding struct {
	Code     string
	Severity Severity
	Step     int
	Subject  string
	Title    string
	Why      string
	Figures  []Figure
	Repairs  []Repair
}

// Figure is one number behind a finding, with what it means.
type Figure struct {
	ID    string
	Value float64
	Words string
}

// RepairKind is what pressing a repair does.
type RepairKind uint8

// The kinds: it changes the steps, opens a field to fill in, or notes that a
// caution was read.
const (
	Edit RepairKind = iota
	Measure
	Acknowledge
)

// String returns the kind's id.
func (k RepairKind) String() string { return [...]string{"edit", "measure", "acknowledge"}[k] }

// Repair is one way to answer a finding.
type Repair struct {
	Kind  RepairKind
	Title string
	Steps []surface.Step // of an edit: the zone's whole plan, repaired
	Field string         // of a measurement: the field to fill in
	// After is the verdict an edit leads to.
	After Verdict
}

// bench is a set of cases for one zone, kept so that verifying repairs does
// not allocate.
type bench struct {
	may    []May
	doubt  float64
	barred bool // lead forbids dry work
	cases  []Case
	merged []Hit
}

// run judges the zone as every thing it may be and merges the findings. It gives up,
// and is false, at the first case of which enough is known once it is walked: what
// the rules would say is then of no use.
func (w *bench) run(c *craft.Craft, z *Zone, enough func(*Case) bool) ([]Hit, bool) {
	if w.cases == nil {
		w.set(c, z)
	}
	for i := range w.cases {
		k := &w.cases[i]
		k.Zone = z
		k.walk(true)
		if enough != nil && enough(k) {
			return nil, false
		}
		k.ask(Rules...)
	}
	w.merge()
	if len(w.cases) > 1 {
		for i := range w.merged {
			h := &w.merged[i]
			for j := range w.cases {
				if !slices.ContainsFunc(w.cases[j].hits, func(o Hit) bool { return o.same(h) && o.Severity >= h.Severity }) {
					h.If = w.supposed(c, z, h.Case)
				}
			}
		}
	}
	return w.merged, true
}

// set makes a case of everything that the zone may be.
func (w *bench) set(c *craft.Craft, z *Zone) {
	w.may, w.doubt = z.may(c)
	w.barred = z.LeadBars(c)
	w.cases = make([]Case, len(w.may))
	for i := range w.cases {
		k := &w.cases[i]
		k.Craft, k.Zone, k.Facts, k.Doubt, k.Barred = c, z, &w.may[i].Facts, w.doubt, w.barred
	}
}

// merge takes together what was found of all the zone may be, each at its most
// severe.
func (w *bench) merge() {
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

// temper makes a watch of a fail that holds only for things which the surface is
// unlikely to be: a fail is expected to go wrong, and that is not. What nobody
// has tested keeps its worst.
func (w *bench) temper() {
	all := 0.
	for i := range w.may {
		all += w.may[i].P
	}
	for i := range w.merged {
		h := &w.merged[i]
		if h.Severity != Fail || all == 0 {
			continue
		}
		p := 0.
		for j := range w.cases {
			if slices.ContainsFunc(w.cases[j].hits, func(o Hit) bool { return o.same(h) && o.Severity == Fail }) {
				p += w.may[j].P
			}
		}
		if p/all < riskFail {
			h.Severity = Watch
		}
	}
}

// expected is the risk of peeling over everything that the surface may be, each
// counted by the belief in it; the worst where nothing was tested.
func (w *bench) expected() float64 {
	var sum, p float64
	for i := range w.cases {
		sum, p = sum+w.may[i].P*w.cases[i].Risk, p+w.may[i].P
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
func (w *bench) worst() *Case {
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
	// FirstOnly works out what mends the first finding, and no other.
	FirstOnly bool
	// Budget bounds the work of verifying repairs, in walked coats and steps;
	// 0 is enough for any plan a painter makes. Once it is spent, findings
	// come without edits.
	Budget int
	// Stop is asked now and then whether the answer is still wanted. Once it is not, what
	// Check returns is of no use. Nil for an answer that is.
	Stop func() bool
}

func (o *Options) stopped() bool { return o.Stop != nil && o.Stop() }

// usualBudget keeps the longest plan's answer well under a second.
const usualBudget = 100_000

// Check judges a zone. It never changes the zone, but the result's trace refers
// to the zone's steps. The same zone always gives the same result.
func Check(c *craft.Craft, z *Zone, o Options) Result {
	if o.stopped() {
		return Result{}
	}
	var w bench
	hits, _ := w.run(c, z, nil)
	k := w.worst()
	r := Result{
		Verdict: verdict(hits), Minutes: -1,
		Hours: k.Trace.End.Hours, Trace: k.Trace, Facts: *k.Facts, May: w.may, Doubt: w.doubt,
	}
	if z.Area > 0 {
		r.Minutes = k.Trace.End.Minutes
	}
	r.Story, r.Chips, r.Chippy, r.letsGo = k.Story, k.Chips, k.Chippy, k.letsGo
	r.CrackMM = k.crack()
	r.Cured, r.Ready = curedIn(c, k.Facts, &k.Trace)
	if len(k.Bonds) > 0 {
		bs := slices.Clone(k.Bonds)
		slices.SortStableFunc(bs, func(a, b Bond) int {
			return cmp.Or(cmp.Compare(b.Risk, a.Risk), cmp.Compare(a.Strength, b.Strength))
		})
		r.Adhesion = &Adhesion{
			Risk: k.Risk, Expected: w.expected(), If: w.supposed(c, z, k), Demand: k.Demand, Weakest: bs[0].Boundary,
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
	order := slices.Clone(hits)
	slices.SortStableFunc(order, func(a, b Hit) int {
		switch {
		case a.Severity != b.Severity:
			return int(b.Severity) - int(a.Severity)
		case a.Rule.group != b.Rule.group:
			return a.Rule.group - b.Rule.group
		case a.Stain != nil && b.Stain != nil:
			return cmp.Compare(b.Stain.DeltaE, a.Stain.DeltaE)
		}
		return 0
	})
	r.Findings = make([]Finding, len(order))
	m := Mender{budget: usualBudget}
	if o.Budget > 0 {
		m.budget = o.Budget
	}
	m.stop = o.Stop
	for i := range order {
		if o.stopped() {
			break
		}
		h := &order[i]
		f := Finding{Code: h.Rule.Code, Severity: h.Severity, Step: h.Step, Subject: h.Subject, Title: h.Rule.Title}
		title, why := h.Rule.Say(h.Case, h)
		if title != "" {
			f.Title = title
		}
		if h.If != "" {
			why = "If " + h.If + ": " + craft.Lower(why)
		}
		f.Why = why
		f.Figures = figures(h)
		if !o.NoRepairs && (i == 0 || !o.FirstOnly) {
			f.Repairs = m.repairs(c, z, hits, h)
		}
		r.Findings[i] = f
	}
	return r
}
