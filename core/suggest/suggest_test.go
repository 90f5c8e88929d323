package suggest

import (
	"context"
	"slices"
	"strings"
	"testing"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/surface"
)

func zone(t testing.TB, sub, fin, gloss string, set func(*check.Zone)) *check.Zone {
	t.Helper()
	c := craft.Default()
	z := &check.Zone{
		Facts:      surface.Facts{Moisture: -1, Area: 1, Wear: craft.Handled, Climate: drying.Usual},
		SoilsKnown: true, Look: craft.LookSolid, Colour: "#e4e8df", Made: 2010,
	}
	var ok bool
	if z.Substrate, ok = c.Substrate(sub); !ok {
		t.Fatal(sub)
	}
	if z.Finish, ok = c.Finish(fin); !ok {
		t.Fatal(fin)
	}
	z.Gloss, _ = craft.SheenNamed(gloss)
	if set != nil {
		set(z)
	}
	return z
}

func next(t testing.TB, c *craft.Craft, z *check.Zone, at int) []Suggestion {
	t.Helper()
	out, err := Next(context.Background(), c, z, at)
	if err != nil {
		t.Fatal(err)
	}
	return out
}

func names(os []Suggestion) []string {
	var out []string
	for i := range os {
		if os[i].Sensible() {
			out = append(out, os[i].Name)
		}
	}
	return out
}

// Whoever takes the first offer every time ends with the plan a painter would
// write down, and it is sound.
func TestTakingTheFirstOfferEndsInASoundPlan(t *testing.T) {
	for _, k := range []struct {
		name string
		z    *check.Zone
		want []string
	}{
		{"greasy varnished oak", zone(t, "oak", "varnish_oil", "satin", func(z *check.Zone) { z.Soils[craft.Grease] = 2 }),
			[]string{"Alkaline degreaser", "Sand", "Dust off", "Pigmented shellac", "Chalk paint", "Clear wax"}},
		{"gloss laminate", zone(t, "laminate_hpl", "none", "gloss", func(z *check.Zone) { z.Soils[craft.Grime] = 1 }),
			[]string{"Detergent wash", "Sand", "Dust off", "Bonding primer", "Chalk paint", "Clear wax"}},
		{"waxed pine", zone(t, "pine", "wax", "satin", nil),
			[]string{"White spirit", "Detergent wash", "Raise the grain", "Dust off", "Pigmented shellac", "Chalk paint", "Clear wax"}},
		{"zinc with oxide", zone(t, "galvanised", "none", "satin", func(z *check.Zone) { z.Soils[craft.Oxide] = 1 }),
			[]string{"Alcohol wipe", "Scuff with a fine pad", "Dust off", "Zinc primer", "Chalk paint", "Clear wax"}},
		{"a flaking look", zone(t, "beech", "polyurethane", "gloss", func(z *check.Zone) { z.Soils[craft.Grime] = 1; z.Look = "chippy" }),
			[]string{"Detergent wash", "Milk paint", "Chippy", "Dust off", "Wait", "Clear wax"}},
		{"a stencil on a birch box with its hinges on", zone(t, "birch", "none", "matt", func(z *check.Zone) { z.Look = "stencil"; z.Unmasked = []string{"hinges"}; z.Loose = craft.LooseVeneer }),
			[]string{"Repair", "Raise the grain", "Dust off", "Mask", "Milk paint", "Stencilled", "Clear wax"}},
	} {
		c := craft.Default()
		var got []string
		for range 12 {
			os := next(t, c, k.z, len(k.z.Steps))
			if !os[0].Sensible() {
				break
			}
			if os[0].Why == "" {
				t.Errorf("%s: %s is offered without a reason", k.name, os[0].Name)
			}
			got = append(got, os[0].Name)
			k.z.Steps = append(k.z.Steps, os[0].Step)
		}
		if !slices.Equal(got, k.want) {
			t.Errorf("%s: %v, want %v", k.name, got, k.want)
		}
		if r := check.Check(c, k.z, check.Options{NoRepairs: true}); r.Verdict != check.Sound {
			t.Errorf("%s ends as %s: %s", k.name, r.Verdict, r.Says(c))
		}
	}
}

