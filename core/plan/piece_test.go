package plan

import (
	"context"
	"math"
	"strings"
	"testing"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/surface"
)

func zonesOf(t testing.TB, facts ...string) []PieceZone {
	t.Helper()
	var out []PieceZone
	for i, f := range facts {
		out = append(out, PieceZone{Name: string(rune('A' + i)), Request: Request{Zone: zoneOf(t, f), Way: Ways[0]}})
	}
	return out
}

// Zones that are to match get the same paint and seal where they can, and where
// they cannot it is said.
func TestZonesThatMatch(t *testing.T) {
	c := craft.Default()
	zones := zonesOf(t,
		"oak varnish_oil satin; colour #e4e8df; target matt; wear tabletop; soils grease1",
		"laminate_hpl satin; colour #e4e8df; target matt",
		"pine; knots; colour #e4e8df; target matt; wear display",
		"steel gloss; colour #303a44",
		"vinyl_fabric satin; colour #e4e8df; target matt; wear seat",
	)
	said := 0
	got, err := Piece(context.Background(), c, zones, nil, func(n int) { said = n })
	if err != nil {
		t.Fatal(err)
	}
	if said != len(zones) {
		t.Errorf("%d zones were told of", said)
	}
	made := [][]surface.Step{}
	for i := range got {
		if got[i].Answer.Best == nil {
			t.Fatalf("%s has no plan: %+v", zones[i].Name, got[i].Answer.Infeasible)
		}
		if i < 3 {
			made = append(made, got[i].Answer.Best.Steps)
			if len(got[i].Like) != 2 || got[i].Differs != "" {
				t.Errorf("%s is like %q, differs %q", zones[i].Name, got[i].Like, got[i].Differs)
			}
		}
	}
	if !alike(c, made[0], made[1]) || !alike(c, made[0], made[2]) {
		t.Errorf("they look different: %s, %s, %s", Finish(c, made[0]), Finish(c, made[1]), Finish(c, made[2]))
	}
	if got[4].Differs == "" || !strings.Contains(got[4].Differs, "flexible paint") {
		t.Errorf("vinyl cloth has the paint of a table top: %q", got[4].Differs)
	}
	if len(got[3].Like) != 0 {
		t.Errorf("steel in another colour is like %q", got[3].Like)
	}
	// A zone that is planned stays, and sets the paint.
	zones[1].Steps = got[1].Answer.Best.Steps
	chalk, _ := c.Product("paint_chalk")
	for i := range zones[1].Steps {
		if s := &zones[1].Steps[i]; c.Products[s.Product].Role == craft.RolePaint && s.Do == surface.Coat {
			s.Product, s.Sheen = chalk, craft.NoSheen
		}
	}
	wax, _ := c.Product("wax_clear")
	zones[1].Steps = append(zones[1].Steps, surface.Step{Do: surface.Coat, Product: wax, Auto: true, Method: "rag"})
	got, err = Piece(context.Background(), c, zones, nil, nil)
	if err != nil {
		t.Fatal(err)
	}
	if !got[1].Kept || got[1].Answer.Best != nil {
		t.Error("a planned zone was planned again")
	}
	if f := Finish(c, got[2].Answer.Best.Steps); f != "chalk paint under wax oil" && f != "chalk paint under clear wax" {
		t.Errorf("the shelf beside it is painted with %s", f)
	}
	if got[0].Differs == "" {
		t.Error("a table top under wax is not said to differ")
	}
}

// Where one zone would be painted straight on absorbent wood and its neighbour
// is sealed, both are sealed.
func TestGroundsThatMatch(t *testing.T) {
	c := craft.Default()
	zones := zonesOf(t, "beech; bleed; colour #c9b48a; target matt", "laminate_hpl gloss; colour #c9b48a; target matt")
	got, err := Piece(context.Background(), c, zones, nil, nil)
	if err != nil {
		t.Fatal(err)
	}
	for i := range got {
		z := *zones[i].Request.Zone
		z.Steps = got[i].Answer.Best.Steps
		o := *zones[1-i].Request.Zone
		o.Steps = got[1-i].Answer.Best.Steps
		z.Match = []check.Base{check.BaseOf(c, &o, "the other")}
		for _, f := range check.Check(c, &z, check.Options{NoRepairs: true}).Findings {
			if f.Code == "prep.mixed_base" {
				t.Errorf("%s: %s", zones[i].Name, f.Why)
			}
		}
	}
}

