package identify

import (
	"fmt"
	"strings"
	"unicode"
	"unicode/utf8"
)

// shortNames say a test within a sentence.
var shortNames = map[string]string{
	"kind": "The sort of thing", "age": "The age", "face": "The face", "edge": "The edges", "repeat": "The grain", "knock": "The sound", "magnet": "The magnet",
	"metal_look": "The look of the metal", "species": "The wood inside", "worn": "Worn places", "amber": "The colour of the film", "water": "The drop of water",
	"damp_rag": "The damp rag", "white_spirit": "White spirit", "fingernail": "The fingernail", "scrape": "The blade", "alcohol": "Alcohol", "thinner": "Lacquer thinner",
	"hot_pin": "The hot pin", "smell": "The smell", "tape": "The tape", "uv": "The UV torch", "scratch_metal": "The scratch", "mark": "The mark", "back": "The back of the cover",
}

func short(test string) string { return shortNames[test] }

// ShortName is a test as one speaks of it within a sentence.
func (t *Test) ShortName() string { return shortNames[t.ID] }

func outcomeName(a Answer) string {
	t := &Tests[TestNamed(a.Test)]
	return t.Outcomes[t.outcome(a.Outcome)].Name
}

func low(s string) string {
	r, n := utf8.DecodeRuneInString(s)
	if next, _ := utf8.DecodeRuneInString(s[n:]); unicode.IsUpper(next) {
		return s
	}
	return string(unicode.ToLower(r)) + s[n:]
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
	if len(names) < 2 {
		return strings.Join(names, "")
	}
	return strings.Join(names[:len(names)-1], ", ") + " and " + names[len(names)-1]
}

// Word says how strong a belief is.
func Word(p float64) string {
	switch {
	case p >= .97:
		return "as good as certain"
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
	return "hardly"
}

// Says is the belief in a sentence.
func (b *Belief) Says() string {
	if b.Excluded() {
		return "The answers fit nothing that is known here. Make the one that surprised you again, in another place."
	}
	made, on := b.Made()[0], b.On()[0]
	if len(b.tests) == 0 {
		return "Nothing is tested yet; this is what one meets most often."
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
	return under + low(s.Name)
}
