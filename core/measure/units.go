// Package measure reads and writes sizes, areas, temperatures, spans of time, counts and dates as
// people write them, metric and US.
package measure

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Units is the set of units a studio works in. Whatever they are, figures are
// kept in metric units.
type Units uint8

// The sets.
const (
	Metric Units = iota
	US
)

var unitIDs = [...]string{"metric", "us"}

// String returns the set's id.
func (u Units) String() string { return unitIDs[u] }

// UnitsNamed returns the set with an id; false if there is none.
func UnitsNamed(id string) (Units, bool) {
	for i, s := range unitIDs {
		if s == id {
			return Units(i), true
		}
	}
	return Metric, false
}

// What one unit is worth (exact by definition).
const (
	cmPerInch = 2.54
	inPerFoot = 12
	m2PerFt2  = .3048 * .3048
	umPerMil  = 25.4
)

// Tool words a size of a tool or a distance by hand, given in a metric unit (mm, cm, m), as it is said: in US units to
// a quarter of an inch, to an inch from six, and in feet from six feet.
func (u Units) Tool(x float64, unit string) string {
	cm := x * map[string]float64{"mm": .1, "cm": 1, "m": 100}[unit]
	if u != US || cm == 0 {
		return short(x, 1) + " " + unit
	}
	switch in := cm / cmPerInch; {
	case in < 6:
		return sixteenths(math.Round(in*4)/4) + " in"
	case in < 6*inPerFoot:
		return short(in, 0) + " in"
	default:
		return short(in/inPerFoot, 0) + " ft"
	}
}

// Tools words a range of such sizes, as "40 to 50 mm".
func (u Units) Tools(from, to float64, unit string) string {
	low, high := u.Tool(from, unit), u.Tool(to, unit)
	return strings.TrimSuffix(low, high[strings.LastIndexByte(high, ' '):]) + " to " + high
}

// Pressure words the pressure of air given in bar.
func (u Units) Pressure(bar float64) string {
	if u == US {
		return short(bar*psiPerBar, 0) + " psi"
	}
	return short(bar, 1) + " bar"
}

// psiPerBar is how many pounds per square inch a bar is.
const psiPerBar = 14.503773773

// Fahrenheit turns degrees Celsius into degrees Fahrenheit.
func Fahrenheit(c float64) float64 { return c*9/5 + 32 }

// Temp words a temperature given in degrees Celsius.
func (u Units) Temp(c float64) string {
	if u == US {
		return short(Fahrenheit(c), 0) + " °F"
	}
	return short(c, 1) + " °C"
}

// Area words an area given in square metres.
func (u Units) Area(m2 float64) string {
	if u == US {
		return significant(m2/m2PerFt2) + " sq ft"
	}
	return significant(m2) + " m²"
}

// Length words a length given in centimetres: to the millimetre, in US units
// to the sixteenth of an inch.
func (u Units) Length(cm float64) string { return u.Sizes(cm) }

// Sizes writes lengths given in centimetres as one size, as 80 × 18 cm.
func (u Units) Sizes(cm ...float64) string {
	out := make([]string, len(cm))
	for i, x := range cm {
		out[i] = short(x, 1)
		if u == US {
			out[i] = sixteenths(x / cmPerInch)
		}
	}
	unit := " cm"
	if u == US {
		unit = " in"
	}
	return strings.Join(out, " × ") + unit
}

// Run words a running length given in metres.
func (u Units) Run(m float64) string {
	if u == US {
		return significant(m*100/cmPerInch/inPerFoot) + " ft"
	}
	return significant(m) + " m"
}

// sixteenths writes inches as a ruler shows them, as 17 1/2.
func sixteenths(in float64) string {
	n := int(math.Round(in * 16))
	whole, top, bottom := n/16, n%16, 16
	for top > 0 && top%2 == 0 {
		top, bottom = top/2, bottom/2
	}
	switch {
	case top == 0:
		return strconv.Itoa(whole)
	case whole == 0:
		return fmt.Sprintf("%d/%d", top, bottom)
	}
	return fmt.Sprintf("%d %d/%d", whole, top, bottom)
}

// Difference words a difference of temperature given in degrees Celsius.
func (u Units) Difference(c float64) string {
	if u == US {
		return short(c*9/5, 1) + " °F"
	}
	return short(c, 1) + " °C"
}

// Small words a size too small for a tape measure, given in millimetres: to the hundredth, in US
// units to the thousandth of an inch.
func (u Units) Small(mm float64) string {
	if u == US {
		return short(mm/10/cmPerInch, 3) + " in"
	}
	return short(mm, 2) + " mm"
}

