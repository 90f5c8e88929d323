package plan

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/surface"
)

// Trip is one visit to the workbench: the same work on one or more zones, one after another.
type Trip struct {
	Does   string // as a step is worded
	Kind   surface.StepKind
	Visits []Visit
	// Start is in hours after the first trip began, and Minutes the work of all its
	// visits.
	Start, Minutes float64
	// While names the zones that dry meanwhile.
	While []int
	// Caution says that it was put a day away from something that must never meet it; empty for most.
	Caution string
}

// Visit is what a trip does to one zone.
type Visit struct {
	Zone, Step int // the step from 1
	Coat       int // of a coat step, from 1; 0 for any other
	Minutes    float64
}

// deed is one thing to be done to a zone, with what it waits for.
type deed struct {
	label   string
	words   string
	kind    surface.StepKind
	step    int
	coat    int
	minutes float64
	// bears is what it brings into the room that must not meet certain others, NumChemicals for nothing.
	bears craft.Chemical
	// after is how long after the deed before it may begin, and until how long after
	// it must, in hours.
	after, until float64
}

// orderOf ranks kinds of step in the order of the work, so that all cleaning comes
// before all sanding where nothing else decides.
var orderOf = map[surface.StepKind]int{
	surface.Remove: 0, surface.Clean: 1, surface.Strip: 2, surface.Repair: 3, surface.Fill: 4, surface.RaiseGrain: 5,
	surface.Abrade: 6, surface.Dust: 7, surface.Mask: 8, surface.Coat: 9, surface.Effect: 10, surface.Test: 11, surface.Reassemble: 12,
}

// Trips combines the plans of several zones into one schedule: the same work on several zones is
// one trip as far as their coats allow, and while one zone dries another is worked on. Zones
// without steps are left out. It assumes one pair of hands that never rest, and is not proved to be
// the best.
func Trips(c *craft.Craft, zones []check.Zone) []Trip {
	deeds := make([][]deed, len(zones))
	for i := range zones {
		deeds[i] = deedsOf(c, &zones[i])
	}
	next := make([]int, len(zones)) // of each zone's deeds
	ready, latest := make([]float64, len(zones)), make([]float64, len(zones))
	for i := range latest {
		latest[i] = math.Inf(1)
	}
	var out []Trip
	now := 0.
	var used [craft.NumChemicals]float64 // until when each is in the room
	for {
		cautions := apart(deeds, next, ready, used)
		trip, ok := nextTrip(deeds, next, ready, latest, now)
		if !ok {
			return out
		}
		t := Trip{Start: math.Inf(1)}
		for _, i := range trip {
			d := &deeds[i][next[i]]
			begin := max(now, ready[i])
			t.Start = min(t.Start, begin)
			t.Does, t.Kind = d.words, d.kind
			t.Visits = append(t.Visits, Visit{i, d.step, d.coat, d.minutes})
			t.Minutes += d.minutes
			now = begin + d.minutes/60
			if d.bears < craft.NumChemicals {
				used[d.bears] = now + craft.Apart
			}
			t.Caution = cmp.Or(t.Caution, cautions[i])
			if next[i]++; next[i] < len(deeds[i]) {
				after := &deeds[i][next[i]]
				ready[i], latest[i] = now+after.after, now+after.until
			}
		}
		for i := range zones {
			if next[i] > 0 && next[i] < len(deeds[i]) && ready[i] > t.Start && !slices.Contains(trip, i) {
				t.While = append(t.While, i)
			}
		}
		out = append(out, t)
	}
}

// apart holds back what must not meet something else that was in the room within a day, on any zone,
// and says so, by zone.
func apart(deeds [][]deed, next []int, ready []float64, used [craft.NumChemicals]float64) map[int]string {
	out := map[int]string{}
	for i := range deeds {
		if next[i] == len(deeds[i]) {
			continue
		}
		d := &deeds[i][next[i]]
		for _, x := range craft.NeverTogether {
			for _, pair := range [][2]craft.Chemical{{x.A, x.B}, {x.B, x.A}} {
				if d.bears == pair[0] && used[pair[1]] > 0 {
					ready[i] = max(ready[i], used[pair[1]])
					out[i] = fmt.Sprintf("A day away from %s: air the room, and use another bucket and other rags. %s", craft.ChemicalNames[pair[1]], x.Says)
				}
			}
		}
	}
	return out
}

