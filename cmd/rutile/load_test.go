package main

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"rutile/internal/wire"
)

// kind is a kind of request of an ordinary day, with how often it comes among a hundred.
type kind struct {
	name  string
	often int
	ask   func(l *load, n int) (method, path string, body []byte, header []string)
}

var day = []kind{
	{"list", 15, func(*load, int) (string, string, []byte, []string) { return "GET", "/api/pieces", nil, nil }},
	{"open", 15, func(l *load, n int) (string, string, []byte, []string) {
		return "GET", fmt.Sprintf("/api/pieces/%d", l.ids[n%len(l.ids)]), nil, nil
	}},
	{"check", 10, func(l *load, n int) (string, string, []byte, []string) {
		return "POST", "/api/check", l.bodies[n%len(l.bodies)], nil
	}},
	{"change", 30, func(l *load, n int) (string, string, []byte, []string) {
		z := l.zone
		z.AreaM2 = 1 + float64(n%90)/100
		body, _ := json.Marshal(wire.Change{Zones: []wire.Zone{z}})
		return "PATCH", "/api/check", body, []string{"If-Match", l.token}
	}},
	{"save", 15, func(l *load, n int) (string, string, []byte, []string) {
		s := <-l.drafts // nobody else edits it now
		p := s.Piece
		p.Made = 1900 + n%120
		body, _ := json.Marshal(p)
		return "PUT", fmt.Sprintf("/api/pieces/%d", s.ID), body, []string{"If-Match", fmt.Sprintf(`"%d"`, s.Rev)}
	}},
	{"settings", 5, func(*load, int) (string, string, []byte, []string) { return "GET", "/api/studio", nil, nil }},
	{"vocabulary", 3, func(*load, int) (string, string, []byte, []string) { return "GET", "/api/vocab", nil, nil }},
	{"next", 5, func(l *load, n int) (string, string, []byte, []string) {
		return "POST", "/api/next?zone=" + l.zone.ID + "&at=1", l.bodies[0], nil
	}},
	{"plans", 2, func(l *load, n int) (string, string, []byte, []string) {
		return "POST", "/api/plans?ways=best&zone=" + l.zone.ID, l.open, nil
	}},
}

// load is a studio that is asked things.
type load struct {
	*process
	ids    []uint
	bodies [][]byte
	zone   wire.Zone
	open   []byte // a piece whose zone has no plan
	token  string
	drafts chan wire.Saved
	client *http.Client

	mu   sync.Mutex
	took map[string][]time.Duration
	errs []string
}

func loaded(t testing.TB) *load {
	t.Helper()
	l := &load{process: begin(t, filepath.Join(t.TempDir(), "studio")), client: &http.Client{Timeout: time.Minute, Transport: &http.Transport{MaxIdleConnsPerHost: 64}}}
	t.Cleanup(l.kill)
	l.drafts = make(chan wire.Saved, 40)
	for range cap(l.drafts) {
		answer, ok := l.send("POST", "/api/pieces", "application/json", []byte(example(t)))
		var s wire.Saved
		if !ok || json.Unmarshal(answer, &s) != nil {
			t.Fatalf("%s", answer)
		}
		l.drafts <- s
	}
	for _, name := range []string{"programme-rack", "dresser", "brown-table"} {
		data, err := os.ReadFile("../../examples/" + name + ".json")
		if err != nil {
			t.Fatal(err)
		}
		l.bodies = append(l.bodies, data)
		answer, ok := l.send("POST", "/api/pieces", "application/json", data)
		var s wire.Saved
		if !ok || json.Unmarshal(answer, &s) != nil {
			t.Fatalf("%s", answer)
		}
		l.ids = append(l.ids, s.ID)
		if len(l.bodies) == 1 {
			l.zone = s.Piece.Zones[0]
			p := s.Piece
			p.Zones = slices.Clone(p.Zones)
			p.Zones[0].Steps = nil
			l.open, _ = json.Marshal(p)
		}
	}
	r, err := http.Post(l.url+"/api/check", "application/json", bytes.NewReader(l.bodies[0]))
	if err != nil {
		t.Fatal(err)
	}
	r.Body.Close()
	l.token = r.Header.Get("ETag")
	return l
}

