package plan

import (
	"context"
	"math"
	"slices"
	"strings"
	"testing"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/surface"
)

func find(t testing.TB, facts, way string) (Answer, Request) {
	t.Helper()
	w, ok := WayNamed(way, nil)
	if !ok {
		t.Fatalf("no way %q", way)
	}
	ask := Request{Zone: zoneOf(t, facts), Way: w}
	a, err := Find(context.Background(), craft.Default(), ask)
	if err != nil {
		t.Fatal(err)
	}
	return a, ask
}

// stepsIn tells whether the words of steps stand in a plan in this order.
func stepsIn(c *craft.Craft, p *Plan, words ...string) bool {
	i := 0
	for k := range p.Steps {
		if i < len(words) && strings.Contains(check.StepWords(c, &p.Steps[k]), words[i]) {
			i++
		}
	}
	return i == len(words)
}

// Plans as a painter with experience would make them: what must be there, in its
// order, and what must not.
func TestPlansAsPaintersMakeThem(t *testing.T) {
	c := craft.Default()
	for _, x := range []struct {
		facts, way string
		has        []string
		hasNot     []string
	}{
		{"oak varnish_oil satin; soils grease2 grime1; target matt", "best", []string{"Alkaline degreaser, rinsed", "Sand", "2 coats of", "2 coats of"}, []string{"Strip"}},
		{"oak varnish_oil satin; soils grease2 grime1", "prime", []string{"Alkaline degreaser, rinsed", "2 coats of", "coats of"}, []string{"Clear shellac", "lear shellac"}},
		{"oak varnish_oil satin; soils grease2 grime1; wear display", "scuff_and_seal", []string{"degreaser", "Sand with 220", "Dust off", "2 coats of clear shellac", "coats of"}, []string{"primer"}},
		{"beech varnish_oil satin; soils grime1; wear display", "straight_on", []string{"Detergent", "Sand with 220", "Dust off", "paint"}, []string{"primer", "hellac"}},
		{"beech varnish_oil gloss; soils grime1", "chemical", []string{"Detergent", "deglosser", "coats of"}, []string{"Sand"}},
		{"beech varnish_oil satin; soils grime1; wear display", "additive", []string{"Detergent", "milk paint, with bonding additive"}, []string{"primer", "shellac,"}},
		{"beech varnish_oil satin; soils grime1", "scuff_first", []string{"Sand with 220", "Alcohol wipe", "coats of"}, []string{"Strip"}},
		{"birch varnish_oil satin; soils grime1", "by_wax", []string{"Detergent", "paint", "ax"}, []string{"clear coat"}},
		{"pine; knots", "best", []string{"hellac", "coats of"}, []string{"Bonding"}},
		{"laminate_hpl satin; soils grime1 grease1", "best", []string{"degreaser", "Sand with 220", "Dust off", "Bonding primer", "coats of"}, nil},
		{"paper_foil_board satin; soils grime1", "best", []string{"fine pad", "Dust off", "coats of"}, []string{"Sand with", "deglosser"}},
		{"vinyl_fabric satin; soils grime1; wear seat; colour #5b3a2a", "best", []string{"Detergent", "fine pad", "coats of flexible paint"}, []string{"enamel"}},
		{"galvanised matt; wear outdoor; use outdoor; soils oil_cutting1; colour #3f5a52", "best", []string{"degreaser", "fine pad", "Zinc primer", "coats of oil enamel"}, nil},
		{"plastic_polyolefin satin; soils grime1", "best", []string{"Detergent", "Plastic promoter", "coats of"}, nil},
		{"mahogany shellac gloss; soils wax_polish2", "best", []string{"White spirit", "hellac", "coats of"}, []string{"Alcohol wipe"}},
		{"oak paint_porous_waxed; made 2010", "best", []string{"White spirit", "Detergent", "coats of"}, nil},
		{"pine paint_alkyd_old gloss; made 1950; soils grime1", "best", []string{"Detergent", "Sand with 220, wet", "hellac", "coats of"}, []string{"Strip", "Dry brush"}},
		{"beech varnish_oil gloss; look chippy; colour #dfe3d6; soils grime1", "best", []string{"Detergent", "milk paint", "chippy", "Dust off", "Wait 2 days", "ax"}, []string{"additive", "clear coat", "Sand"}},
		{"oak varnish_oil satin; look layered_chippy; colour #dfe3d6", "best", []string{"hellac", "milk paint", "milk paint", "chippy", "Wait 2 days", "ax"}, []string{"additive", "clear coat"}},
		{"oak; look limed; colour #d8cdb9", "best", []string{"Dry brush", "Dust off", "White wax"}, []string{"coats of"}},
		{"oak wax; look limed; colour #d8cdb9", "best", []string{"White spirit", "Detergent", "White wax"}, nil},
		{"maple varnish_oil satin; look glaze; soils grime1", "best", []string{"Detergent", "paint", "varnish", "glaze", "glazed", "2 coats of"}, []string{"ax"}},
		{"particleboard; look marble; wear tabletop; target gloss", "best", []string{"paint", "marble", "3 coats of hard water-based clear coat"}, nil},
		{"lime; look crackle; colour #e6ddc4; wear display", "best", []string{"coats of", "Crackle medium", "paint"}, nil},
		{"steel; look enamelware; soils oil_cutting1", "best", []string{"degreaser", "Metal primer", "coats of", "enamelware", "clear coat"}, []string{"wax"}},
		{"plaster; look gild; wear display; age 400; bleed; colour #b08a3a", "best", []string{"paint", "Leaf size", "gilded", "coats of"}, nil},
		{"birch; look drawn_grain; colour #c8a56c", "best", []string{"paint", "Stain glaze", "drawn grain", "Wait 2 days", "ax"}, []string{"clear coat"}},
		{"oak varnish_oil satin; look distress_dry; colour #dfe3d6; soils grime1", "best", []string{"Detergent", "paint", "worn with abrasive", "Dust off"}, nil},
		{"fabric_woven; look fabric_dye; wear seat; ground #cfc6b4; colour #4a5a6b", "best", []string{"Fabric wash", "Sand", "abric wash", "ax"}, []string{"enamel", "primer"}},
		{"birch varnish_oil satin; target gloss; uneven", "best", []string{"Fill with fine filler", "Sand", "Dust off"}, nil},
		{"vinyl_wrap satin; loose loose_foil", "best", []string{"coats of"}, nil},
		{"birch varnish_oil; look raised_stencil; soils grime1", "best", []string{"Detergent", "paint", "raised stencil", "Wait", "Sand with 240", "Dust off", "paint"}, []string{"Strip"}},
		{"spruce; look stencil", "best", []string{"hellac", "paint", "stencilled", "Wait"}, nil},
		{"plywood; look decoupage; wear tabletop", "best", []string{"paint", "decoupage", "Wait", "2 coats of"}, []string{"ax oil"}},
		{"cherry varnish_oil satin; look colour_blend; colour #9db3b0", "best", []string{"paint", "blended"}, nil},
		{"ash; look wash_wipe; colour #e8e4d8", "best", []string{"paint", "wiped back", "Wait"}, []string{"primer"}},
		{"lime; look dusting; colour #e6ddc4; wear display", "best", []string{"Crackle medium", "paint", "Wait 24 h", "dusted", "ax"}, nil},
		{"maple varnish_oil; look lift_off; colour #dfe3d6", "best", []string{"paint", "Lift medium", "paint", "lift-off"}, nil},
		{"poplar; look distress_wet; colour #5b7a78", "best", []string{"paint", "paint", "damp cloth"}, nil},
		{"steel gloss; soils oil_cutting1 rust_loose2; colour #2b3a44", "best", []string{"degreaser", "Dry brush", "Metal primer", "coats of"}, nil},
		{"terracotta; wear outdoor; use outdoor; soils salts1; colour #b9623d", "best", []string{"Dry brush", "Masonry sealer", "masonry paint"}, []string{"wash"}},
		{"brass gloss; soils grime1; wear display", "best", []string{"Detergent", "Bonding primer", "coats of"}, []string{"Ammonia"}},
		{"ceramic_glazed gloss; wear wet; soils limescale2", "best", []string{"Vinegar", "Glass primer", "coats of"}, []string{"Sand with"}},
		{"oak varnish_oil satin; soils silicone2; colour #e4e8df", "best", []string{"White spirit", "hellac", "coats of"}, nil},
		{"birch lacquer gloss; soils nicotine2", "best", []string{"degreaser", "hellac", "coats of"}, nil},
		{"unknown_wood unknown satin; unseen", "best", []string{"White spirit", "Detergent", "hellac", "coats of"}, []string{"Strip", "Alcohol wipe"}},
		{"mdf; target gloss; colour #c02a24", "best", []string{"primer", "coats of"}, []string{"Detergent"}},
	} {
		t.Run(x.way+" "+x.facts, func(t *testing.T) {
			a, _ := find(t, x.facts, x.way)
			if a.Best == nil {
				t.Fatalf("no plan: %+v", a.Infeasible.Why)
			}
			if !stepsIn(c, a.Best, x.has...) {
				t.Errorf("not %q in that order:\n%s", x.has, words(c, a.Best))
			}
			for _, w := range x.hasNot {
				if stepsIn(c, a.Best, w) {
					t.Errorf("%q has no place in\n%s", w, words(c, a.Best))
				}
			}
			if !a.Proved || a.Next != nil && a.Next.Points < a.Best.Points {
				t.Errorf("proved %v, the next has %v", a.Proved, a.Next)
			}
		})
	}
}

