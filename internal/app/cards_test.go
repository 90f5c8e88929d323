package app

import (
	"encoding/json"
	"reflect"
	"strings"
	"testing"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/internal/wire"
)

const trunk = `{"format":"rutile/piece","version":1,"name":"Trunk","made":2000,"zones":[{"id":"outside","substrate":"beech","finish":"varnish_oil","gloss":"satin","soils":[],"colour":"#2a1c14",
	"area_m2":1.85,"target":{"colour":"#d3dcd2","look":"solid"},"steps":[{"do":"abrade","grit":220,"how":"hand"},{"do":"dust"},
	{"do":"coat","product":"paint_milk","coats":3,"additive":{"product":"bonding_additive","ratio":0.5},"mix":{"paint_l":0.2,"unstrained":true,"blend":[
		{"kind":"paint_milk","colour":"#d3d8d8","parts":3,"name":"Fog"},{"kind":"paint_milk","colour":"#4a6a4d","parts":1,"name":"Moss"}]}},
	{"do":"coat","product":"paint_diy_chalk","mix":{"recipe":"plaster"}},{"do":"coat","product":"glaze_wb","mix":{"tint_ratio":0.1}}]}]}`

func decodedPiece(t testing.TB, data string) *wire.Piece {
	t.Helper()
	p, err := wire.Decode([]byte(data))
	if err != nil {
		t.Fatal(err)
	}
	return p
}

// How a coat is mixed comes back from the core as it was read, blend and all.
func TestMixComesBack(t *testing.T) {
	p := decodedPiece(t, trunk)
	j := NewEngine(craft.Default()).Job(p, Workshop{Air: drying.Usual})
	back := j.stepsFrom(j.Zones[0].Steps)
	for i, s := range p.Zones[0].Steps {
		if !reflect.DeepEqual(back[i].Mix, s.Mix) {
			t.Errorf("step %d comes back as %+v, not %+v", i+1, back[i].Mix, s.Mix)
		}
	}
}

func TestCardsOfAPiece(t *testing.T) {
	p := decodedPiece(t, trunk)
	e := NewEngine(craft.Default())
	cups := e.Job(p, Workshop{Air: drying.Usual, Measures: measure.Measures{By: measure.Cups, CupML: 250}}).ZoneCards(0)
	if len(cups.Cards) != 5 || cups.Needs != "" || cups.Area != "1.85 m²" {
		t.Fatalf("%d cards: %+v", len(cups.Cards), cups)
	}
	c := cups.Cards[0]
	if c.ID != "3-1" || c.Title != "Milk paint, coat 1 of 3" || !c.Blend || len(c.Choices) != 2 {
		t.Errorf("the first card is %+v", c)
	}
	// .2 l of paint: .2 / 1.55 = .129 l of powder in four parts of 32.3 ml, 2 tbsp and ¾ tsp each.
	b := c.Batch.Portions[0]
	if len(b.Parts) != 2 || b.Parts[0].Says != "3 × 2 tbsp and ½ tsp" || b.Parts[1].Litres != .0325 || b.ExactL < .129 || b.ExactL > .1291 {
		t.Errorf("the blend is %+v", b)
	}
	for _, s := range c.Mix.Steps {
		if strings.Contains(s.Says, "Strain") {
			t.Errorf("unstrained, and the card says %q", s.Says)
		}
	}
	if plaster := cups.Cards[3]; !strings.Contains(plaster.Batch.Like, "chalkiest") || plaster.Batch.LifeH > 3 {
		t.Errorf("the plaster paint is %+v", plaster.Batch)
	}
	// The same in other measures is other words and no less paint.
	for v := range measure.NumVessels {
		z := e.Job(p, Workshop{Air: drying.Usual, Measures: measure.Measures{By: v, CupML: 237, Units: measure.Metric}}).ZoneCards(0)
		for _, c := range z.Cards {
			if c.Batch.Refused == "" && c.Batch.MakesL*float64(c.Batch.Pots) < c.Batch.NeedL-.001 && c.Step != 3 {
				t.Errorf("in %s, %s makes %v l of %v", measure.Vessels[v].ID, c.Title, c.Batch.MakesL, c.Batch.NeedL)
			}
		}
	}
}

