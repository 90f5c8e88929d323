// Package shelf knows the cans of a studio: what is left in them, how long they keep, and what is found when
// one looks for them.
package shelf

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/measure"
)

// Can is one can of a studio.
type Can struct {
	ID, Name string
	// Kind is what is in it; craft.NoProduct stands for the bonding additive.
	Kind   craft.Product
	Colour string // as #rrggbb; empty where it has none
	Sheen  craft.Sheen
	// Size is what it held when it was full, and Left what is left, in litres, of powder as powder. Left is
	// negative where nobody said.
	Size, Left float64
	// Opened and Bought are days as 2006-01-02; empty for a closed can, and where it is not known.
	Opened, Bought string
	// For names the piece that it is reserved for, where that is another than the one in question.
	For string
	// Batch is what stands on it.
	Batch string
	Label *craft.Label
}

// Open tells whether it was opened.
func (x *Can) Open() bool { return x.Opened != "" || x.Left >= 0 && x.Left < x.Size*.98 }

// Empty tells that nothing that could be used is left.
func (x *Can) Empty() bool { return x.Left >= 0 && x.Left < scraping }

// Holds is how much of it counts, in litres: what is left, or all of it where nobody said.
func (x *Can) Holds() float64 {
	if x.Left < 0 {
		return x.Size
	}
	return x.Left
}

// scraping is the least that can be got out of a can, in litres; and low is the share of a can from which on
// it is nearly empty. Working defaults.
const scraping, low = .01, .12

// Additive is how the bonding additive keeps, in months closed and opened. Working default.
const additiveKeeps, additiveOpen = 24, 12

const daysPerMonth = 365.25 / 12

// keeps is for how many months a can keeps closed and opened; 0 for any time.
func keeps(c *craft.Craft, x *Can) (closed, opened int) {
	if x.Kind == craft.NoProduct {
		return additiveKeeps, additiveOpen
	}
	return c.Products[x.Kind].Keeps, c.Products[x.Kind].KeepsOpen
}

// Life is how a can's life stands on a day.
type Life struct {
	// Left is how many days it still keeps, negative once it is past its life; meaningless unless Known.
	Left  int
	Known bool
	// Says is why, within a sentence, as "opened on 3 May 2026, and keeps for about 6 months once open".
	Says string
}

// LifeOf is how long a can still keeps on a day: from when it was opened or, unopened, bought, by what its
// kind keeps. It is not known where the day, or both of those, are not.
func LifeOf(c *craft.Craft, x *Can, today string, u measure.Units) Life {
	closed, open := keeps(c, x)
	var out Life
	take := func(since string, months int, words string) {
		n, ok := measure.Days(since, today)
		if !ok || months == 0 || since == "" {
			return
		}
		left := int(math.Round(float64(months)*daysPerMonth)) - n
		if !out.Known || left < out.Left {
			out = Life{left, true, fmt.Sprintf(words, u.Date(since), measure.Count(months, "month", "months"))}
		}
	}
	take(x.Opened, open, "opened on %s, and keeps for about %s once open")
	take(x.Bought, closed, "bought on %s, and keeps for about %s")
	return out
}

// Past tells that it is past its life.
func (l Life) Past() bool { return l.Known && l.Left < 0 }

// soon is for how many days before its end a can is said to run out of life.
const soon = 45

// Warning is something to know of a can.
type Warning struct {
	ID   string // past, soon, empty, low
	Says string
}

// Warnings are what is to be known of a can on a day, the gravest first.
func Warnings(c *craft.Craft, x *Can, today string, u measure.Units) []Warning {
	var out []Warning
	switch l := LifeOf(c, x, today, u); {
	case l.Past():
		test := "Try it on a board before you rely on it"
		if x.Kind != craft.NoProduct && c.Products[x.Kind].Carrier == craft.Alcohol {
			test = "A drop of it must dry hard on glass"
		}
		out = append(out, Warning{"past", "Past its life: " + l.Says + ". " + test + "."})
	case l.Known && l.Left <= soon:
		out = append(out, Warning{"soon", "Use it within " + measure.Count(l.Left, "day", "days") + ": " + l.Says + "."})
	}
	switch {
	case x.Empty():
		out = append(out, Warning{"empty", "Empty."})
	case x.Left >= 0 && x.Size > 0 && x.Left < low*x.Size:
		out = append(out, Warning{"low", "Nearly empty."})
	}
	return out
}

