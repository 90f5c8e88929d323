package exchange

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/internal/wire"
)

// Limits on a file of cans.
const (
	MaxCansBytes = 4 << 20
	MaxCanRows   = 10_000
	maxColumns   = 60
	maxLine      = 40_000 // bytes
)

// Cans are cans as they were read, with the rows that were not taken.
type Cans struct {
	Cans     []wire.Can
	Refused  []wire.RefusedRow
	NRefused int
}

// column is a column of a file of cans.
type column struct {
	name  string
	also  []string // other headings that it may have
	write func(*wire.Can) string
	read  func(x *wire.Can, cell string) string // says why it cannot be used
}

func number(x *float64) string {
	if x == nil {
		return ""
	}
	return strconv.FormatFloat(*x, 'f', -1, 64)
}

func texts(most int, field func(*wire.Can) *string) (func(*wire.Can) string, func(*wire.Can, string) string) {
	return func(x *wire.Can) string { return *field(x) }, func(x *wire.Can, cell string) string {
		if len([]rune(cell)) > most {
			return fmt.Sprintf("“%s” is longer than %d characters", clip(cell), most)
		}
		*field(x) = cell
		return ""
	}
}

func days(field func(*wire.Can) *string) (func(*wire.Can) string, func(*wire.Can, string) string) {
	return func(x *wire.Can) string { return *field(x) }, func(x *wire.Can, cell string) string {
		for _, layout := range []string{time.DateOnly, "2006/01/02", "02.01.2006", "2 Jan 2006", "Jan 2, 2006"} {
			if d, err := time.Parse(layout, cell); err == nil {
				*field(x) = d.Format(time.DateOnly)
				return ""
			}
		}
		return fmt.Sprintf("the date “%s” cannot be read; write it as 2026-11-24", clip(cell))
	}
}

// figure reads a number, with a decimal point or comma.
func figure(cell string) (float64, bool) {
	cell = strings.TrimSpace(cell)
	if strings.Count(cell, ",") == 1 && !strings.Contains(cell, ".") {
		cell = strings.Replace(cell, ",", ".", 1)
	}
	v, err := strconv.ParseFloat(cell, 64)
	return v, err == nil && !math.IsNaN(v) && !math.IsInf(v, 0)
}

// Litres reads a volume: litres where no unit stands, ml, cl, l, fl oz, pt, qt or gal (US).
func Litres(cell string) (float64, bool) {
	s := strings.ToLower(strings.TrimSpace(cell))
	for _, u := range []struct {
		unit string
		l    float64
	}{{"fl oz", .0295735295625}, {"floz", .0295735295625}, {"oz", .0295735295625}, {"litres", 1}, {"litre", 1}, {"liters", 1}, {"liter", 1}, {"ml", .001}, {"cl", .01}, {"l", 1}, {"pt", .473176473}, {"qt", .946352946}, {"gal", 3.785411784}} {
		if rest, ok := strings.CutSuffix(s, u.unit); ok {
			v, ok := figure(rest)
			return v * u.l, ok
		}
	}
	return figure(s)
}

func volumes(field func(*wire.Can) *float64, none func(*wire.Can) bool, set func(*wire.Can, float64)) (func(*wire.Can) string, func(*wire.Can, string) string) {
	return func(x *wire.Can) string {
			if none(x) {
				return ""
			}
			return number(field(x))
		}, func(x *wire.Can, cell string) string {
			v, ok := Litres(cell)
			switch {
			case !ok:
				return fmt.Sprintf("“%s” is not a volume; write litres, or 750 ml", clip(cell))
			case v < 0:
				return fmt.Sprintf("%s is negative", clip(cell))
			case v > wire.MaxCanLitres:
				return fmt.Sprintf("%s is more than %d litres", clip(cell), wire.MaxCanLitres)
			}
			set(x, v)
			return ""
		}
}