// Two hundred zones that are all alike are planned, and stopping leaves what was
// not reached without a plan.
func TestManyZones(t *testing.T) {
	c := craft.Default()
	var facts []string
	for i := range 200 {
		facts = append(facts, []string{"oak varnish_oil satin; soils grease1", "laminate_hpl satin", "pine; knots", "mdf"}[i%4])
	}
	zones := zonesOf(t, facts...)
	got, err := Piece(context.Background(), c, zones, nil, nil)
	if err != nil {
		t.Fatal(err)
	}
	for i := range got {
		if got[i].Answer.Best == nil {
			t.Fatalf("zone %d has no plan", i)
		}
	}
	ctx, stop := context.WithCancel(context.Background())
	n := 0
	got, err = Piece(ctx, c, zones, nil, func(int) {
		if n++; n == 5 {
			stop()
		}
	})
	if err != nil || got[199].Answer.Best != nil {
		t.Errorf("it went on after it was stopped: %v", err)
	}
}

// The trips hold every step of every zone once, in the order of its plan, never
// before its coats allow, and are fewer than the steps.
func TestTrips(t *testing.T) {
	c := craft.Default()
	facts := []string{
		"oak varnish_oil satin; colour #e4e8df; target matt; soils grease1",
		"laminate_hpl satin; colour #e4e8df; target matt; soils grease1",
		"pine; knots; colour #e4e8df; target matt; soils grime1",
		"plastic_polyolefin satin; colour #303a44; soils grime1",
		"beech varnish_oil gloss; look chippy; colour #dfe3d6; soils grime1",
		"lime; look crackle; colour #e6ddc4; wear display",
	}
	planned, err := Piece(context.Background(), c, zonesOf(t, facts...), nil, nil)
	if err != nil {
		t.Fatal(err)
	}
	zones := make([]check.Zone, len(facts))
	deeds := make([][]deed, len(facts))
	all := 0
	for i := range facts {
		zones[i] = *zoneOf(t, facts[i])
		zones[i].Steps = planned[i].Answer.Best.Steps
		deeds[i] = deedsOf(c, &zones[i])
		all += len(deeds[i])
	}
	trips := Trips(c, zones)
	seen, ended := make([]int, len(facts)), make([]float64, len(facts))
	now, visits, while := 0., 0, 0
	washes := map[string]int{}
	for _, tr := range trips {
		if tr.Start < now-1e-9 || len(tr.Visits) == 0 {
			t.Fatalf("%s begins at %v, before %v", tr.Does, tr.Start, now)
		}
		while += len(tr.While)
		if tr.Kind == surface.Clean {
			washes[tr.Does]++
		}
		for _, v := range tr.Visits {
			visits++
			d := &deeds[v.Zone][seen[v.Zone]]
			if d.step != v.Step || d.coat != v.Coat || d.words != tr.Does {
				t.Fatalf("zone %d: step %d coat %d (%s) where %+v comes next", v.Zone, v.Step, v.Coat, tr.Does, *d)
			}
			begin := max(tr.Start, now)
			if seen[v.Zone] > 0 {
				if ready := ended[v.Zone] + d.after; begin < ready-1e-9 {
					begin = ready // it waits for this zone within the trip
				}
				if begin > ended[v.Zone]+d.until+1e-9 {
					t.Errorf("zone %d: %s begins %v h after the window closed", v.Zone, tr.Does, begin-ended[v.Zone]-d.until)
				}
			}
			now = begin + v.Minutes/60
			ended[v.Zone] = now
			seen[v.Zone]++
		}
	}
	for i := range facts {
		if seen[i] != len(deeds[i]) {
			t.Errorf("zone %d: %d of %d", i, seen[i], len(deeds[i]))
		}
	}
	if visits != all || len(trips) >= all || while == 0 {
		t.Errorf("%d trips for %d steps, %d done while another zone dries", len(trips), all, while)
	}
	for what, n := range washes {
		if n > 1 {
			t.Errorf("%s is done in %d trips", what, n)
		}
	}
	if got := Trips(c, make([]check.Zone, 3)); len(got) != 0 {
		t.Errorf("%d trips for nothing", len(got))
	}
	if math.IsInf(trips[0].Start, 0) || trips[0].Start != 0 {
		t.Errorf("it begins at %v", trips[0].Start)
	}
}