// A way of one's own is kept to: what the paint flakes over, and how much of the
// additive goes where.
func TestWaysAreKeptTo(t *testing.T) {
	c := craft.Default()
	const flaking = "beech varnish_oil gloss; look chippy; colour #dfe3d6; soils grime1"
	for _, x := range []struct {
		name, facts string
		way         Way
		has         []string
		hasNot      string
		keeps       func(*surface.Step) bool // of the powder paint
	}{
		{"wax in patches", flaking, Way{Resist: ResistWax}, []string{"Clear wax, on the spots", "milk paint", "chippy"}, "on the spots, wait", nil},
		{"tacky shellac", flaking, Way{Resist: ResistShellac}, []string{"Clear shellac, on the spots", "milk paint", "chippy", "ax"}, "Clear wax, on", nil},
		{"tacky lacquer", flaking, Way{Resist: ResistLacquer}, []string{"lacquer, on the spots", "milk paint", "chippy", "ax"}, "Clear wax, on", nil},
		{"a mist and a clear", flaking, Way{FlakeSeal: FlakeMist}, []string{"milk paint", "chippy", "Clear shellac", "2 coats of"}, "ax oil", nil},
		{"as much additive as paint", "beech varnish_oil satin; soils grime1; wear display", Way{Holds: Additive, Additive: 1}, []string{"milk paint"}, "primer", func(s *surface.Step) bool { return s.Additive == 1 && !s.AdditiveFirst }},
		{"additive in the first coat", "beech varnish_oil satin; soils grime1; wear display", Way{Holds: Additive, AdditiveFirst: true}, []string{"milk paint"}, "primer", func(s *surface.Step) bool { return s.Additive == craft.AdditiveFull && s.AdditiveFirst }},
		{"thin powder", flaking, Way{Water: 2}, []string{"milk paint"}, "clear coat", func(s *surface.Step) bool { return s.WaterRatio == 2 }},
		{"lift medium for cracks", "lime; look crackle; colour #e6ddc4; wear display", Way{Crackle: craft.CrackLift}, []string{"Lift medium", "paint"}, "Crackle medium", nil},
		{"tacky shellac for cracks", "lime; look crackle; colour #e6ddc4; wear display", Way{Crackle: craft.CrackTacky, Without: []string{"clear_lacquer"}}, []string{"paint", "Clear shellac", "Milk paint", "crackle"}, "edium", nil},
		{"knots all over", "pine; knots; wear display", Way{Knots: KnotsAll}, []string{"hellac", "coats of"}, "on the knots", nil},
	} {
		t.Run(x.name, func(t *testing.T) {
			a, err := Find(context.Background(), c, Request{Zone: zoneOf(t, x.facts), Way: x.way})
			if err != nil || a.Best == nil {
				t.Fatal(err, a.Infeasible)
			}
			if !stepsIn(c, a.Best, x.has...) || stepsIn(c, a.Best, x.hasNot) {
				t.Errorf("not %q, or %q:\n%s", x.has, x.hasNot, words(c, a.Best))
			}
			for i := range a.Best.Steps {
				if s := &a.Best.Steps[i]; x.keeps != nil && s.Do == surface.Coat && c.Products[s.Product].Coat == craft.MK && !x.keeps(s) {
					t.Errorf("%+v", *s)
				}
			}
		})
	}
}

