package craft

// Timer is what a clock on a card is for.
type Timer uint8

// The timers. NoTimer is for a step that is not timed.
const (
	NoTimer Timer = iota
	TimeWhisk
	TimeRest
	TimePot
	TimeKeeps
	TimeWipe
	TimeEdge
	TimeTack
	TimeBuff
	TimeTouch
	TimeNext
	TimeLatest
	TimeSand
	TimeFoam
	TimeOwn
	NumTimers
)

// TimerRow describes what a clock is for.
type TimerRow struct {
	ID, Name string
	// Rings is what it says when it has run out.
	Rings string
	// Ends tells that something is over then, such as a pot or a window; the others tell that work may go on.
	Ends bool
	// Dries tells that it runs with the drying of a coat: slower in the cold and the damp, and a touch test
	// corrects it.
	Dries bool
}

// Timers is indexed by Timer.
var Timers = [NumTimers]TimerRow{
	TimeWhisk:  {"whisk", "Mix", "Mixed long enough.", false, false},
	TimeRest:   {"rest", "Let it rest", "It has rested: stir it and strain it.", false, false},
	TimeFoam:   {"foam", "Let it stand", "The bubbles should be gone.", false, false},
	TimePot:    {"pot", "Pot life", "Use no more of this pot.", true, false},
	TimeKeeps:  {"keeps", "Keeps until", "What was left over has gone off by now.", true, false},
	TimeWipe:   {"wipe", "Wipe after", "Wipe it now.", false, false},
	TimeEdge:   {"edge", "Wet edge", "The edge has set: do not go back into it.", true, false},
	TimeTack:   {"tack", "Tacky until", "It is no longer tacky.", true, true},
	TimeBuff:   {"buff", "Buff after", "Buff it now.", false, true},
	TimeTouch:  {"touch", "Touch dry", "It should be touch dry: try it where nobody sees.", false, true},
	TimeNext:   {"next", "Next coat from", "The next coat may go on.", false, true},
	TimeLatest: {"latest", "Next coat until", "The window has closed: sand before the next coat.", true, false},
	TimeSand:   {"sand", "Sand from", "It may be sanded.", false, true},
	TimeOwn:    {"own", "Clock", "Time is up.", false, false},
}

// TimerNamed returns the timer with an id; false if there is none.
func TimerNamed(id string) (Timer, bool) {
	for t := TimeWhisk; t < NumTimers; t++ {
		if Timers[t].ID == id {
			return t, true
		}
	}
	return NoTimer, false
}
