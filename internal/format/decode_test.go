package format

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"reflect"
	"strings"
	"testing"

	"rutile/core/craft"
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
		{"a newer version", `{"format": "rutile/piece", "version": 2}`, "$.version", "2: written by a newer Rutile"},
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
		{"an id twice", `{"format": "rutile/piece", "version": 1, "zones": [{"id": "a", "substrate": "oak"}, {"id": "a", "substrate": "ash"}]}`, "$.zones[1].id", `"a": zones[0] has this id already`},
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

// The largest piece there may be, wrong in every step.
func largest() *Piece {
	p := New("Large")
	for i := range MaxZones {
		z := Zone{ID: fmt.Sprintf("z%d", i), Substrate: "oak", Soils: []Level{{"grease", 3}, {"silicone", 3}}}
		for j := range MaxSteps {
			s := Step{Do: "coat", Product: "paint_acrylic", WaitH: num(.2)}
			if j%2 == 0 {
				s = Step{Do: "clean", With: "detergent"}
			}
			z.Steps = append(z.Steps, s)
		}
		p.Zones = append(p.Zones, z)
	}
	return &p
}

func BenchmarkCheckLargestPiece(b *testing.B) {
	p := largest()
	for b.Loop() {
		Check(craft.Default(), p, CheckOptions{Site: usual, Section: true})
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

func TestRoundTripThroughTheCore(t *testing.T) {
	c := craft.Default()
	in := []Step{
		{Do: "clean", With: "degreaser_alkaline", Rinse: true, Passes: 2},
		{Do: "abrade", Grit: 220, How: "hand", Through: true},
		{Do: "abrade", How: "pad"},
		{Do: "dust"}, {Do: "raise_grain"}, {Do: "reassemble"}, {Do: "mask", What: "the glass"}, {Do: "repair", What: "a joint"},
		{Do: "remove", What: "handles"}, {Do: "strip", How: "heat"}, {Do: "fill", With: "filler_two_part"},
		{Do: "coat", Product: "shellac_pigmented", Coats: 2, WaitH: num(12), Method: "brush", Scope: "knots"},
		{Do: "coat", Product: "paint_milk", Coats: 3, Method: "foam", Additive: &Additive{"bonding_additive", .5, "first"}, WaterRatio: 1.5, Colour: "#aabbcc"},
		{Do: "coat", Product: "paint_chalk", ThinPct: 10},
		{Do: "coat", Product: "clear_wb", Sheen: "matt", WaitH: num(0)},
		{Do: "effect", Effect: "chippy", Heat: true, Wetted: true, Resist: "wax", Grit: 320, Share: .2},
		{Do: "wait", Hours: num(24)}, {Do: "wait", Hours: num(0)}, {Do: "test", Rating: whole(0)},
	}
	p := New("All steps")
	p.Zones = []Zone{{ID: "a", Substrate: "oak", Steps: in}}
	data, err := json.Marshal(p)
	if err != nil {
		t.Fatal(err)
	}
	q, err := Decode(data)
	if err != nil {
		t.Fatal(err)
	}
	z := q.Zone(c, 0, usual)
	out := StepsFrom(c, z.Steps)
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
	for kind := range stepFields {
		if !kinds[kind] {
			t.Errorf("%s is not tried", kind)
		}
	}
}

func num(x float64) *float64 { return &x }
func whole(x int) *int       { return &x }

func TestSurveyReachesTheCore(t *testing.T) {
	c := craft.Default()
	p, err := Decode([]byte(`{"format": "rutile/piece", "version": 1, "made": 1931, "use": ["outdoor", "child"],
		"site": {"temp_c": 12, "rh_pct": 71}, "zones": [{"id": "a", "substrate": "pine", "finish": "paint_alkyd_old",
		"gloss_gu": 62, "moisture_pct": 11, "soils": [{"id": "grease", "level": 2}], "bleeders": [{"id": "resin", "level": 3}],
		"defects": [{"id": "knot", "count": 4}, {"id": "flaking"}], "area_m2": 2.5, "wear": "seat", "veneer": true,
		"lead_test": {"result": "negative", "by": "swab", "date": "2026-10-01"},
		"target": {"colour": "#112233", "look": "chippy"}}]}`))
	if err != nil {
		t.Fatal(err)
	}
	z := p.Zone(c, 0, usual)
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
	if z := p.Zone(c, 0, usual); leadOf(c, &z).State != "excluded" {
		t.Error("a laboratory did not decide about lead")
	}
	// What is absent.
	p, err = Decode([]byte(zoneJSON(`"substrate": "oak"`)))
	if err != nil {
		t.Fatal(err)
	}
	z = p.Zone(c, 0, usual)
	if !c.Finishes[z.Finish].Unknown || z.SoilsKnown || z.GivenBleeders || z.Wear != craft.Handled || z.Moisture >= 0 || z.Climate != usual {
		t.Errorf("what is absent is taken as %+v", z.Facts)
	}
}

func FuzzDecode(f *testing.F) {
	f.Add(example(f))
	f.Add([]byte(zoneJSON(`"substrate": "oak", "soils": []`)))
	f.Add([]byte(stepJSON(`{"do": "coat", "product": "paint_milk", "additive": {"product": "bonding_additive", "ratio": 0.5}}`)))
	f.Add([]byte(zoneJSON(`"substrate": "pine", "evidence": [{"test": "alcohol", "outcome": "sticky"}], "patches": [{"id": "a", "product": "paint_milk", "over": "shellac_film", "on": "board", "rated": "2026-11-01", "class": 0}]`)))
	f.Add([]byte(`{"format": "rutile/piece", "version": 2}`))
	f.Add([]byte(`[[[[`))
	f.Fuzz(func(t *testing.T, data []byte) {
		p, err := Decode(data)
		if err != nil {
			var fe *Error
			if !errors.As(err, &fe) || strings.ContainsAny(err.Error(), "\n\x00") {
				t.Fatalf("this is no clear sentence: %q", err)
			}
			return
		}
		// What was read can be judged, written, and read again alike.
		r := Check(craft.Default(), p, CheckOptions{Site: usual, Section: true})
		if len(r.Zones) != len(p.Zones) {
			t.Fatal("a zone was passed over")
		}
		if _, err := json.Marshal(r); err != nil {
			t.Fatal(err)
		}
		found, err := IdentifyPiece(craft.Default(), p, "", CheckOptions{Site: usual})
		if err != nil {
			t.Fatal(err)
		}
		if _, err := json.Marshal(found); err != nil {
			t.Fatal(err)
		}
		again, err := json.Marshal(p)
		if err != nil {
			t.Fatal(err)
		}
		q, err := Decode(again)
		if err != nil {
			t.Fatalf("%s was written and cannot be read: %v", again, err)
		}
		third, _ := json.Marshal(q)
		if string(again) != string(third) {
			t.Fatalf("%s comes back as %s", again, third)
		}
	})
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
		{"a step less", func(p *Piece) { p.Zones[0].Steps = p.Zones[0].Steps[:5] }, []string{"has 5 steps instead of 7"}},
		{"a zone more", func(p *Piece) { p.Zones = append(p.Zones, Zone{ID: "back", Substrate: "oak"}) }, []string{`Zone "back" was added.`}},
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

func BenchmarkCheckPiece(b *testing.B) {
	p, err := Decode(example(b))
	if err != nil {
		b.Fatal(err)
	}
	c := craft.Default()
	b.ReportAllocs()
	for b.Loop() {
		Check(c, p, CheckOptions{Site: usual, Section: true})
	}
}
