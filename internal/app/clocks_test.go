package app

import (
	"context"
	"errors"
	"fmt"
	"math"
	"strings"
	"testing"
	"time"

	"rutile/core/clock"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/internal/instruments"
	"rutile/internal/store"
	"rutile/internal/wire"
)

// machine is a machine whose clocks are set by hand.
type machine struct {
	clock.Moment
	offset float64 // of the instruments' clock
}

func (m *machine) now() clock.Moment { return m.Moment }

// passes lets time pass; the system's clock may be set as well, and the machine asleep.
func (m *machine) passes(s float64) { m.Wall, m.Steady = m.Wall+s, m.Steady+s }

// workshop is a studio over a folder, on a machine.
func workshop(t testing.TB, dir string, m *machine) (*Studio, func()) {
	t.Helper()
	s, err := store.Open(dir)
	if err != nil {
		t.Fatal(err)
	}
	studio := NewStudio(NewEngine(craft.Default()), StudioOptions{
		Store: s, Site: drying.Usual, Times: m.now, Now: func() time.Time { return time.Unix(int64(m.Wall+m.offset), 0).UTC() },
	})
	shut := false
	stop := func() {
		if !shut {
			shut = true
			if err := s.Close(); err != nil {
				t.Error(err)
			}
		}
	}
	t.Cleanup(stop)
	return studio, stop
}

