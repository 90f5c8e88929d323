package app

import (
	"encoding/json"
	"math"
	"reflect"
	"strings"
	"testing"

	"rutile/core/measure"
	"rutile/core/parts"
	"rutile/internal/wire"
)

// chest is a chest of two materials, looked over.
const chest = `{"format": "rutile/piece", "version": 1, "name": "Prop chest", "site": {"temp_c": 20, "rh_pct": 50},
"zones": [
  {"id": "body", "substrate": "pine", "finish": "varnish_oil", "soils": [], "defects": [
     {"id": "hole", "count": 4, "size_mm": 6, "place": "left side", "label": "A"}, {"id": "knot", "count": 3}, {"id": "open_joint", "length_cm": 30, "label": "B"}]},
  {"id": "fronts", "substrate": "melamine", "finish": "none", "area_m2": 0.5}],
"parts": [
  {"kind": "top", "width_cm": 82, "depth_cm": 46, "thick_cm": 2, "zone": "body"},
  {"kind": "carcass", "width_cm": 80, "height_cm": 80, "depth_cm": 45, "zone": "body"},
  {"kind": "drawer_front", "name": "Fronts", "count": 3, "width_cm": 76, "height_cm": 25, "zone": "fronts", "gap_mm": 1},
  {"kind": "drawer_box", "count": 3, "width_cm": 70, "depth_cm": 40, "height_cm": 20, "faces": []},
  {"kind": "leg_turned", "count": 4, "height_cm": 12, "across_cm": 5, "zone": "body", "relief": "moulded"},
  {"kind": "knob", "count": 6, "across_cm": 3, "faces": ["round"]}],
"take_apart": [
  {"kind": "drawer", "count": 3, "off": true}, {"kind": "handle", "count": 2, "holes_mm": 64, "new_holes_mm": 96},
  {"kind": "mirror", "do": "mask", "name": "Cheval glass", "note": "Leave its paper on."}],
"photos": [{"file": "a1b2.jpg", "zone": "body", "width": 2048, "height": 1536, "taken": "2026-10-31",
  "markers": [{"x": 0.25, "y": 0.5, "defect": "A"}, {"x": 1, "y": 0, "note": "here"}]}],
"history": {"found": "In the attic over the stage", "paid_minor": 4500, "earlier": [{"year": 1994, "what": "Painted white, badly"}]}}`

func overviewOf(t testing.TB, s string, u measure.Units) wire.Overview {
	t.Helper()
	w := usual
	w.Units = u
	r, err := engine.Job(decoded(t, s), w).Check(ctx, Want{Look: true})
	if err != nil {
		t.Fatal(err)
	}
	return *r.Overview
}

func TestALookedOverPieceComesBackAsItWas(t *testing.T) {
	p := decoded(t, chest)
	data, err := json.Marshal(p)
	if err != nil {
		t.Fatal(err)
	}
	again := decoded(t, string(data))
	if !reflect.DeepEqual(p, again) {
		t.Errorf("%+v became %+v", p, again)
	}
	// Through the core and back, what the core fills in is all that is added.
	for i, q := range job(p).Parts {
		w := wire.PartFrom(&q)
		w.Zone, w.ThickCM, w.BaseCM, w.Count = p.Parts[i].Zone, p.Parts[i].ThickCM, p.Parts[i].BaseCM, p.Parts[i].Count
		if !reflect.DeepEqual(w, p.Parts[i]) {
			t.Errorf("part %d: %+v became %+v", i, p.Parts[i], w)
		}
	}
}

