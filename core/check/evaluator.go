package check

import (
	"math"
	"math/bits"

	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/surface"
)

// Reach tells how much of a plan a rule must see before what it says stands; a
// set.
type Reach uint8

// The reaches.
const (
	// SoFar: what it finds in the beginning of a plan it finds, no less severely,
	// however the plan goes on, short of taking its coats off again, rating a patch of
	// them or making another look than the one that is wanted.
	SoFar Reach = 1 << iota
	// Tail: what it finds in the steps from the first paint on, taken alone, it
	// finds behind any preparation and ground as well.
	Tail
	// Later: what it finds at a coat or an effect that lies on a coat of the tail, it
	// finds behind any ground as well.
	Later
	// Survey: it is about the survey alone, whatever is planned.
	Survey
)

// reach is what is said of the rule, or SoFar where it only looks back from the
// events it is shown.
func (r *Rule) reach() Reach {
	if r.End != nil || r.Late || r.Notes {
		return r.Reach
	}
	return r.Reach | SoFar
}

// RuleSet is a set of rules.
type RuleSet [3]uint64

// Has tells whether the rule at an index of its book is in the set.
func (s *RuleSet) Has(i int) bool { return s[i/64]&(1<<(i%64)) != 0 }

// Put adds the rule at an index of its book.
func (s *RuleSet) Put(i int) { s[i/64] |= 1 << (i % 64) }

// With is the union of two sets.
func (s RuleSet) With(o RuleSet) RuleSet {
	for i := range s {
		s[i] |= o[i]
	}
	return s
}

// Len counts the rules of the set.
func (s RuleSet) Len() int {
	n := 0
	for _, w := range s {
		n += bits.OnesCount64(w)
	}
	return n
}

// Judged is what rules say of a plan or of its beginning, without words.
type Judged struct {
	// Fails and Watches are the rules with findings, each at its most severe. Findings about the
	// survey alone are no watch here: no plan changes them.
	Fails, Watches RuleSet
	// Peel is -ln(1 - risk) of peeling if the wear needed a little more than it does: a margin for
	// unknowns, which makes the better of two plans that hold visible.
	Peel float64
	// Durability is the number of grades by which the last coats fall short of two more than the
	// wear needs; 0 for none.
	Durability float64
	// Risk of peeling, 0 to 1, and the final stain in CIEDE2000 units of the worst
	// bleeder, both for the worst of what the surface may be. The stain is that of
	// a whole plan.
	Risk, Stain float64
	// Minutes of work, 0 where the area is not known, and Hours from the first
	// step to the end of the last wait, at their longest.
	Minutes, Hours float64
}

// Evaluator judges many plans of one zone. It uses its memory again and is not for
// two goroutines at once.
type Evaluator struct {
	zone  Zone
	w     caseSet
	first int // of a tail, the step that lies on the ground; 0 for whole plans
}

// NewEvaluator makes an evaluator for a zone; it does not change the zone's own steps.
func NewEvaluator(c *craft.Craft, z *Zone) *Evaluator {
	s := &Evaluator{zone: *z}
	s.w.set(c, &s.zone)
	return s
}

// Sound makes an evaluator of the same zone with a clean, bare and sound face, for what goes over
// any preparation.
func (s *Evaluator) Sound() *Evaluator {
	z := s.zone
	c := s.w.cases[0].Craft
	z.Loose, z.Soils, z.Tests, z.Moisture = 0, [craft.NumSoils]uint8{}, nil, -1
	z.Finish, _ = c.Finish("none")
	out := NewEvaluator(c, &z)
	for i := range out.w.cases {
		out.w.cases[i].Doubt, out.w.cases[i].Barred, out.w.cases[i].Lead = s.w.doubt, s.w.barred, s.w.lead
	}
	return out
}

// Refuses tells whether any coat would fail on a region: it is dirty or loose.
func Refuses(p *surface.Region) bool {
	if p.Loose&^craft.LooseJoint != 0 {
		return true
	}
	for so, lv := range p.Soils {
		if so := craft.Soil(so); so != craft.Dust && so != craft.WaxPolish && lv > 0 && soilSeverity(lv) == Fail {
			return true
		}
	}
	return false
}

