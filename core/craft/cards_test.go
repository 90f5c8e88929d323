package craft

import (
	"regexp"
	"strings"
	"testing"
)

var braces = regexp.MustCompile(`\{([a-z]*)\}`)

// Every product is mixed and laid in a way that has its row, and every row is whole.
func TestEveryProductHasItsCards(t *testing.T) {
	c := Default()
	used := map[string]bool{}
	for i := range c.Products {
		p := &c.Products[i]
		m, l := MixingNamed(p.Mixing), LayingNamed(p.Laying)
		if m == nil || l == nil {
			t.Errorf("%s is mixed by %q and laid by %q", p.ID, p.Mixing, p.Laying)
			continue
		}
		used[m.ID], used["lay "+l.ID] = true, true
		for _, method := range p.Methods {
			if method == "spray" && l.Gun == (Gun{}) && p.Mixing != "can" {
				t.Errorf("%s is sprayed, and %s sets no gun", p.ID, l.ID)
			}
			if l.Tool(method).Method != method {
				t.Errorf("%s is laid by %s, and %s has no tool for that", p.ID, method, l.ID)
			}
		}
		if p.Rags && l.Waste == "" {
			t.Errorf("%s says nothing of its rags", p.ID)
		}
	}
	places := map[Pour][]string{
		PourReady: {"base", "with"}, PourPowder: {"base", "with", "thinner", "additive"}, PourTwoPart: {"base", "with", "thinner"}, PourGlaze: {"base", "with"},
		PourHomeMade: {"base", "filler", "water"}, PourPaste: {"base"}, PourCan: {},
	}
	for _, m := range Mixings {
		if !used[m.ID] {
			t.Errorf("nothing is mixed by %s", m.ID)
		}
		if m.TooThick == "" || m.TooThin == "" || m.Left == "" || len(m.Lines) < 2 {
			t.Errorf("%s is not whole", m.ID)
		}
		poured := map[string]bool{}
		for _, l := range m.Lines {
			checkLine(t, m.ID, l)
			for _, b := range braces.FindAllStringSubmatch(l.Says, -1) {
				poured[b[1]] = true
				if !strings.Contains(strings.Join(places[m.Pour], " "), b[1]) {
					t.Errorf("%s: %q pours what is never measured", m.ID, l.Says)
				}
			}
		}
		for _, p := range places[m.Pour] {
			if !poured[p] && (p == "base" || p == "filler" || m.Pour == PourTwoPart) {
				t.Errorf("%s measures %s and never pours it", m.ID, p)
			}
		}
	}
	for i := range Layings {
		l := &Layings[i]
		if !used["lay "+l.ID] {
			t.Errorf("nothing is laid by %s", l.ID)
		}
		if len(l.Tools) == 0 || len(l.Lines) == 0 || len(l.Faults) < 2 || l.Clean == "" || l.Keep == "" || l.Waste == "" || l.Runs == "" {
			t.Errorf("%s is not whole", l.ID)
		}
		if (l.WipeTo > 0) != (l.WipeFrom > 0) || l.WipeFrom > l.WipeTo || l.WipeTo > 0 && (l.Cloth == "" || l.Little == "") {
			t.Errorf("%s is wiped, and does not say how", l.ID)
		}
		checkLaying(t, l)
	}
	checkLaying(t, &Sprayed)
	for i := range c.Effects {
		for _, x := range c.Effects[i].Cards {
			for _, l := range x.Lines {
				checkLine(t, c.Effects[i].ID, l)
			}
			for _, f := range x.Faults {
				checkFault(t, c.Effects[i].ID, f)
			}
			if x.Turn && x.Why == "" {
				t.Errorf("%s turns the strokes and does not say why", c.Effects[i].ID)
			}
		}
	}
	for _, l := range append(append([]Line{}, FillerLines...), Protects...) {
		checkLine(t, "filler and cover", l)
	}
}

var gathers = regexp.MustCompile(`^(at|below|in|into|late|nowhere|on|where)\b.*\.$`)

func checkLaying(t *testing.T, l *LayingRow) {
	for _, x := range append(append([]Line{}, l.Lines...), l.Before...) {
		checkLine(t, l.ID, x)
	}
	if !gathers.MatchString(l.Runs) {
		t.Errorf("%s: \"It gathers %s\" is no sentence", l.ID, l.Runs)
	}
	for _, x := range l.Lines {
		if x.When == WhenLater {
			t.Errorf("%s: %q is done before the first stroke, and stands among the strokes", l.ID, x.Says)
		}
	}
	seen := map[string]bool{}
	for _, f := range l.Faults {
		checkFault(t, l.ID, f)
		if seen[f.ID] {
			t.Errorf("%s tells %s twice", l.ID, f.ID)
		}
		seen[f.ID] = true
	}
}

// A line is a sentence, and short enough to be read at arm's length.
func checkLine(t *testing.T, of string, l Line) {
	t.Helper()
	const longest = 150
	if len(l.Says) > longest || !strings.HasSuffix(l.Says, ".") && !strings.HasSuffix(l.Says, "?") {
		t.Errorf("%s: %q is no short sentence", of, l.Says)
	}
	if (l.Timer != NoTimer) != (l.Minutes > 0) && l.Timer != TimePot && l.Timer != TimeTack && l.Timer != TimeSand {
		t.Errorf("%s: %q is timed for %v min", of, l.Says, l.Minutes)
	}
}

func checkFault(t *testing.T, of string, f Fault) {
	t.Helper()
	if FaultNames[f.ID] == "" || f.Wet == "" || f.Dry == "" {
		t.Errorf("%s: the fault %q is not whole", of, f.ID)
	}
}

func TestRecipesAndTimers(t *testing.T) {
	if HomeMadeNamed("") != &HomeMade[0] || HomeMadeNamed("plaster") == nil || HomeMadeNamed("flour") != nil {
		t.Error("recipes are found by another name")
	}
	foams := 0
	for _, h := range HomeMade {
		if h.Foams != "" {
			foams++
		}
		if h.Emulsion <= 0 || h.FillerParts <= 0 || h.Like == "" {
			t.Errorf("%+v", h)
		}
	}
	if foams != 1 || HomeMade[0].Foams != "" {
		t.Errorf("%d recipes are refused", foams)
	}
	for x := TimeWhisk; x < NumTimers; x++ {
		r := &Timers[x]
		if got, ok := TimerNamed(r.ID); !ok || got != x || r.Name == "" || r.Rings == "" {
			t.Errorf("timer %d: %+v", x, r)
		}
	}
	if _, ok := TimerNamed("egg"); ok {
		t.Error("eggs are timed")
	}
}
