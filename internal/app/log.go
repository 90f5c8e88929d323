package app

import (
	"context"
	"errors"
	"fmt"
	"hash/fnv"
	"maps"
	"math"
	"slices"
	"strconv"
	"sync"
	"time"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/quantity"
	"rutile/core/surface"
	"rutile/core/worklog"
	"rutile/internal/exchange"
	"rutile/internal/instruments"
	"rutile/internal/store"
	"rutile/internal/wire"
)

// ErrOtherPiece tells that entries are about another piece of the same number: one of another data folder, or of one that
// was brought back from a copy.
var ErrOtherPiece = errors.New("this is another piece of the same number")

// ErrLogFull tells that a piece's log holds no more entries.
var ErrLogFull = store.ErrLogFull

// logs are the logs of pieces as they were last read, and the air as instruments read it.
type logs struct {
	adding sync.Mutex // one request at a time is joined with what is there
	mu     sync.Mutex
	of     map[uint]*Logged
	writes map[uint]int   // how often each was written
	heads  map[uint]int64 // the newest entry of each; nil until it is read
	read   []worklog.Reading
	readAt time.Time
	airs   int64 // how often readings were written
}

// forget says that the log of a piece was written.
func (l *logs) forget(id uint) {
	l.mu.Lock()
	defer l.mu.Unlock()
	delete(l.of, id)
	l.writes[id]++
	l.heads = nil
}

// logHeads is the number of the newest entry of each piece.
func (s *Studio) logHeads(ctx context.Context) (map[uint]int64, error) {
	l := &s.logs
	l.mu.Lock()
	defer l.mu.Unlock()
	if l.heads == nil {
		heads, err := s.Store.LogHeads(ctx)
		if err != nil {
			return nil, err
		}
		l.heads = heads
	}
	return l.heads, nil
}

// noAir says that readings were written.
func (l *logs) noAir() {
	l.mu.Lock()
	defer l.mu.Unlock()
	l.readAt = time.Time{}
	l.airs++
}

// logOf is what was logged of a piece; nil where that is nothing.
func (s *Studio) logOf(ctx context.Context, id uint) (*Logged, error) {
	if id == 0 {
		return nil, nil
	}
	l := &s.logs
	l.mu.Lock()
	known, ok := l.of[id]
	writes := l.writes[id]
	l.mu.Unlock()
	if !ok {
		entries, seq, lost, err := s.Store.Log(ctx, id)
		if err != nil {
			return nil, err
		}
		if lost > 0 {
			s.Log.Error("entries of a log cannot be read and are left out", "piece", id, "entries", lost)
		}
		if len(entries) > 0 {
			known = &Logged{Entries: entries, Seq: seq}
		}
		l.mu.Lock()
		if l.writes[id] == writes {
			l.of[id] = known
		}
		l.mu.Unlock()
	}
	if known == nil {
		return nil, nil
	}
	out := *known
	out.Read = s.airRead(ctx)
	l.mu.Lock()
	out.Airs = l.airs
	l.mu.Unlock()
	return &out, nil
}

// How far back readings count for work that is being done, how many of them, and for how long what was read counts as
// still so.
const (
	airSpan  = 60 * 24 * time.Hour
	mostAir  = 3000
	airFresh = time.Minute
)

// airRead is the air as instruments that are not simulated read it, the oldest first: made-up air does not dry paint.
func (s *Studio) airRead(ctx context.Context) []worklog.Reading {
	l := &s.logs
	now := s.Now()
	l.mu.Lock()
	if !l.readAt.IsZero() && now.Sub(l.readAt).Abs() < airFresh {
		defer l.mu.Unlock()
		return l.read
	}
	l.mu.Unlock()
	rs, err := s.Store.LastReadings(ctx, now, airSpan, mostAir)
	if err != nil {
		s.Log.Warn("the air cannot be read", "err", err)
		return nil
	}
	var out []worklog.Reading
	for i := range rs {
		t, hasT := rs[i].Values[instruments.TempC]
		h, hasH := rs[i].Values[instruments.RHPct]
		if hasT && hasH && !rs[i].Simulated {
			out = append(out, worklog.Reading{At: seconds(rs[i].At), Air: drying.Climate{TempC: t, RH: h}})
		}
	}
	l.mu.Lock()
	defer l.mu.Unlock()
	l.read, l.readAt = out, now
	return out
}

