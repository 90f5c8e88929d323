package plan

import (
	"math/rand/v2"
	"testing"

	"rutile/core/craft"
)

// lineage are a beginning and those it came from, the last first.
func (p *planner) lineage(i int32) []int32 {
	var out []int32
	for ; i >= 0; i = p.nodes[i].parent {
		out = append(out, i)
	}
	return out
}

// wander goes on from nothing by moves taken at random, until the beginning is all
// that lies below the paint; -1 where it comes to an end before.
func (p *planner) wander(r *rand.Rand) int32 {
	p.nodes, p.at = append(p.nodes[:0], p.root()), -1
	cur := int32(0)
	for {
		j := p.evaluator.SoFar(p.path(cur))
		p.took(&p.nodes[cur], &j)
		p.nodes[cur].judged = true
		if j.Fails.Len() > 0 {
			return -1
		}
		if p.nodes[cur].grounded && r.IntN(2) == 0 {
			return cur
		}
		moves := p.next(&p.nodes[cur])
		if len(moves) == 0 {
			if p.nodes[cur].grounded {
				return cur
			}
			return -1
		}
		m := moves[r.IntN(len(moves))]
		n, ok := p.child(cur, &m)
		if !ok {
			continue
		}
		if m.to == grounding && p.nodes[cur].stage != grounding {
			n.statics[Dirt] = p.soiled()
		}
		p.nodes = append(p.nodes, n)
		cur = int32(len(p.nodes) - 1)
	}
}

// What a beginning is said to come to at the least, with or without its tail, never
// is more than the plan then comes to; and what is cut by its bound fails.
func TestNoBoundIsTooHigh(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	r := rand.New(rand.NewPCG(5, 12))
	held, watched, zones := 0, 0, cases(2000, 50)
	for k := range zones {
		ask := anyZone(r, c)
		if k%7 == 0 { // worn down to wood that stains
			ask.Zone.Look, ask.Way.Deep = "distress_dry", true
			ask.Zone.Substrate, _ = c.Substrate([]string{"oak", "walnut", "pine", "teak"}[r.IntN(4)])
		}
		p, err := newPlanner(c, ask)
		if err != nil {
			t.Fatal(err)
		}
		if len(p.ends) == 0 {
			continue
		}
		for range 6 {
			i := p.wander(r)
			if i < 0 {
				continue
			}
			p.evaluator.SoFar(p.path(i))
			below := p.coloursBelow()
			p.nodes[i].firsts = nil
			for range 4 {
				k := int32(r.IntN(len(p.ends)))
				tail := &p.ends[k]
				coats := p.coatsOver(tail, below)
				e := end{tail: k, coats: int32(coats), yellows: p.yellowsOver(k, coats, below)}
				least, may := p.weighs(&p.nodes[i], &e, &first{})
				near, mayStill := p.onGround(i, e)
				plan := p.whole(i, e)
				if plan == nil || !p.pairs(&p.nodes[i], tail) {
					continue // a rule fails it, or a habit is against it
				}
				if !may || !mayStill {
					t.Fatalf("cut, and it passes: %s\n%s", describe(c, &ask), words(c, plan))
				}
				const slack = 1e-6
				if least > plan.Points+slack || near > plan.Points+slack {
					t.Fatalf("bounds %.4f and %.4f, and it comes to %.4f: %s\n%s", least, near, plan.Points, describe(c, &ask), words(c, plan))
				}
				for _, a := range p.lineage(i) {
					n := &p.nodes[a]
					finish, may := p.toFinish(n, &n.watches, &n.stains)
					if n.stage == grounding && !p.belief && !p.mayFinish(n) || !may {
						t.Fatalf("its first %d steps are cut, and it passes: %s\n%s", len(p.path(a)), describe(c, &ask), words(c, plan))
					}
					if b := n.least + finish; b > plan.Points+slack {
						t.Fatalf("bound %.4f of its first %d steps, and it comes to %.4f: %s\n%s", b, len(p.path(a)), plan.Points, describe(c, &ask), words(c, plan))
					}
				}
				held++
				if plan.Judged.Watches.Len() > 0 {
					watched++
				}
			}
		}
	}
	t.Logf("%d plans, %d of them watched", held, watched)
	if held < 3*zones || watched < held/10 {
		t.Error("the zones are too much alike")
	}
}

// The cheapest of the tails from a place on comes to that place, and none is lost.
func TestBring(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 9))
	for range 200 {
		ends := make([]end, 1+r.IntN(12))
		for i := range ends {
			ends[i] = end{least: float64(r.IntN(5)), tail: int32(i)}
		}
		seen := map[int32]bool{}
		for i := range ends {
			bring(ends, int32(i))
			seen[ends[i].tail] = true
			if i > 0 && (ends[i].least < ends[i-1].least || ends[i].least == ends[i-1].least && ends[i].tail < ends[i-1].tail) {
				t.Fatalf("out of order at %d: %v", i, ends)
			}
		}
		if len(seen) != len(ends) {
			t.Fatalf("%d of %d tails are left", len(seen), len(ends))
		}
	}
}

// Two beginnings that are taken for one lead to plans that differ by no more than
// the beginnings do, whatever lies above.
func TestWhatIsMergedIsTheSame(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	r := rand.New(rand.NewPCG(8, 2))
	pairs := 0
	for range cases(2500, 55) {
		ask := anyZone(r, c)
		p, err := newPlanner(c, ask)
		if err != nil {
			t.Fatal(err)
		}
		if len(p.ends) == 0 {
			continue
		}
		p.nodes, p.at = append(p.nodes[:0], p.root()), -1
		same := map[[2]uint64]int32{}
		for i := int32(0); int(i) < len(p.nodes) && i < 120; i++ {
			j := p.evaluator.SoFar(p.path(i))
			p.took(&p.nodes[i], &j)
			if j.Fails.Len() > 0 {
				continue
			}
			key := p.key(&p.nodes[i])
			for _, m := range p.next(&p.nodes[i]) {
				if n, ok := p.child(i, &m); ok {
					p.nodes = append(p.nodes, n)
				}
			}
			if p.nodes[i].stage != grounding || !p.nodes[i].grounded {
				continue
			}
			other, ok := same[key]
			if !ok {
				same[key] = i
				continue
			}
			pairs++
			k := int32(r.IntN(len(p.ends)))
			e := end{tail: k, coats: int32(max(leastCoats, p.ends[k].coatsOf()))}
			a, b := p.whole(i, e), p.whole(other, e)
			if (a == nil) != (b == nil) {
				t.Fatalf("one of two passes: %s\n%s%s", describe(c, &ask), words(c, &Plan{Steps: p.path(i)}), words(c, &Plan{Steps: p.path(other)}))
			}
			if a == nil {
				continue
			}
			if x := (a.Points - p.nodes[i].least) - (b.Points - p.nodes[other].least); x > 1e-6 || x < -1e-6 {
				t.Fatalf("%.4f points apart beyond what they were before: %s\n%s%s", x, describe(c, &ask), words(c, a), words(c, b))
			}
		}
	}
	t.Logf("%d pairs", pairs)
	if pairs < 500 {
		t.Error("too few are merged to tell")
	}
}

// coatsOf is how many coats of its paint a tail has before a ground asks for more.
func (t *tail) coatsOf() int {
	if t.paint < 0 {
		return 0
	}
	return t.steps[t.paint].Coats
}