// columns are those of a file of cans, in the order in which they are written.
func columns(c *craft.Craft) []column {
	var out []column
	add := func(name string, also []string, write func(*wire.Can) string, read func(*wire.Can, string) string) {
		out = append(out, column{name, also, write, read})
	}
	add("id", nil, func(x *wire.Can) string { return x.ID }, func(x *wire.Can, cell string) string {
		if !wire.FormID.Fits(cell) {
			return fmt.Sprintf("“%s” is not an id: small letters, digits, - and _", clip(cell))
		}
		x.ID = cell
		return ""
	})
	w, r := texts(wire.MaxName, func(x *wire.Can) *string { return &x.Name })
	add("name", []string{"title", "can", "paint"}, w, r)
	add("kind", []string{"product", "type"}, func(x *wire.Can) string { return x.Kind }, func(x *wire.Can, cell string) string {
		if id, ok := KindNamed(c, cell); ok {
			x.Kind = id
			return ""
		}
		return fmt.Sprintf("“%s” is no kind of product; a kind is, for example, chalk paint, clear wax or paint_acrylic", clip(cell))
	})
	add("colour", []string{"color", "hex"}, func(x *wire.Can) string { return x.Colour }, func(x *wire.Can, cell string) string {
		col, _, err := colour.Read(cell)
		if err != nil {
			return strings.TrimSuffix(err.Error(), ".")
		}
		x.Colour = col.Hex()
		return ""
	})
	add("sheen", []string{"finish", "gloss"}, func(x *wire.Can) string { return x.Sheen }, func(x *wire.Can, cell string) string {
		for _, s := range craft.Sheens[1:] {
			if strings.EqualFold(cell, s.ID) || strings.EqualFold(strings.ReplaceAll(cell, "-", " "), strings.ReplaceAll(s.Name, "-", " ")) {
				x.Sheen = s.ID
				return ""
			}
		}
		return fmt.Sprintf("“%s” is no sheen; sheens are dead flat, matt, eggshell, satin, semi-gloss and gloss", clip(cell))
	})
	w, r = volumes(func(x *wire.Can) *float64 { return &x.SizeL }, func(x *wire.Can) bool { return x.SizeL == 0 }, func(x *wire.Can, v float64) { x.SizeL = v })
	add("size_l", []string{"size", "volume", "litres"}, w, r)
	w, r = volumes(func(x *wire.Can) *float64 { return x.LeftL }, func(x *wire.Can) bool { return x.LeftL == nil }, func(x *wire.Can, v float64) { x.LeftL = &v })
	add("left_l", []string{"left", "remaining"}, w, r)
	w, r = days(func(x *wire.Can) *string { return &x.Opened })
	add("opened", []string{"opened on"}, w, r)
	w, r = days(func(x *wire.Can) *string { return &x.Bought })
	add("bought", []string{"bought on", "purchased"}, w, r)
	add("price", nil, func(x *wire.Can) string {
		if x.PriceMinor == nil {
			return ""
		}
		return fmt.Sprintf("%d.%02d", *x.PriceMinor/100, *x.PriceMinor%100)
	}, func(x *wire.Can, cell string) string {
		v, ok := figure(strings.Trim(cell, "€$£ "))
		if !ok || v < 0 || v > 1e7 {
			return fmt.Sprintf("“%s” is not a price", clip(cell))
		}
		minor := int(math.Round(v * 100))
		x.PriceMinor = &minor
		return ""
	})
	w, r = texts(wire.MaxName, func(x *wire.Can) *string { return &x.Batch })
	add("batch", []string{"lot"}, w, r)
	w, r = texts(wire.MaxText, func(x *wire.Can) *string { return &x.Note })
	add("note", []string{"notes", "remark"}, w, r)
	w, r = texts(wire.MaxName, func(x *wire.Can) *string { return &x.ReservedFor })
	add("reserved_for", []string{"reserved for", "reserved"}, w, r)
	w, r = days(func(x *wire.Can) *string { return &x.Mixed })
	add("mixed", []string{"mixed on"}, w, r)
	add("mixed_from", []string{"mixed from", "recipe"}, func(x *wire.Can) string { return strings.Join(x.MixedFrom, "; ") }, func(x *wire.Can, cell string) string {
		for part := range strings.SplitSeq(cell, ";") {
			if part = strings.TrimSpace(part); part != "" {
				x.MixedFrom = append(x.MixedFrom, part)
			}
			if len([]rune(part)) > wire.MaxName || len(x.MixedFrom) > wire.MaxBlendedInto {
				return fmt.Sprintf("a can is mixed from at most %d parts of at most %d characters", wire.MaxBlendedInto, wire.MaxName)
			}
		}
		return ""
	})
	for f := range craft.LabelFigures {
		row := &craft.LabelFigures[f]
		add("label_"+row.ID, []string{row.ID}, func(x *wire.Can) string { return number(x.Label.At(craft.LabelFigure(f))) }, func(x *wire.Can, cell string) string {
			v, ok := figure(cell)
			if !ok || v < row.Least || v > row.Most {
				return fmt.Sprintf("“%s” cannot be: %s, from %v to %v %s", clip(cell), craft.Lower(row.Name), row.Least, row.Most, row.Unit)
			}
			x.Labelled().Set(craft.LabelFigure(f), v)
			return ""
		})
	}
	lists := []struct {
		name  string
		field func(*wire.Label) *[]string
		known func(string) bool
		what  string
	}{
		{"label_on", func(l *wire.Label) *[]string { return &l.On }, isFamily, "surface"}, {"label_not_on", func(l *wire.Label) *[]string { return &l.NotOn }, isFamily, "surface"},
		{"label_for", func(l *wire.Label) *[]string { return &l.For }, isUse, "use"}, {"label_not_for", func(l *wire.Label) *[]string { return &l.NotFor }, isUse, "use"},
		{"label_stops", func(l *wire.Label) *[]string { return &l.Stops }, isStain, "stain"},
	}
	for _, l := range lists {
		add(l.name, nil, func(x *wire.Can) string {
			if x.Label == nil {
				return ""
			}
			return strings.Join(*l.field(x.Label), " ")
		}, func(x *wire.Can, cell string) string {
			for id := range strings.FieldsSeq(strings.ReplaceAll(cell, ";", " ")) {
				if !l.known(id) {
					return fmt.Sprintf("“%s” is no %s", clip(id), l.what)
				}
				if to := l.field(x.Labelled()); !slices.Contains(*to, id) {
					*to = append(*to, id)
				}
			}
			return ""
		})
	}
	return out
}

