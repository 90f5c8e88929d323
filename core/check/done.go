package check

import (
	"slices"
	"strings"

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
