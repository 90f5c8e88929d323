package identify

import (
	"fmt"
	"strings"

	"rutile/core/craft"
)

// short says a test within a sentence.
func short(test string) string { return Tests[TestNamed(test)].Short }

// Between names the two that contradict, within a sentence.
func (c *Conflict) Between() string {
	switch {
	case c.A.Test == "":
		return "the survey and the tests"
	case c.B.Test == "":
		return craft.Lower(short(c.A.Test)) + " and all the others"
	}
	return craft.Lower(short(c.A.Test)) + " and " + craft.Lower(short(c.B.Test))
}

func outcomeName(a Answer) string {
	t := &Tests[TestNamed(a.Test)]
	return t.Outcomes[t.outcome(a.Outcome)].Name
}

// on names what a test can be made on.
func (t *Test) on() string { return groupName(t.On) }

func groupName(g Group) string {
	var names []string
	for _, x := range groupNames {
		if g&x.Group != 0 {
			names = append(names, x.Name)
		}
	}
	return craft.List(names)
}

// Word says how strong a belief is.
func Word(p float64) string {
	switch {
	case p >= .97:
		return "almost certain"
	case p >= TestedFrom:
		return "very likely"
	case p >= .7:
		return "likely"
	case p >= LikelyFrom:
		return "more likely than not"
	case p >= .15:
		return "possible"
	case p >= .05:
		return "unlikely"
	}
	return "very unlikely"
}

// Says is the belief in a sentence.
func (b *Belief) Says() string {
	if b.Excluded() {
		return "The answers fit no known material. Repeat the test that surprised you in another place."
	}
	made, on := b.Made()[0], b.On()[0]
	if len(b.tests) == 0 {
		return "Nothing is tested yet; these are the most common ones."
	}
	if made.P >= TestedFrom && on.P >= TestedFrom {
		return fmt.Sprintf("%s%s: %s.", made.Name, onName(on, " under "), Word(min(made.P, on.P)))
	}
	return fmt.Sprintf("%s, %s; %s, %s.", made.Name, Word(made.P), strings.TrimPrefix(onName(on, "under "), ", "), Word(on.P))
}

func onName(s Share, under string) string {
	if s.ID == "none" {
		return ", bare"
	}
	return under + craft.Lower(s.Name)
}
