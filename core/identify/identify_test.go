package identify

import (
	"fmt"
	"math/rand/v2"
	"os"
	"slices"
	"strconv"
	"strings"
	"testing"

	"rutile/core/craft"
)

// known is one case of the evaluation set.
type known struct {
	name, material, finish string
	made                   int
	answers                []Answer
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
		k.material, k.finish, _ = strings.Cut(strings.TrimSpace(f[1]), "/")
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
// material one that a coat meets alike when bare.
func (k *known) right(t testing.TB, b *Belief) bool {
	return b.On()[0].ID == k.finish && family(t, b.Made()[0].ID) == family(t, k.material)
}

func family(t testing.TB, material string) string {
	t.Helper()
	if material == somethingElse {
		return ""
	}
	m := &Materials[slices.IndexFunc(Materials, func(m Material) bool { return m.ID == material })]
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

// answered is what a painter makes of a suggestion: the case's answer, or none
// where the case has none.
func (k *known) answered(test string) (Answer, bool) {
	i := slices.IndexFunc(k.answers, func(a Answer) bool { return a.Test == test })
	if i < 0 {
		return Answer{}, false
	}
	return k.answers[i], true
}

const enough = .9 // belief at which a dialogue of the evaluation ends

// dialogue answers tests until what a coat meets is believed to 90 %, and tells
// how many answers that took; all of them, and false, where it never is. after
// sees the belief after every answer.
func (k *known) dialogue(t testing.TB, next func(*Belief, []string) string, after func(*Belief)) (int, bool) {
	t.Helper()
	var as []Answer
	var skip []string
	b := believe(t, Known{Made: k.made}, nil)
	meets := Meets(craft.Default())
	for {
		test := next(b, skip)
		if test == "" {
			return len(as), false
		}
		a, ok := k.answered(test)
		skip = append(skip, test)
		if !ok {
			continue
		}
		as = append(as, a)
		b = believe(t, Known{Made: k.made}, as)
		after(b)
		if b.Next(Purpose{Class: meets}).Settled >= enough {
			return len(as), true
		}
	}
}

func byInformation(b *Belief, skip []string) string {
	n := b.Next(Purpose{Class: Meets(craft.Default()), Skip: skip})
	if len(n.Tests) == 0 {
		return ""
	}
	return n.Tests[0].Test.ID
}

func inTheirOrder(b *Belief, skip []string) string {
	n := b.Next(Purpose{Class: Meets(craft.Default()), Skip: skip})
	for i := range Tests {
		if slices.ContainsFunc(n.Tests, func(s Suggestion) bool { return s.Test.ID == Tests[i].ID }) {
			return Tests[i].ID
		}
	}
	return ""
}

// bin counts beliefs of a size, and how many of them are right.
type bin struct {
	from, to float64
	n, right int
}

// table counts beliefs by their size. A belief that stays in its row while other
// things are asked is one belief and not several.
type table struct {
	bins []bin
	seen map[string]bool
}

func newTable() *table {
	return &table{[]bin{{from: 0, to: .5}, {from: .5, to: .7}, {from: .7, to: .85}, {from: .85, to: .95}, {from: .95, to: .99}, {from: .99, to: 1.01}}, map[string]bool{}}
}

// begin starts another dialogue.
func (x *table) begin() { clear(x.seen) }

func (x *table) count(b *Belief, k *known) {
	for _, q := range []struct {
		top   Share
		truth string
	}{{b.On()[0], k.finish}, {b.Made()[0], k.material}} {
		for j := range x.bins {
			row := &x.bins[j]
			if id := fmt.Sprint(j, q.top.ID); q.top.P >= row.from && q.top.P < row.to && !x.seen[id] {
				x.seen[id] = true
				row.n++
				if q.top.ID == q.truth {
					row.right++
				}
			}
		}
	}
}

func (x *table) log(t *testing.T, of string) {
	t.Log(of)
	for _, b := range x.bins {
		if b.n > 0 {
			t.Logf("  %3.0f to %3.0f %%: %4d beliefs, %3.0f %% right", b.from*100, min(1, b.to)*100, b.n, 100*float64(b.right)/float64(b.n))
		}
	}
}

// The evaluation: how often the likeliest is right, whether beliefs are as good
// as they say, and how many tests it takes. Run with -v for the tables.
//
// Beliefs are counted over every dialogue of both orders, once as the cases stand
// and once with one answer in ten replaced by any other, as a painter at the
// bench misreads some.
func TestEvaluation(t *testing.T) {
	clean, unseen, slipping := newTable(), newTable(), newTable()
	both := func(k *known, after func(*Belief), begin func()) (n, m int, ended, alsoEnded bool) {
		begin()
		n, ended = k.dialogue(t, byInformation, after)
		begin()
		m, alsoEnded = k.dialogue(t, inTheirOrder, after)
		return n, m, ended, alsoEnded
	}
	var mine, fixed, pairs, ends int
	var every []known
	for _, file := range []string{"seen.txt", "unseen.txt"} {
		right := 0
		all := cases(t, file)
		every = append(every, all...)
		for i := range all {
			k := &all[i]
			b := believe(t, Known{Made: k.made}, k.answers)
			if k.right(t, b) {
				right++
			} else {
				t.Logf("%s: %s is taken for %v under %v", file, k.name, b.Made()[0], b.On()[:2])
			}
			n, m, ended, alsoEnded := both(k, func(b *Belief) {
				clean.count(b, k)
				if file == "unseen.txt" {
					unseen.count(b, k)
				}
			}, func() { clean.begin(); unseen.begin() })
			if ended {
				ends++
			}
			if ended && alsoEnded {
				mine, fixed, pairs = mine+n, fixed+m, pairs+1
			}
		}
		t.Logf("%s: the likeliest is right in %d of %d", file, right, len(all))
		if file == "unseen.txt" && (len(all) != 20 || right < 17) {
			t.Errorf("right in %d of %d unseen cases", right, len(all))
		}
	}
	if len(every) < 60 {
		t.Errorf("only %d cases", len(every))
	}
	const slips, times = .1, 3
	rng := rand.New(rand.NewPCG(1, 2))
	for range times {
		for i := range every {
			k := every[i]
			k.answers = slices.Clone(k.answers)
			for j := range k.answers {
				if rng.Float64() < slips {
					os := Tests[TestNamed(k.answers[j].Test)].Outcomes
					k.answers[j].Outcome = os[rng.IntN(len(os))].ID
				}
			}
			both(&k, func(b *Belief) { slipping.count(b, &k) }, slipping.begin)
		}
	}
	clean.log(t, "beliefs of all dialogues:")
	unseen.log(t, "of those, the unseen cases:")
	slipping.log(t, "with one answer in ten misread:")
	for name, x := range map[string]*table{"as they stand": clean, "misread now and then": slipping} {
		b := x.bins[3]
		if share := float64(b.right) / float64(b.n); b.n < 60 || share < .85 || share > .96 {
			t.Errorf("%s, %d of %d beliefs of 85 to 95 %% are right: %.3f", name, b.right, b.n, share)
		}
	}
	t.Logf("%d of %d dialogues end at 90 %%; where both do (%d), after %.2f tests by information and %.2f in their order",
		ends, len(every), pairs, float64(mine)/float64(pairs), float64(fixed)/float64(pairs))
	if mine >= fixed || pairs < 40 {
		t.Errorf("%d dialogues took %d tests by information and %d in their order", pairs, mine, fixed)
	}
}

func TestTablesAreWhole(t *testing.T) {
	c := craft.Default()
	for i := range Materials {
		for _, s := range Materials[i].Substrates {
			if _, ok := c.Substrate(s); !ok {
				t.Errorf("%s is no substrate", s)
			}
		}
		for f := range Materials[i].Finishes {
			if _, ok := c.Finish(f); !ok || finishOf(f) < 0 {
				t.Errorf("%s of %s is no finish", f, Materials[i].ID)
			}
		}
	}
	for i := range c.Substrates {
		if s := &c.Substrates[i]; !s.Unknown && MaterialOf(s.ID) < 0 {
			t.Errorf("nothing here is %s", s.ID)
		}
	}
	if len(Tests) < 18 {
		t.Errorf("%d tests", len(Tests))
	}
	for i := range Tests {
		x := &Tests[i]
		if x.Name == "" || x.How == "" || x.Where == "" || x.LookFor == "" || x.Short == "" || TestNamed(x.ID) != i {
			t.Errorf("%s is not fully described", x.ID)
		}
		for _, r := range slices.Concat(x.Rows, x.Factors) {
			if !slices.ContainsFunc(Hypotheses, func(h Hypothesis) bool { return selects(r.of, &h) }) {
				t.Errorf("%s: %q selects nothing", x.ID, r.of)
			}
		}
		for h := range Hypotheses {
			if m := Hypotheses[h].Material; m < 0 || x.On&Materials[m].Group == 0 {
				continue
			}
			if !slices.ContainsFunc(x.Rows, func(r row) bool { return selects(r.of, &Hypotheses[h]) }) {
				t.Errorf("%s says nothing of %s under %s", x.ID, Materials[Hypotheses[h].Material].ID, finishes[Hypotheses[h].Finish].id)
			}
		}
		for _, o := range x.Outcomes {
			if o.ID == NotSure || o.Name == "" || !strings.Contains(o.Draw, ":") {
				t.Errorf("%s: outcome %+v", x.ID, o)
			}
		}
	}
}

func TestBeliefs(t *testing.T) {
	wood := Known{Substrate: "unknown_wood"}
	nothing := believe(t, wood, nil)
	if len(nothing.Contradictions) > 0 || nothing.told() {
		t.Error("nothing was tested, and something is said of it")
	}
	as := []Answer{{"face", "clear_film"}, {"alcohol", "sticky"}, {"worn", "crazed"}, {"edge", "solid"}}
	b := believe(t, wood, as)
	if s, p := b.OfFinish("shellac"); s != Tested || p < .9 {
		t.Errorf("shellac is %s at %.2f", s, p)
	}
	if s, _ := b.OfFinish("varnish_oil"); s != Doubted {
		t.Errorf("varnish is %s", s)
	}
	slices.Reverse(as)
	if r := believe(t, wood, as); !near(r.P, b.P) {
		t.Error("the order of the answers changes the belief")
	}
	if u := believe(t, wood, append(slices.Clone(as), Answer{"uv", NotSure})); !near(u.P, b.P) {
		t.Error("not being sure changes the belief")
	}
	if s, _ := nothing.OfFinish("shellac"); s != Assumed {
		t.Errorf("untested shellac is %s", s)
	}
	if s, _ := b.OfFinish("polyurethane"); s != Doubted {
		t.Error("polyurethane is not judged as what a coat meets alike")
	}
}

func near(a, b []float64) bool {
	for i := range a {
		if d := a[i] - b[i]; d > 1e-12 || d < -1e-12 {
			return false
		}
	}
	return true
}

// Two tests that see the same are no two witnesses: the second moves the belief
// less than one of another kind that says as much.
func TestWitnessesThatSeeTheSame(t *testing.T) {
	k := Known{Substrate: "oak"}
	one := believe(t, k, []Answer{{"fingernail", "furrow"}})
	two := believe(t, k, []Answer{{"fingernail", "furrow"}, {"scrape", "wax_shavings"}})
	w := two.weights(-1)
	if w[0] >= 1 == (w[1] >= 1) {
		t.Errorf("weights %v: one of them counts in full", w)
	}
	p1, p2 := one.sum(isWax), two.sum(isWax)
	full := p1 * .72 / (p1*.72 + (1-p1)*.02)
	if p2 <= p1 || p2 >= full {
		t.Errorf("wax goes from %.3f to %.3f; an independent witness would make it %.3f", p1, p2, full)
	}
}

func isWax(h *Hypothesis) bool { return h.Finish >= 0 && finishes[h.Finish].id == "wax" }

func TestContradictionsAreNamed(t *testing.T) {
	b := believe(t, Known{Substrate: "unknown_wood"}, []Answer{{"alcohol", "sticky"}, {"scrape", "chalk"}, {"damp_rag", "chalk"}, {"water", "soaks"}})
	if len(b.Contradictions) == 0 || !strings.Contains(b.Contradictions[0].Says, "Alcohol: “Sticky within a minute”") {
		t.Fatalf("%+v", b.Contradictions)
	}
	if len(b.Contradictions) > 2 {
		t.Errorf("%d contradictions out of one wrong answer", len(b.Contradictions))
	}
	// The survey against what is seen.
	b = believe(t, Known{Substrate: "oak"}, []Answer{{"edge", "crumbs"}, {"repeat", "repeats"}, {"knock", "dense"}, {"kind", "flat_pack"}})
	if !slices.ContainsFunc(b.Contradictions, func(c Conflict) bool { return strings.Contains(c.Says, "The survey says open-grained wood") }) {
		t.Errorf("%+v", b.Contradictions)
	}
	if s, _ := b.OfSubstrate(); s != Doubted || b.Made()[0].ID != "paper_board" {
		t.Errorf("oak is %s, and %v", s, b.Made()[0])
	}
	for _, k := range cases(t, "seen.txt") {
		if b := believe(t, Known{Made: k.made}, k.answers); len(b.Contradictions) > 0 {
			t.Errorf("%s: %v", k.name, b.Contradictions[0].Says)
		}
	}
}

// Answers that fit nothing end in "something else" and not in a firm belief.
func TestAnswersThatExcludeEverything(t *testing.T) {
	b := believe(t, Known{}, []Answer{
		{"face", "glassy"}, {"edge", "fibres"}, {"knock", "ring"}, {"magnet", "holds"}, {"water", "soaks"}, {"fingernail", "furrow"}, {"smell", "plastic"}, {"species", "greasy"},
	})
	if !b.Excluded() || !strings.Contains(b.Says(), "fit no known material") || len(b.Contradictions) == 0 {
		t.Errorf("%s %v", b.Says(), b.Top())
	}
	n := b.Next(Purpose{})
	if n.Settled < .5 {
		t.Errorf("settled %v", n.Settled)
	}
}

func TestBadAnswers(t *testing.T) {
	for _, x := range []struct {
		as   []Answer
		says string
	}{
		{[]Answer{{"alcohol", "sticky"}, {"alcohol", "nothing"}}, `the test "alcohol" is answered twice, with "sticky" and "nothing"`},
		{[]Answer{{"flame", "burns"}}, `there is no test "flame"`},
		{[]Answer{{"alcohol", "burns"}}, `the test "alcohol" has no outcome "burns"`},
	} {
		if _, err := Believe(Known{}, x.as); err == nil || err.Error() != x.says {
			t.Errorf("%v", err)
		}
	}
	b := believe(t, Known{Substrate: "glass", Made: 1950}, []Answer{{"alcohol", "sticky"}, {"species", "greasy"}, {"age", "after_1990"}})
	if len(b.NotCounted) != 3 || !strings.Contains(b.NotCounted[1].Why, "does not work on glass or glaze: it only works on wood") || len(b.Answers) != 0 {
		t.Errorf("%+v", b.NotCounted)
	}
	if !strings.Contains(b.NotCounted[2].Why, "from 1950") {
		t.Errorf("%+v", b.NotCounted[2])
	}
}

// Whatever is answered, the belief adds up, does not depend on the order, and
// what is judged is the better part of it.
func TestBeliefsOfAnyAnswers(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 4))
	subs := []string{"", "unknown_wood", "plastic_unknown", "oak", "melamine", "steel", "glass", "terracotta", "vinyl_fabric"}
	for range 3000 {
		k := Known{Substrate: subs[rng.IntN(len(subs))], Veneer: rng.IntN(5) == 0}
		if rng.IntN(3) == 0 {
			k.Made = 1880 + rng.IntN(140)
		}
		var as []Answer
		for _, t := range rng.Perm(len(Tests))[:rng.IntN(9)] {
			os := Tests[t].Outcomes
			as = append(as, Answer{Tests[t].ID, os[rng.IntN(len(os))].ID})
		}
		b := believe(t, k, as)
		sum := 0.
		for _, p := range b.P {
			if !(p >= 0 && p <= 1) {
				t.Fatalf("%v %v: a belief of %v", k, as, p)
			}
			sum += p
		}
		if sum < 1-1e-9 || sum > 1+1e-9 {
			t.Fatalf("%v %v: beliefs of %v in all", k, as, sum)
		}
		slices.Reverse(as)
		if !near(believe(t, k, as).P, b.P) {
			t.Fatalf("%v %v: the order matters", k, as)
		}
		judged := 0.
		all := b.Surfaces()
		for i, s := range all {
			judged += s.P
			if i > 0 && s.P > all[i-1].P {
				t.Fatalf("%v %v: not the likeliest first", k, as)
			}
		}
		if judged < .5 && len(as) > 0 && len(all) < mostSurfaces/2 {
			t.Fatalf("%v %v: only %.2f is judged, in %d surfaces", k, as, judged, len(all))
		}
		if len(as)+len(b.NotCounted) > 0 && len(b.Answers)+len(b.NotCounted) != len(as) {
			t.Fatalf("%v %v: %d count and %d are set aside", k, as, len(b.Answers), len(b.NotCounted))
		}
	}
}

