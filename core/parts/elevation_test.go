package parts

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"rutile/core/measure"
)

func made(t testing.TB, id string) []Part {
	t.Helper()
	tp, ok := TemplateNamed(id)
	if !ok {
		t.Fatal("no template", id)
	}
	ps, err := tp.Make(nil, nil, measure.Metric)
	if err != nil {
		t.Fatal(err)
	}
	return ps
}

// of are the boxes of a kind's shapes.
func of(ps []Part, d Drawing, k Kind) []box {
	var out []box
	for i := range d.Shapes {
		if ps[d.Shapes[i].Part].Kind == k && !d.Shapes[i].Recess {
			out = append(out, extent(d.Shapes[i:i+1]))
		}
	}
	return out
}

func TestAChestStandsAsItShould(t *testing.T) {
	ps := made(t, "chest")
	d := Elevation(ps, measure.Metric)
	if !near(d.W, 82, exact) || !near(d.H, 90, exact) {
		t.Errorf("the drawing is %v x %v cm, and the chest 82 x 90 with its top", d.W, d.H)
	}
	fronts, body, knobs := of(ps, d, DrawerFront), of(ps, d, Carcass)[0], of(ps, d, Knob)
	if len(fronts) != 3 || len(knobs) != 6 {
		t.Fatalf("%d fronts, %d knobs", len(fronts), len(knobs))
	}
	for i, f := range fronts {
		if f.x0 < body.x0 || f.x1 > body.x1 || f.y0 < body.y0 || f.y1 > body.y1 {
			t.Errorf("front %d reaches out of the carcass", i+1)
		}
		if i > 0 && f.y0 < fronts[i-1].y1 {
			t.Errorf("front %d lies over the one above", i+1)
		}
		if !near(f.x1-f.x0, 75.8, 1e-9) || !near(f.y1-f.y0, 25.1, 1e-9) {
			t.Errorf("front %d is drawn %v x %v", i+1, f.x1-f.x0, f.y1-f.y0)
		}
		on := 0
		for _, k := range knobs {
			if k.x0 > f.x0 && k.x1 < f.x1 && k.y0 > f.y0 && k.y1 < f.y1 {
				on++
			}
		}
		if on != 2 {
			t.Errorf("front %d has %d knobs", i+1, on)
		}
	}
	if top := of(ps, d, Top)[0]; top.y0 != 0 || !near(top.y1, body.y0, 1e-9) {
		t.Error("the top does not lie on the carcass")
	}
	if plinth := of(ps, d, Rail)[0]; !near(plinth.y1, d.H, 1e-9) || !near(plinth.y0, body.y1, 1e-9) {
		t.Error("the plinth does not stand below the carcass")
	}
	if len(d.Hidden) != 1 || ps[d.Hidden[0]].Kind != DrawerBox || len(d.Notes) != 0 {
		t.Errorf("hidden %v, notes %v", d.Hidden, d.Notes)
	}
}

func TestTemplatesAreDrawnWhole(t *testing.T) {
	for _, c := range []struct {
		id     string
		w, h   float64
		hidden []string
	}{
		{"chest", 82, 90, []string{"Drawer boxes"}},
		{"cupboard", 94, 180, []string{"Shelves"}},
		{"shelves", 80, 120, nil},
		{"bench", 120, 45, []string{"Short rails"}},
		{"stool", 32, 60, nil},
		{"table", 120, 75, []string{"Short aprons"}},
		{"locker", 60, 180, nil},
		{"box", 102, 50, []string{"Side handles"}},
		{"screen", 150, 170, nil},
		{"planter", 36, 38, nil},
		{"lantern", 28, 40, nil},
	} {
		ps := made(t, c.id)
		d := Elevation(ps, measure.Metric)
		if !near(d.W, c.w, 1e-9) || !near(d.H, c.h, 1e-9) || len(d.Notes) > 0 {
			t.Errorf("%s is drawn %v x %v, want %v x %v; notes %v", c.id, d.W, d.H, c.w, c.h, d.Notes)
		}
		var hidden []string
		for _, i := range d.Hidden {
			hidden = append(hidden, ps[i].Title())
		}
		if !slices.Equal(hidden, c.hidden) {
			t.Errorf("%s hides %q, want %q", c.id, hidden, c.hidden)
		}
	}
}

