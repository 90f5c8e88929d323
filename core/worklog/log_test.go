package worklog

import (
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/surface"
)

const (
	hour = 3600.
	day  = 24 * hour
	// mon is a Monday at eight in the morning.
	mon = 1796025600.
)

// trunk is an oiled-varnish trunk under chalk paint and clear, in an ordinary room.
func trunk(t testing.TB) (*craft.Craft, check.Zone) {
	t.Helper()
	c := craft.Default()
	z := check.Zone{Facts: surface.Facts{Gloss: craft.Satin, Moisture: -1, AgeDays: -1, Area: 2, Wear: craft.Handled, Climate: drying.Climate{TempC: 20, RH: 50}}, SoilsKnown: true, Look: craft.LookSolid, Colour: "#d3d8d8", Made: 2010, Units: measure.Metric}
	z.Substrate, _ = c.Substrate("beech")
	z.Finish, _ = c.Finish("varnish_oil")
	return c, z
}

func coat(t testing.TB, c *craft.Craft, id string, n int) surface.Step {
	t.Helper()
	p, ok := c.Product(id)
	if !ok {
		t.Fatalf("no product %s", id)
	}
	return surface.Step{Do: surface.Coat, Product: p, Coats: n, Auto: true, Method: "brush"}
}

// plan is what the trunk is to get: clean, sand, dust, two of paint, a day, two of clear.
func plan(t testing.TB, c *craft.Craft) []surface.Step {
	cl, _ := c.Cleaner("detergent")
	return []surface.Step{
		{Do: surface.Clean, Cleaner: cl, Rinse: true},
		{Do: surface.Abrade, Grit: 220, How: craft.Hand},
		{Do: surface.Dust},
		coat(t, c, "paint_chalk", 2),
		{Do: surface.Wait, Hours: 24},
		coat(t, c, "clear_wb", 2),
	}
}

// did is an entry of a step of a plan, done as planned.
func did(id string, at float64, steps []surface.Step, n, coat int) Entry {
	s := steps[n-1]
	return Entry{ID: id, Kind: Did, At: at, Written: at, Step: s, Plan: n, Coat: coat, Minutes: -1}
}

func judged(t testing.TB, c *craft.Craft, z check.Zone, steps []surface.Step, log []Entry, now float64, read ...Reading) (Work, check.Result, Due) {
	t.Helper()
	log, _ = Settle(log)
	w := Of(c, &z.Facts, steps, log, 0, now)
	z.Course, z.Now, z.Steps = w.Course(log, read), w.Now, w.Steps
	r := check.Check(c, &z, check.Options{NoRepairs: true})
	return w, r, DueOf(c, &r, &w)
}

func near(t testing.TB, what string, got, want, by float64) {
	t.Helper()
	if math.IsNaN(got) || math.Abs(got-want) > by {
		t.Errorf("%s: %.3f, want %.3f", what, got, want)
	}
}

func TestDoneThenPlanned(t *testing.T) {
	c, z := trunk(t)
	p := plan(t, c)
	log := []Entry{did("a", mon, p, 1, 0), did("b", mon+4*hour, p, 2, 0), did("c", mon+4.2*hour, p, 3, 0), did("d", mon+5*hour, p, 4, 1)}
	w, r, d := judged(t, c, z, p, log, mon+6*hour)
	if !w.Begun || w.Done != 4 || w.Past != 3 || w.Laid != 1 || len(w.Steps) != 6 || w.Steps[3].NumDone() != 1 || w.Steps[3].NumCoats() != 2 {
		t.Fatalf("%+v", w)
	}
	if !slices.Equal(w.Plan, []int{1, 2, 3, 4, 5, 6}) || len(w.Open) != 0 {
		t.Errorf("steps of the plan %v, open %v", w.Plan, w.Open)
	}
	// The first coat of chalk was finished at 13:00 and may be painted over after its label's time.
	from := c.Products[p[3].Product].Recoat.From
	near(t, "the second coat from", d.From, mon+5*hour+from*hour, 1)
	if d.Step != 4 || d.Coat != 2 || d.State != Waiting && from > 1 {
		t.Errorf("%+v", d)
	}
	if r.Verdict == check.Fails {
		t.Errorf("%v", r.Findings)
	}
	// A day later it is ready, and begins now.
	_, _, d = judged(t, c, z, p, log, mon+30*hour)
	near(t, "now", d.From, mon+30*hour, 1)
	if d.State != Ready {
		t.Errorf("%+v", d)
	}
}

