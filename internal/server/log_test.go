package server

import (
	"bytes"
	"context"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"image"
	"image/jpeg"
	"log/slog"
	"math/rand/v2"
	"net/http"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"rutile/core/craft"
	"rutile/internal/app"
	"rutile/internal/demo"
	"rutile/internal/store"
	"rutile/internal/wire"
)

// lapse is a studio whose clock a test sets.
type lapse struct {
	t   *testing.T
	h   http.Handler
	s   *app.Studio
	now time.Time
}

func newLapse(t *testing.T) *lapse {
	t.Helper()
	st, err := store.Open(t.TempDir())
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = st.Close() })
	l := &lapse{t: t, now: time.Date(2026, 11, 23, 8, 0, 0, 0, time.UTC)}
	l.s = app.NewStudio(app.NewEngine(craft.Default()), app.StudioOptions{Store: st, Site: demo.Site, Now: func() time.Time { return l.now }, Log: slog.New(slog.NewTextHandler(t.Output(), nil))})
	l.h = New(Options{Studio: l.s, Page: builtPage})
	return l
}

func (l *lapse) pass(d time.Duration) { l.now = l.now.Add(d) }

func (l *lapse) do(method, path string, body any) (int, []byte) {
	l.t.Helper()
	c := call{method: method, path: path}
	if body != nil {
		b, err := json.Marshal(body)
		if err != nil {
			l.t.Fatal(err)
		}
		c.body = string(b)
	}
	w := c.to(l.h)
	return w.Code, w.Body.Bytes()
}

// must is do with an answer that is wanted.
func must[T any](l *lapse, method, path string, body any) T {
	l.t.Helper()
	code, b := l.do(method, path, body)
	if code >= 300 {
		l.t.Fatalf("%s %s: %d %s", method, path, code, b)
	}
	var out T
	if len(b) > 0 {
		if err := json.Unmarshal(b, &out); err != nil {
			l.t.Fatalf("%s: %v", b, err)
		}
	}
	return out
}

const trunkJSON = `{"format": "rutile/piece", "version": 1, "name": "Hat trunk", "made": 2010, "use": ["indoor"], "site": {"temp_c": 20, "rh_pct": 50},
	"take_apart": [{"kind": "handle", "count": 2, "where": "sides", "zone": "outside"}],
	"zones": [{"id": "outside", "name": "Outside", "substrate": "beech", "finish": "varnish_oil", "gloss": "satin", "soils": [], "area_m2": 2, "wear": "handled",
		"target": {"colour": "#d3d8d8", "sheen": "matt", "look": "solid"},
		"steps": [{"do": "clean", "with": "detergent", "rinse": true}, {"do": "abrade", "grit": 220, "how": "hand"}, {"do": "dust"},
			{"do": "coat", "product": "paint_chalk", "coats": 2, "method": "brush"}, {"do": "wait", "hours": 24}, {"do": "coat", "product": "clear_wb", "coats": 2, "method": "brush"}]}]}`

func (l *lapse) piece(doc string) uint {
	l.t.Helper()
	return must[wire.Saved](l, "POST", "/api/pieces", json.RawMessage(doc)).ID
}

type e = map[string]any

func planned(step, coat int) e {
	if coat > 0 {
		return e{"step": step, "coat": coat}
	}
	return e{"step": step}
}

// tap logs a step as it is logged by a tap, now.
func (l *lapse) tap(piece uint, id, what string, step, coat int, more ...e) wire.Logged {
	l.t.Helper()
	x := e{"id": id, "at": l.now.Format(time.RFC3339), "what": what, "zone": "outside"}
	if step > 0 {
		x["planned"] = planned(step, coat)
	}
	for _, m := range more {
		for k, v := range m {
			x[k] = v
		}
	}
	return must[wire.Logged](l, "POST", fmt.Sprintf("/api/pieces/%d/log?today=true", piece), e{"entries": []e{x}})
}

func (l *lapse) due(piece uint) wire.TodayItem {
	l.t.Helper()
	for _, x := range must[wire.Today](l, "GET", "/api/today", nil).Items {
		if x.PieceID == piece {
			return x
		}
	}
	l.t.Fatal("the piece is not on Today")
	return wire.TodayItem{}
}

func (l *lapse) check(piece uint) wire.ZoneResult {
	l.t.Helper()
	saved := must[wire.Saved](l, "GET", fmt.Sprintf("/api/pieces/%d", piece), nil)
	return must[wire.CheckResult](l, "POST", fmt.Sprintf("/api/check?of=%d", piece), saved.Piece).Zones[0]
}

