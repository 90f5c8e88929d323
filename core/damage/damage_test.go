package damage

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
)

var warm = drying.Climate{TempC: 20, RH: 50}

func near(a, b float64) bool { return math.Abs(a-b) < 1e-9 }

// Millilitres of filler and glue, from the solid one would think of, with
// what is laid on proud.
func TestVolumes(t *testing.T) {
	for _, c := range []struct {
		d      Defect
		filler Filler
		ml     float64
		glue   float64
	}{
		{Defect{ID: "hole", Count: 4, SizeMM: 5}, TwoPart, 4 * math.Pi * 6.25 * 15 / 1000 * 1.3, 0},
		{Defect{ID: "hole", Count: 4}, TwoPart, 4 * math.Pi * 6.25 * 15 / 1000 * 1.3, 0},
		{Defect{ID: "hole", SizeMM: 2}, Fine, math.Pi * 5 / 1000 * 1.3, 0},
		{Defect{ID: "gouge", Count: 1, SizeMM: 10, LongCM: 8}, TwoPart, 10 * 6 / 2. * 80 / 1000 * 1.3, 0},
		{Defect{ID: "gouge", Count: 1, SizeMM: 2, LongCM: 8}, Fine, 2 * 1.2 / 2 * 80 / 1000 * 1.3, 0},
		{Defect{ID: "chip", Count: 2, SizeMM: 12}, TwoPart, 2 * 2. / 3 * math.Pi * 36 * 3.6 / 1000 * 1.3, 0},
		{Defect{ID: "missing_veneer", Count: 1, SizeMM: 40, LongCM: 10}, TwoPart, 40 * 100 * .6 / 1000 * 1.3, 0},
		{Defect{ID: "open_joint", Count: 2, LongCM: 30}, NoFiller, 0, 2 * 20 * 300 * .25 / 1000},
		{Defect{ID: "lifted_veneer", Count: 1, SizeMM: 40, LongCM: 10}, NoFiller, 0, 40 * 100 * .25 / 1000},
		{Defect{ID: "old_runs", Count: 3}, NoFiller, 0, 0},
	} {
		w := Of([]Defect{c.d}, warm)
		if len(w.Items) != 1 || w.Items[0].Filler != c.filler || !near(w.Items[0].ML, c.ml) || !near(w.Items[0].Glue, c.glue) {
			t.Errorf("%+v: %+v, want %v ml and %v ml glue", c.d, w.Items, c.ml, c.glue)
		}
		if w.Minutes <= 0 || w.Items[0].How == "" {
			t.Errorf("%+v takes no time or no way", c.d)
		}
	}
	if w := Of([]Defect{{ID: "knot", Count: 9}}, warm); len(w.Items) != 0 || w.Minutes != 0 || w.Says(measure.Metric) != nil {
		t.Errorf("a knot is mended: %+v", w)
	}
}

// Each ten degrees more halve the time there is; what cannot be laid on in it
// is another batch.
func TestBatches(t *testing.T) {
	holes := []Defect{{ID: "hole", Count: 20, SizeMM: 6}}
	at := func(c float64) Batches { return Of(holes, drying.Climate{TempC: c, RH: 50}).TwoPart }
	b := at(20)
	if !near(b.WorkMin, 8) || !near(b.SandMin, 15) || !near(b.Hardener, b.Grams*.02) || !near(b.Grams, b.ML*1.8) {
		t.Errorf("at 20 C: %+v", b)
	}
	if w := at(30); !near(w.WorkMin, 4) || !near(w.SandMin, 7.5) || w.N <= b.N {
		t.Errorf("at 30 C: %+v, and at 20 C %d batches", w, b.N)
	}
	// 20 holes take 12 minutes and some: two batches of six usable minutes are
	// too few, three enough.
	ml := 20 * math.Pi * 9 * 15 / 1000 * 1.3
	if need := 20*.6 + ml*.08; b.N != int(math.Ceil(need/6)) || !near(b.ML*float64(b.N), ml) {
		t.Errorf("%d batches of %v ml for %v minutes of filling", b.N, b.ML, need)
	}
	// A large void is filled in balls one can hold.
	if w := Of([]Defect{{ID: "missing_veneer", Count: 1, SizeMM: 400, LongCM: 100}}, warm); w.TwoPart.ML > 60 || w.TwoPart.N < 6 {
		t.Errorf("%+v", w.TwoPart)
	}
	if w := Of(holes, drying.Climate{TempC: 5, RH: 60}); !w.TooCold || !strings.Contains(strings.Join(w.Says(measure.Metric), " "), "warm the piece first") {
		t.Errorf("at 5 C: %v", w.Says(measure.Metric))
	}
}

// No filler goes into what bends.
func TestWhatBendsIsNotFilled(t *testing.T) {
	w := Of([]Defect{{ID: "hole", Count: 2, SizeMM: 30, Bends: true}, {ID: "stain", Bends: true}}, warm)
	if w.TwoML > 0 || w.FineML > 0 || w.Items[0].Filler != NoFiller || !strings.Contains(w.Items[0].How, "Reweave") || w.Minutes <= 0 {
		t.Errorf("%+v", w)
	}
	for _, d := range []struct {
		Defect
		with Filler
	}{{Defect{ID: "hole", SizeMM: 30}, TwoPart}, {Defect{ID: "hole", SizeMM: 2}, Fine}, {Defect{ID: "hole", Bends: true}, NoFiller}, {Defect{ID: "open_joint"}, NoFiller}, {Defect{ID: "nothing"}, NoFiller}} {
		if got := d.Filler(); got != d.with {
			t.Errorf("%+v is filled with %v, not %v", d.Defect, got, d.with)
		}
	}
}

func TestSays(t *testing.T) {
	w := Of([]Defect{{ID: "hole", Count: 4, SizeMM: 5}, {ID: "chip", Count: 3, SizeMM: 5}, {ID: "open_joint", Count: 1, LongCM: 12}}, warm)
	got := strings.Join(w.Says(measure.Metric), "\n")
	for _, s := range []string{
		"Two-part filler, 2 ml, one batch: 2.8 g filler with a trace of hardener. At this temperature you can work it for 8 min and sand it after 15 min.",
		"Fine filler, less than 1 ml; at this temperature dry enough to sand after about", "Wood glue, less than 1 ml; in clamps for about", "one of them", "second, smaller round",
	} {
		if !strings.Contains(got, s) {
			t.Errorf("%q is not in\n%s", s, got)
		}
	}
}

// More damage never takes less, and every kind the survey knows is mended or
// has a reason not to be.
func TestMoreTakesMore(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 7))
	for range 3000 {
		row := Rows[r.IntN(len(Rows))]
		d := Defect{ID: row.ID, Count: 1 + r.IntN(9), SizeMM: 1 + 40*r.Float64(), LongCM: 1 + 40*r.Float64()}
		e := d
		e.Count++
		a, b := Of([]Defect{d}, warm), Of([]Defect{e}, warm)
		if b.Minutes <= a.Minutes || b.TwoML+b.FineML < a.TwoML+a.FineML || b.GlueML < a.GlueML {
			t.Fatalf("%+v takes %v min, and one more %v", d, a.Minutes, b.Minutes)
		}
	}
	for _, d := range craft.Defects {
		if _, ok := RowOf(d.ID); !ok && d.ID != "knot" {
			t.Errorf("nobody says how %s is mended", d.ID)
		}
	}
	for _, row := range Rows {
		if (row.Fills == nil) != (row.Filler == NoFiller) {
			t.Errorf("%s: its filler and what it fills do not agree", row.ID)
		}
	}
}
