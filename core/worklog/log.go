// Package worklog is about work that is really being done: what a log says of a zone beside its plan, what is due when,
// how what was taken off goes back, and how the work turned out against the plan. It knows no clock: the time comes in.
package worklog

import (
	"cmp"
	"math"
	"slices"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/surface"
)

// Kind is what an entry of the log says.
type Kind string

// The kinds: a step was begun, a step or one coat of it was done, it was left out on purpose, something was seen or
// noted, something that was taken off went back, or the piece was handed over.
const (
	Began    Kind = "began"
	Did      Kind = "done"
	Skipped  Kind = "skipped"
	Noted    Kind = "note"
	PutBack  Kind = "put_back"
	Finished Kind = "finished"
)

// Kinds lists them.
var Kinds = []Kind{Began, Did, Skipped, Noted, PutBack, Finished}

// Entry is one entry of a log. Entries are never changed: another one corrects them.
type Entry struct {
	ID   string
	Kind Kind
	// At is when it happened and Written when it was entered, both in seconds since 1970.
	At, Written float64
	// Zone is the index of its zone; -1 where it is about the whole piece.
	Zone int
	// Step is what was done, of a coat one; of one that was begun or skipped, what was planned.
	Step surface.Step
	// Plan is the step of the plan, from 1, and Coat which of its coats; 0 for something that was never planned.
	Plan, Coat int
	// Planned is that step as it was planned, where something else was done; nil where Step says it.
	Planned *surface.Step
	// Minutes of work; negative where nobody timed it. Thick is how many times the usual film a coat was laid at; 0
	// counts as 1.
	Minutes, Thick float64
	// Air is the air then; nil where nobody read it.
	Air *drying.Climate
	// Corrects is the entry in whose place it stands; Void that nothing does.
	Corrects string
	Void     bool
}

// planned is the step of the plan as it was when the entry was made.
func (e *Entry) planned() *surface.Step {
	if e.Planned != nil {
		return e.Planned
	}
	return &e.Step
}

// Settle is a log as it stands once its corrections are taken into account, in the order in which things happened. The
// order in which entries arrived does not matter. Of two corrections of one entry the one that was written later holds,
// and a correction that was itself corrected no longer does. lost are corrections of entries that are not there.
func Settle(all []Entry) (out []Entry, lost []string) {
	at := make(map[string]int, len(all))
	for i := range all {
		at[all[i].ID] = i
	}
	by := map[string][]int{} // what corrects an entry
	for i := range all {
		if c := all[i].Corrects; c != "" {
			if _, ok := at[c]; !ok {
				lost = append(lost, all[i].ID)
				continue
			}
			by[c] = append(by[c], i)
		}
	}
	later := func(a, b int) int {
		return cmp.Or(cmp.Compare(all[a].Written, all[b].Written), cmp.Compare(all[a].ID, all[b].ID))
	}
	seen := map[int]bool{}
	var holds func(i int) int
	holds = func(i int) int {
		seen[i] = true
		next := by[all[i].ID]
		if len(next) == 0 {
			return i
		}
		last := slices.MaxFunc(next, later)
		if seen[last] { // corrections that correct each other
			return i
		}
		return holds(last)
	}
	for i := range all {
		if all[i].Corrects != "" {
			continue
		}
		e := all[holds(i)]
		if !e.Void {
			e.Corrects = ""
			out = append(out, e)
		}
	}
	slices.SortStableFunc(out, func(a, b Entry) int {
		return cmp.Or(cmp.Compare(a.At, b.At), cmp.Compare(a.Written, b.Written), cmp.Compare(a.ID, b.ID))
	})
	return out, lost
}

// Work is a zone's plan together with what was done of it.
type Work struct {
	// Begun tells that something was done or begun. Start is the moment, in seconds since 1970, at which the hours of
	// the walk begin, and Now the hour of the walk it is.
	Begun bool
	Start float64
	Now   float64
	// Steps are those that were done, as they were done, and then those still planned.
	Steps []surface.Step
	// Plan is for each of Steps the step of the plan, from 1; 0 for one that was never planned. Entries are for each
	// of Steps that was done those of its coats, as indexes of the log.
	Plan    []int
	Entries [][]int
	// Done is how many of Steps were done, also those of which some coats still are to come.
	Done int
	// Past is how many steps of the plan lie behind, and Laid how many coats of the next one were laid.
	Past, Laid int
	// Open are steps of the plan, from 1, that later ones were done before, and of which the log says nothing.
	Open []int
	// Working is what was begun and not done, as an index of the log; -1 for nothing.
	Working int
	// Finished tells that the piece was handed over: what was not done by then is not done.
	Finished bool
}

