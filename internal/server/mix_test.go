package server

import (
	"fmt"
	"net/url"
	"strings"
	"testing"

	"rutile/internal/wire"
)

func TestCardsOverTheAPI(t *testing.T) {
	h := handler(t)
	w := call{method: "POST", path: "/api/cards?zone=uprights", body: example(t)}.to(h)
	z := decode[wire.ZoneCards](t, w)
	if w.Code != 200 || len(z.Cards) == 0 || z.Cards[0].Batch.MakesL < z.Cards[0].Batch.NeedL || len(z.Cards[0].Lay.Faults) == 0 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	r := decode[wire.AmountRead](t, call{method: "GET", path: "/api/amount?text=" + url.QueryEscape("a third of a cup")}.to(h))
	if r.Says != "83.3 ml" || r.Litres < .0833 || r.Litres > .0834 {
		t.Errorf("%+v", r)
	}
	recipe := func(mix string) string {
		return strings.Replace(example(t), `"method": "brush"`, `"method": "brush", "mix": `+mix, 1)
	}
	for _, c := range []struct {
		path, body string
		code       int
		says       string
	}{
		{"/api/cards?zone=nowhere", example(t), 404, "no such zone"},
		{"/api/cards?zone=uprights", "{", 400, ""},
		{"/api/cards?zone=uprights", recipe(`{"paint_l": 40}`), 422, "at most 25"},
		{"/api/cards?zone=uprights", recipe(`{"paint_l": 0}`), 422, "more than 0"},
		{"/api/cards?zone=uprights", recipe(`{"recipe": "flour"}`), 422, "flour"},
		{"/api/cards?zone=uprights", recipe(`{"tint_ratio": 9}`), 422, "tint_ratio"},
		{"/api/cards?zone=uprights", recipe(`{"cups": 2}`), 422, "cups"},
	} {
		w := call{method: "POST", path: c.path, body: c.body}.to(h)
		if w.Code != c.code || !strings.Contains(w.Body.String(), c.says) {
			t.Errorf("%s: %d %s; want %d with %q", c.body[:min(60, len(c.body))], w.Code, w.Body, c.code, c.says)
		}
	}
	for _, label := range []string{`{"pot_life_h": 0}`, `{"pot_life_h": -3}`, `{"pot_life_h": 9000}`, `{"ratio": 0}`} {
		w := call{method: "POST", path: "/api/shelf", body: `{"id": "x", "kind": "primer_epoxy", "label": ` + label + `}`}.to(h)
		if w.Code != 422 || !strings.Contains(w.Body.String(), "$.label.") {
			t.Errorf("%s: %d %s", label, w.Code, w.Body)
		}
	}
	for text, says := range map[string]string{"40 l": "more than anybody mixes by hand", "0 ml": "more than nothing", "2 buckets": "“buckets” cannot be read", "": "Nothing is typed"} {
		if w := (call{method: "GET", path: "/api/amount?text=" + url.QueryEscape(text)}).to(h); w.Code != 422 || !strings.Contains(w.Body.String(), says) {
			t.Errorf("%q: %d %s", text, w.Code, w.Body)
		}
	}
}

func TestClocksOverTheAPI(t *testing.T) {
	h := handler(t)
	post := func(path, body string) (int, string) {
		w := call{method: "POST", path: path, body: body}.to(h)
		return w.Code, w.Body.String()
	}
	if code, body := post("/api/clocks", `{"id":"a","kind":"next","need_s":7200,"least_s":3600,"product":"paint_chalk","for":"Chalk paint","piece":"Trunk","piece_id":3,"temp_c":23,"rh_pct":50}`); code != 200 {
		t.Fatal(code, body)
	}
	all := decode[wire.Clocks](t, call{method: "GET", path: "/api/clocks"}.to(h))
	if len(all.Clocks) != 1 || all.Clocks[0].Name != "Next coat from" || !all.Clocks[0].Touch || all.Clocks[0].LeftS > 7200 || all.Clocks[0].LeftS < 7190 || all.Doubt != nil {
		t.Errorf("%+v", all)
	}
	if code, body := post("/api/clocks/a/touch", `{"is":"dry"}`); code != 200 || !strings.Contains(body, "the label asks for") {
		t.Errorf("%d %s", code, body)
	}
	if code, body := post("/api/clocks/air", `{"temp_c":8,"rh_pct":70}`); code != 200 || !strings.Contains(body, "Its pace is now that of 8 °C") {
		t.Errorf("%d %s", code, body)
	}
	if code, body := post("/api/clocks/a/silence", ``); code != 200 || !strings.Contains(body, `"silent":true`) {
		t.Errorf("%d %s", code, body)
	}
	for _, c := range []struct {
		path, body string
		code       int
		says       string
	}{
		{"/api/clocks", `{"id":"b","kind":"own","typed":"1 year"}`, 422, "30 days at the most"},
		{"/api/clocks", `{"id":"b","kind":"own","typed":"now"}`, 422, "cannot be read in a time"},
		{"/api/clocks", `{"id":"b","kind":"own"}`, 422, "more than nothing"},
		{"/api/clocks", `{"id":"b","kind":"own","need_s":-5}`, 422, "more than nothing"},
		{"/api/clocks", `{"id":"B b","kind":"own","need_s":5}`, 422, "id"},
		{"/api/clocks", `{"kind":"own","need_s":5}`, 422, "id"},
		{"/api/clocks", `{"id":"b","kind":"own","need_s":5,"for":"` + strings.Repeat("x", 900) + `"}`, 422, "for"},
		{"/api/clocks", `{`, 400, ""},
		{"/api/clocks", strings.Repeat(" ", 1<<20), 413, ""},
		{"/api/clocks/b/touch", `{"is":"dry"}`, 404, "no such clock"},
		{"/api/clocks/a/touch", `{"is":"wet"}`, 422, "is"},
		{"/api/clocks/settle", `{"passed_s":-4}`, 422, "passed_s"},
		{"/api/clocks/air", `{"temp_c":90,"rh_pct":50}`, 422, "temp_c"},
	} {
		if code, body := post(c.path, c.body); code != c.code || !strings.Contains(body, c.says) {
			t.Errorf("%s %s: %d %s; want %d with %q", c.path, c.body[:min(60, len(c.body))], code, body, c.code, c.says)
		}
	}
	if w := (call{method: "DELETE", path: "/api/clocks/a"}).to(h); w.Code != 204 {
		t.Errorf("%d %s", w.Code, w.Body)
	}
	if w := (call{method: "DELETE", path: "/api/clocks/a"}).to(h); w.Code != 404 {
		t.Errorf("stopped twice: %d %s", w.Code, w.Body)
	}
	for i := range 50 {
		if code, body := post("/api/clocks", fmt.Sprintf(`{"id":"c%d","kind":"own","need_s":%d}`, i, 100+i)); code != 200 {
			t.Fatal(code, body)
		}
	}
	if all := decode[wire.Clocks](t, call{method: "GET", path: "/api/clocks"}.to(h)); len(all.Clocks) != 50 || all.Clocks[0].ID != "c0" {
		t.Errorf("%d clocks, the next %s", len(all.Clocks), all.Clocks[0].ID)
	}
}
