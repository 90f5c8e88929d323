package check

import (
	"slices"
	"strings"

	"rutile/core/craft"
	"rutile/core/surface"
)

// This file is about zones on which work has begun: what was done cannot be changed any more.

// wasDone tells whether a finding is about something that was done.
func (z *Zone) wasDone(h *Hit) bool {
	if h.Step <= 0 || h.Step > len(z.Steps) {
		return false
	}
	s := &z.Steps[h.Step-1]
	if h.Bound != nil && h.Bound.Step == h.Step {
		return h.Bound.CoatNo <= s.NumDone()
	}
	return s.NumDone() > 0 && (s.Do != surface.Coat || s.NumDone() >= s.NumCoats())
}

// behind tells whether a finding says how something is to be done that was done already: it no longer helps.
func (z *Zone) behind(h *Hit) bool {
	return z.wasDone(h) && (h.Severity == Note || h.Severity == Watch && strings.HasPrefix(h.Rule.Code, "safety."))
}

// onlyDone are repaired steps of which none counts as done besides those that were: a repair that splits a step takes
// what was done along into both halves.
func onlyDone(was, is []surface.Step) []surface.Step {
	n := 0
	for n < len(was) && was[n].Done != nil {
		n++
	}
	if n == 0 || !slices.ContainsFunc(is[min(n, len(is)):], func(s surface.Step) bool { return s.Done != nil }) {
		return is
	}
	is = slices.Clone(is)
	for i := n; i < len(is); i++ {
		is[i].Done = nil
	}
	return is
}

// begunAnew is how many events of a walk no longer count: coats were laid that turned out badly, and everything was
// taken off again, or is to be. A plan that was never begun is judged as it stands.
func begunAnew(events []surface.Event) int {
	for i := len(events) - 1; i > 0; i-- {
		e := &events[i]
		if e.Before.Regions[surface.Field].Coats == 0 || !bares(e.Doing) {
			continue
		}
		if !slices.ContainsFunc(events[:i], func(o surface.Event) bool { return o.Doing.Do == surface.Coat && o.Done == nil }) {
			return i
		}
	}
	return 0
}

// layAgain proposes to take off what was laid and to lay it once more, as it was planned.
func (m *Repairer) layAgain() {
	steps := m.Zone.Steps
	done, first := 0, -1
	for done < len(steps) && steps[done].Done != nil {
		if steps[done].Do == surface.Coat && first < 0 {
			first = done
		}
		done++
	}
	if first < 0 {
		return
	}
	for i := done - 1; i > first; i-- { // what was taken off before is not laid again
		if bares(&steps[i]) {
			first = i + 1
			break
		}
	}
	out := slices.Clone(steps[:done])
	if last := &out[done-1]; last.Do == surface.Coat {
		last.Coats = last.NumDone()
	}
	out = append(out, surface.Step{Do: surface.Strip, StripHow: string(craft.StripSand)}, surface.Step{Do: surface.Dust})
	for i := first; i < len(steps); i++ {
		s := steps[i]
		if i < done {
			if s.Done = nil; s.Do != surface.Coat && s.Do != surface.Effect && s.Do != surface.Dust && s.Do != surface.Abrade || bares(&s) {
				continue
			}
		}
		out = append(out, s)
	}
	m.Edit("Take it all off and lay it again", out)
}

// bares tells whether a step takes everything off down to the material.
func bares(s *surface.Step) bool {
	return s.Do == surface.Strip || s.Do == surface.Abrade && s.Through
}

// now are the findings that are not behind.
func (z *Zone) now(hits []Hit) []Hit {
	if len(z.Steps) == 0 || z.Steps[0].Done == nil {
		return hits
	}
	return slices.DeleteFunc(slices.Clone(hits), func(h Hit) bool { return z.behind(&h) })
}

// keeps tells whether other steps leave what was done as it was. Of a step of which some coats were laid, only what
// follows them may change.
func keeps(was, is []surface.Step) bool {
	for i := range was {
		n := was[i].NumDone()
		if n == 0 {
			return true
		}
		if i >= len(is) {
			return false
		}
		a, b := was[i], is[i]
		if n < a.NumCoats() {
			if b.NumCoats() < n {
				return false
			}
			a.Coats, a.Auto, a.WaitH = 0, false, 0
			b.Coats, b.Auto, b.WaitH = 0, false, 0
		}
		if a != b {
			return false
		}
	}
	return true
}
