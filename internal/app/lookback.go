package app

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/quantity"
	"rutile/core/surface"
	"rutile/core/worklog"
	"rutile/internal/wire"
)

// LookBack holds the work on a kept piece against its plan. Errors are the store's.
func (s *Studio) LookBack(ctx context.Context, id uint) (wire.LookBack, error) {
	saved, err := s.Store.Get(ctx, id)
	if err != nil {
		return wire.LookBack{}, err
	}
	return s.Job(&saved.Piece, s.pieceShop(ctx, id)).LookBack(), nil
}

// plannedSteps is the plan of a zone as it was when work began; as it is now where nobody kept it.
func (j *Job) plannedSteps(i int) []wire.Step {
	if j.log != nil {
		if steps, ok := j.log.plans[j.Piece.Zones[i].ID]; ok {
			return steps
		}
	}
	return j.Piece.Zones[i].Steps
}

// LookBack holds the work against the plan, zone by zone.
func (j *Job) LookBack() wire.LookBack {
	out := wire.LookBack{Zones: []wire.ZoneBack{}, Lessons: []wire.LogLine{}}
	u := j.Shop.Units
	var hours, litres [2]float64
	var coats [2]int
	first, last := math.Inf(1), 0.
	for i := range j.Zones {
		w := j.work(i)
		if w == nil {
			continue
		}
		z := j.Zones[i]
		z.Course, z.Now = nil, 0
		z.Steps = nil
		src := j.plannedSteps(i)
		for k := range src {
			z.Steps = append(z.Steps, j.stepOf(&src[k]))
		}
		plan, laid := j.sums(i, &z, z.Steps), j.sums(i, &j.Zones[i], w.Steps[:w.Done])
		laid.litres = j.used(i)
		back := wire.ZoneBack{ID: j.Piece.Zones[i].ID, Name: j.name(i), Otherwise: []string{}}
		row := func(what, planned, really string) {
			back.Rows = append(back.Rows, wire.BackRow{What: what, Planned: planned, Really: really})
		}
		row("Work", measure.Hours(plan.minutes/60), measure.Hours(laid.minutes/60))
		row("Coats", fmt.Sprint(plan.coats), fmt.Sprint(laid.coats))
		if laid.litres > 0 {
			row("Paint and the like", u.Volume(plan.litres), u.Volume(laid.litres))
		}
		row("From first to last", measure.Hours(plan.hours), measure.Hours(laid.hours))
		back.Otherwise = append(back.Otherwise, j.otherwise(i)...)
		out.Zones = append(out.Zones, back)
		hours[0], hours[1] = hours[0]+plan.minutes/60, hours[1]+laid.minutes/60
		litres[0], litres[1] = litres[0]+plan.litres, litres[1]+laid.litres
		coats[0], coats[1] = coats[0]+plan.coats, coats[1]+laid.coats
		first, last = min(first, w.Start), max(last, w.Start+laid.hours*3600)
	}
	if len(out.Zones) == 0 {
		out.Says = "Nothing was done yet: there is nothing to look back on."
		return out
	}
	days := int(math.Ceil(max(last-first, 1) / (24 * 3600)))
	out.Says = fmt.Sprintf("%s of work where %s were planned, over %s.", measure.Hours(hours[1]), measure.Hours(hours[0]), measure.Count(days, "day", "days"))
	out.Rows = []wire.BackRow{
		{What: "Work", Planned: measure.Hours(hours[0]), Really: measure.Hours(hours[1])},
		{What: "Coats", Planned: fmt.Sprint(coats[0]), Really: fmt.Sprint(coats[1])},
	}
	if litres[1] > 0 {
		out.Rows = append(out.Rows, wire.BackRow{What: "Paint and the like", Planned: u.Volume(litres[0]), Really: u.Volume(litres[1])})
	}
	out.Finished = j.finishedAt()
	for i := len(j.log.entries) - 1; i >= 0; i-- {
		if j.log.entries[i].Lesson {
			out.Lessons = append(out.Lessons, j.logLine(i))
		}
	}
	out.Photos = j.logPhotos()
	return out
}

