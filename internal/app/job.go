package app

import (
	"cmp"
	"slices"
	"time"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/damage"
	"rutile/core/disassembly"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/parts"
	"rutile/core/plan"
	"rutile/core/worklog"
	"rutile/internal/wire"
)

// Workshop is where a piece is judged: everything besides the piece that answers depend on.
type Workshop struct {
	Air      drying.Climate // where the piece names none
	Units    measure.Units  // that findings are worded in
	Today    string         // as 2026-11-24; empty where there is no clock
	LeadYear int            // before which old paint is suspected of lead; 0 as is usual
	Ways     []wire.Way     // ways of working of the studio's own
	// Kit is what plans use; nil for the usual one. HabitsOff are the habits that they leave out, and
	// Bench is when work is done.
	Kit       *plan.Kit
	HabitsOff plan.HabitSet
	Bench     plan.Bench
	// Shelf is the studio's cans; nil where there is none. PieceID is the piece's number there; 0 where it is
	// not known.
	Shelf   *Shelf
	PieceID int
	// Measures are what is measured with when mixing; the zero value stands for the usual ones of the units.
	Measures measure.Measures
	// Now is the moment of the check; zero where there is no clock. Log is what was logged of the piece where it is
	// kept; nil for nothing.
	Now time.Time
	Log *Logged
}

// Job is a decoded piece, converted to the core's types once, for use cases to work on.
type Job struct {
	*Engine
	// Craft is the engine's, with the piece's cans.
	Craft *craft.Craft
	Piece *wire.Piece
	Shop  Workshop
	// Air is that of the piece's own workshop, otherwise of the studio's.
	Air drying.Climate
	// Zones are as the check judges them, each with the paint of the others.
	Zones []check.Zone
	// Parts are those of the piece, each with the index of its zone.
	Parts []parts.Part

	ofZone   [][]parts.Part   // the parts by zone
	measured []parts.Measured // what they come to
	bases    []check.Base     // what the paint of each zone lies on; nil on a piece of one zone
	// cans are the piece's, and canProducts what they are in the craft.
	cans        []check.Can
	canProducts []craft.Product

	chemicals [][]check.Chemical // what the plan of each zone brings into the room that must not meet others

	log   *log           // nil where nothing was logged
	works []worklog.Work // by zone
}

// Job converts a decoded piece.
func (e *Engine) Job(p *wire.Piece, w Workshop) *Job {
	j := &Job{
		Engine: e, Piece: p, works: make([]worklog.Work, len(p.Zones)), Shop: w, Air: w.Air, Zones: make([]check.Zone, len(p.Zones)), Parts: make([]parts.Part, len(p.Parts)),
		ofZone: make([][]parts.Part, len(p.Zones)), measured: make([]parts.Measured, len(p.Zones)),
	}
	if p.Site != nil {
		j.Air = drying.Climate{TempC: p.Site.TempC, RH: p.Site.RHPct}
	}
	j.Piece = j.begin(p)
	j.withCans()
	j.settle()
	index := make(map[string]int, len(p.Zones))
	for i := range p.Zones {
		index[p.Zones[i].ID] = i
	}
	for i := range p.Parts {
		zone, ok := index[p.Parts[i].Zone]
		if !ok {
			zone = -1
		}
		j.Parts[i], _ = p.Parts[i].Core(zone) // decoding has refused what this refuses
		if ok {
			j.ofZone[zone] = append(j.ofZone[zone], j.Parts[i])
		}
	}
	for i := range p.Zones {
		j.measured[i] = parts.OfZone(j.ofZone[i], i)
		j.Zones[i] = j.zone(i)
	}
	j.share()
	j.match()
	return j
}

// match tells every zone what the paint of the others lies on, and what their plans bring into the
// room that must not meet certain others.
func (j *Job) match() {
	if len(j.Zones) < 2 {
		return
	}
	j.bases, j.chemicals = make([]check.Base, len(j.Zones)), make([][]check.Chemical, len(j.Zones))
	for i := range j.Zones {
		j.bases[i] = check.BaseOf(j.Craft, &j.Zones[i], j.name(i))
		j.chemicals[i] = check.ChemicalsOf(j.Craft, &j.Zones[i], j.name(i))
	}
	j.matched()
}

// matched gives every zone what is known of the others.
func (j *Job) matched() {
	for i := range j.Zones {
		j.Zones[i].Match, j.Zones[i].Own = j.bases, i+1
		j.Zones[i].Beside = nil
		for k := range j.chemicals {
			if k != i {
				j.Zones[i].Beside = append(j.Zones[i].Beside, j.chemicals[k]...)
			}
		}
	}
}

// changed is the job on a piece of which only some zones are other than they were. It returns the
// zones that are to be judged again: those, and all others where what they may have to
// match has changed.
func (j *Job) changed(p *wire.Piece, zones []int) (*Job, []int) {
	out := *j
	out.works = slices.Clone(j.works)
	out.Piece = p
	if j.log != nil {
		with := *p
		with.Cans = j.Piece.Cans // they are the same, with those that the log names
		out.Piece = &with
	}
	out.Zones, out.bases, out.chemicals = slices.Clone(j.Zones), slices.Clone(j.bases), slices.Clone(j.chemicals)
	others := false
	for _, i := range zones {
		out.Zones[i] = out.zone(i)
		if out.bases == nil {
			continue
		}
		was, is := j.bases[i], check.BaseOf(out.Craft, &out.Zones[i], out.name(i))
		out.bases[i] = is
		was.Step, is.Step = 0, 0 // where in its plan no other zone matters
		others = others || was != is && (was.CanMatch() || is.CanMatch())
		out.chemicals[i] = check.ChemicalsOf(out.Craft, &out.Zones[i], out.name(i))
		others = others || !slices.Equal(j.chemicals[i], out.chemicals[i])
	}
	if out.bases == nil {
		out.share()
		return &out, zones
	}
	again := slices.Clone(zones)
	if others {
		again = nil
		for i := range out.Zones {
			again = append(again, i)
		}
	}
	if len(out.cans) > 0 {
		was := out.Zones
		out.Zones = slices.Clone(out.Zones)
		out.share()
		for i := range out.Zones {
			if !slices.Equal(was[i].Cans, out.Zones[i].Cans) && !slices.Contains(again, i) {
				again = append(again, i)
			}
		}
	}
	out.matched()
	return &out, again
}