// A day's rest: somebody who pressed start and done further apart than this did not work all the time. In hours;
// working default.
const longestGo = 10.

// Of joins a zone's plan with the settled log of its piece at a moment in seconds since 1970.
func Of(c *craft.Craft, f *surface.Facts, plan []surface.Step, log []Entry, zone int, now float64) Work {
	w := Work{Working: -1}
	var mine []int
	for i := range log {
		switch e := &log[i]; {
		case e.Kind == Finished:
			w.Finished, now = true, min(now, e.At)
		case e.Zone == zone && (e.Kind == Did || e.Kind == Skipped || e.Kind == Began):
			mine = append(mine, i)
		}
	}
	laid := make([]int, len(plan)) // coats that were done or skipped, of each step
	said := make([]bool, len(plan))
	last := -1
	of := make([]int, len(log)) // the step of the plan, from 1
	for _, i := range mine {
		e := &log[i]
		n := place(c, plan, e, last)
		if of[i] = n + 1; n < 0 || e.Kind == Began {
			continue
		}
		said[n] = true
		switch {
		case plan[n].Do != surface.Coat, e.Kind == Skipped && e.Coat == 0:
			laid[n] = plan[n].NumCoats()
		default:
			laid[n]++
		}
		last = max(last, n)
	}
	first := true
	for _, i := range mine {
		e := &log[i]
		if e.Kind == Skipped {
			continue
		}
		if first {
			w.Start, w.Begun, first = e.At, true, false
			if e.Kind == Did {
				w.Start -= 60 * max(0, worked(c, f, e))
			}
		}
		if e.Kind == Began {
			if w.Working = i; done(log, mine, i) {
				w.Working = -1
			}
			continue
		}
		w.add(c, f, plan, log, mine, i, of[i])
	}
	w.Done = len(w.Steps)
	if w.Begun {
		w.Now = max(0, (now-w.Start)/3600)
	}
	switch {
	case last < 0:
	case laid[last] >= plan[last].NumCoats():
		w.Past = last + 1
	default:
		w.Past, w.Laid = last, laid[last]
	}
	for n := range plan[:max(0, last)] {
		if do := plan[n].Do; !said[n] && do != surface.Wait {
			w.Open = append(w.Open, n+1)
		}
	}
	if w.Finished {
		return w
	}
	w.rest(plan)
	return w
}

// add adds what was done by an entry: a further coat to the step before, or a step of its own.
func (w *Work) add(c *craft.Craft, f *surface.Facts, plan []surface.Step, log []Entry, mine []int, i, of int) {
	e := &log[i]
	d := surface.Done{To: (e.At - w.Start) / 3600, Minutes: -1, Thick: e.Thick}
	if m := timed(log, mine, i); m >= 0 {
		d.Minutes = m
	}
	d.From = d.To - worked(c, f, e)/60
	if d.Minutes >= 0 {
		d.From = d.To - d.Minutes/60
	}
	before := 0.
	if n := len(w.Steps); n > 0 {
		all := *w.Steps[n-1].Done
		before = all[len(all)-1].To
	}
	d.From = min(d.To, max(d.From, before))
	s := e.Step
	s.Coats = 1
	if n := len(w.Steps) - 1; n >= 0 && of > 0 && s.Do == surface.Coat && w.Plan[n] == of && alike(&w.Steps[n], &s) {
		top := &w.Steps[n]
		all := append(*top.Done, d)
		top.Done, top.Coats = &all, max(top.NumCoats(), len(all))
		w.Entries[n] = append(w.Entries[n], i)
		return
	}
	if s.AdditiveFirst && e.Coat > 1 {
		s.Additive, s.AdditiveFirst = 0, false
	}
	s.Done = &[]surface.Done{d}
	w.Steps, w.Plan, w.Entries = append(w.Steps, s), append(w.Plan, of), append(w.Entries, []int{i})
}

// rest adds what is still planned. Coats that follow those that were laid of the same step belong to it.
func (w *Work) rest(plan []surface.Step) {
	from := w.Past
	if w.Laid > 0 {
		s := plan[from]
		left := s.NumCoats() - w.Laid
		n := len(w.Steps) - 1
		if n >= 0 && w.Plan[n] == from+1 && alike(&w.Steps[n], &s) {
			w.Steps[n].Coats = w.Steps[n].NumDone() + left
			w.Steps[n].Auto, w.Steps[n].WaitH = s.Auto, s.WaitH
		} else {
			s.Coats = left
			if s.AdditiveFirst {
				s.Additive, s.AdditiveFirst = 0, false
			}
			w.Steps, w.Plan = append(w.Steps, s), append(w.Plan, from+1)
		}
		from++
	}
	for n := from; n < len(plan); n++ {
		w.Steps, w.Plan = append(w.Steps, plan[n]), append(w.Plan, n+1)
	}
}

