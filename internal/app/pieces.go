package app

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"runtime"
	"runtime/debug"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/stage"
	"rutile/core/worklog"
	"rutile/internal/store"
	"rutile/internal/wire"
)

// ground is everything besides the piece that a verdict depends on.
type ground struct {
	tables   uint64
	air      drying.Climate
	units    measure.Units
	today    string
	leadYear int
	// shelf is what the cans of the shelf come to; 0 for a piece whose plans name none.
	shelf uint64
	// log is the newest entry of the piece's log, and minute the minute of the check where work on it goes on: what
	// is due changes with time; airs tells readings of the air apart. All are 0 where nothing was logged.
	log, minute, airs int64
}

func (e *Engine) ground(w *Workshop) ground {
	g := ground{tables: e.Craft.Version, air: w.Air, units: w.Units, today: w.Today, leadYear: w.LeadYear, shelf: w.Shelf.sum()}
	return g.with(w.Log, w.Now)
}

// with is the ground of a piece of which something was logged.
func (g ground) with(l *Logged, now time.Time) ground {
	if l == nil {
		return g
	}
	g.log = l.Seq
	if !l.finished() {
		g.minute, g.airs = now.Unix()/60, l.Airs
	}
	return g
}

// finished tells whether the piece was handed over, so that time changes nothing any more.
func (l *Logged) finished() bool {
	return slices.ContainsFunc(l.Entries, func(e wire.Entry) bool { return e.What == string(worklog.Finished) && !e.Void })
}

// withoutShelf is the ground of a piece whose plans name no can.
func (g ground) withoutShelf() ground { g.shelf = 0; return g }

// judgedKey names a piece as it was judged.
type judgedKey struct {
	id  uint
	rev int
	on  ground
}

// judged is what a check of a kept piece came to, as far as lists of pieces tell it.
type judged struct {
	summary []byte // a wire.Summary as JSON
	today   []wire.TodayItem
	speaks  []spoken
}

// spoken is one thing that a rule says of a piece.
type spoken struct {
	code     string
	severity check.Severity
	place    wire.RuleFinding
}

// judgements keeps what pieces were judged at, so that a list judges only what has changed.
type judgements struct {
	turn  chan struct{} // one list looks at a time: others find what it has judged
	kept  map[judgedKey]*judged
	count atomic.Int64 // of pieces judged so far

	mu   sync.Mutex
	of   []*judged // what list was written of
	list []byte
}

// written is the list of some judged pieces as JSON, the last one again where they are the same.
func (j *judgements) written(all []*judged) []byte {
	j.mu.Lock()
	defer j.mu.Unlock()
	if j.list == nil || !slices.Equal(j.of, all) {
		size := 2
		for _, x := range all {
			size += len(x.summary) + 1
		}
		out := append(make([]byte, 0, size), '[')
		for i, x := range all {
			if i > 0 {
				out = append(out, ',')
			}
			out = append(out, x.summary...)
		}
		j.of, j.list = all, append(out, ']')
	}
	return j.list
}

func newJudgements() *judgements {
	return &judgements{turn: make(chan struct{}, 1), kept: map[judgedKey]*judged{}}
}

// judgedPieces judges all pieces of the studio, the last changed first. Those that were judged before
// on the same ground are not judged again.
func (s *Studio) judgedPieces(ctx context.Context) ([]*judged, error) {
	heads, err := s.Store.Heads(ctx)
	if err != nil {
		return nil, err
	}
	select {
	case s.judged.turn <- struct{}{}:
		defer func() { <-s.judged.turn }()
	case <-ctx.Done():
		return nil, ctx.Err()
	}
	shop := s.Workshop(ctx)
	usual := s.ground(&shop)
	now := make(map[judgedKey]*judged, len(heads))
	var missing []uint
	logged, err := s.logHeads(ctx)
	if err != nil {
		return nil, err
	}
	ons := make([]ground, len(heads))
	for i, h := range heads {
		ons[i] = usual
		if logged[h.ID] > 0 {
			l, err := s.logOf(ctx, h.ID)
			if err != nil {
				return nil, err
			}
			ons[i] = usual.with(l, shop.Now)
		}
		on := ons[i]
		found := false
		for _, g := range []ground{on.withoutShelf(), on} {
			k := judgedKey{h.ID, h.Rev, g}
			if j := s.judged.kept[k]; j != nil && !found {
				now[k], found = j, true
			}
		}
		if !found {
			missing = append(missing, h.ID)
		}
	}
	if err := s.judgeAll(ctx, missing, shop, usual, now); err != nil {
		return nil, err
	}
	s.judged.kept = now
	out := make([]*judged, 0, len(heads))
	for i, h := range heads {
		// A piece that was changed or removed since is in the next list.
		on := ons[i]
		for _, g := range []ground{on.withoutShelf(), on} {
			if j := now[judgedKey{h.ID, h.Rev, g}]; j != nil {
				out = append(out, j)
				break
			}
		}
	}
	return out, nil
}

