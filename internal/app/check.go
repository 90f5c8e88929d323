package app

import (
	"context"
	"errors"
	"fmt"
	"math"
	"slices"
	"strconv"
	"sync"
	"sync/atomic"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/plan"
	"rutile/core/section"
	"rutile/core/stage"
	"rutile/core/suggest"
	"rutile/core/surface"
	"rutile/internal/wire"
)

// airOf words a climate.
func airOf(cl drying.Climate) wire.Air {
	return wire.Air{TempC: cl.TempC, RHPct: cl.RH, DewPointC: Tenths(drying.DewPoint(cl))}
}

// Want chooses what a check writes besides verdicts and findings.
type Want struct {
	Repairs, Section, Look bool
	// Brief leaves details out where the piece is so long that they would be megabytes: each zone then
	// has its verdict, its worst findings and its stages, and is marked as brief.
	Brief bool
}

// Where a check leaves details out, in steps of all plans together, and how many findings it then tells
// of a zone. Working defaults.
const (
	longPiece    = 2500
	briefFinding = 5
)

// steps counts those of the plans of some zones.
func (j *Job) steps(zones []int) int {
	n := 0
	for _, i := range zones {
		n += len(j.Piece.Zones[i].Steps)
	}
	return n
}

// long tells whether some plans are so long together that checking them is work, and not a moment.
func (j *Job) long(zones []int) bool { return j.steps(zones) > longPiece }

func (j *Job) allZones() []int {
	out := make([]int, len(j.Zones))
	for i := range out {
		out[i] = i
	}
	return out
}

// results checks some zones, those of brief without details, and gives each to each, one at a time.
// Long work is done by several workers, on threads that let short questions pass.
func (j *Job) results(ctx context.Context, zones []int, want Want, brief func(i int) bool, each func(n, i int, r *check.Result, z wire.ZoneResult)) error {
	var next atomic.Int64
	var telling sync.Mutex
	work := func() error {
		for {
			n := int(next.Add(1)) - 1
			if n >= len(zones) {
				return nil
			}
			i, want := zones[n], want
			want.Brief = brief(i)
			r, err := j.judge(ctx, i, want.options())
			if err != nil {
				return err
			}
			z := j.zoneResult(i, r, want)
			telling.Lock()
			each(n, i, r, z)
			telling.Unlock()
		}
	}
	if !j.long(zones) {
		return work()
	}
	errs, broke := make([]error, cap(j.searching)), make([]any, cap(j.searching))
	var workers sync.WaitGroup
	for w := range errs {
		workers.Go(func() {
			defer func() { broke[w] = recover() }()
			errs[w] = aside(work)
		})
	}
	workers.Wait()
	for _, v := range broke {
		if v != nil {
			panic(v) // where the request is answered
		}
	}
	return errors.Join(errs...)
}

// repairBudget is shared by the zones of a piece, so that the longest piece is answered in
// bounded time too.
const repairBudget = 400_000

// Check judges every zone of a piece. The only error is that of a context that is done.
func (j *Job) Check(ctx context.Context, want Want) (wire.CheckResult, error) {
	r, _, err := j.check(ctx, want)
	return r, err
}

// check is Check, with the dry films of the zones' plans in micrometres.
func (j *Job) check(ctx context.Context, want Want) (wire.CheckResult, []float64, error) {
	out := wire.CheckResult{Format: wire.CheckFormat, Version: wire.Version, Zones: make([]wire.ZoneResult, len(j.Zones)), Air: j.air()}
	films, verdicts := make([]float64, len(j.Zones)), make([]string, len(j.Zones))
	all := j.allZones()
	brief := want.Brief && j.long(all)
	err := j.results(ctx, all, want, func(int) bool { return brief }, func(_, i int, r *check.Result, z wire.ZoneResult) {
		out.Zones[i], films[i], verdicts[i] = z, filmOf(r), z.Verdict
	})
	if err != nil {
		return wire.CheckResult{}, nil, err
	}
	out.Verdict = worst(verdicts)
	if want.Look {
		l := j.Overview(films)
		out.Overview = &l
	}
	return out, films, nil
}

// options are those of the core's check.
func (w Want) options() check.Options { return check.Options{NoRepairs: !w.Repairs || w.Brief} }

// filmOf is the dry film of a judged plan in micrometres.
func filmOf(r *check.Result) float64 { return r.Trace.End.Regions[surface.Field].Film }

// worst is the verdict on a piece: the worst of its zones, and watch where it has none.
func worst(verdicts []string) string {
	if len(verdicts) == 0 {
		return check.Watched.String()
	}
	return slices.MaxFunc(verdicts, func(a, b string) int { return rank(a) - rank(b) })
}

