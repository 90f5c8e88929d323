package wire

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math/big"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/santhosh-tekuri/jsonschema/v6/kind"
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
		return nil, &Error{Path: "$.format", Value: short(f), Says: "this is not a piece file, which says " + PieceFormat}
	}
	if n, ok := doc["version"].(json.Number); ok {
		if v, err := n.Int64(); err == nil && v > Version {
			return nil, &Error{Path: "$.version", Value: n.String(), Says: fmt.Sprintf("written by a newer Rutile; this one reads up to version %d", Version)}
		}
	}
	var p Piece
	if err := fill(pieceSchema(), doc, data, &p); err != nil {
		return nil, err
	}
	if err := p.consistent(); err != nil {
		return nil, err
	}
	return &p, nil
}

// parse reads a JSON object of some kind, and returns it with its bytes.
func parse(data []byte, what string) (map[string]any, []byte, error) {
	if !utf8.Valid(data) {
		return nil, nil, &Error{Says: "the file is not UTF-8 text"}
	}
	data = bytes.TrimPrefix(data, []byte("\xef\xbb\xbf"))
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(data))
	if err != nil {
		return nil, nil, syntax(data, err)
	}
	top, ok := doc.(map[string]any)
	if !ok {
		return nil, nil, &Error{Path: "$", Value: short(doc), Says: what + " is a JSON object"}
	}
	return top, data, nil
}

// fill reads a parsed document into a shape, once its schema has nothing against it.
func fill(schema *jsonschema.Schema, doc map[string]any, data []byte, into any) error {
	if err := schema.Validate(doc); err != nil {
		return fromSchema(doc, err)
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

// fromSchema turns a schema's verdict into one sentence about the first thing
// that is wrong.
func fromSchema(doc any, err error) error {
	var ve *jsonschema.ValidationError
	if !errors.As(err, &ve) {
		return &Error{Says: err.Error()}
	}
	leaf := deepest(ve)
	path := leaf.InstanceLocation
	e := &Error{Path: jsonPath(doc, path)}
	here := at(doc, path)
	e.Value = short(here)
	switch k := leaf.ErrorKind.(type) {
	case *kind.AdditionalProperties:
		e.Path = jsonPath(doc, append(slices.Clone(path), k.Properties[0]))
		e.Value = ""
		e.Says = "there is no such field"
		if len(path) > 1 && path[len(path)-2] == "steps" {
			if o, ok := here.(map[string]any); ok {
				e.Says = fmt.Sprintf("a step that does %v has no such field", o["do"])
			}
		}
	case *kind.Required:
		e.Path = jsonPath(doc, append(slices.Clone(path), k.Missing[0]))
		e.Value = ""
		e.Says = "missing"
	case *kind.Enum:
		e.Says = "not a known id"
		if near := nearest(here, k.Want); near != "" {
			e.Says += "; did you mean " + near + "?"
		} else if len(k.Want) <= 8 {
			e.Says += "; known are " + words(k.Want)
		}
	case *kind.Const:
		e.Says = "expected " + short(k.Want)
	case *kind.Type:
		e.Says = "expected " + strings.Join(k.Want, " or ")
	case *kind.Minimum:
		e.Says = "too small, at least " + rat(k.Want)
	case *kind.ExclusiveMinimum:
		e.Says = "too small, more than " + rat(k.Want)
	case *kind.Maximum:
		e.Says = "too large, at most " + rat(k.Want)
	case *kind.MaxItems:
		e.Value = fmt.Sprintf("%d entries", k.Got)
		e.Says = fmt.Sprintf("too many, at most %d", k.Want)
	case *kind.MaxLength:
		e.Value = fmt.Sprintf("%d characters", k.Got)
		e.Says = fmt.Sprintf("too long, at most %d", k.Want)
	case *kind.MinLength:
		e.Says = "nothing stands here"
	case *kind.Pattern:
		e.Says = "not in the form " + patternWords(k.Want)
	default:
		e.Says = leaf.Error()
	}
	return e
}

func patternWords(pattern string) string {
	for _, f := range forms {
		if f.Pattern == pattern {
			return f.Says
		}
	}
	return pattern
}

func rat(r *big.Rat) string {
	f, _ := r.Float64()
	return strconv.FormatFloat(f, 'g', 6, 64)
}

// deepest is the first error that no other explains.
func deepest(ve *jsonschema.ValidationError) *jsonschema.ValidationError {
	for len(ve.Causes) > 0 {
		next := ve.Causes[0]
		for _, c := range ve.Causes[1:] {
			if len(c.InstanceLocation) > len(next.InstanceLocation) {
				next = c
			}
		}
		ve = next
	}
	return ve
}

func at(doc any, path []string) any {
	for _, p := range path {
		switch d := doc.(type) {
		case map[string]any:
			doc = d[p]
		case []any:
			i, err := strconv.Atoi(p)
			if err != nil || i < 0 || i >= len(d) {
				return nil
			}
			doc = d[i]
		}
	}
	return doc
}

func jsonPath(doc any, path []string) string {
	var b strings.Builder
	b.WriteByte('$')
	for _, p := range path {
		switch d := doc.(type) {
		case []any:
			fmt.Fprintf(&b, "[%s]", p)
			if i, err := strconv.Atoi(p); err == nil && i < len(d) {
				doc = d[i]
			}
		case map[string]any:
			b.WriteByte('.')
			b.WriteString(Clip(p))
			doc = d[p]
		default:
			b.WriteByte('.')
			b.WriteString(Clip(p))
		}
	}
	return b.String()
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

func words(want []any) string {
	var w []string
	for _, x := range want {
		w = append(w, fmt.Sprint(x))
	}
	return strings.Join(w, ", ")
}

// nearest is the id of want that a mistyped id probably meant.
func nearest(got any, want []any) string {
	s, ok := got.(string)
	if !ok || len(s) > shown {
		return ""
	}
	best, dist := "", 3
	for _, w := range want {
		ws, ok := w.(string)
		if !ok {
			continue
		}
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
