package app

import (
	"os"
	"strings"
	"sync"
	"time"

	"golang.org/x/sys/unix"

	"rutile/core/clock"
)

// bootID names this start of the machine.
var bootID = sync.OnceValue(func() string {
	id, err := os.ReadFile("/proc/sys/kernel/random/boot_id")
	if err != nil {
		return ""
	}
	return strings.TrimSpace(string(id))
})

// machineTimes reads the clocks of the machine: the one that counts since it was started, sleep included, where the
// system has it.
func machineTimes() clock.Moment {
	var ts unix.Timespec
	if id := bootID(); id != "" && unix.ClockGettime(unix.CLOCK_BOOTTIME, &ts) == nil {
		return clock.Moment{Wall: wallSeconds(time.Now()), Steady: float64(ts.Sec) + float64(ts.Nsec)/1e9, Run: id}
	}
	return programTimes()
}
