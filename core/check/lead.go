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
	LeadSuspect
	LeadExcluded
	LeadFound
)

// String returns the state's id.
func (s LeadState) String() string { return [...]string{"", "suspect", "excluded", "found"}[s] }

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
	case t.By == "swab":
		return false, fmt.Sprintf("The home swab of %s is recorded, but it decides nothing, whatever it showed.", z.Units.Date(t.Date))
	case z.Today != "" && t.Date > z.Today:
		return false, fmt.Sprintf("The result is dated %s, which is in the future.", z.Units.Date(t.Date))
	case z.Made != 0 && len(t.Date) >= 4 && t.Date[:4] < strconv.Itoa(z.Made):
		return false, fmt.Sprintf("The result is dated %s, before the piece was made.", z.Units.Date(t.Date))
	}
	return true, ""
}

// Lead is what is known of lead in the old paint or varnish, and a sentence on a recorded test that
// does not decide. Old paint is suspected while its age is not known; an old varnish or an
// unidentified finish, where the piece is old. What tests leave as possible counts like the survey,
// so that entering old paint by another name does not clear it.
func (z *Zone) Lead(c *craft.Craft) (LeadState, string) {
	done, why := z.decides()
	if done {
		if z.LeadTest.Found {
			return LeadFound, ""
		}
		return LeadExcluded, ""
	}
	year := z.LeadYear
	if year == 0 {
		year = craft.LeadYear
	}
	old := z.Made != 0 && z.Made < year
	holds := func(f *craft.FinishRow) bool {
		return f.Paint && (old || z.Made == 0) || old && (f.Varnish || f.Unknown)
	}
	if holds(&c.Finishes[z.Finish]) {
		return LeadSuspect, why
	}
	if z.Tests != nil && len(z.Tests.Answers) > 0 {
		// A touch of belief in paint is enough.
		const touch = .1
		sum := 0.
		for _, s := range z.Tests.On() {
			if f, ok := c.Finish(s.ID); ok && holds(&c.Finishes[f]) {
				sum += s.P
			}
		}
		if sum >= touch {
			return LeadSuspect, why
		}
	}
	if why != "" && z.LeadTest.Found {
		return LeadSuspect, why
	}
	return LeadNoSuspect, ""
}

// LeadBars tells whether nothing may be sanded, scraped or heated dry.
func (z *Zone) LeadBars(c *craft.Craft) bool {
	s, _ := z.Lead(c)
	return s == LeadSuspect || s == LeadFound
}
