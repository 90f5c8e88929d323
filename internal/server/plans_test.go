package server

import (
	"encoding/json"
	"fmt"
	"os"
	"slices"
	"strings"
	"testing"

	"rutile/internal/wire"
)

func dresser(t testing.TB) string {
	t.Helper()
	data, err := os.ReadFile("../../examples/dresser.json")
	if err != nil {
		t.Fatal(err)
	}
	return string(data)
}

func TestPlansOverTheAPI(t *testing.T) {
	h := handler(t)
	r := decode[wire.ZonePlans](t, call{method: "POST", path: "/api/plans?zone=doors", body: dresser(t)}.to(h))
	if len(r.Plans) != 5 {
		t.Fatalf("%d plans", len(r.Plans))
	}
	for i, p := range r.Plans {
		if p.Infeasible != nil {
			continue
		}
		if p.Section == nil || p.Risk == nil || p.Risk.Low > p.Risk.High || len(p.Depends) == 0 || p.Takes == "" || p.Smell == "" || p.Trips == 0 || i > 0 && p.Comparison == "" {
			t.Errorf("%s: %+v", p.Way, p)
		}
		sum := 0.
		for _, x := range p.Terms {
			sum += x.Points
		}
		if sum < p.Points-1 || sum > p.Points+1 {
			t.Errorf("%s: its terms come to %v, and it has %v points", p.Way, sum, p.Points)
		}
	}
	// What it has stands beside what could be.
	own := strings.Replace(dresser(t), `"id": "doors",`, `"id": "doors", "way": "elsewhere", "steps": [{"do": "coat", "product": "paint_milk"}],`, 1)
	r = decode[wire.ZonePlans](t, call{method: "POST", path: "/api/plans?zone=doors&ways=prime,best&weights=smell=4", body: own}.to(h))
	last := r.Plans[len(r.Plans)-1]
	if len(r.Plans) != 3 || !last.Own || last.Verdict != "fails" {
		t.Errorf("%d plans, the last %+v", len(r.Plans), last)
	}
	// No way passes: it says why.
	r = decode[wire.ZonePlans](t, call{method: "POST", path: "/api/plans?zone=back&ways=best", body: dresser(t)}.to(h))
	if s := r.Plans[0].Infeasible; s == nil || s.Why[0].Code != "safety.lead" || len(s.Relaxations) == 0 || len(s.Relaxations[0].Words) == 0 {
		t.Errorf("%+v", r.Plans[0])
	}
}

func TestPlansThatCannotBeAsked(t *testing.T) {
	h := handler(t)
	for path, want := range map[string]struct {
		code int
		says string
	}{
		"/api/plans?zone=nowhere":                      {404, "no such zone"},
		"/api/plans?zone=doors&ways=prym":              {422, "no way of working"},
		"/api/plans?zone=doors&ways=a,b,c,d,e,f":       {422, "at most 5"},
		"/api/plans?zone=doors&weights=peel=-3":        {422, "from 0 to 100"},
		"/api/plans?zone=doors&weights=peel=0,stain=0": {200, ""},
		"/api/plans":                             {422, "required"},
		"/api/minds?zone=doors&weights=beauty=1": {422, "weights are written"},
		"/api/minds?zone=nowhere":                {404, "no such zone"},
		"/api/minds?zone=doors&way=elsewhere":    {200, ""}, // from another studio
		"/api/plans/piece?way=prym":              {422, "no way of working"},
		"/api/plans/piece?weights=peel=NaN":      {422, "from 0 to 100"},
	} {
		w := call{method: "POST", path: path, body: dresser(t)}.to(h)
		if w.Code != want.code || !strings.Contains(w.Body.String(), want.says) {
			t.Errorf("%s: %d %.300s", path, w.Code, w.Body)
		}
	}
	for _, path := range []string{"/api/plans?zone=doors", "/api/minds?zone=doors", "/api/plans/piece"} {
		if w := (call{method: "POST", path: path, body: `{"format": "rutile/piece", "version": 1, "zones": [{"id": "doors"}]}`}).to(h); w.Code != 422 {
			t.Errorf("%s took a zone of nothing: %d", path, w.Code)
		}
	}
}

