package exchange

import (
	"bytes"
	"encoding/csv"
	"strconv"
	"strings"

	"rutile/internal/wire"
)

// logColumns are the columns of a log as CSV.
var logColumns = []struct {
	name  string
	write func(*wire.LogLine) string
}{
	{"at", func(l *wire.LogLine) string { return l.Entry.At }},
	{"zone", func(l *wire.LogLine) string { return l.ZoneName }},
	{"what", func(l *wire.LogLine) string { return l.Entry.What }},
	{"says", func(l *wire.LogLine) string { return l.Says }},
	{"how", func(l *wire.LogLine) string { return strings.Join(l.How, "; ") }},
	{"product", func(l *wire.LogLine) string {
		if l.Entry.Step == nil {
			return ""
		}
		return l.Entry.Step.Product
	}},
	{"can", func(l *wire.LogLine) string {
		if l.Entry.Can == nil {
			return ""
		}
		return l.Entry.Can.ID
	}},
	{"used_l", func(l *wire.LogLine) string { return number(l.Entry.UsedL) }},
	{"minutes", func(l *wire.LogLine) string { return number(l.Entry.Minutes) }},
	{"temp_c", func(l *wire.LogLine) string {
		if l.Entry.Air == nil {
			return ""
		}
		return number(&l.Entry.Air.TempC)
	}},
	{"rh_pct", func(l *wire.LogLine) string {
		if l.Entry.Air == nil {
			return ""
		}
		return number(&l.Entry.Air.RHPct)
	}},
	{"seen", func(l *wire.LogLine) string {
		var all []string
		for _, s := range l.Entry.Seen {
			all = append(all, s.What+" "+strconv.Itoa(s.Level))
		}
		return strings.Join(all, "; ")
	}},
	{"note", func(l *wire.LogLine) string { return l.Entry.Note }},
	{"photos", func(l *wire.LogLine) string { return strings.Join(l.Entry.Photos, " ") }},
	{"by", func(l *wire.LogLine) string { return l.Entry.By }},
	{"id", func(l *wire.LogLine) string { return l.Entry.ID }},
	{"corrects", func(l *wire.LogLine) string { return l.Entry.Corrects }},
}

// WriteLog writes what holds of a log as CSV, the oldest first. A cell that a spreadsheet would take for a formula begins
// with an apostrophe.
func WriteLog(lines []wire.LogLine) []byte {
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	row := make([]string, len(logColumns))
	for i, c := range logColumns {
		row[i] = c.name
	}
	_ = w.Write(row)
	for k := len(lines) - 1; k >= 0; k-- {
		for i, c := range logColumns {
			row[i] = safe(c.write(&lines[k]))
		}
		_ = w.Write(row)
	}
	w.Flush()
	return b.Bytes()
}