// What cannot be planned says why, and what would open the way; each opening has
// a plan that passes.
func TestWhatCannotBePlanned(t *testing.T) {
	c := craft.Default()
	for _, x := range []struct {
		name, facts string
		way         Way
		why         string // a code, or a word of the first obstacle
		opens       string
	}{
		{"flaking suspect of lead", "pine paint_alkyd_old gloss; made 1950; loose flaking", Ways[0], "safety.lead", "lead"},
		{"enamel straight on polyethylene", "plastic_polyolefin gloss; soils grime1", wayOf(t, "straight_on"), "adhesion.bond", "way"},
		{"flakes on a food table", "beech varnish_oil satin; wear tabletop; use food; look chippy", Ways[0], "use.target", "look"},
		{"suspected lead on a cot", "pine paint_alkyd_old gloss; made 1950; use child", Ways[0], "safety.lead", "lead"},
		{"liming without pores", "maple; look limed", Ways[0], "effect.ground", "look"},
		{"nothing on the shelf", "oak varnish_oil satin", Way{ID: "own", Shelf: []string{}}, "No products are selected", "shelf"},
		{"no seal on the shelf", "birch; wear tabletop", Way{ID: "own", Shelf: []string{"paint_chalk", "wax_clear"}}, "use.", "shelf"},
		{"everything forbidden", "oak varnish_oil satin", Way{ID: "own", Without: allProducts()}, "There is nothing to apply", "shelf"},
		{"wax on a table top for hot mugs", "beech varnish_oil satin; wear tabletop; use hot_items; look crackle", Way{ID: "own", Seal: SealWax, Without: []string{"wax_oil"}}, "use.", "way"},
		{"very wet wood", "oak; moist 24", Ways[0], "prep.damp", "dry"},
		{"a cold workshop", "oak varnish_oil satin; warm 1", Ways[0], "site.cold", "air"},
		{"cloth to be dyed paler", "fabric_pile; look fabric_dye; wear display; ground #5b2f2c; colour #efe9dc", Ways[0], "effect.fabric_lighter", "colour"},
		{"a drawer without room", "birch; gap .22", Ways[0], "film.build", "gap"},
	} {
		t.Run(x.name, func(t *testing.T) {
			ask := Request{Zone: zoneOf(t, x.facts), Way: x.way}
			a, err := Find(context.Background(), c, ask)
			if err != nil {
				t.Fatal(err)
			}
			if a.Best != nil || a.Infeasible == nil {
				t.Fatalf("planned:\n%s", words(c, a.Best))
			}
			said := slices.ContainsFunc(a.Infeasible.Why, func(o Obstacle) bool {
				return strings.HasPrefix(o.Code, x.why) && o.Code != "" || strings.Contains(o.Title+o.Why, x.why)
			})
			if !said {
				t.Errorf("not %q among %+v", x.why, a.Infeasible.Why)
			}
			opened := false
			for _, o := range a.Infeasible.Relaxations {
				opened = opened || o.ID == x.opens
				if o.Says == "" || o.Field == "" || o.Plan == nil || o.Plan.Judged.Fails.Len() > 0 {
					t.Errorf("%+v opens nothing", o)
				}
			}
			if !opened {
				t.Errorf("%q does not open it: %+v", x.opens, a.Infeasible.Relaxations)
			}
		})
	}
}

