package app

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"testing"
	"time"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/internal/store"
	"rutile/internal/wire"
)

// studio is an empty studio whose clock can be moved.
func studioOf(t testing.TB) (*Studio, *time.Time) {
	t.Helper()
	s, err := store.Open(t.TempDir())
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = s.Close() })
	now := time.Date(2026, 11, 24, 9, 30, 0, 0, time.UTC)
	return NewStudio(NewEngine(craft.Default()), StudioOptions{Store: s, Site: drying.Usual, Now: func() time.Time { return now }}), &now
}

func listed(t testing.TB, s *Studio) []wire.Summary {
	t.Helper()
	data, err := s.List(ctx)
	if err != nil {
		t.Fatal(err)
	}
	var out []wire.Summary
	if err := json.Unmarshal(data, &out); err != nil {
		t.Fatal(err)
	}
	return out
}

// A list judges what has changed and nothing else: a piece that was saved, and all of them where the
// air, the day, the settings or the tables are others.
func TestOnlyWhatChangedIsJudgedAgain(t *testing.T) {
	s, now := studioOf(t)
	for _, name := range []string{"programme-rack", "dresser", "prop-chest", "brown-table"} {
		if _, err := s.Store.Create(ctx, exampleOf(t, name)); err != nil {
			t.Fatal(err)
		}
	}
	judgedNow := func(what string, want int64) {
		t.Helper()
		before := s.judged.count.Load()
		listed(t, s)
		if got := s.judged.count.Load() - before; got != want {
			t.Errorf("%s: %d are judged, want %d", what, got, want)
		}
	}
	judgedNow("at first", 4)
	judgedNow("again", 0)
	if _, err := s.RuleBook(ctx); err != nil {
		t.Fatal(err)
	}
	judgedNow("after the rule book", 0)
	p := exampleOf(t, "dresser")
	p.Name = "Another dresser"
	saved, err := s.Store.Save(ctx, 2, 1, p)
	if err != nil {
		t.Fatal(err)
	}
	judgedNow("after one was saved", 1)
	if l := listed(t, s); len(l) != 4 || l[0].Name != "Another dresser" || l[0].Rev != saved.Rev {
		t.Errorf("the list begins with %+v", l[0])
	}
	*now = now.Add(24 * time.Hour)
	judgedNow("the next day", 4)
	for _, set := range []string{
		`{"name": "A", "units": "us", "site": {"temp_c": 20, "rh_pct": 50}}`,
		`{"name": "A", "units": "us", "site": {"temp_c": 9, "rh_pct": 50}}`,
		`{"name": "A", "units": "us", "site": {"temp_c": 9, "rh_pct": 50}, "lead_year": 1960}`,
	} {
		if err := s.SaveSettings(ctx, AnyRevision, []byte(set)); err != nil {
			t.Fatal(err)
		}
		judgedNow("with other settings", 4)
	}
	judgedNow("with the same", 0)
	if err := s.SaveSettings(ctx, AnyRevision, []byte(`{"name": "Another name", "units": "us", "site": {"temp_c": 9, "rh_pct": 50}, "lead_year": 1960}`)); err != nil {
		t.Fatal(err)
	}
	judgedNow("with another name", 0)
	if err := s.Remove(ctx, 3); err != nil {
		t.Fatal(err)
	}
	judgedNow("after one was removed", 0)
	if l := listed(t, s); len(l) != 3 || len(s.judged.kept) != 3 {
		t.Errorf("%d are listed, %d kept", len(l), len(s.judged.kept))
	}
	// Tables with one more row are other tables.
	row := s.Craft.Products[0]
	row.ID = "shellac_other"
	s.Engine.Craft = craft.New(append(slices.Clone(s.Craft.Products), row), s.Craft.Effects)
	judgedNow("with other tables", 3)
}

// A list that nobody waits for any more judges no further, and the next one is whole.
func TestAListThatIsGivenUp(t *testing.T) {
	s, _ := studioOf(t)
	for range 3 {
		if _, err := s.Store.Create(ctx, exampleOf(t, "dresser")); err != nil {
			t.Fatal(err)
		}
	}
	done, stop := context.WithCancel(ctx)
	stop()
	if _, err := s.List(done); !errors.Is(err, context.Canceled) {
		t.Errorf("given up before it began: %v", err)
	}
	if l := listed(t, s); len(l) != 3 {
		t.Errorf("%d are listed", len(l))
	}
}

// More zones than SQLite takes variables in one statement.
func TestAListOfManyZones(t *testing.T) {
	s, _ := studioOf(t)
	p := wire.New("Many")
	for i := range wire.MaxZones {
		p.Zones = append(p.Zones, wire.Zone{ID: fmt.Sprintf("z%d", i), Substrate: "oak"})
	}
	const variables = 32_766
	pieces := variables/wire.MaxZones + 2
	for range pieces {
		if _, err := s.Store.Create(ctx, &p); err != nil {
			t.Fatal(err)
		}
	}
	l := listed(t, s)
	if len(l) != pieces || slices.ContainsFunc(l, func(x wire.Summary) bool { return len(x.Zones) != wire.MaxZones }) {
		t.Errorf("%d of %d pieces are listed", len(l), pieces)
	}
}
