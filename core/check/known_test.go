package check

import (
	"math"
	"slices"
	"strings"
	"testing"

	"rutile/core/craft"
	"rutile/core/identify"
	"rutile/core/surface"
)

const washedAndSealed = "white_spirit; detergent rinse; sand 220; dust; shellac_pigmented x2; paint_chalk x2; wax_clear"

// An unknown brown finish on an unknown wood: what is found out changes what is
// walked, and the verdict with it.
func TestTestsChangeWhatIsWalked(t *testing.T) {
	c := craft.Default()
	zone := func(more string) *Zone {
		return zoneOf(t, "unknown_wood unknown satin; soils grime1"+more, "detergent rinse; sand 220; dust; primer_bond_wb; paint_chalk x2; clear_wb x2")
	}
	blind := Check(c, zone(""), Options{})
	if blind.Verdict != Fails || len(blind.Candidates) < 4 || blind.Doubt != surface.SpreadUnknown {
		t.Errorf("untested: %v, %d surfaces, doubt %v", blind.Verdict, len(blind.Candidates), blind.Doubt)
	}
	// Tests that speak for a hard film take the wax out of the reckoning.
	seen := Check(c, zone("; tests face=clear_film edge=solid alcohol=nothing white_spirit=nothing fingernail=hard thinner=wrinkles species=pale_fine"), Options{})
	if seen.Verdict == Fails || seen.Doubt >= blind.Doubt {
		t.Errorf("tested: %v, doubt %v: %v", seen.Verdict, seen.Doubt, codes(&seen, Watch))
	}
	sum := 0.
	for _, m := range seen.Candidates {
		sum += m.P
		if f := c.Finishes[m.Finish].ID; f == "wax" && m.P > .05 {
			t.Errorf("wax is still believed at %.2f", m.P)
		}
	}
	if sum < .85 || sum > 1 {
		t.Errorf("what is walked makes up %.2f of the belief", sum)
	}
	wax := Check(c, zone("; tests face=soft_sheen white_spirit=yellow_grey fingernail=furrow smell=wax"), Options{})
	if wax.Verdict != Fails || !slices.Contains(codes(&wax, Fail), "adhesion.wax_under") {
		t.Errorf("waxed: %v %v", wax.Verdict, codes(&wax, Watch))
	}
}

// The check distinguishes what is tested, likely, possible, assumed and doubted.
func TestHowSureOneIs(t *testing.T) {
	c := craft.Default()
	for _, x := range []struct {
		zone   string
		want   identify.Sure
		walked int // surfaces at least
		most   int
	}{
		{"birch shellac satin", identify.Assumed, 1, 1},
		{"birch shellac satin; tests kind=old_joinery", identify.Assumed, 1, 1},
		{"birch shellac satin; tests face=clear_film alcohol=sticky uv=orange", identify.Tested, 1, 1},
		{"birch shellac satin; tests face=clear_film worn=crazed water=blooms", identify.Possible, 2, 8},
		{"birch shellac satin; made 1928; tests face=clear_film", identify.Likely, 2, 8},
		{"birch lacquer satin; tests face=clear_film alcohol=sticky uv=orange", identify.Doubted, 2, 8},
		{"birch polyurethane satin; tests face=clear_film alcohol=nothing thinner=wrinkles amber=amber", identify.Tested, 1, 1},
	} {
		z := zoneOf(t, x.zone, washedAndSealed)
		r := Check(c, z, Options{NoRepairs: true})
		k := z.Known(c)
		if k.Finish != x.want || len(r.Candidates) < x.walked || len(r.Candidates) > x.most {
			t.Errorf("%s: %v at %.2f, %d surfaces walked", x.zone, k.Finish, k.PFinish, len(r.Candidates))
		}
		if k.Finish == identify.Doubted && !slices.ContainsFunc(r.Candidates, func(m Candidate) bool { return m.Facts == z.Facts }) {
			t.Errorf("%s: what was entered is not judged any more", x.zone)
		}
	}
}

