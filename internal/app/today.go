package app

import (
	"cmp"
	"context"
	"hash/fnv"
	"slices"
	"strconv"
	"time"

	"rutile/core/card"
	"rutile/core/check"
	"rutile/core/clock"
	"rutile/core/craft"
	"rutile/core/disassembly"
	"rutile/core/measure"
	"rutile/core/quantity"
	"rutile/core/surface"
	"rutile/core/worklog"
	"rutile/internal/wire"
)

// today is what comes next on the zones of a kept piece.
func (j *Job) today(s *wire.Saved, rs []*check.Result) []wire.TodayItem {
	if j.finished() {
		return nil
	}
	var out []wire.TodayItem
	begun := false
	for i := range j.Zones {
		begun = begun || j.work(i) != nil
	}
	for i, r := range rs {
		if !begun && len(out) > 0 {
			break // its other zones come once work has begun
		}
		w := j.works[i]
		if j.log == nil {
			w = worklog.Of(j.Craft, &j.Zones[i].Facts, j.Zones[i].Steps, nil, i, 0)
		}
		if len(w.Steps) == 0 {
			continue
		}
		d := worklog.DueOf(j.Craft, r, &w)
		due := j.due(i, r, &w, &d)
		item := wire.TodayItem{
			PieceID: s.ID, Created: s.Created.Format(time.RFC3339Nano), Piece: s.Piece.Name, ZoneID: s.Piece.Zones[i].ID, Zone: j.name(i), Due: due,
			Past: w.Past, Steps: len(s.Piece.Zones[i].Steps), Open: []wire.OpenStep{}, Begun: begun,
		}
		for k, n := range w.Open {
			item.Open = append(item.Open, wire.OpenStep{Step: n, Title: j.stepNames(i, w.Open)[k]})
		}
		for k := range r.Findings {
			if f := &r.Findings[k]; f.Severity == check.Fail {
				item.Fails = f.Title
				break
			}
		}
		item.Then = j.ahead(i, r, &w, &d)
		out = append(out, item)
	}
	return out
}

// mostAhead is how many steps after the next one are told.
const mostAhead = 12

// ahead are the steps after the next one, as they are planned. When they may be done is not known before it is known
// when the one before was: they only say what they wait for.
func (j *Job) ahead(i int, r *check.Result, w *worklog.Work, d *worklog.Due) (out []wire.Due) {
	if d.Event < 0 {
		return nil
	}
	events := r.Trace.Events
	from := events[d.Event].After.Hours
	for k := d.Event + 1; k < len(events) && len(out) < mostAhead; k++ {
		e := &events[k]
		if e.Doing.Do == surface.Wait {
			continue
		}
		x := wire.Due{State: "ahead", Now: stamp(j.log.nowOr(j.Shop.Now)), Says: "By the plan it comes right after that."}
		if h := e.Begun - from; h > 1./60 {
			x.Says = "By the plan it comes " + measure.Hours(h) + " after that."
		}
		j.dueStep(i, &worklog.Due{Step: e.Step, Coat: e.CoatNo}, &x)
		out = append(out, x)
		from = e.After.Hours
	}
	return out
}

// finished tells whether the piece was handed over.
func (j *Job) finished() bool { return j.log != nil && j.finishedAt() != "" }

// stepNames names steps of a zone's plan, from 1.
func (j *Job) stepNames(zone int, steps []int) []string {
	out := make([]string, len(steps))
	for k, n := range steps {
		s := j.stepOf(&j.Piece.Zones[zone].Steps[n-1])
		out[k] = craft.Lower(check.StepWords(j.Craft, &s))
	}
	return out
}

// Today is what comes next on all pieces, the most urgent first; then tells what comes after that by the plans, too.
// Errors are the store's.
func (s *Studio) Today(ctx context.Context, then bool) (wire.Today, error) {
	all, err := s.judgedPieces(ctx)
	if err != nil {
		return wire.Today{}, err
	}
	shop := s.Workshop(ctx)
	out := wire.Today{Now: s.Now().UTC().Format(time.RFC3339), Air: airOf(shop.Air), Items: []wire.TodayItem{}}
	if read := s.airRead(ctx); len(read) > 0 {
		if last := read[len(read)-1]; seconds(s.Now())-last.At < freshAir.Seconds() {
			air := airOf(last.Air)
			out.Read, out.ReadAt = &air, stamp(last.At)
		}
	}
	for _, x := range all {
		out.Items = append(out.Items, x.today...)
	}
	if !then {
		for i := range out.Items {
			out.Items[i].Then = nil
		}
	}
	slices.SortStableFunc(out.Items, byUrgency)
	return out, nil
}

