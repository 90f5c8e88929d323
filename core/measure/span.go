package measure

import (
	"strings"
	"unicode/utf8"
)

// spanUnits are what a span of time may be typed in, in seconds.
var spanUnits = map[string]float64{
	"s": 1, "sec": 1, "secs": 1, "second": 1, "seconds": 1,
	"m": 60, "min": 60, "mins": 60, "minute": 60, "minutes": 60,
	"h": 3600, "hr": 3600, "hrs": 3600, "hour": 3600, "hours": 3600,
	"d": 86400, "day": 86400, "days": 86400, "week": 7 * 86400, "weeks": 7 * 86400,
	"month": 30 * 86400, "months": 30 * 86400, "year": 365 * 86400, "years": 365 * 86400,
}

// Span reads a span of time as people write it and returns seconds: "20 min", "1 h 30", "1:30" (hours and
// minutes), "half an hour", "2 days". A number alone is in minutes. The error is an *[Error].
func Span(text string) (float64, error) {
	if utf8.RuneCountInString(text) > maxTyped {
		return 0, bad("That is too long for a time; write it like 20 min or 1 h 30.")
	}
	if h, m, ok := strings.Cut(strings.TrimSpace(text), ":"); ok {
		a, b := 0., 0.
		if !whole(h, &a) || !whole(m, &b) || b >= 60 {
			return 0, bad("%s is not a time; write hours and minutes like 1:30.", shown(text))
		}
		return spanOf((a*60 + b) * 60)
	}
	toks, err := words(text)
	if err != nil {
		return 0, bad("%s cannot be read as a time; write it like 20 min or 1 h 30.", shown(text))
	}
	if len(toks) == 0 {
		return 0, bad("Nothing is typed; write a time like 20 min or 1 h 30.")
	}
	total, last := 0., 0.
	var said spoken
	for _, t := range toks {
		if took, err := said.take(t, text); took || err != nil {
			if err != nil {
				return 0, err
			}
			continue
		}
		u := spanUnits[t.word]
		if u == 0 {
			return 0, bad("“%s” cannot be read in a time; write it like 20 min or 1 h 30.", clip(t.word))
		}
		n, err := said.give(t.word)
		if err != nil {
			return 0, err
		}
		total, last = total+n*u, u
	}
	if n, have := said.n, said.have; have { // 1 h 30: what follows hours is minutes
		switch {
		case last == 3600 || total == 0:
			total += n * 60
		case last == 60:
			total += n
		default:
			return 0, bad("A unit is missing at the end of %s.", shown(text))
		}
	}
	return spanOf(total)
}

func spanOf(s float64) (float64, error) {
	if !(s > 0) {
		return 0, bad("A time must be more than nothing.")
	}
	return s, nil
}

// whole reads a whole number of up to four digits.
func whole(s string, to *float64) bool {
	n, ok := digits(s)
	*to = float64(n)
	return ok && s != "" && len(s) <= 4
}
