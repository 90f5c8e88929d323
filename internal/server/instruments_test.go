package server

import (
	"fmt"
	"net/http"
	"strings"
	"testing"
	"time"

	"rutile/internal/app"
	"rutile/internal/demo"
	"rutile/internal/instruments"
	"rutile/internal/wire"
)

var morning = time.Date(2026, 11, 24, 9, 30, 0, 0, time.UTC)

// equipped is a server with instruments and a clock that stands.
func equipped(t testing.TB) http.Handler {
	return handlerWith(t, app.StudioOptions{Instruments: instruments.Simulated(demo.InstrumentSeed), Now: func() time.Time { return morning }})
}

func TestInstrumentsAreRead(t *testing.T) {
	h := equipped(t)
	now := decode[wire.InstrumentsNow](t, call{method: "GET", path: "/api/instruments"}.to(h))
	if len(now.Instruments) != 3 || now.Room == nil || !now.Room.Simulated || now.Room.At != "2026-11-24T09:30" || now.Room.DewPointC == nil {
		t.Fatalf("%+v", now)
	}
	again := decode[wire.InstrumentsNow](t, call{method: "GET", path: "/api/instruments"}.to(equipped(t)))
	if *again.Room.TempC != *now.Room.TempC || *again.Room.RHPct != *now.Room.RHPct {
		t.Error("the same moment of the same autumn reads differently")
	}
	c := decode[wire.AirHistory](t, call{method: "GET", path: "/api/instruments/course"}.to(h))
	if len(c.Today) != 39 || c.Today[0].At != "2026-11-24T00:00" || len(c.Imported) != 0 || c.Mean == nil || !strings.Contains(c.Mean.By, "Room") {
		t.Errorf("%d readings, %+v", len(c.Today), c.Mean)
	}
	// Without instruments nothing is made up.
	if none := decode[wire.InstrumentsNow](t, call{method: "GET", path: "/api/instruments"}.to(handler(t))); none.Room != nil || len(none.Instruments) != 0 {
		t.Errorf("%+v", none)
	}
}

func TestAMeterOnAZone(t *testing.T) {
	h := equipped(t)
	body := example(t)
	r := decode[wire.SpotRead](t, call{method: "POST", path: "/api/instruments/gloss/read?zone=uprights&piece=3", body: body}.to(h))
	if r.Field != "gloss_gu" || r.Value < 20 || r.Value > 55 || !r.Simulated || r.At != "2026-11-24T09:30" || !strings.HasSuffix(r.Says, " GU") {
		t.Errorf("%+v", r)
	}
	same := decode[wire.SpotRead](t, call{method: "POST", path: "/api/instruments/gloss/read?zone=uprights&piece=3", body: body}.to(h))
	if same.Value != r.Value {
		t.Errorf("the same spot reads %v and %v", r.Value, same.Value)
	}
	for _, x := range []struct {
		path, body string
		status     int
		says       string
	}{
		{"/api/instruments/gloss/read?zone=nowhere", body, 404, "no such zone"},
		{"/api/instruments/thermometer/read?zone=uprights", body, 404, "no such instrument"},
		{"/api/instruments/room/read?zone=uprights", body, 404, "no such instrument"},
		{"/api/instruments/moisture/read?zone=uprights", strings.Replace(body, `"substrate": "oak"`, `"substrate": "steel"`, 1), 422, "not on this"},
		{"/api/instruments/moisture/read?zone=uprights", "{", 400, "not valid JSON"},
	} {
		w := call{method: "POST", path: x.path, body: x.body}.to(h)
		if w.Code != x.status || !strings.Contains(w.Body.String(), x.says) {
			t.Errorf("%s: %d %s", x.path, w.Code, w.Body)
		}
	}
	if w := (call{method: "POST", path: "/api/instruments/gloss/read?zone=uprights", body: body}).to(handler(t)); w.Code != 404 {
		t.Errorf("without instruments: %d", w.Code)
	}
}

