package check

import (
	"math/rand/v2"
	"slices"
	"testing"

	"rutile/core/craft"
	"rutile/core/surface"
)

func named(s RuleSet) []string {
	var out []string
	for i, r := range Standard().Rules {
		if s.Has(i) {
			out = append(out, r.Code)
		}
	}
	return out
}

// An evaluator says of a plan what the check says.
func TestEvaluatorAgreesWithTheCheck(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	r := rand.New(rand.NewPCG(31, 5))
	for range 5000 {
		z := randomZone(r, c)
		s := NewEvaluator(c, z)
		j := s.Whole(z.Steps)
		res := Check(c, z, Options{NoRepairs: true, Every: true})
		fails, watches := map[string]bool{}, map[string]bool{}
		for _, f := range res.Findings {
			fails[f.Code] = fails[f.Code] || f.Severity == Fail || f.Refuses // no plan with it is proposed
			watches[f.Code] = watches[f.Code] || f.Severity == Watch
		}
		for i, rule := range Standard().Rules {
			if j.Fails.Has(i) != fails[rule.Code] {
				t.Fatalf("%s fails: %v for the evaluator in %s", rule.Code, j.Fails.Has(i), describe(c, z))
			}
			if want := watches[rule.Code] && !fails[rule.Code] && rule.Reach&Survey == 0; j.Watches.Has(i) != want {
				t.Fatalf("%s watches: %v for the evaluator in %s", rule.Code, j.Watches.Has(i), describe(c, z))
			}
		}
		if a := res.Adhesion; a != nil && a.Risk != j.Risk {
			t.Fatalf("risk %v for the evaluator, %v for the check", j.Risk, a.Risk)
		}
		if len(res.Stains) > 0 && res.Stains[0].DeltaE != j.Stain {
			t.Fatalf("stain %v for the evaluator, %v for the check", j.Stain, res.Stains[0].DeltaE)
		}
		if res.Hours > j.Hours+1e-9 {
			t.Fatalf("%v h for the evaluator, %v h for the check", j.Hours, res.Hours)
		}
	}
}

// What a rule that sees enough in the beginning of a plan finds there, it finds
// however the plan goes on.
func TestBeginningsStand(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	r := rand.New(rand.NewPCG(32, 5))
	found := map[string]int{}
	for range 20000 {
		z := randomZone(r, c)
		if len(z.Steps) < 2 {
			continue
		}
		n := 1 + r.IntN(len(z.Steps)-1)
		s := NewEvaluator(c, z)
		begin := s.SoFar(z.Steps[:n])
		whole := s.Whole(z.Steps)
		tested := slices.ContainsFunc(z.Steps, func(s surface.Step) bool {
			return s.Do == surface.Test || s.Do == surface.Effect && s.Effect != z.Look
		})
		if tested || slices.Contains(named(whole.Fails), "walk.undone") {
			continue
		}
		for i, rule := range Standard().Rules {
			switch {
			case begin.Fails.Has(i) && !whole.Fails.Has(i):
				t.Fatalf("%s fails the first %d steps, and not the plan: %s", rule.Code, n, describe(c, z))
			case begin.Watches.Has(i) && !whole.Watches.Has(i) && !whole.Fails.Has(i):
				t.Fatalf("%s watches the first %d steps, and not the plan: %s", rule.Code, n, describe(c, z))
			case begin.Fails.Has(i), begin.Watches.Has(i):
				found[rule.Code]++
			}
		}
		if begin.Risk > whole.Risk+1e-12 || begin.Peel > whole.Peel+1e-9 {
			t.Fatalf("the risk falls from %v to %v as the plan goes on: %s", begin.Risk, whole.Risk, describe(c, z))
		}
	}
	if len(found) < 30 {
		t.Errorf("only %d rules spoke: %v", len(found), found)
	}
}

// What is put back waits until it is hard enough, longer where faces touch.
func TestReassembleAfter(t *testing.T) {
	c := craft.Default()
	f := surface.Facts{Wear: craft.Handled, Climate: zoneOf(t, "oak", "").Climate}
	acrylic, _ := c.Product("paint_acrylic")
	wax, _ := c.Product("wax_clear")
	careful := ReassembleAfter(c, &f, acrylic, .3)
	if careful <= 24 || ReassembleAfter(c, &f, acrylic, .6) <= careful {
		t.Errorf("%v h for a third of its hardness", careful)
	}
	f.Touching = true
	if got := ReassembleAfter(c, &f, acrylic, .3); got <= careful {
		t.Errorf("faces of acrylic that touch wait %v h", got)
	}
	if got, free := ReassembleAfter(c, &f, wax, .3), ReassembleAfter(c, &surface.Facts{Wear: craft.Handled, Climate: f.Climate}, wax, .3); got != free {
		t.Errorf("waxed faces that touch wait %v h and not %v h", got, free)
	}
	var spoken []string
	for _, rule := range Standard().Rules {
		if rule.reach() == 0 {
			spoken = append(spoken, rule.Code)
		}
	}
	if !slices.Contains(spoken, "film.hiding") {
		t.Error("hiding is known before the last coat")
	}
}