// A planned day counts from the coat, and not from when somebody looks.
func TestAPlannedWaitGoesOn(t *testing.T) {
	c, z := trunk(t)
	p := plan(t, c)
	log := []Entry{did("a", mon, p, 1, 0), did("b", mon+4*hour, p, 2, 0), did("c", mon+4.2*hour, p, 3, 0), did("d", mon+5*hour, p, 4, 1), did("e", mon+8*hour, p, 4, 2)}
	for _, x := range []struct{ now, from float64 }{{9, 32}, {20, 32}, {40, 40}} {
		_, _, d := judged(t, c, z, p, log, mon+x.now*hour)
		if d.Step != 6 {
			t.Fatalf("%+v", d)
		}
		near(t, "the clear", d.From, mon+x.from*hour, 60)
	}
}

// What is due in colder air than planned is due later, from the hours that were cold.
func TestTheAirAsItWas(t *testing.T) {
	c, z := trunk(t)
	p := plan(t, c)
	log := []Entry{did("a", mon, p, 1, 0), did("b", mon+4*hour, p, 2, 0), did("c", mon+4.2*hour, p, 3, 0), did("d", mon+5*hour, p, 4, 1)}
	_, _, warm := judged(t, c, z, p, log, mon+5.1*hour)
	cold := drying.Climate{TempC: 8, RH: 50}
	log[3].Air = &cold
	_, _, slow := judged(t, c, z, p, log, mon+5.1*hour)
	row := &c.Products[p[3].Product]
	need := drying.Earliest(row.Recoat.From, row, cold)
	near(t, "in the cold", slow.From-(mon+5*hour), need*hour, 5)
	if slow.From <= warm.From {
		t.Errorf("no later in the cold: %v, %v", slow.From, warm.From)
	}
	// Warm again after an hour: in between.
	_, _, between := judged(t, c, z, p, log, mon+6.1*hour, Reading{mon + 6*hour, drying.Climate{TempC: 20, RH: 50}})
	if !(between.From > warm.From && between.From < slow.From) {
		t.Errorf("%v is not between %v and %v", between.From, warm.From, slow.From)
	}
}

func TestACoatLaidTooSoon(t *testing.T) {
	c, z := trunk(t)
	p := plan(t, c)
	log := []Entry{did("a", mon, p, 1, 0), did("b", mon+4*hour, p, 2, 0), did("c", mon+4.2*hour, p, 3, 0), did("d", mon+5*hour, p, 4, 1), did("e", mon+5.3*hour, p, 4, 2)}
	log[4].Minutes = 10
	_, r, _ := judged(t, c, z, p, log, mon+6*hour)
	if !slices.ContainsFunc(r.Findings, func(f check.Finding) bool { return f.Code == "adhesion.too_soon" && f.Step == 4 }) {
		t.Errorf("nobody says that the second coat came too soon: %v", codes(r))
	}
	// The same planned is no fault: it would wait.
	_, r, _ = judged(t, c, z, p, log[:4], mon+6*hour)
	if slices.ContainsFunc(r.Findings, func(f check.Finding) bool { return f.Code == "adhesion.too_soon" }) {
		t.Error("a plan that waits is told that it does not")
	}
}

func codes(r check.Result) (out []string) {
	for _, f := range r.Findings {
		out = append(out, f.Code)
	}
	return out
}

// Thick coats take longer, by the film to the power of 1.3.
func TestThickCoatsTakeLonger(t *testing.T) {
	c, z := trunk(t)
	p := plan(t, c)
	log := []Entry{did("a", mon, p, 1, 0), did("b", mon+4*hour, p, 2, 0), did("c", mon+4.2*hour, p, 3, 0), did("d", mon+5*hour, p, 4, 1)}
	log[3].Thick = 1.5
	w, r, d := judged(t, c, z, p, log, mon+5.1*hour)
	near(t, "thick", d.From-(mon+5*hour), c.Products[p[3].Product].Recoat.From*math.Pow(1.5, 1.3)*hour, 2)
	usual := c.Products[p[3].Product].Film
	if got := r.Trace.Events[3].After.Regions[0].Film; math.Abs(got-1.5*usual) > 1e-9 {
		t.Errorf("film %v", got)
	}
	if w.Steps[3].NumDone() != 1 {
		t.Error("the thick coat is not that of its step")
	}
}

