package server

import (
	"context"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/internal/bench"
	"rutile/internal/format"
)

// BenchNow is the instruments of the workshop and the air at this moment.
type BenchNow struct {
	Instruments []InstrumentWord `json:"instruments"`
	Room        *RoomNow         `json:"room,omitempty" doc:"Absent where there is no sensor"`
}

// InstrumentWord describes an instrument.
type InstrumentWord struct {
	ID        string `json:"id"`
	Name      string `json:"name"`
	OnSpot    bool   `json:"on_spot" doc:"It is held on a spot of a zone"`
	Simulated bool   `json:"simulated"`
	Field     string `json:"field,omitempty" doc:"The field of a zone that its reading belongs in"`
}

// RoomNow is the air of the workshop at one moment.
type RoomNow struct {
	AirRead
	Says string `json:"says,omitempty" doc:"What is to be heeded"`
}

// AirRead is one reading of the air.
type AirRead struct {
	At        string   `json:"at" doc:"As 2026-11-24T10:15, by the clock on the wall"`
	TempC     *float64 `json:"temp_c,omitempty"`
	RHPct     *float64 `json:"rh_pct,omitempty"`
	SurfaceC  *float64 `json:"surface_c,omitempty"`
	DewPointC *float64 `json:"dew_point_c,omitempty"`
	By        string   `json:"by"`
	Simulated bool     `json:"simulated,omitempty"`
}

// Course is the air of a day, and what was brought in.
type Course struct {
	Today    []AirRead  `json:"today" doc:"Since midnight, by the room sensor"`
	Imported []AirRead  `json:"imported" doc:"The last day of readings brought in"`
	Mean     *AirMean   `json:"mean,omitempty" doc:"Over the imported readings if there are any, else over the day"`
	Spots    []SpotRead `json:"spots" doc:"Readings of spots that were brought in, the last first"`
}

// AirMean is the usual air over some readings.
type AirMean struct {
	TempC float64 `json:"temp_c"`
	RHPct float64 `json:"rh_pct"`
	By    string  `json:"by"`
}

// SpotRead is a reading of a spot, ready for its field.
type SpotRead struct {
	format.Reading
	Says string `json:"says"`
}

// Imported is what became of a file of readings.
type Imported struct {
	Taken     int       `json:"taken"`
	Gaps      int       `json:"gaps" doc:"Cells that hold nothing"`
	Separator string    `json:"separator"`
	Refused   []Refusal `json:"refused" doc:"Rows that were not taken, the first of them"`
	NRefused  int       `json:"refused_in_all"`
	From      string    `json:"from"`
	To        string    `json:"to"`
	Columns   []string  `json:"columns"`
}

// Refusal says which line was not taken, and why.
type Refusal struct {
	Line int    `json:"line"`
	Says string `json:"says"`
}

const moment = "2006-01-02T15:04"

func airOf(r *bench.Reading, loc *time.Location) AirRead {
	a := AirRead{At: r.At.In(loc).Format(moment), By: r.By, Simulated: r.Simulated}
	for q, to := range map[bench.Quantity]**float64{bench.TempC: &a.TempC, bench.RHPct: &a.RHPct, bench.SurfaceC: &a.SurfaceC} {
		if v, ok := r.Values[q]; ok {
			*to = &v
		}
	}
	if a.TempC != nil && a.RHPct != nil {
		d := format.AirOf(drying.Climate{TempC: *a.TempC, RH: *a.RHPct}).DewPointC
		a.DewPointC = &d
	}
	return a
}

type benchOut struct{ Body BenchNow }

func (h *handlers) bench(context.Context, *struct{}) (*benchOut, error) {
	out := BenchNow{Instruments: []InstrumentWord{}}
	if h.Bench == nil {
		return &benchOut{out}, nil
	}
	for _, x := range h.Bench.Instruments {
		a := x.About()
		w := InstrumentWord{ID: a.ID, Name: a.Name, OnSpot: a.OnSpot, Simulated: a.Simulated}
		if a.OnSpot {
			w.Field = string(a.Measures[0])
		}
		out.Instruments = append(out.Instruments, w)
	}
	now := h.Now()
	r, err := h.Bench.Room.Read(bench.Spot{}, now)
	if err != nil {
		return nil, huma.Error500InternalServerError(err.Error())
	}
	room := RoomNow{AirRead: airOf(&r, now.Location())}
	if room.SurfaceC != nil && room.DewPointC != nil && *room.SurfaceC < *room.DewPointC+drying.AboveDew {
		room.Says = "Surfaces are less than 3 °C above the dew point: paint nothing now."
	}
	out.Room = &room
	return &benchOut{out}, nil
}

type courseOut struct{ Body Course }

// Limits on what the page draws of a course.
const (
	courseEvery  = 15 * time.Minute
	mostReadings = 2000
	mostSpots    = 12
)