// sum is what a walk comes to.
type sum struct {
	minutes, hours, litres float64
	coats                  int
}

// sums adds up a walk through some steps.
func (j *Job) sums(i int, z *check.Zone, steps []surface.Step) sum {
	steps = slices.Clone(steps)
	for k := range steps { // of a step that is half done only what was done
		if n := steps[k].NumDone(); n > 0 && n < steps[k].NumCoats() {
			steps[k].Coats = n
		}
	}
	t := surface.Walk(j.Craft, &z.Facts, steps)
	out := sum{minutes: t.End.Minutes}
	if n := len(t.Events); n > 0 {
		out.hours = t.Events[n-1].After.Hours - t.Events[0].Begun
	}
	for k := range steps {
		if steps[k].Do == surface.Coat {
			out.coats += steps[k].NumCoats()
		}
	}
	for _, c := range quantity.Coats(j.Craft, &quantity.Zone{Facts: &z.Facts, Relief: z.Relief, Trace: &t}, i) {
		out.litres += c.Paint.Likely
	}
	return out
}

// used is how many litres from cans the log says a zone took.
func (j *Job) used(zone int) float64 {
	all := 0.
	for i := range j.log.core {
		if e := &j.log.entries[i]; j.log.core[i].Zone == zone && j.log.core[i].Kind == worklog.Did && e.UsedL != nil {
			all += *e.UsedL
		}
	}
	return all
}

// otherwise is what was done otherwise than planned, as sentences.
func (j *Job) otherwise(zone int) (out []string) {
	for i := range j.log.core {
		e := &j.log.core[i]
		if e.Zone != zone {
			continue
		}
		did := check.StepWords(j.Craft, &e.Step)
		switch {
		case e.Kind == worklog.Skipped:
			out = append(out, did+" was left out.")
		case e.Kind != worklog.Did:
		case e.Planned != nil:
			out = append(out, fmt.Sprintf("%s instead of %s.", did, craft.Lower(check.StepWords(j.Craft, e.Planned))))
		case e.Plan == 0:
			out = append(out, did+" was not planned.")
		case e.Thick > 1:
			out = append(out, did+" was laid thick.")
		case e.Thick > 0 && e.Thick < 1:
			out = append(out, did+" was laid thin.")
		}
	}
	w := &j.works[zone]
	if len(w.Open) > 0 {
		out = append(out, craft.Upper(craft.List(j.stepNames(zone, w.Open)))+": nothing is logged.")
	}
	return out
}

// logPhotos are the pictures of the log, the oldest first, with the day and what they show.
func (j *Job) logPhotos() []wire.LogPhoto {
	out := []wire.LogPhoto{}
	for _, p := range j.Piece.Photos {
		out = append(out, wire.LogPhoto{File: p.File, At: p.Taken, Says: orElse(p.Caption, "Before"), Before: true})
	}
	for i := range j.log.entries {
		line := wire.LogLine{}
		for _, f := range j.log.entries[i].Photos {
			if line.Says == "" {
				line = j.logLine(i)
			}
			out = append(out, wire.LogPhoto{File: f, At: j.log.entries[i].At, Says: orElse(j.log.entries[i].Note, line.Says)})
		}
	}
	return out
}

// asDone is the plan that a zone was finished by: as it was planned where nothing was done otherwise, and else what was
// done.
func (j *Job) asDone(i int) []wire.Step {
	w := j.work(i)
	var steps []wire.Step
	if len(j.otherwise(i)) == 0 && len(w.Steps) == w.Done {
		steps = slices.Clone(j.plannedSteps(i))
	} else {
		core := slices.Clone(w.Steps[:w.Done])
		for k := range core {
			core[k].Coats = max(core[k].NumDone(), 1)
			core[k].Done = nil
			if core[k].Do != surface.Coat {
				core[k].Coats = 0
			}
		}
		steps = j.stepsFrom(core)
	}
	for k := range steps {
		steps[k].Can = "" // cans are empty by then
	}
	return steps
}