func TestAreasOfZonesComeFromTheirParts(t *testing.T) {
	l := overviewOf(t, chest, measure.Metric)
	body, fronts := l.Zones[0], l.Zones[1]
	legs := 4 * math.Pi * 5 * 12 * 1.25 / 1e4
	want := (82*46+2*128*2+2*80*45+80*80-76.4*76.4)/1e4 + legs
	if math.Abs(body.AreaM2-want) > 1e-4 || body.Typed || body.Parts != 3 || math.Abs(body.CoverM2-want-.2*legs) > 1e-4 {
		t.Errorf("the body is %+v, by hand %v m²", body, want)
	}
	if fronts.AreaM2 != .5 || !fronts.Typed || math.Abs(fronts.PartsM2-3*(76*25+2*101*1.8)/1e4) > 1e-4 || !strings.Contains(fronts.Says, "typed; its parts add up to 0.679 m²") {
		t.Errorf("the fronts are %+v", fronts)
	}
	if l.Loose != 1 || l.Parts[5].Area == "not painted" || l.Parts[3].Area != "not painted" || !l.Parts[3].Hidden {
		t.Errorf("%d parts in no zone; knobs %+v, boxes %+v", l.Loose, l.Parts[5], l.Parts[3])
	}
	if l.Parts[2].Sizes != "76 × 25 × 1.8 cm" || l.Parts[2].Title != "Fronts" {
		t.Errorf("%+v", l.Parts[2])
	}
	if us := overviewOf(t, chest, measure.US); us.Parts[0].Sizes != "32 5/16 × 18 1/8 × 13/16 in" || us.Zones[1].Area != "5.38 sq ft" {
		t.Errorf("%s, %s", us.Parts[0].Sizes, us.Zones[1].Area)
	}
	// A zone's area counts in the check, however it is known, and so does how
	// fiddly it is.
	p := decoded(t, chest)
	z := job(p).Zones[0]
	if math.Abs(z.Area-want) > 1e-9 || z.Work <= 1 {
		t.Errorf("the check counts %v m², %v times the work", z.Area, z.Work)
	}
	if z := job(p).Zones[1]; z.Area != .5 {
		t.Errorf("the check counts %v m² where .5 was typed", z.Area)
	}
}

func TestElevationOnTheWire(t *testing.T) {
	e := overviewOf(t, chest, measure.Metric).Elevation
	if e.W != 82 || e.H != 94 || e.Says != "82 cm wide, 94 cm high" || len(e.Shapes) != 13 {
		t.Errorf("%v x %v, %q, %d shapes", e.W, e.H, e.Says, len(e.Shapes))
	}
	for _, s := range e.Shapes {
		if !strings.HasPrefix(s.D, "M") || !strings.HasSuffix(s.D, "Z") || strings.ContainsAny(s.D+s.Lines, "eN") {
			t.Errorf("a path %.60q", s.D)
		}
	}
	if top := e.Shapes[1+3+6+2]; e.Shapes[0].D == "" || top.Part != 0 || top.D != "M0 2L82 2L82 0L0 0Z" {
		t.Errorf("the top is %+v", top)
	}
}

func TestDamageAndFittings(t *testing.T) {
	l := overviewOf(t, chest, measure.Metric)
	z := l.Zones[0].DamageWork
	if len(z.Items) != 2 || z.Items[0].Filler != "filler_two_part" || z.Items[1].GlueML != 1.5 || !strings.Contains(z.Items[0].Takes, "two-part filler 3 ml") {
		t.Errorf("%+v", z)
	}
	// New handles leave the four old holes to be filled.
	if n := len(l.DamageWork.Items); n != 3 || l.DamageWork.Items[2].Defect != "hole" || l.DamageWork.Minutes <= z.Minutes {
		t.Errorf("%d items of the whole piece", n)
	}
	// In US units, the holes too.
	us := overviewOf(t, chest, measure.US)
	if got := us.Fittings[1].Holes; got != "The holes differ: before painting, fill 4 and drill 4, in pairs 3.78 in apart." {
		t.Errorf("%q", got)
	}
	f := l.Fittings
	if f[0].Labels != "R1–R3" || f[0].Title != "Drawers" || f[0].Do != "off" || f[1].Holes != "The holes differ: before painting, fill 4 and drill 4, in pairs 96 mm apart." || !f[1].Drills || f[2].Title != "Cheval glass" || f[2].Do != "mask" {
		t.Errorf("%+v", f)
	}
	if len(l.Suggested) != 1 || l.Suggested[0].Kind != "knob" || l.Suggested[0].Count != 6 {
		t.Errorf("suggested: %+v", l.Suggested)
	}
}

