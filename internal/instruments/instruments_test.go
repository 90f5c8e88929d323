package instruments

import (
	"errors"
	"math"
	"strings"
	"testing"
	"time"

	"rutile/core/drying"
)

var noon = time.Date(2026, 11, 24, 12, 0, 0, 0, time.UTC)

// A wet autumn day that can be believed, and replayed.
func TestTheRoomOverAnAutumn(t *testing.T) {
	a, b, other := Simulated(7), Simulated(7), Simulated(8)
	differs := false
	var lo, hi, wet, dry float64 = 99, -99, -1, 101
	var damp int
	for d := range 30 {
		from := noon.AddDate(0, 0, d-30)
		day := a.Room.Course(from, from.Add(24*time.Hour), 10*time.Minute)
		again := b.Room.Course(from, from.Add(24*time.Hour), 10*time.Minute)
		else_ := other.Room.Course(from, from.Add(24*time.Hour), 10*time.Minute)
		for i, x := range day {
			for _, q := range Quantities[:3] {
				v := x.Values[q.ID]
				if v < q.Min || v > q.Max || !x.Simulated {
					t.Fatalf("%v: %s is %v", x.At, q.ID, v)
				}
				if v != again[i].Values[q.ID] {
					t.Fatalf("%v: %s replays as %v and %v", x.At, q.ID, v, again[i].Values[q.ID])
				}
				differs = differs || v != else_[i].Values[q.ID]
				if i > 0 && math.Abs(v-day[i-1].Values[q.ID]) > map[Quantity]float64{TempC: .6, SurfaceC: .4, RHPct: 6}[q.ID] {
					t.Errorf("%v: %s jumps from %v to %v", x.At, q.ID, day[i-1].Values[q.ID], v)
				}
			}
			lo, hi = min(lo, x.Values[TempC]), max(hi, x.Values[TempC])
			wet, dry = max(wet, x.Values[RHPct]), min(dry, x.Values[RHPct])
			if x.Values[SurfaceC] < drying.DewPoint(drying.Climate{TempC: x.Values[TempC], RH: x.Values[RHPct]})+drying.AboveDew {
				damp++
			}
		}
		morning, _ := a.Room.Read(Spot{}, time.Date(2026, 11, 1+d%28, 7, 0, 0, 0, time.UTC))
		afternoon, _ := a.Room.Read(Spot{}, time.Date(2026, 11, 1+d%28, 16, 0, 0, 0, time.UTC))
		if morning.Values[TempC] >= afternoon.Values[TempC] || morning.Values[RHPct] <= afternoon.Values[RHPct]-25 {
			t.Errorf("day %d: %v in the morning and %v in the afternoon", d, morning.Values, afternoon.Values)
		}
	}
	if !differs {
		t.Error("another seed gives the same autumn")
	}
	if lo < 6 || lo > 12.5 || hi < 16 || hi > 23 || wet < 80 || dry > 62 || dry < 30 || damp == 0 {
		t.Errorf("from %v to %v C, %v to %v %%, %d moments near the dew point", lo, hi, dry, wet, damp)
	}
	// By the clock on the wall, wherever that is.
	zone := time.FixedZone("east", 5*3600)
	x, _ := a.Room.Read(Spot{}, time.Date(2026, 11, 24, 7, 0, 0, 0, zone))
	y, _ := a.Room.Read(Spot{}, time.Date(2026, 11, 24, 7, 0, 0, 0, time.UTC))
	if x.Values[TempC] != y.Values[TempC] {
		t.Errorf("seven in the morning is %v there and %v here", x.Values, y.Values)
	}
}

