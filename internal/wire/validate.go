package wire

import (
	"encoding/json"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"
)

// at is a place in a document: a field or an entry of a list, and where that lies. It is put into
// words only where something is wrong there.
type at struct {
	in    *at // nil at the top
	field string
	entry bool // an entry of a list, and not a field
	index int
}

// path is the place as a JSON path.
func (a *at) path() string {
	switch {
	case a == nil:
		return "$"
	case a.entry:
		return fmt.Sprintf("%s[%d]", a.in.path(), a.index)
	}
	return a.in.path() + "." + Clip(a.field)
}

func wrong(a *at, value any, says string) error {
	return &Error{Path: a.path(), Value: short(value), Says: says}
}

// valid tells what the table of fields has against a parsed object, as an *Error; nil where that is
// nothing. It says the same as the published schema, which a test holds it to, in words that
// name the place.
func valid(o *Object, doc any, here *at) error {
	m, ok := doc.(map[string]any)
	if !ok {
		return wrong(here, doc, "expected object")
	}
	fields, of := o.Fields, ""
	if o.By != "" {
		by := o.Field(o.By)
		id, there := m[o.By]
		if !there {
			return &Error{Path: (&at{in: here, field: o.By}).path(), Says: "missing"}
		}
		if err := by.valid(id, &at{in: here, field: o.By}); err != nil {
			return err
		}
		of = id.(string) // the ids of the field are texts
		v := slices.IndexFunc(o.Variants, func(v Variant) bool { return v.ID == of })
		fields = o.Variants[v].Fields
	}
	known := 0
	for i := range fields {
		f := &fields[i]
		x, there := m[f.Name]
		place := at{in: here, field: f.Name}
		switch {
		case there:
			known++
			if err := f.valid(x, &place); err != nil {
				return err
			}
		case f.Must:
			return &Error{Path: place.path(), Says: "missing"}
		}
	}
	if o.By != "" {
		known++
	}
	if known < len(m) {
		return o.unknown(fields, of, m, here)
	}
	return nil
}

// unknown names the first field of an object that the table does not have.
func (o *Object) unknown(fields []Field, of string, m map[string]any, here *at) error {
	var names []string
	for name := range m {
		if (o.By == "" || name != o.By) && !slices.ContainsFunc(fields, func(f Field) bool { return f.Name == name }) {
			names = append(names, name)
		}
	}
	e := &Error{Path: (&at{in: here, field: slices.Min(names)}).path(), Says: "there is no such field"}
	if of != "" {
		e.Says = fmt.Sprintf("a %s that does %s has no such field", o.Name, of)
	}
	return e
}

// valid tells what a field has against a value.
func (f *Field) valid(x any, here *at) error {
	if f.Fixed != nil {
		if fmt.Sprint(x) != fmt.Sprint(f.Fixed) || (f.Kind == Text) != isText(x) {
			return wrong(here, x, "expected "+short(f.Fixed))
		}
		return nil
	}
	switch f.Kind {
	case Number, Whole:
		return f.validNumber(x, here)
	case Truth:
		if _, ok := x.(bool); !ok {
			return wrong(here, x, "expected boolean")
		}
	case Ref:
		return valid(ObjectNamed(f.Object), x, here)
	case List:
		list, ok := x.([]any)
		if !ok {
			return wrong(here, x, "expected array")
		}
		if len(list) > f.MaxLen {
			return &Error{here.path(), fmt.Sprintf("%d entries", len(list)), fmt.Sprintf("too many, at most %d", f.MaxLen)}
		}
		for i := range list {
			if err := f.Of.valid(list[i], &at{in: here, entry: true, index: i}); err != nil {
				return err
			}
		}
	default:
		return f.validText(x, here)
	}
	return nil
}

func isText(x any) bool { _, ok := x.(string); return ok }

func (f *Field) validNumber(x any, here *at) error {
	n, ok := x.(json.Number)
	kind := "number"
	if f.Kind == Whole {
		kind = "integer"
	}
	if !ok {
		return wrong(here, x, "expected "+kind)
	}
	// What is beyond all numbers is infinite here, and so too large.
	v, _ := strconv.ParseFloat(string(n), 64)
	if f.Kind == Whole && strings.ContainsAny(string(n), ".eE") {
		return wrong(here, x, "expected "+kind)
	}
	switch {
	case f.Open && v <= f.Least:
		return wrong(here, x, "too small, more than "+plain(f.Least))
	case v < f.Least:
		return wrong(here, x, "too small, at least "+plain(f.Least))
	case v > f.Most:
		return wrong(here, x, "too large, at most "+plain(f.Most))
	}
	return nil
}

func (f *Field) validText(x any, here *at) error {
	s, ok := x.(string)
	if of := f.ids(); len(of) > 0 {
		if ok && slices.Contains(of, s) {
			return nil
		}
		says := "not a known id"
		if near := nearest(x, of); near != "" {
			says += "; did you mean " + near + "?"
		} else if len(of) <= fewIDs {
			says += "; known are " + strings.Join(of, ", ")
		}
		return wrong(here, x, says)
	}
	switch n := utf8.RuneCountInString(s); {
	case !ok:
		return wrong(here, x, "expected string")
	case n < f.MinLen:
		return wrong(here, x, "empty")
	case f.MaxLen > 0 && n > f.MaxLen:
		return &Error{here.path(), fmt.Sprintf("%d characters", n), fmt.Sprintf("too long, at most %d", f.MaxLen)}
	case f.Form != nil && !f.Form.re.MatchString(s):
		return wrong(here, x, "not in the form "+f.Form.Says)
	}
	return nil
}

// ids are those that the field may hold; none where it is free.
func (f *Field) ids() []string {
	if len(f.Choices) > 0 {
		return f.Choices
	}
	return f.IDs
}

// nearest is the id of want that a mistyped id probably meant.
func nearest(got any, want []string) string {
	s, ok := got.(string)
	if !ok || len(s) > shown {
		return ""
	}
	best, dist := "", 3
	for _, ws := range want {
		d := edits(s, ws)
		if d == 2 && (s == "" || s[0] != ws[0]) {
			continue // moon is no slip for food
		}
		if d < dist && d < len(ws) {
			best, dist = ws, d
		}
	}
	return best
}

// edits is the Levenshtein distance.
func edits(a, b string) int {
	row := make([]int, len(b)+1)
	for j := range row {
		row[j] = j
	}
	for i := 1; i <= len(a); i++ {
		diag := row[0]
		row[0] = i
		for j := 1; j <= len(b); j++ {
			cost := 1
			if a[i-1] == b[j-1] {
				cost = 0
			}
			diag, row[j] = row[j], min(row[j]+1, row[j-1]+1, diag+cost)
		}
	}
	return row[len(b)]
}
