package check

import (
	"strings"
	"testing"

	"rutile/core/craft"
)

// A word and a severity have the same limits: whatever is watched is visible, and nothing sound is.
func TestWordsAgreeWithVerdicts(t *testing.T) {
	for de := 0.; de < 15; de += .1 {
		for b := range craft.NumBleeders {
			words := StainWords(b, de)
			seen := words != "no visible stain" && words != "not sticky"
			if seen != (StainVerdict(de) != Sound) {
				t.Errorf("%s of %.1f: %q, %v", craft.Bleeders[b].Name, de, words, StainVerdict(de))
			}
			if strings.Contains(words, "faint") && StainVerdict(de) != Watched || strings.ContainsAny(words, "0123456789") || strings.Contains(words, "a a ") {
				t.Errorf("%s of %.1f: %q", craft.Bleeders[b].Name, de, words)
			}
		}
	}
	for p := 0.; p <= 1; p += .01 {
		words := HoldWords(p)
		if holds := strings.HasPrefix(words, "holds"); holds != (RiskVerdict(p) == Sound) || (words == "will peel") != (RiskVerdict(p) == Fails) {
			t.Errorf("a risk of %.2f: %q, %v", p, words, RiskVerdict(p))
		}
	}
	for s, want := range map[float64]string{.2: "much too weak", .4: "too weak", .5: "only just strong enough", .7: "strong enough"} {
		if got := BondWords(s, .5); got != want {
			t.Errorf("%.1f of .5: %q", s, got)
		}
	}
}

// Of one severity, harm to people comes first, then expected damage, then what is not known; within one
// harm the bigger stain; and the sentence of the verdict begins with the first.
func TestTheWorstReasonIsFirst(t *testing.T) {
	harm := func(f *Finding) int {
		switch {
		case f.Code == "adhesion.untested", f.Code == "adhesion.doubted", f.Code == "prep.soil_left" && strings.HasPrefix(f.Title, "Not yet checked"):
			return 0
		case strings.HasPrefix(f.Code, "safety.") && f.Severity > Note:
			return 2
		}
		return 1
	}
	c := craft.Default()
	of := map[int]int{}
	for _, x := range ruleCases {
		z := zoneOf(t, x.zone, x.plan)
		c := craftOf(z)
		r := Check(c, z, Options{NoRepairs: true})
		if len(r.Findings) == 0 {
			continue
		}
		if r.Verdict != Sound && !strings.HasPrefix(r.Says(c), r.Findings[0].Title) {
			t.Errorf("%s; %s: %q does not begin with %q", x.zone, x.plan, r.Says(c), r.Findings[0].Title)
		}
		for i := 1; i < len(r.Findings); i++ {
			p, q := &r.Findings[i-1], &r.Findings[i]
			of[harm(q)]++
			if p.Severity < q.Severity || p.Severity == q.Severity && harm(p) < harm(q) {
				t.Errorf("%s; %s: %s (%v) comes before %s (%v)", x.zone, x.plan, p.Code, p.Severity, q.Code, q.Severity)
			}
			stains := strings.HasPrefix(p.Code, "bleed.") && strings.HasPrefix(q.Code, "bleed.") && p.Severity == Fail && q.Severity == Fail
			if stains && p.Figures[0].Value < q.Figures[0].Value {
				t.Errorf("%s; %s: %s shows less than %s", x.zone, x.plan, p.Code, q.Code)
			}
		}
	}
	if of[0] < 3 || of[1] < 20 {
		t.Errorf("findings of each harm that come after another: %v", of)
	}
	// Sanding old paint that may hold lead poisons; paint that peels only costs work.
	r := Check(c, zoneOf(t, "pine paint_alkyd_old gloss; made 1930", "sand 120; paint_acrylic x2; clear_oil"), Options{NoRepairs: true})
	if r.Findings[0].Code != "safety.lead" {
		t.Errorf("%q is first", r.Says(c))
	}
}