func TestReadingsAreBroughtIn(t *testing.T) {
	h := equipped(t)
	bring := func(data string) (wire.Imported, int, string) {
		w := call{method: "POST", path: "/api/instruments/readings?name=loft.csv", body: data, header: map[string]string{"Content-Type": "text/csv"}}.to(h)
		if w.Code != 200 {
			return wire.Imported{}, w.Code, w.Body.String()
		}
		return decode[wire.Imported](t, w), 200, ""
	}
	got, code, says := bring("time;temp;rh;gloss\n2026-11-23 08:00;14,2;71;\n2026-11-23 09:00;;;44\n2026-11-23 10:00;99;50;\n")
	if code != 200 || got.Taken != 2 || got.NRefused != 1 || got.Refused[0].Line != 4 || got.Separator != "semicolon" || got.From != "2026-11-23T08:00" {
		t.Errorf("%+v %d %s", got, code, says)
	}
	// Brought in twice, a moment is there once.
	_, _, _ = bring("time;temp;rh;gloss\n2026-11-23 08:00;15,0;71;\n")
	c := decode[wire.AirHistory](t, call{method: "GET", path: "/api/instruments/course"}.to(h))
	if len(c.Imported) != 1 || *c.Imported[0].TempC != 15 || c.Mean == nil || c.Mean.By != "loft.csv" || len(c.Spots) != 1 || c.Spots[0].Says != "Gloss at 60° 44 GU" || c.Spots[0].Simulated {
		t.Errorf("%+v", c)
	}
	for data, want := range map[string]string{"": "empty", "a,b\n1,2": "is not a heading", "time,temp\n2026-11-23 08:00,999": "Line 2: air temperature of 999 °C is impossible"} {
		if _, code, says := bring(data); code != 422 && code != 400 || !strings.Contains(says, want) && data != "" {
			t.Errorf("%q: %d %s", data, code, says)
		}
	}
}

func TestIdentifyOverTheAPI(t *testing.T) {
	h := equipped(t)
	r := decode[wire.Identification](t, call{method: "POST", path: "/api/identify?zone=uprights", body: example(t)}.to(h))
	if r.ID != "uprights" || len(r.Next) == 0 || len(r.On) == 0 {
		t.Errorf("%+v", r)
	}
	if w := (call{method: "POST", path: "/api/identify?zone=nowhere", body: example(t)}).to(h); w.Code != 404 {
		t.Error(w.Code)
	}
	twice := strings.Replace(example(t), `"finish": "varnish_oil",`, `"finish": "varnish_oil", "evidence": [{"test": "uv", "outcome": "none"}, {"test": "uv", "outcome": "green"}],`, 1)
	if w := (call{method: "POST", path: "/api/identify?zone=uprights", body: twice}).to(h); w.Code != 422 || !strings.Contains(w.Body.String(), "already answers this test") {
		t.Errorf("%d %s", w.Code, w.Body)
	}
}

// A laboratory's result counts from its day on, by the server's clock, and the
// studio's own year of suspicion is heeded.
func TestLeadByTheClockAndTheStudio(t *testing.T) {
	h := equipped(t)
	lead := func(made, date string) string {
		body := `{"format": "rutile/piece", "version": 1, "made": ` + made + `, "zones": [{"id": "a", "substrate": "pine", "finish": "paint_alkyd_old",
			"lead_test": {"result": "negative", "by": "laboratory", "date": "` + date + `"}}]}`
		l := decode[wire.CheckResult](t, call{method: "POST", path: "/api/check", body: body}.to(h)).Zones[0].Lead
		if l == nil {
			return ""
		}
		return l.State
	}
	if a, b := lead("1950", "2026-11-24"), lead("1950", "2026-11-25"); a != "excluded" || b != "suspect" {
		t.Errorf("%q today and %q tomorrow", a, b)
	}
	if got := lead("1985", "2026-11-30"); got != "" {
		t.Errorf("a piece of 1985: %q", got)
	}
	set := `{"name": "Lantern Yard", "units": "metric", "site": {"temp_c": 17, "rh_pct": 64}, "lead_year": 1992}`
	if w := (call{method: "PUT", path: "/api/studio", body: set, header: map[string]string{"If-Match": "*"}}).to(h); w.Code != 200 {
		t.Fatal(w.Body)
	}
	if got := lead("1985", "2026-11-30"); got != "suspect" {
		t.Errorf("with a year of its own: %q", got)
	}
	if w := (call{method: "PUT", path: "/api/studio", body: strings.Replace(set, "1992", "19", 1), header: map[string]string{"If-Match": "*"}}).to(h); w.Code != 422 {
		t.Error(w.Code)
	}
}

