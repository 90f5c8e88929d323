package instruments

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode/utf8"

	"rutile/core/craft"
)

// Limits on a file of readings.
const (
	MaxCSVBytes = 4 << 20
	MaxCSVRows  = 50_000
	mostRefused = 50
	// maxLine and maxColumns bound a line before it is taken apart, in bytes and in cells.
	maxLine    = 4000
	maxColumns = 60
	// Ahead is how far in the future a reading may be dated: a clock may be off, or in another zone.
	Ahead = 24 * time.Hour
)

// Import is what a file of readings came to.
type Import struct {
	Readings []Reading
	// Separator is what its columns are parted by.
	Separator string
	// Columns are the quantities found.
	Columns []Quantity
	// Gaps counts cells that hold nothing, within rows that were taken.
	Gaps int
	// Refused are rows that were not taken, the first of them.
	Refused []Refusal
	// NRefused counts them all.
	NRefused int
}

// Refusal says which row was not taken, and why.
type Refusal struct {
	Line int
	Says string
}

// column is what a heading stands for.
type column struct {
	quantity   Quantity
	time, date bool
	fahrenheit bool
}

// headings are the words that a heading may be, after units and signs were
// taken off it.
var headings = map[string]column{
	"time": {time: true}, "timestamp": {time: true}, "date time": {time: true}, "datetime": {time: true}, "at": {time: true}, "when": {time: true},
	"date": {date: true}, "day": {date: true},
	"temp": {quantity: TempC}, "temperature": {quantity: TempC}, "air": {quantity: TempC}, "air temperature": {quantity: TempC}, "temp c": {quantity: TempC}, "t": {quantity: TempC},
	"temp f": {quantity: TempC, fahrenheit: true}, "temperature f": {quantity: TempC, fahrenheit: true}, "temperature c": {quantity: TempC},
	"rh": {quantity: RHPct}, "humidity": {quantity: RHPct}, "relative humidity": {quantity: RHPct}, "rh pct": {quantity: RHPct}, "rel humidity": {quantity: RHPct},
	"surface": {quantity: SurfaceC}, "surface temperature": {quantity: SurfaceC}, "surface c": {quantity: SurfaceC}, "surface temp": {quantity: SurfaceC},
	"surface f": {quantity: SurfaceC, fahrenheit: true}, "surface temperature f": {quantity: SurfaceC, fahrenheit: true}, "surface temperature c": {quantity: SurfaceC},
	"gloss": {quantity: GlossUnits}, "gu": {quantity: GlossUnits}, "gloss gu": {quantity: GlossUnits}, "gloss 60": {quantity: GlossUnits},
	"moisture": {quantity: MoisturePct}, "moisture pct": {quantity: MoisturePct}, "mc": {quantity: MoisturePct}, "moisture content": {quantity: MoisturePct},
}

func heading(s string) (column, bool) {
	s = strings.ToLower(s)
	s = strings.NewReplacer("°", " ", "(", " ", ")", " ", "[", " ", "]", " ", "%", " ", "_", " ", ".", " ", "-", " ", "/", " ", "\ufeff", "").Replace(s)
	c, ok := headings[strings.Join(strings.Fields(s), " ")]
	return c, ok
}

// gaps are the ways to write that there is no reading.
var gaps = []string{"", "-", "--", "n/a", "na", "nan", "null", "none", "?"}

// layouts are the ways to write a moment. Days and months that could be taken
// for each other are not among them.
var layouts = []string{
	time.RFC3339, "2006-01-02T15:04:05", "2006-01-02T15:04", "2006-01-02 15:04:05", "2006-01-02 15:04", "2006-01-02",
	"2006/01/02 15:04:05", "2006/01/02 15:04", "02.01.2006 15:04:05", "02.01.2006 15:04", "02.01.2006",
}

// separators are tried in this order.
var separators = []rune{',', ';', '\t', '|'}

// ReadCSV reads a file of readings: a heading, and a row for each moment, separated by commas,
// semicolons, tabs or bars, with a decimal point, or a comma where commas do not separate columns.
// Empty cells are gaps; a row with an impossible value, a
// time that cannot be read or is more than [Ahead] of now, or no value at all is refused by its line
// and the others are used. name is the source of every reading; times without a zone are of the
// zone of now. An [Error] says why nothing could be used at all.
func ReadCSV(data []byte, name string, now time.Time) (*Import, error) {
	switch {
	case len(data) > MaxCSVBytes:
		return nil, errorf("The file is larger than %d MB.", MaxCSVBytes>>20)
	case !utf8.Valid(data):
		return nil, errorf("The file is not UTF-8 text.")
	case len(bytes.TrimSpace(data)) == 0:
		return nil, errorf("The file is empty.")
	}
	out := &Import{}
	data, err := out.bounded(data)
	if err != nil {
		return nil, err
	}
	sep, cols, ok := headingOf(data)
	if !ok {
		first, _, _ := bytes.Cut(data, []byte("\n"))
		return nil, errorf("The first line, “%s”, is not a heading with a time and a measurement. It should name the columns, for example: time, temp, rh, surface.", clip(string(bytes.TrimSpace(first))))
	}
	out.Separator = map[rune]string{',': "comma", ';': "semicolon", '\t': "tab", '|': "bar"}[sep]
	for _, c := range cols {
		if c.quantity != "" {
			out.Columns = append(out.Columns, c.quantity)
		}
	}
	r := reader(data, sep)
	_, _ = r.Read() // the heading
	for {
		rec, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			line := 0
			var pe *csv.ParseError
			if errors.As(err, &pe) {
				line = pe.StartLine
			}
			out.refuse(line, "the row cannot be read: a quotation mark is not closed")
			continue
		}
		line, _ := r.FieldPos(0)
		if len(rec) == 1 && strings.TrimSpace(rec[0]) == "" {
			continue
		}
		x, gone, says := row(rec, cols, sep, now)
		if says != "" {
			out.refuse(line, says)
			continue
		}
		x.By = name
		out.Gaps += gone
		out.Readings = append(out.Readings, x)
	}
	if len(out.Readings) == 0 {
		if len(out.Refused) > 0 {
			return nil, errorf("No row could be used. Line %d: %s.", out.Refused[0].Line, out.Refused[0].Says)
		}
		return nil, errorf("There is a heading but no row below it.")
	}
	slices.SortStableFunc(out.Readings, func(a, b Reading) int { return a.At.Compare(b.At) })
	return out, nil
}

