package app

import (
	"context"
	"errors"
	"fmt"
	"sync"
	"testing"

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

// As many questions for plans as may be are answered at once, and one more is told that it is
// busy; once one is answered there is room again.
func TestBusy(t *testing.T) {
	e := NewEngine(engine.Craft)
	var leave []func()
	for range mostAsking {
		l, err := e.admit()
		if err != nil {
			t.Fatal(err)
		}
		leave = append(leave, l)
	}
	j := e.Job(exampleOf(t, "dresser"), usual)
	if _, err := j.PlanZone(ctx, 0, plan.Ways[:1], PlanOptions{}); !errors.Is(err, ErrBusy) {
		t.Errorf("plans of a zone: %v", err)
	}
	if _, err := j.PlanPiece(ctx, plan.Ways[0], PlanOptions{}); !errors.Is(err, ErrBusy) {
		t.Errorf("plans of a piece: %v", err)
	}
	if _, err := j.Sensitivities(ctx, 0, plan.Ways[0], PlanOptions{}); !errors.Is(err, ErrBusy) {
		t.Errorf("what would change a plan: %v", err)
	}
	leave[0]()
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