// The figures behind a bond on the old surface say how sure that surface is.
func TestTheFiguresSayHowSure(t *testing.T) {
	c := craft.Default()
	for zone, says := range map[string]string{
		"birch shellac satin": "that there is shellac on it is assumed; it was not tested",
		"birch shellac satin; tests face=clear_film alcohol=sticky uv=orange": "that there is shellac on it is tested, 97 % by small tests",
		"birch unknown satin": "is a guess: one of the things that it may be",
		"birch":               "that it is bare is assumed",
	} {
		r := Check(c, zoneOf(t, zone, "sand 220; dust; paint_acrylic x2"), Options{NoRepairs: true})
		found := false
		for _, b := range r.Adhesion.Boundary {
			for _, f := range r.Adhesion.Explain(c, &b.Boundary) {
				if f.ID == "known" {
					found = true
					if b.Under != craft.NoProduct || !strings.Contains(f.Words, says) {
						t.Errorf("%s: %s", zone, f.Words)
					}
				}
			}
		}
		if !found {
			t.Errorf("%s: nothing is said of it", zone)
		}
	}
}

// Nothing talks a suspect out of its caution but the dated result of a
// laboratory or a licensed assessor.
func TestLeadCannotBeTalkedAway(t *testing.T) {
	c := craft.Default()
	const old = "pine paint_alkyd_old satin; made 1935"
	test := func(by, date string, found bool) *LeadTest { return &LeadTest{By: by, Found: found, Date: date} }
	for _, x := range []struct {
		name, zone string
		test       *LeadTest
		want       LeadState
	}{
		{"nothing", old, nil, LeadSuspect},
		{"a clear home swab", old, test("swab", "2026-11-01", false), LeadSuspect},
		{"a home swab that found it", "pine shellac satin; made 1990", test("swab", "2026-11-01", true), LeadSuspect},
		{"a result to come", old, test("laboratory", "2026-12-24", false), LeadSuspect},
		{"a result older than the piece", old, test("laboratory", "1934-01-01", false), LeadSuspect},
		{"a laboratory", old, test("laboratory", "2026-11-20", false), LeadExcluded},
		{"an assessor who found it", old, test("assessor", "2026-11-20", true), LeadFound},
		{"the age forgotten", "pine paint_alkyd_old satin; made 0", nil, LeadSuspect},
		{"another name for it", "pine paint_acrylic_old satin; made 1935", nil, LeadSuspect},
		{"called bare against the tests", "pine; made 1935; tests face=paint_brushed worn=layers_paint", nil, LeadSuspect},
		{"called unknown against the tests", "pine unknown; made 0; tests face=paint_brushed worn=layers_paint", nil, LeadSuspect},
		{"new paint", "pine paint_alkyd_old satin; made 1990", nil, LeadNoSuspect},
	} {
		z := zoneOf(t, x.zone, "detergent rinse; sand 220; dust; paint_acrylic x2")
		z.LeadTest, z.Today = x.test, "2026-11-25"
		got, why := z.Lead(c)
		if got != x.want {
			t.Errorf("%s: %q", x.name, got)
		}
		if got == LeadSuspect && x.test != nil && why == "" {
			t.Errorf("%s: nobody says why the test does not decide", x.name)
		}
		r := Check(c, z, Options{})
		barred := got == LeadSuspect || got == LeadFound
		if slices.Contains(codes(&r, Fail), "safety.lead") != barred {
			t.Errorf("%s: %v", x.name, codes(&r, Watch))
		}
		at := surface.Start(c, &z.Facts, nil)
		if (z.Barred(c, &z.Steps[1], &at) != "") != barred {
			t.Errorf("%s: barred from sanding: %q", x.name, z.Barred(c, &z.Steps[1], &at))
		}
	}
	// A studio's own year.
	z := zoneOf(t, "pine paint_alkyd_old satin; made 1985", "")
	z.LeadYear = 1992
	if s, _ := z.Lead(c); s != LeadSuspect {
		t.Error("local rules name a later year, and it is not heeded")
	}
	// Every way of disturbing it, and what may be done.
	for plan, fails := range map[string]bool{
		"sand 120": true, "pad": true, "dry_brush": true, "sand 220 wet": false, "detergent rinse": false, "deglosser_liquid": false,
		"primer_stainblock_oil; sand 320": false, "primer_stainblock_oil; sand 120 through": true,
	} {
		r := Check(c, zoneOf(t, old, plan), Options{NoRepairs: true})
		if slices.Contains(codes(&r, Fail), "safety.lead") != fails {
			t.Errorf("%s: %v", plan, codes(&r, Watch))
		}
	}
	for _, s := range []surface.Step{
		{Do: surface.Strip, StripHow: "heat"}, {Do: surface.Strip, StripHow: "scrape"}, {Do: surface.Strip, StripHow: "sand"},
		{Do: surface.Effect, Effect: "dry_distress", Grit: 120}, {Do: surface.Effect, Effect: "crackle", Heat: true},
	} {
		z := zoneOf(t, old, "primer_stainblock_oil; paint_acrylic")
		z.Steps = append(z.Steps, s)
		if r := Check(c, z, Options{NoRepairs: true}); !slices.Contains(codes(&r, Fail), "safety.lead") || z.Barred(c, &s, &r.Trace.End) == "" {
			t.Errorf("%+v: %v", s, codes(&r, Watch))
		}
	}
}