// bounded holds the lines of a file to their limits before they are taken apart. It blanks lines in
// which a quotation mark is not closed, so that none swallows those after it.
func (i *Import) bounded(data []byte) ([]byte, error) {
	if n := bytes.Count(data, []byte("\n")); n > MaxCSVRows+1 {
		return nil, errorf("The file has more than %d rows.", MaxCSVRows)
	}
	out := make([]byte, 0, len(data))
	n := 0
	for line := range bytes.Lines(data) {
		n++
		if len(line) > maxLine {
			return nil, errorf("Line %d is longer than %d characters.", n, maxLine)
		}
		for _, sep := range separators {
			if c := bytes.Count(line, []byte(string(sep))); c >= maxColumns {
				return nil, errorf("Line %d has more than %d cells.", n, maxColumns)
			}
		}
		if bytes.Count(line, []byte(`"`))%2 != 0 {
			i.refuse(n, "the row cannot be read: a quotation mark is not closed")
			line = []byte("\n")
		}
		out = append(out, line...)
	}
	return out, nil
}

func (i *Import) refuse(line int, says string) {
	i.NRefused++
	if len(i.Refused) < mostRefused {
		i.Refused = append(i.Refused, Refusal{line, says})
	}
}

func reader(data []byte, sep rune) *csv.Reader {
	r := csv.NewReader(bytes.NewReader(data))
	r.Comma, r.FieldsPerRecord, r.TrimLeadingSpace = sep, -1, sep != '\t'
	r.ReuseRecord = true
	return r
}

// headingOf finds the separator under which the first line names a time and
// something measured.
func headingOf(data []byte) (rune, []column, bool) {
	for _, sep := range separators {
		rec, err := reader(data, sep).Read()
		if err != nil {
			continue
		}
		cols := make([]column, len(rec))
		var when, measured bool
		for i, h := range rec {
			if c, ok := heading(h); ok && !slices.ContainsFunc(cols[:i], func(o column) bool {
				return o != (column{}) && o.quantity == c.quantity && o.time == c.time && o.date == c.date
			}) {
				cols[i] = c
				when = when || c.time || c.date
				measured = measured || c.quantity != ""
			}
		}
		if when && measured {
			return sep, cols, true
		}
	}
	return 0, nil, false
}

// row reads one row; says is why it is refused.
func row(rec []string, cols []column, sep rune, now time.Time) (x Reading, gone int, says string) {
	x.Values = map[Quantity]float64{}
	var date, clock string
	for i, c := range cols {
		cell := ""
		if i < len(rec) {
			cell = strings.TrimSpace(rec[i])
		}
		switch {
		case c.date:
			date = cell
		case c.time:
			clock = cell
		case c.quantity == "":
		case slices.Contains(gaps, strings.ToLower(cell)):
			gone++
		default:
			q := c.quantity.Row()
			v, ok := number(cell, sep)
			if !ok {
				return x, 0, fmt.Sprintf("“%s” is not a value for %s", clip(cell), craft.Lower(q.Name))
			}
			if c.fahrenheit {
				v = (v - 32) / 1.8
			}
			if v < q.Min || v > q.Max {
				return x, 0, fmt.Sprintf("%s of %s %s is impossible; it must be between %v and %v", craft.Lower(q.Name), cell, q.Unit, q.Min, q.Max)
			}
			x.Values[c.quantity] = v
		}
	}
	if len(rec) > len(cols) {
		return x, 0, fmt.Sprintf("it has %d cells but the heading has %d", len(rec), len(cols))
	}
	if len(x.Values) == 0 {
		return x, 0, "it has no measurement"
	}
	when := strings.TrimSpace(date + " " + clock)
	for _, l := range layouts {
		if at, err := time.ParseInLocation(l, when, now.Location()); err == nil {
			if at.After(now.Add(Ahead)) {
				return x, 0, fmt.Sprintf("the time “%s” is in the future", clip(when))
			}
			x.At = at
			return x, gone, ""
		}
	}
	if when == "" {
		return x, 0, "it has no time"
	}
	return x, 0, fmt.Sprintf("the time “%s” cannot be read; write it as 2026-11-24 10:15", clip(when))
}

// number reads a figure, with a decimal comma where that parts no columns.
func number(s string, sep rune) (float64, bool) {
	s = strings.TrimSpace(strings.TrimRight(s, "%°CF "))
	if sep != ',' && strings.Count(s, ",") == 1 && !strings.Contains(s, ".") {
		s = strings.Replace(s, ",", ".", 1)
	}
	v, err := strconv.ParseFloat(s, 64)
	return v, err == nil && v == v && v < 1e9 && v > -1e9
}

func clip(s string) string {
	const most = 60
	if r := []rune(s); len(r) > most {
		return string(r[:most]) + "…"
	}
	return s
}
