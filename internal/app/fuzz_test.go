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
	f.Add(one(`"substrate": "oak", "area_m2": 3, "defects": [{"id": "hole", "count": 9}], "steps": [{"do": "fill", "with": "filler_two_part"}, {"do": "coat", "product": "primer_epoxy", "coats": 2}, {"do": "coat", "product": "glaze_wb", "mix": {"tint_ratio": 0.1, "paint_l": 0.2}}, {"do": "effect", "effect": "glaze"}]`))
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
		for _, z := range j.Cards().Zones {
			for _, c := range z.Cards {
				if b := c.Batch; b != nil && b.Refused == "" && c.Kind == "coat" && b.MakesL*float64(b.Pots) < b.NeedL-.002 && len(b.Notes) == 0 {
					t.Fatalf("%s makes %v l of %v", c.Title, b.MakesL, b.NeedL)
				}
			}
			if _, err := json.Marshal(z); err != nil {
				t.Fatal(err)
			}
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

// FuzzWeights looks for weights that are taken and are none.
func FuzzWeights(f *testing.F) {
	for _, s := range []string{"peel=2,cost=0.5", "peel=NaN", "peel=1e309", "peel", "=", "peel=-0", " peel = 3 ,, ", "peel=0x1p-2", "peel=1_0"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		w, err := ParseWeights(s)
		if err != nil {
			if err.Error() == "" || len(err.Error()) > 500 {
				t.Errorf("%q: %q", s, err)
			}
			return
		}
		for _, x := range w {
			if !(x >= 0 && x <= 100) {
				t.Errorf("%q has a weight of %v", s, x)
			}
		}
	})
}

// FuzzTyped looks for sizes of parts and of templates that are taken and make parts that are refused.
func FuzzTyped(f *testing.F) {
	for _, s := range []string{"80 x 90 x 45 cm", `2' x 3' x 18 1/2"`, "1e9 x 1", "x", "80,90", "½ x ½", "0 x 0 x 0"} {
		f.Add("drawers", "panel", s, "3,2")
	}
	studio, _ := studioOf(f)
	ids := make([]string, 0, 8)
	for _, w := range studio.Templates(ctx) {
		ids = append(ids, w.ID)
	}
	f.Fuzz(func(t *testing.T, template, kind, sizes, counts string) {
		if len(template) > 0 {
			template = ids[int(template[0])%len(ids)]
		}
		m, err := studio.FromTemplate(ctx, template, sizes, counts)
		if err == nil {
			p := wire.New("Made")
			p.Parts = m.Parts
			if _, err := wire.Decode(asJSON(t, p)); err != nil {
				t.Errorf("%s of %q, %q makes parts that are refused: %v", template, sizes, counts, err)
			}
		} else if err.Error() == "" || len(err.Error()) > 1000 {
			t.Errorf("%q, %q: %q", sizes, counts, err)
		}
		if q, err := studio.Sizes(ctx, kind, sizes, wire.Part{ThickCM: 2}); err == nil {
			p := wire.New("Made")
			p.Parts = []wire.Part{q}
			if _, err := wire.Decode(asJSON(t, p)); err != nil {
				t.Errorf("%s of %q is refused: %v", kind, sizes, err)
			}
		}
	})
}
