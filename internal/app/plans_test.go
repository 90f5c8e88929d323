package app

import (
	"context"
	"math"
	"reflect"
	"slices"
	"strings"
	"testing"

	"rutile/core/plan"
	"rutile/internal/wire"
)

// Weights are read as they are written, and what cannot be is named.
func TestWeightsAreRead(t *testing.T) {
	for s, want := range map[string]plan.Weights{
		"":                       plan.Usual,
		"peel=2":                 {2, 1, 1, 1, 1, 1},
		" cost = .5 , smell=0":   {1, 1, 1, 1, .5, 0},
		"elapsed=4,,hands=1e-1,": {1, 1, 4, .1, 1, 1},
	} {
		if got, err := ParseWeights(s); err != nil || got != want {
			t.Errorf("%q: %v, %v", s, got, err)
		}
	}
	for s, says := range map[string]string{
		"peel":      "each with = and a number",
		"gloss=2":   `"gloss=2"`,
		"trips=2":   "weights are written as",
		"peel=much": "that is not a number",
		"peel=Inf":  "must be a number from 0 to 100",
		"peel=NaN":  "must be a number from 0 to 100",
		"peel=-1":   "the weight of peel is -1",
		"cost=101":  "from 0 to 100",
		"peel=0,stain=0,elapsed=0,hands=0,cost=0,smell=0": "all weights are 0",
	} {
		if _, err := ParseWeights(s); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%q: %v", s, err)
		}
	}
}

// A way comes back as it was written, whatever it holds.
func TestWaysComeBack(t *testing.T) {
	for i := range plan.Ways {
		w := wayFrom(&plan.Ways[i])
		if got := wayOf(&w); !reflect.DeepEqual(got, plan.Ways[i]) {
			t.Errorf("%+v came back as %+v", plan.Ways[i], got)
		}
	}
	own := []wire.Way{{ID: "mine", Name: "Mine", Holds: "prime", Sand: "always", FlakeSeal: "mist", Knots: "all", Shelf: []string{}}}
	w, ok := WayNamed("mine", own)
	if !ok || w.Holds != plan.Prime || w.Sand != plan.SandAlways || w.FlakeSeal != plan.FlakeMist || w.Knots != plan.KnotsAll || w.Shelf == nil {
		t.Errorf("%+v", w)
	}
	if _, ok := WayNamed("theirs", own); ok {
		t.Error("a way that nobody has was found")
	}
}

// A zone is planned by several ways, the best first, and its own plan with them; a
// plan is told with what it rests on, and in figures that belong together.
func TestPlansOfAZone(t *testing.T) {
	p := exampleOf(t, "dresser")
	ways := plan.Ways[1:6]
	told := []int{}
	var o PlanOptions
	o.Done = func(done, of int) { told = append(told, done, of) }
	z, err := job(p).PlanZone(ctx, 0, ways, o)
	if !slices.Equal(told, []int{0, 5, 1, 5, 2, 5, 3, 5, 4, 5, 5, 5}) {
		t.Errorf("told of %v", told)
	}
	if err != nil || len(z.Plans) != len(ways) {
		t.Fatal(len(z.Plans), err)
	}
	last := 0.
	for i := range z.Plans {
		x := &z.Plans[i]
		if x.Infeasible != nil {
			last = math.Inf(1)
			continue
		}
		if x.Points < last || i > 0 && x.Comparison == "" || !x.Proved || x.Own {
			t.Errorf("%s: %v points after %v, against %q", x.Name, x.Points, last, x.Comparison)
		}
		last = x.Points
		if r := x.Risk; r.Low > r.Likely || r.Likely > r.High || r.Words == "" {
			t.Errorf("%s: risk %+v", x.Name, r)
		}
		sum := 0.
		for _, term := range x.Terms {
			sum += term.Points
		}
		if math.Abs(sum-x.Points) > .5 {
			t.Errorf("%s: the terms come to %.1f, and it to %.1f points", x.Name, sum, x.Points)
		}
		if len(x.Words) != len(x.Steps) || len(x.Depends) == 0 || x.Ground == "" || x.Finish == "" || x.Trips == 0 {
			t.Errorf("%s is not told: %+v", x.Name, x)
		}
	}
	p.Zones[0].Steps, p.Zones[0].Way = z.Plans[0].Steps, z.Plans[0].Way
	z, err = job(p).PlanZone(ctx, 0, ways, PlanOptions{})
	if err != nil {
		t.Fatal(err)
	}
	own := slices.IndexFunc(z.Plans, func(w wire.WayPlan) bool { return w.Own })
	if own < 0 || !strings.HasPrefix(z.Plans[own].Name, "The current plan") || z.Plans[own].Points != z.Plans[0].Points {
		t.Errorf("its own plan stands at %d: %+v", own, z.Plans[max(0, own)])
	}
}