func wayOf(t testing.TB, id string) Way {
	w, ok := WayNamed(id, nil)
	if !ok {
		t.Fatalf("no way %q", id)
	}
	return w
}

func allProducts() []string {
	var out []string
	for i := range craft.Default().Products {
		out = append(out, craft.Default().Products[i].ID)
	}
	return out
}

// Every way finds a plan somewhere, keeps to what it says, and is found by its id.
func TestEveryWayPlansSomewhere(t *testing.T) {
	c := craft.Default()
	for i := range Ways {
		w := &Ways[i]
		planned := 0
		for _, facts := range []string{"beech varnish_oil satin; wear display", "birch; wear display", "oak varnish_oil satin; bleed; wear display; colour #5a4632"} {
			a, _ := find(t, facts, w.ID)
			if a.Best == nil {
				continue
			}
			planned++
			for k := range a.Best.Steps {
				s := &a.Best.Steps[k]
				if s.Do == surface.Coat && !w.uses(&c.Products[s.Product]) {
					t.Errorf("%s uses %s", w.ID, c.Products[s.Product].ID)
				}
				if w.NextDay && s.Do == surface.Coat && s.Auto {
					if from, to := surface.Recoats(&c.Products[s.Product], a0(t, facts).Climate); from < 24 && to >= 24 {
						t.Errorf("%s does not wait for the next day", check.StepWords(c, s))
					}
				}
			}
		}
		if planned == 0 {
			t.Errorf("%s plans nothing", w.ID)
		}
		if w.Says == "" || w.Name == "" {
			t.Errorf("%s says nothing", w.ID)
		}
	}
	if _, ok := WayNamed("no such way", nil); ok {
		t.Error("a way that there is not was found")
	}
	if w, _ := WayNamed("prime", []Way{{ID: "prime", Name: "mine"}}); w.Name != "mine" {
		t.Error("one's own way does not come first")
	}
}

