package server

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"runtime/debug"
	"slices"
	"testing"
	"time"

	"github.com/go-chi/chi/v5"

	"rutile/core/craft"
	"rutile/internal/app"
	"rutile/internal/demo"
	"rutile/internal/wire"
)

// empty answers with as many bytes as it is told, and does nothing else.
func emptyAnswers(b *testing.B) *httptest.Server {
	r := chi.NewRouter()
	r.Post("/{bytes}", func(w http.ResponseWriter, q *http.Request) {
		if _, err := io.Copy(io.Discard, q.Body); err != nil {
			b.Error(err)
		}
		n := 0
		_, _ = fmt.Sscan(chi.URLParam(q, "bytes"), &n)
		w.Header().Set("Content-Type", "application/json")
		_, _ = w.Write(blank[:n])
	})
	srv := httptest.NewServer(r)
	b.Cleanup(srv.Close)
	return srv
}

// collectAsServed collects garbage as often as the program does that serves, for both sides.
func collectAsServed(b *testing.B) {
	before := debug.SetGCPercent(GCPercent)
	b.Cleanup(func() { debug.SetGCPercent(before) })
}

var blank = bytes.Repeat([]byte("x"), 16<<20)

func encoded(b *testing.B, v any) []byte {
	data, err := json.Marshal(v)
	if err != nil {
		b.Fatal(err)
	}
	return data
}

// took is how long a request takes, how long its answer is, and the token that the answer carries.
// token is the one that the request carries, empty for none.
func took(b *testing.B, method, url, token string, body []byte) (d time.Duration, answer int, next string) {
	q, err := http.NewRequest(method, url, bytes.NewReader(body))
	if err != nil {
		b.Fatal(err)
	}
	q.Header.Set("Content-Type", "application/json")
	if token != "" {
		q.Header.Set("If-Match", token)
	}
	begin := time.Now()
	r, err := http.DefaultClient.Do(q)
	if err != nil {
		b.Fatal(err)
	}
	defer r.Body.Close()
	n, err := io.Copy(io.Discard, r.Body)
	if err != nil || r.StatusCode != http.StatusOK {
		b.Fatal(r.Status, err)
	}
	return time.Since(begin), int(n), r.Header.Get("ETag")
}

// empties is how long the empty handler takes for an answer of as many bytes.
func empties(b *testing.B, none *httptest.Server, answer int, body []byte) time.Duration {
	d, _, _ := took(b, http.MethodPost, fmt.Sprintf("%s/%d", none.URL, answer), "", body)
	return d
}

// report is the median and the 99th of a hundred of some times, and of how many times as long they
// are as those of an empty handler.
func report(b *testing.B, of, empty []time.Duration) {
	slices.Sort(of)
	slices.Sort(empty)
	at := func(d []time.Duration, pct int) float64 { return float64(d[len(d)*pct/100].Nanoseconds()) / 1000 }
	b.ReportMetric(at(of, 50), "median-µs")
	b.ReportMetric(at(of, 99), "p99-µs")
	b.ReportMetric(at(of, 50)/at(empty, 50), "median-ratio")
	b.ReportMetric(at(of, 99)/at(empty, 99), "p99-ratio")
	b.ReportMetric(0, "ns/op")
}

// twelveSteps is the example with a plan of twelve steps, another one each time.
func twelveSteps(b *testing.B, n int) wire.Zone {
	p, err := wire.Decode([]byte(example(b)))
	if err != nil {
		b.Fatal(err)
	}
	z := p.Zones[0]
	hours := 24 + float64(n%1000)/1000
	z.Steps = append(z.Steps, z.Steps[1], z.Steps[2], z.Steps[6], wire.Step{Do: "wait", Hours: &hours}, z.Steps[2])
	z.Colour = fmt.Sprintf("#%06x", n%0xffffff)
	if len(z.Steps) != 12 {
		b.Fatal(len(z.Steps))
	}
	return z
}

// BenchmarkLiveCheck checks a piece of one zone whose plan was never judged before, in turn with
// an empty handler that answers as many bytes.
func BenchmarkLiveCheck(b *testing.B) {
	collectAsServed(b)
	srv := httptest.NewServer(handlerWith(b, app.StudioOptions{}))
	b.Cleanup(srv.Close)
	none := emptyAnswers(b)
	var live, empty []time.Duration
	for n := 0; b.Loop(); n++ {
		p := wire.New("Rack")
		p.Zones = []wire.Zone{twelveSteps(b, n)}
		body := encoded(b, p)
		d, answer, _ := took(b, http.MethodPost, srv.URL+"/api/check", "", body)
		e := empties(b, none, answer, body)
		live, empty = append(live, d), append(empty, e)
	}
	report(b, live, empty)
}

// studioOfThousand has the demo's twenty pieces fifty times.
func studioOfThousand(b *testing.B) *app.Studio {
	s := studioWith(b, app.StudioOptions{})
	ps, err := demo.Pieces()
	if err != nil {
		b.Fatal(err)
	}
	for range 49 {
		for _, p := range ps {
			if _, err := s.Store.Create(b.Context(), p); err != nil {
				b.Fatal(err)
			}
		}
	}
	return s
}

