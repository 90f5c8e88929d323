package quantity

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/surface"
)

func batchOf(t testing.TB, product string, need float64, m measure.Measures, change func(*surface.Step)) Batch {
	t.Helper()
	c := craft.Default()
	p, ok := c.Product(product)
	if !ok {
		t.Fatal(product)
	}
	s := surface.Step{Do: surface.Coat, Product: p, Method: "brush"}
	if change != nil {
		change(&s)
	}
	return BatchOf(&Coat{Step: 1, CoatNo: 1, Product: p, Mixed: litres(need)}, Mixing{Craft: c, Facts: &surface.Facts{}, Step: &s, Air: drying.Usual, Measures: m})
}

// Worked by hand: the need split by the shares, each rounded up to what the measures measure, the second from the
// rounded first.
func TestBatchesWorkedByHand(t *testing.T) {
	ml := measure.Measures{By: measure.Millilitres}
	grams := measure.Measures{By: measure.Grams}
	cups := measure.Measures{By: measure.Cups, CupML: measure.MetricCup}
	usCups := measure.Measures{By: measure.Cups, Units: measure.US, CupML: measure.USCup}
	ounces := measure.Measures{By: measure.FluidOunces, Units: measure.US}
	quarts := measure.Measures{By: measure.Quarts, Units: measure.US}
	spoons := measure.Measures{By: measure.Spoons}
	half := func(s *surface.Step) { s.Additive = .5 }
	blend := func(s *surface.Step) {
		s.Own = &surface.Mix{Blend: &surface.Blend{Parts: []surface.BlendPart{{Name: "Fog", Parts: 3}, {Name: "Night", Parts: 1}}}}
	}
	for _, x := range []struct {
		name, product string
		need          float64
		m             measure.Measures
		change        func(*surface.Step)
		says          string
		makes         float64 // ml
	}{
		{"powder with half additive", "paint_milk", .195, ml, half, "85 ml, 85 ml, 70 ml", 201.75},
		{"powder for a wash", "paint_milk", .3, ml, func(s *surface.Step) { s.WaterRatio = 2 }, "120 ml, 240 ml", 306},
		{"powder for texture", "paint_milk", .2, ml, func(s *surface.Step) { s.WaterRatio = .8 }, "150 ml, 120 ml", 202.5},
		{"powder with full additive", "paint_milk", .31, ml, func(s *surface.Step) { s.Additive = 1 }, "100 ml, 100 ml, 155 ml", 310},
		{"matt paint a little thinner", "paint_chalk", .25, ml, func(s *surface.Step) { s.ThinPct = 10 }, "230 ml, 23 ml", 253},
		{"cloth", "fabric_wash", .2, ml, func(s *surface.Step) { s.ThinPct = 150 }, "80 ml, 120 ml", 200},
		{"two parts", "primer_epoxy", .79, ml, nil, "640 ml, 160 ml", 800},
		{"two parts, however it is measured else", "primer_epoxy", .79, cups, nil, "640 ml, 160 ml", 800},
		{"glaze", "glaze_wb", .03, ml, nil, "25 ml, 5 ml", 30},
		{"a deep glaze", "glaze_stain", .12, ml, func(s *surface.Step) { s.Own = &surface.Mix{Tint: .5} }, "80 ml, 40 ml", 120},
		{"home-made with plaster", "paint_diy_chalk", .3, ml, func(s *surface.Step) { s.Own = &surface.Mix{Recipe: "plaster"} }, "210 ml, 70 ml, 70 ml", 308},
		{"home-made with carbonate", "paint_diy_chalk", .14, ml, nil, "100 ml, 50 ml, 25 ml", 145},
		{"powder by weight", "paint_milk", .195, grams, half, "59 g, 85 g, 69 g", .55*59/.7 + 85 + 69/1.05},
		{"paint by weight", "paint_chalk", .25, grams, nil, "340 g", 340 / 1.35},
		{"wax is weighed", "wax_clear", .074, ml, nil, "63 g", 63 / .85},
		{"powder in cups", "paint_milk", .7, cups, half, "1¼ cups, 1¼ cups, 1 cup", 1.55*312.5 + 250},
		{"paint in US cups", "paint_chalk", .35, usCups, nil, "1½ cups", 1.5 * measure.USCup},
		{"clear coat in ounces", "clear_wb", .2, ounces, nil, "7 fl oz", 7 * measure.USCup / 8},
		{"paint in quarts", "paint_acrylic", 1.9, quarts, nil, "2 quarts and 1 fl oz", 65 * measure.USCup / 8},
		{"powder in spoons", "paint_milk", .05, spoons, nil, "2 tbsp and ½ tsp, 2 tbsp and ½ tsp", 1.55 * 32.5},
		{"a blend", "paint_chalk", .4, ml, blend, "4 × 100 ml", 400},
		{"a blend of powders", "paint_milk", .31, ml, blend, "4 × 50 ml, 200 ml", 310},
	} {
		b := batchOf(t, x.product, x.need, x.m, x.change)
		var says []string
		for _, p := range b.Portions {
			says = append(says, p.Measured.Says)
		}
		if got := strings.Join(says, ", "); got != x.says || math.Abs(b.Makes*1000-x.makes) > .05 {
			t.Errorf("%s: %s, makes %.2f ml; by hand %s, %.2f ml", x.name, got, b.Makes*1000, x.says, x.makes)
		}
	}
	b := batchOf(t, "paint_chalk", .4, ml, blend)
	if p := b.Portions[0].Parts; len(p) != 2 || p[0].Measured.Says != "3 × 100 ml" || p[1].Measured.Says != "100 ml" {
		t.Errorf("the parts of the blend are %+v", p)
	}
}

