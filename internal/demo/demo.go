// Package demo holds the demo studio: Lantern Yard, the foyer of a small
// puppet theatre being refitted over a wet autumn. All of it is made up.
package demo

import (
	"context"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"

	"slices"
	"strings"
	"sync"
	"time"

	"rutile/core/drying"
	"rutile/internal/photo"
	"rutile/internal/store"
	"rutile/internal/wire"
)

//go:embed pieces/*.json shelf/*.json logs/*.json
var files embed.FS

// Site is the studio's usual climate in autumn.
var Site = drying.Climate{TempC: 17, RH: 64}

// InstrumentSeed is the seed of the simulated instruments.
const InstrumentSeed = 7

// Settings are the studio's.
var Settings = wire.Settings{
	Name: "Lantern Yard", Units: "metric", Site: wire.Site{TempC: Site.TempC, RHPct: Site.RH},
	Kits: []string{"brush", "spray"},
}

// settled is how many pieces have been in the studio for long.
const settled = 13

// Pieces reads the demo pieces, in the order of their file names.
func Pieces() ([]*wire.Piece, error) {
	all, err := names()
	if err != nil {
		return nil, err
	}
	var out []*wire.Piece
	for _, n := range all {
		data, err := files.ReadFile(n)
		if err != nil {
			return nil, err
		}
		p, err := wire.Decode(data)
		if err != nil {
			return nil, fmt.Errorf("%s: %w", n, err)
		}
		out = append(out, p)
	}
	return out, nil
}

// after are the pictures of finished pieces that their logs name.
var after = map[string][]string{"Umbrella chest": {"umbrella-chest-after.jpg"}, "Playbill box": {"playbill-box-after.jpg"}}

// painted is a piece in the colours that it is to have.
func painted(p *wire.Piece) *wire.Piece {
	out := *p
	out.Zones = slices.Clone(p.Zones)
	for i := range out.Zones {
		if t := out.Zones[i].Target; t != nil && t.Colour != "" {
			out.Zones[i].Colour = t.Colour
		}
	}
	return &out
}

// drawn are the stand-ins for the photographs of the demo pieces, by name.
var drawn = sync.OnceValues(func() (map[string]photo.Picture, error) {
	ps, err := Pieces()
	if err != nil {
		return nil, err
	}
	out := map[string]photo.Picture{}
	var all sync.WaitGroup
	var mu sync.Mutex
	var errs []error
	for i, p := range ps {
		for j := range p.Photos {
			all.Go(func() {
				f := &p.Photos[j]
				made, err := photo.Of(standIn(p, f, uint64(i)))
				mu.Lock()
				defer mu.Unlock()
				out[f.File], errs = made, append(errs, err)
			})
		}
		for _, file := range after[p.Name] {
			all.Go(func() {
				made, err := photo.Of(standIn(painted(p), &wire.Photo{}, uint64(i)))
				mu.Lock()
				defer mu.Unlock()
				out[file], errs = made, append(errs, err)
			})
		}
	}
	all.Wait()
	return out, errors.Join(errs...)
})

// Log reads the log of a demo piece, by its file name, as of a moment: its times are so many hours before that. Of a
// piece that was not begun it is empty.
func Log(name string, p *wire.Piece, now time.Time) ([]wire.Entry, error) {
	data, err := files.ReadFile("logs/" + name)
	if errors.Is(err, fs.ErrNotExist) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	var all struct {
		Entries []struct {
			AgoH float64 `json:"ago_h"`
			wire.Entry
		}
	}
	if err := json.Unmarshal(data, &all); err != nil {
		return nil, fmt.Errorf("log of %s: %w", name, err)
	}
	var out []wire.Entry
	kept := map[string]bool{}
	for _, x := range all.Entries {
		e := x.Entry
		e.At = now.Add(-time.Duration(x.AgoH * float64(time.Hour))).UTC().Format(time.RFC3339)
		if z := p.ZoneAt(e.Zone); z >= 0 && e.Planned != nil {
			if !kept[e.Zone] {
				kept[e.Zone] = true
				out = append(out, wire.Entry{ID: "plan-" + e.Zone, At: e.At, What: wire.WhatPlan, Zone: e.Zone, Steps: p.Zones[z].Steps})
			}
			if e.Step == nil {
				s := p.Zones[z].Steps[e.Planned.Step-1]
				s.Coats = 0
				e.Step = &s
			}
		}
		out = append(out, e)
	}
	return out, nil
}

// names are the file names of the demo pieces, in their order.
func names() ([]string, error) { return fs.Glob(files, "pieces/*.json") }

// Fill stores the settings, the demo pieces and the stand-ins for their
// photographs, so that a list with the last changed first shows them in their
// own order, and the work on them as it would stand at a moment.
func Fill(ctx context.Context, s *store.Store, now time.Time) error {
	ps, err := Pieces()
	if err != nil {
		return err
	}
	all, err := names()
	if err != nil {
		return err
	}
	for i, p := range ps {
		if p.Log, err = Log(strings.TrimPrefix(all[i], "pieces/"), p, now); err != nil {
			return err
		}
	}
	if _, err := s.SaveSettings(ctx, store.AnyRevision, Settings); err != nil {
		return err
	}
	pictures, err := drawn()
	if err != nil {
		return err
	}
	for name, p := range pictures {
		if _, err := s.KeepPhoto(name, p.Large, p.Small); err != nil {
			return err
		}
	}
	if err := fillShelf(ctx, s); err != nil {
		return err
	}
	// The first are the oldest of the studio; those that came in later lie on top.
	order := append(slices.Clone(ps[:settled]), ps[settled:]...)
	slices.Reverse(order[:settled])
	for _, p := range order {
		if _, err := s.Create(ctx, p); err != nil {
			return err
		}
	}
	return nil
}

// Shelf reads the cans and the blends of the demo studio.
func Shelf() (cans []wire.Can, blends []wire.Blend, err error) {
	data, err := files.ReadFile("shelf/shelf.json")
	if err != nil {
		return nil, nil, err
	}
	var all struct {
		Cans   []json.RawMessage `json:"cans"`
		Blends []json.RawMessage `json:"blends"`
	}
	if err := json.Unmarshal(data, &all); err != nil {
		return nil, nil, err
	}
	for _, d := range all.Cans {
		x, err := wire.DecodeCan(d)
		if err != nil {
			return nil, nil, fmt.Errorf("shelf: %w", err)
		}
		cans = append(cans, x)
	}
	for _, d := range all.Blends {
		b, err := wire.DecodeBlend(d)
		if err != nil {
			return nil, nil, fmt.Errorf("blends: %w", err)
		}
		blends = append(blends, b)
	}
	return cans, blends, nil
}

func fillShelf(ctx context.Context, s *store.Store) error {
	cans, blends, err := Shelf()
	if err != nil {
		return err
	}
	kept := map[store.Kind][]store.Kept{}
	add := func(of store.Kind, id string, x any) error {
		body, err := json.Marshal(x)
		kept[of] = append(kept[of], store.Kept{ID: id, Body: body})
		return err
	}
	for i := range cans {
		if err := add(store.Cans, cans[i].ID, &cans[i]); err != nil {
			return err
		}
	}
	for i := range blends {
		if err := add(store.Blends, blends[i].ID, &blends[i]); err != nil {
			return err
		}
	}
	for _, of := range store.Kinds {
		if err := s.AddDocuments(ctx, of, kept[of]); err != nil {
			return err
		}
	}
	return nil
}