// Usable tells whether plans may take from a can: it has something in it, it is not past its life, and it is
// not reserved for another piece.
func Usable(c *craft.Craft, x *Can, today string) bool {
	return !x.Empty() && x.For == "" && !LifeOf(c, x, today, measure.Metric).Past()
}

// Density is what a litre of what is in a can weighs, in kilograms.
func Density(c *craft.Craft, kind craft.Product) float64 {
	if kind == craft.NoProduct {
		return 1.03
	}
	return c.Products[kind].Density
}

// Tare is what an empty can of some litres weighs, in grams: a tin with its lid, a bag for powder. Working
// default.
func Tare(c *craft.Craft, kind craft.Product, size float64) float64 {
	if kind != craft.NoProduct && c.Products[kind].Powder() {
		return 12 + 10*size
	}
	return 45 + 95*math.Pow(max(size, .05), .75)
}

// Weighed is what is left in a can that weighs some grams with its tin, in litres: between nothing and, with
// a tenth of room, its size. tare is what the empty tin weighs; 0 for what is usual.
func Weighed(c *craft.Craft, kind craft.Product, size, grams, tare float64) (float64, error) {
	if tare <= 0 {
		tare = Tare(c, kind, size)
	}
	switch left := (grams - tare) / 1000 / Density(c, kind); {
	case !(grams >= 0):
		return 0, fmt.Errorf("a weight cannot be negative")
	case left > 1.1*size:
		return 0, fmt.Errorf("%s would be %s, and the can holds %s: check the weight, or the size of the can", measure.Metric.Weight(grams), measure.Metric.Volume(left), measure.Metric.Size(size))
	default:
		return math.Round(min(size, max(0, left))*1000) / 1000, nil
	}
}

// KindName is what is in a can.
func KindName(c *craft.Craft, kind craft.Product) string {
	if kind == craft.NoProduct {
		return "Bonding additive"
	}
	return c.Products[kind].Name
}

// Title is what a can is called: its name, or its kind with its colour.
func (x *Can) Title(c *craft.Craft) string {
	if x.Name != "" {
		return x.Name
	}
	out := KindName(c, x.Kind)
	if x.Colour != "" {
		out += ", " + colour.NameHex(x.Colour)
	}
	return out
}

// Matches tells whether every word of a search is in what a can says: its name, kind, colour, sheen, batch or
// what it is reserved for. Capitals make no difference.
func Matches(c *craft.Craft, x *Can, words string) bool {
	text := strings.ToLower(strings.Join([]string{x.Name, KindName(c, x.Kind), x.Colour, nameOf(x.Colour), craft.Sheens[x.Sheen].Name, x.Batch, x.For}, " "))
	for w := range strings.FieldsSeq(strings.ToLower(words)) {
		if !strings.Contains(text, w) {
			return false
		}
	}
	return true
}

func nameOf(hex string) string {
	if hex == "" {
		return ""
	}
	return colour.NameHex(hex)
}

// Order sorts cans as they are used: what has something left first, open before closed, those that run out of
// life soonest first, then by kind and name.
func Order(c *craft.Craft, cans []Can, today string) {
	type key struct{ empty, closed, life int }
	keys := make(map[string]key, len(cans))
	for i := range cans {
		x := &cans[i]
		k := key{life: math.MaxInt}
		if x.Empty() {
			k.empty = 1
		}
		if !x.Open() {
			k.closed = 1
		}
		if l := LifeOf(c, x, today, measure.Metric); l.Known {
			k.life = l.Left
		}
		keys[x.ID] = k
	}
	slices.SortStableFunc(cans, func(a, b Can) int {
		x, y := keys[a.ID], keys[b.ID]
		return cmp.Or(cmp.Compare(x.empty, y.empty), cmp.Compare(x.closed, y.closed), cmp.Compare(x.life, y.life), cmp.Compare(a.Kind, b.Kind), cmp.Compare(a.Name, b.Name), cmp.Compare(a.ID, b.ID))
	})
}

// Amount words litres of what is in a can: powder by its weight.
func Amount(c *craft.Craft, kind craft.Product, litres float64, u measure.Units) string {
	if kind != craft.NoProduct && c.Products[kind].Powder() {
		return u.Weight(litres * 1000 * c.Products[kind].Density)
	}
	return u.Volume(litres)
}
