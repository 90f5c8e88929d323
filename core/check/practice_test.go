package check

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/surface"
)

// timing are the rules about waits that were too short.
var timing = []string{"adhesion.too_soon", "film.seal_young", "effect.glaze_wait", "film.block", "use.too_early", "prep.damp"}

// timed says what a plan is told about its waits.
func timed(r *Result) map[string]Severity {
	out := map[string]Severity{}
	for _, f := range r.Findings {
		if slices.Contains(timing, f.Code) && f.Severity > Note {
			out[fmt.Sprint(f.Code, " ", f.Step)] = f.Severity
		}
	}
	return out
}

// waitingPlan is a plan of coats with waits around those of their labels, which meets no latest
// window, tack or pot life.
func waitingPlan(r *rand.Rand, c *craft.Craft) ([]surface.Step, []float64) {
	ids := []string{
		"shellac_clear", "shellac_pigmented", "primer_stainblock_wb", "primer_bond_wb", "primer_stainblock_oil", "primer_metal", "paint_chalk",
		"paint_acrylic", "paint_mineral", "paint_enamel_wb", "paint_enamel_oil", "paint_trim", "clear_acrylic_varnish", "clear_oil", "clear_wb",
	}
	var steps []surface.Step
	var shares []float64
	if r.IntN(2) == 0 {
		cl, _ := c.Cleaner("detergent")
		steps = append(steps, surface.Step{Do: surface.Clean, Cleaner: cl, Rinse: true})
	}
	for range 2 + r.IntN(3) {
		p, _ := c.Product(ids[r.IntN(len(ids))])
		s := surface.Step{Do: surface.Coat, Product: p, Method: "brush"}
		share := []float64{.2, .35, .5, .65, .75, .9, 1, 1.2}[r.IntN(8)]
		s.WaitH = share * c.Products[p].Recoat.From
		steps, shares = append(steps, s), append(shares, share)
	}
	return steps, shares
}

// What passes for time at 20 C and 50 % passes in every ordinary room, and what breaks the table of
// tolerances never does.
func TestOrdinaryRooms(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	r := rand.New(rand.NewPCG(20, 50))
	passed, broke := 0, 0
	for range cases(20000, 1500) {
		z := zoneOf(t, []string{"birch varnish_oil matt", "maple", "mdf", "birch; touching"}[r.IntN(4)], "")
		z.Area = 0 // work takes no time
		steps, _ := waitingPlan(r, c)
		z.Steps = steps
		if r.IntN(3) == 0 {
			z.Steps = append(z.Steps, surface.Step{Do: surface.Reassemble})
		}
		usual := Check(c, z, Options{NoRepairs: true})
		room := *z
		room.Climate = drying.Climate{TempC: 18 + 8*r.Float64(), RH: 35 + 30*r.Float64()}
		ordinary := true
		for i := range steps {
			if steps[i].Do == surface.Coat {
				ordinary = ordinary && drying.Ordinary(&c.Products[steps[i].Product], room.Climate)
			}
		}
		if !ordinary {
			continue
		}
		there := Check(c, &room, Options{NoRepairs: true})
		a, b := timed(&usual), timed(&there)
		if len(a) == 0 {
			passed++
		}
		for code := range b {
			if _, ok := a[code]; !ok && len(a) == 0 {
				t.Fatalf("%s passes at 20 C and 50 %%, and not at %v: %s", code, room.Climate, describe(c, &room))
			}
		}
		// The table: well too short a wait fails in every room.
		for i := range there.Trace.Events {
			for _, x := range there.Trace.Events[i].Boundaries() {
				if x.Under == craft.NoProduct {
					continue
				}
				low, up := &c.Products[x.Under], &c.Products[x.Product]
				if rubbed, _ := low.HardUnder(up); rubbed > 0 || low.Dried == craft.ShellacNew {
					continue
				}
				_, fails := drying.ToleranceOf(low, up).Shares()
				if x.Waited < (fails-.001)*low.Recoat.From {
					broke++
					if b[fmt.Sprint("adhesion.too_soon ", x.Step)] != Fail {
						t.Fatalf("%s after %.2f h of %.2f, and it does not fail at %v: %s", up.ID, x.Waited, low.Recoat.From, room.Climate, describe(c, &room))
					}
				}
			}
		}
	}
	if passed < 100 || broke < 200 {
		t.Errorf("only %d plans passed and %d waits broke the table", passed, broke)
	}
}

