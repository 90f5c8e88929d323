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

func TestVolumesAndWeights(t *testing.T) {
	for _, x := range []struct {
		u    Units
		l    float64
		want string
	}{
		{Metric, 0, "0 ml"}, {Metric, .0001, "5 ml"}, {Metric, .017, "20 ml"}, {Metric, .1, "100 ml"}, {Metric, .101, "110 ml"}, {Metric, 1.231, "1.24 l"}, {Metric, 1, "1 l"}, {Metric, .991, "1 l"}, {Metric, 2.31, "2.4 l"},
		{US, .1, "3.5 fl oz"}, {US, .5, "17 fl oz"}, {US, 2.5, "2.7 qt"}, {US, -1, "0 fl oz"},
	} {
		if got := x.u.Volume(x.l); got != x.want {
			t.Errorf("%v l in %v is %q, want %q", x.l, x.u, got, x.want)
		}
	}
	for _, x := range []struct {
		u    Units
		g    float64
		want string
	}{{Metric, 47, "50 g"}, {Metric, 1210, "1.25 kg"}, {US, 100, "4 oz"}} {
		if got := x.u.Weight(x.g); got != x.want {
			t.Errorf("%v g in %v is %q, want %q", x.g, x.u, got, x.want)
		}
	}
	for l, want := range map[float64]string{.25: "250 ml", 1: "1 l", 2.5: "2.5 l"} {
		if got := Metric.Size(l); got != want {
			t.Errorf("%v: %q", l, got)
		}
	}
	for _, x := range []struct {
		from, to string
		want     int
	}{{"2026-11-28", "2026-11-28", 0}, {"2024-02-28", "2024-03-01", 2}, {"2025-12-31", "2026-01-01", 1}, {"2026-01-01", "2025-01-01", -365}, {"1999-12-31", "2000-03-01", 61}} {
		if got, ok := Days(x.from, x.to); !ok || got != x.want {
			t.Errorf("%s to %s: %d, %v", x.from, x.to, got, ok)
		}
	}
	if _, ok := Days("yesterday", "2026-01-01"); ok {
		t.Error("yesterday is a date")
	}
}
