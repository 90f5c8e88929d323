package identify

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"rutile/core/craft"
)

// Answer is one answered test.
type Answer struct {
	Test    string
	Outcome string
}

// Known is what a survey says before any test.
type Known struct {
	// Substrate is the id of the surveyed material; empty, or an id for "not known".
	Substrate string
	Veneer    bool
	Made      int // year, 0 if not known
}

// Belief is what the answers come to.
type Belief struct {
	Known   Known
	Answers []Answer // those that count, each test once, in the tests' order
	// NotCounted are answers that cannot count, with the reason.
	NotCounted []Uncounted
	// P is the belief in each of [Hypotheses]; it adds up to 1.
	P []float64
	// Contradictions are pairs of answers, or an answer and the survey, that hardly
	// go together.
	Contradictions []Conflict

	prior []float64
	tests []int // of Answers
	outs  []int
}

// Uncounted is an answer that is not counted.
type Uncounted struct {
	Answer
	Why string
}

// Conflict names what contradicts.
type Conflict struct {
	A, B Answer
	// Lift is how often the two come together, where 1 is as often as chance
	// would bring them together and 0 is never.
	Lift float64
	Says string
}

// stated is the share of belief that goes to what a survey says a thing is
// made of, before any test; the rest is for a survey in error. Working default.
const stated = .97

// lookalike are, for substrates that mean "not known", the groups they are assumed to be in, with
// how often each turns out. Working default.
var lookalike = map[string]map[Group]float64{
	"unknown_wood":    {Wood: .84, Printed: .13, Board: .03},
	"plastic_unknown": {Plastic: .85, Printed: .1, Cloth: .05},
}

// eras are the outcomes of the question of age, with the first year after each.
var eras = []struct {
	id    string
	until int
}{{"before_1930", 1930}, {"y1930_60", 1960}, {"y1960_90", 1990}, {"after_1990", 1 << 30}}

// Believe works out what answers come to. A test of which there are two
// answers, an unknown test or outcome is an error that names it; "not sure" is
// no answer and no error.
func Believe(k Known, answers []Answer) (*Belief, error) {
	b := &Belief{Known: k, prior: priors(k)}
	seen := map[string]string{}
	dated := false
	group := anything
	if m := MaterialOf(k.Substrate); m >= 0 {
		group = Materials[m].Group
	}
	for _, a := range answers {
		t := TestNamed(a.Test)
		if t < 0 {
			return nil, fmt.Errorf("there is no test %q", a.Test)
		}
		if first, dup := seen[a.Test]; dup {
			return nil, fmt.Errorf("the test %q is answered twice, with %q and %q", a.Test, first, a.Outcome)
		}
		seen[a.Test] = a.Outcome
		if a.Outcome == NotSure {
			continue
		}
		o := Tests[t].outcome(a.Outcome)
		switch {
		case o < 0:
			return nil, fmt.Errorf("the test %q has no outcome %q", a.Test, a.Outcome)
		case Tests[t].On&group == 0:
			b.NotCounted = append(b.NotCounted, Uncounted{a, "This test does not work on " + groupName(group) + ": it only works on " + Tests[t].on() + "."})
			continue
		case a.Test == "age" && k.Made != 0:
			b.NotCounted = append(b.NotCounted, Uncounted{a, fmt.Sprintf("The piece is from %d, which says more than how old it looks.", k.Made)})
			continue
		}
		dated = dated || a.Test == "age"
		b.Answers, b.tests, b.outs = append(b.Answers, a), append(b.tests, t), append(b.outs, o)
	}
	if k.Made != 0 && !dated {
		// The year is an answer without a question.
		t := TestNamed("age")
		e := slices.IndexFunc(eras, func(e struct {
			id    string
			until int
		}) bool {
			return k.Made < e.until
		})
		for h := range b.prior {
			b.prior[h] *= chances[t][h][Tests[t].outcome(eras[e].id)]
		}
		normal(b.prior)
	}
	b.P = b.weigh(-1)
	b.conflicts()
	return b, nil
}