// name is what a zone is called.
func (j *Job) name(i int) string { return j.Piece.Zones[i].Title() }

// Area is a zone's area in square metres: as typed, or what its parts come to; 0 where it is
// not known.
func (j *Job) Area(i int) float64 {
	if z := &j.Piece.Zones[i]; z.AreaM2 > 0 {
		return z.AreaM2
	}
	return tidy(j.measured[i].M2)
}

// unmasked are the fittings that stay on a zone while it is painted, in words: those that name it,
// and on a piece of one zone all that name none.
func (j *Job) unmasked(zone int) []string {
	var out []string
	for i := range j.Piece.TakeApart {
		f := &j.Piece.TakeApart[i]
		row, _ := disassembly.RowOf(f.Kind)
		if j.sitsOn(f, zone) && treatment(f) == disassembly.Stay && row != nil && !row.Painted {
			name := cmp.Or(f.Name, row.Name)
			if f.Count > 1 && f.Name == "" {
				name = row.Plural
			}
			out = append(out, craft.Lower(name))
		}
	}
	return out
}

// comesOff tells whether something of a zone was taken off, and is put back in the end.
func (j *Job) comesOff(zone int) bool {
	for i := range j.Piece.TakeApart {
		if f := &j.Piece.TakeApart[i]; j.sitsOn(f, zone) && treatment(f) == disassembly.Off {
			return true
		}
	}
	return false
}

// fits tells whether parts of a zone touch others once they are back, and the smallest gap around
// sliding and closing parts, in millimetres; 0 where none was entered.
func (j *Job) fits(zone int) (touching bool, gap float64) {
	for i := range j.ofZone[zone] {
		q := &j.ofZone[zone][i]
		if !parts.Kinds[q.Kind].Moves {
			continue
		}
		touching = true
		if q.Gap > 0 && (gap == 0 || q.Gap < gap) {
			gap = q.Gap
		}
	}
	return touching, gap
}

// sitsOn tells whether a fitting sits on a zone: the one it names, or the only one where it
// names none.
func (j *Job) sitsOn(f *wire.Fitting, zone int) bool {
	return f.Zone == j.Piece.Zones[zone].ID || f.Zone == "" && len(j.Piece.Zones) == 1
}

// treatment is what is done with a fitting: what was chosen, or as is usual for its kind.
func treatment(f *wire.Fitting) string {
	if row, ok := disassembly.RowOf(f.Kind); ok {
		return cmp.Or(f.Do, row.Do)
	}
	return f.Do
}

// fittings are the hardware, for the core.
func (j *Job) fittings() []disassembly.Item {
	out := make([]disassembly.Item, len(j.Piece.TakeApart))
	for i, f := range j.Piece.TakeApart {
		out[i] = disassembly.Item{Kind: f.Kind, Count: max(1, f.Count), Where: f.Where, Do: f.Do}
	}
	return out
}

// damage is a zone's damage for the core.
func (j *Job) damage(zone int) []damage.Defect {
	z := &j.Piece.Zones[zone]
	g := j.Craft.Substrates[j.Zones[zone].Substrate].Group
	bends := g == craft.GroupCane || g == craft.GroupCloth
	out := make([]damage.Defect, len(z.Defects))
	for i, d := range z.Defects {
		out[i] = damage.Defect{ID: d.ID, Count: max(1, d.Count), SizeMM: d.Size, LongCM: d.Length, Bends: bends}
	}
	return out
}

// takeOff names what comes off a zone before the work begins, within a sentence; empty for nothing.
func (j *Job) takeOff(zone int) string {
	return craft.List(j.fittingsOn(zone, func(do string) bool { return do == disassembly.Off }))
}

// fittingsOn names the fittings of a zone with which some things are done, each name once.
func (j *Job) fittingsOn(zone int, does func(do string) bool) []string {
	var out []string
	for i := range j.Piece.TakeApart {
		f := &j.Piece.TakeApart[i]
		row, _ := disassembly.RowOf(f.Kind)
		if row == nil || !j.sitsOn(f, zone) || !does(treatment(f)) {
			continue
		}
		name := cmp.Or(f.Name, row.Name)
		if f.Count > 1 && f.Name == "" {
			name = row.Plural
		}
		if name = craft.Lower(name); !slices.Contains(out, name) {
			out = append(out, name)
		}
	}
	return out
}

// sameColour is the area in square metres of all zones that are to have the colour of one, so far as it is
// known.
func (j *Job) sameColour(zone int) float64 {
	sum := 0.
	for i := range j.Zones {
		if i == zone || j.Zones[i].Colour == j.Zones[zone].Colour {
			sum += j.Zones[i].Area
		}
	}
	return sum
}

// filler is what the damage of a zone is filled with: what most of it takes; empty for nothing.
func (j *Job) filler(zone int) string {
	out := ""
	for _, d := range j.damage(zone) {
		if d.ID == "flaking" || d.ID == "blister" { // it comes off first
			continue
		}
		switch d.Filler() {
		case damage.TwoPart:
			return craft.Fillers[0]
		case damage.Fine:
			out = craft.Fillers[1]
		}
	}
	return out
}