// Film words a dry film's thickness given in micrometres.
func (u Units) Film(um float64) string {
	if u == US {
		return short(um/umPerMil, 1) + " mil"
	}
	return short(um, 0) + " µm"
}

func short(x float64, digits int) string {
	p := math.Pow(10, float64(digits))
	return strconv.FormatFloat(math.Round(x*p)/p, 'f', -1, 64)
}

// significant keeps three figures, and no fewer before the point.
func significant(x float64) string {
	if x == 0 {
		return "0"
	}
	digits := max(0, 2-int(math.Floor(math.Log10(math.Abs(x)))))
	return short(x, digits)
}

// Error says what in a typed size cannot be read.
type Error struct{ Says string }

// Error returns the sentence.
func (e *Error) Error() string { return e.Says }

func bad(format string, args ...any) error { return &Error{fmt.Sprintf(format, args...)} }

// shown is a piece of what was typed, short enough to be quoted.
func shown(s string) string {
	s = strings.Join(strings.Fields(s), " ")
	if r := []rune(s); len(r) > 24 {
		return "“" + string(r[:24]) + "…”"
	}
	return "“" + s + "”"
}

// What one US unit is worth in litres and grams (exact by definition, but for the gram of the ounce).
const (
	litresPerFlOz  = .0295735295625
	litresPerQuart = 32 * litresPerFlOz
	gramsPerOunce  = 28.349523125
)

// Volume words a volume of liquid given in litres, rounded up to what can be measured: to 5 ml up to 100,
// to 10 up to two litres, to tenths of a litre above; in US units to quarters of a fluid ounce, to whole ones
// from 8, and tenths of a quart from 64.
func (u Units) Volume(litres float64) string {
	const exact = 1e-9
	up := func(x, step float64) float64 { return math.Ceil(x/step-exact) * step }
	if u == US {
		switch oz := litres / litresPerFlOz; {
		case litres <= 0:
			return "0 fl oz"
		case oz < 8:
			return short(up(oz, .25), 2) + " fl oz"
		case oz < 64:
			return short(up(oz, 1), 0) + " fl oz"
		}
		return short(up(litres/litresPerQuart, .1), 1) + " qt"
	}
	switch ml := litres * 1000; {
	case litres <= 0:
		return "0 ml"
	case ml <= 100:
		return short(up(ml, 5), 0) + " ml"
	case ml <= 990:
		return short(up(ml, 10), 0) + " ml"
	case ml < 2000:
		return short(up(litres, .01), 2) + " l"
	}
	return short(up(litres, .1), 1) + " l"
}

// Size words the size of a can given in litres, as it stands on it.
func (u Units) Size(litres float64) string {
	if u == US {
		if litres < litresPerQuart*.999 {
			return short(litres/litresPerFlOz, 1) + " fl oz"
		}
		return short(litres/litresPerQuart, 2) + " qt"
	}
	if litres < 1 {
		return short(litres*1000, 0) + " ml"
	}
	return short(litres, 2) + " l"
}

// Weight words a weight given in grams, to 5 g and above a kilogram to 50; in US units in ounces.
func (u Units) Weight(grams float64) string {
	if u == US {
		return short(math.Ceil(grams/gramsPerOunce*2-1e-9)/2, 1) + " oz"
	}
	if grams < 1000 {
		return short(math.Ceil(grams/5-1e-9)*5, 0) + " g"
	}
	return short(math.Ceil(grams/50-1e-9)*.05, 2) + " kg"
}

// Days is how many days lie between two days written as 2006-01-02, negative where the second is the
// earlier; false where one of them is no such day. It counts by the civil calendar (days from a
// March-based year, as usual for the Gregorian calendar).
func Days(from, to string) (int, bool) {
	a, ok1 := dayNumber(from)
	b, ok2 := dayNumber(to)
	return b - a, ok1 && ok2
}

func dayNumber(day string) (int, bool) {
	if len(day) != len("2006-01-02") || day[4] != '-' || day[7] != '-' {
		return 0, false
	}
	y, ok1 := digits(day[:4])
	m, ok2 := digits(day[5:7])
	d, ok3 := digits(day[8:])
	if !ok1 || !ok2 || !ok3 || m < 1 || m > 12 || d < 1 || d > 31 {
		return 0, false
	}
	if m <= 2 {
		y, m = y-1, m+12
	}
	return 365*y + y/4 - y/100 + y/400 + (153*(m-3)+2)/5 + d, true
}

func digits(s string) (int, bool) {
	n := 0
	for _, r := range s {
		if !isDigit(r) {
			return 0, false
		}
		n = 10*n + int(r-'0')
	}
	return n, true
}
