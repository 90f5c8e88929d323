package app

import (
	"context"
	"fmt"
	"log/slog"
	"strings"
	"sync/atomic"
	"time"

	"rutile/core/clock"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/plan"
	"rutile/internal/instruments"
	"rutile/internal/photo"
	"rutile/internal/store"
	"rutile/internal/wire"
)

// What the store says that a caller decides on, and the largest files that are taken in, in bytes.
var (
	ErrNoPiece   = store.ErrNotFound
	ErrNoReading = store.ErrNoReading
	ErrFull      = store.ErrFull
	ErrReadOnly  = store.ErrReadOnly

	ErrSettingsChanged = store.ErrSettingsChanged
)

const (
	MaxPhotoBytes = photo.MaxBytes
	MaxCSVBytes   = instruments.MaxCSVBytes
	AnyRevision   = store.AnyRevision
)

// Conflict is a write refused because the piece has changed meanwhile.
type Conflict = store.Conflict

// Damaged is a piece whose document cannot be read.
type Damaged = store.Damaged

// NotFound is a question about something that is not there.
type NotFound struct{ Says string }

// Error says what is not there, as a sentence.
func (e *NotFound) Error() string { return e.Says }

// Unfit is something typed or chosen that cannot be used.
type Unfit struct{ Says string }

// Error says what is wrong with it, as a sentence.
func (e *Unfit) Error() string { return e.Says }

// StudioOptions say what a studio works with.
type StudioOptions struct {
	Store *store.Store
	// Site is the usual air of a studio that has not said its own.
	Site drying.Climate
	// Instruments is the workshop's instruments; nil where there are none.
	Instruments *instruments.Set
	// Now is the clock; nil for the machine's.
	Now func() time.Time
	// Times are the machine's clocks, for the painter's clocks; nil for those of this machine.
	Times func() clock.Moment
	// Demo tells that the data is thrown away at the end.
	Demo bool
	// Log may be nil.
	Log *slog.Logger
}

// Studio is an engine with what a studio keeps: its pieces, its settings and its instruments.
type Studio struct {
	*Engine
	StudioOptions
	// settings are the studio's, read once and kept with every write.
	settings atomic.Pointer[keptSettings]
	// shelf is the studio's cans, read once and again after each write.
	shelf   shelfRead
	clocks  clocks
	logs    logs
	devices devices
	judged  *judgements
	live    live
	runs    runs
}

// keptSettings are settings with their revision.
type keptSettings struct {
	wire.Settings
	rev int
}

// NewStudio makes a studio.
func NewStudio(e *Engine, o StudioOptions) *Studio {
	if o.Now == nil {
		o.Now = time.Now
	}
	if o.Times == nil {
		o.Times = machineTimes
	}
	if o.Log == nil {
		o.Log = slog.New(slog.DiscardHandler)
	}
	return &Studio{Engine: e, StudioOptions: o, judged: newJudgements(), logs: logs{of: map[uint]*Logged{}, writes: map[uint]int{}}}
}

// Settings are the studio's, or the usual ones where none were saved.
func (s *Studio) Settings(ctx context.Context) wire.Settings { return s.settingsNow(ctx).Settings }

func (s *Studio) settingsNow(ctx context.Context) keptSettings {
	if set := s.settings.Load(); set != nil {
		return *set
	}
	usual := keptSettings{wire.Settings{Units: measure.Metric.String(), Site: wire.Site{TempC: s.Site.TempC, RHPct: s.Site.RH}}, 0}
	set, rev, err := s.Store.Settings(ctx)
	if err != nil {
		s.Log.Error("store", "err", err)
		return usual
	}
	now := keptSettings{set, rev}
	if rev == 0 {
		now = usual
	}
	s.settings.CompareAndSwap(nil, &now) // what was saved meanwhile is newer
	return now
}

// SaveSettings reads settings and keeps them over a revision, or over any. Errors are a *wire.Error,
// ErrSettingsChanged or the store's.
func (s *Studio) SaveSettings(ctx context.Context, base int, data []byte) error {
	set, err := wire.DecodeSettings(data)
	if err != nil {
		return err
	}
	rev, err := s.Store.SaveSettings(ctx, base, set)
	if err != nil {
		return err
	}
	now := &keptSettings{set, rev}
	for {
		was := s.settings.Load()
		if was != nil && was.rev >= rev || s.settings.CompareAndSwap(was, now) {
			return nil
		}
	}
}

