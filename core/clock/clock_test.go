package clock

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"rutile/core/craft"
)

const hour = 3600.

func near(t *testing.T, what string, got, want float64) {
	t.Helper()
	if math.Abs(got-want) > 1 {
		t.Errorf("%s: %v s, want %v", what, got, want)
	}
}

// began is a clock of an hour on a line that begins at a moment.
func began(m Moment) (Line, Clock) {
	l := Begin(m)
	c := Clock{Timer: craft.TimeRest, Need: hour}
	c.Start(l.Now, 1)
	return l, c
}

// What can happen to a machine between two looks, each by itself: what the clock then shows, and whether it is sure.
func TestClocksSurvive(t *testing.T) {
	const boot = "boot-1"
	start := Moment{Wall: 1e9, Steady: 500, Run: boot}
	awake := Moment{Wall: 1e9, Steady: 500, Run: "program-1", Sleeps: true}
	for _, x := range []struct {
		name  string
		from  Moment
		to    Moment
		left  float64 // of an hour
		doubt string
	}{
		{"ten minutes", start, Moment{1e9 + 600, 1100, boot, false}, 3000, ""},
		{"ten minutes, without a clock that runs through sleep", awake, Moment{1e9 + 600, 1100, "program-1", true}, 3000, ""},
		{"an hour's sleep", start, Moment{1e9 + hour, 500 + hour, boot, false}, 0, ""},
		{"an hour's sleep that only the system's clock saw", awake, Moment{1e9 + hour, 501, "program-1", true}, 3599, "Did it sleep"},
		{"the program started again", start, Moment{1e9 + 120, 620, boot, false}, 3480, ""},
		{"the program started again, without a clock of the machine", awake, Moment{1e9 + 120, 3, "program-2", true}, 3480, ""},
		{"the machine started again", start, Moment{1e9 + 300, 20, "boot-2", false}, 3300, ""},
		{"the system's clock a day ahead", start, Moment{1e9 + 600 + 86400, 1100, boot, false}, 3000, ""},
		{"the system's clock a year back", start, Moment{1e9 + 600 - 365*86400, 1100, boot, false}, 3000, ""},
		{"the system's clock back, without a clock that runs through sleep", awake, Moment{1e9 - 7000, 1100, "program-1", true}, 3000, ""},
		{"the system's clock ahead, without a clock that runs through sleep", awake, Moment{1e9 + 600 + 7200, 1100, "program-1", true}, 3000, "Did it sleep"},
		{"the machine started again with its clock back", start, Moment{1e9 - 5000, 20, "boot-2", false}, 3600, "please say"},
		{"the machine started again a year later", start, Moment{1e9 + 365*86400, 20, "boot-2", false}, 3600, "Was it off so long"},
		{"two seconds of drift within an hour are none", awake, Moment{1e9 + 600 + 1.2, 1100, "program-1", true}, 3000, ""},
	} {
		l, c := began(x.from)
		l.Advance(x.to)
		near(t, x.name, c.Left(l.Now), x.left)
		switch {
		case x.doubt == "" && l.Doubt != nil:
			t.Errorf("%s: it asks %q", x.name, l.Doubt.Says())
		case x.doubt != "" && (l.Doubt == nil || !strings.Contains(l.Doubt.Says(), x.doubt)):
			t.Errorf("%s: it asks %+v; want %q", x.name, l.Doubt, x.doubt)
		}
	}
}

func TestADoubtIsSettled(t *testing.T) {
	from := Moment{Wall: 1e9, Steady: 500, Run: "program-1", Sleeps: true}
	for _, passed := range []float64{0, 1200, hour} {
		l, c := began(from)
		l.Advance(Moment{1e9 + 600 + hour, 1100, "program-1", true})
		if l.Doubt == nil {
			t.Fatal("no doubt")
		}
		near(t, "the gap", l.Doubt.Gap, hour)
		l.Advance(Moment{1e9 + 700 + hour, 1200, "program-1", true}) // it runs on meanwhile
		l.Settle(passed)
		near(t, "settled", c.Left(l.Now), hour-700-passed)
		if l.Doubt != nil {
			t.Error("it still asks")
		}
	}
	l, _ := began(from)
	l.Settle(500)
	near(t, "nothing to settle", l.Now, 1e9)
}

// The line never goes back, whatever the machine's clocks show.
func TestTheLineNeverGoesBack(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 9))
	l := Line{}
	m := Moment{Wall: 1e9, Steady: 10, Run: "a", Sleeps: true}
	for i := range 5000 {
		switch r.IntN(6) {
		case 0:
			m.Wall += (r.Float64() - .5) * 1e7
		case 1:
			m.Run = string(rune('a' + r.IntN(4)))
			m.Steady = r.Float64() * 100
		case 2:
			m.Steady -= r.Float64() * 5
		default:
			d := r.Float64() * 100
			m.Wall, m.Steady = m.Wall+d, m.Steady+d
		}
		was := l.Now
		l.Advance(m)
		if i > 0 && l.Now < was || math.IsNaN(l.Now) {
			t.Fatalf("from %v to %v at %+v", was, l.Now, m)
		}
	}
}