// nextTrip chooses the zones that are worked on next: all that have the same thing
// to be done now, where no other zone has yet to come to it. Of several such things
// the one that can begin first is done, and of those the earlier in the order of
// the work; a window that would close goes before everything.
func nextTrip(deeds [][]deed, next []int, ready, latest []float64, now float64) ([]int, bool) {
	type batch struct {
		zones        []int
		begin, until float64
		order        int
		missing      bool // another zone will need the same later
		label        string
	}
	var all []batch
	for i := range deeds {
		if next[i] == len(deeds[i]) {
			continue
		}
		d := &deeds[i][next[i]]
		k := slices.IndexFunc(all, func(b batch) bool { return b.label == d.label })
		if k < 0 {
			all = append(all, batch{label: d.label, until: math.Inf(1), order: orderOf[d.kind]})
			k = len(all) - 1
		}
		b := &all[k]
		b.zones = append(b.zones, i)
		b.begin, b.until = max(b.begin, now, ready[i]), min(b.until, latest[i])
	}
	if len(all) == 0 {
		return nil, false
	}
	for k := range all {
		b := &all[k]
		for i := range deeds {
			if next[i] < len(deeds[i]) && !slices.Contains(b.zones, i) {
				b.missing = b.missing || slices.ContainsFunc(deeds[i][next[i]:], func(d deed) bool { return d.label == b.label })
			}
		}
		// A zone whose window closes before the others are ready goes alone.
		if b.begin > b.until {
			slices.SortFunc(b.zones, func(x, y int) int { return cmp.Compare(latest[x], latest[y]) })
			b.zones = b.zones[:1]
			b.begin, b.missing, b.order = max(now, ready[b.zones[0]]), false, -1
		}
	}
	const soon = 12 // hours within which a closing window is not made to wait
	first := slices.MinFunc(all, func(x, y batch) int {
		m := func(b batch) int {
			switch {
			case b.until-b.begin < soon:
				return 0
			case !b.missing:
				return 1
			}
			return 2
		}
		return cmp.Or(cmp.Compare(m(x), m(y)), cmp.Compare(x.begin, y.begin), cmp.Compare(x.order, y.order), cmp.Compare(x.label, y.label))
	})
	slices.SortFunc(first.zones, func(x, y int) int { return cmp.Or(cmp.Compare(ready[x], ready[y]), cmp.Compare(x, y)) })
	return first.zones, true
}

// deedsOf lists what is done to a zone, with the waits that its walk shows.
func deedsOf(c *craft.Craft, z *check.Zone) []deed {
	f := z.Facts
	if f.Area <= 0 {
		f.Area = 1
	}
	t := surface.Walk(c, &f, z.Steps)
	var out []deed
	last := 0. // when the work on the deed before ended
	for i := range t.Events {
		e := &t.Events[i]
		s := e.Doing
		if s.Do == surface.Wait || s.Do == surface.Test {
			continue
		}
		if n := len(out); s.Do == surface.Dust && n > 0 && out[n-1].kind == surface.Abrade {
			// It is done where one stands.
			more := e.After.Minutes - e.Before.Minutes
			out[n-1].minutes += more
			out[n-1].words += " and dust off"
			out[n-1].label += " and dust off"
			last = e.Begun + more/60
			continue
		}
		d := deed{
			kind: s.Do, step: e.Step, coat: e.CoatNo, words: check.StepWords(c, s), until: math.Inf(1),
			minutes: e.After.Minutes - e.Before.Minutes, after: max(0, e.Begun-last), bears: craft.NumChemicals,
		}
		if what, ok := check.ChemicalOf(c, s); ok {
			d.bears = what
		}
		if len(out) == 0 {
			d.after = 0
		}
		if s.Do == surface.Coat {
			one := *s
			one.Coats = 0
			d.words = check.StepWords(c, &one)
			for _, b := range e.Boundaries() {
				if b.Under != craft.NoProduct && !math.IsInf(b.Latest, 1) && b.Timing == surface.Inside {
					d.until = min(d.until, d.after+b.Latest-b.Waited)
				}
			}
		}
		d.label = fmt.Sprint(d.words, s.Colour, s.Sheen)
		last = e.Begun + d.minutes/60
		out = append(out, d)
	}
	return out
}