func TestAPiecePlannedOverTheAPI(t *testing.T) {
	w := call{method: "POST", path: "/api/plans/piece?way=best", body: dresser(t)}.to(handler(t))
	if w.Code != 200 || !strings.HasPrefix(w.Header().Get("Content-Type"), "application/x-ndjson") {
		t.Fatal(w.Code, w.Body)
	}
	var last wire.PlanLine
	lines := strings.Split(strings.TrimSpace(w.Body.String()), "\n")
	for _, l := range lines {
		if err := json.Unmarshal([]byte(l), &last); err != nil {
			t.Fatal(err)
		}
	}
	if last.Plan == nil || len(last.Plan.Zones) != 5 || len(last.Plan.Trips) < 8 || last.Plan.Steps <= len(last.Plan.Trips) {
		t.Fatalf("%+v", last)
	}
	states := map[string]int{}
	for _, z := range last.Plan.Zones {
		states[z.State]++
	}
	if states["planned"] != 4 || states["stuck"] != 1 {
		t.Errorf("%v", states)
	}
	for _, x := range last.Plan.Trips {
		if x.Does == "" || x.At == "" || len(x.Zones) == 0 {
			t.Errorf("%+v", x)
		}
	}
}

func TestMindsOverTheAPI(t *testing.T) {
	h := handler(t)
	line := call{method: "POST", path: "/api/plans/piece", body: dresser(t)}.to(h).Body.String()
	var last wire.PlanLine
	all := strings.Split(strings.TrimSpace(line), "\n")
	if err := json.Unmarshal([]byte(all[len(all)-1]), &last); err != nil {
		t.Fatal(err)
	}
	body, err := json.Marshal(last.Plan.Piece)
	if err != nil {
		t.Fatal(err)
	}
	minds := decode[[]wire.Sensitivity](t, call{method: "POST", path: "/api/minds?zone=carcass&way=best", body: string(body)}.to(h))
	if len(minds) == 0 || len(minds) > 4 {
		t.Fatalf("%d things would change it", len(minds))
	}
	for _, m := range minds {
		if m.If == "" || m.Test == "" || m.Field == "" || m.Then == "" {
			t.Errorf("%+v", m)
		}
	}
}

// A studio keeps ways of its own; what cannot be is refused by its place.
func TestWaysOfOnesOwn(t *testing.T) {
	h := handler(t)
	put := func(ways string) (int, string) {
		w := call{method: "PUT", path: "/api/studio", body: `{"name": "Yard", "units": "metric", "site": {"temp_c": 18, "rh_pct": 55}, ` + ways + `}`, header: map[string]string{"If-Match": "*"}}.to(h)
		return w.Code, w.Body.String()
	}
	if code, body := put(`"way": "mine", "ways": [{"id": "mine", "name": "Mine", "holds": "prime", "shelf": []}]`); code != 200 || !strings.Contains(body, `"shelf":[]`) {
		t.Fatal(code, body)
	}
	r := decode[wire.ZonePlans](t, call{method: "POST", path: "/api/plans?zone=doors&ways=mine", body: dresser(t)}.to(h))
	if s := r.Plans[0].Infeasible; r.Plans[0].Name != "Mine" || s == nil || !strings.Contains(s.Why[0].Why, "No products are selected") {
		t.Errorf("%+v", r.Plans[0])
	}
	for ways, says := range map[string]string{
		`"ways": [{"id": "Mine!", "name": "x"}]`:                         "$.ways[0].id",
		`"ways": [{"id": "mine", "name": ""}]`:                           "$.ways[0].name",
		`"ways": [{"id": "mine", "name": "x", "holds": "glue"}]`:         "$.ways[0].holds",
		`"ways": [{"id": "mine", "name": "x", "method": "hose"}]`:        "$.ways[0].method",
		`"ways": [{"id": "mine", "name": "x", "cure": 3}]`:               "$.ways[0].cure",
		`"ways": [{"id": "mine", "name": "x", "shelf": ["paint_gold"]}]`: "$.ways[0].shelf[0]",
		`"ways": [{"id": "prime", "name": "x"}]`:                         "another way already has this id",
		`"ways": [{"id": "a", "name": "x"}, {"id": "a", "name": "y"}]`:   "another way already has this id",
		`"way": "nowhere"`: "there is no such way",
		fmt.Sprintf(`"ways": [%s]`, strings.Join(slices.Repeat([]string{`{"id": "a", "name": "x"}`}, 21), ",")): "21 entries: too many, at most 20",
	} {
		if code, body := put(ways); code != 422 || !strings.Contains(body, says) {
			t.Errorf("%s: %d %s", ways, code, body)
		}
	}
}