// How far the clock of a device may be off before its times are put right, and how old and how far ahead an entry may
// be then. Working defaults.
const (
	clockOff  = 2 * time.Minute
	entryOld  = 10 * 365 * 24 * time.Hour
	entryNext = time.Hour
)

// AddEntries adds entries to the log of a piece. Entries that it has are not added again, so that they may be sent
// twice. sent is what the clock of the device showed when it sent them, and created when the piece was created that they
// are about; empty where it did not say. Errors are a *wire.Error, an *Unfit, ErrLogFull, ErrOtherPiece or the store's.
func (s *Studio) AddEntries(ctx context.Context, id uint, sent, created string, data []byte) (wire.Logged, error) {
	all, err := wire.DecodeEntries(data)
	if err != nil {
		return wire.Logged{}, err
	}
	dev, _ := DeviceIn(ctx)
	for i := range all {
		// Which device it was is known here, whatever it says itself.
		all[i].Device = dev.ID
		if dev.ID != "" {
			all[i].By = dev.Name
		}
	}
	s.logs.adding.Lock()
	defer s.logs.adding.Unlock()
	saved, err := s.Store.Get(ctx, id)
	if err != nil {
		return wire.Logged{}, err
	}
	if at := wire.Instant(created); !at.IsZero() && !at.Equal(saved.Created) {
		return wire.Logged{}, ErrOtherPiece
	}
	out := wire.Logged{Added: []string{}, Notes: []string{}}
	shop := s.pieceShop(ctx, id)
	if err := s.inTime(all, sent, shop.Log, &out); err != nil {
		return wire.Logged{}, err
	}
	j := s.Job(&saved.Piece, shop)
	if err := j.complete(all, &out); err != nil {
		return wire.Logged{}, err
	}
	all = append(j.snapshots(all), all...)
	added, err := s.Store.AddEntries(ctx, id, all, func(added []string) []store.CanChange { return j.taken(all, added) })
	if err != nil {
		return wire.Logged{}, err
	}
	s.logs.forget(id)
	s.shelf.forget()
	for _, e := range all {
		if slices.Contains(added, e.ID) && e.What != wire.WhatPlan {
			out.Added = append(out.Added, e.ID)
		}
	}
	if err := s.clocksFollow(ctx, id, &saved.Piece); err != nil {
		s.Log.Warn("clocks do not follow the log", "err", err)
	}
	now := s.Job(&saved.Piece, s.pieceShop(ctx, id))
	out.Notes = append(out.Notes, now.doubts(out.Added)...)
	return out, nil
}

// pieceShop is the workshop with the log of a kept piece.
func (s *Studio) pieceShop(ctx context.Context, id uint) Workshop {
	return s.Workshop(OfPiece(ctx, int(id)))
}