func clocks(l *lapse) (kinds []string) {
	for _, c := range must[wire.Clocks](l, "GET", "/api/clocks", nil).Clocks {
		kinds = append(kinds, c.Kind)
	}
	slices.Sort(kinds)
	return kinds
}

// An evening's work, and the days after it: what is due follows the log and the air as it was.
func TestWorkIsLogged(t *testing.T) {
	l := newLapse(t)
	id := l.piece(trunkJSON)
	if x := l.due(id); x.Due.State != "not_begun" || x.Due.Step != 1 {
		t.Fatalf("%+v", x)
	}
	l.tap(id, "s1", "began", 1, 0)
	if x := l.due(id); x.Due.State != "working" || x.Due.Since == "" {
		t.Fatalf("begun: %+v", x.Due)
	}
	l.pass(30 * time.Minute)
	l.tap(id, "d1", "done", 1, 0)
	if z := l.check(id); z.Log == nil || z.Log.Past != 1 || len(z.Log.Done) != 1 || !strings.Contains(z.Log.Done[0].Says, "30 min") {
		t.Fatalf("%+v", z.Log)
	}
	l.pass(4 * time.Hour)
	l.tap(id, "d2", "done", 2, 0)
	l.tap(id, "d3", "done", 3, 0)
	l.pass(20 * time.Minute)
	said := l.tap(id, "d4", "done", 4, 1)
	if said.Today == nil || len(said.Notes) > 0 {
		t.Errorf("%+v", said)
	}
	x := l.due(id)
	if x.Due.State != "waiting" || x.Due.Step != 4 || x.Due.Coat != 2 || x.Due.Card != "4-2" {
		t.Fatalf("after the first coat: %+v", x.Due)
	}
	warm := x.Due.From
	if got := clocks(l); !slices.Contains(got, "next") {
		t.Errorf("no clock follows: %v", got)
	}
	// Somebody reads the thermometer: it is cold, and it takes longer.
	must[wire.Today](l, "POST", "/api/air", e{"temp_c": 8, "rh_pct": 55})
	if cold := l.due(id).Due.From; cold <= warm {
		t.Errorf("no later in the cold: %s, %s", warm, cold)
	}
	z := l.check(id)
	if z.Section.Layers[len(z.Section.Layers)-1].Done || !z.Section.Layers[2].Done {
		t.Errorf("the cut does not tell done from planned: %+v", z.Section.Layers)
	}
	if len(z.Section.Steps) != 6 || z.Section.Layers[2].Step != 4 {
		t.Errorf("steps are not those of the plan: %+v", z.Section.Steps)
	}
	// What is needed is what is left.
	needs := must[wire.Needs](l, "POST", fmt.Sprintf("/api/needs?of=%d", id), must[wire.Saved](l, "GET", fmt.Sprintf("/api/pieces/%d", id), nil).Piece)
	if n := len(needs.Zones[0].Coats); n != 3 {
		t.Errorf("%d coats still need paint", n)
	}
	l.pass(20 * time.Hour)
	l.tap(id, "d5", "done", 4, 2, e{"note": "streaks at the left", "seen": []e{{"what": "runs", "level": 1}}})
	l.pass(30 * time.Hour)
	l.tap(id, "d6", "done", 6, 1)
	l.pass(30 * time.Hour)
	l.tap(id, "d7", "done", 6, 2)
	x = l.due(id)
	if x.Due.State != "hardening" || len(x.Due.Uses) != 3 || x.Due.Uses[0].From >= x.Due.Uses[2].From {
		t.Errorf("all done: %+v", x.Due)
	}
	log := must[wire.PieceLog](l, "GET", fmt.Sprintf("/api/pieces/%d/log", id), nil)
	if len(log.Lines) != 8 || len(log.Fittings) != 1 || log.Fittings[0].From == "" || log.Fittings[0].Back {
		t.Errorf("%d lines, %+v", len(log.Lines), log.Fittings)
	}
	l.pass(10 * 24 * time.Hour)
	l.tap(id, "b1", "put_back", 0, 0, e{"fitting": e{"kind": "handle", "where": "sides"}})
	l.tap(id, "n1", "note", 0, 0, e{"note": "one coat less would do", "lesson": true})
	l.tap(id, "f1", "finished", 0, 0)
	if code, _ := l.do("GET", "/api/today", nil); code != 200 {
		t.Error(code)
	}
	for _, x := range must[wire.Today](l, "GET", "/api/today", nil).Items {
		if x.PieceID == id {
			t.Error("a piece that was handed over is on Today")
		}
	}
	if again := l.tap(id, "f2", "finished", 0, 0); !slices.ContainsFunc(again.Notes, func(n string) bool { return strings.Contains(n, "before") }) {
		t.Errorf("finished twice: %v", again.Notes)
	}
	if got := clocks(l); len(got) > 0 {
		t.Errorf("clocks of a piece that is gone: %v", got)
	}
	back := must[wire.LookBack](l, "GET", fmt.Sprintf("/api/pieces/%d/back", id), nil)
	if len(back.Zones) != 1 || len(back.Lessons) != 1 || !strings.Contains(back.Says, "of work") || back.Rows[1].Planned != "4" || back.Rows[1].Really != "4" {
		t.Errorf("%+v", back)
	}
	like := must[[]wire.LikeZone](l, "GET", "/api/like?substrate=beech&finish=varnish_oil&words=chalk", nil)
	if len(like) != 1 || !like[0].Alike || len(like[0].Steps) != 6 || len(like[0].Lessons) != 1 {
		t.Errorf("%+v", like)
	}
	if like := must[[]wire.LikeZone](l, "GET", "/api/like?words=epoxy", nil); len(like) != 0 {
		t.Errorf("found by what it is not: %+v", like)
	}
	var sum wire.Summary
	for _, p := range must[[]wire.Summary](l, "GET", "/api/pieces", nil) {
		if p.ID == id {
			sum = p
		}
	}
	if sum.Finished == "" || sum.Stands != "Handed over" || !strings.Contains(sum.FoundBy, "chalk") {
		t.Errorf("%+v", sum)
	}
	// As CSV, and as a piece file that is judged the same elsewhere.
	_, body := l.do("GET", fmt.Sprintf("/api/pieces/%d/log.csv", id), nil)
	rows, err := csv.NewReader(strings.NewReader(string(body))).ReadAll()
	if err != nil || len(rows) != 1+len(must[wire.PieceLog](l, "GET", fmt.Sprintf("/api/pieces/%d/log", id), nil).Lines) {
		t.Errorf("%d rows, %v", len(rows), err)
	}
	_, file := l.do("GET", fmt.Sprintf("/api/pieces/%d/file", id), nil)
	other := must[wire.Saved](l, "POST", "/api/pieces", json.RawMessage(file)).ID
	a, b := l.check(id), l.check(other)
	if a.Verdict != b.Verdict || a.Adhesion.Strength != b.Adhesion.Strength || len(a.Log.Done) != len(b.Log.Done) {
		t.Errorf("carried away it is another: %v %v", a.Says, b.Says)
	}
}

