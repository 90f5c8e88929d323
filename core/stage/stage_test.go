package stage

import (
	"strings"
	"testing"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/surface"
)

func of(t *testing.T, z *check.Zone) map[ID]Stage {
	t.Helper()
	c := craft.Default()
	r := check.Check(c, z, check.Options{NoRepairs: true})
	all := Of(c, z, &r)
	out := map[ID]Stage{}
	for _, s := range all {
		if s.Name == "" || s.Says == "" {
			t.Errorf("%s says nothing", s.ID)
		}
		out[s.ID] = s
	}
	if len(out) != 5 {
		t.Fatalf("%d stages", len(out))
	}
	return out
}

func want(t *testing.T, got Stage, st State, says string) {
	t.Helper()
	if got.State != st || !strings.Contains(got.Says, says) {
		t.Errorf("%s is %s, %q; want %s, %q", got.ID, got.State, got.Says, st, says)
	}
}

func TestAZoneGrowsThroughItsStages(t *testing.T) {
	c := craft.Default()
	z := &check.Zone{Facts: surface.Facts{Moisture: -1, Wear: craft.Handled, Climate: drying.Usual}, Look: craft.LookSolid, Made: 2010}
	z.Substrate, _ = c.Substrate("laminate_hpl")
	z.Finish, _ = c.Finish("unknown")
	s := of(t, z)
	want(t, s[LookOver], Open, "what lies on it, its area, the colour")
	want(t, s[Identify], Open, "not known")
	want(t, s[Prepare], Open, "No cleaning or sanding")
	want(t, s[Coats], Open, "No coat")
	want(t, s[HandOver], Open, "no plan to print")

	z.SoilsKnown, z.Area, z.Colour = true, 1, "#e4e8df"
	z.Finish, _ = c.Finish("none")
	s = of(t, z)
	want(t, s[LookOver], Done, "High-pressure laminate")
	want(t, s[Identify], Done, "bare")

	paint, _ := c.Product("paint_chalk")
	wax, _ := c.Product("wax_clear")
	z.Soils[craft.Grease] = 2
	z.Steps = []surface.Step{
		{Do: surface.Abrade, Grit: 220, How: craft.Hand}, {Do: surface.Dust},
		{Do: surface.Coat, Product: paint, Coats: 2, Auto: true}, {Do: surface.Coat, Product: wax, Auto: true},
	}
	s = of(t, z)
	want(t, s[Prepare], Stuck, "grease")
	if s[Prepare].Step == 0 {
		t.Error("it does not say at which step")
	}
	want(t, s[Coats], Stuck, "hold")
	want(t, s[HandOver], Open, "fails")

	z.Soils[craft.Grease] = 0
	prime, _ := c.Product("primer_bond_wb")
	z.Steps = append(z.Steps[:2:2], surface.Step{Do: surface.Coat, Product: prime, Auto: true}, z.Steps[2], z.Steps[3])
	s = of(t, z)
	want(t, s[Prepare], Done, "2 steps before the first coat")
	want(t, s[Coats], Done, "3 products, risk of peeling")
	want(t, s[HandOver], Done, "sand with 220 comes first")
}

func TestALeadSuspectIsNotIdentified(t *testing.T) {
	c := craft.Default()
	z := &check.Zone{Facts: surface.Facts{Moisture: -1, Area: 1, Wear: craft.Handled, Climate: drying.Usual}, SoilsKnown: true, Look: craft.LookSolid, Colour: "#ffffff", Made: 1930}
	z.Substrate, _ = c.Substrate("pine")
	z.Finish, _ = c.Finish("paint_alkyd_old")
	want(t, of(t, z)[Identify], Open, "no laboratory or licensed assessor")
	want(t, of(t, z)[LookOver], Open, "how it shines")
	z.LeadTest = &check.LeadTest{By: "laboratory", Date: "2026-11-01"}
	want(t, of(t, z)[Identify], Done, "Pine under old oil paint")
}