func TestNothingIsPaintedBeforeItIsCleanAndBlocked(t *testing.T) {
	c := craft.Default()
	z := zone(t, "oak", "none", "", func(z *check.Zone) { z.Soils[craft.Grease] = 2 })
	for _, o := range next(t, c, z, 0) {
		if o.Sensible() && o.Step.Do != surface.Clean {
			t.Errorf("%s is offered on grease", o.Name)
		}
	}
	z.Soils[craft.Grease] = 0
	got := names(next(t, c, z, 0))
	if !slices.Contains(got, "Pigmented shellac") || slices.Contains(got, "Chalk paint") {
		t.Errorf("bare clean oak is offered %v", got)
	}
}

func TestWhatAStepWouldBringIsSaid(t *testing.T) {
	c := craft.Default()
	z := zone(t, "laminate_hpl", "none", "gloss", func(z *check.Zone) { z.Soils[craft.Grease] = 3 })
	for _, o := range next(t, c, z, 0) {
		switch o.Name {
		case "Chalk paint":
			if !strings.Contains(o.Brings, "not scuffed") || o.After != check.Fails {
				t.Errorf("chalk paint on greasy gloss laminate brings %q, %s", o.Brings, o.After)
			}
		case "Sand":
			if !strings.Contains(o.Brings, "grease") {
				t.Errorf("sanding grease brings %q", o.Brings)
			}
		case "Alkaline degreaser":
			if o.Brings != "" {
				t.Errorf("degreasing brings %q", o.Brings)
			}
		}
	}
}

// A step put in the middle is judged there, and one that comes too early is
// answered with the wait that is missing.
func TestOffersInTheMiddleOfAPlan(t *testing.T) {
	c := craft.Default()
	z := zone(t, "mdf", "none", "", nil)
	shellac, _ := c.Product("primer_bond_wb")
	paint, _ := c.Product("paint_mineral")
	z.Steps = []surface.Step{
		{Do: surface.Coat, Product: shellac, WaitH: .2},
		{Do: surface.Coat, Product: paint, Coats: 2, Auto: true},
	}
	os := next(t, c, z, 1)
	if os[0].Name != "Wait" || os[0].Step.Hours <= 0 || !strings.Contains(os[0].Why, "needs") {
		t.Fatalf("first offered: %+v", os[0])
	}
	z.Steps = slices.Insert(z.Steps, 1, os[0].Step)
	if r := check.Check(c, z, check.Options{NoRepairs: true}); slices.ContainsFunc(r.Findings, func(f check.Finding) bool { return f.Code == "adhesion.too_soon" }) {
		t.Error("with the wait it is still too soon")
	}
	if got := next(t, c, z, 99); len(got) != len(next(t, c, z, len(z.Steps))) {
		t.Error("a place behind the end is not the end")
	}
}

// Every start is offered exactly once whatever the zone, and the zone is left
// as it was.
func TestEveryStartIsThereOnce(t *testing.T) {
	c := craft.Default()
	z := zone(t, "glass", "none", "gloss", nil)
	all := Options(c)
	got := next(t, c, z, 0)
	if len(got) != len(all) || len(z.Steps) != 0 {
		t.Fatalf("%d offers of %d starts, %d steps", len(got), len(all), len(z.Steps))
	}
	seen := map[string]bool{}
	for i := range got {
		if seen[got[i].Name] {
			t.Errorf("%s is there twice", got[i].Name)
		}
		seen[got[i].Name] = true
	}
}

func BenchmarkNext(b *testing.B) {
	c := craft.Default()
	z := zone(b, "oak", "varnish_oil", "satin", func(z *check.Zone) { z.Soils[craft.Grease] = 2 })
	for _, o := range []string{"Alkaline degreaser", "Sand", "Dust off"} {
		for _, s := range Options(c) {
			if s.Name == o {
				z.Steps = append(z.Steps, s.Step)
			}
		}
	}
	b.ReportAllocs()
	for b.Loop() {
		next(b, c, z, 3)
	}
}
