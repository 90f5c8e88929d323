package wire

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"strconv"
	"strings"
	"unicode/utf8"

	"github.com/go-json-experiment/json/jsontext"
)

// Limits on any JSON document, whatever it is for. They are held while it is scanned, before anything
// of it is kept. The largest piece that the table of fields allows stays within them.
const (
	maxValues = 700_000 // objects, lists and what is in them
	maxDepth  = 16
	maxFields = 100      // of one object
	maxKey    = 100      // bytes of a field's name
	maxString = 32 << 10 // bytes of a text as it is written: the longest note, every character escaped
	maxNumber = 32       // characters of a number
	maxPower  = 3        // digits of an exponent
)

// scanned is a document that keeps the limits, with no field twice in one object.
type scanned struct {
	data            []byte
	format, version jsontext.Value // of its top object; nil where it has none
}

// scan goes once through a document, keeping nothing of it. what names the kind of document.
func scan(data []byte, what string) (*scanned, error) {
	if !utf8.Valid(data) {
		return nil, &Error{Says: "the file is not UTF-8 text"}
	}
	s := &scanned{data: bytes.TrimPrefix(data, []byte("\xef\xbb\xbf"))}
	d := jsontext.NewDecoder(bytes.NewBuffer(s.data))
	var top string // the field of the top object that is being read
	for n := 0; ; {
		kind := d.PeekKind()
		if n > 0 && d.StackDepth() == 0 && kind != 0 {
			return nil, &Error{Says: "not valid JSON: there is something after its end"}
		}
		if kind == '[' || kind == '{' {
			if d.StackDepth() >= maxDepth {
				return nil, &Error{Path: stackPath(d, ""), Says: fmt.Sprintf("nested more than %d deep", maxDepth)}
			}
		}
		if n > maxValues {
			return nil, &Error{Path: stackPath(d, ""), Says: fmt.Sprintf("the file has more than %d values", maxValues)}
		}
		isKey := atKey(d)
		if _, in := d.StackIndex(d.StackDepth()); isKey && in > 2*maxFields {
			return nil, &Error{Path: pathOf(d, d.StackPointer().Parent(), ""), Says: fmt.Sprintf("an object with more than %d fields", maxFields)}
		}
		before := d.InputOffset()
		tok, err := d.ReadToken()
		if err != nil {
			if n > 0 && d.StackDepth() == 0 && errors.Is(err, io.EOF) {
				return s, nil
			}
			return nil, syntax(s.data, d, err)
		}
		if n == 0 && kind != '{' { // the first value
			return nil, &Error{Path: "$", Value: short(bytes.TrimSpace(s.data[before:])), Says: what + " is a JSON object"}
		}
		if !isKey && kind != '}' && kind != ']' {
			n++
		}
		length := int(d.InputOffset() - before)
		switch kind {
		case '"':
			if isKey && length > maxKey+2 || length > maxString {
				// The text between two tokens counts, too: space, a comma and a colon.
				raw := bytes.TrimLeft(s.data[before:d.InputOffset()], " \t\r\n,:")
				most, of := maxString, "text"
				if isKey {
					most, of = maxKey, "name of a field"
				}
				if len(raw) > most+2 {
					return nil, &Error{stackPath(d, ""), fmt.Sprintf("%d bytes", len(raw)-2), fmt.Sprintf("too long a %s, at most %d", of, most)}
				}
			}
			if isKey && d.StackDepth() == 1 {
				top = tok.String()
			}
		case '0':
			if x := tok.String(); unfit(x) {
				return nil, &Error{stackPath(d, ""), Clip(x), fmt.Sprintf("too long a number: at most %d characters, and an exponent of at most %d digits", maxNumber, maxPower)}
			}
		}
		if !isKey && d.StackDepth() == 1 && (kind == '"' || kind == '0') {
			switch raw := jsontext.Value(bytes.TrimLeft(s.data[before:d.InputOffset()], " \t\r\n,:")); top {
			case "format":
				s.format = raw
			case "version":
				s.version = raw
			}
		}
	}
}

// unfit tells whether a number is longer than any that is needed: what is done with it later may
// take time and memory by its size.
func unfit(x string) bool {
	i := strings.IndexAny(x, "eE")
	return len(x) > maxNumber || i >= 0 && len(strings.TrimLeft(x[i+1:], "+-")) > maxPower
}

// atKey tells whether what comes next is the name of a field.
func atKey(d *jsontext.Decoder) bool {
	kind, n := d.StackIndex(d.StackDepth())
	return kind == '{' && n%2 == 0
}

// stackPath is where a decoder is, as a JSON path, with one more field behind it if it has a name.
func stackPath(d *jsontext.Decoder, field string) string {
	return pathOf(d, d.StackPointer(), field)
}

// pathOf writes a pointer to a place that the decoder is in as a JSON path.
func pathOf(d *jsontext.Decoder, p jsontext.Pointer, field string) string {
	var b strings.Builder
	b.WriteByte('$')
	level := 0
	for tok := range p.Tokens() {
		level++
		kind := jsontext.Kind('{')
		if level <= d.StackDepth() {
			kind, _ = d.StackIndex(level)
		}
		if kind == '[' {
			fmt.Fprintf(&b, "[%s]", tok)
		} else {
			b.WriteString("." + Clip(tok))
		}
	}
	if field != "" {
		b.WriteString("." + Clip(field))
	}
	return b.String()
}

// syntax says in a sentence why a document cannot be read, and where.
func syntax(data []byte, d *jsontext.Decoder, err error) error {
	var se *jsontext.SyntacticError
	switch {
	case errors.Is(err, io.EOF), errors.Is(err, io.ErrUnexpectedEOF):
		return &Error{Says: "not valid JSON: it ends too early"}
	case !errors.As(err, &se):
		return &Error{Says: "not valid JSON: " + err.Error()}
	case errors.Is(err, jsontext.ErrDuplicateName):
		return &Error{Path: pathOf(d, se.JSONPointer, ""), Says: "this field is given twice; keep one of the two"}
	}
	at := min(int(se.ByteOffset), len(data))
	line := 1 + bytes.Count(data[:at], []byte("\n"))
	col := at - bytes.LastIndexByte(data[:at], '\n')
	return &Error{Says: "not valid JSON at line " + strconv.Itoa(line) + ", column " + strconv.Itoa(max(1, col)) + ": " + Clip(se.Err.Error())}
}