func TestWhatWasDoneOtherwise(t *testing.T) {
	c, z := trunk(t)
	p := plan(t, c)
	enamel := coat(t, c, "paint_enamel_wb", 1)
	base := []Entry{did("a", mon, p, 1, 0), did("b", mon+4*hour, p, 2, 0), did("c", mon+4.2*hour, p, 3, 0)}
	other := did("d", mon+5*hour, p, 4, 1)
	was := p[3]
	other.Planned, other.Step = &was, enamel
	w, _, d := judged(t, c, z, p, append(slices.Clone(base), other), mon+40*hour)
	if w.Done != 4 || !c.SameKind(w.Steps[3].Product, enamel.Product) || w.Steps[3].NumCoats() != 1 || w.Steps[4].NumCoats() != 1 || !c.SameKind(w.Steps[4].Product, p[3].Product) {
		t.Errorf("another paint in place of the first coat: %+v", w)
	}
	if d.Step != 5 {
		t.Errorf("%+v", d)
	}
	// Never planned: it lies between, and the plan goes on where it was.
	extra := Entry{ID: "x", Kind: Did, At: mon + 4.5*hour, Written: mon, Step: coat(t, c, "primer_bond_wb", 1), Minutes: -1}
	w, _, d = judged(t, c, z, p, append(slices.Clone(base), extra), mon+40*hour)
	if w.Done != 4 || w.Plan[3] != 0 || w.Past != 3 || d.Step != 5 || w.Plan[4] != 4 {
		t.Errorf("a primer that nobody planned: %+v", w)
	}
	// Skipped: it is behind, and the walk does not have it.
	skip := Entry{ID: "s", Kind: Skipped, At: mon + 4*hour, Written: mon, Step: p[1], Plan: 2}
	w, r, _ := judged(t, c, z, p, []Entry{base[0], skip, did("d", mon+5*hour, p, 4, 1)}, mon+6*hour)
	if w.Done != 2 || w.Past != 3 || !slices.Equal(w.Open, []int{3}) {
		t.Errorf("sanding skipped, dusting not said: %+v", w)
	}
	if !slices.ContainsFunc(r.Findings, func(f check.Finding) bool { return strings.HasPrefix(f.Code, "adhesion") }) {
		t.Errorf("nothing is said of varnish that was never scuffed: %v", codes(r))
	}
	// One coat more than planned.
	w, _, d = judged(t, c, z, p, append(slices.Clone(base), did("1", mon+5*hour, p, 4, 1), did("2", mon+8*hour, p, 4, 2), did("3", mon+12*hour, p, 4, 3)), mon+13*hour)
	if w.Steps[3].NumDone() != 3 || w.Steps[3].NumCoats() != 3 || w.Past != 4 || d.Step != 6 {
		t.Errorf("a third coat: %+v", w)
	}
}

// The plan is changed while the work goes on: what was done stays done.
func TestThePlanIsEdited(t *testing.T) {
	c, z := trunk(t)
	p := plan(t, c)
	log := []Entry{did("a", mon, p, 1, 0), did("b", mon+4*hour, p, 2, 0), did("c", mon+4.2*hour, p, 3, 0), did("d", mon+5*hour, p, 4, 1)}
	for _, x := range []struct {
		name   string
		change func(p []surface.Step) []surface.Step
		past   int
		laid   int
		done   int
		rest   int // steps
	}{
		{"as it was", func(p []surface.Step) []surface.Step { return p }, 3, 1, 4, 6},
		{"three coats instead of two", func(p []surface.Step) []surface.Step { p[3].Coats = 3; return p }, 3, 1, 4, 6},
		{"one coat instead of two", func(p []surface.Step) []surface.Step { p[3].Coats = 1; return p }, 4, 0, 4, 6},
		{"a finer grit for what was sanded", func(p []surface.Step) []surface.Step { p[1].Grit = 320; return p }, 3, 1, 4, 6},
		{"a step more at the beginning", func(p []surface.Step) []surface.Step {
			return slices.Insert(p, 0, surface.Step{Do: surface.Remove, What: "handles"})
		}, 4, 1, 4, 6},
		{"what was done is removed", func(p []surface.Step) []surface.Step { return p[4:] }, 0, 0, 4, 6},
		{"everything is removed", func(p []surface.Step) []surface.Step { return nil }, 0, 0, 4, 4},
	} {
		w, _, _ := judged(t, c, z, x.change(slices.Clone(p)), log, mon+6*hour)
		if w.Past != x.past || w.Laid != x.laid || w.Done != x.done || len(w.Steps) != x.rest {
			t.Errorf("%s: past %d laid %d done %d of %d; %+v", x.name, w.Past, w.Laid, w.Done, len(w.Steps), w.Plan)
		}
	}
}