// A default room is ordinary for every product there is.
func TestTheDefaultRoomIsOrdinary(t *testing.T) {
	c := craft.Default()
	for i := range c.Products {
		if p := &c.Products[i]; !drying.Ordinary(p, drying.Usual) || !drying.Ordinary(p, drying.Standard) {
			t.Errorf("%s takes %v times as long in the usual room", p.ID, drying.FactorOf(p, drying.Usual))
		}
	}
}

// risk is the risk of peeling of a zone, -1 without coats.
func risk(c *craft.Craft, z *Zone) float64 {
	r := Check(c, z, Options{NoRepairs: true})
	if r.Adhesion == nil {
		return -1
	}
	return r.Adhesion.Risk
}

// hurriedLess tells whether a coat that comes too soon waits longer in b than in a, because a wash before it
// takes longer to dry there.
func hurriedLess(c *craft.Craft, a, b *Zone) bool {
	x, y := Check(c, a, Options{NoRepairs: true}), Check(c, b, Options{NoRepairs: true})
	for i := range min(len(x.Trace.Events), len(y.Trace.Events)) {
		p, q := x.Trace.Events[i].Boundaries(), y.Trace.Events[i].Boundaries()
		for j := range min(len(p), len(q)) {
			if p[j].Timing == surface.TooSoon && q[j].Waited > p[j].Waited {
				return true
			}
		}
	}
	return false
}

// Less key, harder wear and worse air never make a plan safer.
func TestRiskNeverFallsWithLessKeyHarderWearOrWorseAir(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	r := rand.New(rand.NewPCG(41, 7))
	worse := map[string]int{}
	for range cases(20000, 1500) {
		z := randomZone(r, c)
		z.SurfaceRead = false
		was := risk(c, z)
		if was < 0 {
			continue
		}
		for _, x := range []struct {
			name string
			make func(*Zone) bool
		}{
			{"shinier", func(z *Zone) bool {
				if z.Gloss < craft.Matt || z.Gloss >= craft.Gloss {
					return false
				}
				z.Gloss++
				return true
			}},
			{"harder wear", func(z *Zone) bool {
				for w := range craft.Wears {
					if craft.Wears[w].Demand > craft.Wears[z.Wear].Demand && craft.Wear(w) != craft.Outdoor && z.Wear != craft.Outdoor {
						z.Wear = craft.Wear(w)
						return true
					}
				}
				return false
			}},
			{"colder", func(z *Zone) bool {
				if closes(c, z) {
					return false
				}
				z.Climate.TempC -= 1 + 6*r.Float64()
				return true
			}},
			{"damper", func(z *Zone) bool {
				if closes(c, z) || z.Climate.RH > 85 {
					return false
				}
				z.Climate.RH += 1 + 10*r.Float64()
				return true
			}},
		} {
			o := *z
			if !x.make(&o) {
				continue
			}
			now := risk(c, &o)
			if now < was-1e-9 && !hurriedLess(c, z, &o) {
				t.Fatalf("%s: the risk falls from %v to %v in %s", x.name, was, now, describe(c, &o))
			}
			if now > was {
				worse[x.name]++
			}
		}
	}
	for _, name := range []string{"shinier", "harder wear", "colder", "damper"} {
		if worse[name] < 20 {
			t.Errorf("%s made only %d plans worse", name, worse[name])
		}
	}
}