// BenchmarkList lists a thousand pieces: when nothing has changed, after one was saved, and with
// nothing judged yet.
func BenchmarkList(b *testing.B) {
	s := studioOfThousand(b)
	serve := func(s *app.Studio) string {
		srv := httptest.NewServer(New(Options{Studio: s, Page: builtPage}))
		b.Cleanup(srv.Close)
		return srv.URL + "/api/pieces"
	}
	list := func(b *testing.B, url string) (time.Duration, int) {
		d, n, _ := took(b, http.MethodGet, url, "", nil)
		return d, n
	}
	url := serve(s)
	list(b, url)
	none := emptyAnswers(b)
	b.Run("unchanged", func(b *testing.B) {
		var ours, empty []time.Duration
		for b.Loop() {
			d, n := list(b, url)
			e := empties(b, none, n, nil)
			ours, empty = append(ours, d), append(empty, e)
		}
		report(b, ours, empty)
	})
	b.Run("one-saved", func(b *testing.B) {
		var ours, empty []time.Duration
		for n := 0; b.Loop(); n++ {
			p, err := s.Store.Get(b.Context(), 500)
			if err != nil {
				b.Fatal(err)
			}
			p.Piece.Name = fmt.Sprint("Piece ", n)
			if _, err := s.Store.Save(b.Context(), 500, p.Rev, &p.Piece); err != nil {
				b.Fatal(err)
			}
			d, n := list(b, url)
			e := empties(b, none, n, nil)
			ours, empty = append(ours, d), append(empty, e)
		}
		report(b, ours, empty)
	})
	b.Run("cold", func(b *testing.B) {
		var ours, empty []time.Duration
		for b.Loop() {
			cold := app.NewStudio(app.NewEngine(craft.Default()), app.StudioOptions{Store: s.Store, Site: demo.Site})
			d, n := list(b, serve(cold))
			e := empties(b, none, n, nil)
			ours, empty = append(ours, d), append(empty, e)
		}
		report(b, ours, empty)
	})
}

// BenchmarkChange edits one zone, whose plan was never judged before, on a piece of one and on a piece
// of fifty, in turn, as the page does: the rules across zones speak.
func BenchmarkChange(b *testing.B) {
	collectAsServed(b)
	srv := httptest.NewServer(handlerWith(b, app.StudioOptions{}))
	b.Cleanup(srv.Close)
	none := emptyAnswers(b)
	type tab struct {
		token string
		took  []time.Duration
	}
	tabs := map[int]*tab{1: {}, 50: {}}
	for zones, t := range tabs {
		p := wire.New("Rack")
		for i := range zones {
			z := twelveSteps(b, i)
			z.ID = fmt.Sprintf("z%d", i)
			p.Zones = append(p.Zones, z)
		}
		_, _, t.token = took(b, http.MethodPost, srv.URL+"/api/check", "", encoded(b, p))
	}
	change := func(t *tab, body []byte) int {
		d, answer, next := took(b, http.MethodPatch, srv.URL+"/api/check", t.token, body)
		t.took, t.token = append(t.took, d), next
		return answer
	}
	var empty []time.Duration
	for n := 0; b.Loop(); n++ {
		z := twelveSteps(b, n+100)
		z.ID = "z0"
		body := encoded(b, wire.Change{Zones: []wire.Zone{z}})
		change(tabs[1], body)
		answer := change(tabs[50], body)
		e := empties(b, none, answer, body)
		empty = append(empty, e)
	}
	report(b, tabs[1].took, empty)
	slices.Sort(tabs[50].took)
	b.ReportMetric(float64(tabs[50].took[len(empty)/2])/float64(tabs[1].took[len(empty)/2]), "fifty-zones-to-one")
}

// BenchmarkSuperseded checks the longest piece there may be, has the page go away in the midst of it, and
// says how long the work goes on then.
func BenchmarkSuperseded(b *testing.B) {
	s := studioWith(b, app.StudioOptions{})
	p := wire.New("Long")
	for i := range wire.MaxZones {
		z := wire.Zone{ID: fmt.Sprintf("z%d", i), Substrate: "oak", Soils: []wire.Level{{ID: "grease", Level: 3}, {ID: "silicone", Level: 3}}}
		for range wire.MaxSteps / 2 {
			wait := .2
			z.Steps = append(z.Steps, wire.Step{Do: "clean", With: "detergent"}, wire.Step{Do: "coat", Product: "paint_acrylic", WaitH: &wait})
		}
		p.Zones = append(p.Zones, z)
	}
	j := s.Job(&p, s.Workshop(b.Context()))
	var on []time.Duration
	for n := 0; b.Loop(); n++ {
		ctx, stop := context.WithCancel(b.Context())
		var gone time.Time
		time.AfterFunc(time.Duration(5+n%40)*time.Millisecond, func() {
			gone = time.Now()
			stop()
		})
		if _, err := j.Check(ctx, app.Want{Repairs: true, Section: true, Look: true}); !errors.Is(err, context.Canceled) {
			b.Fatal("it was done before it was given up")
		}
		on = append(on, time.Since(gone))
	}
	slices.Sort(on)
	b.ReportMetric(float64(on[len(on)/2].Nanoseconds())/1e6, "median-ms")
	b.ReportMetric(float64(on[len(on)*99/100].Nanoseconds())/1e6, "p99-ms")
	b.ReportMetric(float64(on[len(on)-1].Nanoseconds())/1e6, "most-ms")
	b.ReportMetric(0, "ns/op")
}
