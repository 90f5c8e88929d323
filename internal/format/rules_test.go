package format

import (
	"os"
	"strings"
	"testing"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
)

// The book in the docs is the one in the program.
func TestRulesInTheDocsAreCurrent(t *testing.T) {
	var b strings.Builder
	if err := WriteRules(&b); err != nil {
		t.Fatal(err)
	}
	was, err := os.ReadFile("../../docs/rules.md")
	if err != nil || string(was) != b.String() {
		t.Fatalf("docs/rules.md is not what the entries say; run make docs (%v)", err)
	}
	for _, r := range check.Rules {
		if !strings.Contains(b.String(), "### `"+r.Code+"` "+r.Title) || r.Group() == "" {
			t.Errorf("%s is not in it, or in no group", r.Code)
		}
	}
}

func TestRuleBookSaysWhereItSpeaks(t *testing.T) {
	p := New("Box")
	p.Zones = []Zone{{ID: "lid", Name: "Lid", Substrate: "laminate_hpl", Finish: "none", Gloss: "gloss", Soils: []Level{}, Steps: []Step{{Do: "coat", Product: "paint_chalk"}}}}
	r := Check(craft.Default(), &p, CheckOptions{Site: drying.Usual, NoRepairs: true})
	speaks := 0
	for _, e := range RuleBook([]uint{7}, []*Piece{&p}, []CheckResult{r}) {
		for _, s := range e.Speaks {
			speaks++
			if s.Piece != 7 || s.Name != "Box" || s.Zone != "lid" || s.ZoneName != "Lid" || s.Title == "" {
				t.Errorf("%s: %+v", e.Code, s)
			}
		}
		if e.Code == "adhesion.weakest" && (len(e.Speaks) != 1 || e.Speaks[0].Severity != "fail") {
			t.Errorf("%+v", e.Speaks)
		}
	}
	if speaks != len(r.Zones[0].Findings) {
		t.Errorf("%d places for %d findings", speaks, len(r.Zones[0].Findings))
	}
}