// one asks one thing and notes how long it took.
func (l *load) one(k *kind, n int) {
	method, path, body, header := k.ask(l, n)
	r, err := http.NewRequest(method, l.url+path, bytes.NewReader(body))
	if err != nil {
		panic(err)
	}
	r.Header.Set("Content-Type", "application/json")
	for i := 0; i+1 < len(header); i += 2 {
		r.Header.Set(header[i], header[i+1])
	}
	begun := time.Now()
	res, err := l.client.Do(r)
	status := 0
	var answer []byte
	if err == nil {
		answer, err = io.ReadAll(res.Body)
		res.Body.Close()
		status = res.StatusCode
	}
	took := time.Since(begun)
	if k.name == "save" {
		var s wire.Saved
		if json.Unmarshal(answer, &s) == nil {
			l.drafts <- s
		}
	}
	l.mu.Lock()
	defer l.mu.Unlock()
	switch {
	case status == http.StatusServiceUnavailable && k.name == "plans": // it says that it is busy
	case status == http.StatusPreconditionFailed: // the check has expired: another is its base
	case err != nil || status >= 300:
		l.errs = append(l.errs, fmt.Sprintf("%s: %d %v %.200s", k.name, status, err, answer))
	default:
		l.took[k.name] = append(l.took[k.name], took)
		if k.name == "change" {
			l.token = res.Header.Get("ETag")
		}
	}
}

// during asks so many things a second for a while, each at its time, however long the others take.
func (l *load) during(perSecond int, long time.Duration, kinds []kind) map[string][]time.Duration {
	l.took = map[string][]time.Duration{}
	var mix []*kind
	for i := range kinds {
		for range kinds[i].often {
			mix = append(mix, &kinds[i])
		}
	}
	r := rand.New(rand.NewPCG(1, 2))
	var group sync.WaitGroup
	tick := time.NewTicker(time.Second / time.Duration(perSecond))
	defer tick.Stop()
	for n := range int(long.Seconds() * float64(perSecond)) {
		<-tick.C
		k := mix[r.IntN(len(mix))]
		group.Go(func() { l.one(k, n) })
	}
	group.Wait()
	return l.took
}

func p99(took []time.Duration) time.Duration {
	took = slices.Clone(took)
	slices.Sort(took)
	return took[min(len(took)-1, len(took)*99/100)]
}

// memory is what the server's process holds, in megabytes.
func (l *load) memory() float64 {
	data, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", l.cmd.Process.Pid))
	if err != nil {
		return 0
	}
	_, rest, _ := strings.Cut(string(data), "VmRSS:")
	kb, _ := strconv.Atoi(strings.Fields(rest)[0])
	return float64(kb) / 1024
}

// BenchmarkLoad asks 200 things a second and says, for each kind, how its p99 compares with what it is
// at 10 a second, and how much memory the server has then and in the middle.
func BenchmarkLoad(b *testing.B) {
	quiet, busy := 60*time.Second, 180*time.Second
	if testing.Short() {
		quiet, busy = 3*time.Second, 3*time.Second
	}
	l := loaded(b)
	for b.Loop() {
		l.during(50, 2*time.Second, day) // nothing is for the first time
		alone := l.during(10, quiet, day)
		l.during(200, busy/2, day)
		half := l.memory()
		full := l.during(200, busy/2, day)
		for _, k := range day {
			if len(alone[k.name]) == 0 || len(full[k.name]) == 0 {
				continue
			}
			a, f := p99(alone[k.name]), p99(full[k.name])
			b.ReportMetric(float64(f)/float64(a), k.name+"-p99-times")
			b.Logf("%s: p99 %v at 10 a second, %v at 200 (%d and %d requests)", k.name, a, f, len(alone[k.name]), len(full[k.name]))
		}
		b.ReportMetric(half, "MB-in-the-middle")
		b.ReportMetric(l.memory(), "MB-at-the-end")
	}
	b.ReportMetric(0, "ns/op")
	if len(l.errs) > 0 {
		b.Fatalf("%d errors, as %s", len(l.errs), l.errs[0])
	}
}

