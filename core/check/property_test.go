package check

import (
	"fmt"
	"math"
	"math/rand/v2"
	"reflect"
	"slices"
	"testing"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/surface"
)

// randomZone makes a zone that somebody might describe, and a plan that nobody
// in their senses would always make.
func randomZone(r *rand.Rand, c *craft.Craft) *Zone {
	z := &Zone{Look: craft.LookSolid, SoilsKnown: r.IntN(8) > 0}
	z.Substrate = craft.Substrate(r.IntN(len(c.Substrates)))
	z.Finish = craft.Finish(r.IntN(len(c.Finishes)))
	if r.IntN(3) == 0 {
		z.Finish, _ = c.Finish("none")
	}
	z.Gloss = craft.Sheen(r.IntN(7))
	z.Moisture = -1
	if r.IntN(4) == 0 {
		z.Moisture = float64(6 + r.IntN(18))
	}
	if z.SoilsKnown {
		for range r.IntN(3) {
			z.Soils[r.IntN(int(craft.NumSoils))] = uint8(1 + r.IntN(3))
		}
	}
	if r.IntN(4) == 0 {
		z.GivenBleeders = true
		for range r.IntN(3) {
			z.Bleeders[r.IntN(int(craft.NumBleeders))] = uint8(1 + r.IntN(3))
		}
	}
	if r.IntN(4) == 0 {
		z.Knots = 1 + r.IntN(5)
	}
	if r.IntN(12) == 0 {
		z.Loose = craft.Loose(1 << r.IntN(5))
	}
	z.Wear = craft.Wear(r.IntN(len(craft.Wears)))
	z.Uses = craft.Uses(r.IntN(1 << len(craft.UseRows)))
	z.Climate = drying.Climate{TempC: 5 + r.Float64()*28, RH: 30 + r.Float64()*60}
	z.Made = []int{0, 1900, 1960, 1990, 2015}[r.IntN(5)]
	z.Colour = []string{"", "#ffffff", "#e4e8df", "#7d8f86", "#101010"}[r.IntN(5)]
	z.Area = []float64{0, .4, 2.5}[r.IntN(3)]
	z.AgeDays = []float64{-1, 20, 400}[r.IntN(3)]
	z.Touching, z.GapMM = r.IntN(5) == 0, []float64{0, 0, .3, 1}[r.IntN(4)]
	z.Veneer, z.Uneven = r.IntN(6) == 0, r.IntN(6) == 0
	z.Sheen = craft.Sheen(r.IntN(7))
	if r.IntN(8) == 0 {
		z.SurfaceRead, z.SurfaceC = true, z.Climate.TempC-float64(r.IntN(9))
	}
	if r.IntN(3) == 0 {
		z.Look = c.Effects[r.IntN(len(c.Effects))].ID
	}
	if r.IntN(8) == 0 {
		z.Unmasked = []string{"glass"}
	}
	z.Ground = []string{"", "", "#202020", "#f0e8d8"}[r.IntN(4)]
	n := r.IntN(9)
	if r.IntN(20) == 0 {
		n = 15 + r.IntN(15)
	}
	for range n {
		z.Steps = append(z.Steps, randomStep(r, c))
	}
	return z
}

