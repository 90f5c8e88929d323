package measure

import (
	"math"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"
)

// MaxArea is the largest area of a zone, in square metres.
const MaxArea = 500

// maxTyped bounds what is read at all.
const maxTyped = 400

// unit is what a number is counted in: a length in centimetres, or an area in
// square metres.
type unit struct {
	cm, m2 float64
}

func (u unit) none() bool { return u.cm == 0 && u.m2 == 0 }

var unitWords = map[string]unit{
	"mm": {cm: .1}, "cm": {cm: 1}, "m": {cm: 100},
	"in": {cm: cmPerInch}, "inch": {cm: cmPerInch}, "inches": {cm: cmPerInch}, "ins": {cm: cmPerInch}, `"`: {cm: cmPerInch}, "″": {cm: cmPerInch}, "”": {cm: cmPerInch}, "“": {cm: cmPerInch}, "''": {cm: cmPerInch},
	"ft": {cm: cmPerInch * inPerFoot}, "foot": {cm: cmPerInch * inPerFoot}, "feet": {cm: cmPerInch * inPerFoot}, "'": {cm: cmPerInch * inPerFoot}, "′": {cm: cmPerInch * inPerFoot}, "’": {cm: cmPerInch * inPerFoot},
	"mm²": {m2: 1e-6}, "cm²": {m2: 1e-4}, "m²": {m2: 1}, "mm2": {m2: 1e-6}, "cm2": {m2: 1e-4}, "m2": {m2: 1}, "sqm": {m2: 1}, "qm": {m2: 1},
	"sqcm": {m2: 1e-4}, "ft²": {m2: m2PerFt2}, "ft2": {m2: m2PerFt2}, "sqft": {m2: m2PerFt2}, "sf": {m2: m2PerFt2}, "squarefeet": {m2: m2PerFt2}, "squarefoot": {m2: m2PerFt2},
	"in²": {m2: m2PerFt2 / 144}, "in2": {m2: m2PerFt2 / 144}, "sqin": {m2: m2PerFt2 / 144}, "squaremetres": {m2: 1}, "squaremeters": {m2: 1}, "squaremetre": {m2: 1}, "squaremeter": {m2: 1},
}

var fractions = map[rune]float64{'½': .5, '¼': .25, '¾': .75, '⅛': .125, '⅜': .375, '⅝': .625, '⅞': .875, '⅓': 1. / 3, '⅔': 2. / 3}

// Area reads an area as people write it and returns square metres: "0.6", "120
// x 45 cm", "3 x 80 x 18", "4' 2\" x 17 1/2 in", "6 sq ft", and sums of these
// with +. Three numbers are a count and two sides. Sides without a unit take
// the unit of a later side, or else centimetres, in US units inches; an area
// without a unit is in square metres, in US units square feet. The error is an
// *[Error] and names what could not be read.
func Area(text string, u Units) (float64, error) {
	if utf8.RuneCountInString(text) > maxTyped {
		return 0, bad("That is too long for a size; write it like 120 x 45 cm.")
	}
	total := 0.
	for _, part := range strings.Split(text, "+") {
		if strings.TrimSpace(part) == "" {
			if strings.TrimSpace(text) == "" {
				return 0, bad("Nothing is typed; write a size like 120 x 45 cm.")
			}
			return 0, bad("A size is missing next to the +.")
		}
		a, err := oneArea(part, u)
		if err != nil {
			return 0, err
		}
		total += a
	}
	if !(total > 0) {
		return 0, bad("An area must be more than zero.")
	}
	if total > MaxArea {
		return 0, bad("That is %s, larger than a room; enter at most %s.", u.Area(total), u.Area(MaxArea))
	}
	return total, nil
}

func oneArea(part string, u Units) (float64, error) {
	sides, err := sidesOf(part)
	if err != nil {
		return 0, err
	}
	return product(sides, part, u)
}

// Lengths reads sizes as people write them and returns centimetres, in the
// order they stand: "80 x 18", "4' 2\" x 17 1/2 in", "45 cm". A size without a
// unit takes the unit of a later one, or else centimetres, in US units inches.
// The error is an *[Error].
func Lengths(text string, u Units) ([]float64, error) {
	switch {
	case utf8.RuneCountInString(text) > maxTyped:
		return nil, bad("That is too long for sizes; write them like 80 x 18 cm.")
	case strings.TrimSpace(text) == "":
		return nil, bad("Nothing is typed; write sizes like 80 x 18 cm.")
	}
	sides, err := sidesOf(text)
	if err != nil {
		return nil, err
	}
	if err := settle(sides, text, u); err != nil {
		return nil, err
	}
	out := make([]float64, len(sides))
	for i := range sides {
		out[i] = sides[i].cm
	}
	return out, nil
}