// Like lists zones of finished pieces whose plans could be used again for a zone, the most alike first: of the same
// material and finish, then of the same material, then others in which all words are found.
func (s *Studio) Like(ctx context.Context, substrate, finish, words string) ([]wire.LikeZone, error) {
	heads, err := s.logHeads(ctx)
	if err != nil {
		return nil, err
	}
	ids := make([]uint, 0, len(heads))
	for id := range heads {
		ids = append(ids, id)
	}
	slices.Sort(ids)
	pieces, err := s.Store.Pieces(ctx, ids)
	if err != nil {
		return nil, err
	}
	type ranked struct {
		wire.LikeZone
		rank int
	}
	var all []ranked
	for k := range pieces {
		p := &pieces[k]
		if p.Damage != nil {
			continue
		}
		j := s.Job(&p.Piece, s.pieceShop(ctx, p.ID))
		if !j.finished() {
			continue
		}
		lessons := []string{}
		for _, l := range j.LookBack().Lessons {
			lessons = append(lessons, l.Entry.Note)
		}
		for i := range j.Zones {
			if w := j.work(i); w == nil || w.Done == 0 || !found(j.foundBy(i), words) {
				continue
			}
			z := &p.Piece.Zones[i]
			x := ranked{wire.LikeZone{
				PieceID: p.ID, Piece: p.Piece.Name, ZoneID: z.ID, Zone: j.name(i), Finished: j.finishedAt(), Material: check.SurfaceName(j.Craft, j.Zones[i].Substrate, j.Zones[i].Finish),
				Look: j.lookName(i), Steps: j.asDone(i), Says: craft.Upper(craft.List(j.productNames(i))) + ".", Lessons: lessons,
			}, 2}
			if z.Target != nil {
				x.Colour = z.Target.Colour
			}
			if z.Substrate == substrate {
				if x.rank--; orElse(z.Finish, "unknown") == orElse(finish, "unknown") {
					x.rank--
				}
			}
			x.Alike = x.rank == 0
			all = append(all, x)
		}
	}
	slices.SortStableFunc(all, func(a, b ranked) int { return a.rank - b.rank })
	out := []wire.LikeZone{}
	for _, x := range all {
		out = append(out, x.LikeZone)
	}
	return out, nil
}

// lookName is the look of a zone in words.
func (j *Job) lookName(i int) string {
	if x, ok := j.Craft.Effect(j.Zones[i].Look); ok {
		return j.Craft.Effects[x].Name
	}
	return "Solid"
}

// productNames are the products that a zone was coated with, in the order in which they came.
func (j *Job) productNames(i int) (out []string) {
	steps := j.Zones[i].Steps
	for k := range steps {
		if steps[k].Do != surface.Coat {
			continue
		}
		if n := craft.Lower(j.Craft.Products[j.Craft.KindOf(steps[k].Product)].Name); !slices.Contains(out, n) {
			out = append(out, n)
		}
	}
	return out
}

// foundBy are the words by which a zone is found: its name, material, finish, look and products.
func (j *Job) foundBy(i int) string {
	all := append([]string{j.Piece.Name, j.name(i), check.SurfaceName(j.Craft, j.Zones[i].Substrate, j.Zones[i].Finish), j.lookName(i)}, j.productNames(i)...)
	return strings.ToLower(strings.Join(all, " "))
}

// found tells whether all words are in a text in small letters.
func found(text, words string) bool {
	for _, w := range strings.Fields(strings.ToLower(words)) {
		if !strings.Contains(text, w) {
			return false
		}
	}
	return true
}
