package check

import (
	"fmt"
	"strconv"

	"rutile/core/craft"
)

// LeadTest is a test for lead as it was noted.
type LeadTest struct {
	By    string // laboratory, assessor or swab
	Found bool
	Date  string // as 2026-11-24
}

// LeadState is what is known of lead in the old paint or varnish.
type LeadState uint8

// The states. Only a laboratory or a licensed assessor excludes or finds it.
const (
	LeadNoSuspect LeadState = iota
	LeadUndated             // a clear or factory film, or a glaze, that hardly holds it: worth a test
	LeadSuspect             // counts as lead until a laboratory or licensed assessor says no
	LeadExcluded
	LeadFound
)

// String returns the state's id.
func (s LeadState) String() string {
	return [...]string{"", "undated", "suspect", "excluded", "found"}[s]
}

// LeadAdvice is what holds for every suspect, for the eye of whoever works on it.
var LeadAdvice = []string{
	"Clean it wet, seal it under sound paint, or have it removed by someone licensed for lead.",
	"Keep children and anyone pregnant away from dust and flakes, and bag all waste.",
	"Local rules for lead work, waste and testing apply. Ask your local authority.",
}

// decides tells whether a noted test decides about lead, and why it does not.
func (z *Zone) decides() (bool, string) {
	t := z.LeadTest
	switch {
	case t == nil:
		return false, ""
	case t.By == "swab" && t.Found:
		return false, fmt.Sprintf("The home swab of %s turned: it counts as lead until a laboratory or a licensed assessor says no.", z.Units.Date(t.Date))
	case t.By == "swab":
		return false, fmt.Sprintf("The home swab of %s stayed pale, which clears nothing.", z.Units.Date(t.Date))
	case z.Today != "" && t.Date > z.Today:
		return false, fmt.Sprintf("The result is dated %s, which is in the future.", z.Units.Date(t.Date))
	case z.Made != 0 && len(t.Date) >= 4 && t.Date[:4] < strconv.Itoa(z.Made):
		return false, fmt.Sprintf("The result is dated %s, before the piece was made.", z.Units.Date(t.Date))
	}
	return true, ""
}

// Lead is what is known of lead in the old coating, and a sentence on a recorded test that does not
// decide. Old or undated paint, varnish of before the limit, and any old or undated coating of a
// child's piece count as lead; an undated clear or factory film elsewhere, an old clear that is no oil
// varnish, and a glaze, are worth a test. A positive swab counts, a negative one clears nothing. What
// tests of the surface leave as possible counts like the survey, so that entering old paint by another
// name does not clear it.
func (z *Zone) Lead(c *craft.Craft) (LeadState, string) {
	done, why := z.decides()
	if done {
		if z.LeadTest.Found {
			return LeadFound, ""
		}
		return LeadExcluded, ""
	}
	if why != "" && z.LeadTest.Found {
		return LeadSuspect, why
	}
	state := z.leadIn(&c.Finishes[z.Finish])
	if c.Finishes[z.Finish].Bare && c.Substrates[z.Substrate].Glazed() {
		state = z.leadIn(&glaze)
	}
	if z.Tests != nil && len(z.Tests.Answers) > 0 {
		// A touch of belief is enough.
		const touch = .1
		var sum [LeadFound + 1]float64
		for _, s := range z.Tests.On() {
			if f, ok := c.Finish(s.ID); ok {
				sum[z.leadIn(&c.Finishes[f])] += s.P
			}
		}
		switch {
		case sum[LeadSuspect] >= touch:
			state = LeadSuspect
		case sum[LeadUndated] >= touch:
			state = max(state, LeadUndated)
		}
	}
	if state == LeadNoSuspect {
		why = ""
	}
	return state, why
}

// glaze is what a glazed tile or pot is coated with.
var glaze = craft.FinishRow{Coating: craft.CoatingGlaze}

// leadIn is what a finish tells of lead, by the year of the piece and its use.
func (z *Zone) leadIn(f *craft.FinishRow) LeadState {
	year := z.LeadYear
	if year == 0 {
		year = craft.LeadYear
	}
	old, undated := z.Made != 0 && z.Made < year, z.Made == 0
	switch {
	case f.Coating == craft.NoCoating || !old && !undated:
		return LeadNoSuspect
	case z.Uses&craft.Child != 0:
		return LeadSuspect
	case f.Coating == craft.CoatingPaint, old && f.Coating != craft.CoatingClear:
		return LeadSuspect
	}
	return LeadUndated
}

// bars tells whether nothing may be sanded, scraped or heated dry.
func (s LeadState) bars() bool { return s == LeadSuspect || s == LeadFound }

// LeadBars tells whether nothing may be sanded, scraped or heated dry.
func (z *Zone) LeadBars(c *craft.Craft) bool {
	s, _ := z.Lead(c)
	return s.bars()
}
