package app

import (
	"encoding/json"
	"reflect"
	"slices"
	"strings"
	"testing"

	"rutile/core/plan"
	"rutile/internal/wire"
)

// Kits, habits and hours come from the settings as they were written, and the usual ones stand where
// nothing was.
func TestKitsOfAStudio(t *testing.T) {
	for i := range plan.Kits {
		w := kitFrom(&plan.Kits[i])
		if got := kitOf(&w); !reflect.DeepEqual(got, plan.Kits[i]) {
			t.Errorf("%+v came back as %+v", plan.Kits[i], got)
		}
	}
	if b := benchFrom(plan.UsualBench); benchOf(&b) != plan.UsualBench || benchOf(nil) != plan.UsualBench {
		t.Errorf("%+v", b)
	}
	own := []wire.Kit{{ID: "van", Name: "Van", Products: []string{"paint_chalk"}, Tools: []string{"gun"}}}
	for _, x := range []struct {
		ids   []string
		keeps string
		not   string
		gun   bool
	}{
		{nil, "paint_trim", "paint_milk", false},
		{[]string{"brush", "powder"}, "paint_milk", "paint_masonry", false},
		{[]string{"van"}, "paint_chalk", "paint_trim", true},
	} {
		k, ok := KitOf(x.ids, own)
		if !ok || !k.Keeps(x.keeps) || k.Keeps(x.not) || k.Has(plan.Gun) != x.gun {
			t.Errorf("%v: %+v", x.ids, k)
		}
	}
	if _, ok := KitOf([]string{"nobody's"}, own); ok {
		t.Error("a kit that there is not was found")
	}
	if s := habitsOf([]string{"wash", "no such", "denib"}); !s.Has(plan.WashFirst) || !s.Has(plan.Denib) || s.Has(plan.ScuffFilms) {
		t.Errorf("%b", s)
	}
	v := engine.Vocab()
	if len(v.Kits.Kits) != len(plan.Kits) || len(v.Kits.Habits) != int(plan.NumHabits) || v.Kits.Habits[0].Risk == "" || len(v.Furniture) == 0 {
		t.Errorf("%+v", v.Kits)
	}
	data, err := json.Marshal(wire.Settings{Name: "a", Units: "metric", Kits: []string{"van", "spray"}, OwnKits: own, HabitsOff: []string{"wash"}, Bench: &wire.Bench{FromH: 18, ToH: 21.5, Days: []string{"mon", "sat"}}})
	if err != nil {
		t.Fatal(err)
	}
	if s, err := wire.DecodeSettings(data); err != nil || !reflect.DeepEqual(s.OwnKits, own) || s.Bench.ToH != 21.5 {
		t.Errorf("%v, %+v", err, s)
	}
	for bad, says := range map[string]string{
		`"kits": ["garage"]`: "$.kits[0]",
		`"own_kits": [{"id": "x", "name": "X", "tools": ["saw"]}]`:         "$.own_kits[0].tools[0]",
		`"own_kits": [{"id": "x", "name": "X"}, {"id": "x", "name": "Y"}]`: "another kit already has this id",
		`"own_kits": [{"id": "x", "name": "X", "everyday": "paint_gold"}]`: "$.own_kits[0].everyday",
		`"habits_off": ["sing"]`:                                   "$.habits_off[0]",
		`"bench": {"from_h": 9, "to_h": 9.5, "days": ["mon"]}`:     "at least an hour",
		`"bench": {"from_h": 9, "to_h": 18, "days": []}`:           "at least one working day",
		`"bench": {"from_h": 9, "to_h": 25, "days": ["mon"]}`:      "$.bench.to_h",
		`"ways": [{"id": "w", "name": "W", "habits_off": ["no"]}]`: "$.ways[0].habits_off[0]",
	} {
		_, err := wire.DecodeSettings([]byte(`{"name": "a", "units": "metric", "site": {"temp_c": 20, "rh_pct": 50}, ` + bad + `}`))
		if err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%s: %v", bad, err)
		}
	}
}

