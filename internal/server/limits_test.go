package server

import (
	"bufio"
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync"
	"testing"
	"time"

	"rutile/internal/app"
	"rutile/internal/wire"
)

// open is a piece whose zones have no plan, each of a colour of its own, so that none is like another.
func open(zones int) string {
	p := wire.New("Open")
	for i := range zones {
		p.Zones = append(p.Zones, wire.Zone{
			ID: fmt.Sprintf("z%d", i), Substrate: []string{"pine", "oak", "melamine"}[i%3], Finish: "unknown", AreaM2: 1,
			Soils: []wire.Level{{ID: "grease", Level: 2}, {ID: "nicotine", Level: 3}}, Target: &wire.Target{Colour: fmt.Sprintf("#c0e0%02x", i)},
		})
	}
	data, err := json.Marshal(p)
	if err != nil {
		panic(err)
	}
	return string(data)
}

// Few large bodies are taken in at a time; another is told within a moment that the server is busy, and
// small ones pass.
func TestFewLargeBodiesAtOnce(t *testing.T) {
	t.Parallel()
	s := httptest.NewServer(handler(t))
	defer s.Close()
	var group sync.WaitGroup
	var pipes []*io.PipeWriter
	for range 4 { // those that send the beginning of a large body and no more
		r, w := io.Pipe()
		pipes = append(pipes, w)
		req, _ := http.NewRequest("POST", s.URL+"/api/check", r)
		req.ContentLength = 2 * large
		req.Header.Set("Content-Type", "application/json")
		group.Go(func() {
			if res, err := http.DefaultClient.Do(req); err == nil {
				res.Body.Close()
			}
		})
		if _, err := w.Write([]byte(`{"format"`)); err != nil {
			t.Fatal(err)
		}
	}
	begun := time.Now()
	var res *http.Response
	var says []byte
	for range 40 { // a body that is under way may not have arrived yet
		var err error
		begun = time.Now()
		if res, err = http.Post(s.URL+"/api/check", "application/json", bytes.NewReader(make([]byte, 2*large))); err != nil {
			t.Fatal(err)
		}
		says, _ = io.ReadAll(res.Body)
		res.Body.Close()
		if res.StatusCode == http.StatusServiceUnavailable {
			break
		}
		time.Sleep(50 * time.Millisecond)
	}
	if res.StatusCode != http.StatusServiceUnavailable || res.Header.Get("Retry-After") == "" || !strings.Contains(string(says), busy) || time.Since(begun) > 5*time.Second {
		t.Errorf("a fifth: %s after %v: %s", res.Status, time.Since(begun), says)
	}
	if w := (call{method: "POST", path: "/api/check", body: example(t)}).to(s.Config.Handler); w.Code != http.StatusOK {
		t.Errorf("a small one: %d", w.Code)
	}
	for _, w := range pipes {
		_ = w.CloseWithError(io.ErrUnexpectedEOF)
	}
	group.Wait()
	if w := (call{method: "POST", path: "/api/check", body: example(t) + strings.Repeat(" ", 2*large)}).to(s.Config.Handler); w.Code != http.StatusOK {
		t.Errorf("a large one, once there is room: %d %s", w.Code, w.Body)
	}
}

// A search can be asked how far it is and stopped by its name, and then answers with what it has.
func TestASearchIsStoppedByItsName(t *testing.T) {
	t.Parallel()
	s := httptest.NewServer(handler(t))
	defer s.Close()
	res, err := http.Post(s.URL+"/api/plans/piece?run=mine", "application/json", strings.NewReader(open(40)))
	if err != nil {
		t.Fatal(err)
	}
	defer res.Body.Close()
	lines := bufio.NewScanner(res.Body)
	lines.Buffer(nil, 16<<20)
	var last wire.PlanLine
	for n := 0; lines.Scan(); n++ {
		last = wire.PlanLine{}
		if err := json.Unmarshal(lines.Bytes(), &last); err != nil {
			t.Fatal(err)
		}
		if n == 1 {
			far := decode[wire.PlanRun](t, call{method: "GET", path: "/api/plans/runs/mine"}.to(s.Config.Handler))
			if far.Of != 40 {
				t.Errorf("it is %+v far", far)
			}
			for range 2 { // twice does no harm
				w := (call{method: "DELETE", path: "/api/plans/runs/mine"}).to(s.Config.Handler)
				if w.Code != http.StatusNoContent && w.Code != http.StatusNotFound {
					t.Errorf("stopped: %d %s", w.Code, w.Body)
				}
			}
		}
	}
	if last.Plan == nil || len(last.Plan.Zones) != 40 {
		t.Fatalf("%v: %+v", lines.Err(), last)
	}
	states := map[string]int{}
	for _, z := range last.Plan.Zones {
		states[z.State]++
	}
	if states["stopped"] == 0 || states["stopped"] == 40 {
		t.Errorf("%v", states)
	}
	for _, method := range []string{"GET", "DELETE"} {
		if w := (call{method: method, path: "/api/plans/runs/mine"}).to(s.Config.Handler); w.Code != http.StatusNotFound {
			t.Errorf("%s afterwards: %d", method, w.Code)
		}
	}
}

// Every one of many questions for plans is answered, or told within a moment that the server is busy.
func TestManyPlansAtOnce(t *testing.T) {
	t.Parallel()
	studio := studioWith(t, app.StudioOptions{})
	studio.Budgets = app.Budgets{Zone: 2 * time.Second, Piece: 2 * time.Second}
	s := httptest.NewServer(New(Options{Studio: studio}))
	defer s.Close()
	var group sync.WaitGroup
	var mu sync.Mutex
	got := map[int]int{}
	for i := range 12 {
		path, body := fmt.Sprintf("/api/plans?zone=z%d", i%3), open(3)
		if i%2 == 0 {
			path, body = "/api/plans/piece", open(60)
		}
		group.Go(func() {
			begun := time.Now()
			res, err := http.Post(s.URL+path, "application/json", strings.NewReader(body))
			if err != nil {
				t.Error(err)
				return
			}
			defer res.Body.Close()
			answer, err := io.ReadAll(res.Body)
			if res.StatusCode == http.StatusServiceUnavailable && (time.Since(begun) > 6*time.Second || res.Header.Get("Retry-After") == "" || !strings.Contains(string(answer), busy)) {
				t.Errorf("busy after %v: %s", time.Since(begun), answer)
			}
			if err != nil || res.StatusCode == http.StatusOK && !bytes.HasSuffix(bytes.TrimSpace(answer), []byte("}")) {
				t.Errorf("an answer that was cut off: %v, %.100s", err, answer)
			}
			mu.Lock()
			defer mu.Unlock()
			got[res.StatusCode]++
		})
	}
	group.Wait()
	if got[200] == 0 || got[200]+got[503] != 12 {
		t.Errorf("%v", got)
	}
}