// What cannot be logged is refused with its place and reason; what is odd is kept, and said.
func TestWhatCannotBeLogged(t *testing.T) {
	l := newLapse(t)
	id := l.piece(trunkJSON)
	path := fmt.Sprintf("/api/pieces/%d/log", id)
	now := l.now.Format(time.RFC3339)
	did := func(more e) e {
		x := e{"id": "x", "at": now, "what": "done", "zone": "outside", "planned": planned(1, 0)}
		for k, v := range more {
			if x[k] = v; v == nil {
				delete(x, k)
			}
		}
		return x
	}
	for name, x := range map[string]struct {
		entry e
		where string
	}{
		"a zone that is not there":         {did(e{"zone": "lid"}), "$.entries[0].zone"},
		"no zone":                          {did(e{"zone": nil}), "$.entries[0].zone"},
		"a step that is not in the plan":   {did(e{"planned": planned(9, 0)}), "$.entries[0].planned.step"},
		"neither a step nor what was done": {did(e{"planned": nil}), "$.entries[0].step"},
		"a day that is not":                {did(e{"at": "2026-02-30T10:00:00Z"}), "$.entries[0].at"},
		"a time without a zone":            {did(e{"at": "2026-11-20T10:00"}), "$.entries[0].at"},
		"next year":                        {did(e{"at": "2027-11-20T10:00:00Z"}), "$.entries[0].at"},
		"long ago":                         {did(e{"at": "1999-11-20T10:00:00Z"}), "$.entries[0].at"},
		"an id with spaces":                {did(e{"id": "a b"}), "$.entries[0].id"},
		"its own correction":               {did(e{"corrects": "x"}), "$.entries[0].corrects"},
		"taken back, but what":             {did(e{"void": true}), "$.entries[0].corrects"},
		"a level beyond the scale":         {did(e{"seen": []e{{"what": "runs", "level": 5}}}), "$.entries[0].seen[0].level"},
		"a plan":                           {e{"id": "x", "at": now, "what": "plan", "zone": "outside"}, "$.entries[0].what"},
		"a field that is not":              {did(e{"colour": "red"}), "$.entries[0].colour"},
		"a can that is nowhere":            {did(e{"planned": planned(4, 1), "step": e{"do": "coat", "product": "paint_chalk", "can": "gone"}}), "$.entries[0].step.can"},
		"three coats in one":               {did(e{"planned": planned(4, 1), "step": e{"do": "coat", "product": "paint_chalk", "coats": 3}}), "$.entries[0].step.coats"},
		"nothing went back":                {did(e{"what": "put_back"}), "$.entries[0].fitting"},
	} {
		code, body := l.do("POST", path, e{"entries": []e{x.entry}})
		var p problemBody
		_ = json.Unmarshal(body, &p)
		if code != 422 || len(p.Errors) == 0 || p.Errors[0].Location != x.where {
			t.Errorf("%s: %d %s; want %s", name, code, body, x.where)
		}
	}
	if code, _ := l.do("POST", "/api/pieces/999/log", e{"entries": []e{did(nil)}}); code != 404 {
		t.Errorf("a piece that is not there: %d", code)
	}
	if code, _ := l.do("POST", path, e{"entries": "x"}); code != 422 {
		t.Errorf("no list: %d", code)
	}
	if n := len(must[wire.PieceLog](l, "GET", path, nil).Lines); n != 0 {
		t.Errorf("%d entries of what was refused", n)
	}

	// Before its predecessor: it is kept, and asked about.
	said := l.tap(id, "late", "done", 4, 1)
	if len(said.Notes) != 1 || !strings.Contains(said.Notes[0], "sand") {
		t.Errorf("before its predecessor: %v", said.Notes)
	}
	if x := l.due(id); len(x.Open) != 3 {
		t.Errorf("%+v", x.Open)
	}
	l.tap(id, "early", "done", 2, 0, e{"at": l.now.Add(-time.Hour).Format(time.RFC3339)})
	if x := l.due(id); len(x.Open) != 2 {
		t.Errorf("it fits in later: %+v", x.Open)
	}
	// Never planned: kept and walked.
	l.tap(id, "extra", "done", 0, 0, e{"step": e{"do": "coat", "product": "primer_bond_wb", "method": "brush"}})
	if z := l.check(id); len(z.Log.Done) != 3 || !slices.ContainsFunc(z.Log.Done, func(d wire.DoneStep) bool { return d.Entry == "extra" && d.Step == 0 && d.Otherwise }) {
		t.Errorf("never planned: %+v", z.Log.Done)
	}
	// A correction of a correction.
	l.pass(time.Minute)
	l.tap(id, "c1", "done", 4, 1, e{"corrects": "late", "thick": 1.5})
	l.pass(time.Minute)
	l.tap(id, "c2", "done", 4, 1, e{"corrects": "c1", "thick": 0.7})
	if z := l.check(id); !slices.ContainsFunc(z.Log.Done, func(d wire.DoneStep) bool { return d.Entry == "c2" && strings.Contains(d.Says, "thin") }) {
		t.Errorf("%+v", z.Log.Done)
	}
	// A phone whose clock is a year off.
	off := l.now.AddDate(-1, 0, 0)
	x := e{"id": "phone", "at": off.Add(-10 * time.Minute).Format(time.RFC3339), "what": "note", "note": "dry"}
	got := must[wire.Logged](l, "POST", path+"?sent="+off.Format("2006-01-02T15:04:05Z"), e{"entries": []e{x}})
	if len(got.Notes) != 1 || !strings.Contains(got.Notes[0], "365 days behind") {
		t.Errorf("%v", got.Notes)
	}
	for _, line := range must[wire.PieceLog](l, "GET", path, nil).Lines {
		if line.Entry.ID == "phone" && wire.Instant(line.Entry.At).Sub(l.now).Round(time.Second) != -10*time.Minute {
			t.Errorf("its note is of %s, now is %s", line.Entry.At, l.now)
		}
	}
	// It corrects its note, whose time it has from here: that is not put right once more.
	at := l.now.Add(-10 * time.Minute).Format("2006-01-02T15:04:05.000Z")
	must[wire.Logged](l, "POST", path+"?sent="+off.Format("2006-01-02T15:04:05Z"), e{"entries": []e{{"id": "phone-2", "at": at, "what": "note", "note": "dry to the touch", "corrects": "phone"}}})
	for _, line := range must[wire.PieceLog](l, "GET", path, nil).Lines {
		if line.Entry.ID == "phone-2" && wire.Instant(line.Entry.At).Sub(l.now).Round(time.Second) != -10*time.Minute {
			t.Errorf("its correction is of %s, now is %s", line.Entry.At, l.now)
		}
	}
}

