package plan

import (
	"context"
	"math"
	"math/rand/v2"
	"slices"
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

// walked checks that trips hold every step of every zone once, in the order of its plan, within working
// hours, never before its coats allow and never after a window has closed.
func walked(t *testing.T, c *craft.Craft, zones []check.Zone, b Bench, trips []Trip) (visits, missed int) {
	t.Helper()
	deeds := make([][]deed, len(zones))
	for i := range zones {
		deeds[i] = deedsOf(c, &zones[i])
	}
	seen, ended := make([]int, len(zones)), make([]float64, len(zones))
	now := 0.
	for _, tr := range trips {
		if len(tr.Visits) == 0 || tr.Day < 1 || tr.Clock < b.From-1e-9 {
			t.Fatalf("%s on day %d at %v", tr.Does, tr.Day, tr.Clock)
		}
		for _, v := range tr.Visits {
			visits++
			d := &deeds[v.Zone][seen[v.Zone]]
			if d.step != v.Step || d.coat != v.Coat || d.words != tr.Does {
				t.Fatalf("zone %d: step %d coat %d (%s) where %+v comes next", v.Zone, v.Step, v.Coat, tr.Does, *d)
			}
			if v.Begun < now-1e-6 {
				t.Fatalf("%s begins before the visit before it ends", tr.Does)
			}
			now = v.Begun + v.Minutes/60
			clock, ends := math.Mod(v.Begun, 24), math.Mod(v.Begun, 24)+v.Minutes/60
			if !b.works(int(v.Begun/24)) || clock < b.From-1e-6 || ends > b.To+1e-6 && v.Minutes/60 <= b.To-b.From {
				t.Errorf("zone %d: %s from %v to %v on day %d", v.Zone, tr.Does, clock, ends, tr.Day)
			}
			if seen[v.Zone] > 0 {
				if ready := ended[v.Zone] + d.after; v.Begun < ready-1e-6 {
					t.Errorf("zone %d: %s begins %v h too early", v.Zone, tr.Does, ready-v.Begun)
				}
				if v.Begun > ended[v.Zone]+d.until+1e-6 {
					missed++
					if tr.Caution == "" {
						t.Errorf("zone %d: %s begins %v h after the window closed, and nobody says so", v.Zone, tr.Does, v.Begun-ended[v.Zone]-d.until)
					}
				}
			}
			ended[v.Zone] = now
			seen[v.Zone]++
		}
	}
	for i := range zones {
		if seen[i] != len(deeds[i]) {
			t.Errorf("zone %d: %d of %d", i, seen[i], len(deeds[i]))
		}
	}
	return visits, missed
}

// Several zones share their trips, and one is worked on while another dries.
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
	all, apart := 0, 0.
	for i := range facts {
		zones[i] = *zoneOf(t, facts[i])
		zones[i].Steps = planned[i].Answer.Best.Steps
		all += len(deedsOf(c, &zones[i]))
		for _, d := range deedsOf(c, &zones[i]) {
			apart += d.minutes
		}
	}
	trips := Trips(c, zones, UsualBench)
	visits, missed := walked(t, c, zones, UsualBench, trips)
	while, together := 0, 0.
	for _, tr := range trips {
		while += len(tr.While)
		together += tr.Minutes
	}
	if visits != all || len(trips) >= all || while == 0 || missed > 0 {
		t.Errorf("%d trips for %d steps, %d done while another zone dries, %d windows missed", len(trips), all, while, missed)
	}
	if together >= apart {
		t.Errorf("%v min together, %v apart: setting up is not shared", together, apart)
	}
	if got := Trips(c, make([]check.Zone, 3), UsualBench); len(got) != 0 || Days(got) != 0 {
		t.Errorf("%d trips for nothing", len(got))
	}
	if trips[0].Start != 0 || trips[0].Day != 1 || trips[0].Clock != UsualBench.From {
		t.Errorf("it begins on day %d at %v", trips[0].Day, trips[0].Clock)
	}
}