func rank(verdict string) int { return slices.Index([]string{"sound", "watch", "fails"}, verdict) }

// air is the air that the piece is judged in.
func (j *Job) air() wire.Air {
	a := airOf(j.Air)
	a.Own = j.Piece.Site != nil
	return a
}

// judge has the core check one zone.
func (j *Job) judge(ctx context.Context, i int, o check.Options) (*check.Result, error) {
	o.Budget = repairBudget / len(j.Zones)
	o.Stop = func() bool { return ctx.Err() != nil }
	r := check.Check(j.Craft, &j.Zones[i], o)
	return &r, ctx.Err()
}

// zoneResult writes what a check says of a zone.
func (j *Job) zoneResult(i int, r *check.Result, want Want) wire.ZoneResult {
	c, src, z, u := j.Craft, &j.Piece.Zones[i], &j.Zones[i], j.Shop.Units
	out := wire.ZoneResult{
		ID: src.ID, Name: src.Name, Verdict: r.Verdict.String(), Says: r.Says(c),
		Bleed: []wire.Bleed{}, Findings: []wire.Finding{}, Implied: []string{}, Rises: []wire.Level{},
		Hours: wire.Hours{Elapsed: tidy(r.Hours), Takes: measure.Hours(r.Hours)}, Bonds: bondsOf(c, r),
	}
	for k := range out.Bonds {
		out.Bonds[k].Step = j.planStep(i, out.Bonds[k].Step)
	}
	out.Patches = patchStates(c, src, out.Bonds, z.Today, z.Units)
	out.Gloss = craft.Sheens[z.Gloss].ID
	out.Known, out.Lead = knownOf(c, z, r), leadOf(c, z)
	out.Log = j.zoneLog(i, r)
	if r.Minutes >= 0 {
		h := tidy(r.Minutes / 60)
		out.Hours.HandsOn, out.Hours.Work = &h, plan.WorkHours(r.Minutes/60)
	}
	if out.Brief = want.Brief; out.Brief {
		out.Hours.Steps = []wire.Factor{}
	} else {
		out.Hours.Steps = j.hoursBySteps(i, r)
	}
	out.Hiding, out.Chips, out.CrackMM = hidingOf(c, r, u), chipsOf(c, r, u), Tenths(r.CrackMM)
	if r.CrackMM > 0 {
		out.Cracks = check.CrackSays(z.Units)
	}
	if r.Ready {
		out.Ready = &wire.Ready{Careful: Tenths(r.Cured.Careful), Normal: Tenths(r.Cured.Normal), Hard: Tenths(r.Cured.Hard), Says: r.Cured.Says()}
	}
	plain := z.Facts
	plain.GivenBleeders = false
	for b, lv := range surface.Levels(c, &plain) {
		if lv > 0 {
			out.Implied = append(out.Implied, craft.Bleeders[b].Name)
			out.Rises = append(out.Rises, wire.Level{ID: craft.Bleeder(b).String(), Level: int(lv)})
		}
	}
	if a := r.Adhesion; a != nil {
		w := &a.Weakest
		on := w.On.String()
		if w.Bare {
			on = c.Substrates[z.Substrate].ID
		}
		out.Adhesion = &wire.Adhesion{
			Risk: tidy(a.Risk), Holds: check.HoldWords(a.Expected), Words: check.Percent(a.Expected), Worst: worstWords(a), Strength: tidy(w.Strength), Demand: a.Demand,
			Class:   check.Class(w.Strength),
			Weakest: wire.Weakest{Step: j.planStep(i, w.Step), Coat: c.Products[w.Product].ID, On: on, CoatName: craft.Lower(c.Products[w.Product].Name), OnName: a.OnWhat(c, w)},
			Figures: factors(a.Explain(c, w), u),
		}
	}
	for i := range r.Stains {
		s := &r.Stains[i]
		out.Bleed = append(out.Bleed, wire.Bleed{
			ID: s.Bleeder.String(), Name: craft.Bleeders[s.Bleeder].Name, DeltaE: tidy(s.DeltaE), Words: check.StainWords(s.Bleeder, s.DeltaE),
			Visible: check.StainVerdict(s.DeltaE) != check.Sound, Where: s.Region.String(), Figures: factors(check.StainFigures(s), u),
		})
	}
	for n := range r.Findings {
		if want.Brief && n >= briefFinding {
			break
		}
		f := &r.Findings[n]
		g := wire.Finding{
			Code: f.Code, Severity: f.Severity.String(), Step: j.planStep(i, f.Step), Title: f.Title, Why: f.Why, Done: f.Done,
			Figures: map[string]float64{}, Factors: factors(f.Figures, u), Repairs: []wire.Repair{}, Also: f.Also,
		}
		for _, x := range g.Factors {
			g.Figures[x.ID] = x.Value
		}
		for _, rp := range f.Repairs {
			w := wire.Repair{Kind: rp.Kind.String(), Title: rp.Title, Field: string(rp.Field)}
			if rp.Kind == check.Edit {
				w.Steps = j.plannedAs(i, rp.Steps)
				w.Verdict = rp.After.String()
			}
			g.Repairs = append(g.Repairs, w)
		}
		if n := slices.IndexFunc(src.Read, func(a wire.ReadNotes) bool { return a.Code == f.Code }); n >= 0 {
			g.Acknowledged = src.Read[n].Date
		}
		if d := f.Divided; d != nil {
			g.Divided = &wire.Divided{Says: d.Says, Way: d.Way}
		}
		out.Findings = append(out.Findings, g)
	}
	if want.Section && !want.Brief {
		out.Section = j.drawing(i, r, true)
	}
	for k, s := range stage.Of(j.Stages, c, z, r) {
		out.Stages = append(out.Stages, wire.Stage{ID: string(s.ID), Name: s.Name, View: j.Stages[k].View, State: s.State.String(), Says: s.Says, Step: j.planStep(i, s.Step)})
	}
	return out
}