// sidesOf reads the factors of a product.
func sidesOf(part string) ([]side, error) {
	toks, err := tokens(part)
	if err != nil {
		return nil, err
	}
	var sides []side
	cur := side{}
	for i, t := range toks {
		switch {
		case t.times:
			if cur.empty() {
				return nil, bad("A side is missing in %s.", shown(part))
			}
			sides, cur = append(sides, cur), side{}
			if i == len(toks)-1 {
				return nil, bad("%s is missing its last side.", shown(part))
			}
		case t.unit.none():
			if err := cur.number(t.value, part); err != nil {
				return nil, err
			}
		default:
			if err := cur.unit(t.unit, part); err != nil {
				return nil, err
			}
		}
	}
	return append(sides, cur), nil
}

// settle gives every side its length in centimetres.
func settle(sides []side, part string, u Units) error {
	given := unit{cm: 1}
	if u == US {
		given = unit{cm: cmPerInch}
	}
	for i := len(sides) - 1; i >= 0; i-- {
		s := &sides[i]
		switch {
		case s.m2 > 0:
			return bad("%s multiplies an area by a length.", shown(part))
		case s.bare():
			s.cm = s.value * given.cm
		case s.pending:
			// 4 ft 2: what follows feet without a unit is inches.
			if s.as.cm != cmPerInch*inPerFoot {
				return bad("A unit is missing at the end of a side in %s.", shown(part))
			}
			s.cm, s.as = s.cm+s.value*cmPerInch, unit{cm: cmPerInch}
			given = s.as
		default:
			given = s.as
		}
		if s.cm == 0 {
			return bad("A side of %s is zero.", shown(part))
		}
	}
	return nil
}

func product(sides []side, part string, u Units) (float64, error) {
	n := 1.
	switch len(sides) {
	case 1:
		s := sides[0]
		switch {
		case s.cm > 0 || s.pending && s.as.cm > 0:
			return 0, bad("%s is a length; an area has two sides, like 120 x 45 cm.", shown(part))
		case s.m2 > 0:
			return s.m2, nil
		case u == US:
			return s.value * m2PerFt2, nil
		}
		return s.value, nil
	case 2:
		// A count and an area: 3 x 0.4 m².
		if sides[1].m2 > 0 && sides[0].bare() {
			return sides[0].value * sides[1].m2, nil
		}
	case 3:
		if !sides[0].bare() || sides[0].value != math.Trunc(sides[0].value) {
			return 0, bad("With three numbers the first is a count, as in 3 x 80 x 18 cm; %s has something else there.", shown(part))
		}
		n, sides = sides[0].value, sides[1:]
	default:
		return 0, bad("%s has too many sides; write it like 120 x 45 cm.", shown(part))
	}
	if err := settle(sides, part, u); err != nil {
		return 0, err
	}
	return n * sides[0].cm * sides[1].cm / 1e4, nil
}

// side is one factor: a bare number, a length of one or more parts (4 ft 2
// in), or an area.
type side struct {
	value   float64 // of the number that has no unit yet
	pending bool
	cm, m2  float64
	as      unit // the last unit
}

func (s *side) empty() bool { return !s.pending && s.cm == 0 && s.m2 == 0 }
func (s *side) bare() bool  { return s.pending && s.cm == 0 && s.m2 == 0 && s.as.none() }

func (s *side) number(v float64, part string) error {
	if s.pending {
		return bad("Two numbers stand next to each other in %s; is an x missing between them?", shown(part))
	}
	if s.m2 > 0 {
		return bad("There is one number too many in %s.", shown(part))
	}
	s.value, s.pending = v, true
	return nil
}

func (s *side) unit(u unit, part string) error {
	if !s.pending {
		return bad("A number is missing before a unit in %s.", shown(part))
	}
	if u.m2 > 0 && s.cm > 0 || s.cm > 0 && u.cm >= s.as.cm {
		return bad("The units in %s do not match.", shown(part))
	}
	if u.m2 > 0 {
		s.m2 = s.value * u.m2
	} else {
		s.cm += s.value * u.cm
	}
	s.value, s.pending, s.as = 0, false, u
	return nil
}

type token struct {
	times bool
	unit  unit
	value float64
}

