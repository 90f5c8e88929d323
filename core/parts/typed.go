package parts

import (
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"rutile/core/measure"
)

var counts = []string{"no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"}

// maxTyped bounds a line that is read at all, in characters.
const maxTyped = 2000

// Read reads parts as people type them: "3 drawer fronts 80x18", "top 4' x 18 1/2 in", "four turned
// legs 45 x 5", several separated by semicolons or new lines. The words before the sizes become the
// part's name if they say more than its kind. The error is an *[Error] or a *[measure.Error]; with
// it come the parts before the one it names.
func Read(text string, u measure.Units) ([]Part, error) {
	if utf8.RuneCountInString(text) > maxTyped {
		return nil, &Error{"", fmt.Sprintf("That is more than %d characters; enter fewer parts at a time.", maxTyped)}
	}
	var out []Part
	for _, line := range strings.FieldsFunc(text, func(r rune) bool { return r == ';' || r == '\n' || r == '\r' }) {
		if strings.TrimSpace(line) == "" {
			continue
		}
		p, err := readOne(line, u)
		if err != nil {
			return out, err
		}
		out = append(out, p)
	}
	if len(out) == 0 {
		return nil, &Error{"", "Nothing is typed; write a part like 3 drawer fronts 80 x 18 cm."}
	}
	return out, nil
}

func readOne(line string, u measure.Units) (Part, error) {
	count, words, sizes := split(line)
	if count < 1 || count > MaxCount {
		return Part{}, &Error{"count", fmt.Sprintf("There are between 1 and %d of one kind.", MaxCount)}
	}
	kind, ok := kindOf(words)
	if !ok {
		if len(words) == 0 {
			return Part{}, &Error{"kind", fmt.Sprintf("What is it? Write the part first, like drawer front %s.", strings.TrimSpace(sizes))}
		}
		says := fmt.Sprintf("“%s” is not a known part", clip(strings.Join(words, " ")))
		if near := nearest(words); near != "" {
			says += "; did you mean " + near + "?"
		} else {
			says += "; known parts include tops, shelves, doors, drawer fronts, legs, rails, frames, panes and pots."
		}
		return Part{}, &Error{"kind", says}
	}
	cm, err := readSizes(kind, sizes, u)
	if err != nil {
		return Part{}, err
	}
	p := New(kind, count, cm...)
	name := strings.Join(words, " ")
	if !plainly(kind, words) {
		first, n := utf8.DecodeRuneInString(name)
		p.Name = string(unicode.ToUpper(first)) + name[n:]
	}
	return p, p.Check()
}

// ReadSizes reads the sizes of a kind, in the order of its needs. Of those left
// out at the end, what has a usual value stays as it was, or is as usual where
// was has nought. The error is an *[Error] or a *[measure.Error].
func ReadSizes(k Kind, text string, was Sizes, u measure.Units) (Sizes, error) {
	cm, err := readSizes(k, text, u)
	if err != nil {
		return Sizes{}, err
	}
	p := New(k, 1, cm...)
	for _, n := range Kinds[k].Needs[len(cm):] {
		if n.Usual > 0 && was[n.Dim] > 0 {
			p.Size[n.Dim] = was[n.Dim]
		}
	}
	return p.Size, p.Check()
}

func readSizes(k Kind, text string, u measure.Units) ([]float64, error) {
	row := &Kinds[k]
	if strings.TrimSpace(text) == "" {
		return nil, &Error{DimIDs[row.Needs[0].Dim], fmt.Sprintf("How large is it? %s has %s.", article(row.Name), k.Wants())}
	}
	cm, err := measure.Lengths(text, u)
	if err != nil {
		return nil, err
	}
	if must := k.Must(); len(cm) < must || len(cm) > len(row.Needs) {
		return nil, &Error{DimIDs[row.Needs[min(len(cm), len(row.Needs)-1)].Dim],
			fmt.Sprintf("%s has %s; you entered %d.", article(row.Name), k.Wants(), len(cm))}
	}
	for i, x := range cm {
		if x > MaxSide {
			says := fmt.Sprintf("%s is larger than a room; enter at most %s.", u.Length(x), u.Length(MaxSide))
			if u == measure.Metric && x/10 <= MaxSide && !strings.Contains(strings.ToLower(text), "m") {
				says += " Write millimetres as " + strconv.FormatFloat(x, 'f', -1, 64) + " mm."
			}
			return nil, &Error{DimIDs[row.Needs[i].Dim], says}
		}
	}
	return cm, nil
}