// judgeAll judges the pieces of some ids, several at once, and adds what they came to.
func (s *Studio) judgeAll(ctx context.Context, ids []uint, shop Workshop, on ground, into map[judgedKey]*judged) error {
	pieces, err := s.Store.Pieces(ctx, ids)
	if err != nil {
		return err
	}
	results, errs, ons := make([]*judged, len(pieces)), make([]error, len(pieces)), make([]ground, len(pieces))
	var next atomic.Int64
	var workers sync.WaitGroup
	for range min(runtime.GOMAXPROCS(0), len(pieces)) {
		workers.Go(func() {
			for {
				i := int(next.Add(1)) - 1
				if i >= len(pieces) {
					return
				}
				shop, p := shop, &pieces[i]
				if shop.Log, errs[i] = s.logOf(ctx, p.ID); errs[i] != nil {
					return
				}
				ons[i] = on.with(shop.Log, shop.Now)
				results[i], errs[i] = s.judgedOf(ctx, p, shop)
			}
		})
	}
	workers.Wait()
	if err := errors.Join(errs...); err != nil {
		return err
	}
	for i, p := range pieces {
		g := ons[i]
		if len(p.Piece.Cans) == 0 && g.log == 0 {
			g = g.withoutShelf()
		}
		into[judgedKey{p.ID, p.Rev, g}] = results[i]
	}
	return nil
}

// judgedOf judges one kept piece. One that is damaged, or that a fault in the program makes
// impossible to judge, is told as such: it must not take the others with it.
func (s *Studio) judgedOf(ctx context.Context, l *store.Loaded, shop Workshop) (out *judged, err error) {
	defer func() {
		if v := recover(); v != nil {
			s.Log.Error("a piece cannot be judged", "piece", l.ID, "value", v, "stack", string(debug.Stack()))
			out, err = damagedPiece(&l.Saved, "Rutile fails when it checks this piece. The fault is Rutile's; the log says more.")
		}
	}()
	if l.Damage != nil {
		return damagedPiece(&l.Saved, l.Damage.Says)
	}
	return s.judgedWhole(ctx, &l.Saved, shop)
}

// damagedPiece is a piece that cannot be judged, as the list shows it.
func damagedPiece(p *wire.Saved, says string) (*judged, error) {
	sum := wire.Summary{
		ID: p.ID, Rev: p.Rev, Name: p.Piece.Name, Updated: p.Updated, Verdict: check.Watched.String(), Zones: []wire.ZoneSummary{},
		Says: "It is damaged.", Stands: "It is damaged and cannot be opened.", Next: "Save its document", Damaged: says,
	}
	out := &judged{}
	var err error
	out.summary, err = encode(sum)
	return out, err
}

func (s *Studio) judgedWhole(ctx context.Context, p *wire.Saved, shop Workshop) (*judged, error) {
	s.judged.count.Add(1)
	shop.PieceID = int(p.ID)
	j := s.Job(&p.Piece, shop)
	results := make([]*check.Result, len(j.Zones))
	for i := range results {
		var err error
		if results[i], err = j.judge(ctx, i, check.Options{NoRepairs: true}); err != nil {
			return nil, err
		}
	}
	sum, err := j.summary(ctx, p, results)
	if err != nil {
		return nil, err
	}
	out := &judged{}
	if out.summary, err = encode(sum); err != nil {
		return nil, err
	}
	out.today = j.today(p, results)
	for i, r := range results {
		for _, f := range r.Findings {
			for _, code := range append([]string{f.Code}, f.Also...) {
				out.speaks = append(out.speaks, spoken{code, f.Severity, wire.RuleFinding{
					Piece: p.ID, Name: p.Piece.Name, Zone: p.Piece.Zones[i].ID, ZoneName: j.name(i), Severity: f.Severity.String(), Title: f.Title, Step: j.planStep(i, f.Step),
				}})
			}
		}
	}
	return out, nil
}

