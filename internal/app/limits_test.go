package app

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"reflect"
	"slices"
	"sync"
	"testing"
	"time"

	"rutile/core/plan"
	"rutile/internal/wire"
)

// damaged is a piece of n zones, each with damage and parts of its own.
func damaged(n int) *wire.Piece {
	p := wire.New("Damaged")
	p.Made = 1935
	for i := range n {
		id := fmt.Sprintf("z%d", i)
		p.Zones = append(p.Zones, wire.Zone{
			ID: id, Substrate: "pine", Finish: "paint_alkyd_old", Soils: []wire.Level{{ID: "grease", Level: 1}},
			Defects: []wire.Defect{{ID: "gouge", Count: 2, Length: 4}, {ID: "hole", Count: 3, Size: 6}},
			Target:  &wire.Target{Colour: "#e4e8df"}, Steps: []wire.Step{{Do: "coat", Product: "paint_chalk", Coats: 2}},
		})
		if i < 300 {
			p.Parts = append(p.Parts, wire.Part{Kind: "panel", WidthCM: 40, HeightCM: 60, Zone: id})
		}
	}
	return &p
}

// What a look-over takes grows with the zones, and not with their square. Four times the zones take
// four times the memory, and sixteen times where every zone converts the whole piece.
func TestLookOverIsLinear(t *testing.T) {
	allocs := func(n int) float64 {
		p := damaged(n)
		return testing.AllocsPerRun(3, func() { job(p).Overview(nil) })
	}
	few, many := allocs(50), allocs(200)
	if many > 6*few {
		t.Errorf("50 zones take %.0f allocations, 200 take %.0f", few, many)
	}
}

func BenchmarkLookOverDamaged(b *testing.B) {
	for _, n := range []int{50, 200} {
		p := damaged(n)
		b.Run(fmt.Sprint(n), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				job(p).Overview(nil)
			}
		})
	}
}

// patience is a context that is done once it has been asked some times.
type patience struct {
	context.Context
	mu          sync.Mutex
	left, asked int
}

func (p *patience) Err() error {
	p.mu.Lock()
	defer p.mu.Unlock()
	p.asked++
	if p.left--; p.left < 0 {
		return context.Canceled
	}
	return nil
}

// A question that nobody waits for any more is given up wherever it is, and does no further work.
func TestSupersededQuestionsStop(t *testing.T) {
	p := largest()
	j := job(p)
	for _, left := range []int{0, 1, 7, 100, 1000} {
		at := &patience{Context: context.Background(), left: left}
		r, err := j.Check(at, Want{Repairs: true, Section: true})
		if !errors.Is(err, context.Canceled) || len(r.Zones) > 0 {
			t.Errorf("after %d questions: %v, %d zones", left, err, len(r.Zones))
		}
		const soon = 60 // the proposals of one finding, each refused at once
		if at.asked > left+soon {
			t.Errorf("done after %d questions, and asked %d times", left, at.asked)
		}
	}
	done, stop := context.WithCancel(ctx)
	stop()
	if _, err := j.Next(done, 0, 0); !errors.Is(err, context.Canceled) {
		t.Errorf("what could come next: %v", err)
	}
	if _, err := job(brownTable(t)).Identify(done, 0); !errors.Is(err, context.Canceled) {
		t.Errorf("what it is: %v", err)
	}
}

// As many questions as may be are answered at once, and one more is told within a moment that the server
// is busy; once one is answered there is room again.
func TestBusy(t *testing.T) {
	t.Parallel()
	e := NewEngine(engine.Craft)
	j := e.Job(exampleOf(t, "dresser"), usual)
	fill := func(places chan struct{}) (leave func()) {
		for range cap(places) {
			places <- struct{}{}
		}
		return func() { <-places }
	}
	zone, piece := fill(e.zones), fill(e.pieces)
	if _, err := j.PlanZone(ctx, 0, plan.Ways[:1], PlanOptions{}); !errors.Is(err, ErrBusy) {
		t.Errorf("plans of a zone: %v", err)
	}
	if _, err := j.Sensitivities(ctx, 0, plan.Ways[0], PlanOptions{}); !errors.Is(err, ErrBusy) {
		t.Errorf("what would change a plan: %v", err)
	}
	if _, err := j.PlanPiece(ctx, plan.Ways[0], PlanOptions{}); !errors.Is(err, ErrBusy) {
		t.Errorf("plans of a piece: %v", err)
	}
	piece()
	if _, err := j.PlanPiece(ctx, plan.Ways[0], PlanOptions{}); err != nil {
		t.Errorf("plans of a piece wait for those of zones: %v", err)
	}
	zone()
	if _, err := j.PlanZone(ctx, 0, plan.Ways[:1], PlanOptions{}); err != nil {
		t.Error(err)
	}
	// Searches wait for a place, and give up with whoever asked.
	for range cap(e.searching) {
		e.searching <- struct{}{}
	}
	done, stop := context.WithCancel(ctx)
	stop()
	if err := e.search(done, func() error { return nil }); !errors.Is(err, context.Canceled) {
		t.Errorf("a search without a place: %v", err)
	}
}

// A long check waits for its place or is told that the server is busy; a short one passes.
func TestALongCheckHasItsPlace(t *testing.T) {
	t.Parallel()
	s := NewStudio(NewEngine(engine.Craft), StudioOptions{Store: emptyStore(t)})
	for range cap(s.long) {
		s.long <- struct{}{}
	}
	if _, _, err := s.Check(ctx, asJSON(t, largest())); !errors.Is(err, ErrBusy) {
		t.Errorf("a long check: %v", err)
	}
	if _, _, err := s.Check(ctx, asJSON(t, exampleOf(t, "dresser"))); err != nil {
		t.Errorf("a short check: %v", err)
	}
}

