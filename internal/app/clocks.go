package app

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"slices"
	"sync"
	"time"

	"rutile/core/card"
	"rutile/core/clock"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/internal/instruments"
	"rutile/internal/store"
	"rutile/internal/wire"
)

// clocks are the studio's clocks and its line of time. Both are kept, and read once.
type clocks struct {
	mu    sync.Mutex
	read  bool
	line  clock.Line
	all   map[string]*running
	beat  float64 // when the line was last kept
	aired float64 // when the air was last looked at
}

// running is a clock with what it is for.
type running struct {
	clock.Clock
	wire.KeptClock
}

// How often the line is kept while clocks run, and the air looked at, in seconds. Working defaults.
const (
	beatEvery = 10.
	airEvery  = 60.
)

// lineID is the one document of the line of time.
const lineID = "line"

// inClocks does something with the clocks at this moment. While clocks run the line of time is kept now and then; where
// that fails, as on a full disk, the clocks run all the same.
func (s *Studio) inClocks(ctx context.Context, do func(c *clocks) error) error {
	c := &s.clocks
	c.mu.Lock()
	defer c.mu.Unlock()
	if err := s.readClocks(ctx, c); err != nil {
		return err
	}
	doubted := c.line.Doubt != nil
	c.line.Advance(s.Times())
	if err := do(c); err != nil {
		return err
	}
	if len(c.all) > 0 && !s.Store.ReadOnly() && (c.line.Now-c.beat >= beatEvery || doubted != (c.line.Doubt != nil)) {
		if err := s.keepLine(ctx, c); err != nil {
			s.Log.Warn("the line of time cannot be kept", "err", err)
			c.beat = c.line.Now // and is tried again later
		}
	}
	return nil
}

func (s *Studio) readClocks(ctx context.Context, c *clocks) error {
	if c.read {
		return nil
	}
	lines, err := s.Store.Documents(ctx, store.Timeline)
	if err != nil {
		return err
	}
	kept, err := s.Store.Documents(ctx, store.Clocks)
	if err != nil {
		return err
	}
	c.line, c.all = clock.Line{}, map[string]*running{}
	for _, d := range lines {
		var k wire.KeptLine
		if err := json.Unmarshal(d.Body, &k); err != nil {
			s.Log.Warn("the line of time cannot be read; it begins anew", "err", err)
			continue
		}
		c.line = clock.Line{Now: k.Now, Last: clock.Moment{Wall: k.Wall, Steady: k.Steady, Run: k.Run, Sleeps: k.Sleeps}}
		if k.Doubt != nil {
			c.line.Doubt = &clock.Doubt{At: k.Doubt.At, Gap: k.Doubt.Gap, Restarted: k.Doubt.Restarted}
		}
	}
	for _, d := range kept {
		var k wire.KeptClock
		t, ok := craft.NoTimer, false
		if err := json.Unmarshal(d.Body, &k); err == nil {
			t, ok = craft.TimerNamed(k.Kind)
		}
		if !ok {
			s.Log.Warn("a clock cannot be read and is left out", "id", d.ID)
			continue
		}
		c.all[d.ID] = &running{clock.Clock{Timer: t, Started: k.Started, Need: k.NeedS, Least: k.LeastS, Since: k.Since, Pace: k.Pace, Gone: k.Gone, Over: k.Over}, k}
	}
	c.read, c.beat = true, c.line.Now
	return nil
}

func (s *Studio) keepLine(ctx context.Context, c *clocks) error {
	l := &c.line
	k := wire.KeptLine{Now: l.Now, Wall: l.Last.Wall, Steady: l.Last.Steady, Run: l.Last.Run, Sleeps: l.Last.Sleeps}
	if l.Doubt != nil {
		k.Doubt = &wire.KeptDoubt{At: l.Doubt.At, Gap: l.Doubt.Gap, Restarted: l.Doubt.Restarted}
	}
	body, err := json.Marshal(k)
	if err != nil {
		return fmt.Errorf("write the line of time: %w", err)
	}
	if err := s.Store.SetDocument(ctx, store.Timeline, lineID, body); err != nil {
		return err
	}
	c.beat = l.Now
	return nil
}

func (s *Studio) keepClock(ctx context.Context, x *running) error {
	k := &x.KeptClock
	k.NeedS, k.LeastS, k.Started, k.Since, k.Pace, k.Gone, k.Over = x.Need, x.Least, x.Clock.Started, x.Clock.Since, x.Clock.Pace, x.Clock.Gone, x.Clock.Over
	body, err := json.Marshal(k)
	if err != nil {
		return fmt.Errorf("write a clock: %w", err)
	}
	return s.Store.SetDocument(ctx, store.Clocks, k.ID, body)
}

// Clocks are all clocks as they stand now, the next to ring first.
func (s *Studio) Clocks(ctx context.Context) (wire.Clocks, error) {
	var out wire.Clocks
	err := s.inClocks(ctx, func(c *clocks) error {
		s.breathe(ctx, c)
		out = c.list()
		return nil
	})
	return out, err
}