// inTime puts the times of entries right whose device has a clock that is off, and refuses times that cannot be. A
// correction that keeps the time of what it corrects has that from here, and not from the device.
func (s *Studio) inTime(all []wire.Entry, sent string, log *Logged, out *wire.Logged) error {
	now := s.Now()
	ours := func(e *wire.Entry) bool {
		return e.Corrects != "" && log != nil && slices.ContainsFunc(log.Entries, func(o wire.Entry) bool { return o.ID == e.Corrects && wire.Instant(o.At).Equal(wire.Instant(e.At)) })
	}
	off := time.Duration(0)
	if at := wire.Instant(sent); !at.IsZero() {
		if off = now.Sub(at); off.Abs() < clockOff {
			off = 0
		}
	}
	if off != 0 {
		how := "ahead"
		if off > 0 {
			how = "behind"
		}
		out.Notes = append(out.Notes, fmt.Sprintf("The clock of this device is %s %s: the times were put right.", span(off.Abs()), how))
	}
	right := func(i int, field, t string) (string, error) {
		at := wire.Instant(t)
		if at.IsZero() {
			return t, nil
		}
		at = at.Add(off)
		path := fmt.Sprintf("$.entries[%d].%s", i, field)
		switch {
		case at.After(now.Add(entryNext)):
			return "", &wire.Error{Path: path, Value: t, Says: "it is in the future: check the clock of this device, and the day"}
		case at.Before(now.Add(-entryOld)):
			return "", &wire.Error{Path: path, Value: t, Says: "it is more than ten years ago: check the clock of this device, and the day"}
		}
		return at.UTC().Format(time.RFC3339Nano), nil
	}
	for i := range all {
		e := &all[i]
		var err error
		if !ours(e) {
			if e.At, err = right(i, "at", e.At); err != nil {
				return err
			}
		}
		if e.Written, err = right(i, "written", e.Written); err != nil {
			return err
		}
	}
	return nil
}

// span words a time: days where it is long, and else hours and minutes.
func span(d time.Duration) string {
	if days := d.Hours() / 24; days >= 2 {
		return fmt.Sprintf("%.0f days", days)
	}
	return measure.Hours(d.Hours())
}

// complete fills in what entries leave to the plan: what was done, and how much paint that took. The error is a
// *wire.Error.
func (j *Job) complete(all []wire.Entry, out *wire.Logged) error {
	for i := range all {
		e := &all[i]
		at := fmt.Sprintf("$.entries[%d]", i)
		kind := worklog.Kind(e.What)
		if e.What == wire.WhatPlan {
			return &wire.Error{Path: at + ".what", Value: `"plan"`, Says: "Rutile keeps the plan itself when work begins"}
		}
		if e.Void || kind != worklog.Did && kind != worklog.Skipped && kind != worklog.Began {
			if e.Zone != "" && j.Piece.ZoneAt(e.Zone) < 0 {
				return noZone(at, e.Zone)
			}
			continue
		}
		zone := j.Piece.ZoneAt(e.Zone)
		if zone < 0 {
			return noZone(at, e.Zone)
		}
		steps := j.Piece.Zones[zone].Steps
		if e.Step == nil {
			n := e.Planned.Step
			if n > len(steps) {
				return &wire.Error{Path: at + ".planned.step", Value: fmt.Sprint(n), Says: fmt.Sprintf("the plan of %s has no such step; say what was done in step", j.name(zone))}
			}
			s := steps[n-1]
			s.Coats = 0
			e.Step = &s
		}
		if e.Step.Can != "" && e.Can == nil {
			if k := slices.IndexFunc(j.Piece.Cans, func(x wire.Can) bool { return x.ID == e.Step.Can }); k >= 0 {
				can := j.Piece.Cans[k]
				e.Can = &can
			} else if x, ok := j.Shop.Shelf.find(e.Step.Can); ok && x.wire != nil {
				can := *x.wire
				e.Can = &can
			} else {
				return &wire.Error{Path: at + ".step.can", Value: fmt.Sprintf("%q", e.Step.Can), Says: "there is no such can on the shelf, nor among the cans of the piece"}
			}
		}
		if e.Can != nil && e.Can.Kind != e.Step.Product {
			return &wire.Error{Path: at + ".step.product", Value: fmt.Sprintf("%q", e.Step.Product), Says: "that can holds " + e.Can.Kind}
		}
		if kind == worklog.Did && e.Step.Do == surface.Kinds[surface.Coat].ID && e.UsedL == nil {
			if l := j.uses(zone, e); l > 0 {
				e.UsedL = &l
			}
		}
	}
	return nil
}

func noZone(at, zone string) error {
	return &wire.Error{Path: at + ".zone", Value: fmt.Sprintf("%q", zone), Says: "the piece has no such zone"}
}