// closes tells whether a plan holds something that closes, stays tacky, or is lifted while it is
// young: there longer drying has two sides.
func closes(c *craft.Craft, z *Zone) bool {
	for i := range z.Steps {
		switch s := &z.Steps[i]; s.Do {
		case surface.Coat:
			p := &c.Products[s.Product]
			if !math.IsInf(p.Recoat.To, 1) || p.Again > 0 || p.Tacky.To > 0 || p.Carrier == craft.StrongSolvent || p.Coat == craft.SH {
				return true
			}
		case surface.Effect:
			return true
		}
	}
	return false
}

// What a painter adds for hold never raises the risk by more than two hundredths, indoors and on a
// surface that it is made for: a scuff, new shellac under what it ties, and the primer for the
// material.
func TestLayersForHoldDoNotRaiseTheRisk(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	const most = .02
	looked := 0
	check := func(zone, before, after, coats string) {
		for _, wear := range []string{"display", "handled", "seat", "tabletop", "wet"} {
			looked++
			facts := zone + "; wear " + wear
			with, without := risk(c, zoneOf(t, facts, before+after+coats)), risk(c, zoneOf(t, facts, before+coats))
			if with > without+most {
				t.Errorf("%s: %q before %q raises the risk from %.3f to %.3f", facts, after, coats, without, with)
			}
		}
	}
	films := []string{"birch varnish_oil gloss", "birch lacquer satin", "birch shellac satin", "mdf paint_acrylic_old semi_gloss; made 2010", "pine paint_alkyd_old gloss; made 2010", "steel powder gloss", "laminate_hpl gloss", "melamine gloss", "mdf paint_factory gloss; made 2010"}
	paints := []string{"paint_chalk x2", "paint_acrylic x2", "paint_mineral x2", "paint_enamel_wb x2", "paint_enamel_oil x2", "paint_trim x2", "clear_wb x2", "clear_oil x2", "primer_bond_wb; paint_acrylic x2", "primer_stainblock_oil; paint_enamel_oil x2", "paint_milk x3 add.5"}
	for _, zone := range films {
		for _, coats := range paints {
			check(zone, "detergent rinse; ", "sand 220; dust; ", coats)
		}
	}
	for _, zone := range []string{"birch", "pine", "teak", "mdf", "birch varnish_oil gloss", "birch lacquer satin", "pine paint_alkyd_old gloss; made 2010", "birch paint_porous_old; made 2010"} {
		for _, coats := range []string{"paint_chalk x2", "paint_acrylic x2", "paint_mineral x2", "paint_enamel_wb x2", "paint_enamel_oil x2", "clear_wb x2", "clear_oil x2", "primer_bond_wb; paint_acrylic x2", "primer_stainblock_oil; paint_enamel_oil x2", "paint_chalk x2; clear_wb x2"} {
			check(zone, "sand 220; dust; ", "shellac_clear; ", coats)
		}
	}
	for _, x := range []struct{ zone, prep, primer, coats string }{
		{"steel", "sand 180; dust; ", "primer_metal; ", "paint_enamel_oil x2"},
		{"steel", "sand 180; dust; ", "primer_aerosol; ", "paint_aerosol x3 wait.3"},
		{"steel", "sand 180; dust; ", "primer_epoxy; ", "paint_enamel_wb x2"},
		{"galvanised matt", "pad; dust; ", "primer_galv; ", "paint_acrylic x2"},
		{"aluminium", "sand 240; dust; ", "primer_etch; ", "paint_aerosol x3 wait.3"},
		{"aluminium", "sand 240; dust; ", "primer_galv; ", "paint_enamel_wb x2"},
		{"aluminium", "sand 240; dust; ", "primer_epoxy; ", "paint_enamel_wb x2"},
		{"brass", "sand 240; dust; ", "primer_etch; ", "paint_aerosol x3 wait.3"},
		{"chrome", "sand 240; dust; ", "primer_epoxy; ", "paint_enamel_wb x2"},
		{"glass gloss", "alcohol; ", "primer_glass; ", "paint_acrylic x2"},
		{"plastic_abs satin", "sand 320 wet; dust; ", "primer_plastic wait.3; ", "paint_aerosol x3 wait.3"},
		{"plastic_polyolefin satin", "", "primer_plastic wait.3; ", "paint_aerosol x3 wait.3"},
		{"terracotta", "", "sealer_masonry; ", "paint_masonry x2"},
		{"concrete; age 400", "", "sealer_masonry; ", "paint_acrylic x2"},
		{"laminate_hpl satin", "sand 220; dust; ", "primer_bond_wb; ", "paint_enamel_wb x2"},
		{"melamine satin", "sand 220; dust; ", "primer_bond_wb; ", "paint_chalk x2"},
		{"birch varnish_oil satin", "sand 220; dust; ", "primer_bond_wb; ", "paint_milk x3"},
		{"birch", "sand 180; dust; ", "primer_stainblock_wb; ", "paint_acrylic x2"},
	} {
		check(x.zone, x.prep, x.primer, x.coats)
	}
	if looked < 500 {
		t.Errorf("only %d plans were looked at", looked)
	}
}