// A whole piece is planned: what was planned already stays, zones of one colour get
// one paint, trips come in order, and what cannot be planned says why.
func TestPlanOfAPiece(t *testing.T) {
	p := exampleOf(t, "dresser")
	p.Zones[1].Steps = []wire.Step{{Do: "coat", Product: "paint_mineral", Coats: 2, Method: "brush"}}
	calls := 0
	var o PlanOptions
	o.Done = func(done, of int) {
		if calls++; done > of || of != len(p.Zones) {
			t.Errorf("%d of %d", done, of)
		}
	}
	r, err := job(p).PlanPiece(context.Background(), plan.Ways[0], o)
	if err != nil {
		t.Fatal(err)
	}
	if calls == 0 || len(r.Zones) != len(p.Zones) {
		t.Errorf("%d calls, %d zones", calls, len(r.Zones))
	}
	for i, z := range r.Zones {
		made := r.Piece.Zones[i]
		switch z.State {
		case "had":
			if i != 1 || !reflect.DeepEqual(made.Steps, p.Zones[1].Steps) || made.Way != "" {
				t.Errorf("%s had a plan: %+v", z.Name, made.Steps)
			}
		case "planned":
			if len(made.Steps) == 0 || made.Way != "best" || z.Says == "" || len(p.Zones[i].Steps) > 0 {
				t.Errorf("%s is planned: %+v", z.Name, z)
			}
			one := *r.Piece
			one.Zones = []wire.Zone{made}
			if v := checked(t, &one, Want{Repairs: true}); v.Zones[0].Verdict == "fails" || (v.Zones[0].Verdict == "watch") != (len(z.Watches) > 0) && len(z.Like) == 0 {
				t.Errorf("%s is %s, and told as %q", z.Name, v.Zones[0].Verdict, z.Watches)
			}
		default:
			if z.Infeasible == nil || len(z.Infeasible.Why) == 0 || len(made.Steps) > 0 {
				t.Errorf("%s is %s: %+v", z.Name, z.State, z)
			}
		}
	}
	at, visits := -1., 0
	for _, trip := range r.Trips {
		if trip.StartH < at || len(trip.Zones) == 0 || trip.Does == "" || trip.Minutes <= 0 {
			t.Errorf("%+v after %v", trip, at)
		}
		at = trip.StartH
		visits += len(trip.Zones)
	}
	if len(r.Trips) >= visits || r.Steps < len(r.Trips) {
		t.Errorf("%d trips for %d visits, %d zone by zone", len(r.Trips), visits, r.Steps)
	}
	stopped := make(chan struct{})
	close(stopped)
	r, err = job(p).PlanPiece(ctx, plan.Ways[0], PlanOptions{Stop: stopped})
	if err != nil || slices.ContainsFunc(r.Zones, func(z wire.ZonePlan) bool { return z.State == "planned" }) {
		t.Errorf("stopped before it began, and it planned: %v", err)
	}
}
