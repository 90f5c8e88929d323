package app

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/section"
	"rutile/core/surface"
	"rutile/core/worklog"
	"rutile/internal/wire"
)

// Logged is what was logged of a piece, with what a job needs to judge it.
type Logged struct {
	Entries []wire.Entry
	// Seq is the number of the newest entry that is kept; 0 for a log that comes with a file.
	Seq int64
	// Read is the air as instruments read it, and Airs how often it was changed.
	Read []worklog.Reading
	Airs int64
}

// log is the job's log: the entries that hold, in the order in which things happened.
type log struct {
	entries []wire.Entry
	core    []worklog.Entry
	// plans are the plans of zones as they were when work on them began, by the zone's id.
	plans map[string][]wire.Step
	read  []worklog.Reading
	now   float64
}

// begin takes the piece's log into the job. It returns the piece with the cans that the log names.
func (j *Job) begin(p *wire.Piece) *wire.Piece {
	all := p.Log
	if l := j.Shop.Log; l != nil {
		all = slices.Clone(l.Entries)
		for _, e := range p.Log {
			if !slices.ContainsFunc(l.Entries, func(o wire.Entry) bool { return o.ID == e.ID }) {
				all = append(all, e)
			}
		}
	}
	if len(all) == 0 {
		return p
	}
	j.log = &log{plans: map[string][]wire.Step{}, now: seconds(j.Shop.Now)}
	if j.Shop.Log != nil {
		j.log.read = j.Shop.Log.Read
	}
	out := *p
	out.Cans = slices.Clone(p.Cans)
	for i := range all {
		e := &all[i]
		if e.What == wire.WhatPlan {
			if _, ok := j.log.plans[e.Zone]; !ok {
				j.log.plans[e.Zone] = e.Steps
			}
		}
		if e.Can != nil && len(out.Cans) < wire.MaxCans && !slices.ContainsFunc(out.Cans, func(x wire.Can) bool { return x.ID == e.Can.ID }) {
			out.Cans = append(out.Cans, *e.Can)
		}
	}
	j.log.entries = all
	return &out
}

func seconds(t time.Time) float64 {
	if t.IsZero() {
		return 0
	}
	return float64(t.UnixNano()) / 1e9
}

// settle converts the log for the core, once the cans are known.
func (j *Job) settle() {
	l := j.log
	if l == nil {
		return
	}
	by := make(map[string]int, len(l.entries))
	all := make([]worklog.Entry, 0, len(l.entries))
	for i := range l.entries {
		if e, ok := j.entry(&l.entries[i]); ok {
			by[e.ID] = i
			all = append(all, e)
		}
	}
	settled, _ := worklog.Settle(all)
	l.core = settled
	entries := make([]wire.Entry, len(settled))
	for i := range settled {
		entries[i] = l.entries[by[settled[i].ID]]
	}
	l.entries = entries
	if l.now == 0 && len(settled) > 0 { // without a clock it is judged as of its last entry
		l.now = settled[len(settled)-1].At
	}
}

// entry converts an entry for the core; false for one that is not about work.
func (j *Job) entry(e *wire.Entry) (worklog.Entry, bool) {
	if e.What == wire.WhatPlan {
		return worklog.Entry{}, false
	}
	out := worklog.Entry{
		ID: e.ID, Kind: worklog.Kind(e.What), At: seconds(wire.Instant(e.At)), Zone: j.Piece.ZoneAt(e.Zone), Minutes: -1, Thick: e.Thick, Corrects: e.Corrects, Void: e.Void,
	}
	if out.Written = seconds(wire.Instant(e.Written)); out.Written == 0 {
		out.Written = out.At
	}
	if e.Minutes != nil {
		out.Minutes = *e.Minutes
	}
	if e.Air != nil {
		out.Air = &drying.Climate{TempC: e.Air.TempC, RH: e.Air.RHPct}
	}
	if p := e.Planned; p != nil {
		out.Plan, out.Coat = p.Step, p.Coat
		if p.Was != nil {
			was := j.stepOf(p.Was)
			out.Planned = &was
		}
	}
	switch {
	case e.Step != nil:
		out.Step = j.stepOf(e.Step)
	case out.Planned != nil:
		out.Step = *out.Planned
	case out.Plan > 0 && out.Zone >= 0 && out.Plan <= len(j.Piece.Zones[out.Zone].Steps):
		out.Step = j.stepOf(&j.Piece.Zones[out.Zone].Steps[out.Plan-1])
	case out.Kind == worklog.Did || out.Kind == worklog.Skipped || out.Kind == worklog.Began:
		if !e.Void {
			return worklog.Entry{}, false // nobody knows what it was
		}
	}
	out.Step.Coats = 0 // an entry is about one
	return out, true
}