// Every way to fail is in the one figure: what a rule calls a failure of the film raises the risk.
func TestRiskCoversEveryWayToFail(t *testing.T) {
	c := craft.Default()
	for _, x := range []struct{ name, zone, worse, plan, ruined string }{
		{"soap on zinc", "galvanised matt; wear display", "", "pad; dust; primer_galv; paint_enamel_oil x2", "pad; dust; paint_enamel_oil x2"},
		{"soap on fresh cement", "concrete; age 400", "concrete; age 20", "clear_oil x2", "clear_oil x2"},
		{"wrinkling", "mdf", "", "primer_epoxy; paint_aerosol x2 wait.3", "primer_stainblock_oil; paint_aerosol x2 wait.3"},
		{"dew", "birch; surface 20", "birch; surface 8", "paint_acrylic x2", "paint_acrylic x2"},
		{"wax", "birch", "birch wax", "paint_acrylic x2", "paint_acrylic x2"},
		{"window", "birch", "", "primer_bond_wb; paint_acrylic x2", "primer_bond_wb wait2000; paint_acrylic x2"},
		{"haste", "birch varnish_oil matt", "", "sand 220; dust; paint_acrylic x2", "sand 220; dust; paint_acrylic x2 wait.2"},
		{"key", "laminate_hpl gloss", "", "sand 220; dust; primer_bond_wb; paint_acrylic x2", "paint_acrylic x2"},
	} {
		worse := x.worse
		if worse == "" {
			worse = x.zone
		}
		a, b := Check(c, zoneOf(t, x.zone, x.plan), Options{}), Check(c, zoneOf(t, worse, x.ruined), Options{})
		if b.Adhesion.Risk <= a.Adhesion.Risk {
			t.Errorf("%s: risk %.4f and %.4f", x.name, a.Adhesion.Risk, b.Adhesion.Risk)
		}
	}
}

