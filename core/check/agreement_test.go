package check

import (
	"os"
	"slices"
	"strings"
	"testing"

	"rutile/core/craft"
)

// The zones of testdata/agreement.txt have the verdict that an experienced
// painter would give, written down before the rules were. Where they disagree it
// is the model that is mended, and not the case.
func TestAgreementWithPainters(t *testing.T) {
	data, err := os.ReadFile("testdata/agreement.txt")
	if err != nil {
		t.Fatal(err)
	}
	c := craft.Default()
	seen := map[string]bool{}
	agreed, n := 0, 0
	for _, line := range strings.Split(strings.TrimSpace(string(data)), "\n") {
		if strings.HasPrefix(line, "#") {
			continue
		}
		f := strings.Split(line, "|")
		if len(f) != 6 {
			t.Fatalf("%d fields in %q", len(f), line)
		}
		for i := range f {
			f[i] = strings.TrimSpace(f[i])
		}
		n++
		z := zoneOf(t, f[1], f[2])
		seen[string(c.Substrates[z.Substrate].Group)] = true
		seen["family "+c.Substrates[z.Substrate].Family.String()] = true
		seen["look "+z.Look], seen["wear "+craft.Wears[z.Wear].ID] = true, true
		r := Check(c, z, Options{})
		missing := slices.DeleteFunc(strings.Fields(f[4]), func(code string) bool { return slices.Contains(codes(&r, Watch), code) })
		if r.Verdict.String() == f[3] && len(missing) == 0 {
			agreed++
		} else {
			t.Errorf("%s: %v %v, want %s with %s, because %s", f[0], r.Verdict, codes(&r, Watch), f[3], f[4], f[5])
			for _, x := range r.Findings {
				if x.Severity > Note {
					t.Logf("  %v %s: %s. %s", x.Severity, x.Code, x.Title, x.Why)
				}
			}
		}
		if testing.Verbose() {
			t.Logf("%s: %v. %s", f[0], r.Verdict, r.Says(c))
		}
	}
	t.Logf("agreed on %d of %d", agreed, n)
	if n < 60 {
		t.Errorf("only %d zones", n)
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