// place finds the step of the plan that an entry is about, from 0: where it says, or, where the plan was changed
// since, the nearest one of the same work, rather one that is not yet behind. -1 where there is none.
func place(c *craft.Craft, plan []surface.Step, e *Entry, last int) int {
	if e.Plan <= 0 {
		return -1
	}
	is := e.planned()
	n := e.Plan - 1
	if n < len(plan) && kindred(c, &plan[n], is) {
		return n
	}
	best, far := -1, math.MaxInt
	for i := range plan {
		if !kindred(c, &plan[i], is) {
			continue
		}
		d := 2 * max(i-n, n-i)
		if i < last {
			d++
		}
		if d < far {
			best, far = i, d
		}
	}
	return best
}

// kindred tells whether two steps are the same piece of work, whatever its details.
func kindred(c *craft.Craft, a, b *surface.Step) bool {
	if a.Do != b.Do {
		return false
	}
	switch a.Do {
	case surface.Coat:
		return c.SameKind(a.Product, b.Product) && a.Scope == b.Scope
	case surface.Clean:
		return a.Cleaner == b.Cleaner
	case surface.Effect:
		return a.Effect == b.Effect
	}
	return true
}

// alike tells whether two coats belong to one step: only how many there are and how they are spaced may differ.
func alike(a, b *surface.Step) bool {
	x, y := *a, *b
	for _, s := range []*surface.Step{&x, &y} {
		s.Coats, s.Auto, s.WaitH, s.Done, s.Own = 0, false, 0, nil, nil
	}
	return x == y
}

// timed is how many minutes an entry took: as it says, or since its beginning was logged; negative where neither is
// known.
func timed(log []Entry, mine []int, i int) float64 {
	e := &log[i]
	if e.Minutes >= 0 {
		return e.Minutes
	}
	for k := slices.Index(mine, i) - 1; k >= 0; k-- {
		b := &log[mine[k]]
		if b.Kind == Did && b.Plan == e.Plan && b.Coat == e.Coat {
			break
		}
		if b.Kind == Began && b.Plan == e.Plan && b.Coat == e.Coat {
			if m := (e.At - b.At) / 60; m <= longestGo*60 {
				return max(0, m)
			}
			break
		}
	}
	return -1
}

// worked is how many minutes an entry is expected to have taken.
func worked(c *craft.Craft, f *surface.Facts, e *Entry) float64 {
	if e.Minutes >= 0 {
		return e.Minutes
	}
	return f.Minutes(c, &e.Step)
}

// done tells whether what an entry began was done or skipped since.
func done(log []Entry, mine []int, i int) bool {
	b := &log[i]
	for _, k := range mine {
		e := &log[k]
		if (e.Kind == Did || e.Kind == Skipped) && e.Plan == b.Plan && (e.Coat == b.Coat || e.Coat == 0) && e.At >= b.At {
			return true
		}
	}
	return false
}

// Reading is the air at a moment in seconds since 1970.
type Reading struct {
	At  float64
	Air drying.Climate
}

// Course is the air in the hours of a zone's walk: as instruments read it and as the log says. Nil where nobody read
// it since the work began.
func (w *Work) Course(log []Entry, read []Reading) *drying.Course {
	if !w.Begun {
		return nil
	}
	all := make([]Reading, 0, len(read)+len(log))
	for _, r := range read {
		if r.At >= w.Start-3600*drying.Stands {
			all = append(all, r)
		}
	}
	from := map[int]float64{} // when what an entry says was begun
	for k := range w.Entries {
		for n, i := range w.Entries[k] {
			from[i] = w.at((*w.Steps[k].Done)[n].From)
		}
	}
	for i := range log {
		if e := &log[i]; e.Air != nil && e.At >= w.Start-3600*drying.Stands {
			at, ok := from[i]
			if !ok {
				at = e.At
			}
			all = append(all, Reading{at, *e.Air})
		}
	}
	if len(all) == 0 {
		return nil
	}
	slices.SortStableFunc(all, func(a, b Reading) int { return cmp.Compare(a.At, b.At) })
	out := &drying.Course{}
	for _, r := range all {
		out.Add((r.At-w.Start)/3600, r.Air)
	}
	return out
}