// Imported readings are shown, corrected and removed.
func TestImportedReadingsAreManaged(t *testing.T) {
	h := equipped(t)
	csv := "time,temp,rh\n2026-11-24 08:00,14,71\n2026-11-24 09:00,15,70\n2027-11-24 09:00,16,70\n"
	got := decode[wire.Imported](t, call{method: "POST", path: "/api/instruments/readings?name=loft.csv", body: csv, header: map[string]string{"Content-Type": "text/csv"}}.to(h))
	if got.Taken != 2 || got.NRefused != 1 || !strings.Contains(got.Refused[0].Says, "is in the future") {
		t.Errorf("%+v", got)
	}
	sources := decode[[]wire.Source](t, call{method: "GET", path: "/api/instruments/sources"}.to(h))
	if len(sources) != 1 || sources[0] != (wire.Source{Name: "loft.csv", Count: 2, From: "2026-11-24T08:00", To: "2026-11-24T09:00"}) {
		t.Errorf("%+v", sources)
	}
	page := decode[wire.ReadingsPage](t, call{method: "GET", path: "/api/instruments/readings?source=loft.csv"}.to(h))
	if len(page.Readings) != 2 || page.More || page.Readings[0].At != "2026-11-24T09:00" || *page.Readings[0].TempC != 15 {
		t.Fatalf("%+v", page)
	}
	path := fmt.Sprintf("/api/instruments/readings/%d", page.Readings[0].ID)
	for _, x := range []struct {
		body, says string
		status     int
	}{
		{`{"at": "2026-11-24T09:00", "temp_c": 15, "temp_c": 16}`, "$.temp_c: this field is given twice", 422},
		{`{"at": "2026-11-24T09:00", "temp_c": 1500}`, "$.temp_c: 1500: too large, at most 50", 422},
		{`{"at": "2026-11-31T09:00", "temp_c": 15}`, "there is no such time", 422},
		{`{"at": "2027-11-24T09:00", "temp_c": 15}`, "this time is in the future", 422},
		{`{"at": "2026-11-24T09:00"}`, "at least one measurement", 422},
		{`{"at": "2026-11-24T08:30", "temp_c": 15.5, "rh_pct": 64}`, `"temp_c":15.5`, 200},
	} {
		if w := (call{method: "PUT", path: path, body: x.body}).to(h); w.Code != x.status || !strings.Contains(strings.ReplaceAll(w.Body.String(), `\"`, `"`), x.says) {
			t.Errorf("%s: %d %s", x.body, w.Code, w.Body)
		}
	}
	if w := (call{method: "DELETE", path: path}).to(h); w.Code != 204 {
		t.Errorf("removed: %d %s", w.Code, w.Body)
	}
	if w := (call{method: "DELETE", path: path}).to(h); w.Code != 404 {
		t.Errorf("removed twice: %d %s", w.Code, w.Body)
	}
	const back = `{"at": "2026-11-24T08:30", "temp_c": 15.5, "rh_pct": 64}`
	if w := (call{method: "PUT", path: path, body: back}).to(h); w.Code != 404 {
		t.Errorf("brought back from nowhere: %d %s", w.Code, w.Body)
	}
	if w := (call{method: "PUT", path: path + "?source=loft.csv", body: back}).to(h); w.Code != 200 {
		t.Errorf("brought back: %d %s", w.Code, w.Body)
	}
	c := decode[wire.AirHistory](t, call{method: "GET", path: "/api/instruments/course"}.to(h))
	if len(c.Imported) != 2 || *c.Imported[1].TempC != 15.5 {
		t.Errorf("%+v", c.Imported)
	}
	if n := decode[wire.Removed](t, call{method: "DELETE", path: "/api/instruments/sources?source=loft.csv"}.to(h)); n.Count != 2 {
		t.Errorf("%d removed", n.Count)
	}
	if w := (call{method: "DELETE", path: "/api/instruments/sources?source=loft.csv"}).to(h); w.Code != 404 {
		t.Errorf("removed twice: %d %s", w.Code, w.Body)
	}
}