// Never less than the coat needs, never less additive than its share, whatever is asked for.
func TestBatchesAreEnough(t *testing.T) {
	c := craft.Default()
	r := rand.New(rand.NewPCG(1, 2))
	vessels := []measure.Measures{{By: measure.Millilitres}, {By: measure.Grams}, {By: measure.Spoons}, {By: measure.Cups, CupML: 230}, {By: measure.FluidOunces, Units: measure.US}, {By: measure.Quarts, Units: measure.US}}
	for range 4000 {
		p := craft.Product(r.IntN(len(c.Products)))
		row := &c.Products[p]
		need := math.Exp(r.Float64()*6) / 100 // 10 ml to 4 l
		step := surface.Step{Do: surface.Coat, Product: p, Method: row.Methods[0]}
		if row.Powder() {
			step.Additive, step.WaterRatio = []float64{0, .125, .5, 1}[r.IntN(4)], .8+1.2*r.Float64()
		} else if row.ThinMax > 0 && r.IntN(2) == 0 {
			step.ThinPct = row.ThinMax * r.Float64()
		}
		m := Mixing{Craft: c, Facts: &surface.Facts{Area: need * row.Cover, Climate: drying.Usual}, Step: &step, Air: drying.Climate{TempC: 5 + 30*r.Float64(), RH: 50}, Measures: vessels[r.IntN(len(vessels))]}
		b := BatchOf(&Coat{Step: 1, CoatNo: 1, Product: p, Mixed: litres(need)}, m)
		if b.Refused != "" {
			t.Fatalf("%s, %v l: %s", row.ID, need, b.Refused)
		}
		if b.Total() < need*(1-1e-6) {
			t.Fatalf("%s: %v l are needed, and %d pots make %v l each: %+v", row.ID, need, b.Pots, b.Makes, b.Portions)
		}
		if b.Left() > need*.25+float64(b.Pots)*.03 && b.Cans == 0 {
			t.Fatalf("%s: %v l are needed, and %v l left: %+v", row.ID, need, b.Left(), b.Portions)
		}
		if b.Life < craft.Never && b.Pots < mostPots && b.Work/60 > b.Life {
			t.Fatalf("%s: a pot takes %v min and lives %v h", row.ID, b.Work, b.Life)
		}
		for _, x := range b.Portions {
			if x.Measured.Litres < x.Exact*(1-1e-6) {
				t.Fatalf("%s: %+v is less than needed", row.ID, x)
			}
			if x.Is == Additive && x.Measured.Litres < step.Additive*(b.Makes-x.Measured.Litres)*(1-1e-6) {
				t.Fatalf("%s: %v l of additive in %v l", row.ID, x.Measured.Litres, b.Makes)
			}
		}
	}
}