// byUrgency orders what comes next: what closes first, then what was begun, what may be done, what waits by when it is
// over, and pieces on which nothing was done last.
func byUrgency(a, b wire.TodayItem) int {
	rank := func(x *wire.TodayItem) int {
		n := 2 * slices.Index(worklog.States, worklog.State(x.Due.State))
		if x.Due.State == string(worklog.NotBegun) && x.Begun {
			return 2*slices.Index(worklog.States, worklog.Ready) + 1 // another zone of a piece that is worked on
		}
		return n
	}
	return cmp.Or(
		cmp.Compare(rank(&a), rank(&b)),
		cmp.Compare(orElse(a.Due.To, "9"), orElse(b.Due.To, "9")),
		cmp.Compare(a.Due.From, b.Due.From),
		cmp.Compare(a.PieceID, b.PieceID),
	)
}

// PieceLog is the piece's log, the newest first, with what it comes to.
func (j *Job) PieceLog() wire.PieceLog {
	out := wire.PieceLog{Lines: []wire.LogLine{}, Fittings: []wire.FittingBack{}}
	if j.log != nil {
		for i := len(j.log.entries) - 1; i >= 0; i-- {
			out.Lines = append(out.Lines, j.logLine(i))
		}
		out.Finished = j.finishedAt()
	}
	back := map[wire.LogFitting]int{}
	if j.log != nil {
		for i := range j.log.entries {
			if f := j.log.entries[i].Fitting; f != nil && j.log.entries[i].What == string(worklog.PutBack) {
				back[wire.LogFitting{Kind: f.Kind, Where: f.Where}]++
			}
		}
	}
	for i := len(j.Piece.TakeApart) - 1; i >= 0; i-- { // last off, first on
		f := &j.Piece.TakeApart[i]
		row, ok := disassembly.RowOf(f.Kind)
		if !ok || treatment(f) != disassembly.Off {
			continue
		}
		key := wire.LogFitting{Kind: f.Kind, Where: f.Where}
		x := wire.FittingBack{Kind: f.Kind, Where: f.Where, Count: max(1, f.Count), Name: row.Name, Zone: f.Zone, Back: f.Back}
		if x.Count > 1 {
			x.Name = row.Plural
		}
		x.Name = orElse(f.Name, x.Name)
		if back[key] > 0 {
			back[key]--
			x.Back = true
		}
		x.From, x.Says = j.backFrom(f)
		out.Fittings = append(out.Fittings, x)
	}
	return out
}

// backFrom is when a fitting may go back: once the zones that it touches are hard enough; empty where nothing was laid
// there, with words.
func (j *Job) backFrom(f *wire.Fitting) (from, says string) {
	worst := 0.
	for i := range j.Zones {
		if !j.sitsOn(f, i) && f.Zone != "" {
			continue
		}
		w := j.work(i)
		if w == nil {
			continue
		}
		p, at := lastCoat(j.Craft, w)
		if p == craft.NoProduct {
			continue
		}
		if len(w.Steps) > w.Done && !w.Finished && coatsLeft(w) {
			return "", "It is not finished: coats are missing."
		}
		h := check.ReassembleAfter(j.Craft, &j.Zones[i].Facts, p, check.CareShare)
		if t := w.Start + (at+h)*3600; t > worst {
			worst = t
			says = j.Craft.Products[p].Name + " is hard enough by then."
		}
	}
	return stamp(worst), says
}

// lastCoat is the last coat that was laid over a whole zone and no wax, and when, in hours of its walk.
func lastCoat(c *craft.Craft, w *worklog.Work) (craft.Product, float64) {
	for k := w.Done - 1; k >= 0; k-- {
		if s := &w.Steps[k]; s.Do == surface.Coat && s.Scope == surface.All && c.Products[s.Product].Coat != craft.WX && c.Products[s.Product].LeavesFilm() {
			return s.Product, (*s.Done)[s.NumDone()-1].To
		}
	}
	return craft.NoProduct, 0
}

func coatsLeft(w *worklog.Work) bool {
	for k := range w.Steps {
		if s := &w.Steps[k]; s.Do == surface.Coat && s.NumDone() < s.NumCoats() {
			return true
		}
	}
	return false
}

// logLine is an entry in words.
func (j *Job) logLine(i int) wire.LogLine {
	e, core := &j.log.entries[i], &j.log.core[i]
	out := wire.LogLine{Entry: *e, Corrected: e.Corrects != ""}
	if core.Zone >= 0 {
		out.ZoneName = j.name(core.Zone)
	}
	work := func() string {
		w := craft.Lower(check.StepWords(j.Craft, &core.Step))
		if core.Coat > 0 && core.Step.Do == surface.Coat {
			w += ", coat " + strconv.Itoa(core.Coat)
		}
		return w
	}
	switch core.Kind {
	case worklog.Began:
		out.Says = "Begun: " + work()
	case worklog.Skipped:
		out.Says = "Left out: " + work()
	case worklog.Did:
		out.Says = craft.Upper(work())
		if core.Planned != nil {
			out.How = append(out.How, "planned was "+craft.Lower(check.StepWords(j.Craft, core.Planned)))
		} else if core.Plan == 0 {
			out.How = append(out.How, "not planned")
		}
	case worklog.PutBack:
		out.Says = "Put back: " + e.Fitting.Kind
		if row, ok := disassembly.RowOf(e.Fitting.Kind); ok {
			out.Says = "Put back: " + craft.Lower(row.Name)
		}
		if e.Fitting.Where != "" {
			out.Says += " (" + e.Fitting.Where + ")"
		}
	case worklog.Finished:
		out.Says = "Handed over"
	default:
		out.Says = "Note"
	}
	if e.By != "" {
		out.How = append(out.How, "on "+e.By)
	}
	if core.Zone >= 0 && (core.Kind == worklog.Did || core.Kind == worklog.Noted) {
		w, says := &j.works[core.Zone], ""
		if s, d := doneBy(w, i); d != nil {
			says = j.doneSays(&j.Zones[core.Zone], s, d, e)
		} else if len(e.Seen) > 0 {
			says = j.doneSays(&j.Zones[core.Zone], &core.Step, &surface.Done{Minutes: -1}, e)
		}
		if says != "" {
			out.How = append(out.How, says)
		}
	}
	if out.How == nil {
		out.How = []string{}
	}
	return out
}

