package colour

import (
	"cmp"
	"math"
	"slices"
	"strings"
	"sync"
)

// Name is the plain name that comes nearest to a colour, as "pale grey-green". It is made
// from the lightness L*, chroma C* and hue h of CIELAB (CIE 15); where one name ends and
// the next begins is a working default.
func Name(c RGB) string {
	l, a, b := c.Lab()
	return nameOf(l, math.Hypot(a, b), hue(a, b))
}

// NameHex is the name of a colour written as #rrggbb; what is no colour is returned as it is.
func NameHex(hex string) string {
	c, ok := Parse(hex)
	if !ok {
		return hex
	}
	return Name(c)
}

// Chroma from which a colour has a tinge, is greyed, is plain, and is bright.
const (
	tinge  = 3.5
	greyed = 9.
	plain  = 18.
	bright = 55.
)

// From a lightness of pale on, a colour is plain from a chroma of palePlain.
const (
	pale      = 70.
	palePlain = 15.
)

// lightness puts a word before the name of a colour that is called dark below a lightness.
func lightness(l, from float64, name string) string {
	switch {
	case l >= 86:
		return "very pale " + name
	case l >= pale:
		return "pale " + name
	case l >= from:
		return name
	case l >= from*veryDark:
		return "dark " + name
	}
	return "very dark " + name
}

// Lightness below which a colour is called dark. Brown, blue and purple are dark by nature.
const (
	darkMost = 42.
	darkDeep = 34.
	// veryDark is the share of that lightness below which it is called very dark.
	veryDark = .55
)

func nameOf(l, c, h float64) string {
	switch {
	case l < 8:
		return "black"
	case c < tinge && l >= 97:
		return "white"
	case c < tinge && l >= 88:
		return "off-white"
	case c < tinge && l < 26:
		return "charcoal"
	case c < tinge:
		return lightness(l, darkMost, "grey")
	}
	f := familyOf(h)
	switch {
	case c < greyed && l >= 88 && f.white != "":
		return f.white
	case c < greyed && l >= 88:
		return f.ish + " white"
	case c < greyed:
		return lightness(l, darkMost, f.ish+" grey")
	}
	if f.warm != nil {
		if name := f.warm(l, c); name != "" {
			return name
		}
	}
	name, dark := f.name, darkMost
	if f.deep {
		dark = darkDeep
	}
	if f.pale != "" && l >= f.paleFrom {
		name = f.pale
	}
	switch {
	case c < plain && l < pale || c < palePlain:
		return lightness(l, dark, cmp.Or(f.grey, "grey-"+name))
	case c >= bright && l >= dark:
		return "bright " + name
	}
	return lightness(l, dark, name)
}

// A hueFamily is the hues that share a name, up to a hue in degrees.
type hueFamily struct {
	to        float64
	name, ish string
	// pale is what the family is called from a lightness on, where that is another name.
	pale     string
	paleFrom float64
	deep     bool // it is dark by nature
	// white and grey are what its whites and its greyed colours are called, where that is not made
	// from the name.
	white, grey string
	// warm names browns, creams and their like; empty where it has no name of its own.
	warm func(l, c float64) string
}

var hueFamilies = []hueFamily{
	{to: 15, name: "wine red", ish: "pinkish", grey: "grey-pink", pale: "pink", paleFrom: 50},
	{to: 46, name: "red", ish: "reddish", pale: "pink", paleFrom: 62},
	{to: 68, name: "orange", ish: "brownish", white: "warm white", grey: "pinkish beige", pale: "peach", paleFrom: 74, warm: func(l, c float64) string {
		if c < 42 && l < 70 {
			return lightness(l, darkDeep, "brown")
		}
		return ""
	}},
	{to: 85, name: "golden yellow", ish: "beige", white: "warm white", warm: func(l, c float64) string {
		switch {
		case c >= 42:
			return ""
		case l >= 88:
			return "cream"
		case l >= 70:
			return "beige"
		case l >= 52:
			return "tan"
		}
		return lightness(l, darkDeep, "brown")
	}},
	{to: 106, name: "yellow", ish: "yellowish", warm: func(l, c float64) string {
		switch {
		case l >= 86 && c < 30:
			return "cream"
		case l >= 62 && c < 34:
			return "sand"
		case l < 62:
			return lightness(l, darkMost, "olive")
		}
		return ""
	}},
	{to: 130, name: "yellow-green", ish: "greenish"},
	{to: 168, name: "green", ish: "greenish"},
	{to: 195, name: "blue-green", ish: "greenish"},
	{to: 220, name: "blue-green", ish: "bluish"},
	{to: 308, name: "blue", ish: "bluish", deep: true},
	{to: 345, name: "purple", ish: "purplish", deep: true, pale: "lilac", paleFrom: 62},
	{to: 361, name: "wine red", ish: "pinkish", grey: "grey-pink", pale: "pink", paleFrom: 50},
}

