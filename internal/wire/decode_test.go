package wire

import (
	"bytes"
	"encoding/json"
	"errors"
	"os"
	"path/filepath"
	"reflect"
	"strings"
	"testing"
)

const examplePath = "../../examples/programme-rack.json"

func example(t testing.TB) []byte {
	t.Helper()
	data, err := os.ReadFile(examplePath)
	if err != nil {
		t.Fatal(err)
	}
	return data
}

// zoneJSON is a piece with one zone that has the given fields beside its id.
func zoneJSON(fields string) string {
	if fields != "" {
		fields = ", " + fields
	}
	return `{"format": "rutile/piece", "version": 1, "zones": [{"id": "top"` + fields + `}]}`
}

func stepJSON(step string) string {
	return zoneJSON(`"substrate": "oak", "steps": [{"do": "dust"}, ` + step + `]`)
}

func TestBadInputIsNamed(t *testing.T) {
	long := strings.Repeat("n", 300)
	for _, x := range []struct {
		name, in, path, says string
	}{
		{"empty", ``, "", "not valid JSON: it ends too early"},
		{"cut short", `{"format": "rutile/piece", "ver`, "", "ends too early"},
		{"not JSON", "format = piece", "", "not valid JSON at line 1, column 2"},
		{"a stray comma", "{\n  \"format\": \"rutile/piece\",\n  ,\n}", "", "line 3, column 3"},
		{"more after it", `{"format": "rutile/piece", "version": 1} {}`, "", "not valid JSON"},
		{"not UTF-8", "{\"name\": \"\xff\xfe\"}", "", "not UTF-8"},
		{"a list", `[1]`, "$", "[1]: a piece file is a JSON object"},
		{"no format", `{"version": 1}`, "$.format", "missing"},
		{"another format", `{"format": "rutile/check", "version": 1}`, "$.format", `"rutile/check": this is not a piece file`},
		{"a format of another kind", `{"format": 7, "version": 1}`, "$.format", "7: this is not a piece file"},
		{"no version", `{"format": "rutile/piece"}`, "$.version", "missing"},
		{"a newer version", `{"format": "rutile/piece", "version": 2}`, "$.version", "2: written by a newer version of Rutile"},
		{"version as text", `{"format": "rutile/piece", "version": "1"}`, "$.version", "expected 1"},
		{"version nought", `{"format": "rutile/piece", "version": 0}`, "$.version", "expected 1"},
		{"an unknown field", `{"format": "rutile/piece", "version": 1, "colour": "red"}`, "$.colour", "no such field"},
		{"a field in a zone", zoneJSON(`"substrate": "oak", "size": 3`), "$.zones[0].size", "no such field"},
		{"no substrate", zoneJSON(""), "$.zones[0].substrate", "missing"},
		{"an unknown substrate", zoneJSON(`"substrate": "oka"`), "$.zones[0].substrate", `"oka": not a known id; did you mean oak?`},
		{"an unknown finish", zoneJSON(`"substrate": "oak", "finish": "varnish"`), "$.zones[0].finish", `"varnish": not a known id`},
		{"a negative area", zoneJSON(`"substrate": "oak", "area_m2": -1.5`), "$.zones[0].area_m2", "-1.5: too small, more than 0"},
		{"no area at all", zoneJSON(`"substrate": "oak", "area_m2": 0`), "$.zones[0].area_m2", "too small"},
		{"an area larger than a hall", zoneJSON(`"substrate": "oak", "area_m2": 1e9`), "$.zones[0].area_m2", "too large, at most 500"},
		{"an area as text", zoneJSON(`"substrate": "oak", "area_m2": "2"`), "$.zones[0].area_m2", `"2": expected number`},
		{"a level of 7", zoneJSON(`"substrate": "oak", "soils": [{"id": "grease", "level": 7}]`), "$.zones[0].soils[0].level", "7: too large, at most 3"},
		{"half a level", zoneJSON(`"substrate": "oak", "soils": [{"id": "grease", "level": 1.5}]`), "$.zones[0].soils[0].level", "expected integer"},
		{"an unknown soil", zoneJSON(`"substrate": "oak", "soils": [{"id": "jam", "level": 1}]`), "$.zones[0].soils[0].id", `"jam": not a known id`},
		{"a soil twice", zoneJSON(`"substrate": "oak", "soils": [{"id": "grease", "level": 1}, {"id": "grease", "level": 2}]`), "$.zones[0].soils[1].id", "twice"},
		{"a bad colour", zoneJSON(`"substrate": "oak", "target": {"colour": "pink"}`), "$.zones[0].target.colour", `"pink": not in the form #rrggbb`},
		{"a bad id", `{"format": "rutile/piece", "version": 1, "zones": [{"id": "The Top", "substrate": "oak"}]}`, "$.zones[0].id", "small letters"},
		{"an id twice", `{"format": "rutile/piece", "version": 1, "zones": [{"id": "a", "substrate": "oak"}, {"id": "a", "substrate": "ash"}]}`, "$.zones[1].id", `"a": zones[0] already has this id`},
		{"a novel for a name", `{"format": "rutile/piece", "version": 1, "name": "` + long + `"}`, "$.name", "300 characters: too long, at most 200"},
		{"an unknown use", `{"format": "rutile/piece", "version": 1, "use": ["moon"]}`, "$.use[0]", "known are indoor, outdoor"},
		{"half a site", `{"format": "rutile/piece", "version": 1, "site": {"temp_c": 20}}`, "$.site.rh_pct", "missing"},
		{"an oven", `{"format": "rutile/piece", "version": 1, "site": {"temp_c": 200, "rh_pct": 50}}`, "$.site.temp_c", "too large, at most 50"},
		{"a step that does nothing", stepJSON(`{}`), "$.zones[0].steps[1].do", "missing"},
		{"an unknown step", stepJSON(`{"do": "paint"}`), "$.zones[0].steps[1].do", `"paint": not a known id`},
		{"a step's foreign field", stepJSON(`{"do": "clean", "with": "detergent", "grit": 120}`), "$.zones[0].steps[1].grit", "a step that does clean has no such field"},
		{"an unknown product", stepJSON(`{"do": "coat", "product": "paint_chalky"}`), "$.zones[0].steps[1].product", "did you mean paint_chalk?"},
		{"no product", stepJSON(`{"do": "coat"}`), "$.zones[0].steps[1].product", "missing"},
		{"grit 5", stepJSON(`{"do": "abrade", "grit": 5}`), "$.zones[0].steps[1].grit", "5: too small, at least 24"},
		{"a wait of minus one", stepJSON(`{"do": "wait", "hours": -1}`), "$.zones[0].steps[1].hours", "too small, at least 0"},
		{"a hundred coats", stepJSON(`{"do": "coat", "product": "paint_chalk", "coats": 100}`), "$.zones[0].steps[1].coats", "too large, at most 20"},
		{"another additive", stepJSON(`{"do": "coat", "product": "paint_milk", "additive": {"product": "salt", "ratio": 1}}`), "$.zones[0].steps[1].additive.product", `expected "bonding_additive"`},
		{"null for a zone", `{"format": "rutile/piece", "version": 1, "zones": [null]}`, "$.zones[0]", "null: expected object"},
		{"control characters", zoneJSON(`"substrate": "o\u0000a\nk"`), "$.zones[0].substrate", "not a known id"},
	} {
		t.Run(x.name, func(t *testing.T) {
			p, err := Decode([]byte(x.in))
			var fe *Error
			if p != nil || !errors.As(err, &fe) {
				t.Fatalf("got %v, %v", p, err)
			}
			if fe.Path != x.path {
				t.Errorf("path %q, want %q (%s)", fe.Path, x.path, err)
			}
			if !strings.Contains(err.Error(), x.says) {
				t.Errorf("%q does not say %q", err, x.says)
			}
			if strings.ContainsAny(err.Error(), "\n\r\x00") || len(err.Error()) > 400 {
				t.Errorf("this is no one line: %q", err)
			}
		})
	}
}