// A rated board moves the verdict for its own coat on its own surface, visibly,
// and does not erase the table.
func TestPatchTestsMoveTheVerdict(t *testing.T) {
	c := craft.Default()
	const zone, plan = "steel powder gloss; soils grime1", "degreaser_alkaline rinse; sand 220; dust; primer_bond_wb; paint_enamel_wb x2"
	strength := func(board string) (float64, float64, *Result) {
		r := Check(c, zoneOf(t, zone+board, plan), Options{})
		for _, b := range r.Adhesion.Boundary {
			if c.Products[b.Product].ID == "primer_bond_wb" {
				return b.Strength, b.Risk, &r
			}
		}
		t.Fatal("no such bond")
		return 0, 0, nil
	}
	was, risk, _ := strength("")
	bad, badRisk, r := strength("; board primer_bond_wb powder_film 1")
	if bad >= was*.9 || bad < .37 || badRisk <= 2*risk || r.Verdict != Fails {
		t.Errorf("one bad board takes %.2f (risk %.2f) to %.2f (%.2f): %v", was, risk, bad, badRisk, r.Verdict)
	}
	worse, _, _ := strength("; board primer_bond_wb powder_film 1; board primer_bond_wb powder_film 1")
	if worse >= bad {
		t.Errorf("a second bad board takes %.2f to %.2f", bad, worse)
	}
	good, goodRisk, r := strength("; board primer_bond_wb powder_film 5")
	if good <= was || goodRisk >= risk {
		t.Errorf("a good board takes %.2f (risk %.2f) to %.2f (%.2f)", was, risk, good, goodRisk)
	}
	b := r.Adhesion.Boundary[slices.IndexFunc(r.Adhesion.Boundary, func(b Bond) bool { return b.PatchTests > 0 })]
	if words := r.Adhesion.Explain(c, &b.Boundary)[0].Words; !strings.Contains(words, "before a patch test changed it") {
		t.Error(words)
	}
	// One of another coat, or on another surface, says nothing.
	for _, board := range []string{"; board primer_bond_wb alkyd_paint 0", "; board paint_chalk powder_film 0"} {
		if other, _, _ := strength(board); other != was {
			t.Errorf("%s takes %.3f to %.3f", board, was, other)
		}
	}
	// The better a board, the stronger the bond, on a spot of the piece and on a board.
	for _, hidden := range []bool{true, false} {
		last := 0.
		for class := range 6 {
			var x surface.Boundary
			x.Product, _ = c.Product("primer_bond_wb")
			x.On, x.Cap, x.Factors = craft.PowderFilm, 1, [surface.NumTerms]float64{.7, .9, 1, 1, 1, 1, 1}
			x.Learn(c, []surface.PatchTest{{Product: x.Product, On: x.On, Hidden: hidden, Class: class}}, 0)
			if x.Strength <= last || x.Strength > .9 {
				t.Errorf("class %d gives %.3f after %.3f", class, x.Strength, last)
			}
			last = x.Strength
		}
	}
	// By hand: two normals, the table's and the board's.
	var x surface.Boundary
	p, _ := c.Product("primer_bond_wb")
	x.Product, x.On, x.Cap, x.Factors = p, craft.PowderFilm, 1, [surface.NumTerms]float64{.8, 1, 1, 1, 1, 1, 1}
	x.Learn(c, []surface.PatchTest{{Product: p, On: craft.PowderFilm, Hidden: true, Class: 2, Under: [surface.NumTerms]float64{0, .8, 1, 1, 1}}}, 0)
	v, w := .10*.10+.2*.2/9, .15*.15
	want := math.Exp((math.Log(.8)/v + math.Log(.52/.8)/w) / (1/v + 1/w))
	if math.Abs(x.Strength-want) > 1e-12 || math.Abs(x.LogSpread(c, 0)-math.Sqrt(1/(1/v+1/w))) > 1e-12 {
		t.Errorf("strength %v, spread %v; want %v", x.Strength, x.LogSpread(c, 0), want)
	}
}