// VocabJSON is the vocabulary as JSON.
func (e *Engine) VocabJSON() ([]byte, error) { return encode(e.Vocab()) }

// encode writes JSON as the API does.
func encode(v any) ([]byte, error) {
	var b bytes.Buffer
	e := json.NewEncoder(&b)
	e.SetEscapeHTML(false)
	err := e.Encode(v)
	return bytes.TrimSuffix(b.Bytes(), []byte("\n")), err
}

// List is the list of all pieces, the last changed first, as JSON: an array of [wire.Summary].
func (s *Studio) List(ctx context.Context) ([]byte, error) {
	all, err := s.judgedPieces(ctx)
	if err != nil {
		return nil, err
	}
	return s.judged.written(all), nil
}

// RuleBook is the rule book, with where in the studio each rule has findings.
func (s *Studio) RuleBook(ctx context.Context) ([]wire.RuleEntry, error) {
	all, err := s.judgedPieces(ctx)
	if err != nil {
		return nil, err
	}
	words := RuleWords(s.Book.Rules)
	out := make([]wire.RuleEntry, len(words))
	at := map[string]int{}
	for i, w := range words {
		out[i] = wire.RuleEntry{RuleWord: w, Findings: []wire.RuleFinding{}}
		at[w.Code] = i
	}
	for _, sev := range []check.Severity{check.Fail, check.Watch, check.Note} {
		for _, j := range all {
			for _, x := range j.speaks {
				if x.severity == sev {
					e := &out[at[x.code]]
					e.Findings = append(e.Findings, x.place)
				}
			}
		}
	}
	return out, nil
}

// uniqueWords are the words of a text, each once.
func uniqueWords(s string) (out []string) {
	for _, w := range strings.Fields(s) {
		if !slices.Contains(out, w) {
			out = append(out, w)
		}
	}
	return out
}

// topLayers are as many layers as a small block can show: what is at the bottom, and the uppermost.
func topLayers(all []wire.Layer) []wire.Layer {
	const most = 40
	if len(all) <= most {
		return all
	}
	return slices.Concat(all[:1], all[len(all)-most+1:])
}

// mostRepaired is how many zones a piece may have for the list to show a fix.
const mostRepaired = 12

// summary is a piece as the list shows it, from its judged zones.
func (j *Job) summary(ctx context.Context, s *wire.Saved, rs []*check.Result) (wire.Summary, error) {
	worst := check.Sound
	if len(rs) == 0 {
		worst = check.Watched
	}
	for _, r := range rs {
		worst = max(worst, r.Verdict)
	}
	out := wire.Summary{ID: s.ID, Rev: s.Rev, Name: s.Piece.Name, Updated: s.Updated, Verdict: worst.String(), Zones: make([]wire.ZoneSummary, len(rs))}
	out.Parts = len(s.Piece.Parts)
	if len(s.Piece.Photos) > 0 {
		out.Photo = s.Piece.Photos[0].File
	}
	for i, r := range rs {
		src := &s.Piece.Zones[i]
		w := wire.ZoneSummary{
			ID: src.ID, Name: src.Name, Substrate: src.Substrate, AreaM2: j.Area(i), Verdict: r.Verdict.String(), Says: r.Says(j.Craft),
			Steps: len(src.Steps), Layers: topLayers(j.drawing(i, r, false).Layers), Material: j.Craft.Substrates[j.Zones[i].Substrate].Name,
		}
		if src.Target != nil {
			w.Colour = src.Target.Colour
		}
		if l := j.zoneLog(i, r); l != nil {
			w.Past, w.Due, out.Begun = l.Past, l.Due, true
		}
		out.FoundBy += j.foundBy(i) + " "
		if fin, ok := j.Craft.Finish(src.Finish); ok {
			w.Finish = j.Craft.Finishes[fin].Name
		}
		for k := range w.Layers {
			if b := w.Layers[k].Joint; b != nil {
				b.Figures = []wire.Factor{}
			}
		}
		out.Zones[i] = w
		if r.Verdict == worst && out.Says == "" {
			out.Says = w.Says
		}
	}
	out.FoundBy = strings.Join(uniqueWords(out.FoundBy), " ")
	if j.finished() {
		out.Finished, out.Says = j.finishedAt(), "Handed over."
		out.Stands, out.Next, out.Stage, out.View = "Handed over", "Look back", string(craft.StageWork), "back"
		return out, nil
	}
	err := j.next(ctx, &out, rs, worst)
	// What is ready is worked from its last stage.
	e := &j.Stages[len(j.Stages)-1]
	if k := slices.IndexFunc(j.Stages, func(e stage.Entry) bool { return string(e.ID) == out.Stage }); k >= 0 {
		e = &j.Stages[k]
	}
	out.View, out.Stands = e.View, e.Open
	switch {
	case out.Blocked != "":
		out.Stands = "Blocked: " + out.Blocked
	case out.Begun:
		out.Stands, out.Stage, out.View = "In work", string(craft.StageWork), "work"
		if items := j.today(s, rs); len(items) > 0 { // the most urgent of its zones
			x := slices.MinFunc(items, byUrgency)
			out.NextIn, out.Next = x.ZoneID, orElse(x.Due.Title, x.Due.Says)
		}
	}
	return out, err
}

