package format

import (
	"cmp"
	"fmt"
	"io"
	"strings"

	"rutile/core/check"
	"rutile/core/craft"
)

// RuleEntry is a rule of the book, with where it speaks.
type RuleEntry struct {
	RuleWord
	Speaks []RuleSpeaks `json:"speaks" doc:"Where in the studio it speaks now, the worst first"`
}

// RuleSpeaks is one place where a rule speaks.
type RuleSpeaks struct {
	Piece    uint   `json:"piece"`
	Name     string `json:"name" doc:"Of the piece"`
	Zone     string `json:"zone"`
	ZoneName string `json:"zone_name"`
	Severity string `json:"severity" enum:"note,watch,fail"`
	Title    string `json:"title"`
	Step     int    `json:"step,omitempty"`
}

// RuleBook lists every rule, with the places among judged pieces where it speaks.
// The ids, pieces and results belong together by their places.
func RuleBook(ids []uint, pieces []*Piece, results []CheckResult) []RuleEntry {
	words := RuleWords(check.Rules)
	out := make([]RuleEntry, len(words))
	at := map[string]int{}
	for i, w := range words {
		out[i] = RuleEntry{w, []RuleSpeaks{}}
		at[w.Code] = i
	}
	for _, sev := range []string{"fail", "watch", "note"} {
		for i := range results {
			for j := range results[i].Zones {
				z := &results[i].Zones[j]
				for _, f := range z.Findings {
					if f.Severity == sev {
						e := &out[at[f.Code]]
						e.Speaks = append(e.Speaks, RuleSpeaks{ids[i], pieces[i].Name, z.ID, cmp.Or(z.Name, z.ID), sev, f.Title, f.Step})
					}
				}
			}
		}
	}
	return out
}

// WriteRules writes the rule book as Markdown.
func WriteRules(w io.Writer) error {
	var b strings.Builder
	words := RuleWords(check.Rules)
	fmt.Fprintf(&b, "# The rule book\n\nWritten by `rutile rules` from the entries in `core/check`; do not edit it here.\n\n")
	fmt.Fprintf(&b, "A check walks a zone's surface through the steps of its plan and lets each of these %d rules look at what happened. A *fail* is expected to go wrong, a *watch* can go wrong or rests on something unknown, a *note* is worth knowing. A plan without fails and watches is sound. Every figure is an estimate: labels, safety data sheets, local codes and licensed people decide.\n", len(words))
	group := ""
	for _, r := range words {
		if r.Group != group {
			group = r.Group
			fmt.Fprintf(&b, "\n## %s\n", group)
		}
		fmt.Fprintf(&b, "\n### `%s` %s\n\n%s\n\n- When: %s\n- Looks at: %s.\n- What mends it: %s.\n", r.Code, r.Title, r.Why, r.When, craft.Lower(r.Looks), craft.Lower(r.Mends))
	}
	_, err := io.WriteString(w, b.String())
	return err
}