func randomStep(r *rand.Rand, c *craft.Craft) surface.Step {
	switch r.IntN(14) {
	case 0, 1:
		return surface.Step{Do: surface.Clean, Cleaner: craft.Cleaner(r.IntN(len(c.Cleaners))), Rinse: r.IntN(2) == 0, Passes: r.IntN(3)}
	case 2:
		return surface.Step{Do: surface.Abrade, Grit: []int{60, 120, 180, 220, 320, 400, 1000}[r.IntN(7)], How: craft.Hows[r.IntN(3)].ID, Through: r.IntN(10) == 0}
	case 3:
		return surface.Step{Do: surface.Abrade, How: craft.Pad}
	case 4:
		return surface.Step{Do: surface.Dust}
	case 5:
		return surface.Step{Do: surface.Wait, Hours: float64(r.IntN(300))}
	case 6:
		s := surface.Step{Do: []surface.StepKind{surface.RaiseGrain, surface.Fill, surface.Mask, surface.Remove, surface.Repair, surface.Strip, surface.Reassemble, surface.Test}[r.IntN(8)]}
		s.With, s.StripHow, s.Rating = craft.Fillers[r.IntN(2)], craft.Strips[r.IntN(4)], r.IntN(6)
		return s
	case 7:
		s := surface.Step{Do: surface.Effect, Effect: c.Effects[r.IntN(len(c.Effects))].ID, Heat: r.IntN(4) == 0, Wetted: r.IntN(4) == 0}
		s.Resist = []string{"", "", "wax", "shellac_tacky", "lacquer_tacky"}[r.IntN(5)]
		s.Grit, s.Share = []int{0, 220, 320}[r.IntN(3)], []float64{0, .1, .6}[r.IntN(3)]
		return s
	}
	s := surface.Step{Do: surface.Coat, Product: craft.Product(r.IntN(len(c.Products))), Coats: r.IntN(4), Auto: r.IntN(2) == 0, Method: "brush"}
	if !s.Auto {
		s.WaitH = []float64{0, .1, .5, 1, 3, 8, 24, 72, 400}[r.IntN(9)]
	}
	if r.IntN(10) == 0 {
		s.Scope = surface.Knots
	}
	s.ThinPct = []float64{0, 0, 0, 10, 60}[r.IntN(5)]
	s.Sheen = craft.Sheen(r.IntN(7) * r.IntN(2))
	s.Colour = []string{"", "", "#b02020", "#202830"}[r.IntN(4)]
	if c.Products[s.Product].Coat == craft.MK {
		s.AdditiveFirst = r.IntN(3) == 0
		s.Additive = []float64{0, .25, .5, 1}[r.IntN(4)]
	}
	return s
}

// cases is how many random cases a test takes: all of them, or in short tests some.
func cases(all, some int) int {
	if testing.Short() {
		return some
	}
	return all
}

func describe(c *craft.Craft, z *Zone) string {
	s := fmt.Sprintf("%s %s wear %s made %d soils %v site %v:", c.Substrates[z.Substrate].ID, c.Finishes[z.Finish].ID, craft.Wears[z.Wear].ID, z.Made, z.Soils, z.Climate)
	for i := range z.Steps {
		s += " " + StepWords(c, &z.Steps[i]) + ";"
	}
	return s
}

// Every edit really clears its finding, adds no fail, and leads to the verdict
// it promises; and every finding has something that answers it.
func TestEveryEditClearsItsFinding(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	r := rand.New(rand.NewPCG(7, 11))
	edits, findings := 0, 0
	for range cases(20000, 700) {
		z := randomZone(r, c)
		before := Check(c, z, Options{Every: true})
		count := func(res *Result, code, subject string, from Severity) int {
			n := 0
			for _, f := range res.Findings {
				if f.Code == code && f.Subject == subject && f.Severity >= from {
					n++
				}
			}
			return n
		}
		for _, f := range before.Findings {
			findings++
			if len(f.Repairs) == 0 {
				t.Fatalf("%s has no repair in %s", f.Code, describe(c, z))
			}
			for _, rp := range f.Repairs {
				if rp.Kind != Edit {
					continue
				}
				edits++
				mended := *z
				mended.Steps = rp.Steps
				after := Check(c, &mended, Options{NoRepairs: true, Every: true})
				if count(&after, f.Code, f.Subject, Note) >= count(&before, f.Code, f.Subject, Note) {
					t.Fatalf("%q does not clear %s %s in %s", rp.Title, f.Code, f.Subject, describe(c, z))
				}
				for _, g := range after.Findings {
					if g.Severity == Fail && count(&after, g.Code, g.Subject, Fail) > count(&before, g.Code, g.Subject, Fail) {
						t.Fatalf("%q for %s brings %s %s in %s", rp.Title, f.Code, g.Code, g.Subject, describe(c, z))
					}
				}
				if after.Verdict != rp.After {
					t.Fatalf("%q promises %v and leads to %v in %s", rp.Title, rp.After, after.Verdict, describe(c, z))
				}
			}
		}
	}
	if edits < 2000 || findings < 5000 {
		t.Errorf("only %d edits for %d findings were looked at", edits, findings)
	}
}

