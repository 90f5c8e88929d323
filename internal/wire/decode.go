package wire

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"
	"unicode/utf8"
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
	if len(data) > MaxBytes {
		return nil, &Error{Says: fmt.Sprintf("the file is larger than %d MB", MaxBytes>>20)}
	}
	doc, data, err := parse(data, "a piece file")
	if err != nil {
		return nil, err
	}
	if f, ok := doc["format"]; !ok {
		return nil, &Error{Path: "$.format", Says: "missing; a piece file says " + PieceFormat}
	} else if f != PieceFormat {
		return nil, &Error{Path: "$.format", Value: short(f), Says: "this is not a piece file; a piece file says " + PieceFormat}
	}
	if n, ok := doc["version"].(json.Number); ok {
		if v, err := n.Int64(); err == nil && v > Version {
			return nil, &Error{Path: "$.version", Value: n.String(), Says: fmt.Sprintf("written by a newer version of Rutile; this one reads up to version %d", Version)}
		}
	}
	var p Piece
	if err := fill(PieceObject, doc, data, &p); err != nil {
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
	doc, data, err := parse(data, "a change")
	if err != nil {
		return nil, nil, err
	}
	list, ok := doc["zones"].([]any)
	if !ok || len(doc) > 1 {
		return nil, nil, &Error{Path: "$.zones", Says: "a change is a list of zones, and nothing else"}
	}
	out := *was
	out.Zones = slices.Clone(was.Zones)
	var changed []int
	zone, zones := ObjectNamed("zone"), at{field: "zones"}
	for i, x := range list {
		m, _ := x.(map[string]any)
		id, _ := m["id"].(string)
		k := was.ZoneAt(id)
		if k < 0 || slices.Contains(changed, k) {
			return nil, nil, &Error{Path: fmt.Sprintf("$.zones[%d].id", i), Value: short(m["id"]), Says: "the piece has no such zone, or it is named twice"}
		}
		if err := valid(zone, x, &at{in: &zones, entry: true, index: k}); err != nil {
			return nil, nil, err
		}
		changed = append(changed, k)
	}
	var c Change
	if err := json.Unmarshal(data, &c); err != nil {
		return nil, nil, syntax(data, err)
	}
	for i, k := range changed {
		out.Zones[k] = c.Zones[i]
		if err := out.Zones[k].consistent(k); err != nil {
			return nil, nil, err
		}
	}
	if err := out.labelled(); err != nil {
		return nil, nil, err
	}
	return &out, changed, nil
}

// parse reads a JSON object of some kind, and returns it with its bytes.
func parse(data []byte, what string) (map[string]any, []byte, error) {
	if !utf8.Valid(data) {
		return nil, nil, &Error{Says: "the file is not UTF-8 text"}
	}
	data = bytes.TrimPrefix(data, []byte("\xef\xbb\xbf"))
	d := json.NewDecoder(bytes.NewReader(data))
	d.UseNumber()
	var doc any
	if err := d.Decode(&doc); err != nil {
		return nil, nil, syntax(data, err)
	}
	if _, err := d.Token(); !errors.Is(err, io.EOF) {
		return nil, nil, &Error{Says: "not valid JSON: there is something after its end"}
	}
	top, ok := doc.(map[string]any)
	if !ok {
		return nil, nil, &Error{Path: "$", Value: short(doc), Says: what + " is a JSON object"}
	}
	return top, data, nil
}

// fill reads a parsed document into a shape, once the table has nothing against it.
func fill(root string, doc map[string]any, data []byte, into any) error {
	if err := valid(ObjectNamed(root), doc, nil); err != nil {
		return err
	}
	if err := json.Unmarshal(data, into); err != nil {
		return syntax(data, err)
	}
	return nil
}

// Read reads a piece file from r, up to the largest size.
func Read(r io.Reader) (*Piece, error) {
	data, err := io.ReadAll(io.LimitReader(r, MaxBytes+1))
	if err != nil {
		return nil, &Error{Says: "it cannot be read: " + err.Error()}
	}
	return Decode(data)
}

func syntax(data []byte, err error) error {
	var se *json.SyntaxError
	var te *json.UnmarshalTypeError
	switch {
	case errors.As(err, &se):
		at := min(int(se.Offset), len(data))
		line := 1 + bytes.Count(data[:at], []byte("\n"))
		col := at - bytes.LastIndexByte(data[:at], '\n')
		return &Error{Says: fmt.Sprintf("not valid JSON at line %d, column %d: %s", line, max(1, col-1), strings.TrimPrefix(se.Error(), "json: "))}
	case errors.As(err, &te):
		return &Error{Path: "$." + te.Field, Value: te.Value, Says: "this does not fit here"}
	case errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF):
		return &Error{Says: "not valid JSON: it ends too early"}
	}
	return &Error{Says: "not valid JSON: " + err.Error()}
}

const shown = 40

// Clip cuts a text to what can be shown in one line.
func Clip(s string) string {
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

// short is a value as JSON, cut to a readable length.
func short(v any) string {
	if v == nil {
		return "null"
	}
	var b bytes.Buffer
	enc := json.NewEncoder(&b)
	enc.SetEscapeHTML(false)
	if enc.Encode(v) != nil {
		return ""
	}
	return Clip(strings.TrimSpace(b.String()))
}