func (c *clocks) list() wire.Clocks {
	out := wire.Clocks{Clocks: make([]wire.Clock, 0, len(c.all))}
	for _, x := range c.all {
		out.Clocks = append(out.Clocks, x.says(c.line.Now))
	}
	slices.SortFunc(out.Clocks, func(a, b wire.Clock) int { return cmp.Or(cmp.Compare(a.LeftS, b.LeftS), cmp.Compare(a.ID, b.ID)) })
	if d := c.line.Doubt; d != nil {
		out.Doubt = &wire.ClockDoubt{Says: d.Says(), GapS: d.Gap}
	}
	return out
}

func (x *running) says(now float64) wire.Clock {
	row := &craft.Timers[x.Timer]
	out := wire.Clock{
		ID: x.ID, Kind: x.Kind, Name: row.Name, For: x.For, PieceID: x.PieceID, Piece: x.Piece, Zone: x.Zone, ZoneID: x.ZoneID, Card: x.Card,
		LeftS: x.Left(now), TotalS: x.Total(now), State: string(x.StateOf(now)), Silent: x.Silent, Rings: row.Rings, Ends: row.Ends, Touch: row.Dries,
		Said: x.Said, Touches: x.Touches,
	}
	if out.Touches == nil {
		out.Touches = []string{}
	}
	return out
}

// StartClock starts a clock. One that was started before is left as it is. Errors are an *Unfit.
func (s *Studio) StartClock(ctx context.Context, n wire.NewClock) (wire.Clock, error) {
	t, ok := craft.TimerNamed(n.Kind)
	if !ok {
		return wire.Clock{}, &Unfit{fmt.Sprintf("There is no kind of clock %q.", wire.Clip(n.Kind))}
	}
	if n.Typed != "" {
		need, err := measure.Span(n.Typed)
		if err != nil {
			return wire.Clock{}, &Unfit{err.Error()}
		}
		n.NeedS = need
	}
	if err := clock.Check(n.NeedS); err != nil {
		return wire.Clock{}, &Unfit{err.Error()}
	}
	if math.IsNaN(n.LeastS) || n.LeastS < 0 || n.LeastS > n.NeedS*100 {
		return wire.Clock{}, &Unfit{"The least time of a clock is no time."}
	}
	if math.IsNaN(n.AgoS) || n.AgoS < 0 || n.AgoS > clock.Longest {
		return wire.Clock{}, &Unfit{"A clock cannot have been started in the future, nor more than 30 days ago."}
	}
	var out wire.Clock
	err := s.inClocks(ctx, func(c *clocks) error {
		if x, ok := c.all[n.ID]; ok {
			out = x.says(c.line.Now)
			return nil
		}
		if len(c.all) >= clock.Most {
			return &Unfit{fmt.Sprintf("%d clocks run already. Stop those that you no longer need.", clock.Most)}
		}
		x := &running{clock.Clock{Timer: t, Need: n.NeedS, Least: n.LeastS}, wire.KeptClock{NewClock: n}}
		x.Start(c.line.Now-n.AgoS, s.paceOf(x, s.airOfClock(ctx, &n)))
		if err := s.keepClock(ctx, x); err != nil {
			return err
		}
		if err := s.keepLine(ctx, c); err != nil { // a clock is worth nothing without its line
			return err
		}
		c.all[n.ID] = x
		out = x.says(c.line.Now)
		return nil
	})
	return out, err
}

// airOfClock is the air that a clock is started in.
func (s *Studio) airOfClock(ctx context.Context, n *wire.NewClock) drying.Climate {
	if n.RHPct > 0 {
		return drying.Climate{TempC: min(max(n.TempC, -20), 50), RH: min(n.RHPct, 100)}
	}
	return s.Workshop(ctx).Air
}

// paceOf is how many times longer a clock runs in some air.
func (s *Studio) paceOf(x *running, air drying.Climate) float64 {
	p, ok := s.Craft.Product(x.Product)
	if !ok {
		return 1
	}
	return card.Pace(x.Timer, &s.Craft.Products[p], air)
}

// ErrNoClock tells that there is no such clock.
var errNoClock = &NotFound{"There is no such clock. It may have been stopped elsewhere."}

// with does something with one clock, and keeps it.
func (s *Studio) withClock(ctx context.Context, id string, do func(x *running, now float64)) (wire.Clock, error) {
	var out wire.Clock
	err := s.inClocks(ctx, func(c *clocks) error {
		x, ok := c.all[id]
		if !ok {
			return errNoClock
		}
		before := *x
		do(x, c.line.Now)
		if err := s.keepClock(ctx, x); err != nil {
			*x = before
			return err
		}
		out = x.says(c.line.Now)
		return nil
	})
	return out, err
}

// mostTouches is how many touch tests of a clock are kept.
const mostTouches = 20