// Work that is out of time, or stopped, answers with what it has, and says so.
func TestBudgets(t *testing.T) {
	t.Parallel()
	hard := damaged(30)
	for i := range hard.Zones {
		hard.Zones[i].Steps = nil
	}
	spent := NewEngine(engine.Craft)
	spent.Budgets = Budgets{Zone: time.Nanosecond, Piece: time.Nanosecond}
	stopped := make(chan struct{})
	close(stopped)
	for name, x := range map[string]struct {
		e *Engine
		o PlanOptions
	}{"out of time": {spent, PlanOptions{}}, "stopped": {NewEngine(engine.Craft), PlanOptions{Stop: stopped}}} {
		j := x.e.Job(hard, usual)
		z, err := j.PlanZone(ctx, 0, plan.Ways[:3], x.o)
		if err != nil || len(z.Plans) != 3 {
			t.Errorf("%s: %d plans, %v", name, len(z.Plans), err)
		}
		for _, p := range z.Plans {
			if p.Proved || p.Infeasible != nil && !p.Infeasible.Stopped {
				t.Errorf("%s: %s is proved %v, %+v", name, p.Way, p.Proved, p.Infeasible)
			}
		}
		r, err := j.PlanPiece(ctx, plan.Ways[0], x.o)
		if err != nil || len(r.Zones) != 30 {
			t.Fatalf("%s: %d zones, %v", name, len(r.Zones), err)
		}
		if last := r.Zones[29]; last.State != "stopped" || last.Says != "Planning was stopped before this zone." {
			t.Errorf("%s: %+v", name, last)
		}
		if _, err := j.Sensitivities(ctx, 0, plan.Ways[0], x.o); err != nil {
			t.Errorf("%s: %v", name, err)
		}
	}
	// Whoever goes away gets no answer.
	gone, leave := context.WithCancel(ctx)
	leave()
	if _, err := spent.Job(hard, usual).PlanPiece(gone, plan.Ways[0], PlanOptions{}); !errors.Is(err, context.Canceled) {
		t.Errorf("gone: %v", err)
	}
}

// What is stopped in the midst keeps the zones that were planned.
func TestStoppedInTheMidst(t *testing.T) {
	t.Parallel()
	hard := damaged(30)
	for i := range hard.Zones {
		hard.Zones[i].Steps, hard.Zones[i].Target = nil, &wire.Target{Colour: fmt.Sprintf("#e4e8%02x", i)}
	}
	stop := make(chan struct{})
	r, err := NewEngine(engine.Craft).Job(hard, usual).PlanPiece(ctx, plan.Ways[0], PlanOptions{Stop: stop, Done: func(done, _ int) {
		if done == 3 {
			close(stop)
		}
	}})
	if err != nil {
		t.Fatal(err)
	}
	n := map[string]int{}
	for _, z := range r.Zones {
		n[z.State]++
	}
	if n["planned"] < 3 || n["stopped"] < 10 {
		t.Errorf("%v", n)
	}
}

// A search gives way to short questions, and gets on all the same.
func TestSearchesGiveWay(t *testing.T) {
	e := NewEngine(engine.Craft)
	done := e.Light()
	defer done()
	p := exampleOf(t, "dresser")
	p.Zones[0].Steps = nil
	z, err := e.Job(p, usual).PlanZone(ctx, 0, plan.Ways[:1], PlanOptions{})
	if err != nil || !z.Plans[0].Proved && z.Plans[0].Infeasible == nil {
		t.Errorf("%+v, %v", z, err)
	}
}

// The largest piece is answered within ten megabytes, each zone with its verdict, and a zone that is
// looked at with all of it.
func TestTheLargestPieceIsAnsweredBriefly(t *testing.T) {
	t.Parallel()
	p := largest()
	s := NewStudio(NewEngine(engine.Craft), StudioOptions{Store: emptyStore(t)})
	r, token, err := s.Check(ctx, asJSON(t, p))
	if err != nil {
		t.Fatal(err)
	}
	if mb := float64(len(asJSON(t, r))) / 1e6; mb > 10 {
		t.Errorf("the answer has %.1f MB", mb)
	}
	full, err := s.Job(p, s.Workshop(ctx)).Check(ctx, Want{Repairs: true, Section: true})
	if err != nil {
		t.Fatal(err)
	}
	for i, z := range r.Zones {
		want := &full.Zones[i]
		if !z.Brief || z.Verdict != want.Verdict || z.Says != want.Says || len(z.Findings) != briefFinding || z.Findings[0].Title != want.Findings[0].Title || len(z.Stages) != len(want.Stages) {
			t.Fatalf("zone %d is told as %+v", i, z)
		}
	}
	c, _, err := s.CheckChange(ctx, token, asJSON(t, wire.Change{Zones: p.Zones[7:8]}))
	if err != nil {
		t.Fatal(err)
	}
	i := slices.IndexFunc(c.Zones, func(z wire.ZoneResult) bool { return z.ID == "z7" })
	if i < 0 || c.Zones[i].Brief || !reflect.DeepEqual(asJSON(t, c.Zones[i]), asJSON(t, full.Zones[7])) {
		t.Error("a zone that is looked at is not told in full")
	}
	// No more of such checks are kept than have room.
	for range 2 {
		if _, _, err := s.Check(ctx, asJSON(t, p)); err != nil {
			t.Fatal(err)
		}
	}
	if n := len(s.live.kept); n != mostKeptSteps/(wire.MaxZones*wire.MaxSteps) {
		t.Errorf("%d checks are kept", n)
	}
}

func asJSON(t testing.TB, x any) []byte {
	t.Helper()
	data, err := json.Marshal(x)
	if err != nil {
		t.Fatal(err)
	}
	return data
}