// join puts what was done on a zone before what is still planned.
func (j *Job) join(i int, z *check.Zone) {
	if j.log == nil {
		return
	}
	w := worklog.Of(j.Craft, &z.Facts, z.Steps, j.log.core, i, j.log.now)
	j.works[i] = w
	if !w.Begun && !w.Finished {
		return
	}
	z.Course, z.Now, z.Steps = w.Course(j.log.core, j.log.read), w.Now, w.Steps
}

// work is what the log says of a zone; nil where nothing was begun there.
func (j *Job) work(i int) *worklog.Work {
	if j.log == nil || !j.works[i].Begun && !j.works[i].Finished {
		return nil
	}
	return &j.works[i]
}

// planStep is the step of the zone's plan, from 1, that a step of its walk is; 0 for none.
func (j *Job) planStep(i, step int) int {
	if w := j.work(i); w != nil && step > 0 {
		return w.Plan[step-1]
	}
	return step
}

// walkedBy is how many steps of the walk lie before what comes after the first at steps of the plan: at least all that
// were done.
func (j *Job) walkedBy(i, at int) int {
	w := j.work(i)
	if w == nil {
		return at
	}
	n := w.Done
	for k := n; k < len(w.Plan); k++ {
		if w.Plan[k] > 0 && w.Plan[k] <= at {
			n = k + 1
		}
	}
	return n
}

// plannedAs writes the steps of a repaired walk as the zone's plan: what lies behind stays as it was planned.
func (j *Job) plannedAs(i int, steps []surface.Step) []wire.Step {
	w := j.work(i)
	if w == nil {
		return j.stepsFrom(steps)
	}
	src := j.Piece.Zones[i].Steps
	out := slices.Clone(src[:min(w.Past, len(src))])
	for k := range steps {
		s := steps[k]
		switch n := s.NumDone(); {
		case n == 0:
		case w.Laid > 0 && k < w.Done && w.Plan[k] == w.Past+1:
			s.Done = nil // some of its coats are still to come
		default:
			continue
		}
		out = append(out, j.stepsFrom([]surface.Step{s})...)
	}
	return out
}

// zoneLog writes what was done on a zone and what comes next; nil where nothing was begun.
func (j *Job) zoneLog(i int, r *check.Result) *wire.ZoneLog {
	w := j.work(i)
	if w == nil {
		return nil
	}
	out := &wire.ZoneLog{Past: w.Past, Laid: w.Laid, Done: []wire.DoneStep{}, Open: w.Open, Finished: w.Finished, Begun: stamp(w.Start)}
	if out.Open == nil {
		out.Open = []int{}
	}
	z := &j.Zones[i]
	for k := range w.Steps[:w.Done] {
		s := &w.Steps[k]
		for n, at := range w.Entries[k] {
			e := &j.log.entries[at]
			d := wire.DoneStep{Entry: e.ID, At: e.At, Step: w.Plan[k], Title: section.Title(j.Craft, s), Otherwise: e.Planned != nil && e.Planned.Was != nil || w.Plan[k] == 0}
			if s.Do == surface.Coat {
				d.Coat = n + 1
			}
			d.Says = j.doneSays(z, s, &(*s.Done)[min(n, len(*s.Done)-1)], e)
			out.Done = append(out.Done, d)
		}
	}
	d := worklog.DueOf(j.Craft, r, w)
	due := j.due(i, r, w, &d)
	out.Due = &due
	return out
}