// About is what the page needs to know of the studio.
func (s *Studio) About(ctx context.Context) wire.Studio {
	set := s.settingsNow(ctx)
	dev, _ := DeviceIn(ctx)
	return wire.Studio{Device: dev.Name, Settings: set.Settings, Rev: set.rev, Demo: s.Demo, ReadOnly: s.Store.ReadOnly(), Air: airOf(drying.Climate{TempC: set.Site.TempC, RH: set.Site.RHPct})}
}

type pieceKey struct{}

// OfPiece tells what is done with a context which kept piece it is about, so that cans reserved for it count.
func OfPiece(ctx context.Context, id int) context.Context {
	return context.WithValue(ctx, pieceKey{}, id)
}

// Workshop is where the pieces of this studio are judged today.
func (s *Studio) Workshop(ctx context.Context) Workshop {
	set := s.Settings(ctx)
	u, _ := measure.UnitsNamed(set.Units)
	kit, _ := KitOf(set.Kits, set.OwnKits)
	cans, err := s.shelfNow(ctx)
	if err != nil {
		s.Log.Error("store", "err", err)
	}
	piece, _ := ctx.Value(pieceKey{}).(int)
	logged, err := s.logOf(ctx, uint(max(0, piece)))
	if err != nil {
		s.Log.Error("store", "err", err)
	}
	return Workshop{
		Now: s.Now(), Log: logged,
		Shelf: cans, PieceID: piece, Measures: MeasuresOf(u, set.Measure, set.CupML),
		Air: drying.Climate{TempC: set.Site.TempC, RH: set.Site.RHPct}, Units: u, Today: s.Now().Format(time.DateOnly),
		LeadYear: set.LeadYear, Ways: set.Ways, Kit: kit, HabitsOff: habitsOf(set.HabitsOff), Bench: benchOf(set.Bench),
	}
}

// Read reads a piece file and puts it to work in this studio. The error is a *wire.Error.
func (s *Studio) Read(ctx context.Context, data []byte) (*Job, error) {
	p, err := wire.Decode(data)
	if err != nil {
		return nil, err
	}
	return s.Job(p, s.Workshop(ctx)), nil
}

// ReadZone is [Studio.Read] with the index of a zone; a *NotFound where the piece has none of that
// id.
func (s *Studio) ReadZone(ctx context.Context, data []byte, id string) (*Job, int, error) {
	j, err := s.Read(ctx, data)
	if err != nil {
		return nil, 0, err
	}
	i := j.Piece.ZoneAt(id)
	if i < 0 {
		return nil, 0, &NotFound{"The piece has no such zone."}
	}
	return j, i, nil
}

// Compared finds the ways of working to compare: those of some ids separated by commas, or without
// ids those that differ in what makes paint hold. An *Unfit where there is no such way, or there
// are too many.
func (s *Studio) Compared(ctx context.Context, ids string) ([]plan.Way, error) {
	all := plan.Main()
	if ids != "" {
		all = strings.Split(ids, ",")
	}
	if len(all) > MostCompared {
		return nil, &Unfit{fmt.Sprintf("%d ways are too many to compare; choose at most %d.", len(all), MostCompared)}
	}
	out := make([]plan.Way, len(all))
	for i, id := range all {
		var err error
		if out[i], err = s.Way(ctx, id); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// WayOr is Way, with the usual one for an unknown id: the piece comes from another studio.
func (s *Studio) WayOr(ctx context.Context, id string) plan.Way {
	w, err := s.Way(ctx, id)
	if err != nil {
		return plan.Ways[0]
	}
	return w
}

// Way finds a way of working by its id, the studio's own where none is named; an *Unfit where
// there is none.
func (s *Studio) Way(ctx context.Context, id string) (plan.Way, error) {
	set := s.Settings(ctx)
	if id == "" {
		id = set.Way
	}
	if id == "" {
		return plan.Ways[0], nil
	}
	w, ok := WayNamed(id, set.Ways)
	if !ok {
		return w, &Unfit{fmt.Sprintf("There is no way of working %q. It may have been removed from the studio's settings.", wire.Clip(id))}
	}
	return w, nil
}
