package worklog

import (
	"math"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/surface"
)

// State is how the next step of a zone stands.
type State string

// The states, in the order in which a painter wants to know them: its window is closing or was missed, it is being
// worked on, it may be done, it waits for something to dry; nothing was begun; all is done, and it only hardens.
const (
	Closing   State = "closing"
	Missed    State = "missed"
	Working   State = "working"
	Ready     State = "ready"
	Waiting   State = "waiting"
	NotBegun  State = "not_begun"
	Hardening State = "hardening"
)

// States lists them, the most urgent first.
var States = []State{Closing, Missed, Working, Ready, Waiting, NotBegun, Hardening}

// Due is what comes next on a zone. Moments are seconds since 1970.
type Due struct {
	State State
	// Event is the index of the next step in the walk, Step that step, from 1, of Work.Steps, and Coat which of its
	// coats; -1 and 0 where nothing is left.
	Event, Step, Coat int
	// From is when it may be begun, as the plan wants it, and May when what is below allows it, where that is sooner.
	// To is when it must be begun; infinite where there is no latest.
	From, May, To float64
	// Window is what closes, and For the step whose window it is, from 1: the next one, or one that soon follows it.
	Window check.Window
	For    int
}

// Figures of what counts as soon. Working defaults: a wait of less than a minute is none; a window closes when an hour
// or a quarter of it is left, whichever is less.
const (
	noWait       = 1. / 60
	lastHour     = 1.
	lastOfWindow = .25
)

// DueOf is what comes next on a judged zone. r must be the check of the zone with the steps of the work.
func DueOf(c *craft.Craft, r *check.Result, w *Work) Due {
	t := &r.Trace
	d := Due{Event: -1, To: math.Inf(1), State: Hardening}
	next := -1
	for i := range t.Events {
		if e := &t.Events[i]; e.Done == nil && e.Doing.Do != surface.Wait {
			next = i
			break
		}
	}
	if next < 0 {
		d.From = w.at(t.End.Hours)
		return d
	}
	e := &t.Events[next]
	own := check.WindowOf(c, &r.Facts, t, next)
	d.Event, d.Step, d.Coat = next, e.Step, e.CoatNo
	begun := e.Begun
	may := begun
	if e.NBounds > 0 && e.Doing.Do == surface.Coat && own.From < begun-noWait {
		may = max(own.From, w.Now)
	}
	d.From, d.May = w.at(begun), w.at(may)
	to := math.Inf(1)
	for i := next; i < len(t.Events); i++ {
		x := &t.Events[i]
		win := check.WindowOf(c, &r.Facts, t, i)
		if !math.IsInf(win.To, 1) {
			to, d.Window, d.For = win.To-(x.Begun-begun), win, x.Step
		}
		if x.NBounds > 0 || !math.IsInf(to, 1) {
			break
		}
	}
	if !math.IsInf(to, 1) {
		d.To = w.at(to)
	} else {
		d.Window, d.For = own, e.Step
	}
	switch last := to - w.Now; {
	case !w.Begun:
		d.State = NotBegun
	case last < 0:
		d.State = Missed
	case w.Working >= 0:
		d.State = Working
	case begun > w.Now+noWait && may > w.Now+noWait:
		d.State = Waiting
	case last <= min(lastHour, lastOfWindow*(to-d.Window.From)):
		d.State = Closing
	case begun > w.Now+noWait:
		d.State = Waiting
	default:
		d.State = Ready
	}
	return d
}

// at is an hour of the walk in seconds since 1970.
func (w *Work) at(h float64) float64 { return w.Start + h*3600 }

// Says is how the next step stands, as a sentence.
func (d *Due) Says(c *craft.Craft) string {
	below := ""
	if d.Window.Below != craft.NoProduct {
		below = craft.Lower(c.Products[d.Window.Below].Name)
	}
	switch d.State {
	case Closing:
		switch d.Window.Why {
		case check.OpenTack:
			return "Do it now, while it is tacky."
		case check.OpenSoft:
			return "Do it now, while the paint still gives."
		}
		return "Do it soon: later the coat below must be scuffed first."
	case Missed:
		switch d.Window.Why {
		case check.OpenTack:
			return "It is no longer tacky."
		case check.OpenSoft:
			return "The paint no longer gives easily."
		}
		return "The coat below has hardened too far: scuff it first."
	case Working:
		return "You are at it."
	case Ready:
		return "It may be done now."
	case Waiting:
		if below != "" {
			return craft.Upper(below) + " is drying."
		}
		return "It is drying."
	case NotBegun:
		return "Nothing is done yet."
	}
	return "It hardens."
}