// A zone without parts is as fiddly as its kind of furniture; what is known of its parts counts before that.
func TestKindsOfFurniture(t *testing.T) {
	hours := func(kind, parts string) float64 {
		p := decoded(t, `{"format": "rutile/piece", "version": 1, `+kind+parts+`"zones": [{"id": "a", "substrate": "beech", "finish": "varnish_oil", "area_m2": 2, "steps": [{"do": "coat", "product": "paint_trim", "coats": 2}]}]}`)
		return *checked(t, p, Want{}).Zones[0].Hours.HandsOn
	}
	plain, chair, spindles := hours("", ""), hours(`"kind": "chair", `, ""), hours(`"kind": "spindle_chair", `, "")
	if !(plain < chair && chair < spindles) {
		t.Errorf("%v h, as a chair %v h, with spindles %v h", plain, chair, spindles)
	}
	const panel = `"parts": [{"kind": "panel", "width_cm": 100, "height_cm": 200, "zone": "a"}], `
	if a, b := hours("", panel), hours(`"kind": "spindle_chair", `, panel); a != b {
		t.Errorf("a panel takes %v h, of a chair with spindles %v h", a, b)
	}
}

// A plan says what it needs outside the kit, what it leaves out, and in which days it is done.
func TestAPlanIsTold(t *testing.T) {
	p := decoded(t, `{"format": "rutile/piece", "version": 1, "take_apart": [{"kind": "knob", "count": 4}], "zones": [{"id": "a", "substrate": "steel", "finish": "none", "gloss": "gloss", "soils": [], "area_m2": 2, "wear": "handled", "target": {"sheen": "satin", "colour": "#3f5a52"}}]}`)
	j := job(p)
	j.Shop.HabitsOff = habitsOf([]string{"spirit_wipe"})
	j.Shop.Bench = plan.Bench{From: 18, To: 21, Days: [7]bool{true, true, true, true, true}}
	z, err := j.PlanZone(ctx, 0, plan.Ways[:1], PlanOptions{})
	if err != nil {
		t.Fatal(err)
	}
	w := z.Plans[0]
	if w.Infeasible != nil || !slices.Contains(w.Buys, "Metal primer") || !strings.Contains(w.BuyWords, "buy metal primer") || w.Gain == "" {
		t.Errorf("buys %v, %q: %q", w.Buys, w.BuyWords, w.Gain)
	}
	if !slices.ContainsFunc(w.Leaves, func(s string) bool { return strings.HasPrefix(s, "Not wiped with spirit") }) || !strings.Contains(w.Work, " to ") || w.Days < 2 || !strings.Contains(w.Takes, "until it goes back together") || !strings.Contains(w.Refit, "next day") {
		t.Errorf("%+v", w)
	}
	if w.Steps[0].Do != "remove" || w.Steps[0].What != "knobs" || w.Words[0] != "Remove knobs" {
		t.Errorf("it begins with %+v, %q", w.Steps[0], w.Words[0])
	}
	r, err := j.PlanPiece(ctx, plan.Ways[0], PlanOptions{})
	if err != nil {
		t.Fatal(err)
	}
	if len(r.Days) < 2 || !strings.HasPrefix(r.Days[0].Title, "Day 1, ") || r.Zones[0].BuyWords == "" {
		t.Errorf("%+v", r.Days)
	}
	n := 0
	for _, d := range r.Days {
		for _, i := range d.Trips {
			if r.Trips[i].Day != d.Day || r.Trips[i].At < "18:00" || r.Trips[i].At > "21:00" {
				t.Errorf("day %d: %+v", d.Day, r.Trips[i])
			}
			n++
		}
	}
	if n != len(r.Trips) {
		t.Errorf("%d of %d trips are on a day", n, len(r.Trips))
	}
}
