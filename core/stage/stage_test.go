package stage

import (
	"slices"
	"strings"
	"testing"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/surface"
)

func of(t *testing.T, z *check.Zone) map[craft.Stage]Stage {
	t.Helper()
	c := craft.Default()
	r := check.Check(c, z, check.Options{NoRepairs: true})
	all := Of(Entries, c, z, &r)
	out := map[craft.Stage]Stage{}
	for _, s := range all {
		if s.Name == "" || s.Says == "" {
			t.Errorf("%s says nothing", s.ID)
		}
		out[s.ID] = s
	}
	if len(out) != 7 {
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
	want(t, s[craft.StageSurvey], Open, "dirt on it, area, wanted colour")
	want(t, s[craft.StageIdentify], Open, "not known")
	want(t, s[craft.StagePrepare], Open, "No cleaning or sanding")
	want(t, s[craft.StageCoats], Open, "No coat")
	want(t, s[craft.StageMix], Open, "no coat to mix")
	want(t, s[craft.StageJobSheet], Open, "no plan to print")
	want(t, s[craft.StageWork], Open, "nothing to do")

	z.SoilsKnown, z.Area, z.Colour = true, 1, "#e4e8df"
	z.Finish, _ = c.Finish("none")
	s = of(t, z)
	want(t, s[craft.StageSurvey], Done, "High-pressure laminate")
	want(t, s[craft.StageIdentify], Done, "bare")

	paint, _ := c.Product("paint_chalk")
	wax, _ := c.Product("wax_clear")
	z.Soils[craft.Grease] = 2
	z.Steps = []surface.Step{
		{Do: surface.Abrade, Grit: 220, How: craft.Hand}, {Do: surface.Dust},
		{Do: surface.Coat, Product: paint, Coats: 2, Auto: true}, {Do: surface.Coat, Product: wax, Auto: true},
	}
	s = of(t, z)
	want(t, s[craft.StagePrepare], Stuck, "grease")
	if s[craft.StagePrepare].Step == 0 {
		t.Error("it does not say at which step")
	}
	want(t, s[craft.StageCoats], Open, "the preparation first")
	want(t, s[craft.StageJobSheet], Open, "fails")

	z.Soils[craft.Grease] = 0
	prime, _ := c.Product("primer_bond_wb")
	z.Steps = append(z.Steps[:2:2], surface.Step{Do: surface.Coat, Product: prime, Auto: true}, z.Steps[2], z.Steps[3])
	s = of(t, z)
	want(t, s[craft.StagePrepare], Done, "2 steps before the first coat")
	want(t, s[craft.StageCoats], Done, "3 products, risk of peeling")
	want(t, s[craft.StageMix], Done, "Cards for 4 coats")
	z.Area = 0
	want(t, of(t, z)[craft.StageMix], Open, "Enter the area")
	want(t, s[craft.StageJobSheet], Done, "First step: sand with 220")
	want(t, s[craft.StageWork], Open, "Start with: sand with 220")
	z.Steps = slices.Clone(z.Steps)
	for i := range z.Steps {
		z.Steps[i].Done = &[]surface.Done{{From: float64(20 * i), To: float64(20*i + 1), Minutes: -1}}
	}
	want(t, of(t, z)[craft.StageWork], Open, "(5 of 6 done)")
	z.Steps[3].Coats = 1
	want(t, of(t, z)[craft.StageWork], Done, "All 5 steps done")
}

// A primer alone is no finish; clear shellac inside a box is.
func TestWhatFinishesAZone(t *testing.T) {
	c := craft.Default()
	z := &check.Zone{Facts: surface.Facts{Moisture: -1, Wear: craft.Display, Climate: drying.Usual, Area: 1}, SoilsKnown: true, Look: craft.LookSolid, Made: 2010, Colour: "#c09a66"}
	z.Substrate, _ = c.Substrate("oak")
	z.Finish, _ = c.Finish("none")
	for _, x := range []struct {
		product string
		state   State
		says    string
	}{{"primer_stainblock_wb", Open, "No paint or clear coat"}, {"shellac_clear", Done, "1 product"}} {
		p, _ := c.Product(x.product)
		z.Steps = []surface.Step{{Do: surface.Abrade, Grit: 220, How: craft.Hand}, {Do: surface.Dust}, {Do: surface.Coat, Product: p, Coats: 2, Auto: true}}
		want(t, of(t, z)[craft.StageCoats], x.state, x.says)
	}
}

func TestALeadSuspectIsNotIdentified(t *testing.T) {
	c := craft.Default()
	z := &check.Zone{Facts: surface.Facts{Moisture: -1, Area: 1, Wear: craft.Handled, Climate: drying.Usual}, SoilsKnown: true, Look: craft.LookSolid, Colour: "#ffffff", Made: 1930}
	z.Substrate, _ = c.Substrate("pine")
	z.Finish, _ = c.Finish("paint_alkyd_old")
	want(t, of(t, z)[craft.StageIdentify], Open, "not tested by a laboratory or licensed assessor")
	want(t, of(t, z)[craft.StageSurvey], Open, "gloss")
	z.LeadTest = &check.LeadTest{By: "laboratory", Date: "2026-11-01"}
	want(t, of(t, z)[craft.StageIdentify], Done, "Pine under old oil paint")
}
