package check

import (
	"testing"

	"rutile/core/craft"
	"rutile/core/surface"
)

const (
	benchZone = "oak varnish_oil satin; soils grease2 grime1; bleed tannin2"
	benchPlan = "detergent rinse; degreaser_alkaline rinse; sand 180; sand 240; dust; shellac_pigmented wait12; sand 320; dust; paint_chalk x2 wait3; wait 24; clear_wb x2 wait3; wait 24"
)

func BenchmarkWalk12(b *testing.B) {
	c, z := craft.Default(), zoneOf(b, benchZone, benchPlan)
	var t surface.Trace
	b.ReportAllocs()
	for b.Loop() {
		t.Walk(c, &z.Facts, z.Steps)
	}
}

func BenchmarkCheck12(b *testing.B) {
	c, z := craft.Default(), zoneOf(b, benchZone, benchPlan)
	b.ReportAllocs()
	for b.Loop() {
		Check(c, z, Options{NoRepairs: true})
	}
}

func BenchmarkCheck12Repairs(b *testing.B) {
	// A plan with a good deal wrong: greasy, unscuffed, unblocked, unsealed.
	c := craft.Default()
	z := zoneOf(b, "oak varnish_oil gloss; soils grease2 grime1; bleed tannin2", "detergent; sand 400; degreaser_alkaline; paint_chalk wait.5; paint_chalk; wait 24; paint_chalk; wait 2; dust; wait 1; paint_chalk; wait 24")
	b.ReportAllocs()
	for b.Loop() {
		Check(c, z, Options{})
	}
}

func BenchmarkCheckUnknownFinish(b *testing.B) {
	c, z := craft.Default(), zoneOf(b, "unknown_wood unknown", benchPlan)
	b.ReportAllocs()
	for b.Loop() {
		Check(c, z, Options{})
	}
}

// An unknown finish on an unknown wood, of which a few looks leave many things.
func BenchmarkCheckHalfKnown(b *testing.B) {
	c := craft.Default()
	z := zoneOf(b, "unknown_wood unknown satin; soils grime1; tests face=clear_film edge=solid fingernail=hard", "detergent rinse; sand 220; dust; primer_bond_wb; paint_chalk x2; clear_wb x2")
	for b.Loop() {
		Check(c, z, Options{})
	}
}

// Fifteen steps with an effect, a glaze and spots: most of what the book looks at.
const (
	longZone = "pine varnish_oil satin; knots; soils grease2 grime1; look glaze; wear tabletop; target satin; gap 1.5; defects dent"
	longPlan = "detergent rinse; degreaser_alkaline rinse; fill fine; sand 180; dust; shellac_pigmented knots; primer_bond_wb wait12; sand 320; dust; paint_acrylic x2; clear_wb; wait 24; glaze_wb wait30; clear_wb_hard x3; reassemble"
)

func BenchmarkCheck15(b *testing.B) {
	c, z := craft.Default(), zoneOf(b, longZone, longPlan)
	b.ReportAllocs()
	for b.Loop() {
		Check(c, z, Options{NoRepairs: true})
	}
}

func BenchmarkCheck15Repairs(b *testing.B) {
	c, z := craft.Default(), zoneOf(b, longZone, longPlan)
	b.ReportAllocs()
	for b.Loop() {
		Check(c, z, Options{})
	}
}

// A plan with a fault in nearly every step: the most repairs to verify.
func BenchmarkCheck15Worst(b *testing.B) {
	c := craft.Default()
	z := zoneOf(b, "oak varnish_oil gloss; soils grease2 grime1 wax_polish1; bleed tannin2 dye1; wear tabletop; use hot_items; look glaze; target satin; gap .4; touching; fitting glass; defects flaking lifted_veneer",
		"sand 80; sand 240; detergent; fill fine; primer_bond_wb wait2; paint_chalk x3 wait1 thin40; glaze_wb wait2; glaze_wb wait3; clear_wb wait1; wax_dark; clear_oil; effect distress_wet; effect chippy; wait 3; reassemble")
	for b.Loop() {
		Check(c, z, Options{})
	}
}