// TouchClock corrects a clock by a touch test. Errors are a *NotFound.
func (s *Studio) TouchClock(ctx context.Context, id string, t wire.ClockTouch) (wire.Clock, error) {
	return s.withClock(ctx, id, func(x *running, now float64) {
		x.Said = x.Test(now, clock.Touch(t.Is))
		x.Touches = append(slices.Clone(x.Touches), t.Is)
		x.Touches = x.Touches[max(0, len(x.Touches)-mostTouches):]
		x.Silent = false
	})
}

// SilenceClock stops the ringing of a clock, and lets it stand. Errors are a *NotFound.
func (s *Studio) SilenceClock(ctx context.Context, id string) (wire.Clock, error) {
	return s.withClock(ctx, id, func(x *running, _ float64) { x.Silent = true })
}

// StopClock takes a clock away. Errors are a *NotFound.
func (s *Studio) StopClock(ctx context.Context, id string) error {
	return s.inClocks(ctx, func(c *clocks) error {
		if _, ok := c.all[id]; !ok {
			return errNoClock
		}
		return s.dropClock(ctx, c, id)
	})
}

func (s *Studio) dropClock(ctx context.Context, c *clocks, id string) error {
	if err := s.Store.RemoveDocument(ctx, store.Clocks, id); err != nil && !errors.Is(err, store.ErrNoDocument) {
		return err
	}
	delete(c.all, id)
	return nil
}

// SettleClocks answers what nobody could tell: how much time passed. Errors are an *Unfit.
func (s *Studio) SettleClocks(ctx context.Context, a wire.ClockSettled) (wire.Clocks, error) {
	passed := a.PassedS
	if a.Typed != "" {
		var err error
		if passed, err = measure.Span(a.Typed); err != nil {
			return wire.Clocks{}, &Unfit{err.Error()}
		}
		if passed > 2*clock.Longest {
			return wire.Clocks{}, &Unfit{"That is longer than any clock runs. Stop the clocks instead."}
		}
	}
	var out wire.Clocks
	err := s.inClocks(ctx, func(c *clocks) error {
		was := c.line
		c.line.Settle(passed)
		if err := s.keepLine(ctx, c); err != nil {
			c.line = was
			return err
		}
		out = c.list()
		return nil
	})
	return out, err
}

// AirClocks tells all clocks what the air is now: those of coats that dry change their pace.
func (s *Studio) AirClocks(ctx context.Context, a wire.ClockAir) (wire.Clocks, error) {
	var out wire.Clocks
	err := s.inClocks(ctx, func(c *clocks) error {
		if err := s.aired(ctx, c, drying.Climate{TempC: a.TempC, RH: a.RHPct}); err != nil {
			return err
		}
		c.aired = c.line.Now
		out = c.list()
		return nil
	})
	return out, err
}

// aired gives the clocks the air, and keeps those whose pace it changes.
func (s *Studio) aired(ctx context.Context, c *clocks, air drying.Climate) error {
	u := s.Workshop(ctx).Units
	for _, x := range c.all {
		if x.Product == "" || !x.Breathe(c.line.Now, s.paceOf(x, air)) {
			continue
		}
		x.Said = fmt.Sprintf("Its pace is now that of %s and %.0f %%.", u.Temp(air.TempC), air.RH)
		if err := s.keepClock(ctx, x); err != nil {
			return err
		}
	}
	return nil
}

// freshAir is for how long a reading counts as the air of now.
const freshAir = 2 * time.Hour

// breathe gives the clocks the air that was read last, by an instrument that is not simulated: made-up air does not
// dry paint.
func (s *Studio) breathe(ctx context.Context, c *clocks) {
	if len(c.all) == 0 || c.line.Now-c.aired < airEvery {
		return
	}
	c.aired = c.line.Now
	now := s.Now()
	rs, err := s.Store.LastReadings(ctx, now.Add(instruments.Ahead), freshAir+instruments.Ahead, 50)
	if err != nil {
		s.Log.Warn("the air for the clocks cannot be read", "err", err)
		return
	}
	for i := len(rs) - 1; i >= 0; i-- {
		r := &rs[i]
		t, hasT := r.Values[instruments.TempC]
		h, hasH := r.Values[instruments.RHPct]
		if r.Simulated || !hasT || !hasH || r.At.After(now) || now.Sub(r.At) > freshAir {
			continue
		}
		if err := s.aired(ctx, c, drying.Climate{TempC: t, RH: h}); err != nil {
			s.Log.Warn("a clock cannot be kept", "err", err)
		}
		return
	}
}

// Beat keeps the line of time until the context ends, while clocks run: so that after a restart it is known when the
// studio was last seen.
func (s *Studio) Beat(ctx context.Context) {
	t := time.NewTicker(beatEvery * time.Second)
	defer t.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case <-t.C:
			if err := s.inClocks(ctx, func(*clocks) error { return nil }); err != nil && ctx.Err() == nil {
				s.Log.Warn("the clocks cannot be kept", "err", err)
			}
		}
	}
}
