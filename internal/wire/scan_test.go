package wire

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"runtime"
	"strings"
	"testing"
)

// A field that stands twice could be one thing to whoever checks it and another to whoever uses it.
func TestAFieldGivenTwiceIsRefusedWithItsPath(t *testing.T) {
	for _, c := range []struct{ in, path string }{
		{`{"format": "rutile/piece", "version": 1, "name": "a", "name": "b"}`, "$.name"},
		{`{"format": "rutile/piece", "version": 1, "zones": [], "zones": [{"id": "a", "substrate": "moon"}]}`, "$.zones"},
		{`{"format": "rutile/piece", "version": 1, "zones": [], "\u007aones": [{"id": "a", "substrate": "moon"}]}`, "$.zones"},
		{zoneJSON(`"substrate": "oak", "finish": "bare", "substrate": "moon"`), "$.zones[0].substrate"},
		{stepJSON(`{"do": "wait", "hours": 1, "do": "coat"}`), "$.zones[0].steps[1].do"},
		{stepJSON(`{"do": "coat", "product": "paint_milk", "additive": {"product": "bonding_additive", "ratio": 0.5, "ratio": 1e99}}`), "$.zones[0].steps[1].additive.ratio"},
	} {
		_, err := Decode([]byte(c.in))
		var e *Error
		if !errors.As(err, &e) || e.Path != c.path || !strings.Contains(e.Says, "given twice") {
			t.Errorf("%s: %v", c.in, err)
		}
	}
	if _, err := DecodeSettings([]byte(`{"name": "a", "units": "metric", "units": "us", "site": {"temp_c": 20, "rh_pct": 50}}`)); err == nil || !strings.Contains(err.Error(), "$.units: this field is given twice") {
		t.Errorf("settings: %v", err)
	}
	p, err := Decode(example(t))
	if err != nil {
		t.Fatal(err)
	}
	if _, _, err := DecodeChange([]byte(`{"zones": [{"id": "uprights", "substrate": "oak", "substrate": "moon"}]}`), p); err == nil || !strings.Contains(err.Error(), "$.zones[0].substrate: this field is given twice") {
		t.Errorf("a change: %v", err)
	}
	// Names that differ only in the case of their letters are other names.
	if _, err := Decode([]byte(`{"format": "rutile/piece", "version": 1, "name": "a", "Name": "b"}`)); err == nil || !strings.Contains(err.Error(), "$.Name: there is no such field") {
		t.Errorf("another case: %v", err)
	}
}

// Numbers are bounded by how they are written, before anything calculates with them.
func TestNumbersAreBoundedAsTheyAreWritten(t *testing.T) {
	area := func(n string) error {
		_, err := Decode(fmt.Appendf(nil, `{"format": "rutile/piece", "version": 1, "zones": [{"id": "a", "substrate": "oak", "area_m2": %s}]}`, n))
		return err
	}
	for _, n := range []string{"1e1000001", "1e-999999", "1E+0001", "123456789e99999999", strings.Repeat("9", 40), "0." + strings.Repeat("0", 1<<20) + "1"} {
		if err := area(n); err == nil || !strings.HasPrefix(err.Error(), "$.zones[0].area_m2: ") || !strings.Contains(err.Error(), "too long a number") {
			t.Errorf("%.20s: %v", n, err)
		}
	}
	if err := area("1e999"); err == nil || !strings.Contains(err.Error(), "too large, at most 500") {
		t.Error(err)
	}
	for _, n := range []string{"1e-3", "2.5", "12.3456789012345678", "3E+1"} {
		if err := area(n); err != nil {
			t.Errorf("%s: %v", n, err)
		}
	}
}