func hidingOf(c *craft.Craft, r *check.Result, u measure.Units) *wire.Hiding {
	s := &r.Appearance
	if s.Planned == 0 {
		return nil
	}
	return &wire.Hiding{
		CoatsPlanned: s.Planned, CoatsNeeded: s.Needed, DeltaE: tidy(s.Off), Colour: s.Final.Hex(), Sealed: r.Sealed(c).Hex(),
		Figures: factors(r.HidingFigures(), u),
	}
}

func chipsOf(c *craft.Craft, r *check.Result, u measure.Units) *wire.Chips {
	x := &r.Chips
	if x.Bound == nil || !r.Chippy && x.P90 <= check.ChipsShown {
		return nil
	}
	return &wire.Chips{
		P10: tidy(x.P10), P50: tidy(x.P50), P90: tidy(x.P90), Usual: check.Percent(x.P50), Layer: x.Bound.On.String(),
		Words: check.Range(x.P10, x.P90), Figures: factors(r.ChipFigures(), u),
	}
}

func worstWords(a *check.Adhesion) string {
	const much = .05
	if a.Risk-a.Expected < much {
		return ""
	}
	return check.HoldWords(a.Risk) + " if " + a.If
}

// hoursBySteps is where the time of a plan goes. Where the area is not known,
// the minutes are 0 and the words say so.
func (j *Job) hoursBySteps(i int, r *check.Result) []wire.Factor {
	c, z := j.Craft, &j.Zones[i]
	out := make([]wire.Factor, len(z.Steps))
	events := r.Trace.Events
	for n := range z.Steps {
		var minutes, hours float64
		for k := range events {
			if e := &events[k]; e.Step == n+1 {
				end := r.Trace.End.Hours
				if k+1 < len(events) {
					end = events[k+1].Begun
				}
				minutes += e.After.Minutes - e.Before.Minutes
				hours += end - e.Begun
			}
		}
		words := check.StepWords(c, &z.Steps[n])
		if hours > 0 {
			words += ": " + measure.Hours(hours) + " until the next step"
		}
		if r.Minutes < 0 {
			words += "; the working time is not known without an area"
		}
		out[n] = wire.Factor{ID: fmt.Sprintf("step_%d", n+1), Value: math.Round(minutes*10) / 10, Shown: measure.Hours(minutes / 60), Words: words}
	}
	return out
}

// drawing is the cut through a zone's coats; explain has each joint say what it was made of.
func (j *Job) drawing(i int, r *check.Result, explain bool) *wire.Section {
	d := drawn(j.Craft, j.Piece.Zones[i].Colour, &j.Zones[i], r, explain)
	w := j.work(i)
	if w == nil {
		return d
	}
	for k := range d.Layers {
		l := &d.Layers[k]
		if l.Step > 0 {
			l.Done = l.Coat <= w.Steps[l.Step-1].NumDone() && l.Step <= w.Done
		}
		l.Step = j.planStep(i, l.Step)
	}
	for k := range d.Marks {
		d.Marks[k].Done = d.Marks[k].Step <= w.Done
		d.Marks[k].Step = j.planStep(i, d.Marks[k].Step)
	}
	if explain { // the words of the plan's steps, as they are planned where they were never done
		says := make([]wire.StepSays, len(j.Piece.Zones[i].Steps))
		for n := range says {
			s := j.stepOf(&j.Piece.Zones[i].Steps[n])
			says[n].Title = section.Title(j.Craft, &s)
		}
		for k, n := range w.Plan {
			if n > 0 {
				says[n-1] = d.Steps[k]
			}
		}
		d.Steps = says
	}
	return d
}