// A coat that dries in colder air takes longer from then on, and not before.
func TestAirChangesThePace(t *testing.T) {
	c := Clock{Timer: craft.TimeNext, Need: 2 * hour, Least: 2 * hour}
	c.Start(0, 1)
	near(t, "after an hour", c.Left(hour), hour)
	if !c.Breathe(hour, 2) {
		t.Error("twice as slow changes nothing")
	}
	near(t, "the second half at half the pace", c.Left(hour), 2*hour)
	near(t, "an hour later", c.Left(2*hour), hour)
	if c.Breathe(2*hour, 2.02) {
		t.Error("a breath of air counts")
	}
	c.Breathe(2*hour, 1)
	near(t, "warm again", c.Left(2*hour), .5*hour)
	near(t, "in all", c.Total(2*hour), 2.5*hour)
	c.Breathe(2*hour, .5) // never faster than the label
	near(t, "the label's time has passed by now", c.Left(2*hour), .25*hour)
	d := Clock{Timer: craft.TimeNext, Need: 2 * hour, Least: 2 * hour}
	d.Start(0, .5)
	near(t, "no sooner than the label", d.Left(0), 2*hour)
}

func TestTouchTests(t *testing.T) {
	set := func(timer craft.Timer, need, least, pace float64) *Clock {
		c := &Clock{Timer: timer, Need: need, Least: least}
		c.Start(0, pace)
		return c
	}
	for _, x := range []struct {
		name  string
		c     *Clock
		at    float64
		is    Touch
		says  string
		left  float64
		state State
	}{
		{"sticky at half-time is as expected", set(craft.TimeNext, 2*hour, 2*hour, 1), hour, Sticky, "as expected", hour, Runs},
		{"sticky when it should be dry", set(craft.TimeNext, 2*hour, 2*hour, 1), 2 * hour, Sticky, "Slower than expected: 30 min more", .5 * hour, Runs},
		{"sticky in the cold", set(craft.TimeNext, 2*hour, 2*hour, 2), 4 * hour, Sticky, "1 h more", hour, Runs},
		{"dry before the label's time", set(craft.TimeNext, 2*hour, 2*hour, 2), hour, Dry, "the label asks for 1 h more", hour, Runs},
		{"dry after the label's time, before the cold one's", set(craft.TimeNext, 2*hour, 2*hour, 2), 3 * hour, Dry, "Dry already", 0, Rings},
		{"touch dry early", set(craft.TimeTouch, hour, 0, 1), .6 * hour, Dry, "Dry already", 0, Rings},
		{"no longer tacky", set(craft.TimeTack, hour, 0, 1), .5 * hour, Dry, "it is over", 0, Rings},
		{"tacky for longer", set(craft.TimeTack, hour, 0, 1), hour, Sticky, "a little longer", .25 * hour, Runs},
		{"a pot is not touched", set(craft.TimePot, hour, 0, 1), .5 * hour, Dry, "changes nothing here", .5 * hour, Runs},
		{"a window does not close sooner because the coat is dry", set(craft.TimeLatest, 48*hour, 0, 1), 3 * hour, Dry, "changes nothing here", 45 * hour, Runs},
	} {
		if says := x.c.Test(x.at, x.is); !strings.Contains(says, x.says) {
			t.Errorf("%s: %q; want words with %q", x.name, says, x.says)
		}
		near(t, x.name, x.c.Left(x.at), x.left)
		if s := x.c.StateOf(x.at); s != x.state {
			t.Errorf("%s: %s, want %s", x.name, s, x.state)
		}
	}
}

func TestClocksRingAndPass(t *testing.T) {
	c := Clock{Timer: craft.TimeWhisk, Need: 180}
	c.Start(1000, 1)
	for at, want := range map[float64]State{1000: Runs, 1179: Runs, 1181: Rings, 1180 + 599: Rings, 1180 + 601: Past, 9e9: Past} {
		if got := c.StateOf(at); got != want {
			t.Errorf("at %v s it %s, want %s", at, got, want)
		}
	}
}

func TestNoSuchClock(t *testing.T) {
	for s, says := range map[float64]string{0: "more than nothing", -5: "more than nothing", .2: "a second at least", 365 * 86400: "30 days at the most", math.NaN(): "more than nothing", math.Inf(1): "at the most"} {
		if err := Check(s); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%v s: %v; want words with %q", s, err, says)
		}
	}
	if err := Check(3 * hour); err != nil {
		t.Error(err)
	}
}

func BenchmarkFifty(b *testing.B) {
	clocks := make([]Clock, 50)
	for i := range clocks {
		clocks[i] = Clock{Timer: craft.TimeNext, Need: float64(i+1) * 100}
		clocks[i].Start(0, 1)
	}
	l := Begin(Moment{Wall: 1, Steady: 1, Run: "a"})
	for b.Loop() {
		l.Advance(Moment{Wall: l.Last.Wall + 1, Steady: l.Last.Steady + 1, Run: "a"})
		for i := range clocks {
			_ = clocks[i].StateOf(l.Now)
		}
	}
}