// One cause is told once, and the headline goes by severity and then by harm.
func TestHeadlines(t *testing.T) {
	c := craft.Default()
	for _, x := range []struct {
		zone, plan, first string
		not               []string // codes that another finding tells already
	}{
		{"pine paint_alkyd_old gloss; made 0; soils grease3; bleed resin3", "sand 220; paint_chalk x2", "safety.lead", nil},
		{"oak varnish_oil gloss; veneer; bleed tannin3", "sand 60 machine; dust; paint_chalk x2", "prep.cut_through", nil},
		{"laminate_hpl gloss; bleed ink3", "paint_chalk x2; clear_wb x2", "adhesion.key", []string{"adhesion.weakest"}},
		{"vinyl_fabric satin; wear seat", "paint_chalk x2; wax_clear", "adhesion.plasticiser", []string{"adhesion.bond", "bleed.tacky", "adhesion.weakest"}},
		{"oak", "paint_mineral x2", "bleed.tannin", []string{"bleed.self_priming"}},
		{"galvanised matt; colour #3f5a52", "pad; dust; paint_enamel_oil x2", "adhesion.saponify", []string{"adhesion.bond", "adhesion.weakest"}},
		{"birch; soils grease2", "detergent rinse; paint_acrylic x2", "prep.soil_left", []string{"prep.wrong_cleaner", "adhesion.weakest"}},
	} {
		r := Check(c, zoneOf(t, x.zone, x.plan), Options{})
		all := Check(c, zoneOf(t, x.zone, x.plan), Options{Every: true})
		if r.Findings[0].Code != x.first {
			t.Errorf("%s: %s: the headline is %s of %v", x.zone, x.plan, r.Findings[0].Code, codes(&r, Watch))
		}
		for _, code := range x.not {
			if slices.Contains(codes(&r, Note), code) || !slices.Contains(codes(&all, Note), code) {
				t.Errorf("%s: %s: %s is among %v of %v", x.zone, x.plan, code, codes(&r, Note), codes(&all, Note))
			}
		}
		if r.Verdict != all.Verdict {
			t.Errorf("%s: %v told once, %v in all", x.zone, r.Verdict, all.Verdict)
		}
	}
}

// Telling a cause once never changes the verdict.
func TestOnceKeepsTheVerdict(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	r := rand.New(rand.NewPCG(3, 33))
	left := 0
	for range cases(20000, 700) {
		z := randomZone(r, c)
		told, all := Check(c, z, Options{NoRepairs: true}), Check(c, z, Options{NoRepairs: true, Every: true})
		worst := Note
		for _, f := range told.Findings {
			worst = max(worst, f.Severity)
		}
		if Verdict(worst) != all.Verdict || told.Verdict != all.Verdict {
			t.Fatalf("%v told, %v in all: %s", told.Verdict, all.Verdict, describe(c, z))
		}
		left += len(all.Findings) - len(told.Findings)
	}
	if left < 200 {
		t.Errorf("only %d findings were told already", left)
	}
}

// A patch is offered only where it would tell, and no repair of a plan is advice to fail: every edit
// leaves no more fails than there were.
func TestPatchesAreOfferedWhereTheyTell(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	r := rand.New(rand.NewPCG(17, 4))
	patches := 0
	for range cases(4000, 250) {
		z := randomZone(r, c)
		res := Check(c, z, Options{})
		for _, f := range res.Findings {
			for _, rp := range f.Repairs {
				if rp.Kind != Measure || rp.Field != craft.FieldTest {
					continue
				}
				patches++
				i := slices.IndexFunc(Standard().Rules, func(r *Rule) bool { return r.Code == f.Code })
				if !Standard().Rules[i].patches() {
					t.Fatalf("%s offers a patch", f.Code)
				}
			}
		}
	}
	if patches < 20 {
		t.Errorf("only %d patches were offered", patches)
	}
	for code, want := range map[string]bool{"adhesion.bond": true, "bleed.tannin": true, "prep.silicone": true, "safety.lead": false, "prep.cut_through": false, "site.cold": false, "use.wear": false} {
		i := slices.IndexFunc(Standard().Rules, func(r *Rule) bool { return r.Code == code })
		if got := Standard().Rules[i].patches(); got != want {
			t.Errorf("%s: a patch tells: %v", code, got)
		}
	}
}

