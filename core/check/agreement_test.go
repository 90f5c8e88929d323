package check

import (
	"os"
	"slices"
	"strings"
	"testing"

	"rutile/core/craft"
)

// The zones of testdata have the verdict that an experienced painter would give, written down before
// the rules were. Where they disagree it is the model that is mended, and not the case.
func TestAgreementWithPainters(t *testing.T) {
	c := craft.Default()
	seen := map[string]bool{}
	for _, file := range []string{"agreement", "practice"} {
		t.Run(file, func(t *testing.T) {
			agreed, n := 0, 0
			for _, x := range read(t, file) {
				n++
				if t.Run(x.name, func(t *testing.T) { x.judge(t, c, seen) }) {
					agreed++
				}
			}
			t.Logf("agreed on %d of %d", agreed, n)
			if n < 60 {
				t.Errorf("only %d zones", n)
			}
		})
	}
	for i := range c.Substrates {
		if id := "family " + c.Substrates[i].Family.String(); !seen[id] {
			t.Errorf("no zone of %s", id)
		}
	}
	for i := range c.Effects {
		if !seen["look "+c.Effects[i].ID] {
			t.Errorf("no zone is to be %s", c.Effects[i].ID)
		}
	}
	for i := range craft.Wears {
		if !seen["wear "+craft.Wears[i].ID] {
			t.Errorf("no zone is for %s", craft.Wears[i].ID)
		}
	}
}

// judged is one line of such a file.
type judged struct{ name, zone, plan, verdict, codes, why string }

// read reads a file of zones with their verdicts.
func read(t *testing.T, file string) []judged {
	t.Helper()
	data, err := os.ReadFile("testdata/" + file + ".txt")
	if err != nil {
		t.Fatal(err)
	}
	var out []judged
	for _, line := range strings.Split(string(data), "\n") {
		if strings.HasPrefix(line, "#") || strings.TrimSpace(line) == "" {
			continue
		}
		f := strings.Split(line, "|")
		if len(f) != 6 {
			t.Fatalf("%d fields in %q", len(f), line)
		}
		for i := range f {
			f[i] = strings.TrimSpace(f[i])
		}
		out = append(out, judged{f[0], f[1], f[2], f[3], f[4], f[5]})
	}
	return out
}

func (x *judged) judge(t *testing.T, c *craft.Craft, seen map[string]bool) {
	z := zoneOf(t, x.zone, x.plan)
	seen["family "+c.Substrates[z.Substrate].Family.String()] = true
	seen["look "+z.Look], seen["wear "+craft.Wears[z.Wear].ID] = true, true
	r := Check(c, z, Options{})
	missing := slices.DeleteFunc(strings.Fields(x.codes), func(code string) bool { return slices.Contains(codes(&r, Watch), code) })
	if r.Verdict.String() == x.verdict && len(missing) == 0 {
		t.Logf("%v. %s", r.Verdict, r.Says(c))
		return
	}
	t.Errorf("%v %v, want %s with %s, because %s", r.Verdict, codes(&r, Watch), x.verdict, x.codes, x.why)
	for _, f := range r.Findings {
		if f.Severity > Note {
			t.Logf("  %v %s: %s. %s", f.Severity, f.Code, f.Title, f.Why)
		}
	}
}
