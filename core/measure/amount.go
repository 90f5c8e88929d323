package measure

import (
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"
)

// MaxMix is the most that is mixed by hand at once, in litres. Working default.
const MaxMix = 25.

// fractionWords are fractions as they are spoken.
var fractionWords = map[string]float64{
	"half": .5, "third": 1. / 3, "thirds": 1. / 3, "quarter": .25, "quarters": .25, "fourth": .25, "eighth": .125,
}

// amountUnits are what an amount may be typed in besides cups and spoons, in millilitres.
var amountUnits = map[string]float64{
	"ml": 1, "millilitre": 1, "millilitres": 1, "milliliter": 1, "milliliters": 1, "cc": 1, "cl": 10, "dl": 100,
	"l": 1000, "litre": 1000, "litres": 1000, "liter": 1000, "liters": 1000,
	"floz": litresPerFlOz * 1000, "oz": litresPerFlOz * 1000, "ounce": litresPerFlOz * 1000, "ounces": litresPerFlOz * 1000,
	"pint": litresPerQuart * 500, "pints": litresPerQuart * 500, "pt": litresPerQuart * 500,
	"quart": litresPerQuart * 1000, "quarts": litresPerQuart * 1000, "qt": litresPerQuart * 1000, "gallon": litresPerQuart * 4000, "gallons": litresPerQuart * 4000,
}

// Read reads an amount of liquid as people write it and returns litres: "350 ml", "1 1/2 cups", "a third of a
// cup and 2 tbsp", "12 fl oz". A number alone is in millilitres, in US units in fluid ounces. The error is an
// *[Error] and names what could not be read.
func (m Measures) Read(text string) (float64, error) {
	if utf8.RuneCountInString(text) > maxTyped {
		return 0, bad("That is too long for an amount; write it like 350 ml.")
	}
	toks, err := words(text)
	if err != nil {
		return 0, err
	}
	if len(toks) == 0 {
		return 0, bad("Nothing is typed; write an amount like 350 ml or 1 1/2 cups.")
	}
	total := 0.
	var said spoken
	for i := 0; i < len(toks); i++ {
		if took, err := said.take(toks[i], text); took || err != nil {
			if err != nil {
				return 0, err
			}
			continue
		}
		word := toks[i].word
		if word == "fl" && i+1 < len(toks) && strings.HasPrefix(toks[i+1].word, "o") {
			word, i = "floz", i+1
		}
		ml, err := m.unitML(word, text)
		if err != nil {
			return 0, err
		}
		n, err := said.give(word)
		if err != nil {
			return 0, err
		}
		total += n * ml
	}
	if n, have := said.n, said.have; have {
		if total > 0 {
			return 0, bad("A unit is missing at the end of %s.", shown(text))
		}
		if m.Units == US {
			n *= litresPerFlOz * 1000
		}
		total = n
	}
	switch l := total / 1000; {
	case !(l > 0):
		return 0, bad("An amount must be more than nothing.")
	case l > MaxMix:
		return 0, bad("%s is more than anybody mixes by hand at once; mix at most %s, in several batches.", short(l, 1)+" l", short(MaxMix, 0)+" l")
	default:
		return l, nil
	}
}

func (m Measures) unitML(word, text string) (float64, error) {
	table, tea := tablespoon, teaspoon
	if m.Units == US {
		table, tea = usTablespoon, usTeaspoon
	}
	switch word {
	case "cup", "cups":
		c := m
		c.By = Cups
		if err := c.Check(); err != nil {
			return 0, err
		}
		return c.CupML, nil
	case "tbsp", "tablespoon", "tablespoons":
		return table, nil
	case "tsp", "teaspoon", "teaspoons":
		return tea, nil
	case "g", "gram", "grams", "kg":
		return 0, bad("%s is a weight; write how much paint you want as a volume, like 350 ml.", shown(text))
	}
	if ml := amountUnits[word]; ml > 0 {
		return ml, nil
	}
	return 0, bad("“%s” cannot be read in an amount; write it like 350 ml, 1 1/2 cups or 2 tbsp.", clip(word))
}

func clip(s string) string {
	if r := []rune(s); len(r) > 24 {
		return string(r[:24]) + "…"
	}
	return s
}

// amountWord is a number, or a word where there is one.
type amountWord struct {
	word  string
	value float64
}

// spoken gathers a number as it is spoken before a unit: "1 1/2", "a third of a", "half an".
type spoken struct {
	n    float64
	have bool
}

// take takes a word of a number, and tells whether it is one.
func (s *spoken) take(t amountWord, text string) (bool, error) {
	switch {
	case t.word == "":
		if s.have {
			return false, bad("Two numbers stand next to each other in %s.", shown(text))
		}
		s.n, s.have = t.value, true
	case t.word == "a" || t.word == "an" || t.word == "one":
		if !s.have {
			s.n, s.have = 1, true
		}
	case t.word == "of" || t.word == "and" || t.word == "+" || t.word == "plus":
	case fractionWords[t.word] > 0:
		if !s.have {
			s.n = 1
		}
		s.n, s.have = s.n*fractionWords[t.word], true
	default:
		return false, nil
	}
	return true, nil
}

// give gives the number before a unit, and begins the next.
func (s *spoken) give(unit string) (float64, error) {
	n, have := s.n, s.have
	*s = spoken{}
	if !have {
		return 0, bad("A number is missing before “%s”.", clip(unit))
	}
	return n, nil
}

// words splits an amount into numbers and words.
func words(text string) ([]amountWord, error) {
	rs := []rune(strings.ToLower(text))
	var out []amountWord
	for i := 0; i < len(rs); {
		r := rs[i]
		switch {
		case unicode.IsSpace(r) || r == ',' && (i+1 == len(rs) || !isDigit(rs[i+1])):
			i++
		case r == '-' || r == '−':
			return nil, bad("An amount cannot be negative.")
		case isDigit(r) || fractions[r] > 0 || (r == '.' || r == ',') && i+1 < len(rs) && isDigit(rs[i+1]):
			v, n, err := number(rs[i:], text)
			if err != nil {
				return nil, err
			}
			if n == 0 {
				return nil, bad("%s is not a number.", strconv.Quote(string(r)))
			}
			out, i = append(out, amountWord{value: v}), i+n
		case r == '+':
			out, i = append(out, amountWord{word: "+"}), i+1
		default:
			n := 0
			for i+n < len(rs) && unicode.IsLetter(rs[i+n]) {
				n++
			}
			if n == 0 {
				return nil, bad("%s cannot be read in an amount; write it like 350 ml.", shown(string(rs[i:])))
			}
			word := string(rs[i : i+n])
			if i += n; i < len(rs) && rs[i] == '.' {
				i++
			}
			out = append(out, amountWord{word: word})
		}
	}
	return out, nil
}