// Book is what plans are judged by.
func (s *Evaluator) Book() *Book { return s.w.book }

// Candidates are the things that the surface may be.
func (s *Evaluator) Candidates() []Candidate { return s.w.candidates }

// Survey judges what no plan can change: a look that does not suit the use, and the like.
func (s *Evaluator) Survey() Judged { return s.judge(nil, s.w.book.surveys, false) }

// Whole judges a whole plan by all rules.
func (s *Evaluator) Whole(steps []surface.Step) Judged { return s.judge(steps, s.w.book.Rules, true) }

// SoFar judges the beginning of a plan by the rules that it decides already.
func (s *Evaluator) SoFar(steps []surface.Step) Judged { return s.judge(steps, s.w.book.soFar, false) }

// Walk walks the beginning of a plan, for what it leaves, and judges nothing.
func (s *Evaluator) Walk(steps []surface.Step) {
	s.zone.Steps = steps
	for i := range s.w.cases {
		k := &s.w.cases[i]
		k.Zone = &s.zone
		k.Trace.Walk(k.Craft, k.Facts, steps)
		k.look()
	}
}

// Tail judges everything from the first paint on, by the rules that need no more. What goes over
// the base begins at a step, from 1.
func (s *Evaluator) Tail(steps []surface.Step, first int) Judged {
	s.first = first
	defer func() { s.first = 0 }()
	return s.judge(steps, s.w.book.end, true)
}

func (s *Evaluator) judge(steps []surface.Step, rules []*Rule, whole bool) Judged {
	s.zone.Steps = steps
	var j Judged
	for i := range s.w.cases {
		k := &s.w.cases[i]
		k.Zone = &s.zone
		k.walk(whole)
		j.Risk, j.Peel = max(j.Risk, k.Risk), max(j.Peel, s.PeelOf(i))
		j.Minutes, j.Hours = max(j.Minutes, k.Trace.End.Minutes), max(j.Hours, k.Trace.End.Hours)
		if whole {
			j.Durability = max(j.Durability, k.thin())
		}
		if whole && k.Opaque {
			for b := range k.Stains {
				j.Stain = max(j.Stain, k.Stains[b].DeltaE)
			}
		}
		k.ask(rules...)
	}
	s.w.merge()
	for i := range s.w.merged {
		h := &s.w.merged[i]
		switch {
		case h.Step <= s.first && h.Rule.reach()&Tail == 0 && s.first > 0:
		case h.Severity == Fail, h.Refuses:
			j.Fails.Put(h.Rule.index)
		case h.Severity == Watch && !s.w.book.survey.Has(h.Rule.index):
			j.Watches.Put(h.Rule.index)
		}
	}
	for i := range j.Watches {
		j.Watches[i] &^= j.Fails[i]
	}
	return j
}

// Trace is the walk of the last plan that was judged, as the n-th of what the
// surface may be. It holds until the next is.
func (s *Evaluator) Trace(n int) *surface.Trace { return &s.w.cases[n].Trace }

// margin is how much more strength than needed a plan is weighed for, where 1 is full strength:
// half a class of the cross-cut scale. Working default.
const margin = .08

// PeelOf is -ln(1 - risk), with that margin, of the last plan that was judged, as
// the n-th of what the surface may be.
func (s *Evaluator) PeelOf(n int) float64 {
	sum := 0.
	for i := range s.w.cases[n].Bonds {
		sum += s.Peel(n, &s.w.cases[n].Bonds[i].Boundary)
	}
	return sum
}

// Peel is the same of one bond.
func (s *Evaluator) Peel(n int, b *surface.Boundary) float64 {
	k := &s.w.cases[n]
	const certain = 1 - 1e-9
	return -math.Log1p(-min(b.Risk(k.Craft, k.Demand+margin, k.Doubt), certain))
}

// thin is the number of grades by which the last coats fall short of two more than the wear needs.
func (k *Case) thin() float64 {
	g, _, ok := k.durability()
	if !ok {
		return 0
	}
	const enough, highest = 2, 5
	return max(0, float64(min(craft.DurabilityNeeded[k.Facts.Wear]+enough, highest)-g))
}

