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