func TestTooManySteps(t *testing.T) {
	steps := strings.Repeat(`{"do": "dust"},`, 1000)
	_, err := Decode([]byte(zoneJSON(`"substrate": "oak", "steps": [` + strings.TrimSuffix(steps, ",") + `]`)))
	if err == nil || !strings.Contains(err.Error(), "$.zones[0].steps: 1000 entries: too many, at most 200") {
		t.Errorf("got %v", err)
	}
}

func TestTooManyCoats(t *testing.T) {
	steps := strings.Repeat(`{"do": "coat", "product": "paint_chalk", "coats": 20},`, 16)
	_, err := Decode([]byte(zoneJSON(`"substrate": "oak", "steps": [` + strings.TrimSuffix(steps, ",") + `]`)))
	if err == nil || !strings.Contains(err.Error(), "$.zones[0].steps: 320 coats and steps: too many, at most 300") {
		t.Errorf("got %v", err)
	}
}

func TestTooLarge(t *testing.T) {
	_, err := Decode(bytes.Repeat([]byte(" "), 50<<20))
	if err == nil || !strings.Contains(err.Error(), "larger than 8 MB") {
		t.Errorf("got %v", err)
	}
	_, err = Read(bytes.NewReader(bytes.Repeat([]byte(" "), 50<<20)))
	if err == nil || !strings.Contains(err.Error(), "larger than 8 MB") {
		t.Errorf("from a reader: %v", err)
	}
}