func TestCorrections(t *testing.T) {
	c, z := trunk(t)
	p := plan(t, c)
	a, b := did("a", mon, p, 1, 0), did("b", mon+4*hour, p, 2, 0)
	fix := func(id, of string, at, written float64) Entry {
		e := did(id, at, p, 2, 0)
		e.Corrects, e.Written = of, written
		return e
	}
	void := Entry{ID: "v", Corrects: "b", Void: true, Written: mon + 9*hour, Kind: Did}
	for _, x := range []struct {
		name string
		log  []Entry
		at   float64 // of b; 0 where it is gone
		lost int
	}{
		{"none", []Entry{a, b}, mon + 4*hour, 0},
		{"one", []Entry{a, b, fix("c", "b", mon+3*hour, mon+5*hour)}, mon + 3*hour, 0},
		{"two of one entry: the later holds", []Entry{a, b, fix("c", "b", mon+3*hour, mon+6*hour), fix("d", "b", mon+2*hour, mon+5*hour)}, mon + 3*hour, 0},
		{"a correction of a correction, written by a clock that is behind", []Entry{a, b, fix("c", "b", mon+3*hour, mon+6*hour), fix("d", "c", mon+1*hour, mon+5*hour)}, mon + 1*hour, 0},
		{"taken back", []Entry{a, b, void}, 0, 0},
		{"taken back, and put back again", []Entry{a, b, void, fix("w", "v", mon+4*hour, mon+10*hour)}, mon + 4*hour, 0},
		{"of something that is not there", []Entry{a, b, fix("c", "nowhere", mon, mon)}, mon + 4*hour, 1},
		{"of each other", []Entry{a, b, fix("c", "d", mon, mon), fix("d", "c", mon, mon)}, mon + 4*hour, 0},
		{"of itself", []Entry{a, b, fix("c", "c", mon, mon)}, mon + 4*hour, 0},
	} {
		for range 4 {
			rand.Shuffle(len(x.log), func(i, j int) { x.log[i], x.log[j] = x.log[j], x.log[i] })
			out, lost := Settle(x.log)
			at := 0.
			for _, e := range out {
				if e.Plan == 2 {
					at = e.At
				}
			}
			if at != x.at || len(lost) != x.lost {
				t.Errorf("%s: at %v, lost %v", x.name, at-mon, lost)
			}
		}
	}
	w, _, _ := judged(t, c, z, p, []Entry{a, b, void}, mon+10*hour)
	if w.Done != 1 || w.Past != 1 {
		t.Errorf("taken back: %+v", w)
	}
}

func TestStartAndDone(t *testing.T) {
	c, z := trunk(t)
	p := plan(t, c)
	began := Entry{ID: "s", Kind: Began, At: mon, Written: mon, Step: p[0], Plan: 1}
	w, _, d := judged(t, c, z, p, []Entry{began}, mon+.2*hour)
	if w.Working < 0 || d.State != Working || w.Done != 0 {
		t.Errorf("begun: %+v %+v", w, d)
	}
	w, r, _ := judged(t, c, z, p, []Entry{began, did("d", mon+.5*hour, p, 1, 0)}, mon+hour)
	if w.Working >= 0 || math.Abs(r.Trace.Events[0].After.Minutes-30) > 1e-9 {
		t.Errorf("half an hour: %+v, %v min", w, r.Trace.Events[0].After.Minutes)
	}
	// Nobody washes a trunk for a night: the usual time counts.
	_, r, _ = judged(t, c, z, p, []Entry{began, did("d", mon+15*hour, p, 1, 0)}, mon+16*hour)
	near(t, "a forgotten start", r.Trace.Events[0].After.Minutes, z.Facts.Minutes(c, &p[0]), 1e-9)
}