func TestPotsAndRefusals(t *testing.T) {
	c := craft.Default()
	epoxy, _ := c.Product("primer_epoxy")
	step := surface.Step{Do: surface.Coat, Product: epoxy, Method: "brush"}
	mix := func(area float64, temp float64) Batch {
		f := &surface.Facts{Area: area}
		return BatchOf(&Coat{Step: 1, CoatNo: 1, Product: epoxy, Mixed: litres(area / 8 / .95)}, Mixing{Craft: c, Facts: f, Step: &step, Air: drying.Climate{TempC: temp, RH: 50}, Measures: measure.UsualMeasures(measure.Metric)})
	}
	// 12 m² by brush are 204 minutes; at 23 C a pot lives 4 h, of which 3 h are for laying: two pots.
	if b := mix(12, 23); b.Pots != 2 || math.Abs(b.Work-102) > 1e-9 || b.Life != 4 {
		t.Errorf("at 23 C: %d pots of %v min, life %v h", b.Pots, b.Work, b.Life)
	}
	// At 33 C it lives half as long: 204 / 90 = 2.3, three pots. At 13 C twice: one.
	if b := mix(12, 33); b.Pots != 3 || math.Abs(b.Life-2) > 1e-9 {
		t.Errorf("at 33 C: %d pots, life %v h", b.Pots, b.Life)
	}
	if b := mix(12, 13); b.Pots != 1 || math.Abs(b.Life-8) > 1e-9 {
		t.Errorf("at 13 C: %d pots, life %v h", b.Pots, b.Life)
	}
	ml := measure.UsualMeasures(measure.Metric)
	for _, x := range []struct {
		b    Batch
		says string
	}{
		{batchOf(t, "paint_chalk", 0, ml, nil), "area is not known"},
		{batchOf(t, "paint_chalk", 40, ml, nil), "more than anybody mixes by hand"},
		{batchOf(t, "paint_diy_chalk", .3, ml, func(s *surface.Step) { s.Own = &surface.Mix{Recipe: "baking_powder"} }), "foams"},
		{batchOf(t, "paint_chalk", .3, measure.Measures{By: measure.Cups}, nil), "what your cup holds"},
		{batchOf(t, "paint_chalk", .3, ml, func(s *surface.Step) { s.Own = &surface.Mix{Paint: 24}; s.ThinPct = 10 }), "more than anybody mixes"},
	} {
		if !strings.Contains(x.b.Refused, x.says) || len(x.b.Portions) > 0 {
			t.Errorf("%q with %d portions; want words with %q", x.b.Refused, len(x.b.Portions), x.says)
		}
	}
	// The painter's own amount is mixed as it was said, and what the additive does to it is told.
	b := batchOf(t, "paint_milk", .3, ml, func(s *surface.Step) { s.Own, s.Additive = &surface.Mix{Paint: .3}, .5 })
	if !b.Own || math.Abs(b.Wasted-(.45-.375)) > 1e-9 || b.Short != 0 {
		t.Errorf("own amount with additive: %+v", b)
	}
	if b := batchOf(t, "paint_milk", .3, ml, func(s *surface.Step) { s.Own = &surface.Mix{Paint: .2} }); math.Abs(b.Short-.1) > 1e-9 || b.Wasted != 0 {
		t.Errorf("an own amount that is short: %+v", b)
	}
	if b := batchOf(t, "paint_aerosol", .9, ml, nil); b.Cans != 3 || len(b.Portions) > 0 {
		t.Errorf("%d cans of .4 l for .9 l", b.Cans)
	}
}

// A label's pot life of nearly nothing does not run away.
func TestAPotLifeOfNearlyNothing(t *testing.T) {
	base := craft.Default()
	epoxy, _ := base.Product("primer_epoxy")
	l := &craft.Label{}
	l.Has[craft.LabelPotLife], l.At[craft.LabelPotLife] = true, .05
	c, ps := base.WithCans([]craft.Can{{Kind: epoxy, Label: l}})
	step := surface.Step{Do: surface.Coat, Product: ps[0], Method: "brush"}
	b := BatchOf(&Coat{Step: 1, CoatNo: 1, Product: ps[0], Mixed: litres(2)}, Mixing{Craft: c, Facts: &surface.Facts{Area: 16}, Step: &step, Air: drying.Climate{TempC: 40, RH: 50}, Measures: measure.UsualMeasures(measure.Metric)})
	if b.Pots != mostPots || b.Makes <= 0 || b.Total() < 2 {
		t.Errorf("%d pots of %v l", b.Pots, b.Makes)
	}
}

func BenchmarkBatch(b *testing.B) {
	c := craft.Default()
	p, _ := c.Product("paint_milk")
	step := surface.Step{Do: surface.Coat, Product: p, Method: "brush", Additive: .5}
	m := Mixing{Craft: c, Facts: &surface.Facts{Area: 2}, Step: &step, Air: drying.Usual, Measures: measure.Measures{By: measure.Cups, CupML: measure.MetricCup}}
	coat := Coat{Step: 1, CoatNo: 1, Product: p, Mixed: litres(.3)}
	for b.Loop() {
		BatchOf(&coat, m)
	}
}
