package app

import (
	"encoding/json"
	"errors"
	"os"
	"strings"
	"testing"

	"rutile/internal/wire"
)

// Whatever is read can be judged, written, and read again alike.
func FuzzPiece(f *testing.F) {
	rack, err := os.ReadFile("../../examples/programme-rack.json")
	if err != nil {
		f.Fatal(err)
	}
	one := func(fields string) []byte {
		return []byte(`{"format": "rutile/piece", "version": 1, "zones": [{"id": "top", ` + fields + `}]}`)
	}
	f.Add(rack)
	f.Add(one(`"substrate": "oak", "soils": []`))
	f.Add(one(`"substrate": "oak", "steps": [{"do": "coat", "product": "paint_milk", "additive": {"product": "bonding_additive", "ratio": 0.5}}]`))
	f.Add(one(`"substrate": "pine", "evidence": [{"test": "alcohol", "outcome": "sticky"}], "patches": [{"id": "a", "product": "paint_milk", "over": "shellac_film", "on": "board", "rated": "2026-11-01", "class": 0}]`))
	f.Add([]byte(`{"format": "rutile/piece", "version": 2}`))
	f.Add([]byte(`[[[[`))
	f.Fuzz(func(t *testing.T, data []byte) {
		p, err := wire.Decode(data)
		if err != nil {
			var fe *wire.Error
			if !errors.As(err, &fe) || strings.ContainsAny(err.Error(), "\n\x00") {
				t.Fatalf("this is no clear sentence: %q", err)
			}
			return
		}
		j := job(p)
		r, err := j.Check(ctx, Want{Repairs: true, Section: true, Look: true})
		if err != nil {
			t.Fatal(err)
		}
		if len(r.Zones) != len(p.Zones) {
			t.Fatal("a zone was passed over")
		}
		if _, err := json.Marshal(r); err != nil {
			t.Fatal(err)
		}
		found, err := j.IdentifyPiece(ctx, "")
		if err != nil {
			t.Fatal(err)
		}
		if _, err := json.Marshal(found); err != nil {
			t.Fatal(err)
		}
		again, err := json.Marshal(p)
		if err != nil {
			t.Fatal(err)
		}
		q, err := wire.Decode(again)
		if err != nil {
			t.Fatalf("%s was written and cannot be read: %v", again, err)
		}
		third, _ := json.Marshal(q)
		if string(again) != string(third) {
			t.Fatalf("%s comes back as %s", again, third)
		}
	})
}
