package app

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"strconv"
	"time"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/internal/instruments"
	"rutile/internal/store"
	"rutile/internal/wire"
)

const moment = "2006-01-02T15:04"

func airRead(r *instruments.Reading, loc *time.Location) wire.AirRead {
	a := wire.AirRead{At: r.At.In(loc).Format(moment), By: r.By, Simulated: r.Simulated}
	for q, to := range map[instruments.Quantity]**float64{instruments.TempC: &a.TempC, instruments.RHPct: &a.RHPct, instruments.SurfaceC: &a.SurfaceC} {
		if v, ok := r.Values[q]; ok {
			*to = &v
		}
	}
	if a.TempC != nil && a.RHPct != nil {
		d := airOf(drying.Climate{TempC: *a.TempC, RH: *a.RHPct}).DewPointC
		a.DewPointC = &d
	}
	return a
}

// InstrumentsNow is the instruments of the workshop and the air at this moment.
func (s *Studio) InstrumentsNow(ctx context.Context) (wire.InstrumentsNow, error) {
	out := wire.InstrumentsNow{Instruments: []wire.InstrumentWord{}}
	if s.Instruments == nil {
		return out, nil
	}
	for _, x := range s.Instruments.Instruments {
		a := x.About()
		w := wire.InstrumentWord{ID: a.ID, Name: a.Name, OnSpot: a.OnSpot, Simulated: a.Simulated}
		if a.OnSpot {
			w.Field = string(a.Measures[0])
		}
		out.Instruments = append(out.Instruments, w)
	}
	now := s.Now()
	r, err := s.Instruments.Room.Read(instruments.Spot{}, now)
	if err != nil {
		return out, fmt.Errorf("read the room: %w", err)
	}
	room := wire.RoomNow{AirRead: airRead(&r, now.Location())}
	if room.SurfaceC != nil && room.DewPointC != nil && *room.SurfaceC < *room.DewPointC+drying.AboveDew {
		room.Says = "Surfaces are less than " + s.Workshop(ctx).Units.Difference(drying.AboveDew) + " above the dew point: do not paint now."
	}
	out.Room = &room
	return out, nil
}

// Limits on what the page draws of a course.
const (
	courseEvery  = 15 * time.Minute
	mostReadings = 2000
	mostSpots    = 12
)

// AirHistory is the air of the day, and readings brought in.
func (s *Studio) AirHistory(ctx context.Context) (wire.AirHistory, error) {
	out := wire.AirHistory{Today: []wire.AirRead{}, Imported: []wire.AirRead{}, Spots: []wire.SpotRead{}}
	now := s.Now()
	if s.Instruments != nil {
		midnight := time.Date(now.Year(), now.Month(), now.Day(), 0, 0, 0, 0, now.Location())
		for _, r := range s.Instruments.Room.Course(midnight, now, courseEvery) {
			out.Today = append(out.Today, airRead(&r, now.Location()))
		}
	}
	imported, err := s.Store.LastReadings(ctx, now.Add(instruments.Ahead), 24*time.Hour, mostReadings)
	if err != nil {
		return out, err
	}
	for i := range imported {
		r := &imported[i]
		if a := airRead(r, now.Location()); a.TempC != nil || a.RHPct != nil || a.SurfaceC != nil {
			out.Imported = append(out.Imported, a)
		}
	}
	for i := range imported {
		r := &imported[len(imported)-1-i]
		for _, q := range []instruments.Quantity{instruments.GlossUnits, instruments.MoisturePct} {
			if v, ok := r.Values[q]; ok && len(out.Spots) < mostSpots {
				out.Spots = append(out.Spots, spotRead(r, q, v, now.Location()))
			}
		}
	}
	for _, list := range [][]wire.AirRead{out.Imported, out.Today} {
		if m := mean(list); m != nil {
			out.Mean = m
			break
		}
	}
	return out, nil
}

