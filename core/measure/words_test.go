package measure

import (
	"math"
	"testing"
)

func TestSpansCountsAndDates(t *testing.T) {
	for h, want := range map[float64]string{
		0: "0 min", .01: "1 min", .5: "30 min", .98: "59 min", .999: "1 h", 1: "1 h", 1.01: "1.1 h", 9.95: "10 h", 10.2: "11 h", 47.1: "48 h", 48: "2 days", 60: "2.5 days",
		24 * 120: "120 days", math.Inf(1): "any time", 24.0000000001: "24 h",
	} {
		if got := Hours(h); got != want {
			t.Errorf("%v h is %q, not %q", h, got, want)
		}
	}
	for _, x := range []struct{ got, want string }{
		{Count(1, "coat", "coats"), "1 coat"}, {Count(0, "coat", "coats"), "0 coats"}, {Count(3, "coat is", "coats are"), "3 coats are"},
		{Number(2), "2"}, {Number(2.25), "2.2"}, {Number2(.5), "0.5"}, {Number2(1.256), "1.26"},
		{Metric.Date("2026-11-05"), "5 Nov 2026"}, {US.Date("2026-11-05"), "Nov 5, 2026"},
		{Metric.Date(""), ""}, {Metric.Date("2026-13-05"), "2026-13-05"}, {US.Date("yesterday"), "yesterday"}, {US.Date("2026-11-05T10:00"), "2026-11-05T10:00"},
	} {
		if x.got != x.want {
			t.Errorf("%q, want %q", x.got, x.want)
		}
	}
}