// uses is how many litres from the can a coat is expected to take, where it is laid as an entry says; 0 where that is
// not known.
func (j *Job) uses(zone int, e *wire.Entry) float64 {
	z := j.Zones[zone]
	if !(z.Area > 0) {
		return 0
	}
	s := stepOf(j.Craft, e.Step)
	s.Coats = 1
	steps := z.Steps[:0:0]
	if w := j.work(zone); w != nil {
		steps = append(steps, w.Steps[:w.Done]...)
		if n := len(steps); n > 0 && steps[n-1].NumDone() < steps[n-1].NumCoats() {
			steps[n-1].Coats = steps[n-1].NumDone()
		}
	}
	w := surface.Walk(j.Craft, &z.Facts, append(steps, s))
	coats := quantity.Coats(j.Craft, &quantity.Zone{Facts: &z.Facts, Relief: z.Relief, Trace: &w}, zone)
	if len(coats) == 0 {
		return 0
	}
	thick := e.Thick
	if thick == 0 {
		thick = 1
	}
	return math.Round(coats[len(coats)-1].Paint.Likely*thick*1e4) / 1e4
}

// snapshots keep the plans of zones on which work begins with some entries.
func (j *Job) snapshots(all []wire.Entry) (out []wire.Entry) {
	seen := map[string]bool{}
	for i := range all {
		e := &all[i]
		k := worklog.Kind(e.What)
		if e.Void || seen[e.Zone] || k != worklog.Did && k != worklog.Began && k != worklog.Skipped {
			continue
		}
		seen[e.Zone] = true
		zone := j.Piece.ZoneAt(e.Zone)
		if zone < 0 || j.log != nil && j.log.plans[e.Zone] != nil || len(j.Piece.Zones[zone].Steps) == 0 {
			continue
		}
		out = append(out, wire.Entry{ID: planID(e.Zone), At: e.At, What: wire.WhatPlan, Zone: e.Zone, Steps: j.Piece.Zones[zone].Steps})
	}
	return out
}

// planID is the id of the entry that keeps a zone's plan: there is one.
func planID(zone string) string {
	const most = 40 // characters of an id
	if id := "plan-" + zone; len(id) <= most {
		return id
	}
	h := fnv.New64a()
	_, _ = h.Write([]byte(zone))
	return "plan-" + strconv.FormatUint(h.Sum64(), 36)
}

// taken is how much more or less is in cans because of new entries: what a coat took, and what a corrected one gives
// back.
func (j *Job) taken(all []wire.Entry, added []string) (out []store.CanChange) {
	var was []wire.Entry
	if j.Shop.Log != nil {
		was = j.Shop.Log.Entries
	}
	is := slices.Clone(was)
	for i := range all {
		if slices.Contains(added, all[i].ID) {
			is = append(is, all[i])
		}
	}
	more := usedOf(was)
	for id, l := range usedOf(is) {
		more[id] -= l
	}
	for _, id := range slices.Sorted(maps.Keys(more)) {
		if more[id] != 0 {
			out = append(out, store.CanChange{ID: id, MoreL: more[id]})
		}
	}
	return out
}

// usedOf is how many litres of each can a log says were used.
func usedOf(all []wire.Entry) map[string]float64 {
	plain := make([]worklog.Entry, 0, len(all))
	at := make(map[string]int, len(all))
	for i := range all {
		e := &all[i]
		at[e.ID] = i
		plain = append(plain, worklog.Entry{ID: e.ID, At: seconds(wire.Instant(e.At)), Written: seconds(wire.Instant(orElse(e.Written, e.At))), Corrects: e.Corrects, Void: e.Void})
	}
	settled, _ := worklog.Settle(plain)
	out := map[string]float64{}
	for i := range settled {
		if e := &all[at[settled[i].ID]]; e.What == string(worklog.Did) && e.Can != nil && e.UsedL != nil {
			out[e.Can.ID] += *e.UsedL
		}
	}
	return out
}