// split separates a line: a leading count, words, and the sizes from the first figure after them
// on.
func split(line string) (count int, words []string, sizes string) {
	count = 1
	fields := strings.Fields(line)
	if len(fields) > 0 {
		first := strings.ToLower(fields[0])
		first = strings.TrimRight(first, "x×")
		if n, err := strconv.Atoi(first); err == nil && len(fields) > 1 && isWord(fields[1]) {
			count, fields = n, fields[1:]
		} else if err == nil && len(fields) > 2 && isTimes(fields[1]) && isWord(fields[2]) {
			count, fields = n, fields[2:]
		} else if i := slices.Index(counts, first); i >= 0 {
			count, fields = i, fields[1:]
		} else if first == "a" || first == "an" || first == "the" {
			fields = fields[1:]
		} else if first == "pair" {
			count, fields = 2, fields[1:]
		}
	}
	if len(fields) > 1 && strings.EqualFold(fields[0], "of") {
		fields = fields[1:]
	}
	for len(fields) > 0 && isWord(fields[0]) {
		words = append(words, strings.Split(strings.Trim(fields[0], ",:-"), "-")...)
		fields = fields[1:]
	}
	return count, words, strings.Join(fields, " ")
}

func isTimes(f string) bool { return strings.EqualFold(f, "x") || f == "×" }

// isWord tells whether a field is a word and not a size.
func isWord(f string) bool {
	r, _ := utf8.DecodeRuneInString(f)
	return unicode.IsLetter(r) && !isTimes(f) && !strings.EqualFold(f, "by")
}

// kindOf finds the kind that the words name; the most words win, and of those
// as many the last.
func kindOf(words []string) (Kind, bool) {
	text := " " + plain(words) + " "
	best, most, at := Kind(0), 0, -1
	for k := range Kinds {
		for _, w := range names(Kind(k)) {
			i := strings.LastIndex(text, " "+w+" ")
			if i < 0 {
				continue
			}
			n := 1 + strings.Count(w, " ")
			if end := i + len(w); n > most || n == most && end > at {
				best, most, at = Kind(k), n, end
			}
		}
	}
	return best, most > 0
}

func names(k Kind) []string {
	row := &Kinds[k]
	return append([]string{strings.ToLower(row.Name)}, row.Words...)
}

// plain is the words in the singular, in small letters.
func plain(words []string) string {
	out := make([]string, len(words))
	for i, w := range words {
		w = strings.ToLower(w)
		switch {
		case w == "feet":
			w = "foot"
		case w == "shelves":
			w = "shelf"
		case strings.HasSuffix(w, "ies"):
			w = w[:len(w)-3] + "y"
		case strings.HasSuffix(w, "sses") || strings.HasSuffix(w, "xes"):
			w = w[:len(w)-2]
		case strings.HasSuffix(w, "s") && !strings.HasSuffix(w, "ss"):
			w = w[:len(w)-1]
		}
		out[i] = w
	}
	return strings.Join(out, " ")
}

// plainly tells whether the words say no more than the kind itself does.
func plainly(k Kind, words []string) bool {
	return plain(words) == strings.ToLower(Kinds[k].Name)
}

// nearest is the part that a mistyped word probably meant.
func nearest(words []string) string {
	for _, w := range strings.Fields(plain(words)) {
		for k := range Kinds {
			for _, n := range names(Kind(k)) {
				if len(n) > 3 && len(w) > 3 && (strings.HasPrefix(n, w[:len(w)-1]) || slip(w, n)) {
					return n
				}
			}
		}
	}
	return ""
}

// slip tells whether one letter is missing, too many, other, or swapped with
// its neighbour.
func slip(a, b string) bool {
	if len(a) > len(b) {
		a, b = b, a
	}
	i := 0
	for i < len(a) && a[i] == b[i] {
		i++
	}
	switch len(b) - len(a) {
	case 0:
		return i < len(a) && (a[i+1:] == b[i+1:] || i+1 < len(a) && a[i] == b[i+1] && a[i+1] == b[i] && a[i+2:] == b[i+2:])
	case 1:
		return a[i:] == b[i+1:]
	}
	return false
}

func clip(s string) string {
	if r := []rune(s); len(r) > 40 {
		return string(r[:40]) + "…"
	}
	return s
}

// Field is the field that an error of this package or of measure is about.
func Field(err error) string {
	var e *Error
	if errors.As(err, &e) {
		return e.Field
	}
	return ""
}
