package app

import (
	"crypto/rand"
	"time"

	"rutile/core/clock"
)

var (
	programStart = time.Now()
	programRun   = "program-" + rand.Text()
)

// programTimes reads the clock that counts since the program was started. It may stand still while the machine
// sleeps.
func programTimes() clock.Moment {
	return clock.Moment{Wall: wallSeconds(time.Now()), Steady: time.Since(programStart).Seconds(), Run: programRun, Sleeps: true}
}

func wallSeconds(t time.Time) float64 { return float64(t.UnixNano()) / 1e9 }

// TimesOf are the machine's clocks where another clock stands for them, such as one that runs faster.
func TimesOf(now func() time.Time) func() clock.Moment {
	start := now()
	return func() clock.Moment {
		t := now()
		return clock.Moment{Wall: wallSeconds(t), Steady: t.Sub(start).Seconds(), Run: programRun}
	}
}
