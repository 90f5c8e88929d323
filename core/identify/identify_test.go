package identify

import (
	"fmt"
	"math"
	"os"
	"slices"
	"strconv"
	"strings"
	"testing"

	"rutile/core/craft"
)

// known is one case of the evaluation set.
type known struct {
	name, matter, finish string
	made                 int
	answers              []Answer
}

func cases(t testing.TB, file string) []known {
	t.Helper()
	data, err := os.ReadFile("testdata/" + file)
	if err != nil {
		t.Fatal(err)
	}
	var out []known
	for i, line := range strings.Split(strings.TrimSpace(string(data)), "\n") {
		f := strings.Split(line, "|")
		if len(f) != 5 {
			t.Fatalf("%s:%d: %d fields", file, i+1, len(f))
		}
		k := known{name: strings.TrimSpace(f[0])}
		k.matter, k.finish, _ = strings.Cut(strings.TrimSpace(f[1]), "/")
		k.made, _ = strconv.Atoi(strings.TrimSpace(f[2]))
		for _, a := range strings.Fields(f[3]) {
			test, outcome, _ := strings.Cut(a, "=")
			k.answers = append(k.answers, Answer{test, outcome})
		}
		out = append(out, k)
	}
	return out
}

// right tells whether the likeliest finish is the true one, and the likeliest
// matter one that a coat meets alike when bare.
func (k *known) right(t testing.TB, b *Belief) bool {
	return b.On()[0].ID == k.finish && family(t, b.Made()[0].ID) == family(t, k.matter)
}

func family(t testing.TB, matter string) string {
	t.Helper()
	if matter == somethingElse {
		return ""
	}
	m := &Matters[slices.IndexFunc(Matters, func(m Matter) bool { return m.ID == matter })]
	c := craft.Default()
	s, ok := c.Substrate(m.Substrates[0])
	if !ok {
		t.Fatalf("%s is no substrate", m.Substrates[0])
	}
	return c.Substrates[s].Family.String()
}

func believe(t testing.TB, k Known, as []Answer) *Belief {
	t.Helper()
	b, err := Believe(k, as)
	if err != nil {
		t.Fatal(err)
	}
	return b
}

func TestZZ(t *testing.T) {
	for _, f := range []string{"seen.txt", "unseen.txt"} {
		n := 0
		for _, k := range cases(t, f) {
			b := believe(t, Known{Made: k.made}, k.answers)
			if f == "unseen.txt" && os.Getenv("UNSEEN") == "" {
				continue
			}
			if k.right(t, b) {
				n++
			} else {
				fmt.Println(f, k.name, k.matter, k.finish, b.Made()[:2], b.On()[:3])
			}
			for _, c := range b.Against {
				fmt.Println("   ", k.name, c.Says, c.Lift)
			}
		}
		fmt.Println(f, n)
	}
	_ = math.Pi
}
