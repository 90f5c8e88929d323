package check

import (
	"slices"
	"testing"

	"rutile/core/craft"
	"rutile/core/surface"
)

// What nobody in their senses would plan gets a clear answer, too.
func TestAbsurdPlansAreAnswered(t *testing.T) {
	for _, x := range []struct{ name, zone, plan, code string }{
		{"a look against the use", "birch varnish_oil gloss; look chippy; use food; wear tabletop", "paint_milk x2; wax_clear", "use.target"},
		{"two effects that undo each other", "birch; look crackle", "paint_acrylic col#332222; crackle_medium wait2; paint_chalk; lift_medium wait2; paint_chalk; effect lift_off; wax_clear", "effect.excludes"},
		{"an effect before any paint", "birch; look stencil", "effect stencil; paint_chalk x2; clear_wb", "effect.no_ground"},
		{"an effect and nothing else", "birch; look marble", "effect marble", "effect.no_ground"},
		{"wax first, then everything", "birch", "wax_clear; primer_bond_wb; paint_acrylic x2", "adhesion.wax_under"},
		{"stripped at the end", "birch varnish_oil matt", "sand 220; dust; paint_acrylic x2; clear_wb x2; strip chemical", "walk.undone"},
		{"put back before it is painted, and after", "birch", "reassemble; paint_acrylic x2; reassemble", "use.too_early"},
		{"only tests", "birch", "test 3; test 0; test 5", "walk.empty"},
		{"dust and rinse after the seal", "birch; look chippy", "paint_milk x2; wax_clear; dust; detergent rinse", "effect.wont_chip"},
	} {
		r := Check(craft.Default(), zoneOf(t, x.zone, x.plan), Options{})
		i := slices.IndexFunc(r.Findings, func(f Finding) bool { return f.Code == x.code })
		if i < 0 {
			t.Errorf("%s: %v, without %s", x.name, codes(&r, Note), x.code)
			continue
		}
		if f := r.Findings[i]; f.Title == "" || f.Why == "" || len(f.Repairs) == 0 || r.Verdict == Sound {
			t.Errorf("%s: %v, %+v", x.name, r.Verdict, f)
		}
	}
}

// Two hundred steps of every kind, with every effect among them, are judged with
// all that mends them and within the work that a check is given.
func TestTwoHundredStepsOfEverything(t *testing.T) {
	c := craft.Default()
	z := zoneOf(t, "oak varnish_oil gloss; soils grease3; look crackle; wear floor; use outdoor; knots; defects flaking lifted_veneer", "")
	for i := range 200 {
		s := surface.Step{Do: surface.StepKind(i % int(surface.NumKinds)), Cleaner: craft.Cleaner(i % len(c.Cleaners)), Product: craft.Product(i % len(c.Products)), Auto: true, Method: "brush"}
		s.Effect, s.Grit, s.StripHow, s.With, s.Hours = c.Effects[i%len(c.Effects)].ID, 220, craft.Strips[i%4], craft.Fillers[i%2], 1
		z.Steps = append(z.Steps, s)
	}
	r := Check(c, z, Options{})
	if r.Verdict != Fails || len(r.Trace.Events) != 200 {
		t.Errorf("%v after %d events", r.Verdict, len(r.Trace.Events))
	}
	const most = 12 // no finding drowns in what might mend it
	for _, f := range r.Findings {
		if len(f.Repairs) == 0 || len(f.Repairs) > most {
			t.Errorf("%s: %d repairs", f.Code, len(f.Repairs))
		}
	}
	small := Check(c, z, Options{Budget: 1000})
	edits := func(r *Result) int {
		n := 0
		for _, f := range r.Findings {
			for _, rp := range f.Repairs {
				if rp.Kind == Edit {
					n++
				}
			}
		}
		return n
	}
	if len(small.Findings) != len(r.Findings) || edits(&small) > edits(&r) {
		t.Errorf("with little to spend: %d findings of %d, %d edits of %d", len(small.Findings), len(r.Findings), edits(&small), edits(&r))
	}
}