// priors is the belief before any test.
func priors(k Known) []float64 {
	p := make([]float64, len(Hypotheses))
	said := MaterialOf(k.Substrate)
	like := lookalike[k.Substrate]
	for h := range Hypotheses {
		x := &Hypotheses[h]
		p[h] = x.prior
		if x.Material < 0 {
			continue
		}
		m := &Materials[x.Material]
		switch {
		case said >= 0 && (x.Material == said || k.Veneer && m.Veneer && Materials[said].Group == Wood):
			p[h] *= stated / Materials[said].Prior
		case said >= 0:
			p[h] *= 1 - stated
		case like != nil:
			sum := 0.
			for i := range Materials {
				if Materials[i].Group == m.Group {
					sum += Materials[i].Prior
				}
			}
			p[h] *= like[m.Group] / sum
		}
		if k.Veneer && m.Group == Wood && !m.Veneer {
			p[h] *= .1
		}
	}
	normal(p)
	return p
}

func normal(p []float64) {
	sum := 0.
	for _, x := range p {
		sum += x
	}
	for i := range p {
		p[i] /= sum
	}
}

// unmakeable weighs an answer under a hypothesis on which its test cannot be
// made: whoever answers has seen something to answer from.
const unmakeable = .25

// chance is how likely an answer is under a hypothesis.
func chance(t, h, o int) float64 {
	if x := &Hypotheses[h]; x.Material >= 0 && Tests[t].On&Materials[x.Material].Group == 0 {
		return unmakeable / float64(len(Tests[t].Outcomes))
	}
	return chances[t][h][o]
}

// spreadOf is how much an outcome tells: the spread of its log chance under
// what may be met at all.
var spreadOf = func() [][]float64 {
	out := make([][]float64, len(Tests))
	for t := range Tests {
		out[t] = make([]float64, len(Tests[t].Outcomes))
		for o := range out[t] {
			var mean, sq float64
			for h := range Hypotheses {
				l := math.Log(chance(t, h, o))
				mean += Hypotheses[h].prior * l
				sq += Hypotheses[h].prior * l * l
			}
			out[t][o] = sq - mean*mean
		}
	}
	return out
}()

// weights says how much each answer counts: of those with the same property the most informative in
// full, and each other only for what it does not share with it. without leaves one out, below 0
// none.
func (b *Belief) weights(without int) []float64 {
	w := make([]float64, len(b.tests))
	for i, t := range b.tests {
		if i == without {
			continue
		}
		w[i] = 1
		for j, u := range b.tests {
			if j == without || j == i || Tests[u].Sees != Tests[t].Sees {
				continue
			}
			if c := cmp.Compare(spreadOf[u][b.outs[j]], spreadOf[t][b.outs[i]]); c > 0 || c == 0 && u < t {
				w[i] = 1 - shared[Tests[t].Sees]
			}
		}
	}
	return w
}

// weigh is Bayes' rule over the answers, one left out where without is not
// below 0.
func (b *Belief) weigh(without int) []float64 {
	w := b.weights(without)
	l := make([]float64, len(b.prior))
	top := math.Inf(-1)
	for h := range l {
		l[h] = math.Log(b.prior[h])
		for i, t := range b.tests {
			if w[i] > 0 {
				l[h] += w[i] * math.Log(chance(t, h, b.outs[i]))
			}
		}
		top = max(top, l[h])
	}
	for h := range l {
		l[h] = math.Exp(l[h] - top)
	}
	normal(l)
	return l
}

// rare is how seldom two answers may come together before they are said to
// contradict each other. Working default.
const rare = .3

// surprising is the chance of an answer, given all the others, below which it
// stands against them.
const surprising = .06

// conflicts names answers that hardly go together: pairs of them that nothing
// in the tables brings forth, and single ones against all the others.
func (b *Belief) conflicts() {
	given := func(p []float64, t, o int) float64 {
		sum := 0.
		for h := range p {
			sum += p[h] * chance(t, h, o)
		}
		return sum
	}
	for i, t := range b.tests {
		rest := b.weigh(i)
		now := given(rest, t, b.outs[i])
		if now >= surprising || now >= rare*given(b.prior, t, b.outs[i]) {
			continue
		}
		worst := b.against(i)
		if slices.ContainsFunc(b.Contradictions, func(c Conflict) bool { return c.A == worst.B && c.B == worst.A }) {
			continue
		}
		if worst.Lift > 1-rare {
			worst.B = Answer{}
			worst.Says = fmt.Sprintf("%s: “%s” hardly ever goes with all the other answers.", short(b.Answers[i].Test), outcomeName(b.Answers[i]))
		}
		b.Contradictions = append(b.Contradictions, worst)
	}
	if b.Excluded() && len(b.Contradictions) == 0 && len(b.tests) > 1 {
		worst := b.against(0)
		for i := range b.tests[1:] {
			if c := b.against(i + 1); c.Lift < worst.Lift {
				worst = c
			}
		}
		b.Contradictions = append(b.Contradictions, worst)
	}
	if said := MaterialOf(b.Known.Substrate); said >= 0 && len(b.tests) > 0 {
		if p := b.inMaterial(said); p < doubted {
			b.Contradictions = append(b.Contradictions, Conflict{Lift: p / stated, Says: fmt.Sprintf("The survey says %s, but the test results point to %s.", craft.Lower(Materials[said].Name), craft.Lower(b.Top().Material))})
		}
	}
}