func a0(t testing.TB, facts string) *check.Zone { return zoneOf(t, facts) }

func TestWeightsThatCannotBe(t *testing.T) {
	z := zoneOf(t, "oak varnish_oil satin")
	for _, w := range []Weights{{math.NaN(), 1}, {math.Inf(1)}, {-1, 1}, {1e9}} {
		if _, err := Find(context.Background(), craft.Default(), Request{Zone: z, Way: Ways[0], Weights: w}); err == nil {
			t.Errorf("%v was taken", w)
		}
	}
	if err := (Weights{}).Check(); err == nil {
		t.Error("weights of nothing were taken")
	}
	// One weight alone decides, and the search ends.
	for i := range NumWeights {
		var w Weights
		w[i] = 1
		a, err := Find(context.Background(), craft.Default(), Request{Zone: z, Way: Ways[0], Weights: w})
		if err != nil || a.Best == nil || !a.Proved {
			t.Errorf("%s alone: %v %+v", Terms[i].ID, err, a.Stats)
		}
	}
	if _, err := Find(context.Background(), craft.Default(), Request{}); err == nil {
		t.Error("no zone was planned")
	}
	bad := *z
	bad.Look = "no such look"
	if _, err := Find(context.Background(), craft.Default(), Request{Zone: &bad, Way: Ways[0]}); err == nil {
		t.Error("a look that there is not was planned")
	}
}

// A search that is stopped says so, and returns what it has.
func TestASearchCanBeStopped(t *testing.T) {
	ctx, stop := context.WithCancel(context.Background())
	stop()
	z := zoneOf(t, "pine paint_acrylic_old; knots; soils grease3 wax_polish3 silicone2; made 1950; wear tabletop; look crackle")
	a, err := Find(ctx, craft.Default(), Request{Zone: z, Way: Ways[0]})
	if err != nil {
		t.Fatal(err)
	}
	if a.Proved || a.Best == nil && (a.Infeasible == nil || !a.Infeasible.Stopped) {
		t.Errorf("proved %v, stuck %+v", a.Proved, a.Infeasible)
	}
	// What every plan is watched for is known before plans are judged.
	deep := Ways[0]
	deep.Deep, deep.Seal = true, SealClear
	a, err = Find(context.Background(), craft.Default(), Request{Zone: zoneOf(t, "walnut wax; soils silicone1 mould1; bleed tannin3; look distress_dry; colour #e4e8df"), Way: deep, Limit: 2000})
	if err != nil || !a.Proved || a.Best == nil {
		t.Errorf("worn deep: proved %v, %v, %+v", a.Proved, err, a.Stats)
	}
	a, err = Find(context.Background(), craft.Default(), Request{Zone: zoneOf(t, "oak varnish_oil; soils grease2"), Way: Ways[0], Limit: 3})
	if err != nil || a.Proved {
		t.Errorf("three looks prove %v, %v", a.Proved, err)
	}
}

// More weight on a term never makes the best plan worse in it.
func TestMoreWeightMeansLess(t *testing.T) {
	z := zoneOf(t, "oak varnish_oil satin; soils grease1; bleed tannin2")
	for term := range NumWeights {
		last := math.Inf(1)
		for _, x := range []float64{.1, 1, 5, 20} {
			w := Usual
			w[term] = x
			a, err := Find(context.Background(), craft.Default(), Request{Zone: z, Way: Ways[0], Weights: w})
			if err != nil || a.Best == nil {
				t.Fatal(err)
			}
			if got := a.Best.Amounts[term]; got > last+1e-9 {
				t.Errorf("%s rises from %v to %v at weight %v", Terms[term].ID, last, got, x)
			} else {
				last = got
			}
		}
	}
}