func TestHandedOver(t *testing.T) {
	c, z := trunk(t)
	p := plan(t, c)
	log := []Entry{did("a", mon, p, 1, 0), {ID: "f", Kind: Finished, At: mon + day, Written: mon + day, Zone: -1}, {ID: "g", Kind: Finished, At: mon + 3*day, Written: mon + 3*day, Zone: -1}}
	w, _, d := judged(t, c, z, p, log, mon+30*day)
	if !w.Finished || len(w.Steps) != 1 || d.State != Hardening {
		t.Errorf("%+v %+v", w, d)
	}
	near(t, "it stands still from then on", w.Now, 24+z.Facts.Minutes(c, &p[0])/60, .01)
}

// Shellac that is to be painted over while it is tacky.
func TestATackyWindow(t *testing.T) {
	c, z := trunk(t)
	z.Look = "chippy"
	shellac := coat(t, c, "shellac_clear", 1)
	shellac.Auto, shellac.WaitH, shellac.Scope = false, check.HalfTack(c, z.Climate, shellac.Product), surface.Spots
	p := append(plan(t, c)[:3], shellac, coat(t, c, "paint_milk", 2))
	log := []Entry{did("a", mon, p, 1, 0), did("b", mon+4*hour, p, 2, 0), did("c", mon+4.2*hour, p, 3, 0), did("d", mon+5*hour, p, 4, 1)}
	tacky := check.TackyFor(c, z.Climate, shellac.Product)
	_, _, d := judged(t, c, z, p, log, mon+5*hour+60)
	near(t, "tacky until", d.To, mon+5*hour+tacky*hour, 1)
	if d.Window.Why != check.OpenTack {
		t.Errorf("%+v", d)
	}
	if _, _, d = judged(t, c, z, p, log, mon+5*hour+.9*tacky*hour); d.State != Closing {
		t.Errorf("near its end: %+v", d)
	}
	if _, _, d = judged(t, c, z, p, log, mon+5*hour+1.2*tacky*hour); d.State != Missed {
		t.Errorf("after it: %+v", d)
	}
}

// An epoxy primer that was left too long: missed, until a scuff is planned.
func TestAMissedWindow(t *testing.T) {
	c, z := trunk(t)
	z.Substrate, _ = c.Substrate("steel")
	z.Finish, _ = c.Finish("none")
	p := append(plan(t, c)[:3], coat(t, c, "primer_epoxy", 1), coat(t, c, "paint_enamel_oil", 1))
	to := c.Products[p[3].Product].Recoat.To
	log := []Entry{did("a", mon, p, 1, 0), did("b", mon+4*hour, p, 2, 0), did("c", mon+4.2*hour, p, 3, 0), did("d", mon+5*hour, p, 4, 1)}
	_, r, d := judged(t, c, z, p, log, mon+5*hour+1.3*to*hour+40*day)
	if d.State != Missed || !slices.Contains(codes(r), "adhesion.missed_window") {
		t.Errorf("%+v %v", d, codes(r))
	}
	p = slices.Insert(p, 4, surface.Step{Do: surface.Abrade, Grit: 220, How: craft.Hand}, surface.Step{Do: surface.Dust})
	_, r, d = judged(t, c, z, p, log, mon+5*hour+1.3*to*hour+40*day)
	if d.State == Missed || slices.Contains(codes(r), "adhesion.missed_window") || d.Step != 5 {
		t.Errorf("with a scuff: %+v %v", d, codes(r))
	}
}