func familyOf(h float64) *hueFamily {
	for i := range hueFamilies {
		if h < hueFamilies[i].to {
			return &hueFamilies[i]
		}
	}
	return &hueFamilies[0]
}

// otherWords are what people also call a colour.
var otherWords = map[string]string{
	"navy": "dark blue", "navy blue": "dark blue", "mint": "pale green", "teal": "blue-green",
	"turquoise": "bright blue-green", "burgundy": "dark wine red", "maroon": "dark red", "ivory": "cream",
	"lavender": "lilac", "violet": "purple", "gold": "golden yellow", "sage": "grey-green", "chocolate": "dark brown",
}

// Named is the colour of a name like those that [Name] gives; false for an unknown name. Capitals,
// hyphens and the spelling gray make no difference.
func Named(name string) (RGB, bool) {
	key := plainWord(name)
	if to, ok := otherWords[key]; ok {
		key = plainWord(to)
	}
	for _, n := range namesOnce() {
		if plainWord(n.name) == key {
			return n.colour, true
		}
	}
	return RGB{}, false
}

// Names lists the names that [Name] gives and [Named] reads.
func Names() []string {
	all := namesOnce()
	out := make([]string, len(all))
	for i := range all {
		out[i] = all[i].name
	}
	return out
}

// Words lists every name that [Named] reads: those of [Names], and what people also say.
func Words() []string {
	out := Names()
	for w := range otherWords {
		out = append(out, w)
	}
	slices.Sort(out)
	return out
}

func plainWord(s string) string {
	s = strings.ReplaceAll(strings.ToLower(s), "-", " ")
	s = strings.ReplaceAll(" "+strings.Join(strings.Fields(s), " ")+" ", " gray ", " grey ")
	return strings.ReplaceAll(strings.TrimSpace(s), "light ", "pale ")
}

type named struct {
	name   string
	colour RGB
}

// namesOnce works out which names there are and a colour in the middle of each: of the colours on
// a grid that a screen can show, the one of that name that lies nearest to their mean.
var namesOnce = sync.OnceValue(func() []named {
	const stepL, stepC, stepH = 3., 4., 6.
	type point [3]float64
	of := map[string][]point{}
	for l := 0.; l <= 100; l += stepL {
		for c := 0.; c <= 110; c += stepC {
			for h := 0.; h < 360; h += stepH {
				a, b := c*math.Cos(h*math.Pi/180), c*math.Sin(h*math.Pi/180)
				if rgb := FromLab(l, a, b); slices.Min(rgb[:]) < 0 || slices.Max(rgb[:]) > 1 {
					continue
				}
				n := nameOf(l, c, hue(a, b))
				of[n] = append(of[n], point{l, a, b})
			}
		}
	}
	out := make([]named, 0, len(of)+1)
	for name, ps := range of {
		var mean point
		for _, p := range ps {
			for i := range mean {
				mean[i] += p[i] / float64(len(ps))
			}
		}
		best, near := RGB{}, math.Inf(1)
		for _, p := range ps {
			d := math.Hypot(math.Hypot(p[0]-mean[0], p[1]-mean[1]), p[2]-mean[2])
			rgb, _ := Parse(FromLab(p[0], p[1], p[2]).Hex())
			if d < near && Name(rgb) == name {
				best, near = rgb, d
			}
		}
		if !math.IsInf(near, 1) {
			out = append(out, named{name, best})
		}
	}
	for i := range out {
		switch out[i].name {
		case "white":
			out[i].colour = RGB{1, 1, 1}
		case "black":
			out[i].colour = RGB{}
		}
	}
	slices.SortFunc(out, func(a, b named) int { return strings.Compare(a.name, b.name) })
	return out
})