// doubts are what is odd about entries that were just added, as sentences: nothing of it keeps them out.
func (j *Job) doubts(added []string) (out []string) {
	if j.log == nil {
		return nil
	}
	finished := 0
	for i := range j.log.core {
		if j.log.core[i].Kind == worklog.Finished {
			finished++
		}
	}
	for i := range j.log.entries {
		e := &j.log.entries[i]
		if !slices.Contains(added, e.ID) {
			continue
		}
		if worklog.Kind(e.What) == worklog.Finished && finished > 1 {
			out = append(out, "It was handed over before. The first time counts.")
		}
		if zone := j.Piece.ZoneAt(e.Zone); zone >= 0 {
			w := &j.works[zone]
			if j.twice(i) {
				out = append(out, "That was logged before. If it was done only once, take one of the two back.")
			}
			if len(w.Open) > 0 {
				out = append(out, fmt.Sprintf("%s: nothing is logged of %s. Was that done, or left out?", j.name(zone), craft.List(j.stepNames(zone, w.Open))))
			}
			if w.Finished && worklog.Kind(e.What) == worklog.Did && e.At > j.finishedAt() {
				out = append(out, "The piece was handed over before that. Take the handing over back if work goes on.")
			}
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// twice tells whether another entry, right before or after it, says that the same step or coat was done.
func (j *Job) twice(i int) bool {
	e := &j.log.core[i]
	if e.Kind != worklog.Did || e.Plan == 0 {
		return false
	}
	for _, by := range []int{-1, 1} {
		for k := i + by; k >= 0 && k < len(j.log.core); k += by {
			if o := &j.log.core[k]; o.Zone == e.Zone && o.Kind == worklog.Did {
				if o.Plan == e.Plan && o.Coat == e.Coat {
					return true
				}
				break
			}
		}
	}
	return false
}

func (j *Job) finishedAt() string {
	for i := range j.log.core {
		if j.log.core[i].Kind == worklog.Finished {
			return j.log.entries[i].At
		}
	}
	return ""
}

// PieceLog is the log of a piece with what it comes to. Errors are the store's.
func (s *Studio) PieceLog(ctx context.Context, id uint) (wire.PieceLog, error) {
	saved, err := s.Store.Get(ctx, id)
	if err != nil {
		return wire.PieceLog{}, err
	}
	j := s.Job(&saved.Piece, s.pieceShop(ctx, id))
	return j.PieceLog(), nil
}

// LogCSV is what holds of a piece's log as CSV. Errors are the store's.
func (s *Studio) LogCSV(ctx context.Context, id uint) ([]byte, error) {
	l, err := s.PieceLog(ctx, id)
	if err != nil {
		return nil, err
	}
	return exchange.WriteLog(l.Lines), nil
}

// PieceFile is a kept piece as a piece file, with its log. Errors are the store's.
func (s *Studio) PieceFile(ctx context.Context, id uint) (*wire.Piece, error) {
	saved, err := s.Store.Get(ctx, id)
	if err != nil {
		return nil, err
	}
	l, err := s.logOf(ctx, id)
	if err != nil {
		return nil, err
	}
	if l != nil {
		saved.Piece.Log = l.Entries
	}
	return &saved.Piece, nil
}

// typedBy is where air comes from that somebody typed.
const typedBy = "typed"

// TypeAir keeps the air that somebody read and typed: what dries goes by it from now on. Errors are the store's.
func (s *Studio) TypeAir(ctx context.Context, a wire.ClockAir) error {
	err := s.Store.AddReadings(ctx, []instruments.Reading{{At: s.Now(), By: typedBy, Values: map[instruments.Quantity]float64{instruments.TempC: a.TempC, instruments.RHPct: a.RHPct}}})
	if err != nil {
		return err
	}
	s.logs.noAir()
	_, err = s.AirClocks(ctx, a)
	return err
}
