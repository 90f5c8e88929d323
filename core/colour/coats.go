package colour

// Layer is one coat of a plan as far as its colour goes.
type Layer struct {
	// Paint is the masstone of the coat, and Power its scattering power where it is thinnest.
	Paint RGB
	Power float64
}

// Looks is the colour after each of some coats over a ground.
func Looks(ground RGB, coats []Layer) []RGB {
	out := make([]RGB, len(coats))
	for i, c := range coats {
		ground = Over(ground, c.Paint, c.Power)
		out[i] = ground
	}
	return out
}

// Undercoat is a tinted first coat that saves a coat of the paint over it.
type Undercoat struct {
	Colour RGB
	// Needs is how many coats of the paint it then takes, and Without how many it takes straight on.
	Needs, Without int
}

// mostNeeded bounds the coats that are counted.
const mostNeeded = 8

// Primed looks for the undercoat that saves most coats of a paint over a ground: one coat of a primer of some
// power, in white, in grey or in a tint of the paint's own colour. It is false where none saves at least one
// coat beside the one that it costs, or where the paint covers in two anyway. near is the CIEDE2000
// difference that counts as covered.
func Primed(ground RGB, paint RGB, power, primer, near float64) (Undercoat, bool) {
	without, _ := Needed(ground, paint, power, near, mostNeeded)
	if without <= 2 {
		return Undercoat{}, false
	}
	l, a, b := paint.Lab()
	best := Undercoat{Needs: without, Without: without}
	for _, t := range []RGB{
		FromLab(92, 0, 2), FromLab(min(88, max(30, l)), 0, 0), FromLab(min(88, max(25, l)), a*.5, b*.5), FromLab(min(88, max(20, l)), a*.8, b*.8),
	} {
		t = Masstone(t)
		n, _ := Needed(Over(ground, t, primer), paint, power, near, mostNeeded)
		if n < best.Needs {
			best.Needs, best.Colour = n, t
		}
	}
	return best, best.Needs < without
}