func TestFitAfterTheCoats(t *testing.T) {
	coats := func(steps string) string {
		return strings.Replace(chest, `"area_m2": 0.5}`, `"area_m2": 0.5, "steps": [`+steps+`]}`, 1)
	}
	for _, c := range []struct {
		in, says string
		tight    bool
	}{
		{chest, "1 mm now; the plan will show how much the coats take up", false},
		{coats(`{"do": "coat", "product": "primer_bond_wb"}, {"do": "coat", "product": "paint_chalk", "coats": 2}`), "1 mm now, 0.77 mm once both faces carry 0.12 mm of coats", false},
		{strings.Replace(coats(`{"do": "coat", "product": "primer_bond_wb"}, {"do": "coat", "product": "paint_chalk", "coats": 4}`), `"gap_mm": 1`, `"gap_mm": 0.5`, 1), "it will stick; plane it before paint", true},
	} {
		if p := overviewOf(t, c.in, measure.Metric).Parts[2]; !strings.Contains(p.Fit, c.says) || p.Tight != c.tight {
			t.Errorf("%q, tight %v; want %q", p.Fit, p.Tight, c.says)
		}
	}
}

// Every usual piece goes into a file and comes out of it with the same areas.
func TestTemplatesAreValidParts(t *testing.T) {
	for i := range parts.Templates {
		tp := &parts.Templates[i]
		ps, err := tp.Make(nil, nil, measure.Metric)
		if err != nil {
			t.Fatal(err)
		}
		p := wire.New(tp.Name)
		p.Parts = wire.PartsFrom(ps)
		data, err := json.Marshal(p)
		if err != nil {
			t.Fatal(err)
		}
		for j, q := range job(decoded(t, string(data))).Parts {
			if q != ps[j] {
				t.Errorf("%s: %+v became %+v", tp.ID, ps[j], q)
			}
		}
	}
	for _, u := range []measure.Units{measure.Metric, measure.US} {
		for _, w := range Templates(u) {
			if len(w.Elevation.Shapes) == 0 || w.Sizes == "" || w.Asks == "" {
				t.Errorf("%+v", w)
			}
		}
	}
}

func TestChangesOfALook(t *testing.T) {
	a, b := decoded(t, chest), decoded(t, chest)
	b.Parts[0].WidthCM = 83
	b.TakeApart[0].Off = false
	b.Photos[0].Caption = "The left side"
	b.History.Note = "Smells of smoke"
	got := strings.Join(wire.Changes(a, b), "\n")
	want := "The parts were changed.\nThe list of hardware was changed.\nThe photographs or their markers were changed.\nThe history of the piece was changed."
	if got != want {
		t.Errorf("%s", got)
	}
}

func BenchmarkLookOver(b *testing.B) {
	p := decoded(b, chest)
	b.ReportAllocs()
	for b.Loop() {
		job(p).Overview(nil)
	}
}

