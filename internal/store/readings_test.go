package store

import (
	"context"
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
	if got, err := s.LastReadings(ctx, time.Hour, 10); err != nil || len(got) != 0 {
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
	got, err := s.LastReadings(ctx, time.Hour, 1000)
	if err != nil || len(got) != 61 || !got[60].At.Equal(all[1199].At) || got[60].Values[instruments.TempC] != 21 || got[0].By != "loft.csv" {
		t.Errorf("%d readings, the last %+v, %v", len(got), got[len(got)-1], err)
	}
	if got, err := s.LastReadings(ctx, 100*time.Hour, 50); err != nil || len(got) != 50 || !got[49].At.Equal(all[1199].At) {
		t.Errorf("%d readings, %v", len(got), err)
	}
}