func TestNextTest(t *testing.T) {
	c := craft.Default()
	wood := Known{Substrate: "unknown_wood", Made: 1925}
	b := believe(t, wood, []Answer{{"kind", "old_joinery"}, {"face", "clear_film"}, {"edge", "solid"}, {"species", "dark_even"}})
	n := b.Next(Purpose{Class: Meets(c)})
	if n.Done || n.Tests[0].Test.ID != "alcohol" {
		t.Errorf("%v, %s first", n.Done, n.Tests[0].Test.ID)
	}
	for _, s := range n.Tests {
		if s.Bits < 0 || s.Test.ID == "magnet" || s.Test.ID == "age" || s.Test.ID == "face" {
			t.Errorf("%s is offered for %.2f bits", s.Test.ID, s.Bits)
		}
	}
	if m := b.Next(Purpose{Class: Meets(c), Skip: []string{"alcohol"}}); m.Tests[0].Test.ID == "alcohol" {
		t.Error("what the painter would rather not do is offered first")
	}
	// Where the same would be done whatever it is, nothing is worth testing.
	all := Purpose{Class: func(Surface) string { return "" }}
	if m := b.Next(all); m.Done || m.Tests[0].Test.Observation {
		t.Errorf("looks alone settle it, and %s is offered", m.Tests[0].Test.ID)
	}
	if m := believe(t, wood, []Answer{{"face", "clear_film"}, {"fingernail", "hard"}}).Next(all); !m.Done {
		t.Errorf("settled %.2f, and %s is still offered", m.Settled, m.Tests[0].Test.ID)
	}
	// What scrapes or heats is never offered on a suspect of lead.
	m := believe(t, Known{Substrate: "pine"}, []Answer{{"face", "paint_brushed"}}).Next(Purpose{Class: Meets(c), Lead: true})
	if len(m.Barred) == 0 || slices.ContainsFunc(m.Tests, func(s Suggestion) bool { return s.Test.Disturbs }) {
		t.Errorf("%d barred", len(m.Barred))
	}
}

func BenchmarkNext(b *testing.B) {
	k := Known{Substrate: "unknown_wood", Made: 1925}
	as := []Answer{{"kind", "old_joinery"}, {"face", "clear_film"}, {"edge", "solid"}}
	meets := Meets(craft.Default())
	for b.Loop() {
		x, err := Believe(k, as)
		if err != nil {
			b.Fatal(err)
		}
		x.Next(Purpose{Class: meets})
	}
}