// What was logged cannot be edited away, whatever is saved over the plan; and a fix changes only what is still to be done.
func TestWhatIsLoggedStays(t *testing.T) {
	l := newLapse(t)
	id := l.piece(trunkJSON)
	for i, x := range [][2]int{{1, 0}, {2, 0}, {3, 0}, {4, 1}} {
		l.tap(id, fmt.Sprint("d", i), "done", x[0], x[1])
		l.pass(3 * time.Hour)
	}
	saved := must[wire.Saved](l, "GET", fmt.Sprintf("/api/pieces/%d", id), nil)
	// What may come next comes after what was done, wherever it is asked for; and plans from the bare zone up are not
	// compared any more.
	for _, at := range []string{"0", "3", "6"} {
		next := must[[]wire.NextStep](l, "POST", fmt.Sprintf("/api/next?of=%d&zone=outside&at=%s", id, at), saved.Piece)
		if len(next) == 0 {
			t.Errorf("nothing comes after step %s", at)
		}
	}
	if code, body := l.do("POST", fmt.Sprintf("/api/plans?of=%d&zone=outside&ways=best", id), saved.Piece); code != 422 || !strings.Contains(string(body), "has begun") {
		t.Errorf("plans of what was begun: %d %s", code, body)
	}
	saved.Piece.Zones[0].Steps = nil
	body, _ := json.Marshal(saved.Piece)
	w := call{method: "PUT", path: fmt.Sprintf("/api/pieces/%d", id), body: string(body), header: map[string]string{"If-Match": fmt.Sprintf(`"%d"`, saved.Rev)}}.to(l.h)
	if w.Code != 200 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	z := l.check(id)
	if len(z.Log.Done) != 4 || z.Log.Due.State != "hardening" {
		t.Errorf("%+v", z.Log)
	}
	if b := must[wire.LookBack](l, "GET", fmt.Sprintf("/api/pieces/%d/back", id), nil); b.Zones[0].Rows[1].Planned != "4" {
		t.Errorf("the plan as it was is gone: %+v", b.Zones[0].Rows)
	}
	// An unsealed matt paint: the fix adds to the plan, and leaves what was done alone.
	for _, f := range z.Findings {
		for _, r := range f.Repairs {
			for k, s := range r.Steps {
				if s.Do == "coat" && s.Product == "paint_chalk" && k < 4 {
					t.Errorf("%s: the fix plans again what was done: %+v", f.Code, r.Steps)
				}
			}
		}
	}
}