// next finds the first stage of the work at which some zone has something unfinished, what is in
// the way there, and what would answer it.
func (j *Job) next(ctx context.Context, s *wire.Summary, rs []*check.Result, worst check.Verdict) error {
	if len(rs) == 0 {
		s.Says, s.Stage, s.Next = "No zone is described yet.", string(craft.StageSurvey), "Describe its first zone"
		if s.Parts > 0 {
			s.Next = "Choose what its parts are made of"
		}
		return nil
	}
	stages := make([][]stage.Stage, len(rs))
	for i, r := range rs {
		stages[i] = stage.Of(j.Stages, j.Craft, &j.Zones[i], r)
	}
	// A fail blocks the piece whatever else is unfinished.
	if worst == check.Fails {
		i := slices.IndexFunc(rs, func(r *check.Result) bool { return r.Verdict == worst })
		s.Blocked, s.Stage, s.NextIn = rs[i].Findings[0].Title, string(craft.StageCoats), s.Zones[i].ID
		s.Next = "Change the plan"
		if k := slices.IndexFunc(stages[i], func(st stage.Stage) bool { return st.State == stage.Stuck }); k >= 0 {
			s.Stage = string(stages[i][k].ID)
		}
		if len(rs) <= mostRepaired {
			mended, err := j.judge(ctx, i, check.Options{FirstOnly: true})
			if err != nil {
				return err
			}
			if reps := mended.Findings[0].Repairs; len(reps) > 0 {
				s.Next = reps[0].Title
			}
		}
		return nil
	}
	for k := range j.Stages {
		for i := range rs {
			if st := &stages[i][k]; st.State != stage.Done {
				s.Stage, s.Next, s.NextIn = string(st.ID), st.Says, s.Zones[i].ID
				return nil
			}
		}
	}
	s.Next, s.NextIn = stages[0][len(j.Stages)-1].Says, s.Zones[0].ID
	return nil
}

// Create saves a new piece. Errors are a *wire.Error or the store's.
func (s *Studio) Create(ctx context.Context, data []byte) (wire.Saved, error) {
	p, err := wire.Decode(data)
	if err != nil {
		return wire.Saved{}, err
	}
	saved, err := s.Store.Create(ctx, p)
	if len(p.Log) > 0 {
		s.logs.forget(saved.ID)
	}
	return saved, err
}

// Save saves a piece over a revision of it. Errors are a *wire.Error or the store's.
func (s *Studio) Save(ctx context.Context, id uint, base int, data []byte) (wire.Saved, error) {
	p, err := wire.Decode(data)
	if err != nil {
		return wire.Saved{}, err
	}
	saved, err := s.Store.Save(ctx, id, base, p)
	if len(p.Log) > 0 {
		s.logs.forget(id)
	}
	return saved, err
}

// Piece reads a piece. Errors are the store's.
func (s *Studio) Piece(ctx context.Context, id uint) (wire.Saved, error) { return s.Store.Get(ctx, id) }

// Document is the document of a piece as it was written, also of one that cannot be read any more.
// Errors are the store's.
func (s *Studio) Document(ctx context.Context, id uint) ([]byte, error) {
	return s.Store.Document(ctx, id)
}

// Since reads a piece and says what has changed in it after a revision. Errors are the store's.
func (s *Studio) Since(ctx context.Context, id uint, rev int) (wire.Since, error) {
	saved, changes, err := s.Store.Since(ctx, id, rev)
	if changes == nil {
		changes = []string{}
	}
	return wire.Since{Saved: saved, Changes: changes}, err
}

// Remove removes a piece. Errors are the store's.
func (s *Studio) Remove(ctx context.Context, id uint) error {
	defer s.logs.forget(id)
	return s.Store.Delete(ctx, id)
}