// against is the answer that contradicts the i-th most: the one that occurs with it least often in
// the tables.
func (b *Belief) against(i int) Conflict {
	t := b.tests[i]
	worst := Conflict{A: b.Answers[i], Lift: math.Inf(1)}
	for j, u := range b.tests {
		if j == i {
			continue
		}
		var both, one, two float64
		for h := range b.prior {
			if Hypotheses[h].Material >= 0 {
				x, y := chance(t, h, b.outs[i]), chance(u, h, b.outs[j])
				both, one, two = both+b.prior[h]*x*y, one+b.prior[h]*x, two+b.prior[h]*y
			}
		}
		if lift := both / (one * two); lift < worst.Lift {
			worst.B, worst.Lift = b.Answers[j], lift
		}
	}
	if worst.B.Test != "" {
		worst.Says = fmt.Sprintf("%s: “%s”, and %s: “%s”. Hardly any material shows both.",
			short(worst.A.Test), outcomeName(worst.A), craft.Lower(short(worst.B.Test)), outcomeName(worst.B))
	}
	return worst
}

// MaterialNamed is what an id of [Belief.Made] stands for; nil for something else.
func MaterialNamed(id string) *Material {
	for i := range Materials {
		if Materials[i].ID == id {
			return &Materials[i]
		}
	}
	return nil
}

// inMaterial is the belief that it is made of a material.
func (b *Belief) inMaterial(m int) float64 {
	return b.sum(func(x *Hypothesis) bool {
		return x.Material == m || b.Known.Veneer && m == MaterialOf(b.Known.Substrate) && x.Material >= 0 && Materials[x.Material].Veneer
	})
}

func (b *Belief) sum(of func(*Hypothesis) bool) float64 {
	s := 0.
	for h := range b.P {
		if of(&Hypotheses[h]) {
			s += b.P[h]
		}
	}
	return s
}

// Share is the probability of one material or finish.
type Share struct {
	ID, Name string
	P        float64
}

// somethingElse stands for what the tables do not know.
const somethingElse = "other"

// Made ranks the beliefs in what it is made of, the likeliest first.
func (b *Belief) Made() []Share {
	return b.rank(len(Materials), func(x *Hypothesis) int { return x.Material }, func(i int) (string, string) { return Materials[i].ID, Materials[i].Name })
}

// On ranks the finishes, the most likely first.
func (b *Belief) On() []Share {
	return b.rank(len(finishes), func(x *Hypothesis) int { return x.Finish }, func(i int) (string, string) { return finishes[i].id, finishes[i].name })
}

func (b *Belief) rank(n int, of func(*Hypothesis) int, named func(int) (string, string)) []Share {
	out := make([]Share, n+1)
	for i := range n {
		out[i].ID, out[i].Name = named(i)
	}
	out[n] = Share{ID: somethingElse, Name: "Something else"}
	for h := range b.P {
		i := of(&Hypotheses[h])
		if i < 0 {
			i = n
		}
		out[i].P += b.P[h]
	}
	slices.SortStableFunc(out, func(x, y Share) int { return cmp.Compare(y.P, x.P) })
	return out
}

// Surface is one thing the surface may be, in the craft's ids.
type Surface struct {
	Substrate, Finish string
	Veneer            bool
	Material          string // its name
	FinishName        string
	P                 float64
	// Else stands for what the tables do not know.
	Else bool

	of int // of Hypotheses
}

// Top is the likeliest surface.
func (b *Belief) Top() Surface { return b.surfaces(1, 1)[0] }

// covered is the share of belief that the surfaces which are judged make up
// together, and mostSurfaces how many they are at most. A material or a finish
// that is believed less than leastBelief is not judged: even were all lost on
// it, the risk of the plan would hardly move. Working defaults.
const (
	leastBelief  = .03
	covered      = .92
	mostSurfaces = 30
)