// Since is how many hours ago each chemical that must not meet others was last used, in the last plan
// that was judged: -1 for never, and no more than the day that must lie between them.
func (s *Evaluator) Since() [craft.NumChemicals]float64 {
	var out [craft.NumChemicals]float64
	for i := range out {
		out[i] = -1
	}
	t := &s.w.cases[0].Trace
	if len(t.Events) == 0 {
		return out
	}
	now := t.Events[len(t.Events)-1].After.Hours
	for i := range t.Events {
		if what, ok := ChemicalOf(s.w.cases[0].Craft, t.Events[i].Doing); ok {
			out[what] = min(craft.Apart, now-t.Events[i].Begun)
		}
	}
	return out
}

// InVain are the soils, as bits, that a cleaning did not remove and that no coat has covered since,
// in the last plan that was judged, for the n-th candidate: a rule will report what is left of them
// at the next coat.
func (s *Evaluator) InVain(n int) uint32 {
	k := &s.w.cases[n]
	out := uint32(0)
	for i := range k.Trace.Events {
		e := &k.Trace.Events[i]
		switch {
		case e.NBounds > 0:
			out = 0
		case e.Doing.Do == surface.Clean:
			eachPatch(e.Before, func(p *surface.Region) {
				if so, lv := inVain(k.Craft, e.Doing, p); lv > 0 {
					out |= 1 << so
				}
			})
		}
	}
	return out
}

// Bonds are the bonds of the last plan that was judged, as the n-th of what the
// surface may be.
func (s *Evaluator) Bonds(n int) []Bond { return s.w.cases[n].Bonds }

// Shows is the colour of the field after the last plan that was judged, as the
// n-th of what the surface may be.
func (s *Evaluator) Shows(n int) colour.RGB {
	k := &s.w.cases[n]
	k.paint()
	return k.Appearance.Final
}

// Yellows is how far what ambers in the last plan that was judged turns white
// yellow within a year, in CIEDE2000 units.
func (s *Evaluator) Yellows() float64 {
	k := &s.w.cases[0]
	return k.Appearance.Yellows / Show(k.Appearance.Final.Light())
}

// CoatsFor is how many coats of a paint over a base come close enough to its colour, up to a limit;
// 1 for a product without a colour of its own.
func (s *Evaluator) CoatsFor(ground colour.RGB, step *surface.Step) int {
	k := &s.w.cases[0]
	p := &k.Craft.Products[step.Product]
	want, ok := s.zone.ColourOf(p, step.Colour)
	if !ok || !p.Opaque() {
		return 1
	}
	n, _ := colour.Needed(ground, want, k.scatters(p, want, step), NearEnough, mostCoats)
	return n
}

// Over is the colour of a ground once some steps were done on it.
func (s *Evaluator) Over(ground colour.RGB, steps []surface.Step) colour.RGB {
	k := &s.w.cases[0]
	for i := range steps {
		st := &steps[i]
		if st.Do != surface.Coat || st.Scope != surface.All {
			continue
		}
		p := &k.Craft.Products[st.Product]
		if p.Hiding < leastHiding {
			continue
		}
		want, _ := s.zone.ColourOf(p, st.Colour)
		power := k.scatters(p, want, st)
		for range st.NumCoats() {
			ground = colour.Over(ground, want, power)
		}
	}
	return ground
}

// Light is L* of the colour that a plan ends in, 0 to 100.
func (s *Evaluator) Light(steps []surface.Step) float64 {
	z := s.zone
	z.Steps = steps
	return z.lightness(s.w.cases[0].Craft)
}

// ReassembleAfter is how many hours a coat must harden before a zone is reassembled, to a share of
// its full hardness: the painter's own, or more where the wear or touching faces need it.
func ReassembleAfter(c *craft.Craft, f *surface.Facts, p craft.Product, share float64) float64 {
	row := &c.Products[p]
	if craft.Wears[f.Wear].Hard {
		share = max(share, cureNormal)
	}
	h := hoursToCure(c, f, &surface.Region{Product: p}, share)
	if f.Touching {
		h = max(h, 24*craft.TraitsOf[row.Coat].BlocksDays*max(1, drying.Stretch(drying.FactorOf(row, f.Climate))))
	}
	if f.Uses&(craft.Food|craft.Child) != 0 {
		h = max(h, 24*drying.FullCure(row, f.Climate))
	}
	return h
}
