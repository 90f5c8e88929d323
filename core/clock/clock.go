package clock

import (
	"fmt"
	"math"

	"rutile/core/craft"
	"rutile/core/measure"
)

// Clock is a clock that runs down. Its time is that of a [Line], in seconds.
type Clock struct {
	Timer craft.Timer
	// Started is when it was started.
	Started float64
	// Need is how long it takes at the pace of an ordinary room, and Least what no touch test makes it shorter
	// than; 0 for none.
	Need, Least float64
	// Since is when its pace last changed, Pace how many times longer everything takes since then, and Gone what
	// had passed of Need by then.
	Since, Pace, Gone float64
	// Over tells that a touch test has ended it before its time.
	Over bool
}

// Limits of a clock, in seconds.
const (
	Shortest = 1.
	Longest  = 30 * 86400.
)

// Most is how many clocks run at once.
const Most = 200

// Error says why a clock cannot be set.
type Error struct{ Says string }

// Error returns the sentence.
func (e *Error) Error() string { return e.Says }

// Check refuses a length that no clock has. The error is an *[Error].
func Check(seconds float64) error {
	switch {
	case math.IsNaN(seconds) || !(seconds > 0):
		return &Error{"A clock needs a time to run: more than nothing."}
	case seconds < Shortest:
		return &Error{"A clock runs for a second at least."}
	case seconds > Longest:
		return &Error{fmt.Sprintf("A clock runs for %s at the most. What takes longer, such as full hardness, is counted in days: write down the date.", measure.Hours(hours(Longest)))}
	}
	return nil
}

// Start starts a clock at a time, at a pace.
func (c *Clock) Start(now, pace float64) {
	if !(pace > 0) {
		pace = 1
	}
	c.Started, c.Since, c.Pace, c.Gone = now, now, pace, 0
}

// done is how much of its need has passed.
func (c *Clock) done(now float64) float64 { return c.Gone + max(0, now-c.Since)/c.Pace }

// Left is how many seconds it still runs; negative for how long it has been over.
func (c *Clock) Left(now float64) float64 {
	if c.Over {
		return min(0, -max(0, now-c.Since))
	}
	left := (c.Need - c.done(now)) * c.Pace
	if short := c.Least - (now - c.Started); left < short {
		left = short
	}
	return round(left)
}

// Total is how many seconds it runs in all, at the present pace.
func (c *Clock) Total(now float64) float64 { return round(max(1, now-c.Started+max(0, c.Left(now)))) }

// Breathe tells it that things take so many times longer from now on. Small changes are let be.
func (c *Clock) Breathe(now, pace float64) bool {
	const same = .03
	if c.Over || !(pace > 0) || math.Abs(pace/c.Pace-1) < same {
		return false
	}
	c.Gone, c.Since, c.Pace = c.done(now), now, pace
	return true
}

// Touch is what a touch test says.
type Touch string

// The touch tests.
const (
	Sticky Touch = "sticky"
	Dry    Touch = "dry"
)

// Figures of touch tests. Working defaults: what a coat that is still sticky when it should be dry takes more, as
// a share of its need; and from which share of it a sticky coat says anything.
const (
	more  = .25
	early = .7
)

// Test corrects a clock by a touch test, and says what came of it. A coat that is dry already ends the clock, but
// never before the time on its label; one that is still sticky takes longer.
func (c *Clock) Test(now float64, t Touch) string {
	row := &craft.Timers[c.Timer]
	if !row.Dries {
		return "A touch test changes nothing here: the clock does not time how a coat dries."
	}
	passed := c.done(now)
	switch t {
	case Sticky:
		switch {
		case row.Ends:
			c.Over = false
			if passed > c.Need*early {
				c.Need = passed + more*c.Need
			}
			return "Still tacky: it has a little longer. Try again soon."
		case passed < early*c.Need:
			return "Still sticky, as expected: nothing changes."
		}
		c.Over = false
		c.Need = max(c.Need, passed) + more*c.Need
		return fmt.Sprintf("Slower than expected: %s more. Is it colder, damper or thicker than usual?", measure.Hours(hours(c.Left(now))))
	case Dry:
		if row.Ends {
			c.Over, c.Since = true, now
			return "No longer tacky: it is over."
		}
		if short := c.Least - (now - c.Started); short > 0 && c.Least > 0 {
			c.Need, c.Gone, c.Since, c.Pace = c.Least, now-c.Started, now, 1
			return fmt.Sprintf("Dry to the touch, but the label asks for %s more.", measure.Hours(hours(short)))
		}
		c.Over, c.Since = true, now
		return "Dry already: go on when a thumb turned on it leaves no mark."
	}
	return ""
}

// State is how a clock stands.
type State string

// The states: it runs, it has just run out and rings, or it has been over for a while.
const (
	Runs  State = "runs"
	Rings State = "rings"
	Past  State = "past"
)

// ringing is how many seconds a clock rings for when nobody stops it.
const ringing = 600.

// StateOf is how it stands at a time.
func (c *Clock) StateOf(now float64) State {
	switch left := c.Left(now); {
	case left > 0:
		return Runs
	case left > -ringing:
		return Rings
	}
	return Past
}
