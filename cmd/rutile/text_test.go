package main

import (
	"strings"
	"testing"
)

// What is written for reading says the verdict, the reasons and what mends them.
func TestCheckForReading(t *testing.T) {
	const table = `{"format": "rutile/piece", "version": 1, "name": "Table", "zones": [{"id": "top", "substrate": "oak", "name": "Top", "finish": "none", "soils": [], "area_m2": 1,
		"steps": [{"do": "coat", "product": "paint_chalk"}]}]}`
	out, errs, code := rutile(table, "check", "--text", "-")
	if code != exitFails || errs != "" {
		t.Fatal(code, errs)
	}
	for _, want := range []string{
		"Table: fails\n", "Top: fails", "Tannin will show through the coats", "Bleed: tannin, a clearly visible yellow-brown cast (ΔE 6.9).",
		"[fail]", "(step 1)", "Fix: Block it with", "-> watch", "licensed people decide",
	} {
		if !strings.Contains(out, want) {
			t.Errorf("no %q in\n%s", want, out)
		}
	}
}

// A typed area says so beside what the parts come to, and what is not painted is told.
func TestAreasForReading(t *testing.T) {
	const chest = `{"format": "rutile/piece", "version": 1, "name": "Prop chest", "zones": [{"id": "drawer-fronts", "substrate": "melamine", "finish": "none", "area_m2": 0.5}],
		"parts": [{"kind": "drawer_front", "name": "Fronts", "count": 3, "width_cm": 76, "height_cm": 25, "zone": "drawer-fronts"},
		{"kind": "drawer_box", "count": 3, "width_cm": 70, "depth_cm": 40, "height_cm": 20, "faces": []}]}`
	out, errs, code := rutile(chest, "areas", "-")
	if code != exitFine || errs != "" {
		t.Fatal(code, errs)
	}
	for _, want := range []string{"Prop chest", "Fronts        3      76 × 25 × 1.8 cm", "Drawer boxes  3      70 × 40 × 20 × 1.2 cm  not painted", "Drawer fronts  1      0.5 m² (typed)", "-       Drawer fronts\n", "x 1.10, plain work"} {
		if !strings.Contains(out, want) {
			t.Errorf("%q is not in\n%s", want, out)
		}
	}
}

func TestBeliefsForReading(t *testing.T) {
	out, _, code := rutile("", "identify", "--text", "../../examples/brown-table.json")
	for _, want := range []string{"Open-grained wood (oak), likely; under shellac, almost certain.", "answered: What does alcohol do? Sticky within a minute"} {
		if code != exitFine || !strings.Contains(out, want) {
			t.Errorf("%d: no %q in\n%s", code, want, out)
		}
	}
}
