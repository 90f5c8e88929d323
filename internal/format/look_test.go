package format

import (
	"encoding/json"
	"errors"
	"math"
	"reflect"
	"strings"
	"testing"

	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/parts"
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

func decoded(t testing.TB, s string) *Piece {
	t.Helper()
	p, err := Decode([]byte(s))
	if err != nil {
		t.Fatal(err)
	}
	return p
}

func lookOf(t testing.TB, s string, u measure.Units) Look {
	t.Helper()
	return *Check(craft.Default(), decoded(t, s), CheckOptions{Site: usual, Units: u, Look: true}).Look
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
	for i, q := range p.Measured() {
		w := PartFrom(&q)
		w.Zone, w.ThickCM, w.BaseCM, w.Count = p.Parts[i].Zone, p.Parts[i].ThickCM, p.Parts[i].BaseCM, p.Parts[i].Count
		if !reflect.DeepEqual(w, p.Parts[i]) {
			t.Errorf("part %d: %+v became %+v", i, p.Parts[i], w)
		}
	}
}

func TestAreasOfZonesComeFromTheirParts(t *testing.T) {
	l := lookOf(t, chest, measure.Metric)
	body, fronts := l.Zones[0], l.Zones[1]
	legs := 4 * math.Pi * 5 * 12 * 1.25 / 1e4
	want := (82*46+2*128*2+2*80*45+80*80-76.4*76.4)/1e4 + legs
	if math.Abs(body.AreaM2-want) > 1e-4 || body.Typed || body.Parts != 3 || math.Abs(body.CoverM2-want-.2*legs) > 1e-4 {
		t.Errorf("the body is %+v, by hand %v m²", body, want)
	}
	if fronts.AreaM2 != .5 || !fronts.Typed || math.Abs(fronts.PartsM2-3*(76*25+2*101*1.8)/1e4) > 1e-4 || !strings.Contains(fronts.Says, "typed; its parts come to 0.679 m²") {
		t.Errorf("the fronts are %+v", fronts)
	}
	if l.Loose != 1 || l.Parts[5].Area == "not painted" || l.Parts[3].Area != "not painted" || !l.Parts[3].Hidden {
		t.Errorf("%d parts in no zone; knobs %+v, boxes %+v", l.Loose, l.Parts[5], l.Parts[3])
	}
	if l.Parts[2].Sizes != "76 × 25 × 1.8 cm" || l.Parts[2].Title != "Fronts" {
		t.Errorf("%+v", l.Parts[2])
	}
	if us := lookOf(t, chest, measure.US); us.Parts[0].Sizes != "32 5/16 × 18 1/8 × 13/16 in" || us.Zones[1].Area != "5.38 sq ft" {
		t.Errorf("%s, %s", us.Parts[0].Sizes, us.Zones[1].Area)
	}
	// A zone's area counts in the check, however it is known, and so does how
	// fiddly it is.
	p := decoded(t, chest)
	z := p.Zone(craft.Default(), 0, usual)
	if math.Abs(z.Area-want) > 1e-9 || z.Work <= 1 {
		t.Errorf("the check counts %v m², %v times the work", z.Area, z.Work)
	}
	if z := p.Zone(craft.Default(), 1, usual); z.Area != .5 {
		t.Errorf("the check counts %v m² where .5 was typed", z.Area)
	}
}

func TestElevationOnTheWire(t *testing.T) {
	e := lookOf(t, chest, measure.Metric).Elevation
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

func TestMendingAndFittings(t *testing.T) {
	l := lookOf(t, chest, measure.Metric)
	z := l.Zones[0].Mending
	if len(z.Items) != 2 || z.Items[0].Filler != "filler_two_part" || z.Items[1].GlueML != 1.5 || !strings.Contains(z.Items[0].Takes, "two-part filler 2 ml") {
		t.Errorf("%+v", z)
	}
	// New handles leave the four old holes to be filled.
	if n := len(l.Mending.Items); n != 3 || l.Mending.Items[2].Defect != "hole" || l.Mending.Minutes <= z.Minutes {
		t.Errorf("%d items of the whole piece", n)
	}
	f := l.Fittings
	if f[0].Labels != "R1–R3" || f[0].Title != "Drawers" || f[0].Do != "off" || f[1].Holes != "Other holes: fill 4 and drill 4 at 96 mm, before paint." || !f[1].Drills || f[2].Title != "Cheval glass" || f[2].Do != "mask" {
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
		{chest, "1 mm now; the plan will tell how much the coats take", false},
		{coats(`{"do": "coat", "product": "primer_bond_wb"}, {"do": "coat", "product": "paint_chalk", "coats": 2}`), "1 mm now, 0.77 mm once both faces carry 0.12 mm of coats", false},
		{strings.Replace(coats(`{"do": "coat", "product": "primer_bond_wb"}, {"do": "coat", "product": "paint_chalk", "coats": 4}`), `"gap_mm": 1`, `"gap_mm": 0.5`, 1), "it will stick; plane it before paint", true},
	} {
		if p := lookOf(t, c.in, measure.Metric).Parts[2]; !strings.Contains(p.Fit, c.says) || p.Tight != c.tight {
			t.Errorf("%q, tight %v; want %q", p.Fit, p.Tight, c.says)
		}
	}
}

func TestBadPartsAreNamed(t *testing.T) {
	put := func(field, value string) string {
		return `{"format": "rutile/piece", "version": 1, "zones": [{"id": "a", "substrate": "oak"}], "` + field + `": ` + value + `}`
	}
	for _, c := range []struct{ in, path, says string }{
		{put("parts", `[{"kind": "gizmo"}]`), "$.parts[0].kind", "not a known id"},
		{put("parts", `[{"kind": "drawr_front"}]`), "$.parts[0].kind", "did you mean drawer_front?"},
		{put("parts", `[{"kind": "top", "width_cm": 80, "depth_cm": 0}]`), "$.parts[0].depth_cm", "too small, more than 0"},
		{put("parts", `[{"kind": "top", "width_cm": -80, "depth_cm": 5}]`), "$.parts[0].width_cm", "too small, more than 0"},
		{put("parts", `[{"kind": "top", "width_cm": 80, "depth_cm": 900}]`), "$.parts[0].depth_cm", "too large, at most 600"},
		{put("parts", `[{"kind": "top", "width_cm": 80, "depth_cm": 0.01}]`), "$.parts[0].depth_cm", "less than a millimetre"},
		{put("parts", `[{"kind": "top", "width_cm": 80}]`), "$.parts[0].depth_cm", "A top has width × depth"},
		{put("parts", `[{"kind": "pane", "width_cm": 80, "height_cm": 40, "thick_cm": 3}]`), "$.parts[0].thick_cm", "A pane has no such size"},
		{put("parts", `[{"kind": "frame", "width_cm": 10, "height_cm": 40, "member_cm": 6}]`), "$.parts[0].member_cm", "leave no opening"},
		{put("parts", `[{"kind": "pane", "width_cm": 80, "height_cm": 40, "faces": ["under"]}]`), "$.parts[0].faces[0]", "pane has no such face"},
		{put("parts", `[{"kind": "knob", "across_cm": 3, "count": 0}]`), "$.parts[0].count", "too small, at least 1"},
		{put("parts", `[{"kind": "knob", "across_cm": 3, "zone": "b"}]`), "$.parts[0].zone", "the piece has no such zone"},
		{put("take_apart", `[{"kind": "gear"}]`), "$.take_apart[0].kind", "not a known id"},
		{put("take_apart", `[{"kind": "handle", "holes_mm": -3}]`), "$.take_apart[0].holes_mm", "too small"},
		{put("photos", `[{"file": "../../etc/passwd"}]`), "$.photos[0].file", "not in the form of a picture's file name"},
		{put("photos", `[{"file": "a.jpg"}, {"file": "a.jpg"}]`), "$.photos[1].file", "the same picture stands in the list twice"},
		{put("photos", `[{"file": "a.jpg", "zone": "b"}]`), "$.photos[0].zone", "the piece has no such zone"},
		{put("photos", `[{"file": "a.jpg", "markers": [{"x": 2, "y": 0}]}]`), "$.photos[0].markers[0].x", "too large, at most 1"},
		{put("photos", `[{"file": "a.jpg", "markers": [{"x": 1, "y": 0, "defect": "Q"}]}]`), "$.photos[0].markers[0].defect", "no damage has this label"},
		{put("history", `{"paid_minor": 1.5}`), "$.history.paid_minor", "expected integer"},
		{zoneJSON(`"substrate": "oak", "defects": [{"id": "hole", "label": "A"}, {"id": "chip", "label": "A"}]`), "$.zones[0].defects[1].label", "has this label already"},
		{zoneJSON(`"substrate": "oak", "defects": [{"id": "hole", "label": ""}]`), "$.zones[0].defects[0].label", "nothing stands here"},
	} {
		_, err := Decode([]byte(c.in))
		var e *Error
		if !errors.As(err, &e) || e.Path != c.path || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%s: %v; want %s and %q", c.in[47:], err, c.path, c.says)
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
		p := New(tp.Name)
		p.Parts = PartsFrom(ps)
		data, err := json.Marshal(p)
		if err != nil {
			t.Fatal(err)
		}
		for j, q := range decoded(t, string(data)).Measured() {
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

func TestAreasTable(t *testing.T) {
	var b strings.Builder
	p := decoded(t, chest)
	l := LookOver(craft.Default(), p, CheckOptions{Site: usual}, nil)
	if err := l.Areas(&b, p, measure.Metric); err != nil {
		t.Fatal(err)
	}
	for _, want := range []string{
		"Prop chest", "Fronts        3      76 × 25 × 1.8 cm", "Drawer boxes  3      70 × 40 × 20 × 1.2 cm  not painted",
		"fronts  1      0.5 m² (typed)", "x 1.10, plain work",
	} {
		if !strings.Contains(b.String(), want) {
			t.Errorf("%q is not in\n%s", want, b.String())
		}
	}
}

func TestChangesOfALook(t *testing.T) {
	a, b := decoded(t, chest), decoded(t, chest)
	b.Parts[0].WidthCM = 83
	b.TakeApart[0].Off = false
	b.Photos[0].Caption = "The left side"
	b.History.Note = "Smells of smoke"
	got := strings.Join(Changes(a, b), "\n")
	want := "The parts were changed.\nThe list of what comes off was changed.\nThe photographs or their markers were changed.\nWhat is known of the piece's past was changed."
	if got != want {
		t.Errorf("%s", got)
	}
}

func BenchmarkLookOver(b *testing.B) {
	p := decoded(b, chest)
	b.ReportAllocs()
	for b.Loop() {
		LookOver(craft.Default(), p, CheckOptions{Site: usual}, nil)
	}
}

// What the taking apart leaves on a zone, what slides in it, and what its paint
// lies on beside that of the others, come to the rules.
func TestThePieceReachesTheRules(t *testing.T) {
	p := New("Table")
	gap := .4
	chalk := []Step{{Do: "coat", Product: "paint_chalk", Coats: 2}}
	p.Zones = []Zone{
		{ID: "top", Name: "Top", Substrate: "birch", Finish: "none", Soils: []Level{}, Target: &Target{Colour: "#e4e8df"}, Steps: chalk},
		{ID: "front", Name: "Front", Substrate: "birch", Finish: "varnish_oil", Soils: []Level{}, Target: &Target{Colour: "#e4e8df"}, Steps: append(chalk, Step{Do: "reassemble"})},
	}
	p.Parts = []Part{{Kind: "drawer_front", WidthCM: 40, HeightCM: 12, Zone: "front", GapMM: &gap}}
	p.TakeApart = []Fitting{{Kind: "knob", Count: 2, Do: "stay", Zone: "front"}, {Kind: "hinge", Do: "stay"}, {Kind: "glass", Do: "mask", Zone: "front"}, {Kind: "shelf", Do: "stay", Zone: "top"}}
	r := Check(craft.Default(), &p, CheckOptions{Site: usual, NoRepairs: true})
	has := func(zone int, code string) string {
		for _, f := range r.Zones[zone].Findings {
			if f.Code == code {
				return f.Title
			}
		}
		return ""
	}
	if got := has(1, "prep.no_removal"); got != "Knobs in the way" {
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
	r = Check(craft.Default(), &p, CheckOptions{Site: usual, NoRepairs: true})
	if got := has(0, "prep.no_removal"); got != "Hinge in the way" {
		t.Errorf("on the only zone: %q", got)
	}
	p.TakeApart[0].Zone = "front"
	if _, err := Decode(encoded(t, &p)); err == nil || !strings.Contains(err.Error(), "$.take_apart[0].zone") {
		t.Errorf("a fitting on no zone: %v", err)
	}
}

func encoded(t *testing.T, p *Piece) []byte {
	t.Helper()
	b, err := json.Marshal(p)
	if err != nil {
		t.Fatal(err)
	}
	return b
}

// Hiding, chips and readiness are written where they mean something, and null
// where they do not.
func TestLookOnTheWire(t *testing.T) {
	judge := func(look string, steps ...Step) ZoneResult {
		p := New("Box")
		p.Zones = []Zone{{ID: "a", Substrate: "beech", Finish: "polyurethane", Gloss: "gloss", Soils: []Level{}, Target: &Target{Colour: "#dfe3d6", Look: look}, Steps: steps}}
		return Check(craft.Default(), &p, CheckOptions{Site: usual, Section: true}).Zones[0]
	}
	chippy := judge("chippy", Step{Do: "coat", Product: "paint_milk", Coats: 2}, Step{Do: "effect", Effect: "chippy"}, Step{Do: "dust"}, Step{Do: "coat", Product: "wax_clear"})
	if x := chippy.Chips; x == nil || x.P10 >= x.P50 || x.P50 >= x.P90 || x.Layer != "varnish_film" || x.Words == "" || len(x.Figures) < 5 {
		t.Errorf("%+v", chippy.Chips)
	}
	if chippy.Hiding != nil || chippy.Section.Layers[2].Joint.Holds != "meant" {
		t.Errorf("flaking paint: hiding %+v, its bond %s", chippy.Hiding, chippy.Section.Layers[2].Joint.Holds)
	}
	solid := judge("solid", Step{Do: "coat", Product: "primer_bond_wb"}, Step{Do: "coat", Product: "paint_acrylic", Coats: 2}, Step{Do: "coat", Product: "clear_wb", Coats: 2})
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