func isFamily(id string) bool {
	return slices.ContainsFunc(craft.Families[:], func(r craft.FamilyRow) bool { return r.ID == id })
}
func isUse(id string) bool   { _, ok := craft.UsesNamed(id); return ok }
func isStain(id string) bool { _, ok := craft.BleederNamed(id); return ok }

// KindNamed is the id of a kind of product by its id or its name; capitals make no difference.
func KindNamed(c *craft.Craft, words string) (string, bool) {
	words = strings.TrimSpace(words)
	if strings.EqualFold(words, craft.AdditiveID) || strings.EqualFold(words, "bonding additive") {
		return craft.AdditiveID, true
	}
	for _, p := range c.Kinds() {
		if strings.EqualFold(p.ID, words) || strings.EqualFold(p.Name, words) {
			return p.ID, true
		}
	}
	return "", false
}

// begins are what makes a cell a formula for a spreadsheet.
const begins = "=+-@\t\r"

// formula tells whether a cell, behind any apostrophes, begins as a formula does.
func formula(cell string) bool {
	rest := strings.TrimLeft(cell, "'")
	return rest != "" && strings.ContainsRune(begins, rune(rest[0]))
}

// safe is a cell that no spreadsheet takes for a formula: an apostrophe stands before one that could be.
// plain is what such a cell was.
func safe(cell string) string {
	if formula(cell) {
		return "'" + cell
	}
	return cell
}

func plain(cell string) string {
	if cell != "" && cell[0] == '\'' && formula(cell) {
		return cell[1:]
	}
	return cell
}

// WriteCans writes cans as CSV, with a heading.
func WriteCans(c *craft.Craft, cans []wire.Can) ([]byte, error) {
	cols := columns(c)
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	rec := make([]string, len(cols))
	for i := range cols {
		rec[i] = cols[i].name
	}
	if err := w.Write(rec); err != nil {
		return nil, err
	}
	for i := range cans {
		for k := range cols {
			rec[k] = safe(cols[k].write(&cans[i]))
		}
		if err := w.Write(rec); err != nil {
			return nil, err
		}
	}
	w.Flush()
	return b.Bytes(), w.Error()
}

