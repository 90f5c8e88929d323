package colour

import (
	"cmp"
	"math"
	"slices"
	"strings"
)

// Against says in words how a colour differs from the one that is wanted, as "slightly darker and
// yellower": the greatest parts of the difference in CIELAB. Working
// default.
func Against(is, want RGB) string {
	if de := Difference(is, want); de < 1 {
		return "the same to the eye"
	}
	l1, a1, b1 := is.Lab()
	l2, a2, b2 := want.Lab()
	type part struct {
		size float64 // in steps that the eye just notices
		word string
	}
	var parts []part
	add := func(size, step float64, more, less string) {
		word := more
		if size < 0 {
			word = less
		}
		parts = append(parts, part{math.Abs(size) / step, word})
	}
	c1, c2 := math.Hypot(a1, b1), math.Hypot(a2, b2)
	add(l1-l2, 1.3, "lighter", "darker")
	const coloured = 8.
	if c1 > coloured && c2 > coloured {
		dh := math.Mod(hue(a1, b1)-hue(a2, b2)+540, 360) - 180
		along := 2 * math.Sqrt(c1*c2) * math.Sin(dh/2*math.Pi/180)
		h := hue(a2, b2)
		add(along, 2, towards(h, true), towards(h, false))
		add(c1-c2, 2, "stronger", "greyer")
	} else {
		parts = append(parts, part{math.Hypot(a1-a2, b1-b2) / 1.5, tint(a1-a2, b1-b2)})
	}
	slices.SortStableFunc(parts, func(a, b part) int { return cmp.Compare(b.size, a.size) })
	words := []string{parts[0].word}
	if parts[1].size >= 1 && parts[1].size > parts[0].size/3 {
		words = append(words, parts[1].word)
	}
	out := strings.Join(words, " and ")
	switch de := Difference(is, want); {
	case de < 3:
		return "slightly " + out
	case de < 8:
		return out
	}
	return "much " + out
}

// tint is the comparative of the hue in a direction.
func tint(da, db float64) string {
	switch h := hue(da, db); {
	case h < 25, h >= 335:
		return "pinker"
	case h < 115:
		return "yellower"
	case h < 200:
		return "greener"
	case h < 300:
		return "bluer"
	}
	return "more purple"
}

// towards is what a colour of a hue turns into when its hue angle grows or falls.
func towards(h float64, up bool) string {
	names := []struct {
		at   float64
		word string
	}{{20, "redder"}, {55, "more orange"}, {90, "yellower"}, {155, "greener"}, {250, "bluer"}, {315, "more purple"}, {380, "redder"}}
	if h < 20 {
		h += 360
	}
	const near = 12.
	if up {
		for _, n := range names {
			if n.at > h+near {
				return n.word
			}
		}
		return "more orange"
	}
	for i := len(names) - 1; i >= 0; i-- {
		if names[i].at < h-near {
			return names[i].word
		}
	}
	return "more purple"
}

// Shows says what of a ground shows through coats that are not the wanted colour yet: the tint of the
// difference, as "pink" or "grey". Working default.
func Shows(is, want RGB) string {
	l1, a1, b1 := is.Lab()
	l2, a2, b2 := want.Lab()
	da, db := a1-a2, b1-b2
	const faint, byLight = 4., .5
	if d := math.Hypot(da, db); d < faint || d < byLight*math.Abs(l1-l2) {
		if l1 < l2 {
			return "grey"
		}
		return "pale"
	}
	switch h := hue(da, db); {
	case (h < 45 || h >= 340) && l1 > 55:
		return "pink"
	case h < 45 || h >= 340:
		return "red"
	case h < 75 && l1 < 60:
		return "brown"
	case h < 75:
		return "orange"
	case h < 115:
		return "yellow"
	case h < 200:
		return "green"
	case h < 300:
		return "blue"
	}
	return "purple"
}

// The grades of cover by the CIEDE2000 difference where a coat is thinnest. Working defaults.
const (
	coversAt = 1.5 // nobody sees it in use
	nearlyAt = 3.
	patchyAt = 9.
)

// Cover is how coats cover, as a word and what shows.
func Cover(is, want RGB) string {
	switch de := Difference(is, want); {
	case de <= coversAt:
		return "covers"
	case de <= nearlyAt:
		return "nearly covers"
	case de <= patchyAt:
		return "patchy, the ground shows " + Shows(is, want)
	}
	return "streaky, the ground shows " + Shows(is, want)
}

// SeenBeside is the CIEDE2000 difference from which two mixes are clearly two colours, and not only seen where
// they meet. Working default.
const SeenBeside = 3.