func tokens(part string) ([]token, error) {
	rs := []rune(strings.ToLower(part))
	var out []token
	for i := 0; i < len(rs); {
		r := rs[i]
		switch {
		case unicode.IsSpace(r) || r == '-' && len(out) > 0 && i+1 < len(rs) && isDigit(rs[i+1]) && !out[len(out)-1].times:
			i++ // 4ft-2in is written with a hyphen by some
		case r == '-' || r == '−':
			return nil, bad("A size cannot be negative.")
		case isDigit(r) || fractions[r] > 0 || (r == '.' || r == ',') && i+1 < len(rs) && isDigit(rs[i+1]):
			v, n, err := number(rs[i:], part)
			if err != nil {
				return nil, err
			}
			out = append(out, token{value: v})
			i += n
		case r == 'x' || r == '×' || r == '*' || r == '✕':
			out = append(out, token{times: true})
			i++
		default:
			word, n := wordAt(rs[i:])
			if word == "by" {
				out = append(out, token{times: true})
				i += n
				continue
			}
			u, ok := unitWords[word]
			if !ok {
				return nil, bad("%s cannot be read in a size; write it like 120 x 45 cm.", shown(string(rs[i:])))
			}
			out = append(out, token{unit: u})
			i += n
		}
	}
	return out, nil
}

// wordAt is the longest unit, or else the whole word, at the front of rs; sq
// and square join the word after them.
func wordAt(rs []rune) (string, int) {
	quotes := `"'″′”’“`
	if strings.ContainsRune(quotes, rs[0]) {
		if len(rs) > 1 && rs[0] == '\'' && rs[1] == '\'' {
			return "''", 2
		}
		return string(rs[0]), 1
	}
	n := 0
	for n < len(rs) && (unicode.IsLetter(rs[n]) || rs[n] == '²') {
		n++
	}
	w := string(rs[:n])
	// 2 belongs to the unit where it closes it: m2, not m 2.
	if n > 0 && n < len(rs) && rs[n] == '2' && (n+1 == len(rs) || !isDigit(rs[n+1]) && rs[n+1] != '.' && rs[n+1] != ',') && unitWords[w].cm > 0 {
		return w + "2", n + 1
	}
	if n < len(rs) && rs[n] == '.' && n > 0 { // in., ft., sq.
		n++
	}
	if w == "sq" || w == "square" {
		k := n
		for k < len(rs) && unicode.IsSpace(rs[k]) {
			k++
		}
		if k < len(rs) {
			next, m := wordAt(rs[k:])
			return w + next, k + m
		}
	}
	// 120x45: the x after a unit belongs to no word.
	if x := strings.IndexByte(w, 'x'); x > 0 {
		if _, ok := unitWords[w[:x]]; ok {
			return w[:x], utf8.RuneCountInString(w[:x])
		}
	}
	if n == 0 {
		return string(rs[0]), 1
	}
	return w, n
}

// number reads 12, 1.5, 1,5, 17 1/2, 3/4 and 17½.
func number(rs []rune, part string) (float64, int, error) {
	digits := func(at int) int {
		for at < len(rs) && isDigit(rs[at]) {
			at++
		}
		return at
	}
	n := digits(0)
	if n < len(rs) && (rs[n] == '.' || rs[n] == ',') && n+1 < len(rs) && isDigit(rs[n+1]) {
		n = digits(n + 1)
		if n < len(rs) && (rs[n] == '.' || rs[n] == ',') && n+1 < len(rs) && isDigit(rs[n+1]) {
			return 0, 0, bad("%s has two decimal points in one number.", shown(part))
		}
	}
	v := 0.
	if n > 0 {
		x, err := strconv.ParseFloat(strings.ReplaceAll(string(rs[:n]), ",", "."), 64)
		if err != nil {
			return 0, 0, bad("%s is not a number.", shown(string(rs[:n])))
		}
		v = x
	}
	over := func(at int) (float64, int) { // a fraction, as 1/2
		a := digits(at)
		if a == at || a >= len(rs) || rs[a] != '/' {
			return 0, at
		}
		b := digits(a + 1)
		top, _ := strconv.ParseFloat(string(rs[at:a]), 64)
		bottom, _ := strconv.ParseFloat(string(rs[a+1:b]), 64)
		if bottom == 0 {
			return 0, at
		}
		return top / bottom, b
	}
	if f, end := over(0); end > 0 {
		return f, end, nil
	}
	k := n
	for k < len(rs) && rs[k] == ' ' {
		k++
	}
	if k < len(rs) && fractions[rs[k]] > 0 {
		return v + fractions[rs[k]], k + 1, nil
	}
	if k > n {
		if f, end := over(k); end > k {
			return v + f, end, nil
		}
	}
	return v, n, nil
}

func isDigit(r rune) bool { return r >= '0' && r <= '9' }