// hostile are documents that are small to send and were costly to read.
func hostile() map[string][]byte {
	piece := func(zones string) []byte {
		return []byte(`{"format": "rutile/piece", "version": 1, "zones": [` + zones + `]}`)
	}
	list := func(x string) string {
		return strings.TrimSuffix(strings.Repeat(x+",", (MaxBytes-100)/(len(x)+1)), ",")
	}
	keys := func() string {
		var b strings.Builder
		b.WriteString("{")
		for i := 0; b.Len() < MaxBytes-200; i++ {
			fmt.Fprintf(&b, `"%x":1,`, i)
		}
		return strings.TrimSuffix(b.String(), ",") + "}"
	}
	return map[string][]byte{
		"numbers for zones":        piece(list("0")),
		"empty lists":              piece(list("[]")),
		"empty objects":            piece(list("{}")),
		"texts for zones":          piece(list(`""`)),
		"a million fields":         piece(keys()),
		"a million fields on top":  []byte(keys()),
		"lists in lists":           piece(strings.Repeat("[", MaxBytes/2-100) + strings.Repeat("]", MaxBytes/2-100)),
		"one long text":            []byte(`{"format": "rutile/piece", "version": 1, "name": "` + strings.Repeat("a", MaxBytes-100) + `"}`),
		"one long name":            []byte(`{"` + strings.Repeat("a", MaxBytes-100) + `": 1}`),
		"one long number":          piece(strings.Repeat("1", MaxBytes-100)),
		"only space":               bytes.Repeat([]byte(" "), MaxBytes),
		"steps that are no steps":  piece(`{"id": "a", "substrate": "oak", "steps": [` + list(`{"do":"dust"}`) + `]}`),
		"steps without an end":     piece(`{"id": "a", "substrate": "oak", "steps": [` + list(`{"do":"dust"}`)),
		"one zone over and over":   piece(list(`{"id":"a","substrate":"oak"}`)),
		"escaped text over a note": []byte(`{"format": "rutile/piece", "version": 1, "name": "` + strings.Repeat(`\u0061`, MaxBytes/6-100) + `"}`),
	}
}

// What is refused has cost little memory. How long it takes is shown by BenchmarkHostile.
func TestHostileDocumentsCostLittle(t *testing.T) {
	for name, data := range hostile() {
		var before, after runtime.MemStats
		runtime.ReadMemStats(&before)
		_, err := Decode(data)
		runtime.ReadMemStats(&after)
		if err == nil {
			t.Errorf("%s was taken", name)
		} else if len(err.Error()) > 300 {
			t.Errorf("%s: %.400s", name, err)
		}
		if mb := (after.TotalAlloc - before.TotalAlloc) >> 20; mb > 100 {
			t.Errorf("%s cost %d MB: %v", name, mb, err)
		}
	}
}

// A list that is too long is refused with its length.
func TestLongListsAreCounted(t *testing.T) {
	_, err := Decode([]byte(zoneJSON(`"substrate": "oak", "steps": [` + strings.TrimSuffix(strings.Repeat(`{"do": "dust"},`, 90_000), ",") + `]`)))
	if err == nil || !strings.Contains(err.Error(), "$.zones[0].steps: 90000 entries: too many, at most 200") {
		t.Error(err)
	}
	_, err = Decode([]byte(zoneJSON(`"substrate": "oak", "steps": [` + strings.TrimSuffix(strings.Repeat(`0,`, 900_000), ",") + `]`)))
	if err == nil || !strings.Contains(err.Error(), "more than 700000 values") {
		t.Error(err)
	}
}

// The largest piece that the limits allow is read.
func TestTheLargestPieceIsRead(t *testing.T) {
	data := largest(t)
	p, err := Decode(data)
	if err != nil || len(p.Zones) != MaxZones || len(p.Zones[MaxZones-1].Steps) != MaxSteps {
		t.Fatalf("%d bytes: %v", len(data), err)
	}
}