func spotRead(r *instruments.Reading, q instruments.Quantity, v float64, loc *time.Location) wire.SpotRead {
	row := q.Row()
	return wire.SpotRead{
		Reading: wire.Reading{Field: string(q), Value: v, At: r.At.In(loc).Format(moment), By: r.By, Simulated: r.Simulated},
		Says:    row.Name + " " + Number(v) + " " + row.Unit,
	}
}

func mean(list []wire.AirRead) *wire.AirMean {
	var m wire.AirMean
	n := 0.
	for _, a := range list {
		if a.TempC != nil && a.RHPct != nil {
			m.TempC, m.RHPct, m.By = m.TempC+*a.TempC, m.RHPct+*a.RHPct, a.By
			n++
		}
	}
	if n == 0 {
		return nil
	}
	m.TempC, m.RHPct = Tenths(m.TempC/n), Tenths(m.RHPct/n)
	return &m
}

// ReadSpot holds an instrument on a zone of a piece. Errors are a *NotFound, an *Unfit where the
// instrument says nothing of such a spot, or that of an instrument that does not answer.
func (s *Studio) ReadSpot(j *Job, zone, piece int, id string) (wire.SpotRead, error) {
	if s.Instruments == nil || s.Instruments.Instrument(id) == nil || !s.Instruments.Instrument(id).About().OnSpot {
		return wire.SpotRead{}, &NotFound{"There is no such instrument."}
	}
	x := s.Instruments.Instrument(id)
	r, err := x.Read(spotOf(j, zone, piece), s.Now())
	var e *instruments.Error
	if errors.As(err, &e) {
		return wire.SpotRead{}, &Unfit{e.Says}
	}
	if err != nil {
		return wire.SpotRead{}, fmt.Errorf("%w: %w", ErrNoAnswer, err)
	}
	q := x.About().Measures[0]
	return spotRead(&r, q, r.Values[q], s.Now().Location()), nil
}

// ErrNoAnswer tells that an instrument does not answer.
var ErrNoAnswer = errors.New("the instrument does not answer")

// spotOf is what an instrument meets on a zone.
func spotOf(j *Job, i, piece int) instruments.Spot {
	c, z := j.Craft, &j.Zones[i]
	sub := &c.Substrates[z.Substrate]
	s := instruments.Spot{
		Key: strconv.Itoa(piece) + "/" + j.Piece.Zones[i].ID, Substrate: sub.ID, Group: string(sub.Group), Finish: c.Finishes[z.Finish].ID,
		Gloss: -1, Damp: z.Damp(),
	}
	if z.Gloss != craft.NoSheen {
		s.Gloss = craft.Sheens[z.Gloss].Units
	}
	return s
}

// ImportReadings brings readings in as CSV, under a name. Errors are an *Unfit or the store's.
func (s *Studio) ImportReadings(ctx context.Context, data []byte, name string) (wire.Imported, error) {
	now := s.Now()
	loc := now.Location()
	got, err := instruments.ReadCSV(data, cmp.Or(name, "imported"), now)
	var e *instruments.Error
	if errors.As(err, &e) {
		return wire.Imported{}, &Unfit{e.Says}
	}
	if err != nil {
		return wire.Imported{}, err
	}
	defer s.logs.noAir()
	if err := s.Store.AddReadings(ctx, got.Readings); err != nil {
		return wire.Imported{}, err
	}
	out := wire.Imported{
		Taken: len(got.Readings), Gaps: got.Gaps, Separator: got.Separator, Refused: []wire.Refusal{}, NRefused: got.NRefused, Columns: []string{},
		From: got.Readings[0].At.In(loc).Format(moment), To: got.Readings[len(got.Readings)-1].At.In(loc).Format(moment),
	}
	for _, r := range got.Refused {
		out.Refused = append(out.Refused, wire.Refusal(r))
	}
	for _, q := range got.Columns {
		out.Columns = append(out.Columns, q.Row().Name)
	}
	return out, nil
}

