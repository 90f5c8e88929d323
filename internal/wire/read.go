package wire

import (
	"bytes"
	"fmt"
	"math/bits"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"sync"
	"unicode/utf8"

	"github.com/go-json-experiment/json/jsontext"
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

func wrong(a *at, value jsontext.Value, says string) error {
	return &Error{Path: a.path(), Value: short(value), Says: says}
}

// reader reads a scanned document into Go types. The table of fields says what may be where: what
// it has nothing against is what the type then holds, because it is read only once.
type reader struct {
	data  []byte
	d     *jsontext.Decoder
	inner *reader // for objects that must be looked through before they are read
}

func newReader(data []byte) *reader {
	return &reader{data: data, d: jsontext.NewDecoder(bytes.NewBuffer(data), scannedBefore)}
}

var scannedBefore = jsontext.AllowDuplicateNames(true) // scanning has refused them

// within is a reader of a value of this one. There is one at a time.
func (r *reader) within(v jsontext.Value) *reader {
	if r.inner == nil {
		r.inner = newReader(v)
	} else {
		r.inner.data = v
		r.inner.d.Reset(bytes.NewBuffer(v), scannedBefore)
	}
	return r.inner
}

// unread tells of an error of the decoder, which scanning should have found.
func unread(here *at, err error) error {
	return &Error{Path: here.path(), Says: "it cannot be read: " + err.Error()}
}

// value returns what comes next as it is written. It is valid until the next one is read.
func (r *reader) value(here *at) (jsontext.Value, error) {
	v, err := r.d.ReadValue()
	if err != nil {
		return nil, unread(here, err)
	}
	return v, nil
}

// member finds a field of an object as it is written; nil where it has none.
func (r *reader) member(of jsontext.Value, name string) jsontext.Value {
	in := r.within(of)
	if _, err := in.d.ReadToken(); err != nil {
		return nil
	}
	for in.d.PeekKind() == '"' {
		key, err := in.d.ReadToken()
		if err != nil {
			return nil
		}
		found := key.String() == name
		v, err := in.d.ReadValue()
		if err != nil {
			return nil
		}
		if found {
			return v
		}
	}
	return nil
}

// first is what the first field of the object that comes next holds, where that is a plain text and the
// field has a name: so are objects written that Rutile wrote.
func (r *reader) first(name string) string {
	const space = " \t\r\n"
	d := bytes.TrimLeft(r.data[r.d.InputOffset():], space+",:")
	for _, s := range []string{"{", strconv.Quote(name), ":", `"`} {
		rest, ok := bytes.CutPrefix(bytes.TrimLeft(d, space), []byte(s))
		if !ok {
			return ""
		}
		d = rest
	}
	n := bytes.IndexAny(d[:min(len(d), shown)], `"\\`)
	if n < 0 || d[n] != '"' {
		return ""
	}
	return string(d[:n])
}

// object reads an object of the table. It says the same as the published schema, which a test holds
// it to, in words that name the place.
func (r *reader) object(b *bound, into reflect.Value, here *at) error {
	if r.d.PeekKind() != '{' {
		v, err := r.value(here)
		if err != nil {
			return err
		}
		return wrong(here, v, "expected object")
	}
	if b.Object.By == "" {
		return r.fields(b, &b.fields, into, here)
	}
	by := &b.fields.list[b.fields.named[b.Object.By]]
	if v := b.variants[r.first(by.Name)]; v != nil {
		return r.fields(b, v, into, here)
	}
	all, err := r.value(here)
	if err != nil {
		return err
	}
	place := at{in: here, field: by.Name}
	id := r.member(all, by.Name)
	if id == nil {
		return &Error{Path: place.path(), Says: "missing"}
	}
	of, err := by.text(id, &place)
	if err != nil {
		return err
	}
	return r.within(all).fields(b, b.variants[of], into, here)
}

// fields reads the fields of an object, of which those that must be there are marked as they come.
func (r *reader) fields(b *bound, known *boundFields, into reflect.Value, here *at) error {
	if _, err := r.d.ReadToken(); err != nil {
		return unread(here, err)
	}
	var there uint64
	for r.d.PeekKind() == '"' {
		key, err := r.d.ReadToken()
		if err != nil {
			return unread(here, err)
		}
		name := key.String()
		i, ok := known.named[name]
		if !ok {
			e := &Error{Path: (&at{in: here, field: name}).path(), Says: "there is no such field"}
			if known.of != "" {
				e.Says = fmt.Sprintf("a %s that does %s has no such field", b.Object.Name, known.of)
			}
			return e
		}
		there |= 1 << i
		f := &known.list[i]
		if err := r.field(f.Field, into.Field(f.index), &at{in: here, field: f.Field.Name}); err != nil {
			return err
		}
	}
	if _, err := r.d.ReadToken(); err != nil {
		return unread(here, err)
	}
	if missing := known.must &^ there; missing != 0 {
		return &Error{Path: (&at{in: here, field: known.list[bits.TrailingZeros64(missing)].Name}).path(), Says: "missing"}
	}
	return nil
}

// field reads what a field holds.
func (r *reader) field(f *Field, into reflect.Value, here *at) error {
	if into.Kind() == reflect.Pointer {
		into.Set(reflect.New(into.Type().Elem()))
		into = into.Elem()
	}
	switch {
	case f.Kind == Ref:
		return r.object(bounds()[f.Object], into, here)
	case f.Kind == List:
		return r.list(f, into, here)
	}
	v, err := r.value(here)
	if err != nil {
		return err
	}
	if f.Fixed != nil && string(v) != short(jsonOf(f.Fixed)) {
		return wrong(here, v, "expected "+short(jsonOf(f.Fixed)))
	}
	switch f.Kind {
	case Number, Whole:
		x, err := f.number(v, here)
		if err != nil {
			return err
		}
		if f.Kind == Whole {
			into.SetInt(int64(x))
		} else {
			into.SetFloat(x)
		}
	case Truth:
		if v.Kind() != 't' && v.Kind() != 'f' {
			return wrong(here, v, "expected boolean")
		}
		into.SetBool(v.Kind() == 't')
	default:
		s, err := f.text(v, here)
		if err != nil {
			return err
		}
		into.SetString(s)
	}
	return nil
}

// list reads a list, and nothing of it beyond what it may hold.
func (r *reader) list(f *Field, into reflect.Value, here *at) error {
	if r.d.PeekKind() != '[' {
		v, err := r.value(here)
		if err != nil {
			return err
		}
		return wrong(here, v, "expected array")
	}
	if _, err := r.d.ReadToken(); err != nil {
		return unread(here, err)
	}
	into.Set(reflect.MakeSlice(into.Type(), 0, min(f.MaxLen, 4)))
	n := 0
	for ; r.d.PeekKind() != ']'; n++ {
		place := at{in: here, entry: true, index: n}
		if n >= f.MaxLen {
			if err := r.d.SkipValue(); err != nil {
				return unread(&place, err)
			}
			continue
		}
		into.Grow(1)
		into.SetLen(n + 1)
		if err := r.field(f.Of, into.Index(n), &place); err != nil {
			return err
		}
	}
	if n > f.MaxLen {
		return &Error{here.path(), fmt.Sprintf("%d entries", n), fmt.Sprintf("too many, at most %d", f.MaxLen)}
	}
	if _, err := r.d.ReadToken(); err != nil {
		return unread(here, err)
	}
	return nil
}

// number is a number of a field.
func (f *Field) number(v jsontext.Value, here *at) (float64, error) {
	kind := "number"
	if f.Kind == Whole {
		kind = "integer"
	}
	if v.Kind() != '0' || f.Kind == Whole && bytes.ContainsAny(v, ".eE") {
		return 0, wrong(here, v, "expected "+kind)
	}
	// What is beyond all numbers is infinite here, and so too large.
	x, _ := strconv.ParseFloat(string(v), 64)
	switch {
	case f.Fixed != nil:
	case f.Open && x <= f.Least:
		return 0, wrong(here, v, "too small, more than "+plain(f.Least))
	case x < f.Least:
		return 0, wrong(here, v, "too small, at least "+plain(f.Least))
	case x > f.Most:
		return 0, wrong(here, v, "too large, at most "+plain(f.Most))
	}
	return x, nil
}

// text is a text of a field.
func (f *Field) text(v jsontext.Value, here *at) (string, error) {
	s, ok := "", v.Kind() == '"'
	if ok {
		b, err := jsontext.AppendUnquote(nil, v)
		if err != nil {
			return "", wrong(here, v, "expected string")
		}
		s = string(b)
	}
	if f.Fixed != nil {
		return s, nil
	}
	if of := f.ids(); len(of) > 0 {
		if i := slices.Index(of, s); ok && i >= 0 {
			return of[i], nil
		}
		says := "not a known id"
		if near := nearest(s, of); ok && near != "" {
			says += "; did you mean " + near + "?"
		} else if len(of) <= fewIDs {
			says += "; known are " + strings.Join(of, ", ")
		}
		return "", wrong(here, v, says)
	}
	switch n := utf8.RuneCountInString(s); {
	case !ok:
		return "", wrong(here, v, "expected string")
	case n < f.MinLen:
		return "", wrong(here, v, "empty")
	case f.MaxLen > 0 && n > f.MaxLen:
		return "", &Error{here.path(), fmt.Sprintf("%d characters", n), fmt.Sprintf("too long, at most %d", f.MaxLen)}
	case f.Form != nil && !f.Form.Fits(s):
		return "", wrong(here, v, "not in the form "+f.Form.Says)
	}
	return s, nil
}

// bound is an object of the table with where its fields are in its Go type.
type bound struct {
	*Object
	fields   boundFields
	variants map[string]*boundFields // of an object with variants, by their ids
}

type boundFields struct {
	of    string // the variant that has them; empty for an object without variants
	list  []boundField
	named map[string]int // places in the list
	must  uint64         // bits of those that must be there
}

type boundField struct {
	*Field
	index int // of the field in the Go type
}

// bounds are the objects of the table by their names.
var bounds = sync.OnceValue(func() map[string]*bound {
	all := Objects()
	out := make(map[string]*bound, len(all))
	for i := range all {
		out[all[i].Name] = boundOf(&all[i], Shapes[all[i].Name])
	}
	return out
})

// boundOf finds the fields of an object in its Go type.
func boundOf(o *Object, shape reflect.Type) *bound {
	index := map[string]int{}
	for k := range shape.NumField() {
		name, _, _ := strings.Cut(shape.Field(k).Tag.Get("json"), ",")
		index[name] = k
	}
	of := func(lists ...[]Field) *boundFields {
		b := &boundFields{named: map[string]int{}}
		for _, fields := range lists {
			for k := range fields {
				f := &fields[k]
				if f.Must {
					b.must |= 1 << len(b.list)
				}
				b.named[f.Name] = len(b.list)
				b.list = append(b.list, boundField{f, index[f.Name]})
			}
		}
		return b
	}
	b := &bound{Object: o, fields: *of(o.Fields), variants: map[string]*boundFields{}}
	for k := range o.Variants {
		v := of(o.Fields, o.Variants[k].Fields)
		v.of = o.Variants[k].ID
		b.variants[v.of] = v
	}
	return b
}

// ids are those that the field may hold; none where it is free.
func (f *Field) ids() []string {
	if len(f.Choices) > 0 {
		return f.Choices
	}
	return f.IDs
}

// nearest is the id of want that a mistyped id probably meant.
func nearest(s string, want []string) string {
	if len(s) > shown {
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