// hardPiece is one whose zones take the longest to plan: unknown finishes, much dirt, and looks.
func hardPiece(t testing.TB, zones int) []byte {
	t.Helper()
	p := wire.New("Hard")
	p.Made = 1950
	for i := range zones {
		p.Zones = append(p.Zones, wire.Zone{
			ID: fmt.Sprintf("z%d", i), Substrate: []string{"unknown_wood", "pine", "oak", "melamine"}[i%4], Finish: "unknown", AreaM2: 1 + float64(i%3),
			Soils:    []wire.Level{{ID: "grease", Level: 2}, {ID: "silicone", Level: 2}, {ID: "nicotine", Level: 3}},
			Bleeders: []wire.Level{{ID: "tannin", Level: 2}, {ID: "resin", Level: 2}},
			Defects:  []wire.Defect{{ID: "gouge", Count: 2, Length: 4}},
			Target:   &wire.Target{Colour: fmt.Sprintf("#%02xe0d8", 0x80+i%100), Sheen: "satin", Look: []string{"crackle", "chippy", "solid", "distress_dry"}[i%4]},
		})
	}
	data, err := json.Marshal(p)
	if err != nil {
		t.Fatal(err)
	}
	return data
}

// BenchmarkChecksBesidePlans asks 200 things a second and says how the p99 of live checks, while twenty of the
// hardest plans are asked for again and again, compares with what it is without them.
func BenchmarkChecksBesidePlans(b *testing.B) {
	long := 30 * time.Second
	if testing.Short() {
		long = 3 * time.Second
	}
	l := loaded(b)
	hard := hardPiece(b, 4)
	for b.Loop() {
		l.during(50, 2*time.Second, day)
		alone := p99(l.during(200, long, day)["change"])
		stop := make(chan struct{})
		var asking sync.WaitGroup
		var mu sync.Mutex
		answered, busy, neither, longest := 0, 0, 0, time.Duration(0)
		for i := range 20 {
			asking.Go(func() {
				for n := i; ; n++ {
					select {
					case <-stop:
						return
					default:
					}
					begun := time.Now()
					res, err := l.client.Post(fmt.Sprintf("%s/api/plans?zone=z%d&ways=best,prime,additive,careful,sprayed", l.url, n%4), "application/json", bytes.NewReader(hard))
					mu.Lock()
					switch {
					case err == nil && res.StatusCode == http.StatusOK:
						answered++
					case err == nil && res.StatusCode == http.StatusServiceUnavailable:
						busy++
						longest = max(longest, time.Since(begun))
					default:
						neither++
					}
					mu.Unlock()
					if err == nil {
						_, _ = io.Copy(io.Discard, res.Body)
						res.Body.Close()
					}
				}
			})
		}
		beside := p99(l.during(200, long, day)["change"])
		close(stop)
		asking.Wait()
		b.ReportMetric(float64(beside)/float64(alone), "p99-times")
		b.Logf("p99 %v alone, %v beside plans; %d plans answered, %d busy after at most %v, %d neither", alone, beside, answered, busy, longest, neither)
		if neither > 0 || answered == 0 {
			b.Fatalf("%d plans answered, %d were neither answered nor told that the server is busy", answered, neither)
		}
	}
	b.ReportMetric(0, "ns/op")
	if len(l.errs) > 0 {
		b.Fatalf("%d errors, as %s", len(l.errs), l.errs[0])
	}
}