// Surfaces are those that together make up nearly all of the belief, the
// likeliest first.
func (b *Belief) Surfaces() []Surface {
	made, on := map[int]float64{}, map[int]float64{}
	for h, p := range b.P {
		made[Hypotheses[h].Material] += p
		on[Hypotheses[h].Finish] += p
	}
	all := b.surfaces(covered, mostSurfaces)
	return slices.DeleteFunc(all, func(s Surface) bool {
		x := &Hypotheses[s.of]
		return s.of != all[0].of && (made[x.Material] < leastBelief || on[x.Finish] < leastBelief)
	})
}

func (b *Belief) surfaces(share float64, most int) []Surface {
	order := make([]int, len(b.P))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(x, y int) int { return cmp.Compare(b.P[y], b.P[x]) })
	var out []Surface
	sum := 0.
	for _, h := range order {
		if len(out) > 0 && (sum >= share || len(out) >= most) {
			break
		}
		sum += b.P[h]
		out = append(out, b.surface(h))
	}
	return out
}

// surface words a hypothesis. A material that the survey names is the survey's
// own substrate.
func (b *Belief) surface(h int) Surface {
	x := &Hypotheses[h]
	if x.Material < 0 {
		return Surface{Substrate: b.Known.Substrate, Finish: "unknown", Material: "Something else", FinishName: "something else", P: b.P[h], Else: true, of: h}
	}
	m, f := &Materials[x.Material], finishes[x.Finish]
	s := Surface{Substrate: m.Substrates[0], Finish: f.id, Veneer: m.Veneer, Material: m.Name, FinishName: f.name, P: b.P[h], of: h}
	if said := MaterialOf(b.Known.Substrate); said == x.Material || m.Veneer && (said >= 0 && Materials[said].Group == Wood) {
		s.Substrate = b.Known.Substrate
	}
	return s
}

// Sure is how sure one may be of something that a survey says.
type Sure uint8

// The degrees. Assumed was entered, and nothing was tested that could tell;
// doubted is spoken against by what was tested, and possible is neither that
// nor more likely than not.
const (
	Assumed Sure = iota
	Doubted
	Possible
	Likely
	Tested
)

// String returns the degree's id.
func (s Sure) String() string {
	return [...]string{"assumed", "doubted", "possible", "likely", "tested"}[s]
}

// TestedFrom, and the others, are the beliefs from which something is tested and likely, and below which it is
// doubted. Working defaults.
const (
	TestedFrom = .9
	LikelyFrom = .5
	doubted    = .2
)

// Grade grades a belief that something was tested for.
func Grade(p float64) Sure { return sure(p, true) }

// sure grades a probability. told tells whether any answer could tell.
func sure(p float64, told bool) Sure {
	switch {
	case !told:
		return Assumed
	case p >= TestedFrom:
		return Tested
	case p >= LikelyFrom:
		return Likely
	case p < doubted:
		return Doubted
	}
	return Possible
}

// OfFinish grades a finish that the survey says, with the belief in it.
func (b *Belief) OfFinish(id string) (Sure, float64) {
	f := finishOf(id)
	if f < 0 {
		return Assumed, 0
	}
	p := b.sum(func(x *Hypothesis) bool { return x.Finish == f })
	return sure(p, b.told()), p
}

// OfSubstrate grades what the survey says it is made of, with the belief in it.
func (b *Belief) OfSubstrate() (Sure, float64) {
	m := MaterialOf(b.Known.Substrate)
	if m < 0 {
		return Assumed, 0
	}
	p := b.inMaterial(m)
	return sure(p, b.MaterialTested()), p
}

// MaterialTested tells whether something was looked at that sees what it is made
// of.
func (b *Belief) MaterialTested() bool {
	return slices.ContainsFunc(b.tests, func(t int) bool {
		return slices.Contains([]string{"stuff", "species", "metal", "print", "cover", "mark", "heat"}, Tests[t].Sees)
	})
}

// Touched tells whether a test was made that is more than a look.
func (b *Belief) Touched() bool {
	return slices.ContainsFunc(b.tests, func(t int) bool { return !Tests[t].Observation })
}

// told tells whether a test was made, or something observed, that senses a finish.
func (b *Belief) told() bool {
	return slices.ContainsFunc(b.tests, func(t int) bool { return Tests[t].Sees != "kind" && Tests[t].Sees != "age" && Tests[t].Sees != "stuff" })
}

// Excluded tells that the answers fit nothing that the tables know.
func (b *Belief) Excluded() bool { return b.P[len(b.P)-1] > .5 }