func heading(s string) string {
	return strings.Join(strings.Fields(strings.ToLower(strings.NewReplacer("_", " ", "(", " ", ")", " ", "-", " ", ".", " ").Replace(s))), " ")
}

// ReadCans reads a file of cans: a heading that names at least their kind, and a row for each, separated by
// commas, semicolons or tabs, as UTF-8, UTF-16 or Latin-1, with decimal points or commas. Rows that cannot be
// used are refused by their line, and the others are used. An *Error says why nothing could be used at all.
func ReadCans(c *craft.Craft, data []byte) (*Cans, error) {
	if len(data) > MaxCansBytes {
		return nil, errorf("The file is larger than %d MB.", MaxCansBytes>>20)
	}
	text, err := Text(data)
	if err != nil {
		return nil, err
	}
	if strings.TrimSpace(text) == "" {
		return nil, errorf("The file is empty.")
	}
	if n := strings.Count(text, "\n"); n > MaxCanRows+1 {
		return nil, errorf("The file has %d rows; at most %d are read.", n, MaxCanRows)
	}
	n := 0
	for line := range strings.Lines(text) { // before they are taken apart
		if n++; len(line) > maxLine {
			return nil, errorf("Line %d is longer than %d characters.", n, maxLine)
		}
	}
	first, _, _ := strings.Cut(text, "\n")
	sep, cols, ok := headingOf(columns(c), first)
	if !ok {
		return nil, errorf("The first line, “%s”, is not a heading. It should name the columns, for example: name, kind, colour, size_l, left_l.", clip(strings.TrimSpace(first)))
	}
	r := csv.NewReader(strings.NewReader(text))
	r.Comma, r.FieldsPerRecord, r.LazyQuotes, r.ReuseRecord = sep, -1, false, true
	if _, err := r.Read(); err != nil {
		return nil, errorf("The first line cannot be read.")
	}
	out := &Cans{}
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
			out.NRefused++
			out.Refused = refuse(out.Refused, line, "the row cannot be read: a quotation mark is not closed")
			if line == 0 {
				break
			}
			continue
		}
		line, _ := r.FieldPos(0)
		x, empty, says := row(rec, cols)
		switch {
		case empty:
		case says != "":
			out.NRefused++
			out.Refused = refuse(out.Refused, line, says)
		default:
			out.Cans = append(out.Cans, x)
		}
	}
	if len(out.Cans) == 0 && len(out.Refused) > 0 {
		return nil, errorf("No row could be used. Line %d: %s.", out.Refused[0].Line, out.Refused[0].Says)
	}
	if len(out.Cans) == 0 {
		return nil, errorf("There is a heading but no row below it.")
	}
	return out, nil
}

// headingOf finds the separator under which the first line names a kind of product.
func headingOf(all []column, first string) (rune, []*column, bool) {
	for _, sep := range []rune{',', ';', '\t'} {
		r := csv.NewReader(strings.NewReader(first))
		r.Comma = sep
		rec, err := r.Read()
		if err != nil || len(rec) > maxColumns {
			continue
		}
		cols := make([]*column, len(rec))
		kind := false
		for i, h := range rec {
			h = heading(h)
			for k := range all {
				x := &all[k]
				if h != heading(x.name) && !slices.Contains(x.also, h) && !slices.Contains(x.also, strings.ReplaceAll(h, " ", "_")) || slices.Contains(cols[:i], x) {
					continue
				}
				cols[i] = x
				kind = kind || x.name == "kind"
				break
			}
		}
		if kind {
			return sep, cols, true
		}
	}
	return 0, nil, false
}

func row(rec []string, cols []*column) (x wire.Can, empty bool, says string) {
	empty = true
	for i, cell := range rec {
		cell = plain(strings.TrimSpace(cell))
		if cell == "" {
			continue
		}
		empty = false
		if i >= len(cols) {
			return x, false, fmt.Sprintf("it has %d cells but the heading has %d", len(rec), len(cols))
		}
		if cols[i] == nil {
			continue
		}
		if says := cols[i].read(&x, cell); says != "" {
			return x, false, says
		}
	}
	if empty {
		return x, true, ""
	}
	if x.Kind == "" {
		return x, false, "it has no kind of product"
	}
	if err := x.Check(); err != nil {
		return x, false, err.Error()
	}
	return x, false, ""
}