// 1,000 entries from three devices, in any order, each twice: each once, none lost; and what they took from a can is
// taken once.
func TestThreeDevicesAtOnce(t *testing.T) {
	l := newLapse(t)
	can := must[wire.ShelfCan](l, "POST", "/api/shelf", e{"id": "grey", "kind": "paint_chalk", "name": "Grey", "size_l": 10, "left_l": 10})
	doc := strings.Replace(trunkJSON, `"product": "paint_chalk", "coats": 2`, `"product": "paint_chalk", "can": "`+can.ID+`", "coats": 2`, 1)
	doc = strings.Replace(doc, `"zones":`, `"cans": [{"id": "`+can.ID+`", "kind": "paint_chalk"}], "zones":`, 1)
	id := l.piece(doc)
	path := fmt.Sprintf("/api/pieces/%d/log", id)
	devices, each := 3, 334
	if testing.Short() {
		each = 100
	}
	var all sync.WaitGroup
	for d := range devices {
		all.Go(func() {
			r := rand.New(rand.NewPCG(uint64(d), 1))
			var batches [][]e
			for i := range each {
				x := e{"id": fmt.Sprintf("d%d-%d", d, i), "at": l.now.Add(-time.Duration(i) * time.Minute).Format(time.RFC3339), "what": "note", "note": fmt.Sprint(i)}
				if i == 7 {
					x = e{"id": x["id"], "at": x["at"], "what": "done", "zone": "outside", "planned": planned(4, 1), "used_l": .5}
				}
				if n := len(batches); n == 0 || len(batches[n-1]) > 8 {
					batches = append(batches, nil)
				}
				batches[len(batches)-1] = append(batches[len(batches)-1], x)
			}
			batches = append(batches, batches...)
			r.Shuffle(len(batches), func(i, j int) { batches[i], batches[j] = batches[j], batches[i] })
			for _, b := range batches {
				if code, body := l.do("POST", path, e{"entries": b}); code != 200 {
					t.Errorf("%d %s", code, body)
				}
			}
		})
	}
	all.Wait()
	log := must[wire.PieceLog](l, "GET", path, nil)
	seen := map[string]int{}
	for _, x := range log.Lines {
		seen[x.Entry.ID]++
	}
	if len(seen) != devices*each || len(log.Lines) != devices*each {
		t.Errorf("%d entries, %d of them different", len(log.Lines), len(seen))
	}
	shelf := must[wire.Shelf](l, "GET", "/api/shelf", nil)
	if left := shelf.Cans[0].LeftL; left == nil || *left < 8.49 || *left > 8.51 {
		t.Errorf("three coats of half a litre leave %v of ten", left)
	}
	// Taken back, it is in the can again.
	must[wire.Logged](l, "POST", path, e{"entries": []e{{"id": "v", "at": l.now.Format(time.RFC3339), "what": "done", "corrects": "d1-7", "void": true}}})
	if left := must[wire.Shelf](l, "GET", "/api/shelf", nil).Cans[0].LeftL; left == nil || *left < 8.99 || *left > 9.01 {
		t.Errorf("taken back: %v left", left)
	}
}