// What the taking apart leaves on a zone, what slides in it, and what its paint
// lies on beside that of the others, come to the rules.
func TestThePieceReachesTheRules(t *testing.T) {
	p := wire.New("Table")
	gap := .4
	paint := []wire.Step{{Do: "coat", Product: "paint_acrylic", Coats: 2}}
	p.Zones = []wire.Zone{
		{ID: "top", Name: "Top", Substrate: "birch", Finish: "none", Soils: []wire.Level{}, Target: &wire.Target{Colour: "#e4e8df"}, Steps: paint},
		{ID: "front", Name: "Front", Substrate: "birch", Finish: "varnish_oil", Soils: []wire.Level{}, Target: &wire.Target{Colour: "#e4e8df"}, Steps: append(paint, wire.Step{Do: "reassemble"})},
	}
	p.Parts = []wire.Part{{Kind: "drawer_front", WidthCM: 40, HeightCM: 12, Zone: "front", GapMM: &gap}}
	p.TakeApart = []wire.Fitting{{Kind: "knob", Count: 2, Do: "stay", Zone: "front"}, {Kind: "hinge", Do: "stay"}, {Kind: "glass", Do: "mask", Zone: "front"}, {Kind: "shelf", Do: "stay", Zone: "top"}}
	r := checked(t, &p, Want{})
	has := func(zone int, code string) string {
		for _, f := range r.Zones[zone].Findings {
			if f.Code == code {
				return f.Title
			}
		}
		return ""
	}
	if got := has(1, "prep.no_removal"); got != "Knobs not protected" {
		t.Errorf("on the front: %q", got)
	}
	if has(0, "prep.no_removal") != "" {
		t.Error("the top is told of what is not its own, or of a shelf that is painted with it")
	}
	if has(1, "film.block") == "" || has(1, "film.build") == "" || has(0, "film.block") != "" {
		t.Error("what slides does not reach the rules")
	}
	if got := has(0, "prep.mixed_base"); got != "It will not match Front" {
		t.Errorf("beside the front: %q", got)
	}
	// On a piece of one zone a fitting that names none belongs to it.
	p.Zones, p.Parts = p.Zones[:1], nil
	p.TakeApart = p.TakeApart[1:2]
	r = checked(t, &p, Want{})
	if got := has(0, "prep.no_removal"); got != "Hinge not protected" {
		t.Errorf("on the only zone: %q", got)
	}
	p.TakeApart[0].Zone = "front"
	if _, err := wire.Decode(asJSON(t, &p)); err == nil || !strings.Contains(err.Error(), "$.take_apart[0].zone") {
		t.Errorf("a fitting on no zone: %v", err)
	}
}

// Hiding, chips and readiness are written where they mean something, and null
// where they do not.
func TestLookOnTheWire(t *testing.T) {
	judge := func(look string, steps ...wire.Step) wire.ZoneResult {
		p := wire.New("Box")
		p.Zones = []wire.Zone{{ID: "a", Substrate: "beech", Finish: "polyurethane", Gloss: "gloss", Soils: []wire.Level{}, Target: &wire.Target{Colour: "#dfe3d6", Look: look}, Steps: steps}}
		return checked(t, &p, Want{Repairs: true, Section: true}).Zones[0]
	}
	chippy := judge("chippy", wire.Step{Do: "coat", Product: "paint_milk", Coats: 2}, wire.Step{Do: "effect", Effect: "chippy"}, wire.Step{Do: "dust"}, wire.Step{Do: "coat", Product: "wax_clear"})
	if x := chippy.Chips; x == nil || x.P10 >= x.P50 || x.P50 >= x.P90 || x.Layer != "varnish_film" || x.Words == "" || len(x.Figures) < 5 {
		t.Errorf("%+v", chippy.Chips)
	}
	if chippy.Hiding != nil || chippy.Section.Layers[2].Joint.Holds != "meant" {
		t.Errorf("flaking paint: hiding %+v, its bond %s", chippy.Hiding, chippy.Section.Layers[2].Joint.Holds)
	}
	solid := judge("solid", wire.Step{Do: "coat", Product: "primer_bond_wb"}, wire.Step{Do: "coat", Product: "paint_acrylic", Coats: 2}, wire.Step{Do: "coat", Product: "clear_wb", Coats: 2})
	h := solid.Hiding
	if solid.Chips != nil || h == nil || h.CoatsPlanned != 2 || h.CoatsNeeded != 2 || h.DeltaE > 1.5 || h.Sealed == h.Colour {
		t.Errorf("solid: %+v", h)
	}
	if q := solid.Ready; q == nil || !(q.Careful < q.Normal && q.Normal < q.Hard) {
		t.Errorf("ready: %+v", q)
	}
	if len(solid.Section.Faces) != 5 || solid.Section.Faces[0].Name != "Fresh" || len(solid.Section.Worn) < 2 {
		t.Errorf("faces %+v, worn %+v", solid.Section.Faces, solid.Section.Worn)
	}
	if none := judge("solid"); none.Hiding != nil || none.Chips != nil || none.Ready != nil {
		t.Errorf("of nothing: %+v %+v %+v", none.Hiding, none.Chips, none.Ready)
	}
}
