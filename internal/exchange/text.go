// Package exchange reads and writes the formats that others use: cans of a shelf as CSV, and palettes of
// colours as GIMP's .gpl.
package exchange

import (
	"bytes"
	"fmt"
	"unicode/utf8"

	"golang.org/x/text/encoding"
	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"
)

// Error is what is wrong with a file as a whole, as a sentence.
type Error struct{ Says string }

// Error returns the sentence.
func (e *Error) Error() string { return e.Says }

func errorf(format string, args ...any) error { return &Error{fmt.Sprintf(format, args...)} }

// Text is a file as UTF-8: UTF-8 and UTF-16 by their marks, UTF-16 without a mark by its zeros, and everything
// else that is not UTF-8 as Windows-1252, which includes Latin-1.
func Text(data []byte) (string, error) {
	var from encoding.Encoding
	switch {
	case bytes.HasPrefix(data, []byte("\xef\xbb\xbf")):
		data = data[3:]
	case bytes.HasPrefix(data, []byte("\xff\xfe")), bytes.HasPrefix(data, []byte("\xfe\xff")):
		from = unicode.UTF16(unicode.LittleEndian, unicode.UseBOM)
	case zeros(data, 1) > zeros(data, 0) && zeros(data, 1)*3 > len(data):
		from = unicode.UTF16(unicode.LittleEndian, unicode.IgnoreBOM)
	case zeros(data, 0)*3 > len(data):
		from = unicode.UTF16(unicode.BigEndian, unicode.IgnoreBOM)
	case !utf8.Valid(data):
		from = charmap.Windows1252
	}
	if from != nil {
		out, err := from.NewDecoder().Bytes(data)
		if err != nil {
			return "", errorf("The file cannot be read as text.")
		}
		data = out
	}
	if bytes.IndexByte(data, 0) >= 0 {
		return "", errorf("The file is not text.")
	}
	return string(data), nil
}

// zeros counts the zero bytes at even (0) or odd (1) places.
func zeros(data []byte, odd int) int {
	n := 0
	for i := odd; i < len(data); i += 2 {
		if data[i] == 0 {
			n++
		}
	}
	return n
}

func clip(s string) string {
	const most = 60
	if r := []rune(s); len(r) > most {
		return string(r[:most]) + "…"
	}
	return s
}