// Mould in one zone and ammonia in another are told in both, and a day between them is enough.
func TestChemicalsAcrossZones(t *testing.T) {
	c := craft.Default()
	const a, b = "birch varnish_oil satin; soils mould1", "birch varnish_oil satin; soils grime1"
	one, two := zoneOf(t, a, "biocide_wash rinse; sand 220; dust; primer_bond_wb; paint_enamel_wb x2"), zoneOf(t, b, "ammonia_water rinse; sand 220; dust; primer_bond_wb; paint_enamel_wb x2")
	one.Beside, two.Beside = ChemicalsOf(c, two, "the drawers"), ChemicalsOf(c, one, "the carcass")
	for _, z := range []*Zone{one, two} {
		r := Check(c, z, Options{})
		if r.Verdict != Fails || r.Findings[0].Code != "safety.ammonia_bleach" || len(r.Findings[0].Repairs) == 0 {
			t.Errorf("%v: %v", r.Verdict, codes(&r, Watch))
		}
	}
	if why := two.Barred(c, &two.Steps[0], &surface.State{N: 1}); why == "" {
		t.Error("the picker offers ammonia beside bleach")
	}
	two.Steps = append([]surface.Step{{Do: surface.Wait, Hours: 48}}, two.Steps...)
	one.Beside, two.Beside = ChemicalsOf(c, two, "the drawers"), ChemicalsOf(c, one, "the carcass")
	if r := Check(c, two, Options{}); slices.Contains(codes(&r, Watch), "safety.ammonia_bleach") {
		t.Errorf("two days apart: %v", codes(&r, Watch))
	}
	// However many zones use it, it is told once, and reading it is no way out.
	one.Beside = nil
	acid := zoneOf(t, b, "vinegar_water; sand 220; dust; primer_bond_wb; paint_enamel_wb x2")
	for _, name := range []string{"the carcass", "the drawers", "the top", "the plinth"} {
		one.Beside = append(one.Beside, ChemicalsOf(c, acid, name)...)
	}
	r := Check(c, one, Options{})
	f := r.Findings[0]
	if len(codes(&r, Watch)) != 1 || f.Title != "Bleach here and acid on the carcass, the drawers and 2 more zones" || slices.ContainsFunc(f.Repairs, func(x Repair) bool { return x.Kind == Acknowledge }) {
		t.Errorf("%v: %s, %v", codes(&r, Watch), f.Title, f.Repairs)
	}
	plain := zoneOf(t, b, "detergent rinse")
	if got := ChemicalsOf(c, plain, ""); got != nil {
		t.Errorf("detergent is %v", got)
	}
}

// The picker bars what would hurt somebody or ruin the piece, and nothing ordinary.
func TestBarredSteps(t *testing.T) {
	c := craft.Default()
	for _, x := range []struct {
		zone, plan, step string
		barred           bool
	}{
		{"plastic_abs paint_acrylic_old; made 2010", "", "strip heat", true},
		{"plastic_abs paint_acrylic_old; made 2010", "", "strip chemical", true},
		{"oak varnish_oil", "", "strip caustic", true},
		{"oak varnish_oil", "", "strip chemical", false},
		{"laminate_hpl paint_acrylic_old; made 2010", "", "strip chemical", false},
		{"birch shellac", "", "alcohol", true},
		{"birch varnish_oil", "", "alcohol", false},
		{"oak", "oxalic_bleach", "sand 220", true},
		{"oak", "oxalic_bleach", "sand 220 wet", false},
		{"oak", "oxalic_bleach; detergent rinse", "sand 220", false},
		{"birch; soils mould1", "biocide_wash rinse", "ammonia_water rinse", true},
		{"birch; soils mould1", "biocide_wash rinse", "detergent rinse", false},
		{"willow paint_acrylic_old; made 2010", "paint_milk x2", "effect chippy heat", true},
		{"oak varnish_oil; veneer", "paint_milk x2", "effect chippy heat", false},
	} {
		z := zoneOf(t, x.zone, x.plan)
		w := surface.Walk(c, &z.Facts, z.Steps)
		s := stepsOf(t, x.step)[0]
		if why := z.Barred(c, &s, &w.End); (why != "") != x.barred {
			t.Errorf("%s after %q: %s is barred: %q", x.zone, x.plan, x.step, why)
		}
	}
}