func TestAbsentIsNotEmpty(t *testing.T) {
	absent, err := Decode([]byte(zoneJSON(`"substrate": "oak"`)))
	if err != nil {
		t.Fatal(err)
	}
	empty, err := Decode([]byte(zoneJSON(`"substrate": "oak", "soils": [], "bleeders": []`)))
	if err != nil {
		t.Fatal(err)
	}
	if absent.Zones[0].Soils != nil || empty.Zones[0].Soils == nil {
		t.Error("nothing looked for and nothing found are the same")
	}
	// And they stay apart when written and read again.
	for _, p := range []*Piece{absent, empty} {
		data, err := json.Marshal(p)
		if err != nil {
			t.Fatal(err)
		}
		again, err := Decode(data)
		if err != nil || !reflect.DeepEqual(p, again) {
			t.Errorf("%s comes back as %+v, %v", data, again, err)
		}
	}
}

func TestByteOrderMark(t *testing.T) {
	if _, err := Decode(append([]byte("\xef\xbb\xbf"), example(t)...)); err != nil {
		t.Error(err)
	}
}

func TestChanges(t *testing.T) {
	base := func() *Piece {
		p, err := Decode(example(t))
		if err != nil {
			t.Fatal(err)
		}
		return p
	}
	for _, x := range []struct {
		name   string
		change func(*Piece)
		want   []string
	}{
		{"nothing", func(*Piece) {}, nil},
		{"the name", func(p *Piece) { p.Name = "Rack" }, []string{`The piece is now called "Rack".`}},
		{"the year", func(p *Piece) { p.Made = 1999 }, []string{"year, use or workshop"}},
		{"a survey", func(p *Piece) { p.Zones[0].AreaM2 = 3 }, []string{`The survey of "Uprights and shelves" was changed.`}},
		{"a step", func(p *Piece) { p.Zones[0].Steps[1].Grit = 180 }, []string{`Step 2 of "Uprights and shelves" was changed.`}},
		{"a step less", func(p *Piece) { p.Zones[0].Steps = p.Zones[0].Steps[:1] }, []string{"has 1 step instead of 7"}},
		{"a zone more", func(p *Piece) { p.Zones = append(p.Zones, Zone{ID: "back_panel", Substrate: "oak"}) }, []string{`Zone "Back panel" was added.`}},
		{"a zone less", func(p *Piece) { p.Zones = nil }, []string{`Zone "Uprights and shelves" was removed.`}},
	} {
		b := base()
		x.change(b)
		got := Changes(base(), b)
		if len(got) != len(x.want) {
			t.Errorf("%s: %q", x.name, got)
			continue
		}
		for i := range got {
			if !strings.Contains(got[i], x.want[i]) {
				t.Errorf("%s: %q, want %q", x.name, got[i], x.want[i])
			}
		}
	}
}

func TestEdits(t *testing.T) {
	for _, x := range []struct {
		a, b string
		want int
	}{{"oak", "oak", 0}, {"oka", "oak", 2}, {"", "oak", 3}, {"varnish", "varnish_oil", 4}} {
		if got := edits(x.a, x.b); got != x.want {
			t.Errorf("from %q to %q are %d edits, want %d", x.a, x.b, got, x.want)
		}
	}
}

func BenchmarkDecode(b *testing.B) {
	data := example(b)
	b.ReportAllocs()
	for b.Loop() {
		if _, err := Decode(data); err != nil {
			b.Fatal(err)
		}
	}
}

