package app

import (
	"bytes"
	"encoding/json"
	"errors"
	"math/rand/v2"
	"reflect"
	"slices"
	"strings"
	"testing"
	"time"

	"rutile/internal/wire"
)

func jsonOf(t testing.TB, v any) []byte {
	t.Helper()
	data, err := json.Marshal(v)
	if err != nil {
		t.Fatal(err)
	}
	return data
}

// merged is what a page knows after a change: what was said before, with what is said anew in its
// place.
func merged(was wire.CheckResult, c wire.CheckChange) wire.CheckResult {
	was.Zones = slices.Clone(was.Zones)
	was.Verdict = c.Verdict
	for _, z := range c.Zones {
		was.Zones[slices.IndexFunc(was.Zones, func(o wire.ZoneResult) bool { return o.ID == z.ID })] = z
	}
	look := *was.Overview
	if c.Overview != nil {
		look = *c.Overview
	}
	look.Zones = slices.Clone(look.Zones)
	for _, l := range c.ZoneOverviews {
		look.Zones[slices.IndexFunc(look.Zones, func(o wire.ZoneOverview) bool { return o.ID == l.ID })] = l
	}
	was.Overview = &look
	return was
}

// matching is a piece of four zones that are to look the same, two of them on an absorbent ground,
// with a drawer that has hardly any gap.
func matching(t testing.TB) *wire.Piece {
	return decoded(t, `{"format": "rutile/piece", "version": 1, "name": "Chest", "made": 1990, "zones": [
		{"id": "top", "name": "Top", "substrate": "birch", "finish": "none", "soils": [], "area_m2": 1, "target": {"colour": "#e4e8df"}, "steps": [{"do": "dust"}, {"do": "coat", "product": "paint_chalk", "coats": 2}]},
		{"id": "sides", "substrate": "birch", "finish": "varnish_oil", "soils": [], "defects": [{"id": "hole", "count": 2, "label": "A"}], "target": {"colour": "#e4e8df"}, "steps": [{"do": "abrade", "grit": 220}, {"do": "dust"}, {"do": "coat", "product": "paint_chalk", "coats": 2}]},
		{"id": "front", "substrate": "oak", "finish": "none", "soils": [], "target": {"colour": "#e4e8df"}, "steps": [{"do": "coat", "product": "shellac_pigmented"}, {"do": "coat", "product": "paint_chalk", "coats": 2}, {"do": "reassemble"}]},
		{"id": "legs", "substrate": "beech", "finish": "none", "target": {"colour": "#e4e8df"}}],
		"parts": [{"kind": "drawer_front", "width_cm": 40, "height_cm": 12, "zone": "front", "gap_mm": 0.4}, {"kind": "leg_turned", "count": 4, "height_cm": 30, "across_cm": 5, "zone": "legs"}]}`)
}

// edits are things that a painter changes about a zone.
var zoneEdits = []func(r *rand.Rand, z *wire.Zone){
	func(r *rand.Rand, z *wire.Zone) {
		if len(z.Steps) > 0 {
			z.Steps[r.IntN(len(z.Steps))].Coats = 0
			z.Steps = slices.Delete(z.Steps, 0, 1)
		}
	},
	func(r *rand.Rand, z *wire.Zone) {
		z.Steps = append(z.Steps, wire.Step{Do: "coat", Product: []string{"paint_chalk", "paint_acrylic", "clear_wb", "wax_clear", "primer_bond_wb"}[r.IntN(5)], Coats: 1 + r.IntN(3)})
	},
	func(r *rand.Rand, z *wire.Zone) {
		z.Steps = slices.Insert(z.Steps, 0, wire.Step{Do: "clean", With: "detergent", Rinse: r.IntN(2) == 0})
	},
	func(r *rand.Rand, z *wire.Zone) { z.AreaM2 = float64(r.IntN(4)) },
	func(r *rand.Rand, z *wire.Zone) { z.Name = []string{"", "Lid", "Flap"}[r.IntN(3)] },
	func(r *rand.Rand, z *wire.Zone) {
		z.Finish = []string{"none", "varnish_oil", "wax", "unknown"}[r.IntN(4)]
	},
	func(r *rand.Rand, z *wire.Zone) {
		z.Target = &wire.Target{Colour: []string{"#e4e8df", "#203040"}[r.IntN(2)]}
	},
	func(r *rand.Rand, z *wire.Zone) {
		z.Defects = []wire.Defect{{ID: "gouge", Count: r.IntN(3), Length: 5, Label: z.ID[:1]}}
	},
	func(r *rand.Rand, z *wire.Zone) { z.Soils = []wire.Level{{ID: "grease", Level: r.IntN(4)}} },
}

