package app

import (
	"encoding/json"
	"fmt"
	"reflect"
	"testing"

	"rutile/core/craft"
	"rutile/core/surface"
	"rutile/internal/wire"
)

// The largest piece there may be, wrong in every step.
func largest() *wire.Piece {
	p := wire.New("Large")
	for i := range wire.MaxZones {
		z := wire.Zone{ID: fmt.Sprintf("z%d", i), Substrate: "oak", Soils: []wire.Level{{ID: "grease", Level: 3}, {ID: "silicone", Level: 3}}}
		for j := range wire.MaxSteps {
			s := wire.Step{Do: "coat", Product: "paint_acrylic", WaitH: num(.2)}
			if j%2 == 0 {
				s = wire.Step{Do: "clean", With: "detergent"}
			}
			z.Steps = append(z.Steps, s)
		}
		p.Zones = append(p.Zones, z)
	}
	return &p
}

// As the page is answered.
func BenchmarkCheckLargestPiece(b *testing.B) {
	p := largest()
	b.ReportAllocs()
	for b.Loop() {
		checked(b, p, Want{Repairs: true, Section: true, Brief: true})
	}
}

func TestRoundTripThroughTheCore(t *testing.T) {
	c := craft.Default()
	in := []wire.Step{
		{Do: "clean", With: "degreaser_alkaline", Rinse: true, Passes: 2},
		{Do: "abrade", Grit: 220, How: "hand", Through: true},
		{Do: "abrade", How: "pad"},
		{Do: "dust"}, {Do: "raise_grain"}, {Do: "reassemble"}, {Do: "mask", What: "the glass"}, {Do: "repair", What: "a joint"},
		{Do: "remove", What: "handles"}, {Do: "strip", How: "heat"}, {Do: "fill", With: "filler_two_part"},
		{Do: "coat", Product: "shellac_pigmented", Coats: 2, WaitH: num(12), Method: "brush", Scope: "knots"},
		{Do: "coat", Product: "paint_milk", Coats: 3, Method: "foam", Additive: &wire.Additive{Product: "bonding_additive", Ratio: .5, Coats: "first"}, WaterRatio: 1.5, Colour: "#aabbcc"},
		{Do: "coat", Product: "paint_chalk", ThinPct: 10},
		{Do: "coat", Product: "clear_wb", Sheen: "matt", WaitH: num(0)},
		{Do: "effect", Effect: "chippy", Heat: true, Wetted: true, Resist: "wax", Grit: 320, Share: .2},
		{Do: "wait", Hours: num(24)}, {Do: "wait", Hours: num(0)}, {Do: "test", Rating: whole(0)},
	}
	p := wire.New("All steps")
	p.Zones = []wire.Zone{{ID: "a", Substrate: "oak", Steps: in}}
	data, err := json.Marshal(p)
	if err != nil {
		t.Fatal(err)
	}
	q, err := wire.Decode(data)
	if err != nil {
		t.Fatal(err)
	}
	z := job(q).Zones[0]
	out := stepsFrom(c, z.Steps)
	for i := range in {
		if !reflect.DeepEqual(in[i], out[i]) {
			t.Errorf("step %d: %+v comes back as %+v", i+1, in[i], out[i])
		}
	}
	if len(in) != len(out) {
		t.Errorf("%d steps come back as %d", len(in), len(out))
	}
	kinds := map[string]bool{}
	for _, s := range in {
		kinds[s.Do] = true
	}
	for _, kind := range surface.Kinds {
		if !kinds[kind.ID] {
			t.Errorf("%s is not tried", kind.ID)
		}
	}
}

func num(x float64) *float64 { return &x }

func whole(x int) *int { return &x }

func TestSurveyReachesTheCore(t *testing.T) {
	c := craft.Default()
	p := decoded(t, `{"format": "rutile/piece", "version": 1, "made": 1931, "use": ["outdoor", "child"],
		"site": {"temp_c": 12, "rh_pct": 71}, "zones": [{"id": "a", "substrate": "pine", "finish": "paint_alkyd_old",
		"gloss_gu": 62, "moisture_pct": 11, "soils": [{"id": "grease", "level": 2}], "bleeders": [{"id": "resin", "level": 3}],
		"defects": [{"id": "knot", "count": 4}, {"id": "flaking"}], "area_m2": 2.5, "wear": "seat", "veneer": true,
		"lead_test": {"result": "negative", "by": "swab", "date": "2026-10-01"},
		"target": {"colour": "#112233", "look": "chippy"}}]}`)
	z := job(p).Zones[0]
	switch {
	case c.Substrates[z.Substrate].ID != "pine" || c.Finishes[z.Finish].ID != "paint_alkyd_old":
		t.Error("substrate or finish is lost")
	case z.Gloss != craft.SemiGloss:
		t.Errorf("62 gloss units are %v", z.Gloss)
	case z.Moisture != 11 || z.Area != 2.5 || !z.Veneer || z.Wear != craft.Seat:
		t.Error("moisture, area, veneer or wear is lost")
	case z.Soils[craft.Grease] != 2 || !z.SoilsKnown || z.Bleeders[craft.Resin] != 3 || !z.GivenBleeders:
		t.Error("soils or bleeders are lost")
	case z.Knots != 4 || z.Loose&craft.LooseFlakes == 0:
		t.Error("defects are lost")
	case z.Uses != craft.UseOutdoor|craft.Child || z.Made != 1931:
		t.Error("use or year is lost")
	case z.Climate.TempC != 12 || z.Climate.RH != 71:
		t.Error("the site is lost")
	case leadOf(craft.Default(), &z).State != "suspect":
		t.Error("a home swab decided about lead")
	case z.Colour != "#112233" || z.Look != "chippy":
		t.Error("the target is lost")
	}
	p.Zones[0].LeadTest.By = "laboratory"
	if z := job(p).Zones[0]; leadOf(c, &z).State != "excluded" {
		t.Error("a laboratory did not decide about lead")
	}
	// What is absent.
	p = zonePiece(t, `"substrate": "oak"`)
	z = job(p).Zones[0]
	if !c.Finishes[z.Finish].Unknown || z.SoilsKnown || z.GivenBleeders || z.Wear != craft.Handled || z.Moisture >= 0 || z.Climate != usual.Air {
		t.Errorf("what is absent is taken as %+v", z.Facts)
	}
}

func BenchmarkCheckPiece(b *testing.B) {
	p := example(b)
	b.ReportAllocs()
	for b.Loop() {
		checked(b, p, Want{Repairs: true, Section: true})
	}
}