// Times are dates that exist, on a clock that exists.
func TestTimesThatAreNone(t *testing.T) {
	for _, c := range []struct{ in, path string }{
		{`{"format": "rutile/piece", "version": 1, "site": {"temp_c": 20, "rh_pct": 50, "at": "2026-02-31T10:00"}}`, "$.site.at"},
		{`{"format": "rutile/piece", "version": 1, "site": {"temp_c": 20, "rh_pct": 50, "at": "2026-02-03T25:00"}}`, "$.site.at"},
		{`{"format": "rutile/piece", "version": 1, "site": {"temp_c": 20, "rh_pct": 50, "at": "2026-02-03T10:00 or so"}}`, "$.site.at"},
		{`{"format": "rutile/piece", "version": 1, "photos": [{"file": "a.jpg", "taken": "2026-04-31"}]}`, "$.photos[0].taken"},
		{zoneJSON(`"substrate": "oak", "readings": [{"field": "gloss_gu", "value": 3, "at": "2026-13-01T10:00", "by": "meter"}]`), "$.zones[0].readings[0].at"},
		{zoneJSON(`"substrate": "oak", "acknowledged": [{"code": "lead", "date": "2026-00-10"}]`), "$.zones[0].acknowledged[0].date"},
	} {
		_, err := Decode([]byte(c.in))
		var e *Error
		if !errors.As(err, &e) || e.Path != c.path || !strings.HasPrefix(e.Says, "there is no such ") {
			t.Errorf("%s: %v", c.in, err)
		}
		// What an earlier version took is still read.
		if _, err := DecodeStored([]byte(c.in)); err != nil {
			t.Errorf("kept: %v", err)
		}
	}
	if _, err := DecodeSettings([]byte(`{"name": "a", "units": "us", "site": {"temp_c": 20, "rh_pct": 50, "at": "2026-02-31T10:00"}}`)); err == nil || !strings.Contains(err.Error(), "$.site.at") {
		t.Errorf("settings: %v", err)
	}
	for _, at := range []string{"2026-02-28T10:00", "2026-02-28T10:00:30", "2026-02-28T10:00Z", "2026-02-28T10:00:30+01:00"} {
		if _, err := Decode([]byte(`{"format": "rutile/piece", "version": 1, "site": {"temp_c": 20, "rh_pct": 50, "at": "` + at + `"}}`)); err != nil {
			t.Errorf("%s: %v", at, err)
		}
	}
}

// FuzzDecode looks for a document that is read and, written again, is another.
func FuzzDecode(f *testing.F) {
	f.Add(everything(f))
	f.Add([]byte(`{"format": "rutile/piece", "version": 1, "zones": [{"id": "a", "substrate": "oak", "steps": [{"do": "wait", "hours": 1}]}]}`))
	f.Add([]byte(`{"format": "rutile/piece", "version": 1, "name": "a", "\u006eame": "b"}`))
	f.Add([]byte(`{"format": "rutile/piece", "version": 1, "made": 1e999}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		p, err := Decode(data)
		if err != nil {
			if p != nil || len(err.Error()) > 400 || strings.ContainsAny(err.Error(), "\n\x00") {
				t.Errorf("%q", err)
			}
			return
		}
		was := written(t, p)
		again, err := Decode(was)
		if err != nil || !bytes.Equal(was, written(t, again)) {
			t.Errorf("%s comes back as %+v, %v", was, again, err)
		}
	})
}

// FuzzSettings looks for settings that are read and, written again, are others.
func FuzzSettings(f *testing.F) {
	f.Add([]byte(`{"name": "Yard", "units": "us", "site": {"temp_c": 12.5, "rh_pct": 70}, "lead_year": 1980, "way": "mine", "ways": [{"id": "mine", "name": "Mine", "shelf": [], "holds": "key"}]}`))
	f.Add([]byte(`{"name": "Yard", "units": "us", "units": "metric", "site": {"temp_c": 1e-999999, "rh_pct": 70}}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		s, err := DecodeSettings(data)
		if err != nil {
			return
		}
		was := written(t, s)
		again, err := DecodeSettings(was)
		if err != nil || !bytes.Equal(was, written(t, again)) {
			t.Errorf("%s comes back as %+v, %v", was, again, err)
		}
	})
}

func BenchmarkHostile(b *testing.B) {
	for name, data := range hostile() {
		b.Run(name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				if _, err := Decode(data); err == nil {
					b.Fatal("it was taken")
				}
			}
		})
	}
}

// written is a value as it is kept and sent.
func written(t testing.TB, x any) []byte {
	t.Helper()
	data, err := json.Marshal(x)
	if err != nil {
		t.Fatal(err)
	}
	return data
}

// largest is a piece of as many zones and steps as there may be.
func largest(t testing.TB) []byte {
	t.Helper()
	p, wait := New("All of it"), 12.5
	for i := range MaxZones {
		z := Zone{ID: fmt.Sprintf("z%d", i), Substrate: "oak"}
		for range MaxSteps {
			z.Steps = append(z.Steps, Step{Do: "coat", Product: "paint_milk", WaitH: &wait, Method: "roller", WaterRatio: 1.25, Additive: &Additive{Product: "bonding_additive", Ratio: .5}, Scope: "all"})
		}
		p.Zones = append(p.Zones, z)
	}
	return written(t, p)
}
