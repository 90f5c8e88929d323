package card

import (
	"rutile/core/craft"
	"rutile/core/damage"
	"rutile/core/drying"
	"rutile/core/surface"
)

// Filling is what the mixing card says of filling with two-part filler.
type Filling struct {
	Mixing
	// Balls are how much is mixed at once, so that it can be worked. Where no damage was counted, Balls.N is 0 and
	// its times are those of a small ball.
	Balls damage.Batches
}

// Fill is the mixing card for some damage in some air.
func Fill(defects []damage.Defect, air drying.Climate) Filling {
	out := Filling{Mixing: Mixing{TooThick: craft.FillerTooThick, TooThin: craft.FillerTooThin, Keeps: []string{craft.FillerNotKept}}, Balls: damage.Of(defects, air).TwoPart}
	if out.Balls.N == 0 {
		one := damage.Of([]damage.Defect{{ID: "hole", Count: 1}}, air).TwoPart
		out.Balls.WorkMin, out.Balls.SandMin = one.WorkMin, one.SandMin
	}
	for _, l := range craft.FillerLines {
		minutes := l.Minutes
		switch l.Timer {
		case craft.TimePot:
			minutes = out.Balls.WorkMin
		case craft.TimeSand:
			minutes = out.Balls.SandMin
		}
		s := Step{Says: l.Says}
		if l.Timer != craft.NoTimer {
			s.Clock = fixed(l.Timer, minutes/60)
		}
		out.Steps = append(out.Steps, s)
	}
	return out
}

// Work is the card of a look that is worked on what was laid.
func Work(e *surface.Event) Laying {
	r := e.Effect
	out := Laying{Steps: []Step{{Says: sentence(r.How)}}}
	if r.Wants != "" {
		out.Before = append(out.Before, "It needs "+r.Wants+".")
	}
	if r.Trap != "" {
		out.Before = append(out.Before, "Beware: "+r.Trap+".")
	}
	if e.Doing.Heat {
		out.Before = append(out.Before, craft.BeforeHeat)
	}
	if hours := max(r.Settles, r.Rests); hours > 0 {
		out.Clocks = append(out.Clocks, *fixed(craft.TimeNext, hours))
	}
	return out
}

// fixed is a clock that the air does not change.
func fixed(t craft.Timer, hours float64) *Clock {
	s := hours * 3600
	return &Clock{Timer: t, Says: craft.Timers[t].Name + ", " + spanOf(t, s), Seconds: s, Need: s, Pace: 1}
}
