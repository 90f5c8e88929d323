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

// Bench is when a studio works.
type Bench struct {
	From, To float64 // hours of the day
	// Days are the days of the week on which it works, Monday first.
	Days [7]bool
}

// UsualBench is that of a studio that has not said: nine to six, Monday to Saturday. Working default.
var UsualBench = Bench{9, 18, [7]bool{true, true, true, true, true, true, false}}

// OrUsual is the bench itself, or the usual one where it says nothing that can be worked in.
func (b Bench) OrUsual() Bench {
	if b.From < 0 || b.To > 24 || b.To-b.From < 1 || !slices.Contains(b.Days[:], true) {
		return UsualBench
	}
	return b
}

// works tells whether the n-th day, from 0, is a working day. The first is the first working day of a week.
func (b *Bench) works(day int) bool { return b.Days[(slices.Index(b.Days[:], true)+day)%7] }

// day is the hours of a day.
const day = 24.

// from is the first moment not before some time, in hours after the first midnight, at which work of some
// hours can begin so that it ends in working hours; work longer than a day begins in the morning.
func (b *Bench) from(at, hours float64) float64 {
	const rounding = 1e-9
	hours = min(hours, b.To-b.From)
	for n := int(at / day); ; n++ {
		opens := float64(n)*day + b.From
		begin := max(at, opens)
		if b.works(n) && begin+hours <= float64(n)*day+b.To+rounding {
			return begin
		}
	}
}

// Trip is one visit to the workbench: the same work on one or more zones, one after another.
type Trip struct {
	Does   string // as a step is worded
	Kind   surface.StepKind
	Visits []Visit
	// Day counts from 1, with those on which nobody works; Clock is the hour of the day at which it begins;
	// Start the hours since the first trip began; and Minutes the work of all its visits, with setting up
	// once.
	Day                   int
	Clock, Start, Minutes float64
	// While names the zones that dry meanwhile.
	While []int
	// Caution says why it was put where it is: a day away from something that must never meet it, or outside
	// the window of a coat that no working hours reach; empty for most.
	Caution string
}

// Visit is what a trip does to one zone.
type Visit struct {
	Zone, Step int // the step from 1
	Coat       int // of a coat step, from 1; 0 for any other
	Minutes    float64
	// Begun is when it begins, in hours after the first midnight.
	Begun float64
}

// Days is how many days trips take, from the first to the last.
func Days(trips []Trip) int {
	if len(trips) == 0 {
		return 0
	}
	return trips[len(trips)-1].Day
}

// deed is one thing to be done to a zone, with what it waits for.
type deed struct {
	label   string
	words   string
	kind    surface.StepKind
	step    int
	coat    int
	minutes float64
	setUp   float64 // minutes of these that are spent once for several zones
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

// Trips lays the plans of several zones out by day: the same work on several zones is one trip as far as
// their coats allow, and while one zone dries another is worked on. Nothing begins or ends outside the
// hours of the bench: a wait that ends at night ends in the morning, and where that would miss the window
// of a coat, the coat before it moves. Zones without steps are left out. It assumes one pair of hands, and
// is not proved to be the best.
func Trips(c *craft.Craft, zones []check.Zone, b Bench) []Trip {
	b = b.OrUsual()
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
	now := b.from(0, 0)
	zero := now
	var used [craft.NumChemicals]float64 // until when each is in the room
	for {
		cautions := apart(deeds, next, ready, used)
		zones, ok := nextTrip(deeds, next, ready, latest, now)
		if !ok {
			return out
		}
		var t *Trip
		for _, i := range zones {
			d := &deeds[i][next[i]]
			begin, fits := b.place(deeds[i][next[i]:], max(now, ready[i]), latest[i])
			hours := d.minutes / 60
			if t == nil || int(begin/day)+1 != t.Day || begin-now > sameTrip {
				out = append(out, Trip{Does: d.words, Kind: d.kind, Day: int(begin/day) + 1, Clock: math.Mod(begin, day), Start: begin - zero})
				t = &out[len(out)-1]
			} else { // set up already
				hours -= d.setUp / 60
			}
			t.Visits = append(t.Visits, Visit{i, d.step, d.coat, hours * 60, begin})
			t.Minutes += hours * 60
			now = begin + hours
			if d.bears < craft.NumChemicals {
				used[d.bears] = now + craft.Apart
			}
			t.Caution = cmp.Or(t.Caution, cautions[i])
			if !fits {
				t.Caution = cmp.Or(t.Caution, "No working hours reach the window of the coat before it: work longer that day, or choose a product that waits.")
			}
			if next[i]++; next[i] < len(deeds[i]) {
				after := &deeds[i][next[i]]
				ready[i], latest[i] = now+after.after, now+after.until
			}
		}
		for i := range next {
			if next[i] > 0 && next[i] < len(deeds[i]) && ready[i] > now-t.Minutes/60 && !slices.Contains(zones, i) {
				t.While = append(t.While, i)
			}
		}
	}
}

// sameTrip is how many hours one may wait for the next zone and still call it the same trip; and slot is
// the grid on which a coat is moved. Working defaults.
const sameTrip, slot = 1., .5

// place is when the first of some deeds of a zone begins: as early as it may and the bench is open, and so
// that the deeds after it, as far as their windows close, fall into working hours as well. False where
// there is no such time; then it is the earliest.
func (b *Bench) place(deeds []deed, ready, latest float64) (float64, bool) {
	earliest := b.from(ready, deeds[0].minutes/60)
	const within = 8 * day // a coat that has not found its place in a week finds none
	for at := earliest; at <= min(latest, ready+within)+rounded; {
		if b.reaches(deeds, at) {
			return at, true
		}
		at = b.from(at+slot, deeds[0].minutes/60)
	}
	return earliest, earliest <= latest+rounded && b.reaches(deeds, earliest)
}

const rounded = 1e-6

// reaches tells whether the deeds after the first fall into their windows in working hours where the first
// begins at some time.
func (b *Bench) reaches(deeds []deed, at float64) bool {
	if len(deeds) < 2 || math.IsInf(deeds[1].until, 1) {
		return true
	}
	end := at + deeds[0].minutes/60
	for next := b.from(end+deeds[1].after, deeds[1].minutes/60); next <= end+deeds[1].until+rounded; next = b.from(next+slot, deeds[1].minutes/60) {
		if b.reaches(deeds[1:], next) {
			return true
		}
	}
	return false
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
		if n := len(out); s.Do == surface.Dust && n > 0 && (out[n-1].kind == surface.Abrade || out[n-1].kind == surface.Effect) {
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
			minutes: e.After.Minutes - e.Before.Minutes, setUp: e.SetUp, after: max(0, e.Begun-last), bears: craft.NumChemicals,
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