func TestBadEvidenceIsNamed(t *testing.T) {
	for _, x := range []struct{ name, fields, path, says string }{
		{"the same test twice", `"evidence": [{"test": "alcohol", "outcome": "sticky"}, {"test": "uv", "outcome": "none"}, {"test": "alcohol", "outcome": "nothing"}]`,
			"$.zones[0].evidence[2].test", `evidence[0] already answers this test, with "sticky"`},
		{"a test that is never made", `"evidence": [{"test": "flame", "outcome": "nothing"}]`, "$.zones[0].evidence[0].test", "not a known id"},
		{"an outcome of another test", `"evidence": [{"test": "alcohol", "outcome": "blooms"}]`, "$.zones[0].evidence[0].outcome", "the test alcohol has no such outcome; known are not_sure, sticky"},
		{"no outcome", `"evidence": [{"test": "alcohol"}]`, "$.zones[0].evidence[0].outcome", "missing"},
		{"a day in no calendar", `"evidence": [{"test": "alcohol", "outcome": "sticky", "date": "2026-02-30"}]`, "$.zones[0].evidence[0].date", "there is no such date"},
		{"a lead test in no calendar", `"lead_test": {"result": "negative", "by": "laboratory", "date": "2026-13-01"}`, "$.zones[0].lead_test.date", "there is no such date"},
		{"a lead test without its day", `"lead_test": {"result": "negative", "by": "laboratory"}`, "$.zones[0].lead_test.date", "missing"},
		{"a lead test by a neighbour", `"lead_test": {"result": "negative", "by": "neighbour", "date": "2026-11-01"}`, "$.zones[0].lead_test.by", "not a known id"},
		{"a class beyond the scale", `"patches": [{"id": "a", "product": "paint_chalk", "over": "varnish_film", "on": "board", "class": 6, "rated": "2026-11-01"}]`, "$.zones[0].patches[0].class", "too large, at most 5"},
		{"a rating without its day", `"patches": [{"id": "a", "product": "paint_chalk", "over": "varnish_film", "on": "board", "class": 3}]`, "$.zones[0].patches[0].rated", "missing"},
		{"rated before it was laid", `"patches": [{"id": "a", "product": "paint_chalk", "over": "varnish_film", "on": "board", "made": "2026-11-10", "class": 3, "rated": "2026-11-01"}]`, "$.zones[0].patches[0].rated", "rated before it was made"},
		{"a patch twice", `"patches": [{"id": "a", "product": "paint_chalk", "over": "varnish_film", "on": "board"}, {"id": "a", "product": "paint_chalk", "over": "varnish_film", "on": "board"}]`, "$.zones[0].patches[1].id", "already has this id"},
		{"a reading of the time", `"readings": [{"field": "gloss_gu", "value": 3, "at": "noon", "by": "meter"}]`, "$.zones[0].readings[0].at", "not in the form 2026-11-24T10:15"},
	} {
		_, err := Decode([]byte(zoneJSON(`"substrate": "oak", ` + x.fields)))
		var e *Error
		if !errors.As(err, &e) || e.Path != x.path || !strings.Contains(e.Says, x.says) {
			t.Errorf("%s: %v", x.name, err)
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
		{put("photos", `[{"file": "a.jpg"}, {"file": "a.jpg"}]`), "$.photos[1].file", "the same picture is in the list twice"},
		{put("photos", `[{"file": "a.jpg", "zone": "b"}]`), "$.photos[0].zone", "the piece has no such zone"},
		{put("photos", `[{"file": "a.jpg", "markers": [{"x": 2, "y": 0}]}]`), "$.photos[0].markers[0].x", "too large, at most 1"},
		{put("photos", `[{"file": "a.jpg", "markers": [{"x": 1, "y": 0, "defect": "Q"}]}]`), "$.photos[0].markers[0].defect", "no damage has this label"},
		{put("history", `{"paid_minor": 1.5}`), "$.history.paid_minor", "expected integer"},
		{zoneJSON(`"substrate": "oak", "defects": [{"id": "hole", "label": "A"}, {"id": "chip", "label": "A"}]`), "$.zones[0].defects[1].label", "already has this label"},
		{zoneJSON(`"substrate": "oak", "defects": [{"id": "hole", "label": ""}]`), "$.zones[0].defects[0].label", "empty"},
	} {
		_, err := Decode([]byte(c.in))
		var e *Error
		if !errors.As(err, &e) || e.Path != c.path || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%s: %v; want %s and %q", c.in[47:], err, c.path, c.says)
		}
	}
}

func TestExamplesAreValid(t *testing.T) {
	files, err := filepath.Glob("../../examples/*.json")
	if err != nil || len(files) == 0 {
		t.Fatalf("no examples: %v", err)
	}
	for _, name := range files {
		data, err := os.ReadFile(name)
		if err != nil {
			t.Fatal(err)
		}
		if _, err := Decode(data); err != nil {
			t.Errorf("%s: %v", name, err)
		}
	}
}