// A coat and its taking back arrive at the same moment, in any order: what is in the can is what the log comes to.
func TestTakenBackAtTheSameMoment(t *testing.T) {
	l := newLapse(t)
	can := must[wire.ShelfCan](l, "POST", "/api/shelf", e{"id": "grey", "kind": "paint_chalk", "name": "Grey", "size_l": 10, "left_l": 10})
	doc := strings.Replace(trunkJSON, `"product": "paint_chalk", "coats": 2`, `"product": "paint_chalk", "can": "`+can.ID+`", "coats": 2`, 1)
	id := l.piece(strings.Replace(doc, `"zones":`, `"cans": [{"id": "`+can.ID+`", "kind": "paint_chalk"}], "zones":`, 1))
	path, now := fmt.Sprintf("/api/pieces/%d/log", id), l.now.Format(time.RFC3339)
	var all sync.WaitGroup
	for n := range 40 {
		coat := fmt.Sprintf("coat%d", n)
		for _, x := range []e{
			{"id": coat, "at": now, "what": "done", "zone": "outside", "planned": planned(4, 1), "used_l": .2},
			{"id": "back-" + coat, "at": now, "what": "done", "corrects": coat, "void": true},
		} {
			all.Go(func() {
				if code, body := l.do("POST", path, e{"entries": []e{x}}); code != 200 {
					t.Errorf("%d %s", code, body)
				}
			})
		}
	}
	all.Wait()
	if left := must[wire.Shelf](l, "GET", "/api/shelf", nil).Cans[0].LeftL; left == nil || *left < 9.999 {
		t.Errorf("nothing was used, and %v of ten are left", *left)
	}
}