// A plan of one's own is weighed by the same scale.
func TestWeighingAPlan(t *testing.T) {
	c := craft.Default()
	for _, facts := range []string{"oak varnish_oil satin; soils grease2 grime1", "beech varnish_oil satin", "mahogany shellac gloss; soils wax_polish2; area 3; target satin", "steel gloss; soils rust_loose1", "laminate_hpl satin; wear tabletop"} {
		for _, kit := range []*Kit{nil, DefaultKit()} {
			ask := Request{Zone: zoneOf(t, facts), Way: Ways[0], Kit: kit, PutBack: true, TakeOff: "knobs"}
			a, err := Find(context.Background(), c, ask)
			if err != nil || a.Best == nil {
				t.Fatal(err, facts)
			}
			own, err := Weigh(c, ask, a.Best.Steps)
			if err != nil || own == nil {
				t.Fatal(err)
			}
			if math.Abs(own.Points-a.Best.Points) > 1e-9 {
				t.Errorf("%s: %v points for the best plan, %v when it was found\n%v\n%v", facts, own.Points, a.Best.Points, own.Amounts, a.Best.Amounts)
			}
			if own, err = Weigh(c, ask, a.Best.Steps[:1]); err != nil || own != nil {
				t.Errorf("a plan without coats weighs %+v, %v", own, err)
			}
		}
	}
}

// What would change the plan is a fact that nobody tested, and with it the plan
// really is another one or fails.
func TestWhatWouldChangeThePlan(t *testing.T) {
	c := craft.Default()
	for _, x := range []struct{ facts, id string }{
		{"birch varnish_oil satin; unseen", "soil wax_polish"},
		{"oak paint_acrylic_old satin; soils grime1", "finish wax"},
		{"maple", "bleed dye"},
		{"unknown_wood unknown satin", "soil silicone"},
		{"pine paint_alkyd_old gloss; made 1950", "soil wax_polish"},
		{"oak varnish_oil satin; soils grime1", "finish wax"},
	} {
		a, ask := find(t, x.facts, "best")
		if a.Best == nil {
			t.Fatalf("no plan for %s", x.facts)
		}
		ms, err := Sensitivities(context.Background(), c, ask, a.Best)
		if err != nil {
			t.Fatal(err)
		}
		var ids []string
		for _, m := range ms {
			ids = append(ids, m.ID)
			if m.If == "" || m.Test == "" || m.Field == "" || !m.Fails && m.Loss < worthAsking {
				t.Errorf("%s: %+v", x.facts, m)
			}
			if m.Fails && m.Why == "" {
				t.Errorf("%s: it fails and does not say why", m.ID)
			}
			if m.Instead != nil && slices.Equal(m.Instead.Steps, a.Best.Steps) {
				t.Errorf("%s: %s changes nothing", x.facts, m.ID)
			}
		}
		if !slices.Contains(ids, x.id) {
			t.Errorf("%s: %q not among %q", x.facts, x.id, ids)
		}
	}
}

// Amounts are said with what they count, and a look that decides what lies below
// says so.
func TestAmountsInWords(t *testing.T) {
	for _, x := range []struct {
		t    Term
		x    float64
		says string
	}{
		{Trouble, 1, "1 trip"}, {Trouble, 5.5, "5.5 trips"}, {Smell, 9, "9 faint smells"}, {Cost, 4.6, "4.60 in your currency"},
		{HandsOn, 1.25, "1.2 h"}, {Stain, .3, "ΔE 0.3"}, {Renewal, 1, "1 grade of durability"}, {Doubtful, 2, "2 findings to watch"}, {Peel, .1, "10 % with a margin"},
	} {
		if got := Amount(x.t, x.x); got != x.says {
			t.Errorf("%v of %s is %q, not %q", x.x, Terms[x.t].ID, got, x.says)
		}
	}
	for facts, decides := range map[string]bool{"beech varnish_oil gloss; look chippy; colour #dfe3d6": true, "beech varnish_oil gloss": false} {
		if a, _ := find(t, facts, "prime"); a.LookDecides != decides {
			t.Errorf("%s: the look decides %v", facts, a.LookDecides)
		}
	}
}
