package check

import (
	"math"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/surface"
)

// Open is what lets a step be done only for a time.
type Open uint8

// What it may be: nothing, the recoat window of the coat below, tack, or paint that can still be moved.
const (
	OpenAlways Open = iota
	OpenRecoat
	OpenTack
	OpenSoft
)

// Window is when a step of a judged plan may be begun, in hours of the walk.
type Window struct {
	// From is the earliest at which what is below allows it; the plan may wait longer. To is the latest, infinite
	// where there is none.
	From, To float64
	Why      Open
	// Below is what must have dried or still be open; NoProduct where that is no coat of the plan.
	Below craft.Product
}

// WindowOf is the window of the i-th event of a walk.
func WindowOf(c *craft.Craft, f *surface.Facts, t *surface.Trace, i int) Window {
	e := &t.Events[i]
	w := Window{To: math.Inf(1), Below: craft.NoProduct}
	until := func(to float64, why Open, below craft.Product) {
		if to < w.To {
			w.To, w.Why, w.Below = to, why, below
		}
	}
	for k := range e.Boundaries() {
		b := &e.Bounds[k]
		if b.Under == craft.NoProduct {
			continue
		}
		at := e.Begun - b.Waited
		low, up := &c.Products[b.Under], &c.Products[b.Product]
		if tacky := TackyFor(c, f.Air(at, e.Begun), b.Under); up.Coat == craft.MK && (low.Coat == craft.SH || low.Coat == craft.AE) && whileTacky(t, i, b.Under, tacky) {
			w.From = max(w.From, at)
			until(at+tacky, OpenTack, b.Under)
			continue
		}
		w.From = max(w.From, at+b.Earliest)
		if w.Below == craft.NoProduct {
			w.Below = b.Under
		}
		switch {
		case b.Timing == surface.Scuffed:
		case low.Dried == craft.ShellacNew && up.Coat != craft.SH:
			if b.WantsKey() {
				until(at+min(b.Latest, surface.ShellacFresh), OpenRecoat, b.Under)
			}
		case b.Latest < craft.Never:
			until(at+b.Latest, OpenRecoat, b.Under)
		}
	}
	p := &e.Before.Regions[surface.Field]
	if e.NBounds > 0 && p.Resist > surface.ResistWax {
		until(p.ResistAt+tackTo(c, f.Air(p.ResistAt, e.Begun), p.Resist), OpenTack, craft.NoProduct)
	}
	if e.Effect != nil && p.Product != craft.NoProduct {
		low := &c.Products[p.Product]
		slow := drying.FactorOf(low, f.Air(p.At, e.Begun))
		switch {
		case e.Effect.Ground == craft.GroundTack && c.Fills(p.Product, craft.ForSize):
			w.From = max(w.From, p.At+low.Tacky.From*slow)
			until(p.At+low.Tacky.To*slow, OpenTack, p.Product)
		case e.Effect.Ground == craft.GroundSoft && low.Softens.Never > 0:
			until(p.At+low.Softens.Works*slow, OpenSoft, p.Product)
		}
	}
	return w
}

// whileTacky tells whether the plan means to paint over a coat while it is tacky: it leaves it no longer than it stays
// so.
func whileTacky(t *surface.Trace, i int, under craft.Product, tacky float64) bool {
	for k := i - 1; k >= 0; k-- {
		if s := t.Events[k].Doing; s.Do == surface.Coat && s.Product == under {
			return !s.Auto && s.WaitH <= tacky
		}
	}
	return false
}