// An area of nothing, a plan without coats, an unknown cup: what is missing is said, and the cards are there.
func TestCardsOfWhatIsNotKnown(t *testing.T) {
	e := NewEngine(craft.Default())
	p := decodedPiece(t, trunk)
	p.Zones[0].AreaM2 = 0
	z := e.Job(p, Workshop{Air: drying.Usual}).ZoneCards(0)
	if z.Needs != "area" || len(z.Cards) != 5 || z.Cards[0].Batch.Refused == "" || len(z.Cards[0].Lay.Steps) == 0 {
		t.Errorf("without an area: %+v", z)
	}
	p.Zones[0].Steps = nil
	if z := e.Job(p, Workshop{Air: drying.Usual}).ZoneCards(0); z.Needs != "steps" || len(z.Cards) != 0 {
		t.Errorf("without a plan: %+v", z)
	}
	p = decodedPiece(t, trunk)
	z = e.Job(p, Workshop{Air: drying.Usual, Measures: measure.Measures{By: measure.Cups}}).ZoneCards(0)
	if !strings.Contains(z.Cards[0].Batch.Refused, "what your cup holds") {
		t.Errorf("with an unknown cup: %+v", z.Cards[0].Batch)
	}
}

// The balls of a two-part filler are as large as can be worked at this warmth.
func TestFillerIsMixedInBalls(t *testing.T) {
	p := decodedPiece(t, `{"format":"rutile/piece","version":1,"zones":[{"id":"a","substrate":"beech","area_m2":1,"soils":[],"defects":[{"id":"hole","count":60,"size_mm":12}],
		"steps":[{"do":"fill","with":"filler_two_part"}]}]}`)
	e := NewEngine(craft.Default())
	cold, warm := e.Job(p, Workshop{Air: drying.Climate{TempC: 10, RH: 50}}).ZoneCards(0).Cards[0], e.Job(p, Workshop{Air: drying.Climate{TempC: 30, RH: 50}}).ZoneCards(0).Cards[0]
	if cold.Kind != "fill" || cold.Batch.Pots >= warm.Batch.Pots || cold.Batch.LifeH <= 3*warm.Batch.LifeH {
		t.Errorf("cold %+v, warm %+v", cold.Batch, warm.Batch)
	}
	for _, c := range []wire.Card{cold, warm} {
		f, h := c.Batch.Portions[0].Grams, c.Batch.Portions[1].Grams
		if h < f*.02-1e-9 || h > f*.02+.1 {
			t.Errorf("%v g of hardener to %v g of filler", h, f)
		}
	}
}

func TestMeasuresOfAStudio(t *testing.T) {
	for _, x := range []struct {
		u      measure.Units
		vessel string
		cup    float64
		want   measure.Measures
	}{
		{measure.Metric, "", 0, measure.Measures{By: measure.Millilitres, CupML: 250}},
		{measure.US, "", 0, measure.Measures{By: measure.Cups, Units: measure.US, CupML: measure.USCup}},
		{measure.Metric, "cups", 180, measure.Measures{By: measure.Cups, CupML: 180}},
		{measure.US, "fl_oz", 0, measure.Measures{By: measure.FluidOunces, Units: measure.US, CupML: measure.USCup}},
		{measure.Metric, "buckets", 0, measure.Measures{By: measure.Millilitres, CupML: 250}},
	} {
		if got := MeasuresOf(x.u, x.vessel, x.cup); got != x.want {
			t.Errorf("%v %q %v: %+v", x.u, x.vessel, x.cup, got)
		}
	}
}

func BenchmarkZoneCards(b *testing.B) {
	p := decodedPiece(b, trunk)
	e := NewEngine(craft.Default())
	for b.Loop() {
		z := e.Job(p, Workshop{Air: drying.Usual}).ZoneCards(0)
		if _, err := json.Marshal(z); err != nil {
			b.Fatal(err)
		}
	}
}
