package store

import (
	"context"
	"errors"
	"slices"
	"testing"
	"time"

	"rutile/internal/instruments"
)

func TestReadingsAreKept(t *testing.T) {
	s, err := Open(t.TempDir())
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	ctx := context.Background()
	now := time.Date(2026, 11, 26, 0, 0, 0, 0, time.UTC)
	if got, err := s.LastReadings(ctx, now, time.Hour, 10); err != nil || len(got) != 0 {
		t.Fatal(got, err)
	}
	at := time.Date(2026, 11, 24, 8, 0, 0, 0, time.FixedZone("east", 3600))
	var all []instruments.Reading
	for i := range 1200 {
		all = append(all, instruments.Reading{At: at.Add(time.Duration(i) * time.Minute), By: "loft.csv", Values: map[instruments.Quantity]float64{instruments.TempC: float64(i) / 100}})
	}
	if err := s.AddReadings(ctx, all); err != nil {
		t.Fatal(err)
	}
	all[1199].Values[instruments.TempC] = 21
	if err := s.AddReadings(ctx, all[1199:]); err != nil {
		t.Fatal(err)
	}
	got, err := s.LastReadings(ctx, now, time.Hour, 1000)
	if err != nil || len(got) != 61 || !got[60].At.Equal(all[1199].At) || got[60].Values[instruments.TempC] != 21 || got[0].By != "loft.csv" {
		t.Errorf("%d readings, the last %+v, %v", len(got), got[len(got)-1], err)
	}
	if got, err := s.LastReadings(ctx, now, 100*time.Hour, 50); err != nil || len(got) != 50 || !got[49].At.Equal(all[1199].At) {
		t.Errorf("%d readings, %v", len(got), err)
	}
}

// A reading dated in the future hides none, and stays where it can be seen, corrected and removed.
func TestAReadingOfTheFutureHidesNone(t *testing.T) {
	s, _ := open(t)
	now := time.Date(2026, 11, 26, 12, 0, 0, 0, time.UTC)
	of := func(at time.Time, by string, temp float64) instruments.Reading {
		return instruments.Reading{At: at, By: by, Values: map[instruments.Quantity]float64{instruments.TempC: temp}}
	}
	if err := s.AddReadings(ctx, []instruments.Reading{of(now, "loft.csv", 14), of(now.Add(-time.Hour), "loft.csv", 13), of(now.AddDate(70, 0, 0), "cellar.csv", 30)}); err != nil {
		t.Fatal(err)
	}
	last := func() []float64 {
		t.Helper()
		got, err := s.LastReadings(ctx, now, 24*time.Hour, 100)
		if err != nil {
			t.Fatal(err)
		}
		var out []float64
		for _, r := range got {
			out = append(out, r.Values[instruments.TempC])
		}
		return out
	}
	if got := last(); !slices.Equal(got, []float64{13, 14}) {
		t.Errorf("the last readings are %v", got)
	}
	all, err := s.Sources(ctx)
	if err != nil || len(all) != 2 || all[0].Name != "cellar.csv" || all[1].Count != 2 || !all[1].From.Equal(now.Add(-time.Hour)) || !all[1].To.Equal(now) {
		t.Errorf("%+v, %v", all, err)
	}
	wrong, err := s.ReadingsOf(ctx, "cellar.csv", 0, 10)
	if err != nil || len(wrong) != 1 {
		t.Fatal(wrong, err)
	}
	wrong[0].At = now.Add(-30 * time.Minute)
	if err := s.PutReading(ctx, wrong[0]); err != nil {
		t.Fatal(err)
	}
	if got := last(); !slices.Equal(got, []float64{13, 30, 14}) {
		t.Errorf("corrected, the last readings are %v", got)
	}
	if err := s.RemoveReading(ctx, wrong[0].ID); err != nil {
		t.Fatal(err)
	}
	if err := s.RemoveReading(ctx, wrong[0].ID); !errors.Is(err, ErrNoReading) {
		t.Errorf("removed twice: %v", err)
	}
	if got := last(); !slices.Equal(got, []float64{13, 14}) {
		t.Errorf("without it, the last readings are %v", got)
	}
	if err := s.PutReading(ctx, wrong[0]); err != nil {
		t.Fatal(err)
	}
	if got := last(); len(got) != 3 {
		t.Errorf("brought back, the last readings are %v", got)
	}
	// A correction to the moment of another reading of the source takes its place.
	two, err := s.ReadingsOf(ctx, "loft.csv", 0, 1)
	if err != nil || len(two) != 1 {
		t.Fatal(two, err)
	}
	two[0].At = now.Add(-time.Hour)
	if err := s.PutReading(ctx, two[0]); err != nil {
		t.Fatal(err)
	}
	if got := last(); !slices.Equal(got, []float64{14, 30}) {
		t.Errorf("one in place of another: %v", got)
	}
	if n, err := s.RemoveSource(ctx, "loft.csv"); err != nil || n != 1 {
		t.Errorf("%d removed, %v", n, err)
	}
	if got := last(); !slices.Equal(got, []float64{30}) {
		t.Errorf("without a source: %v", got)
	}
}
