package check

import (
	"rutile/core/craft"
	"rutile/core/surface"
)

// Adhesion is how well a plan is expected to hold.
type Adhesion struct {
	// Risk is the chance, 0 to 1, that some boundary is weaker than Demand.
	Risk float64
	// Expected is the risk over everything the surface may be, each counted by
	// the belief in it, and If says what the surface is where it is Risk.
	Expected float64
	If       string
	Demand   float64
	Weakest  surface.Boundary
	Variant  surface.Facts // the surface it was worked out for
	Boundary []Bond        // every bond, weakest first
	zone     *Zone
}

// Bond is one boundary with its own risk.
type Bond struct {
	surface.Boundary
	Risk float64
}

// RiskShown is the smallest risk that is shown as a figure; less than that is
// "below 2 %".
const RiskShown = .02

// The risks of peeling from which a plan is watched, and from which it fails.
const (
	riskWatch = .10
	riskFail  = .35
)

// RiskVerdict is what a risk of peeling means for a plan.
func RiskVerdict(risk float64) Verdict {
	switch {
	case risk >= riskFail:
		return Fails
	case risk >= riskWatch:
		return Watched
	}
	return Sound
}

// classFrom is the least strength of each class of the six-step cross-cut
// scale (ASTM D3359, method B). Working default.
var classFrom = []struct {
	class string
	from  float64
}{{"5B", .88}, {"4B", .75}, {"3B", .60}, {"2B", .45}, {"1B", .30}, {"0B", 0}}

// Class is the class of the cross-cut scale that a strength corresponds to.
func Class(strength float64) string {
	for _, c := range classFrom {
		if strength >= c.from {
			return c.class
		}
	}
	return "0B"
}

// bonds gathers the boundaries of a walk into buf, each bond once, at its
// riskiest.
func bonds(c *craft.Craft, t *surface.Trace, demand, doubt float64, skip func(*surface.Boundary) bool, buf []Bond) []Bond {
	buf = buf[:0]
	for i := range t.Events {
		e := &t.Events[i]
		for j := range e.Boundaries() {
			b := &e.Bounds[j]
			if skip(b) {
				continue
			}
			at := 0
			for at < len(buf) && !buf[at].SameBond(b) {
				at++
			}
			if at == len(buf) {
				buf = append(buf, Bond{*b, b.Risk(c, demand, doubt)})
				continue
			}
			o := &buf[at]
			if o.Strength == b.Strength && o.Factors == b.Factors && o.PatchTests == b.PatchTests {
				continue // a second coat that is like the first
			}
			if r := b.Risk(c, demand, doubt); r > o.Risk {
				*o = Bond{*b, r}
			}
		}
	}
	return buf
}

// together is the probability that at least one of the bonds fails.
func together(bs []Bond) float64 {
	hold := 1.
	for i := range bs {
		hold *= 1 - bs[i].Risk
	}
	return 1 - hold
}

// Stain is what one bleeder is expected to show.
type Stain struct {
	Bleeder craft.Bleeder
	Region  surface.RegionKind
	// DeltaE is the final stain, in CIEDE2000 units, on the finished colour.
	DeltaE float64
	// Load, Lets and Show multiply to DeltaE: what there is, what the coats
	// let through, and what the finished colour lets the eye see.
	Load, Transmitted, Show float64
	Blocked                 bool
}

// The stains from which a plan is watched, and from which it fails.
const (
	stainWatch = 1.
	stainFail  = 3.
)

// StainVerdict is what a stain in CIEDE2000 units means for a plan.
func StainVerdict(de float64) Verdict {
	switch {
	case de >= stainFail:
		return Fails
	case de >= stainWatch:
		return Watched
	}
	return Sound
}

// After is the stain after some days: it comes with the bleeder's own
// slowness and never goes back.
func (s *Stain) After(days float64) float64 {
	return s.DeltaE * craft.Bleeders[s.Bleeder].Come(days)
}

// Show is the share of a stain that the eye sees on a finish of lightness
// l (CIELAB L*, 0 to 100): all of it on white, a tenth on black. Working
// default.
func Show(l float64) float64 { return min(1, max(.1, (l-30)/60)) }

// stains fills in the final stain of every bleeder at the end of a walk, on
// the patch where it is worst.
func stains(end *surface.State, light float64, out *[craft.NumBleeders]Stain) {
	for b := range out {
		out[b] = Stain{Bleeder: craft.Bleeder(b)}
		show := Show(light)
		if craft.Bleeders[b].Clear {
			show = 1
		}
		for i := range end.Regions[:end.N] {
			p := &end.Regions[i]
			if p.Coats == 0 || p.Load[b] == 0 || p.Kind == surface.Worn {
				continue // worn places have a rule of their own
			}
			de := p.Stain(craft.Bleeder(b)) * show
			if de > out[b].DeltaE {
				out[b] = Stain{
					Bleeder: craft.Bleeder(b), Region: p.Kind, DeltaE: de,
					Load: float64(p.Load[b]), Transmitted: float64(p.Transmitted[b]), Show: show,
					Blocked: p.Blocked&(1<<b) != 0,
				}
			}
		}
	}
}