// The order in which entries arrive changes nothing.
func TestAnyOrder(t *testing.T) {
	c, z := trunk(t)
	p := plan(t, c)
	log := []Entry{did("a", mon, p, 1, 0), did("b", mon+4*hour, p, 2, 0), did("c", mon+4.2*hour, p, 3, 0), did("d", mon+5*hour, p, 4, 1), did("e", mon+8*hour, p, 4, 2)}
	want, _, _ := judged(t, c, z, p, log, mon+9*hour)
	for range 20 {
		rand.Shuffle(len(log), func(i, j int) { log[i], log[j] = log[j], log[i] })
		got, _, _ := judged(t, c, z, p, log, mon+9*hour)
		if got.Done != want.Done || got.Past != want.Past || !slices.Equal(got.Plan, want.Plan) || (*got.Steps[3].Done)[1] != (*want.Steps[3].Done)[1] {
			t.Fatalf("%+v instead of %+v", got, want)
		}
	}
}

// Whatever is logged, in whatever order, however the plan was changed: what was done is walked once, the rest of the plan
// follows, nothing is begun before now, and no fix changes what was done.
func TestAnyLog(t *testing.T) {
	c, z := trunk(t)
	times := 400
	if testing.Short() {
		times = 80
	}
	for seed := range times {
		r := rand.New(rand.NewPCG(uint64(seed), 11))
		p := plan(t, c)
		var log []Entry
		for i := range r.IntN(14) {
			n := 1 + r.IntN(len(p))
			if p[n-1].Do == surface.Wait {
				continue
			}
			e := did(string(rune('a'+i)), mon+r.Float64()*200*hour, p, n, 0)
			if p[n-1].Do == surface.Coat {
				e.Coat = 1 + r.IntN(3)
			}
			switch r.IntN(9) {
			case 0:
				e.Kind = Skipped
			case 1:
				e.Kind = Began
			case 2:
				e.Plan, e.Coat = 0, 0
			case 3:
				e.Thick = .5 + 2*r.Float64()
			case 4:
				e.Air = &drying.Climate{TempC: r.Float64()*40 - 5, RH: r.Float64() * 100}
			case 5:
				if len(log) > 0 {
					e.Corrects = log[r.IntN(len(log))].ID
				}
			case 6:
				was := e.Step
				e.Planned, e.Step = &was, coat(t, c, []string{"shellac_clear", "primer_bond_wb", "wax_clear", "paint_enamel_oil"}[r.IntN(4)], 1)
			case 7:
				e.Step = surface.Step{Do: surface.Strip, StripHow: string(craft.StripSand)}
				e.Plan = 0
			}
			log = append(log, e)
		}
		switch r.IntN(4) {
		case 0:
			p = p[r.IntN(len(p)):]
		case 1:
			p = slices.Insert(p, r.IntN(len(p)), coat(t, c, "primer_bond_wb", 1))
		case 2:
			rand.Shuffle(len(p), func(i, j int) { p[i], p[j] = p[j], p[i] })
		}
		settled, _ := Settle(log)
		now := mon + r.Float64()*400*hour
		w := Of(c, &z.Facts, p, settled, 0, now)
		did := 0
		for i := range settled {
			if settled[i].Kind == Did {
				did++
			}
		}
		walked := 0
		for k := range w.Steps {
			if n := w.Steps[k].NumDone(); (n > 0) != (k < w.Done) {
				t.Fatalf("%d: step %d is done %d times, %d steps are done", seed, k+1, n, w.Done)
			} else {
				walked += n
			}
		}
		if walked != did || len(w.Plan) != len(w.Steps) || w.Past > len(p) {
			t.Fatalf("%d: %d were done, %d are walked; %+v", seed, did, walked, w)
		}
		y := z
		y.Course, y.Now, y.Steps = w.Course(settled, nil), w.Now, w.Steps
		res := check.Check(c, &y, check.Options{Budget: 3000})
		for i := range res.Trace.Events {
			if e := &res.Trace.Events[i]; e.Done == nil && e.Doing.Do != surface.Wait && e.Begun < w.Now-1e-6 {
				t.Fatalf("%d: step %d is to be begun before now", seed, e.Step)
			}
		}
		for _, f := range res.Findings {
			for _, x := range f.Repairs {
				if x.Kind != check.Edit {
					continue
				}
				n := 0
				for k := range x.Steps {
					if d := x.Steps[k].NumDone(); d > 0 {
						if k >= w.Done || d != w.Steps[k].NumDone() {
							t.Fatalf("%d: %s: %q changes what was done", seed, f.Code, x.Title)
						}
						n += d
					}
				}
				if n != did {
					t.Fatalf("%d: %s: %q keeps %d of %d", seed, f.Code, x.Title, n, did)
				}
			}
		}
		DueOf(c, &res, &w)
	}
}

