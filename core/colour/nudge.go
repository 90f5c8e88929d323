package colour

import "math"

// Direction is a way in which a blend may be changed.
type Direction uint8

// The directions.
const (
	Lighter Direction = iota
	Darker
	Muted
	Warmer
	Cooler
	// NumDirections counts them.
	NumDirections
)

// DirectionRow names a direction.
type DirectionRow struct{ ID, Name string }

// Directions is indexed by Direction.
var Directions = [NumDirections]DirectionRow{
	Lighter: {"lighter", "Lighter"}, Darker: {"darker", "Darker"}, Muted: {"muted", "More muted"}, Warmer: {"warmer", "Warmer"}, Cooler: {"cooler", "Cooler"},
}

// DirectionNamed returns the direction with an id; false if there is none.
func DirectionNamed(id string) (Direction, bool) {
	for i := range Directions {
		if Directions[i].ID == id {
			return Direction(i), true
		}
	}
	return 0, false
}

// gain is by how much a colour in CIELAB went in a direction, and aside how far it strayed from it. Warm
// is towards orange (h 60), cool towards blue (h 240).
func (d Direction) gain(was, is [3]float64) (gain, aside float64) {
	dl, da, db := is[0]-was[0], is[1]-was[1], is[2]-was[2]
	wasC, isC := math.Hypot(was[1], was[2]), math.Hypot(is[1], is[2])
	warm := da*cosd(60) + db*cosd(30)
	across := math.Abs(da*cosd(30) - db*cosd(60))
	switch d {
	case Lighter:
		return dl, math.Hypot(da, db)
	case Darker:
		return -dl, math.Hypot(da, db)
	case Muted:
		turn := math.Sqrt(max(0, da*da+db*db-(isC-wasC)*(isC-wasC)))
		return wasC - isC, math.Hypot(dl, turn)
	case Warmer:
		return warm, math.Hypot(dl, across)
	}
	return -warm, math.Hypot(dl, across)
}

// Nudge changes a blend by one step in a direction: one part more or less of one of its paints, or a part
// of another of the list. parts are those of the paints by place, 0 for those that are not in it. Of all such
// steps it takes the one that gains most in the direction for what it strays; false where none gains a
// noticeable amount. A blend stays within [MaxPaints] paints and [MaxParts] parts.
func Nudge(paints []Paint, parts []int, d Direction) ([]int, bool) {
	now := make([]float64, len(parts))
	total, used := 0, 0
	for i, n := range parts {
		now[i] = float64(n)
		total += n
		if n > 0 {
			used++
		}
	}
	if total == 0 {
		return parts, false
	}
	was := labOf(Mix(paints, now).Masstone)
	const notice, stray = .4, .5
	best, which, by := 0., -1, 0
	try := func(i, step int) {
		now[i] += float64(step)
		defer func() { now[i] -= float64(step) }()
		gain, aside := d.gain(was, labOf(Mix(paints, now).Masstone))
		if score := gain - stray*aside; gain >= notice && (which < 0 || score > best) {
			best, which, by = score, i, step
		}
	}
	for i, n := range parts {
		if total < MaxParts && (n > 0 || used < MaxPaints) {
			try(i, 1)
		}
		if n > 0 && total > 1 {
			try(i, -1)
		}
	}
	if which < 0 {
		return parts, false
	}
	out := append([]int{}, parts...)
	out[which] += by
	return out, true
}