func TestMetersOnASpot(t *testing.T) {
	b := Simulated(7)
	read := func(id string, on Spot) (map[Quantity]float64, error) {
		x, err := b.Instrument(id).Read(on, noon)
		return x.Values, err
	}
	for _, want := range []float64{8, 35, 85} {
		got, err := read("gloss", Spot{Key: "1/top", Group: "wood", Finish: "varnish_oil", Gloss: want})
		if err != nil || math.Abs(got[GlossUnits]-want) > .25*want+1 {
			t.Errorf("a surface of %v units reads %v, %v", want, got, err)
		}
	}
	shellac, _ := read("gloss", Spot{Key: "a", Group: "wood", Finish: "shellac", Gloss: -1})
	wax, _ := read("gloss", Spot{Key: "a", Group: "wood", Finish: "wax", Gloss: -1})
	if shellac[GlossUnits] <= wax[GlossUnits] {
		t.Errorf("shellac reads %v and wax %v", shellac, wax)
	}
	oak, err := read("moisture", Spot{Key: "a", Group: "wood"})
	if err != nil || oak[MoisturePct] < 11 || oak[MoisturePct] > 16.5 {
		t.Errorf("wood in a damp workshop holds %v %%, %v", oak, err)
	}
	porch, _ := read("moisture", Spot{Key: "a", Group: "wood", Damp: true})
	if porch[MoisturePct] <= oak[MoisturePct] {
		t.Errorf("a damp place reads %v", porch)
	}
	again, _ := read("moisture", Spot{Key: "a", Group: "wood"})
	if again[MoisturePct] != oak[MoisturePct] {
		t.Error("the same spot reads differently")
	}
	for id, group := range map[string]string{"gloss": "cloth and leather", "moisture": "metal"} {
		var e *Error
		if _, err := read(id, Spot{Group: group}); !errors.As(err, &e) || e.Says == "" {
			t.Errorf("%s on %s: %v", id, group, err)
		}
	}
	if b.Instrument("thermometer") != nil {
		t.Error("an instrument that is not there")
	}
}

// today is when the files of these tests are read.
var today = time.Date(2026, 11, 24, 12, 0, 0, 0, time.UTC)