// BenchmarkWalk walks a plan, and the same half of it done.
func BenchmarkWalk(b *testing.B) {
	c, z := trunk(b)
	p := plan(b, c)
	log := []Entry{did("a", mon, p, 1, 0), did("b", mon+4*hour, p, 2, 0), did("c", mon+4.2*hour, p, 3, 0), did("d", mon+5*hour, p, 4, 1)}
	air := drying.Climate{TempC: 15, RH: 60}
	for i := range log {
		log[i].Air = &air
	}
	b.Run("planned", func(b *testing.B) {
		var t surface.Trace
		for b.Loop() {
			t.Walk(c, &z.Facts, p)
		}
	})
	b.Run("logged", func(b *testing.B) {
		w := Of(c, &z.Facts, p, log, 0, mon+6*hour)
		f := z.Facts
		f.Course, f.Now = w.Course(log, nil), w.Now
		var t surface.Trace
		for b.Loop() {
			t.Walk(c, &f, w.Steps)
		}
	})
	b.Run("joined", func(b *testing.B) {
		for b.Loop() {
			w := Of(c, &z.Facts, p, log, 0, mon+6*hour)
			w.Course(log, nil)
		}
	})
}

// Coats that turned out badly: the check offers to take them off, and once they are off they no longer count.
func TestTakenOffAndLaidAgain(t *testing.T) {
	c, z := trunk(t)
	z.Gloss = craft.Gloss
	p := plan(t, c)
	cold := drying.Climate{TempC: 6, RH: 85}
	log := []Entry{did("a", mon, p, 1, 0), did("d", mon+4*hour, p, 4, 1), did("e", mon+4.5*hour, p, 4, 2)}
	log[1].Air, log[1].Thick, log[2].Minutes = &cold, 2, 10
	settled, _ := Settle(log)
	now := mon + 30*hour
	w := Of(c, &z.Facts, p, settled, 0, now)
	z.Course, z.Now, z.Steps = w.Course(settled, nil), w.Now, w.Steps
	r := check.Check(c, &z, check.Options{})
	if r.Verdict != check.Fails {
		t.Fatalf("unsanded gloss, cold, thick and too soon is %s", r.Verdict)
	}
	var again []surface.Step
	for _, f := range r.Findings {
		for _, x := range f.Repairs {
			if x.Kind == check.Edit && strings.HasPrefix(x.Title, "Take it all off") {
				again = x.Steps
			}
			if x.Kind == check.Edit && (len(x.Steps) < w.Done || x.Steps[0].Done == nil || x.Steps[1].NumDone() != 2) {
				t.Errorf("%s: %q changes what was done", f.Code, x.Title)
			}
		}
	}
	if again == nil {
		t.Fatalf("nothing says how to put it right: %v", codes(r))
	}
	z.Steps = again
	if r = check.Check(c, &z, check.Options{NoRepairs: true}); r.Verdict == check.Fails {
		t.Errorf("put right as planned it still fails: %v", codes(r))
	}
	// It is done: stripped, dusted and primed.
	log = append(log, Entry{ID: "s", Kind: Did, At: mon + 50*hour, Written: mon + 50*hour, Step: surface.Step{Do: surface.Strip, StripHow: string(craft.StripSand)}, Minutes: 90},
		Entry{ID: "u", Kind: Did, At: mon + 50.5*hour, Written: mon + 50.5*hour, Step: surface.Step{Do: surface.Dust}, Minutes: 5},
		Entry{ID: "v", Kind: Did, At: mon + 51*hour, Written: mon + 51*hour, Step: coat(t, c, "primer_bond_wb", 1), Minutes: 20})
	z.Course, z.Now, z.Steps = nil, 0, nil
	_, r, _ = judged(t, c, z, p, log, mon+80*hour)
	if r.Verdict == check.Fails {
		t.Errorf("what is gone still counts: %v", codes(r))
	}
	if slices.ContainsFunc(r.Findings, func(f check.Finding) bool { return f.Code == "walk.undone" }) {
		t.Error("it is called a waste")
	}
}