func left(t *testing.T, s *Studio, id string) float64 {
	t.Helper()
	all, err := s.Clocks(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range all.Clocks {
		if c.ID == id {
			return c.LeftS
		}
	}
	t.Fatalf("no clock %s in %+v", id, all)
	return 0
}

func within(t *testing.T, what string, got, want float64) {
	t.Helper()
	if math.Abs(got-want) > 1 {
		t.Errorf("%s: %v s are left, want %v", what, got, want)
	}
}

func started(t *testing.T, s *Studio, n wire.NewClock) wire.Clock {
	t.Helper()
	c, err := s.StartClock(t.Context(), n)
	if err != nil {
		t.Fatal(err)
	}
	return c
}

// A reload asks again; a restart of the program reads what was kept; a changed system clock and an hour's sleep are
// seen through. Each alone, within a second.
func TestClocksOfTheStudioSurvive(t *testing.T) {
	for _, x := range []struct {
		name    string
		sleeps  bool // the steady clock stands still in sleep
		happens func(m *machine)
		passed  float64
		asks    bool
	}{
		{"nothing", false, func(m *machine) { m.passes(60) }, 60, false},
		{"an hour's sleep", false, func(m *machine) { m.passes(3600) }, 3600, false},
		{"the clock set a day ahead", false, func(m *machine) { m.passes(60); m.Wall += 86400 }, 60, false},
		{"the clock set a year back", false, func(m *machine) { m.passes(60); m.Wall -= 365 * 86400 }, 60, false},
		{"the machine started again", false, func(m *machine) { m.Wall += 300; m.Steady, m.Run = 5, "boot-2" }, 300, false},
		{"the machine started again, its clock back", false, func(m *machine) { m.Wall -= 9000; m.Steady, m.Run = 5, "boot-2" }, 0, true},
		{"sleep that nothing steady saw", true, func(m *machine) { m.Wall += 3600; m.Steady++ }, 1, true},
		{"the program started again, nothing steady kept", true, func(m *machine) { m.Wall += 120; m.Steady, m.Run = 1, "program-2" }, 120, false},
	} {
		for _, restart := range []bool{false, true} {
			if x.sleeps && x.asks && restart {
				continue // a restarted program has no steady clock of before: the system's is believed
			}
			dir := t.TempDir()
			m := &machine{Moment: clock.Moment{Wall: 1.8e9, Steady: 1000, Run: "boot-1", Sleeps: x.sleeps}}
			s, stop := workshop(t, dir, m)
			started(t, s, wire.NewClock{ID: "a", Kind: "rest", NeedS: 7200})
			m.passes(30)
			within(t, x.name, left(t, s, "a"), 7170)
			if restart {
				stop()
				if x.sleeps && !x.asks {
					m.Run = "program-x"
				}
			}
			x.happens(m)
			if restart {
				s, _ = workshop(t, dir, m)
			}
			within(t, fmt.Sprintf("%s, restart %v", x.name, restart), left(t, s, "a"), 7170-x.passed)
			all, err := s.Clocks(t.Context())
			if err != nil || (all.Doubt != nil) != x.asks {
				t.Errorf("%s, restart %v: it asks %+v, %v", x.name, restart, all.Doubt, err)
			}
			if !x.asks {
				continue
			}
			if _, err := s.SettleClocks(t.Context(), wire.ClockSettled{Typed: "10 min"}); err != nil {
				t.Fatal(err)
			}
			within(t, x.name+", settled", left(t, s, "a"), 7170-x.passed-600)
		}
	}
}

func TestClocksAreStartedOnceAndStopped(t *testing.T) {
	m := &machine{Moment: clock.Moment{Wall: 1.8e9, Steady: 1000, Run: "boot-1"}}
	s, _ := workshop(t, t.TempDir(), m)
	n := wire.NewClock{ID: "a", Kind: "whisk", NeedS: 180, For: "Fog, coat 1", Piece: "Trunk", PieceID: 3, Zone: "Outside"}
	started(t, s, n)
	m.passes(100)
	if again := started(t, s, n); math.Abs(again.LeftS-80) > 1 {
		t.Errorf("started twice it has %v s left", again.LeftS)
	}
	started(t, s, wire.NewClock{ID: "b", Kind: "own", Typed: "half an hour", For: "Tea"})
	m.passes(100)
	all, err := s.Clocks(t.Context())
	if err != nil || len(all.Clocks) != 2 || all.Clocks[0].ID != "a" || all.Clocks[0].State != "rings" || all.Clocks[0].Piece != "Trunk" || all.Clocks[1].State != "runs" {
		t.Fatalf("%+v, %v", all, err)
	}
	if c, err := s.SilenceClock(t.Context(), "a"); err != nil || !c.Silent {
		t.Errorf("%+v, %v", c, err)
	}
	if err := s.StopClock(t.Context(), "a"); err != nil {
		t.Fatal(err)
	}
	for name, err := range map[string]error{
		"stop":    s.StopClock(t.Context(), "a"),
		"silence": second(s.SilenceClock(t.Context(), "a")),
		"touch":   second(s.TouchClock(t.Context(), "a", wire.ClockTouch{Is: "dry"})),
	} {
		var gone *NotFound
		if !errors.As(err, &gone) {
			t.Errorf("%s of a clock that is gone: %v", name, err)
		}
	}
}

func second[T any](_ T, err error) error { return err }

func TestClocksAreRefusedInWords(t *testing.T) {
	m := &machine{Moment: clock.Moment{Wall: 1.8e9, Steady: 1000, Run: "boot-1"}}
	s, _ := workshop(t, t.TempDir(), m)
	for says, n := range map[string]wire.NewClock{
		"30 days at the most": {ID: "a", Kind: "own", Typed: "1 year"},
		"more than nothing":   {ID: "a", Kind: "own"},
		"no kind of clock":    {ID: "a", Kind: "egg", NeedS: 60},
		"cannot be read":      {ID: "a", Kind: "own", Typed: "soon"},
		"no time":             {ID: "a", Kind: "next", NeedS: 60, LeastS: -1},
	} {
		_, err := s.StartClock(t.Context(), n)
		var unfit *Unfit
		if !errors.As(err, &unfit) || !strings.Contains(err.Error(), says) {
			t.Errorf("%+v: %v; want words with %q", n, err, says)
		}
	}
	for i := range clock.Most {
		started(t, s, wire.NewClock{ID: fmt.Sprint("c", i), Kind: "own", NeedS: 60})
	}
	if _, err := s.StartClock(t.Context(), wire.NewClock{ID: "more", Kind: "own", NeedS: 60}); err == nil || !strings.Contains(err.Error(), "Stop those") {
		t.Errorf("one too many: %v", err)
	}
	if _, err := s.SettleClocks(t.Context(), wire.ClockSettled{Typed: "3 years"}); err == nil {
		t.Error("three years passed")
	}
}

// A drying clock is slower in the cold, is corrected by a touch test, and is told of new air by the painter or by a
// reading that is not made up.
func TestDryingClocksFollowTheAir(t *testing.T) {
	m := &machine{Moment: clock.Moment{Wall: 1.8e9, Steady: 1000, Run: "boot-1"}}
	s, _ := workshop(t, t.TempDir(), m)
	// Acrylic at 5 C: factor 2^(18/12) = 2.83, counted from the edge of the ordinary: 2.83 / 1.3 = 2.18.
	cold := started(t, s, wire.NewClock{ID: "cold", Kind: "next", NeedS: 10800, LeastS: 10800, Product: "paint_acrylic", TempC: 5, RHPct: 50})
	within(t, "in the cold", cold.LeftS, 10800*math.Exp2(1.5)/1.3)
	pot := started(t, s, wire.NewClock{ID: "pot", Kind: "pot", NeedS: 14400, Product: "primer_epoxy", TempC: 33, RHPct: 50})
	within(t, "a pot in the heat", pot.LeftS, 7200)
	own := started(t, s, wire.NewClock{ID: "own", Kind: "own", NeedS: 600})
	m.passes(60)
	all, err := s.AirClocks(t.Context(), wire.ClockAir{TempC: 20, RHPct: 50})
	if err != nil {
		t.Fatal(err)
	}
	_ = all
	done := 60 / (math.Exp2(1.5) / 1.3)
	within(t, "warmed up", left(t, s, "cold"), 10800-done)
	within(t, "what no air changes", left(t, s, "own"), own.LeftS-60)
	// A reading of a real instrument, an hour later.
	m.passes(3600)
	at := time.Unix(int64(m.Wall), 0).UTC()
	read := func(simulated bool, temp float64) {
		if err := s.Store.AddReadings(t.Context(), []instruments.Reading{{At: at.Add(-time.Minute), By: fmt.Sprint("logger ", temp), Simulated: simulated, Values: map[instruments.Quantity]float64{instruments.TempC: temp, instruments.RHPct: 50}}}); err != nil {
			t.Fatal(err)
		}
	}
	read(true, 35)
	within(t, "made-up air dries nothing", left(t, s, "cold"), 10800-done-3600)
	m.passes(airEvery)
	read(false, 5)
	within(t, "cold again", left(t, s, "cold"), (10800-done-3600-airEvery)*math.Exp2(1.5)/1.3)
	c, err := s.TouchClock(t.Context(), "cold", wire.ClockTouch{Is: "dry"})
	if err != nil || !strings.Contains(c.Said, "the label asks for") || len(c.Touches) != 1 {
		t.Errorf("%+v, %v", c, err)
	}
	within(t, "no sooner than the label", c.LeftS, 10800-3660-airEvery)
}

// A studio that is only read shows its clocks and starts none.
func TestClocksOfAStudioThatIsOnlyRead(t *testing.T) {
	dir := t.TempDir()
	m := &machine{Moment: clock.Moment{Wall: 1.8e9, Steady: 1000, Run: "boot-1"}}
	s, stop := workshop(t, dir, m)
	started(t, s, wire.NewClock{ID: "a", Kind: "rest", NeedS: 600})
	stop()
	m.passes(60)
	ro, err := store.OpenReadOnly(dir)
	if err != nil {
		t.Fatal(err)
	}
	defer ro.Close()
	read := NewStudio(NewEngine(craft.Default()), StudioOptions{Store: ro, Site: drying.Usual, Times: m.now})
	within(t, "only read", left(t, read, "a"), 540)
	if _, err := read.StartClock(t.Context(), wire.NewClock{ID: "b", Kind: "rest", NeedS: 60}); !errors.Is(err, ErrReadOnly) {
		t.Errorf("a clock is started: %v", err)
	}
	within(t, "still", left(t, read, "a"), 540)
}

// The machine's own clocks go forward, together, and name the stretch that they count in.
func TestTheMachinesClocks(t *testing.T) {
	for name, read := range map[string]func() clock.Moment{"of the machine": machineTimes, "of the program": programTimes} {
		a := read()
		time.Sleep(30 * time.Millisecond)
		b := read()
		if a.Run == "" || a.Run != b.Run || b.Steady-a.Steady < .029 || b.Steady-a.Steady > 5 || math.Abs(b.Wall-a.Wall-(b.Steady-a.Steady)) > .5 {
			t.Errorf("%s: %+v, then %+v", name, a, b)
		}
	}
}

// What is kept damaged is left out, and the rest runs.
func TestADamagedClockIsLeftOut(t *testing.T) {
	dir := t.TempDir()
	m := &machine{Moment: clock.Moment{Wall: 1.8e9, Steady: 1000, Run: "boot-1"}}
	s, stop := workshop(t, dir, m)
	started(t, s, wire.NewClock{ID: "a", Kind: "rest", NeedS: 600})
	for id, body := range map[string]string{"x": "{", "y": `{"kind":"egg"}`} {
		if err := s.Store.SetDocument(t.Context(), store.Clocks, id, []byte(body)); err != nil {
			t.Fatal(err)
		}
	}
	stop()
	s, _ = workshop(t, dir, m)
	all, err := s.Clocks(context.Background())
	if err != nil || len(all.Clocks) != 1 || all.Clocks[0].ID != "a" {
		t.Errorf("%+v, %v", all, err)
	}
}

// BenchmarkClocks lists fifty clocks, against none.
func BenchmarkClocks(b *testing.B) {
	for _, n := range []int{0, 1, 50} {
		b.Run(fmt.Sprint(n), func(b *testing.B) {
			m := &machine{Moment: clock.Moment{Wall: 1.8e9, Steady: 1000, Run: "boot-1"}}
			s, _ := workshop(b, b.TempDir(), m)
			for i := range n {
				if _, err := s.StartClock(b.Context(), wire.NewClock{ID: fmt.Sprint("c", i), Kind: "next", NeedS: 3600 * float64(i+1), Product: "paint_acrylic"}); err != nil {
					b.Fatal(err)
				}
			}
			for b.Loop() {
				if _, err := s.Clocks(b.Context()); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}
