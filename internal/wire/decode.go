package wire

import (
	"cmp"
	"fmt"
	"io"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"github.com/go-json-experiment/json/jsontext"
)

// Error is what is wrong with an input, and where.
type Error struct {
	Path  string // JSON path, as $.zones[0].area_m2; empty for the file as a whole
	Value string // what stands there, shortened; empty where nothing does
	Says  string // one clear clause
}

// Error returns the path, the value and what is wrong, in one line.
func (e *Error) Error() string {
	s := e.Says
	if e.Value != "" {
		s = e.Value + ": " + s
	}
	if e.Path != "" {
		s = e.Path + ": " + s
	}
	return s
}

// Decode reads a piece file. The error, if any, is an *Error.
func Decode(data []byte) (*Piece, error) {
	p, err := DecodeStored(data)
	if err == nil {
		err = p.dated()
	}
	if err != nil {
		return nil, err
	}
	return p, nil
}

// DecodeStored reads a piece that was kept, perhaps by an earlier version, which took dates as they
// came: here they need not exist. The error, if any, is an *Error.
func DecodeStored(data []byte) (*Piece, error) {
	if len(data) > MaxBytes {
		return nil, tooLarge()
	}
	doc, err := scan(data, "a piece file")
	if err != nil {
		return nil, err
	}
	if doc.format == nil {
		return nil, &Error{Path: "$.format", Says: "missing; a piece file says " + PieceFormat}
	} else if string(doc.format) != strconv.Quote(PieceFormat) {
		return nil, &Error{Path: "$.format", Value: short(doc.format), Says: "this is not a piece file; a piece file says " + PieceFormat}
	}
	if v, err := strconv.Atoi(string(doc.version)); err == nil && v > Version {
		return nil, &Error{Path: "$.version", Value: string(doc.version), Says: fmt.Sprintf("written by a newer version of Rutile; this one reads up to version %d", Version)}
	}
	var p Piece
	if err := doc.fill(PieceObject, &p); err != nil {
		return nil, err
	}
	if err := p.consistent(); err != nil {
		return nil, err
	}
	return &p, nil
}

// Change is zones of a piece that have changed, instead of the whole piece.
type Change struct {
	Zones []Zone `json:"zones"`
}

// DecodeChange reads zones that have changed and puts them into a copy of a piece that was decoded
// before. It returns the copy and the indices of the zones. The error, if any, is an *Error
// with the path that it would have in the piece.
func DecodeChange(data []byte, was *Piece) (*Piece, []int, error) {
	if len(data) > MaxBytes {
		return nil, nil, tooLarge()
	}
	doc, err := scan(data, "a change")
	if err != nil {
		return nil, nil, err
	}
	out := *was
	out.Zones = slices.Clone(was.Zones)
	r := newReader(doc.data)
	changed, err := r.change(&out)
	if err != nil {
		return nil, nil, err
	}
	for _, k := range changed {
		if err := cmp.Or(out.Zones[k].consistent(k), out.Zones[k].dated(k)); err != nil {
			return nil, nil, err
		}
	}
	if err := cmp.Or(out.labelled(), out.canned()); err != nil {
		return nil, nil, err
	}
	return &out, changed, nil
}

// change reads zones into a piece that has zones of their ids, and returns their indices.
func (r *reader) change(p *Piece) ([]int, error) {
	wrongForm := &Error{Path: "$.zones", Says: "a change is a list of zones, and nothing else"}
	_, _ = r.d.ReadToken()
	if key, err := r.d.ReadToken(); err != nil || key.Kind() != '"' || key.String() != "zones" || r.d.PeekKind() != '[' {
		return nil, wrongForm
	}
	_, _ = r.d.ReadToken()
	var changed []int
	zones := at{field: "zones"}
	for i := 0; r.d.PeekKind() != ']'; i++ {
		v, err := r.value(&zones)
		if err != nil {
			return nil, err
		}
		var id jsontext.Value
		if v.Kind() == '{' {
			id = r.member(v, "id")
		}
		k := -1
		if name, err := (&Field{}).text(id, nil); err == nil {
			k = p.ZoneAt(name)
		}
		if k < 0 || slices.Contains(changed, k) {
			return nil, &Error{Path: fmt.Sprintf("$.zones[%d].id", i), Value: short(id), Says: "the piece has no such zone, or it is named twice"}
		}
		var z Zone
		if err := r.within(v).object(bounds()["zone"], reflect.ValueOf(&z).Elem(), &at{in: &zones, entry: true, index: k}); err != nil {
			return nil, err
		}
		p.Zones[k] = z
		changed = append(changed, k)
	}
	if _, err := r.d.ReadToken(); err != nil || r.d.PeekKind() != '}' {
		return nil, wrongForm
	}
	return changed, nil
}

// fill reads the document as an object of the table into its Go type.
func (s *scanned) fill(object string, into any) error {
	return newReader(s.data).object(bounds()[object], reflect.ValueOf(into).Elem(), nil)
}

func tooLarge() error {
	return &Error{Says: fmt.Sprintf("the file is larger than %d MB", MaxBytes>>20)}
}

// Read reads a piece file from r, up to the largest size.
func Read(r io.Reader) (*Piece, error) {
	data, err := io.ReadAll(io.LimitReader(r, MaxBytes+1))
	if err != nil {
		return nil, &Error{Says: "it cannot be read: " + err.Error()}
	}
	return Decode(data)
}

// shown is how many characters of a value are shown, and enough how many bytes that may take.
const (
	shown  = 40
	enough = 4 * (shown + 1)
)

// Clip cuts a text to what can be shown in one line.
func Clip(s string) string {
	if len(s) > enough {
		s = strings.ToValidUTF8(s[:enough], "") + "…"
	}
	s = strings.Map(func(r rune) rune {
		if r < ' ' || r == 0x7f {
			return ' '
		}
		return r
	}, s)
	if utf8.RuneCountInString(s) > shown {
		return string([]rune(s)[:shown]) + "…"
	}
	return s
}

// short is a value as it is written, cut to a readable length; null where there is none.
func short(v jsontext.Value) string {
	if v == nil {
		return "null"
	}
	return Clip(string(v[:min(len(v), enough+1)]))
}

// jsonOf writes a text or a number of the table.
func jsonOf(x any) jsontext.Value {
	if s, ok := x.(string); ok {
		return jsontext.Value(strconv.Quote(s))
	}
	return jsontext.Value(fmt.Sprint(x))
}