// Whatever the plan and the hours of the bench, nothing is done at night, and windows are kept or it is
// said that they cannot be.
func TestTripsKeepWorkingHours(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	r := rand.New(rand.NewPCG(9, 18))
	planned, windows, missed := 0, 0, 0
	for range cases(2000, 120) {
		var zones []check.Zone
		for range 1 + r.IntN(3) {
			ask := anyZone(r, c)
			p, err := newPlanner(c, ask)
			if err != nil {
				t.Fatal(err)
			}
			z := *ask.Zone
			z.Steps = nil
			if a := p.search(context.Background()); a.Best != nil {
				z.Steps = a.Best.Steps
			}
			zones = append(zones, z)
		}
		b := UsualBench
		switch r.IntN(3) {
		case 0:
			b = Bench{18, 21.5, [7]bool{true, false, true, true, true, false, false}} // evenings
		case 1:
			b = Bench{8, 13, [7]bool{false, false, false, false, false, true, true}} // week-ends
		}
		trips := Trips(c, zones, b)
		_, m := walked(t, c, zones, b, trips)
		missed += m
		for i := range zones {
			for _, d := range deedsOf(c, &zones[i]) {
				if !math.IsInf(d.until, 1) {
					windows++
				}
			}
		}
		if len(trips) > 0 {
			planned++
		}
	}
	t.Logf("%d pieces, %d windows, %d that no working hours reach", planned, windows, missed)
	if planned < 80 || windows < 50 || missed > windows/4 {
		t.Error("too few to tell")
	}
}

// A wait that would end at night ends in the morning; where that would miss a window, the coat before it
// moves.
func TestACoatMovesForItsWindow(t *testing.T) {
	c := craft.Default()
	coat := func(id string) surface.Step {
		p, _ := c.Product(id)
		return surface.Step{Do: surface.Coat, Product: p, Auto: true, Method: "brush"}
	}
	z := *zoneOf(t, "birch; area 4")
	z.Steps = []surface.Step{coat("paint_chalk"), coat("paint_chalk"), coat("paint_chalk"), coat("crackle_medium"), coat("paint_chalk"), coat("wax_clear")}
	trips := Trips(c, []check.Zone{z}, UsualBench)
	walked(t, c, []check.Zone{z}, UsualBench, trips)
	day := map[string]int{}
	for _, tr := range trips {
		day[tr.Does] = tr.Day
		if tr.Caution != "" {
			t.Errorf("%s: %s", tr.Does, tr.Caution)
		}
	}
	if day["Crackle medium"] != 2 || Days(trips) != 2 && Days(trips) != 3 {
		t.Errorf("the medium is laid on day %d of %d, where its window would close before the morning", day["Crackle medium"], Days(trips))
	}
	// A chest of drawers takes three to five days.
	z = *zoneOf(t, "pine varnish_oil satin; area 2.5; target satin")
	z.Work, z.EdgesM = 1.1, 15
	a, err := Find(context.Background(), c, Request{Zone: &z, Way: Ways[0], Kit: DefaultKit(), PutBack: true, TakeOff: "knobs"})
	if err != nil || a.Best == nil {
		t.Fatal(err)
	}
	z.Steps = slices.Clone(a.Best.Steps)
	z.Steps[len(z.Steps)-2].Hours = 24 // its knobs go back the next day
	if n := Days(Trips(c, []check.Zone{z}, UsualBench)); n < 3 || n > 5 {
		t.Errorf("a chest of drawers takes %d days", n)
	}
	// A chair in two colours of powder paint takes five or six, with the day on which its oil dries.
	z = *zoneOf(t, "beech varnish_oil satin; area .9; look layered_chippy; colour #dfe3d6")
	z.Work, z.EdgesM = 1.6, 11
	if a, err = Find(context.Background(), c, Request{Zone: &z, Way: Ways[0], Kit: &Kits[2]}); err != nil || a.Best == nil {
		t.Fatal(err)
	}
	z.Steps = a.Best.Steps
	if n := Days(Trips(c, []check.Zone{z}, UsualBench)) + 1; n < 5 || n > 6 {
		t.Errorf("a chair in two colours of powder paint takes %d days\n%s", n, words(c, a.Best))
	}
}