// Sources lists where imported readings come from. Errors are the store's.
func (s *Studio) Sources(ctx context.Context) ([]wire.Source, error) {
	all, err := s.Store.Sources(ctx)
	out, loc := make([]wire.Source, len(all)), s.Now().Location()
	for i, x := range all {
		out[i] = wire.Source{Name: x.Name, Count: x.Count, From: x.From.In(loc).Format(moment), To: x.To.In(loc).Format(moment)}
	}
	return out, err
}

// mostShown is how many readings a page of them has.
const mostShown = 100

// ReadingsOf lists imported readings of a source, the newest first, after the first skip of them.
// Errors are the store's.
func (s *Studio) ReadingsOf(ctx context.Context, source string, skip int) (wire.ReadingsPage, error) {
	all, err := s.Store.ReadingsOf(ctx, source, skip, mostShown+1)
	out := wire.ReadingsPage{Readings: []wire.KeptReading{}, More: len(all) > mostShown}
	for i := range all[:min(mostShown, len(all))] {
		out.Readings = append(out.Readings, s.keptReading(&all[i]))
	}
	return out, err
}

func (s *Studio) keptReading(r *store.KeptReading) wire.KeptReading {
	out := wire.KeptReading{ID: r.ID, By: r.By}
	out.At = r.At.In(s.Now().Location()).Format(moment)
	for q, to := range quantities(&out.ReadingValues) {
		if v, ok := r.Values[q]; ok {
			*to = &v
		}
	}
	return out
}

// quantities are the values of a reading by what they measure.
func quantities(v *wire.ReadingValues) map[instruments.Quantity]**float64 {
	return map[instruments.Quantity]**float64{
		instruments.TempC: &v.TempC, instruments.RHPct: &v.RHPct, instruments.SurfaceC: &v.SurfaceC,
		instruments.GlossUnits: &v.GlossUnits, instruments.MoisturePct: &v.MoisturePct,
	}
}

// PutReading corrects an imported reading, or brings back one that was removed, which source it came
// from being named then. Errors are a *wire.Error, an *Unfit or the store's.
func (s *Studio) PutReading(ctx context.Context, id uint, source string, data []byte) (wire.KeptReading, error) {
	v, err := wire.DecodeReading(data)
	if err != nil {
		return wire.KeptReading{}, err
	}
	now := s.Now()
	r := store.KeptReading{ID: id, Reading: instruments.Reading{By: source, Values: map[instruments.Quantity]float64{}}}
	if r.At, err = time.ParseInLocation(moment, v.At[:len(moment)], now.Location()); err != nil {
		return wire.KeptReading{}, &wire.Error{Path: "$.at", Value: strconv.Quote(v.At), Says: "there is no such time"}
	}
	if r.At.After(now.Add(instruments.Ahead)) {
		return wire.KeptReading{}, &wire.Error{Path: "$.at", Value: strconv.Quote(v.At), Says: "this time is in the future"}
	}
	for q, at := range quantities(&v) {
		if *at != nil {
			r.Values[q] = **at
		}
	}
	switch was, err := s.Store.Reading(ctx, id); {
	case err == nil:
		r.By = was.By
	case !errors.Is(err, ErrNoReading) || source == "":
		return wire.KeptReading{}, err
	}
	defer s.logs.noAir()
	if err := s.Store.PutReading(ctx, r); err != nil {
		return wire.KeptReading{}, err
	}
	return s.keptReading(&r), nil
}

// RemoveReading removes an imported reading. Errors are the store's.
func (s *Studio) RemoveReading(ctx context.Context, id uint) error {
	defer s.logs.noAir()
	return s.Store.RemoveReading(ctx, id)
}

// RemoveSource removes all imported readings of a source, and says how many there were. Errors are
// the store's.
func (s *Studio) RemoveSource(ctx context.Context, source string) (int, error) {
	defer s.logs.noAir()
	return s.Store.RemoveSource(ctx, source)
}