// doneSays is how a step was done, in words.
func (j *Job) doneSays(z *check.Zone, s *surface.Step, d *surface.Done, e *wire.Entry) string {
	var say []string
	if d.Minutes >= 1 {
		say = append(say, measure.Hours(d.Minutes/60))
	}
	if s.Do == surface.Coat {
		if n := j.Craft.Products[s.Product].Can; n > 0 && n <= len(j.cans) {
			say = append(say, "from “"+j.cans[n-1].Title(j.Craft)+"”")
		}
		switch {
		case d.Thick > 1:
			say = append(say, "laid thick")
		case d.Thick > 0 && d.Thick < 1:
			say = append(say, "laid thin")
		}
	}
	air := z.Air(d.To, d.To)
	if e.Air != nil || z.Course != nil && air != z.Climate {
		say = append(say, j.Shop.Units.Temp(air.TempC)+", "+fmt.Sprintf("%.0f %%", air.RH))
	}
	for _, x := range e.Seen {
		if row := craft.SeenNamed(x.What); row != nil && x.Level < len(row.Levels) {
			say = append(say, craft.Lower(row.Name)+": "+row.Levels[x.Level].Says)
		}
	}
	return strings.Join(say, ", ")
}

// stamp writes seconds since 1970 as a moment; empty for none.
func stamp(s float64) string {
	if s == 0 || math.IsInf(s, 0) || math.IsNaN(s) {
		return ""
	}
	return time.Unix(0, int64(s*1e9)).UTC().Format(time.RFC3339)
}

// due writes what comes next on a zone.
func (j *Job) due(i int, r *check.Result, w *worklog.Work, d *worklog.Due) wire.Due {
	out := wire.Due{State: string(d.State), From: stamp(d.From), To: stamp(d.To), Now: stamp(j.log.nowOr(j.Shop.Now))}
	if d.May < d.From-60 {
		out.May = stamp(d.May)
	}
	if d.State == worklog.NotBegun {
		out.From = ""
	}
	if d.Step > 0 {
		j.dueStep(i, d, &out)
	}
	out.Says = d.Says(j.Craft)
	if w != nil && w.Working >= 0 {
		out.Since = j.log.entries[w.Working].At
	}
	if out.State == string(worklog.Hardening) && r.Ready {
		end := d.From
		for _, x := range []struct {
			says string
			days float64
		}{{"Handles and careful handling", r.Cured.Careful}, {"Everyday use", r.Cured.Normal}, {"Hard use, heat and water", r.Cured.Hard}} {
			out.Uses = append(out.Uses, wire.UseFrom{Says: x.says, From: stamp(end + x.days*24*3600)})
		}
	}
	return out
}

// dueStep writes which step it is that comes next.
func (j *Job) dueStep(i int, d *worklog.Due, out *wire.Due) {
	z := &j.Zones[i]
	s := &z.Steps[d.Step-1]
	out.Step, out.Coat, out.Of = j.planStep(i, d.Step), d.Coat, s.NumCoats()
	if s.Do != surface.Coat {
		out.Coat, out.Of = 0, 0
	}
	if n := out.Step; n > 0 && n <= len(j.Piece.Zones[i].Steps) {
		plan := j.Piece.Zones[i].Steps[n-1]
		plan.Coats = 0
		out.Plan = &plan
	}
	out.Title, out.Do = section.Title(j.Craft, s), surface.Kinds[s.Do].ID
	out.Name = out.Title
	if out.Of > 1 {
		out.Title = fmt.Sprintf("%s, coat %d of %d", out.Title, out.Coat, out.Of)
	}
	if s.Do == surface.Coat {
		row := &j.Craft.Products[s.Product]
		out.Card = fmt.Sprintf("%d-%d", out.Step, out.Coat)
		out.Colour = orElse(s.Colour, row.Colour)
		if out.Colour == "" && row.Role == craft.RolePaint {
			out.Colour = z.Colour
		}
	}
	if m := z.Minutes(j.Craft, s); m > 0 {
		out.Takes = measure.Hours(m / 60)
	}
}

func (l *log) nowOr(t time.Time) float64 {
	if l != nil {
		return l.now
	}
	return seconds(t)
}

// topColour is the colour of the last coat that was laid and hides what is below; empty for none.
func (j *Job) topColour(i int, w *worklog.Work) string {
	z := &j.Zones[i]
	for k := w.Done - 1; k >= 0; k-- {
		s := &w.Steps[k]
		if row := &j.Craft.Products[s.Product]; s.Do == surface.Coat && s.Scope == surface.All && row.Opaque() {
			c, _ := z.ColourOf(row, s.Colour)
			return c.Hex()
		}
		if s.Do == surface.Strip {
			break
		}
	}
	return ""
}