// doneBy is what an entry did, as the walk has it; nil where it did nothing.
func doneBy(w *worklog.Work, entry int) (*surface.Step, *surface.Done) {
	for k := range w.Entries {
		for n, at := range w.Entries[k] {
			if at == entry {
				return &w.Steps[k], &(*w.Steps[k].Done)[n]
			}
		}
	}
	return nil, nil
}

// clocksFollow starts the clocks of what was done last on each zone of a piece, and stops those of what is behind:
// they are those that its card offers.
func (s *Studio) clocksFollow(ctx context.Context, id uint, p *wire.Piece) error {
	j := s.Job(p, s.pieceShop(ctx, id))
	want := map[string]wantedClock{}
	if !j.finished() {
		for i := range j.Zones {
			j.zoneClocks(i, id, want)
		}
	}
	now := seconds(s.Now())
	return s.inClocks(ctx, func(c *clocks) error {
		for key, x := range c.all {
			if x.PieceID != int(id) || x.Entry == "" {
				continue
			}
			if _, ok := want[key]; ok {
				delete(want, key)
				continue
			}
			if err := s.dropClock(ctx, c, key); err != nil {
				return err
			}
		}
		if len(want) == 0 || len(c.all)+len(want) > clock.Most {
			return nil
		}
		for key, n := range want {
			x := &running{clock.Clock{Timer: n.timer, Need: n.NeedS, Least: n.LeastS}, wire.KeptClock{NewClock: n.NewClock}}
			x.Start(c.line.Now-max(0, now-n.at), s.paceOf(x, s.airOfClock(ctx, &n.NewClock)))
			if x.StateOf(c.line.Now) == clock.Past {
				continue
			}
			if err := s.keepClock(ctx, x); err != nil {
				return err
			}
			c.all[key] = x
		}
		return s.keepLine(ctx, c)
	})
}

// wantedClock is a clock that should run since a moment in seconds since 1970.
type wantedClock struct {
	wire.NewClock
	timer craft.Timer
	at    float64
}

// zoneClocks are the clocks of what was done last on a zone.
func (j *Job) zoneClocks(i int, id uint, out map[string]wantedClock) {
	w := j.work(i)
	if w == nil || w.Done == 0 {
		return
	}
	s := &w.Steps[w.Done-1]
	if s.Do != surface.Coat {
		return
	}
	z := &j.Zones[i]
	t := surface.Walk(j.Craft, &z.Facts, z.Steps)
	at := -1
	for n := range t.Events {
		if t.Events[n].Done != nil {
			at = n
		}
	}
	e := &t.Events[at]
	air := z.Air(e.Done.To, e.Done.To)
	k := card.Coat{Craft: j.Craft, Facts: &z.Facts, Trace: &t, At: at, Air: air, Units: j.Shop.Units}
	row := &j.Craft.Products[s.Product]
	batch := quantity.BatchOf(&quantity.Coat{Zone: i, Step: e.Step, CoatNo: e.CoatNo, Product: s.Product}, quantity.Mixing{Craft: j.Craft, Facts: &z.Facts, Step: s, Air: air, Measures: j.measures()})
	last := w.Entries[w.Done-1]
	entry := j.log.entries[last[len(last)-1]].ID
	for _, c := range card.Lay(&k, &batch).Clocks {
		h := fnv.New64a()
		_, _ = h.Write([]byte(strconv.Itoa(int(id)) + " " + entry + " " + craft.Timers[c.Timer].ID))
		key := "log-" + strconv.FormatUint(h.Sum64(), 36)
		out[key] = wantedClock{wire.NewClock{
			ID: key, Kind: craft.Timers[c.Timer].ID, NeedS: c.Need, LeastS: c.Least, Product: j.Craft.Products[j.Craft.KindOf(s.Product)].ID, For: row.Name,
			PieceID: int(id), Piece: j.Piece.Name, Zone: j.name(i), ZoneID: j.Piece.Zones[i].ID, Entry: entry, TempC: air.TempC, RHPct: air.RH,
		}, c.Timer, w.Start + e.Done.To*3600}
	}
}
