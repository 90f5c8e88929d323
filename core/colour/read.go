package colour

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// ReadError says why a typed colour cannot be used.
type ReadError struct{ Says string }

// Error returns the sentence.
func (e *ReadError) Error() string { return e.Says }

// Read is a colour as people write it: a plain name, #rrggbb or #rgb with or without its sign, or L*a*b* as
// "lab(62, 12, -8)", "L 62 a 12 b -8" or three numbers, with decimal points or, where semicolons or spaces
// part the numbers, decimal commas. inGamut tells whether a screen can show it; where it cannot, the colour
// is the nearest that paint can have and clipping shows. The error is a *ReadError.
func Read(text string) (c RGB, inGamut bool, err error) {
	s := strings.ToLower(strings.TrimSpace(text))
	if s == "" {
		return RGB{}, false, &ReadError{"Enter a colour: a name, #rrggbb, or L*a*b* such as lab(62, 12, -8)."}
	}
	if c, ok := Named(s); ok {
		return c, true, nil
	}
	if c, ok := readHex(strings.TrimPrefix(s, "#")); ok {
		return c, true, nil
	}
	nums, ok := labNumbers(s)
	if !ok {
		return RGB{}, false, &ReadError{fmt.Sprintf("“%s” is not a colour. Enter a name such as pale grey-green, #rrggbb such as #e4e8df, or L*a*b* such as lab(62, 12, -8).", clip(text))}
	}
	switch l, a, b := nums[0], nums[1], nums[2]; {
	case l < 0 || l > 100:
		return RGB{}, false, &ReadError{fmt.Sprintf("L* is %s; it goes from 0, black, to 100, white.", short(l))}
	case math.Abs(a) > mostAB || math.Abs(b) > mostAB:
		return RGB{}, false, &ReadError{fmt.Sprintf("a* and b* go from -%d to %d; this has %s and %s.", mostAB, mostAB, short(a), short(b))}
	default:
		c = FromLab(l, a, b)
		return c, InGamut(c), nil
	}
}

// mostAB bounds a* and b*: no surface has more.
const mostAB = 130

// InGamut tells whether a screen can show a colour, but for rounding.
func InGamut(c RGB) bool {
	const room = 2e-3
	for _, x := range c {
		if x < -room || x > 1+room {
			return false
		}
	}
	return true
}

func readHex(s string) (RGB, bool) {
	if len(s) == 3 {
		s = string([]byte{s[0], s[0], s[1], s[1], s[2], s[2]})
	}
	if len(s) != 6 {
		return RGB{}, false
	}
	return Parse("#" + s)
}

// labNumbers are the three numbers of a colour in CIELAB.
func labNumbers(s string) (out [3]float64, ok bool) {
	s = strings.NewReplacer("cielab", " ", "lab", " ", "l*", " ", "a*", " ", "b*", " ", "l", " ", "a", " ", "b", " ", "(", " ", ")", " ", "=", " ", ":", " ", "−", "-", ";", " ; ").Replace(s)
	if !strings.ContainsAny(s, ".;") && strings.Count(s, ",") == 3 || strings.Contains(s, ";") {
		s = strings.ReplaceAll(s, ";", " ")
	} else if !decimalCommas(s) {
		s = strings.ReplaceAll(s, ",", " ")
	}
	fields := strings.Fields(s)
	if len(fields) != len(out) {
		return out, false
	}
	for i, f := range fields {
		x, err := strconv.ParseFloat(strings.ReplaceAll(f, ",", "."), 64)
		if err != nil || math.IsNaN(x) || math.IsInf(x, 0) {
			return out, false
		}
		out[i] = x
	}
	return out, true
}

// decimalCommas tells whether the commas of three numbers separated by spaces are within them.
func decimalCommas(s string) bool {
	fields := strings.Fields(s)
	if len(fields) != 3 || strings.Contains(s, ".") {
		return false
	}
	for _, f := range fields {
		if strings.HasSuffix(f, ",") || strings.HasPrefix(f, ",") {
			return false
		}
	}
	return strings.Contains(s, ",")
}

func short(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }

func clip(s string) string {
	rs := []rune(strings.TrimSpace(s))
	if len(rs) > 30 {
		return string(rs[:30]) + "…"
	}
	return string(rs)
}

// Mean is the average of colours of a patch, in linear light, without the darkest and the brightest tenth:
// dust and glints. At returns the n-th pixel in sRGB steps. It is false where there are none.
func Mean(n int, at func(i int) (r, g, b uint8)) (RGB, bool) {
	if n <= 0 {
		return RGB{}, false
	}
	// By luminance, in a thousand bins, the sum of each.
	const bins = 1000
	var sums [bins]RGB
	var counts [bins]int
	for i := range n {
		r, g, b := at(i)
		c := RGB{linear[r], linear[g], linear[b]}
		k := min(bins-1, int(c.Y()*bins))
		counts[k]++
		for j := range c {
			sums[k][j] += c[j]
		}
	}
	drop := n / 10
	var out RGB
	seen, kept := 0, 0.
	for k := range bins {
		if counts[k] == 0 {
			continue
		}
		// Of this bin those that lie between the two tenths.
		from, to := max(seen, drop), min(seen+counts[k], n-drop)
		seen += counts[k]
		if to <= from {
			continue
		}
		share := float64(to-from) / float64(counts[k])
		kept += float64(to - from)
		for j := range out {
			out[j] += sums[k][j] * share
		}
	}
	for j := range out {
		out[j] /= kept
	}
	return out, true
}

// Paper is what white paper or a white card reflects. Working default.
const Paper = .88

// Balanced is a colour of a photograph corrected by the patch of something white in the same light: each
// band is scaled so that the white reflects as [Paper] does (von Kries, in linear sRGB). It is false where
// the white patch is too dark or too coloured to be white, or is burnt out.
func Balanced(c, whitePatch RGB) (RGB, bool) {
	lo, hi := min(whitePatch[0], whitePatch[1], whitePatch[2]), max(whitePatch[0], whitePatch[1], whitePatch[2])
	const dark, burnt, cast = .08, .995, 4
	if lo < dark || lo >= burnt || hi > cast*lo {
		return c, false
	}
	for i := range c {
		c[i] = min(1, c[i]*Paper/whitePatch[i])
	}
	return c, true
}
