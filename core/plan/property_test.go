package plan

import (
	"context"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
)

// anyZone is a random zone of any material, finish, damage, look and use.
func anyZone(r *rand.Rand, c *craft.Craft) Request {
	z := &check.Zone{Look: craft.LookSolid, SoilsKnown: r.IntN(6) > 0, Made: []int{0, 1930, 1975, 1995, 2015}[r.IntN(5)]}
	z.Substrate = craft.Substrate(r.IntN(len(c.Substrates)))
	z.Finish, _ = c.Finish("none")
	if r.IntN(3) > 0 {
		z.Finish = craft.Finish(r.IntN(len(c.Finishes)))
	}
	z.Gloss = craft.Sheen(r.IntN(7))
	z.Moisture, z.AgeDays = -1, []float64{-1, 20, 400}[r.IntN(3)]
	if r.IntN(5) == 0 {
		z.Moisture = float64(7 + r.IntN(9))
	}
	for range r.IntN(4) {
		z.Soils[r.IntN(int(craft.NumSoils))] = uint8(1 + r.IntN(3))
	}
	if r.IntN(4) == 0 {
		z.GivenBleeders = true
		for range r.IntN(3) {
			z.Bleeders[r.IntN(int(craft.NumBleeders))] = uint8(1 + r.IntN(3))
		}
	}
	if r.IntN(4) == 0 {
		z.Knots = 1 + r.IntN(5)
	}
	if r.IntN(10) == 0 {
		z.Loose = craft.Loose(1 << r.IntN(5))
	}
	z.Wear = craft.Wear(r.IntN(len(craft.Wears)))
	z.Uses = craft.UseRows[r.IntN(len(craft.UseRows))].Bit
	z.Climate = drying.Climate{TempC: 9 + r.Float64()*20, RH: 35 + r.Float64()*45}
	z.Colour = []string{"", "#ffffff", "#e4e8df", "#7d8f86", "#101010", "#c02a24", "#e3b81f"}[r.IntN(7)]
	z.Area = []float64{0, .4, 2.5}[r.IntN(3)]
	z.Sheen = craft.Sheen(r.IntN(7))
	z.Veneer, z.Uneven, z.Touching = r.IntN(6) == 0, r.IntN(6) == 0, r.IntN(6) == 0
	z.GapMM = []float64{0, 0, 0, .5, 1.5}[r.IntN(5)]
	if r.IntN(3) == 0 {
		z.Look = c.Effects[r.IntN(len(c.Effects))].ID
	}
	if r.IntN(8) == 0 {
		z.Unmasked = []string{"the glass"}
	}
	ask := Request{Zone: z, Way: Ways[0], PutBack: z.Touching}
	if r.IntN(2) == 0 {
		ask.Way = Ways[r.IntN(len(Ways))]
	}
	if r.IntN(4) == 0 { // a way of one's own
		w := &ask.Way
		w.Sand, w.Seal, w.FlakeSeal = Sanding(r.IntN(3)), Sealing(r.IntN(3)), FlakeSealing(r.IntN(2))
		w.Resist, w.Crackle, w.Knots = Resisting(r.IntN(4)), craft.Crackling(r.IntN(3)), Knotting(r.IntN(3))
		w.Additive, w.AdditiveFirst = []float64{0, .1, 1}[r.IntN(3)], r.IntN(2) == 0
		w.Water, w.Deep, w.NextDay = []float64{0, .8, 2}[r.IntN(3)], r.IntN(2) == 0, r.IntN(3) == 0
	}
	switch r.IntN(4) {
	case 0:
		ask.Kit = DefaultKit()
	case 1:
		k := Kits[r.IntN(len(Kits))]
		ask.Kit = DefaultKit().With(&k)
	}
	if ask.Way.Method == "spray" && !ask.Kit.Has(Gun) {
		ask.Kit = Together(Kits)
	}
	if r.IntN(5) == 0 {
		ask.HabitsOff = HabitSet(r.IntN(1 << NumHabits))
	}
	if r.IntN(8) == 0 {
		ask.Fill = craft.Fillers[r.IntN(len(craft.Fillers))]
	}
	return ask
}

// Every plan that is found passes the check of the zone as it was surveyed.
func TestEveryPlanPassesItsCheck(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	r := rand.New(rand.NewPCG(17, 4))
	planned, looks := 0, map[string]int{}
	var took []time.Duration
	for range cases(8000, 60) {
		ask := anyZone(r, c)
		at := time.Now()
		p, err := newPlanner(c, ask)
		if err != nil {
			t.Fatal(err)
		}
		a := p.search(context.Background())
		took = append(took, time.Since(at))
		if d := time.Since(at); d > 200*time.Millisecond {
			t.Logf("%v %+v %s", d, a.Stats, describe(c, &ask))
		}
		if !a.Proved {
			t.Fatalf("not proved: %+v %s", a.Stats, describe(c, &ask))
		}
		if a.Best == nil {
			continue
		}
		planned++
		looks[ask.Zone.Look]++
		z := *ask.Zone
		z.Steps = a.Best.Steps
		res := check.Check(c, &z, check.Options{NoRepairs: true})
		if res.Verdict == check.Fails {
			t.Fatalf("%s fails: %s\n%s", describe(c, &ask), res.Findings[0].Title, words(c, a.Best))
		}
	}
	slices.Sort(took)
	t.Logf("%d of %d planned; median %v, 99 %% %v, most %v; %v", planned, len(took), took[len(took)/2], took[len(took)*99/100], took[len(took)-1], looks)
}