func (h *handlers) course(ctx context.Context, _ *struct{}) (*courseOut, error) {
	out := Course{Today: []AirRead{}, Imported: []AirRead{}, Spots: []SpotRead{}}
	now := h.Now()
	if h.Bench != nil {
		midnight := time.Date(now.Year(), now.Month(), now.Day(), 0, 0, 0, 0, now.Location())
		for _, r := range h.Bench.Room.Course(midnight, now, courseEvery) {
			out.Today = append(out.Today, airOf(&r, now.Location()))
		}
	}
	imported, err := h.Store.LastReadings(ctx, 24*time.Hour, mostReadings)
	if err != nil {
		return nil, h.failed(err)
	}
	for i := range imported {
		r := &imported[i]
		if a := airOf(r, now.Location()); a.TempC != nil || a.RHPct != nil || a.SurfaceC != nil {
			out.Imported = append(out.Imported, a)
		}
	}
	for i := range imported {
		r := &imported[len(imported)-1-i]
		for _, q := range []bench.Quantity{bench.GlossUnits, bench.MoisturePct} {
			if v, ok := r.Values[q]; ok && len(out.Spots) < mostSpots {
				out.Spots = append(out.Spots, spotRead(r, q, v, now.Location()))
			}
		}
	}
	for _, list := range [][]AirRead{out.Imported, out.Today} {
		if m := mean(list); m != nil {
			out.Mean = m
			break
		}
	}
	return &courseOut{out}, nil
}

func spotRead(r *bench.Reading, q bench.Quantity, v float64, loc *time.Location) SpotRead {
	row := q.Row()
	return SpotRead{
		format.Reading{Field: string(q), Value: v, At: r.At.In(loc).Format(moment), By: r.By, Simulated: r.Simulated},
		row.Name + " " + format.Number(v) + " " + row.Unit,
	}
}

func mean(list []AirRead) *AirMean {
	var m AirMean
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
	m.TempC, m.RHPct = format.Tenths(m.TempC/n), format.Tenths(m.RHPct/n)
	return &m
}

type readOut struct{ Body SpotRead }

func (h *handlers) read(ctx context.Context, in *struct {
	ID    string `path:"id"`
	Zone  string `query:"zone" required:"true" doc:"Id of the zone it is held on"`
	Piece int    `query:"piece" doc:"Number of the piece, so that each has spots of its own"`
	PieceBody
}) (*readOut, error) {
	p, i, err := zoneOf(in.RawBody, in.Zone)
	if err != nil {
		return nil, err
	}
	if h.Bench == nil || h.Bench.Instrument(in.ID) == nil || !h.Bench.Instrument(in.ID).About().OnSpot {
		return nil, huma.Error404NotFound("There is no such instrument on the bench.")
	}
	x := h.Bench.Instrument(in.ID)
	r, err := x.Read(spotOf(h.Craft, p, i, in.Piece), h.Now())
	var e *bench.Error
	if errors.As(err, &e) {
		return nil, huma.Error422UnprocessableEntity(e.Says)
	}
	if err != nil {
		return nil, huma.NewError(http.StatusBadGateway, "The instrument does not answer.")
	}
	q := x.About().Measures[0]
	return &readOut{spotRead(&r, q, r.Values[q], h.Now().Location())}, nil
}

// spotOf is what an instrument meets on a zone.
func spotOf(c *craft.Craft, p *format.Piece, i, piece int) bench.Spot {
	z := p.Zone(c, i, drying.Usual)
	sub := &c.Substrates[z.Substrate]
	s := bench.Spot{
		Key: format.Number(float64(piece)) + "/" + p.Zones[i].ID, Substrate: sub.ID, Group: string(sub.Group), Finish: c.Finishes[z.Finish].ID,
		Gloss: -1, Damp: z.Damp(),
	}
	if z.Gloss != craft.NoSheen {
		s.Gloss = craft.Sheens[z.Gloss].Units
	}
	return s
}

// ReadingsBody is a file of readings as a request's body.
type ReadingsBody struct {
	RawBody []byte `contentType:"text/csv"`
}

type importedOut struct{ Body Imported }

func (h *handlers) importReadings(ctx context.Context, in *struct {
	Name string `query:"name" maxLength:"200" doc:"What the readings are from"`
	ReadingsBody
}) (*importedOut, error) {
	name := in.Name
	if name == "" {
		name = "imported"
	}
	loc := h.Now().Location()
	got, err := bench.ReadCSV(in.RawBody, name, loc)
	var e *bench.Error
	if errors.As(err, &e) {
		return nil, huma.Error422UnprocessableEntity(e.Says)
	}
	if err != nil {
		return nil, h.failed(err)
	}
	if err := h.Store.AddReadings(ctx, got.Readings); err != nil {
		return nil, h.failed(err)
	}
	out := Imported{
		Taken: len(got.Readings), Gaps: got.Gaps, Separator: got.Separator, Refused: []Refusal{}, NRefused: got.NRefused, Columns: []string{},
		From: got.Readings[0].At.In(loc).Format(moment), To: got.Readings[len(got.Readings)-1].At.In(loc).Format(moment),
	}
	for _, r := range got.Refused {
		out.Refused = append(out.Refused, Refusal(r))
	}
	for _, q := range got.Columns {
		out.Columns = append(out.Columns, q.Row().Name)
	}
	return &importedOut{out}, nil
}
