package measure

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Hours writes a span of time given in hours: minutes below an hour, days from two days. It rounds
// up, so that nobody comes back too early.
func Hours(h float64) string {
	const exact = 1e-6 // of rounding errors that must not add a step
	minutes := math.Ceil(h*60 - exact)
	switch {
	case math.IsInf(h, 1):
		return "any time"
	case minutes < 60:
		return fmt.Sprintf("%.0f min", max(0, minutes))
	case h < 10:
		return Number(math.Ceil(h*10-exact)/10) + " h"
	case h < 48:
		return fmt.Sprintf("%.0f h", math.Ceil(h-exact))
	default:
		return Number(math.Ceil(h/24*10-exact)/10) + " days"
	}
}

// Within writes a span of time given in hours that must not be exceeded: it rounds down, to minutes below an hour,
// to half hours below ten, to whole hours and from two days to whole days.
func Within(h float64) string {
	const exact = 1e-6
	switch {
	case math.IsInf(h, 1):
		return "any time"
	case h < 1:
		return fmt.Sprintf("%.0f min", math.Max(0, math.Floor(h*60+exact)))
	case h < 10:
		return Number(math.Floor(h*2+exact)/2) + " h"
	case h < 48:
		return fmt.Sprintf("%.0f h", math.Floor(h+exact))
	}
	return Count(int(math.Floor(h/24+exact)), "day", "days")
}

// Between words a range of hours of work, to half hours below three and whole ones above.
func Between(least, most float64) string {
	round := func(h float64) string {
		if h < 3 {
			return Number(math.Max(.5, math.Round(h*2)/2))
		}
		return Number(math.Round(h))
	}
	a, b := round(least), round(most)
	if a == b {
		return "about " + a + " h"
	}
	return a + " to " + b + " h"
}

// Number words a figure to one decimal place, without a needless zero.
func Number(x float64) string { return strings.TrimSuffix(fmt.Sprintf("%.1f", x), ".0") }

// Number2 words a figure to two decimal places, without needless zeros.
func Number2(x float64) string {
	return strings.TrimSuffix(strings.TrimRight(fmt.Sprintf("%.2f", x), "0"), ".")
}

// Count words how many there are of something: 1 coat, 3 coats.
func Count(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return strconv.Itoa(n) + " " + many
}

// Date words a day written as 2006-01-02, as 2 Jan 2006 or, in US units, Jan 2, 2006.
// What is no such day is returned as it is.
func (u Units) Date(day string) string {
	var y, m, d int
	if n, err := fmt.Sscanf(day, "%4d-%2d-%2d", &y, &m, &d); n != 3 || err != nil || m < 1 || m > len(months) || len(day) != len("2006-01-02") {
		return day
	}
	if u == US {
		return fmt.Sprintf("%s %d, %d", months[m-1], d, y)
	}
	return fmt.Sprintf("%d %s %d", d, months[m-1], y)
}

var months = [...]string{"Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"}