func TestReadCSV(t *testing.T) {
	for _, x := range []struct {
		name, data string
		n, gaps    int
		refused    string // of the first row refused
		separator  string
		first      map[Quantity]float64
	}{
		{"as it should be", "time,temp,rh,surface\n2026-11-24 08:00,14.2,71,13.1\n2026-11-24 09:00,15.0,68,13.4\n", 2, 0, "", "comma", map[Quantity]float64{TempC: 14.2, RHPct: 71, SurfaceC: 13.1}},
		{"semicolons and decimal commas", "Date;Time;Temperature (°C);Humidity (%)\r\n24.11.2026;08:00;14,2;71\r\n", 1, 0, "", "semicolon", map[Quantity]float64{TempC: 14.2, RHPct: 71}},
		{"tabs, Fahrenheit", "timestamp\ttemp_f\trh_pct\n2026-11-24T08:00:00Z\t59\t71\n", 1, 0, "", "tab", map[Quantity]float64{TempC: 15, RHPct: 71}},
		{"gaps", "time,temp,rh\n2026-11-24 08:00,,71\n2026-11-24 09:00,15,n/a\n2026-11-24 10:00,,\n", 2, 2, "4: it has no measurement", "comma", map[Quantity]float64{RHPct: 71}},
		{"impossible", "time,temp,rh\n2026-11-24 08:00,14,171\n2026-11-24 09:00,15,70\n", 1, 0, "2: relative humidity of 171 % is impossible; it must be between 0 and 100", "comma", map[Quantity]float64{TempC: 15, RHPct: 70}},
		{"words", "time,temp\n2026-11-24 08:00,warm\n2026-11-24 09:00,15\n", 1, 0, "2: “warm” is not a value for air temperature", "comma", nil},
		{"days or months", "time,temp\n11/12/2026 08:00,14\n2026-11-24 09:00,15\n", 1, 0, "2: the time “11/12/2026 08:00” cannot be read", "comma", nil},
		{"a comma too many", "time,temp\n2026-11-24 08:00,14,2\n2026-11-24 09:00,15\n", 1, 0, "2: it has 3 cells but the heading has 2", "comma", nil},
		{"an open quotation mark swallows nothing", "time,temp\n\"2026-11-24 08:00,14\n2026-11-24 09:00,15\n", 1, 0, "2: the row cannot be read: a quotation mark is not closed", "comma", map[Quantity]float64{TempC: 15}},
		{"the clock of next week", "time,temp\n2026-12-01 08:00,14\n2026-11-25 11:59,15\n", 1, 0, "2: the time “2026-12-01 08:00” is in the future", "comma", map[Quantity]float64{TempC: 15}},
		{"a day in no calendar", "time,temp\n2026-02-30 08:00,14\n2026-11-24 09:00,15\n", 1, 0, "2: the time “2026-02-30 08:00” cannot be read", "comma", nil},
		{"a quotation mark", "time,temp\n\"2026-11-24 08:00,14\n", 0, 0, "", "", nil},
		{"gloss and moisture, other columns, a byte order mark", "\ufeffwhen|gloss|who|moisture %\n2026-11-24 08:00|35|the carpenter|11.5\n", 1, 0, "", "bar", map[Quantity]float64{GlossUnits: 35, MoisturePct: 11.5}},
	} {
		got, err := ReadCSV([]byte(x.data), "log.csv", today)
		if x.n == 0 {
			var e *Error
			if !errors.As(err, &e) || !strings.HasPrefix(e.Says, "No row could be used. Line 2:") {
				t.Errorf("%s: %v", x.name, err)
			}
			continue
		}
		if err != nil || len(got.Readings) != x.n || got.Gaps != x.gaps || got.Separator != x.separator {
			t.Errorf("%s: %+v, %v", x.name, got, err)
			continue
		}
		if x.refused == "" != (got.NRefused == 0) || got.NRefused > 0 && !strings.HasPrefix(strings.Join([]string{itoa(got.Refused[0].Line), got.Refused[0].Says}, ": "), x.refused) {
			t.Errorf("%s: refused %+v", x.name, got.Refused)
		}
		for q, v := range x.first {
			if math.Abs(got.Readings[0].Values[q]-v) > 1e-9 || got.Readings[0].Simulated || got.Readings[0].By != "log.csv" {
				t.Errorf("%s: %+v", x.name, got.Readings[0])
			}
		}
	}
	for _, x := range []struct{ data, says string }{
		{"", "The file is empty."}, {" \n ", "The file is empty."}, {"a,b\n1,2\n", "The first line, “a,b”, is not a heading"},
		{"time,temp\n", "There is a heading but no row below it."}, {"\xff\xfe", "The file is not UTF-8 text."},
		{"time,temp\n" + strings.Repeat("2026-11-24 08:00,14\n", MaxCSVRows+1), "The file has more than 50000 rows."},
		{strings.Repeat("x", MaxCSVBytes+1), "The file is larger than 4 MB."},
		{strings.Repeat("time,temp,", 300_000), "Line 1 is longer than 4000 characters."},
		{strings.Repeat(",", MaxCSVBytes), "Line 1 is longer than 4000 characters."},
		{"time,temp" + strings.Repeat(",", 100) + "\n", "Line 1 has more than 60 cells."},
		{"time,temp\n" + strings.Repeat("\",\n\",", 600_000), "The file has more than 50000 rows."},
	} {
		if _, err := ReadCSV([]byte(x.data), "", today); err == nil || !strings.HasPrefix(err.Error(), x.says) {
			t.Errorf("%.20q: %v", x.data, err)
		}
	}
}

func itoa(n int) string { return string(rune('0' + n)) }

func FuzzReadCSV(f *testing.F) {
	f.Add("time,temp,rh\n2026-11-24 08:00,14,71\n")
	f.Add("date;time;temp\n24.11.2026;08:00;14,2\n\"")
	f.Fuzz(func(t *testing.T, s string) {
		got, err := ReadCSV([]byte(s), "", today)
		if err != nil {
			return
		}
		for _, r := range got.Readings {
			if r.At.After(today.Add(Ahead)) {
				t.Errorf("a reading of %v was taken on %v", r.At, today)
			}
			for q, v := range r.Values {
				if row := q.Row(); v < row.Min || v > row.Max {
					t.Errorf("%s of %v was taken", q, v)
				}
			}
		}
	})
}

// Files that cost much to take apart are refused before that.
func BenchmarkHostileCSV(b *testing.B) {
	for name, data := range map[string]string{
		"commas": strings.Repeat(",", MaxCSVBytes), "quotes": "time,temp\n" + strings.Repeat("\",\n\",", 600_000), "rows": "time,temp\n" + strings.Repeat("x,y\n", MaxCSVRows-1),
	} {
		b.Run(name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				if _, err := ReadCSV([]byte(data), "", today); err == nil {
					b.Fatal("it was taken")
				}
			}
		})
	}
}
