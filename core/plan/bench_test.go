package plan

import (
	"context"
	"math/rand/v2"
	"runtime"
	"slices"
	"testing"
	"time"

	"rutile/core/craft"
)

// BenchmarkPlan plans one zone after another of a mixed lot over all kinds of
// products, and reports how long a zone takes in the middle and at the most, and
// what was looked at.
func BenchmarkPlan(b *testing.B) {
	c := craft.Default()
	r := rand.New(rand.NewPCG(3, 9))
	asks := make([]Request, 200)
	for i := range asks {
		asks[i] = anyZone(r, c)
	}
	var took []time.Duration
	looked, n := 0, 0
	for b.Loop() {
		ask := asks[n%len(asks)]
		at := time.Now()
		p, err := newPlanner(c, ask)
		if err != nil {
			b.Fatal(err)
		}
		a := p.search(context.Background())
		took = append(took, time.Since(at))
		looked += a.Stats.Opened + a.Stats.Judged
		n++
	}
	slices.Sort(took)
	b.ReportMetric(float64(took[len(took)/2].Microseconds())/1000, "ms-median")
	b.ReportMetric(float64(took[len(took)-1].Microseconds())/1000, "ms-most")
	b.ReportMetric(float64(looked)/float64(n), "looked/zone")
}

func BenchmarkPlanOak(b *testing.B) {
	benchOne(b, "oak varnish_oil satin; soils grease2 grime1; target matt", "best")
}

func BenchmarkPlanUnknown(b *testing.B) { benchOne(b, "unknown_wood unknown satin; unseen", "best") }

func BenchmarkPlanStuck(b *testing.B) {
	c := craft.Default()
	ask := Request{Zone: zoneOf(b, "pine paint_alkyd_old gloss; made 1950; loose flaking"), Way: Ways[0]}
	for b.Loop() {
		if _, err := Find(context.Background(), c, ask); err != nil {
			b.Fatal(err)
		}
	}
}

func benchOne(b *testing.B, facts, way string) {
	c := craft.Default()
	w, _ := WayNamed(way, nil)
	ask := Request{Zone: zoneOf(b, facts), Way: w}
	b.ReportAllocs()
	for b.Loop() {
		if _, err := Find(context.Background(), c, ask); err != nil {
			b.Fatal(err)
		}
	}
}

// BenchmarkCompareFive plans one zone by the five main ways.
func BenchmarkCompareFive(b *testing.B) {
	c := craft.Default()
	for b.Loop() {
		for _, id := range []string{"scuff_and_seal", "prime", "additive", "straight_on", "chemical"} {
			w, _ := WayNamed(id, nil)
			if _, err := Find(context.Background(), c, Request{Zone: zoneOf(b, "oak varnish_oil satin; soils grease2 grime1; target matt"), Way: w}); err != nil {
				b.Fatal(err)
			}
		}
	}
}

func BenchmarkMinds(b *testing.B) {
	c := craft.Default()
	ask := Request{Zone: zoneOf(b, "oak varnish_oil satin; soils grease2 grime1; target matt"), Way: Ways[0]}
	a, err := Find(context.Background(), c, ask)
	if err != nil {
		b.Fatal(err)
	}
	for b.Loop() {
		if _, err := Sensitivities(context.Background(), c, ask, a.Best); err != nil {
			b.Fatal(err)
		}
	}
}

// BenchmarkMemory reports how much the hardest of a mixed lot holds at its end.
func BenchmarkMemory(b *testing.B) {
	c := craft.Default()
	r := rand.New(rand.NewPCG(17, 4))
	var hardest Request
	most := 0
	for range 400 {
		ask := anyZone(r, c)
		p, err := newPlanner(c, ask)
		if err != nil {
			b.Fatal(err)
		}
		if a := p.search(context.Background()); a.Stats.Opened+a.Stats.Judged > most {
			most, hardest = a.Stats.Opened+a.Stats.Judged, ask
		}
	}
	var held uint64
	for b.Loop() {
		var before, after runtime.MemStats
		runtime.GC()
		runtime.ReadMemStats(&before)
		p, err := newPlanner(c, hardest)
		if err != nil {
			b.Fatal(err)
		}
		p.search(context.Background())
		runtime.GC()
		runtime.ReadMemStats(&after)
		held = max(held, after.HeapAlloc-before.HeapAlloc)
		runtime.KeepAlive(p)
	}
	b.ReportMetric(float64(held)/(1<<20), "MB-held")
	b.ReportMetric(float64(most), "looked")
}
