//go:build !linux

package app

import "rutile/core/clock"

func machineTimes() clock.Moment { return programTimes() }