// Work begins on two zones whose ids begin alike: the plan of each is kept.
func TestPlansOfZonesWithLongIDs(t *testing.T) {
	l := newLapse(t)
	long := strings.Repeat("drawer-", 5) // an id has up to 40 characters
	doc := strings.Replace(trunkJSON, `"id": "outside"`, `"id": "`+long+`left"`, 1)
	i := strings.Index(doc, `{"id": "`+long)
	zone := doc[i:strings.LastIndex(doc, "]}")]
	two := strings.Replace(strings.Replace(zone, long+"left", long+"right", 1), `{"do": "wait", "hours": 24}, `, "", 1)
	id := l.piece(strings.ReplaceAll(doc[:i]+zone+", "+two+"]}", `"zone": "outside"`, `"zone": "`+long+`left"`))
	path, now := fmt.Sprintf("/api/pieces/%d/log", id), l.now.Format(time.RFC3339)
	must[wire.Logged](l, "POST", path, e{"entries": []e{
		{"id": "a", "at": now, "what": "done", "zone": long + "left", "planned": planned(1, 0)}, {"id": "b", "at": now, "what": "done", "zone": long + "right", "planned": planned(1, 0)},
	}})
	kept := map[string]int{}
	for _, x := range must[wire.Piece](l, "GET", fmt.Sprintf("/api/pieces/%d/file", id), nil).Log {
		if x.What == wire.WhatPlan {
			kept[x.Zone] = len(x.Steps)
		}
	}
	if kept[long+"left"] != 6 || kept[long+"right"] != 5 {
		t.Errorf("plans of %v", kept)
	}
}

// Air that no workshop has is refused.
func TestAirThatIsNone(t *testing.T) {
	l := newLapse(t)
	for _, air := range []e{{"temp_c": 80, "rh_pct": 50}, {"temp_c": 20, "rh_pct": 130}, {"temp_c": 20}} {
		if code, body := l.do("POST", "/api/air", air); code != 422 {
			t.Errorf("%v: %d %s", air, code, body)
		}
	}
	if x := must[wire.Today](l, "GET", "/api/today", nil); x.Read != nil {
		t.Errorf("it was kept: %+v", x.Read)
	}
}

// A camera's file of 20 MB is taken, made small, and stands in the log; what is larger than a picture may be is refused
// with a sentence.
func TestACamerasFile(t *testing.T) {
	if testing.Short() {
		t.Skip("a large picture takes a while")
	}
	l := newLapse(t)
	id := l.piece(trunkJSON)
	r := rand.New(rand.NewPCG(1, 2))
	m := image.NewRGBA(image.Rect(0, 0, 4000, 3000))
	for i := range m.Pix {
		m.Pix[i] = byte(r.Uint32())
	}
	var b bytes.Buffer
	if err := jpeg.Encode(&b, m, &jpeg.Options{Quality: 100}); err != nil {
		t.Fatal(err)
	}
	if b.Len() < 18<<20 {
		t.Fatalf("the picture has only %d MB", b.Len()>>20)
	}
	w := call{method: "POST", path: "/api/photos", body: b.String(), header: map[string]string{"Content-Type": "application/octet-stream"}}.to(l.h)
	var kept wire.PhotoKept
	if err := json.Unmarshal(w.Body.Bytes(), &kept); w.Code != 201 || err != nil {
		t.Fatalf("%d %.200s %v", w.Code, w.Body, err)
	}
	l.tap(id, "p", "note", 0, 0, e{"photos": []string{kept.File}})
	if got := must[wire.PieceLog](l, "GET", fmt.Sprintf("/api/pieces/%d/log", id), nil).Lines[0].Entry.Photos; len(got) != 1 {
		t.Errorf("%v", got)
	}
	if w := (call{method: "POST", path: "/api/photos", body: strings.Repeat("x", app.MaxPhotoBytes+1), header: map[string]string{"Content-Type": "application/octet-stream"}}).to(l.h); w.Code != 413 {
		t.Errorf("too large: %d %s", w.Code, w.Body)
	}
}

// BenchmarkToday answers what is due on all demo pieces, and logs a tap.
func BenchmarkToday(b *testing.B) {
	s := studioWith(b, app.StudioOptions{})
	h := New(Options{Studio: s, Page: builtPage})
	b.Run("today", func(b *testing.B) {
		for b.Loop() {
			if w := (call{method: "GET", path: "/api/today"}).to(h); w.Code != 200 {
				b.Fatal(w.Code)
			}
		}
	})
	b.Run("tap", func(b *testing.B) {
		n := 0
		for b.Loop() {
			n++
			body := fmt.Sprintf(`{"entries": [{"id": "t%d", "at": %q, "what": "began", "zone": "outside", "planned": {"step": 1}}]}`, n, time.Now().UTC().Format(time.RFC3339))
			if _, err := s.AddEntries(context.Background(), 24, "", "", []byte(body)); err != nil {
				b.Fatal(err)
			}
			if n%200 == 0 {
				b.StopTimer()
				s = studioWith(b, app.StudioOptions{})
				b.StartTimer()
			}
		}
	})
}