func TestFiguresStayInRange(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	r := rand.New(rand.NewPCG(1, 2))
	for range cases(20000, 700) {
		z := randomZone(r, c)
		res := Check(c, z, Options{NoRepairs: true})
		bad := func(x, lo, hi float64) bool { return math.IsNaN(x) || x < lo || x > hi }
		if a := res.Adhesion; a != nil {
			if bad(a.Risk, 0, 1) || bad(a.Weakest.Strength, 0, 1) {
				t.Fatalf("risk %v, strength %v in %s", a.Risk, a.Weakest.Strength, describe(c, z))
			}
			for _, b := range a.Boundary {
				for term, f := range b.Factors {
					if bad(f, .01, 1) {
						t.Fatalf("%s is %v in %s", surface.TermIDs[term], f, describe(c, z))
					}
				}
			}
		}
		for _, s := range res.Stains {
			if bad(s.DeltaE, 0, 40) || bad(s.Transmitted, 0, 1) || bad(s.Show, .1, 1) {
				t.Fatalf("%s: %+v in %s", s.Bleeder, s, describe(c, z))
			}
			if s.After(1) > s.After(365) || s.After(365) > s.DeltaE {
				t.Fatalf("%s does not grow with time", s.Bleeder)
			}
		}
		if bad(res.Hours, 0, 1e6) || res.Minutes < 0 != (z.Area == 0) {
			t.Fatalf("%v h, %v min in %s", res.Hours, res.Minutes, describe(c, z))
		}
	}
}

// A soil more never makes a plan safer.
func TestRiskNeverFallsWithASoil(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	r := rand.New(rand.NewPCG(3, 4))
	worse := 0
	for range cases(20000, 700) {
		z := randomZone(r, c)
		dirty := *z
		s := r.IntN(int(craft.NumSoils))
		if dirty.Soils[s] == craft.MaxLevel {
			continue
		}
		dirty.Soils[s]++
		a, b := Check(c, z, Options{NoRepairs: true}), Check(c, &dirty, Options{NoRepairs: true})
		if a.Adhesion == nil {
			continue
		}
		if b.Adhesion.Risk < a.Adhesion.Risk-1e-9 {
			t.Fatalf("with %s the risk falls from %v to %v in %s", craft.Soils[s].ID, a.Adhesion.Risk, b.Adhesion.Risk, describe(c, z))
		}
		if b.Adhesion.Risk > a.Adhesion.Risk {
			worse++
		}
	}
	if worse < 200 {
		t.Errorf("a soil made only %d plans worse", worse)
	}
}

