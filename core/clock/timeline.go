// Package clock keeps a painter's clocks right. It knows no clock of its own: what the time is comes in as a
// [Moment], and a [Line] makes of a row of moments a time that neither sleep nor a restart nor a changed system
// clock can disturb, or says that it cannot tell.
package clock

import (
	"fmt"
	"math"

	"rutile/core/measure"
)

// Moment is what the clocks of a machine show.
type Moment struct {
	// Wall is the system's clock, in seconds since 1970. People and programs may set it.
	Wall float64
	// Steady is a clock that nobody can set, in seconds since some moment that is the same throughout a Run.
	Steady float64
	// Run names the stretch of time in which Steady counts: a machine's start, or a program's.
	Run string
	// Sleeps tells that Steady stands still while the machine sleeps.
	Sleeps bool
}

// Line is time that only goes forward, as far as it is known.
type Line struct {
	// Now is the time in seconds on the line, at the last moment.
	Now  float64
	Last Moment
	// Doubt is what the line cannot tell; nil where it is certain.
	Doubt *Doubt
}

// Doubt is a stretch of time of which nobody knows whether it passed.
type Doubt struct {
	// At is the time on the line at which it began.
	At float64
	// Gap is how many seconds are missing if the system's clock was right all the time; 0 where it went back.
	Gap float64
	// Restarted tells that the machine or the program was started again, otherwise it may have slept.
	Restarted bool
}

// Figures of how far clocks may be off. Working defaults.
const (
	// drift is how many seconds two clocks of one machine may part between two moments, and driftShare how much
	// of the time between them more.
	drift, driftShare = 1., .0005
	// longest is how many seconds a machine may be switched off before its clock alone is no longer believed.
	longest = 14 * 86400.
)

// Begin is a line that begins at a moment.
func Begin(m Moment) Line { return Line{Now: m.Wall, Last: m} }

// Advance takes the line on to a moment. A steady clock that runs through sleep is believed whatever the system's
// clock shows. One that stands still in sleep is believed as long as the system's clock agrees, and where that one
// was put back; where the system's clock is ahead, the machine may have slept or its clock been set, and the line
// says so. After a restart only the system's clock is there: it is believed if it is not before the last moment,
// nor later than a machine is usually off.
func (l *Line) Advance(m Moment) {
	if l.Last.Run == "" {
		*l = Begin(m)
		return
	}
	wall := m.Wall - l.Last.Wall
	switch {
	case m.Run == l.Last.Run:
		steady := max(0, m.Steady-l.Last.Steady)
		l.Now += steady
		if ahead := wall - steady; m.Sleeps && ahead > drift+driftShare*steady {
			l.doubt(ahead, false)
		}
	case wall >= 0 && wall <= longest:
		l.Now += wall
	case wall > longest:
		l.doubt(wall, true)
	default:
		l.doubt(0, true)
	}
	l.Last = m
}

func (l *Line) doubt(gap float64, restarted bool) {
	if l.Doubt == nil {
		l.Doubt = &Doubt{At: l.Now}
	}
	l.Doubt.Gap += gap
	l.Doubt.Restarted = l.Doubt.Restarted || restarted
}

// Settle answers the doubt: so many seconds of it passed.
func (l *Line) Settle(passed float64) {
	if l.Doubt == nil {
		return
	}
	l.Now += max(0, passed)
	l.Doubt = nil
}

// Says asks the painter what happened, as a sentence or two.
func (d *Doubt) Says() string {
	span := measure.Hours(d.Gap / 3600)
	switch {
	case d.Gap == 0:
		return "The computer was off, and its clock was set back meanwhile. Nobody can tell from here how long it was off: please say."
	case d.Restarted:
		return fmt.Sprintf("The computer was off, and its clock is %s ahead. Was it off so long, or was its clock set?", span)
	}
	return fmt.Sprintf("The computer's clock jumped %s ahead. Did it sleep so long, or was its clock set?", span)
}

// hours of seconds.
func hours(s float64) float64 { return s / 3600 }

// round takes away what is less than a hundredth of a second.
func round(s float64) float64 { return math.Round(s*100) / 100 }