// However a piece is changed, what is said of the changes comes to what is said of the whole: also
// where zones that were not touched have to match.
func TestChangesSayWhatAWholeCheckSays(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 9))
	others, looks, lines := 0, 0, 0
	for run := range 40 {
		s, _ := studioOf(t)
		p := matching(t)
		said, token, err := s.Check(ctx, jsonOf(t, p))
		if err != nil {
			t.Fatal(err)
		}
		for step := range 8 {
			var c wire.Change
			for _, i := range r.Perm(len(p.Zones))[:1+r.IntN(2)] {
				z := p.Zones[i]
				z.Steps = slices.Clone(z.Steps)
				zoneEdits[r.IntN(len(zoneEdits))](r, &z)
				p.Zones[i] = z
				c.Zones = append(c.Zones, z)
			}
			change, next, err := s.CheckChange(ctx, token, jsonOf(t, c))
			if err != nil {
				t.Fatal(err)
			}
			if len(change.Zones) > len(c.Zones) {
				others++
			}
			if change.Overview != nil {
				looks++
			}
			lines += len(change.ZoneOverviews)
			said, token = merged(said, change), next
			whole, _, err := s.Check(ctx, jsonOf(t, p))
			if err != nil {
				t.Fatal(err)
			}
			if a, b := jsonOf(t, said), jsonOf(t, whole); !bytes.Equal(a, b) {
				t.Fatalf("run %d, change %d: changes come to\n%s\nand the whole to\n%s", run, step, a, b)
			}
		}
	}
	if others < 20 || looks < 20 || lines < 20 || looks == 40*8 {
		t.Errorf("other zones were judged again %d times, the look-over told anew %d times: too few or too many to tell", others, looks)
	}
}

// A change that cannot be used is refused with its path in the piece, and one that starts from nothing
// that is kept is told so.
func TestChangesThatAreRefused(t *testing.T) {
	s, now := studioOf(t)
	p := matching(t)
	_, token, err := s.Check(ctx, jsonOf(t, p))
	if err != nil {
		t.Fatal(err)
	}
	for change, says := range map[string]string{
		`{"zones": [{"id": "front", "substrate": "oka"}]}`:                                                                    `$.zones[2].substrate: "oka": not a known id; did you mean oak?`,
		`{"zones": [{"id": "lid", "substrate": "oak"}]}`:                                                                      `$.zones[0].id: "lid": the piece has no such zone`,
		`{"zones": [{"id": "top", "substrate": "oak"}, {"id": "top", "substrate": "oak"}]}`:                                   `$.zones[1].id: "top"`,
		`{"zones": [{"id": "top", "substrate": "oak", "defects": [{"id": "hole", "label": "A"}]}]}`:                           `already has this label`,
		`{"zones": [{"id": "top", "substrate": "oak", "soils": [{"id": "grime", "level": 1}, {"id": "grime", "level": 2}]}]}`: `$.zones[0].soils[1].id: "grime": it is in the list twice`,
		`{"zones": [], "name": "x"}`: `$.zones: a change is a list of zones`,
		`{"zones": 7}`:               `$.zones: a change is a list of zones`,
		`[]`:                         `a change is a JSON object`,
		`{"zones": [null]}`:          `the piece has no such zone`,
	} {
		var bad *wire.Error
		if _, _, err := s.CheckChange(ctx, token, []byte(change)); !errors.As(err, &bad) || !strings.Contains(err.Error(), says) {
			t.Errorf("%s: %v", change, err)
		}
	}
	touch := []byte(`{"zones": [{"id": "legs", "substrate": "oak"}]}`)
	if _, _, err := s.CheckChange(ctx, "another", touch); !errors.Is(err, ErrStale) {
		t.Errorf("from a check that never was: %v", err)
	}
	if _, _, err := s.CheckChange(ctx, token, touch); err != nil {
		t.Errorf("after all those: %v", err)
	}
	*now = now.Add(24 * time.Hour)
	if _, _, err := s.CheckChange(ctx, token, touch); !errors.Is(err, ErrStale) {
		t.Errorf("the next day: %v", err)
	}
	_, token, err = s.Check(ctx, jsonOf(t, p))
	if err != nil {
		t.Fatal(err)
	}
	if err := s.SaveSettings(ctx, AnyRevision, []byte(`{"name": "A", "units": "us", "site": {"temp_c": 20, "rh_pct": 50}}`)); err != nil {
		t.Fatal(err)
	}
	if _, _, err := s.CheckChange(ctx, token, touch); !errors.Is(err, ErrStale) {
		t.Errorf("in other units: %v", err)
	}
	// What was checked long ago is not kept for ever.
	_, token, err = s.Check(ctx, jsonOf(t, p))
	if err != nil {
		t.Fatal(err)
	}
	for range mostKept {
		if _, _, err := s.Check(ctx, jsonOf(t, p)); err != nil {
			t.Fatal(err)
		}
	}
	if _, _, err := s.CheckChange(ctx, token, touch); !errors.Is(err, ErrStale) || len(s.live.kept) != mostKept {
		t.Errorf("%d are kept, %v", len(s.live.kept), err)
	}
	if other, _ := studioOf(t); true {
		if _, theirs, err := other.Check(ctx, jsonOf(t, p)); err != nil || s.live.find(theirs) != nil {
			t.Errorf("a token of another run is known here: %v", err)
		}
	}
}

// A job of which a zone has changed leaves the one before as it was.
func TestAChangedJobLeavesTheOneBefore(t *testing.T) {
	j := job(matching(t))
	before := slices.Clone(j.Zones)
	p := *j.Piece
	p.Zones = slices.Clone(p.Zones)
	p.Zones[0].Steps = p.Zones[2].Steps
	out, again := j.changed(&p, []int{0})
	if !reflect.DeepEqual(j.Zones, before) || len(again) != 4 || reflect.DeepEqual(out.Zones[2].Match, j.Zones[2].Match) {
		t.Errorf("%v are judged again", again)
	}
}
