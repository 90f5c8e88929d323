package check

import (
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/surface"
)

// Case is one walk under judgement: the zone taken for one of the things it
// candidates be.
type Case struct {
	Craft  *craft.Craft
	Zone   *Zone
	Facts  *surface.Facts
	Trace  surface.Trace
	Demand float64
	Doubt  float64 // what not knowing the surface adds to the spread of the log of a strength
	Barred bool    // lead forbids dry work
	Lead   LeadState
	Bonds  []Bond
	Risk   float64
	Stains [craft.NumBleeders]Stain
	Opaque bool // some coat hides the ground
	Coated bool // there is a coat at all
	// Look is the wanted effect, nil for a solid look. Chippy and Cracks tell that paint is meant
	// to come off, by flaking or over a medium.
	Look           *craft.EffectRow
	Chippy, Cracks bool
	Appearance     Appearance
	Chips          Chips
	worn           Stain // the worst that comes through worn edges
	powers         []power
	covers         []cover
	pairs          map[uint16]string
	patchTests     []surface.PatchTest
	hits           []Hit
	current        *Rule
	// anew is how many events were left out, because what they laid was taken off again.
	anew int
}

// Add records a finding of the rule at work.
func (k *Case) Add(h Hit) {
	h.Rule, h.Case = k.current, k
	for i := range k.hits {
		o := &k.hits[i]
		if o.same(&h) && (!h.Rule.Each || o.Step == h.Step) {
			if h.Severity > o.Severity {
				*o = h
			}
			return
		}
	}
	k.hits = append(k.hits, h)
}

// meantToFlake tells whether this coat is meant to come off: powder paint under a flaking look, a
// resist in spots, and the coat over a medium under a cracked or lifted look.
func (k *Case) meantToFlake(b *surface.Boundary) bool {
	if k.Chippy {
		switch k.Craft.Products[b.Product].Coat {
		case craft.MK:
			return true
		case craft.WX, craft.SH, craft.AE: // a resist, or a seal over it, on the spots
			if b.Region == surface.SpotRegion {
				return true
			}
		}
	}
	return k.Cracks && k.crackles(b)
}

// crackles tells whether a coat lies on what makes it crack or pull away: a medium,
// or under a cracked look shellac or lacquer that is still tacky below powder
// paint.
func (k *Case) crackles(b *surface.Boundary) bool {
	return k.onMedium(b) || k.Cracks && k.keepsOff(b) && k.Craft.Products[b.Under].Coat != craft.WX
}

// onMedium tells whether a coat lies on a crackle or lift medium.
func (k *Case) onMedium(b *surface.Boundary) bool {
	return b.Under != craft.NoProduct && k.Craft.Products[b.Under].Coat == craft.CM
}

// walk takes the zone through its plan, and works out what the rules look at; of
// the beginning of a plan no more than how it holds.
func (k *Case) walk(whole bool) {
	c, z := k.Craft, k.Zone
	k.Trace.Walk(c, k.Facts, z.Steps)
	if k.anew = 0; len(z.Steps) > 0 && z.Steps[0].Done != nil {
		k.anew = begunAnew(k.Trace.Events)
		k.Trace.Events = k.Trace.Events[k.anew:]
	}
	k.look()
	if tests := k.tested(); len(tests) > 0 {
		for i := range k.Trace.Events {
			for j := range k.Trace.Events[i].Boundaries() {
				k.Trace.Events[i].Bounds[j].Learn(c, tests, k.Doubt)
			}
		}
	}
	k.Demand = k.Facts.Demand()
	k.Opaque, k.Coated = false, false
	for i := range z.Steps {
		if s := &z.Steps[i]; s.Do == surface.Coat {
			k.Coated = true
			k.Opaque = k.Opaque || c.Products[s.Product].Opaque()
		}
	}
	k.Bonds = bonds(c, &k.Trace, k.Demand, k.Doubt, k.meantToFlake, k.Bonds)
	k.Risk = together(k.Bonds)
	if !whole {
		return
	}
	stains(&k.Trace.End, z.lightness(c), &k.Stains)
	k.paint()
	k.chip()
}

// airAt is the air in which a step, from 1, is begun.
func (k *Case) airAt(step int) drying.Climate {
	for i := range k.Trace.Events {
		if e := &k.Trace.Events[i]; e.Step == step {
			return k.Facts.Air(e.Begun, e.Begun)
		}
	}
	return k.Facts.Climate
}

// airSince is the air of the hours that were waited before a step, from 1, was begun.
func (k *Case) airSince(step int, waited float64) drying.Climate {
	for i := range k.Trace.Events {
		if e := &k.Trace.Events[i]; e.Step == step {
			return k.Facts.Air(e.Begun-max(0, waited), e.Begun)
		}
	}
	return k.Facts.Climate
}

// ask runs rules over the walk.
func (k *Case) ask(rules ...*Rule) {
	k.hits = k.hits[:0]
	for _, r := range rules {
		k.current = r
		if r.Step != nil {
			for i := range k.Trace.Events {
				r.Step(k, &k.Trace.Events[i])
			}
		}
		if r.End != nil {
			r.End(k)
		}
	}
}

// look finds out what is wanted.
func (k *Case) look() {
	k.Look, k.Chippy, k.Cracks = nil, false, false
	if x, ok := k.Craft.Effect(k.Zone.Look); ok {
		k.Look = &k.Craft.Effects[x]
	}
	wants := func(x *craft.EffectRow) {
		k.Chippy = k.Chippy || x.Flakes()
		k.Cracks = k.Cracks || x.Cracks
	}
	if k.Look != nil {
		wants(k.Look)
	}
	for i := range k.Trace.Events {
		if x := k.Trace.Events[i].Effect; x != nil {
			wants(x)
		}
	}
}

// tested are the rated patch tests: those of the zone, and those that the plan
// itself holds, each of which was made of the coat before it. What was wrong
// with that coat is not divided out: a patch that held in spite of grease is no
// reason to trust the grease.
func (k *Case) tested() []surface.PatchTest {
	k.patchTests = append(k.patchTests[:0], k.Zone.PatchTests...)
	for i := range k.Trace.Events {
		e := &k.Trace.Events[i]
		if e.Doing.Do != surface.Test {
			continue
		}
		for j := i - 1; j >= 0; j-- {
			if bs := k.Trace.Events[j].Boundaries(); len(bs) > 0 {
				b := &bs[0]
				k.patchTests = append(k.patchTests, surface.PatchTest{
					Product: b.Product, On: b.On, Bare: b.Bare, Additive: b.Additive, Hidden: true,
					Class: e.Doing.Rating, Cap: b.Cap,
				})
				break
			}
		}
	}
	return k.patchTests
}