// A window missed never makes a plan safer.
func TestRiskNeverFallsWithAMissedWindow(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	r := rand.New(rand.NewPCG(13, 14))
	worse := 0
	for range cases(20000, 700) {
		z := randomZone(r, c)
		var closing []int
		for i := range z.Steps {
			if s := &z.Steps[i]; s.Do == surface.Coat && !s.Auto && c.Products[s.Product].Again == 0 && !math.IsInf(c.Products[s.Product].Recoat.To, 1) {
				closing = append(closing, i)
			}
		}
		if len(closing) == 0 {
			continue
		}
		i := closing[r.IntN(len(closing))]
		inTime, late := *z, *z
		inTime.Steps, late.Steps = slices.Clone(z.Steps), slices.Clone(z.Steps)
		inTime.Steps[i].WaitH = c.Products[z.Steps[i].Product].Recoat.To * .5
		late.Steps[i].WaitH = 5000
		a, b := Check(c, &inTime, Options{NoRepairs: true}), Check(c, &late, Options{NoRepairs: true})
		// What comes too soon, or is lifted by solvent while it is young, does better by waiting.
		tooSoon := slices.ContainsFunc(a.Adhesion.Boundary, func(b Bond) bool {
			return b.Timing == surface.TooSoon || b.Timing == surface.Between || b.LiftWhy != surface.NoLift
		})
		if !tooSoon && b.Adhesion.Risk < a.Adhesion.Risk-1e-9 {
			t.Fatalf("the risk falls from %v to %v in %s", a.Adhesion.Risk, b.Adhesion.Risk, describe(c, &late))
		}
		if b.Adhesion.Risk > a.Adhesion.Risk {
			worse++
		}
	}
	if worse < 50 {
		t.Errorf("a missed window made only %d plans worse", worse)
	}
}

// A blocker less never makes a stain fainter.
func TestStainNeverFallsWithoutABlocker(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	r := rand.New(rand.NewPCG(5, 6))
	blockers := []string{"primer_stainblock_oil", "primer_stainblock_wb", "shellac_pigmented", "shellac_clear", "primer_epoxy"}
	worse := 0
	for range cases(20000, 700) {
		z := randomZone(r, c)
		at := r.IntN(len(z.Steps) + 1)
		p, _ := c.Product(blockers[r.IntN(len(blockers))])
		blocked := *z
		blocked.Steps = slices.Insert(slices.Clone(z.Steps), at, surface.Step{Do: surface.Coat, Product: p, Auto: true})
		a, b := Check(c, z, Options{NoRepairs: true}), Check(c, &blocked, Options{NoRepairs: true})
		for _, s := range a.Stains {
			for _, u := range b.Stains {
				if s.Bleeder == u.Bleeder && s.Region == u.Region && u.DeltaE > s.DeltaE+1e-4 {
					t.Fatalf("%s is %v with a blocker at step %d and %v without in %s", s.Bleeder, u.DeltaE, at+1, s.DeltaE, describe(c, z))
				}
				if s.Bleeder == u.Bleeder && u.DeltaE < s.DeltaE {
					worse++
				}
			}
		}
	}
	if worse < 200 {
		t.Errorf("a blocker helped only %d times", worse)
	}
}

func TestSameZoneSameAnswer(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	r := rand.New(rand.NewPCG(8, 9))
	for i := range cases(20000, 700) {
		z := randomZone(r, c)
		kept := *z
		kept.Steps = slices.Clone(z.Steps)
		o := Options{NoRepairs: i%8 != 0}
		a, b := Check(c, z, o), Check(c, z, o)
		if !reflect.DeepEqual(a.Findings, b.Findings) || a.Verdict != b.Verdict || a.Hours != b.Hours {
			t.Fatalf("two answers for %s", describe(c, z))
		}
		if !reflect.DeepEqual(*z, kept) {
			t.Fatalf("the check changed its zone: %s", describe(c, z))
		}
	}
}

// A rule that a search does not ask because it only ever notes something, never says more than that.
func TestNotesStayNotes(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	r := rand.New(rand.NewPCG(7, 20))
	spoke := map[string]int{}
	for range cases(8000, 1000) {
		res := Check(c, randomZone(r, c), Options{NoRepairs: true, Every: true})
		for _, f := range res.Findings {
			if i := slices.IndexFunc(Standard().Rules, func(x *Rule) bool { return x.Code == f.Code }); Standard().Rules[i].Notes {
				spoke[f.Code]++
				if f.Severity != Note {
					t.Errorf("%s is a %v: %s", f.Code, f.Severity, f.Why)
				}
			}
		}
	}
	for _, x := range Standard().Rules {
		if x.Notes && spoke[x.Code] == 0 {
			t.Errorf("%s never spoke", x.Code)
		}
	}
}