func TestFrontsFillTheCarcassInRows(t *testing.T) {
	read := func(s string) []Part {
		ps, err := Read(s, measure.Metric)
		if err != nil {
			t.Fatal(err)
		}
		return ps
	}
	// Two drawers side by side over two doors, on legs.
	ps := read("carcass 140x70x48; 2 drawer fronts 68x16; 2 doors 68x50; 4 legs 12x5")
	d := Elevation(ps, measure.Metric)
	dr, do := of(ps, d, DrawerFront), of(ps, d, Door)
	if len(dr) != 2 || len(do) != 2 || !near(dr[0].y0, dr[1].y0, 1e-9) || !near(do[0].y0, do[1].y0, 1e-9) || do[0].y0 < dr[0].y1 {
		t.Errorf("drawers %v, doors %v", dr, do)
	}
	if !near(d.H, 82, 1e-9) || len(of(ps, d, LegSquare)) != 2 {
		t.Errorf("%v high on %d legs that show", d.H, len(of(ps, d, LegSquare)))
	}
	// Too tall for it: said, and drawn all the same.
	ps = read("carcass 60x50x40; 4 drawer fronts 58x18")
	d = Elevation(ps, measure.Metric)
	if len(of(ps, d, DrawerFront)) != 4 || len(d.Notes) != 1 || d.Notes[0].Says != "The fronts together are 72 cm high, but the carcass is 50 cm." {
		t.Errorf("notes %v", d.Notes)
	}
	// Shelves stand in what the fronts leave open, and glass in its doors.
	ps = read("carcass 80x180x40; 2 shelves 76x35; 2 doors 39x60; 2 panes 30x50")
	d = Elevation(ps, measure.Metric)
	sh, do, pa := of(ps, d, Shelf), of(ps, d, Door), of(ps, d, Pane)
	if len(sh) != 2 || sh[0].y0 < do[0].y1 || len(pa) != 2 || pa[1].x0 < do[1].x0 || pa[1].x1 > do[1].x1 {
		t.Errorf("shelves %v below doors %v, panes %v", sh, do, pa)
	}
	// A second carcass on the first, and one beside.
	ps = read("carcass 100x80x50; 2 doors 48x78; carcass 90x90x30; carcass 40x80x50")
	ps[2].Place = Above
	d = Elevation(ps, measure.Metric)
	if c := of(ps, d, Carcass); !near(d.H, 170, 1e-9) || !near(c[1].y1, c[0].y0, 1e-9) || c[2].x0 < c[0].x1 {
		t.Errorf("carcasses at %v", c)
	}
	// What has no place stands beside.
	ps = read("carcass 100x80x50; spindle 30x2")
	d = Elevation(ps, measure.Metric)
	if s := of(ps, d, SpindleTurned); len(s) != 1 || s[0].x0 < 100 {
		t.Errorf("a loose spindle at %v", s)
	}
	// A few boards lie side by side, many in rows.
	if d = Elevation(read("4 panels 40x30"), measure.Metric); d.H > 30 {
		t.Errorf("four boards are drawn %v high", d.H)
	}
	if d = Elevation(read("12 panels 40x30; 12 panels 40x30"), measure.Metric); len(d.Shapes) != 24 || d.W > 3*d.H || d.H > d.W {
		t.Errorf("%d boards on %v by %v", len(d.Shapes), d.W, d.H)
	}
}

// Whatever parts there are, the drawing holds each that shows, at its own
// size, inside its frame.
func TestAnyPartsAreDrawn(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 11))
	for n := range 4000 {
		ps := make([]Part, r.IntN(14))
		for i := range ps {
			ps[i] = random(r)
		}
		before := slices.Clone(ps)
		d := Elevation(ps, measure.Metric)
		if !slices.Equal(before, ps) {
			t.Fatal("the parts were changed")
		}
		drawn := make([]int, len(ps))
		for i := range d.Shapes {
			s := &d.Shapes[i]
			drawn[s.Part]++
			for _, p := range s.Outline {
				if math.IsNaN(p.X+p.Y) || p.X < -1e-6 || p.Y < -1e-6 || p.X > d.W+1e-6 || p.Y > d.H+1e-6 {
					t.Fatalf("case %d: %v lies outside of %v x %v", n, p, d.W, d.H)
				}
			}
		}
		for i := range ps {
			if slices.Contains(d.Hidden, i) != (drawn[i] == 0) {
				t.Fatalf("case %d: part %d is hidden and drawn", n, i)
			}
			if drawn[i] == 0 && ps[i].Seen > 0 && ps[i].Kind != DrawerBox && !hiddenKind(ps[i].Kind) {
				t.Errorf("case %d: %s shows nowhere", n, Kinds[ps[i].Kind].ID)
			}
		}
	}
}

func hiddenKind(k Kind) bool { return k == Shelf || k == Moulding || k == Panel }

// sixty is a piece of sixty parts that are measured one by one, with several
// of most.
func sixty() []Part {
	var ps []Part
	for range 6 {
		ps = append(ps, New(Carcass, 1, 120, 180, 45), New(Top, 1, 122, 46, 2), New(DrawerFront, 2, 58, 16), New(DrawerFront, 3, 38, 16),
			New(Door, 2, 58, 60).relief(Moulded), New(Knob, 10, 3), New(LegTurned, 4, 12, 5), New(Shelf, 3, 116, 40), New(Moulding, 2, 210, 8), New(Pane, 2, 40, 40))
	}
	return ps
}

func BenchmarkElevationOfSixtyParts(b *testing.B) {
	ps := sixty()
	b.ReportAllocs()
	for b.Loop() {
		if d := Elevation(ps, measure.Metric); len(d.Shapes) < 60 {
			b.Fatal(len(d.Shapes))
		}
	}
}

func BenchmarkAreasOfSixtyParts(b *testing.B) {
	ps := sixty()
	for i := range ps {
		ps[i].Zone = i % 4
	}
	for b.Loop() {
		for z := range 4 {
			if OfZone(ps, z).M2 == 0 {
				b.Fatal("nothing")
			}
		}
	}
}