func drawn(c *craft.Craft, ground string, z *check.Zone, r *check.Result, explain bool) *wire.Section {
	d := section.Draw(c, z, ground, r)
	out := &wire.Section{Grit: d.Grit, Source: d.Source, Worn: []wire.Shown{}, WornSays: d.WearSays(), Layers: make([]wire.Layer, len(d.Layers)), Marks: make([]wire.Mark, len(d.Marks))}
	if explain {
		for _, s := range d.Steps(c, z) {
			out.Steps = append(out.Steps, wire.StepSays{Title: s.Title, Notes: s.Notes})
		}
	}
	for i, f := range d.Faces {
		at := section.Moments[i]
		out.Faces = append(out.Faces, wire.Face{Name: at.Name, Days: at.Days, Colour: f.Colour, DeltaE: tidy(f.DeltaE), Of: f.Of, Spots: f.Spots, Says: f.Says()})
	}
	for _, w := range d.Worn {
		out.Worn = append(out.Worn, wire.Shown{Layer: w.Layer, Colour: w.Colour, Difference: Tenths(w.Difference)})
	}
	for i, m := range d.Marks {
		out.Marks[i] = wire.Mark{Step: m.Step, Do: surface.Kinds[m.Do].ID, On: m.On}
	}
	words := func(h float64) string {
		if !explain || h <= 0 || math.IsInf(h, 1) {
			return ""
		}
		return measure.Hours(h)
	}
	for i := range d.Layers {
		l := &d.Layers[i]
		w := wire.Layer{
			Kind: string(l.Kind), Name: l.Name, Group: string(l.Group), Family: l.Family.String(),
			Colour: l.Colour, Clear: l.Clear, Microns: l.Microns, Step: l.Step, Coat: l.CoatNo,
			Soils: l.Soils, Stain: tidy(l.Stain), StainAs: l.StainColour, StainIs: l.StainWords, Spots: l.Spots,
			Driven: l.Driven, Grit: l.Grit, Padded: l.Padded, WaitsH: tidy(l.Waits), FromH: tidy(l.From), InTime: l.InTime, FromLabel: l.FromLabel,
			Waits: words(l.Waits), From: words(l.From), To: words(l.To),
		}
		if l.Stain > 0 {
			for _, x := range l.Over {
				w.Over = append(w.Over, tidy(x))
			}
		}
		if l.Kind == section.Substrate {
			w.Mark = c.Substrates[z.Substrate].Mark()
		}
		if l.To > 0 && !math.IsInf(l.To, 1) {
			to := tidy(l.To)
			w.ToH = &to
		}
		if b := l.Joint; b != nil {
			w.Joint = &wire.Joint{Strength: tidy(b.Strength), Class: check.Class(b.Strength), Holds: holds(r, b)}
			if explain && r.Adhesion != nil {
				w.Joint.Figures = factors(r.Adhesion.Explain(c, &b.Boundary), z.Units)
			}
		}
		out.Layers[i] = w
	}
	return out
}

func holds(r *check.Result, b *check.Bond) string {
	v := check.RiskVerdict(b.Risk)
	switch {
	case v != check.Sound && r.MeantToFlake(&b.Boundary):
		return "meant"
	case v == check.Fails:
		return "not"
	case v == check.Watched:
		return "barely"
	}
	return "well"
}

func factors(fs []check.Figure, u measure.Units) []wire.Factor {
	out := make([]wire.Factor, len(fs))
	for i, f := range fs {
		out[i] = wire.Factor{ID: f.ID, Value: tidy(f.Value), Shown: f.Shown(u), Words: f.Words}
	}
	return out
}

// Tenths rounds to one decimal.
func Tenths(x float64) float64 { return math.Round(x*10) / 10 }

// Number writes a figure without needless zeros.
func Number(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }

// tidy rounds to four decimals: no estimate here is better than that.
func tidy(x float64) float64 { return math.Round(x*1e4) / 1e4 }

// Next lists what could come after the first at steps of a zone's plan, what makes sense first.
func (j *Job) Next(ctx context.Context, zone, at int) ([]wire.NextStep, error) {
	offers, err := suggest.Next(ctx, j.Craft, &j.Zones[zone], j.walkedBy(zone, at))
	if err != nil {
		return nil, err
	}
	out := make([]wire.NextStep, len(offers))
	for i := range offers {
		x := &offers[i]
		out[i] = wire.NextStep{StepOption: stepOption(j.Craft, &x.Option), Brings: x.Brings, Barred: x.Barred, Verdict: x.After.String()}
		if x.Sensible() {
			out[i].Why = x.Why
		}
	}
	return out, nil
}
