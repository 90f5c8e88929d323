package parts

import (
	"errors"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"rutile/core/measure"
)

const exact = 1e-12

func near(a, b, by float64) bool { return math.Abs(a-b) <= by*max(1, math.Abs(b)) }

func all(k Kind) Faces { return 1<<len(Kinds[k].Faces) - 1 }

// Every face of every kind, in square centimetres as one works it out with a
// pencil.
func TestFaces(t *testing.T) {
	for _, c := range []struct {
		kind Kind
		cm   []float64
		want map[string]float64
	}{
		{Carcass, []float64{80, 60, 40, 2}, map[string]float64{
			"sides": 4800, "edges": 80*60 - 76*56, "front": 4800, "back": 4800, "top": 3200, "under": 3200, "inside": 76*56 + 2*56*40 + 2*76*40}},
		{Top, []float64{90, 45, 2}, map[string]float64{"upper": 4050, "edges": 540, "under": 4050}},
		{RoundTop, []float64{30, 3}, map[string]float64{"upper": 706.8583470577034, "edges": 282.74333882308139, "under": 706.8583470577034}},
		{Panel, []float64{50, 100, 2}, map[string]float64{"front": 5000, "back": 5000, "edges": 600}},
		{Shelf, []float64{80, 25, 2}, map[string]float64{"upper": 2000, "under": 2000, "edge": 160, "ends": 260}},
		{Door, []float64{40, 70, 2}, map[string]float64{"front": 2800, "edges": 440, "back": 2800}},
		{DrawerFront, []float64{80, 18, 2}, map[string]float64{"front": 1440, "edges": 392, "back": 1440}},
		{DrawerBox, []float64{70, 40, 15, 1}, map[string]float64{"outside": 3300, "rims": 2800 - 68*38, "inside": 2*(68+38)*15 + 68*38, "under": 2800}},
		{Rail, []float64{70, 8, 2}, map[string]float64{"front": 560, "edges": 280, "back": 560}},
		{Moulding, []float64{240, 6}, map[string]float64{"face": 1440}},
		{LegSquare, []float64{45, 5}, map[string]float64{"sides": 900}},
		{LegSquare, []float64{45, 6, 4}, map[string]float64{"sides": 900}},
		{SpindleSquare, []float64{50, 2}, map[string]float64{"sides": 400}},
		{Frame, []float64{50, 160, 5, 2}, map[string]float64{"front": 8000 - 40*150, "outer": 840, "inner": 760, "back": 2000}},
		{Pane, []float64{30, 40}, map[string]float64{"front": 1200, "back": 1200}},
		{Cylinder, []float64{20, 50}, map[string]float64{
			"side": 3141.5926535897931, "top": 314.15926535897931, "under": 314.15926535897931, "inside": 3455.7519189487725}},
		{Pad, []float64{40, 40, 5}, map[string]float64{"upper": 1600, "edges": 800, "under": 1600}},
		{Handle, []float64{10, 1}, map[string]float64{"round": 39.269908169872416}},
		{Knob, []float64{3}, map[string]float64{"round": 28.274333882308138}},
	} {
		p := New(c.kind, 1, c.cm...)
		if err := p.Check(); err != nil {
			t.Errorf("%s: %v", Kinds[c.kind].ID, err)
		}
		if len(c.want) != len(Kinds[c.kind].Faces) {
			t.Errorf("%s has %d faces, and %d were worked out", Kinds[c.kind].ID, len(Kinds[c.kind].Faces), len(c.want))
		}
		for _, f := range Kinds[c.kind].Faces {
			if got := f.Area(&p.Size); !near(got, c.want[f.ID], exact) {
				t.Errorf("%s %v, %s: %.12g cm², by hand %.12g", Kinds[c.kind].ID, c.cm, f.ID, got, c.want[f.ID])
			}
		}
	}
}

// revolve adds up thin bands of a turned solid; it knows nothing of cones.
func revolve(radius func(y float64) float64, from, to float64) float64 {
	const n = 20000
	sum, dy := 0., (to-from)/n
	for i := range n {
		a, b := radius(from+float64(i)*dy), radius(from+float64(i+1)*dy)
		sum += math.Pi * (a + b) * math.Hypot(dy, a-b)
	}
	return sum
}

func TestRoundThings(t *testing.T) {
	taper := func(top, base, h float64) func(float64) float64 {
		return func(y float64) float64 { return (base + (top-base)*y/h) / 2 }
	}
	for _, s := range [][3]float64{{36, 26, 34}, {20, 20, 30}, {10, 40, 8}, {30, 5, 4}} {
		p := New(Pot, 1, s[:]...)
		r := taper(s[0], s[1], s[2])
		side := Kinds[Pot].Faces[0].Area(&p.Size)
		if want := revolve(r, 0, s[2]); !near(side, want, 1e-6) {
			t.Errorf("the side of pot %v is %v, by thin bands %v", s, side, want)
		}
		if closed := math.Pi * (s[0]/2 + s[1]/2) * math.Sqrt((s[0]/2-s[1]/2)*(s[0]/2-s[1]/2)+s[2]*s[2]); !near(side, closed, .01) {
			t.Errorf("the side of pot %v is %v, by the closed formula %v", s, side, closed)
		}
		low := max(0, s[2]-5)
		if got, want := insideRim(&p.Size), revolve(r, low, s[2]); !near(got, want, 1e-6) {
			t.Errorf("inside the rim of pot %v is %v, by thin bands %v", s, got, want)
		}
		whole := Kinds[Pot].Faces[3].Area(&p.Size) + insideRim(&p.Size)
		if want := revolve(r, 0, s[2]) + math.Pi*s[1]*s[1]/4; !near(whole, want, 1e-6) {
			t.Errorf("the inside of pot %v is %v, by thin bands %v", s, whole, want)
		}
	}
	for _, k := range []Kind{LegTurned, SpindleTurned} {
		p := New(k, 1, 70, 6)
		if got, want := Kinds[k].Faces[0].Area(&p.Size), math.Pi*6*70*1.25; !near(got, want, .01) {
			t.Errorf("%s: %v cm², cylinder x 1.25 is %v", Kinds[k].ID, got, want)
		}
		p = New(k, 1, 70, 6, 3)
		if got, want := Kinds[k].Faces[0].Area(&p.Size), 1.25*revolve(taper(6, 3, 70), 0, 70); !near(got, want, .01) {
			t.Errorf("%s, tapered: %v cm², by thin bands %v", Kinds[k].ID, got, want)
		}
	}
}

// The templates at their usual sizes, each part worked out by hand, in square
// centimetres.
func TestTemplates(t *testing.T) {
	pi := math.Pi
	want := map[string]map[string]float64{
		// 80 x 90 x 45: top 82 x 46 x 2; carcass 80 x 80 x 45 of 1.8; fronts
		// 75.8 x 25.1 x 1.8.
		"chest": {
			"Top":           82*46 + 2*(82+46)*2,
			"Carcass":       2*80*45 + (80*80 - 76.4*76.4),
			"Drawer fronts": 3 * (75.8*25.1 + 2*(75.8+25.1)*1.8),
			"Drawer boxes":  0,
			"Knobs":         0, // hardware comes off
			"Plinth":        80 * 8,
		},
		// 90 x 180 x 40: cap 94 x 42 x 2; carcass 90 x 168 x 40; doors 44.7 x
		// 167.7 x 2.
		"cupboard": {
			"Cap":     94*42 + 2*(94+42)*2,
			"Carcass": 2*168*40 + (90*168 - 86.4*164.4),
			"Doors":   2 * (44.7*167.7 + 2*(44.7+167.7)*2),
			"Cornice": 170 * 8,
			"Shelves": 3 * (86.4*37*2 + 86.4*1.8),
			"Knobs":   0,
			"Plinth":  900,
		},
		"shelves": {
			"Carcass": 2*120*30 + (80*120 - 76.4*116.4) + 80*30 + (76.4*116.4 + 2*116.4*30 + 2*76.4*30),
			"Shelves": 3 * (76.4*30*2 + 76.4*1.8),
		},
		// 120 x 45 x 35: legs 42 x 6 x 6.
		"bench": {
			"Seat": 120*35 + 2*(120+35)*3, "Square legs": 4 * 4 * 6 * 42,
			"Long rails": 2 * (102*8 + 2*102*2), "Short rails": 2 * (21*8 + 2*21*2), "Stretcher": 102*5 + 2*102*2,
		},
		"stool": {
			"Seat": pi*256 + pi*32*3, "Turned legs": 4 * pi * 4 * 57 * 1.25, "Stretchers": 4 * pi * 2 * 24 * 1.25,
		},
		"table": {
			"Table top": 120*70 + 2*(120+70)*2.5, "Turned legs": 4 * pi * 6 * 72.5 * 1.25,
			"Long aprons": 2 * (100*10 + 2*100*2), "Short aprons": 2 * (50*10 + 2*50*2),
		},
		"locker": {
			"Carcass": 2*180*50 + (60*180 - 59.8*179.8) + 60*50,
			"Doors":   2 * (29.7*176 + 2*(29.7+176)*1.6), "Handles": 0,
		},
		"box": {
			"Lid": 102*52 + 2*(102+52)*3, "Body": 2*47*50 + 2*100*47, "Side handles": 0,
		},
		// Wings 50 x 164 of members 5 x 2.
		"screen": {
			"Frames": 3 * (2*(50*164-40*154) + 2*(50+164)*2 + 2*(40+154)*2), "Infills": 3 * 2 * 40 * 154, "Feet": 6 * 4 * 4 * 6,
		},
		"planter": {
			"Tapered pot": pi*31*math.Sqrt(25+34*34) + pi*(36+36-10*5./34)/2*5*math.Sqrt(25+34*34)/34,
			"Saucers":     pi*32*4 + pi*256,
		},
		// 24 x 40: sides 24 x 25 of members 2 x 1.5; panes 20 x 21.
		"lantern": {
			"Sides": 4 * ((24*25 - 20*21) + 2*(24+25)*1.5 + 2*(20+21)*1.5), "Panes": 4 * 20 * 21,
			"Base": 28*28 + 2*56*2, "Roof": pi * 16 * math.Hypot(10, 8), "Ring": pi * .8 * 5 * 1.25,
		},
	}
	for i := range Templates {
		tp := &Templates[i]
		ps, err := tp.Make(nil, nil, measure.Metric)
		if err != nil {
			t.Errorf("%s: %v", tp.ID, err)
			continue
		}
		if len(ps) != len(want[tp.ID]) {
			t.Errorf("%s has %d parts, and %d were worked out", tp.ID, len(ps), len(want[tp.ID]))
		}
		for j := range ps {
			w, ok := want[tp.ID][ps[j].Title()]
			if got := ps[j].Measure().M2; !ok || !near(got, w/1e4, exact) {
				t.Errorf("%s, %s: %.12g m², by hand %.12g", tp.ID, ps[j].Title(), got, w/1e4)
			}
		}
	}
	chest, _ := TemplateNamed("chest")
	for _, c := range []struct {
		size []float64
		n    []int
		says string
	}{
		{[]float64{5, 90, 45}, nil, "The width is between 20 cm and 600 cm."},
		{[]float64{80, 900, 45}, nil, "The height is between 20 cm and 600 cm."},
		{nil, []int{0}, "There are between 1 and 200 drawers."},
		{nil, []int{60}, "These sizes leave no room for the drawer"},
	} {
		if _, err := chest.Make(c.size, c.n, measure.Metric); err == nil || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%v %v: %v, want %q", c.size, c.n, err, c.says)
		}
	}
}

func TestMeasureOfAZone(t *testing.T) {
	ps := []Part{
		New(Door, 2, 50, 100, 2).relief(Moulded), // 2 x (5000 + 600) cm²
		New(Rail, 1, 100, 10, 2),                 // 1000 + 400 cm²
		New(Top, 1, 100, 50, 2),
	}
	ps[0].Zone, ps[1].Zone = 0, 0
	m := OfZone(ps, 0)
	if !near(m.M2, 1.26, exact) || !near(m.Cover, 1.12*1.2+.14, exact) {
		t.Errorf("%v m², to cover %v", m.M2, m.Cover)
	}
	if !near(m.Length, 1, exact) || !near(m.Edges, 2*2*1.5+2, exact) {
		t.Errorf("%v m long, %v m of edges", m.Length, m.Edges)
	}
	if want := (1.12*1.1*1.3 + .14*1.4) / 1.26; !near(m.Work, want, exact) || WorkWords(m.Work) != "some edges and corners" {
		t.Errorf("work %v %q, want %v", m.Work, WorkWords(m.Work), want)
	}
	if m := OfZone(ps, 1); m != (Measured{}) {
		t.Errorf("a zone without parts comes to %+v", m)
	}
	p := New(DrawerBox, 3, 70, 40, 15)
	p.Painted = 0
	if m := p.Measure(); m != (Measured{}) {
		t.Errorf("what is not painted comes to %+v", m)
	}
}

func TestRead(t *testing.T) {
	in := measure.US
	for _, c := range []struct {
		text  string
		u     measure.Units
		kind  Kind
		name  string
		count int
		size  Sizes
	}{
		{"3 drawer fronts 80x18", measure.Metric, DrawerFront, "", 3, Sizes{Width: 80, Height: 18, Thick: 1.8}},
		{"three drawer fronts, 80 x 18 x 2 cm", measure.Metric, DrawerFront, "", 3, Sizes{Width: 80, Height: 18, Thick: 2}},
		{"Drawer front 800 x 180 mm", measure.Metric, DrawerFront, "", 1, Sizes{Width: 80, Height: 18, Thick: 1.8}},
		{"top 4' x 18 1/2\"", measure.Metric, Top, "", 1, Sizes{Width: 121.92, Depth: 46.99, Thick: 2}},
		{"top 48 x 18.5", in, Top, "", 1, Sizes{Width: 121.92, Depth: 46.99, Thick: 2}},
		{"a top 4 ft 2 in by 18 in", measure.Metric, Top, "", 1, Sizes{Width: 127, Depth: 45.72, Thick: 2}},
		{"a top 4 ft 2 by 18 in", measure.Metric, Top, "", 1, Sizes{Width: 127, Depth: 45.72, Thick: 2}},
		{"four turned legs 45 x 5", measure.Metric, LegTurned, "", 4, Sizes{Height: 45, Across: 5, AcrossAt: 5}},
		{"4 tapered turned legs 45 x 5 x 3", measure.Metric, LegTurned, "Tapered turned legs", 4, Sizes{Height: 45, Across: 5, AcrossAt: 3}},
		{"3 x drawer-fronts 80x18", measure.Metric, DrawerFront, "", 3, Sizes{Width: 80, Height: 18, Thick: 1.8}},
		{"2x legs 45 x 5", measure.Metric, LegSquare, "Legs", 2, Sizes{Height: 45, Width: 5, Thick: 5}},
		{"pair of doors 40 by 1.2 m", measure.Metric, Door, "", 2, Sizes{Width: 4000, Height: 120, Thick: 2}},
		{"left side panel 50x100", measure.Metric, Panel, "Left side panel", 1, Sizes{Width: 50, Height: 100, Thick: 1.8}},
		{"2 shelves 76,4 x 28", measure.Metric, Shelf, "", 2, Sizes{Width: 76.4, Depth: 28, Thick: 1.8}},
		{"pot 36 x 26 x 34", measure.Metric, Pot, "Pot", 1, Sizes{Across: 36, AcrossAt: 26, Height: 34}},
		{"6 Knobs 3", measure.Metric, Knob, "", 6, Sizes{Across: 3}},
		{"mirror 30x40", measure.Metric, Pane, "Mirror", 1, Sizes{Width: 30, Height: 40}},
		{"2 drawer boxes 70 x 40 x 15", measure.Metric, DrawerBox, "", 2, Sizes{Width: 70, Depth: 40, Height: 15, Thick: 1.2}},
		{"4 feet 6 x 4", measure.Metric, LegSquare, "Feet", 4, Sizes{Height: 6, Width: 4, Thick: 4}},
	} {
		ps, err := Read(c.text, c.u)
		if strings.Contains(c.text, "1.2 m") { // 40 takes the unit that follows
			if err == nil || !strings.Contains(err.Error(), "larger than a room") {
				t.Errorf("%q: %v", c.text, err)
			}
			continue
		}
		if err != nil || len(ps) != 1 {
			t.Errorf("%q: %d parts, %v", c.text, len(ps), err)
			continue
		}
		p := ps[0]
		for d := range p.Size {
			if !near(p.Size[d], c.size[d], 1e-9) {
				t.Errorf("%q: %s is %v, want %v", c.text, DimIDs[d], p.Size[d], c.size[d])
			}
		}
		if p.Kind != c.kind || p.Name != c.name || p.Count != c.count || p.Painted != c.kind.UsualFaces() {
			t.Errorf("%q: %s %q, %d of it", c.text, Kinds[p.Kind].ID, p.Name, p.Count)
		}
	}
	ps, err := Read("top 90x45; 3 drawer fronts 80x18\n\n2 doors 40x60 ;", measure.Metric)
	if err != nil || len(ps) != 3 || ps[2].Kind != Door {
		t.Errorf("%d parts, %v", len(ps), err)
	}
}

func TestReadRefusesInWords(t *testing.T) {
	for _, c := range []struct{ text, field, says string }{
		{"", "", "Nothing is typed"},
		{" ; \n", "", "Nothing is typed"},
		{"80x18", "kind", "What is it?"},
		{"3 gizmos 80x18", "kind", "“gizmos” is not a known part"},
		{"3 dorr 80x18", "kind", "did you mean door?"},
		{"3 drawr fronts", "width", "How large is it?"},
		{"drawer front", "width", "How large is it? A drawer front has width × height, then thickness (optional)."},
		{"drawer front 80", "height", "A drawer front has width × height, then thickness (optional); you entered 1."},
		{"pane 1x2x3", "height", "you entered 3"},
		{"top 0x45", "", "is zero"},
		{"top -3x45", "", "cannot be negative"},
		{"0 tops 80x45", "count", "between 1 and 200"},
		{"no tops 80x45", "count", "between 1 and 200"},
		{"900 tops 80x45", "count", "between 1 and 200"},
		{"top 800x450", "width", "800 cm is larger than a room; enter at most 600 cm. Write millimetres as 800 mm."},
		{"top 90 m x 4 m", "width", "larger than a room"},
		{"top 80x45 oak", "", "“oak” cannot be read in a size"},
		{"frame 10 x 10 x 5", "member", "leave no opening"},
		{"top .01 x 45", "width", "less than a millimetre"},
		{strings.Repeat("top 80x45;", 300), "", "fewer parts at a time"},
	} {
		ps, err := Read(c.text, measure.Metric)
		var me *measure.Error
		if err == nil || !strings.Contains(err.Error(), c.says) || Field(err) != c.field {
			t.Errorf("%.40q: %v, %q of field %q; want %q of %q", c.text, ps, err, Field(err), c.says, c.field)
		}
		if c.field == "" && err != nil && !errors.As(err, &me) && !errors.As(err, new(*Error)) {
			t.Errorf("%q: %T", c.text, err)
		}
	}
	if ps, err := Read("top 90x45; gizmo 3x4", measure.Metric); err == nil || len(ps) != 1 {
		t.Errorf("what was understood before the mistake: %d parts, %v", len(ps), err)
	}
}

func TestCheck(t *testing.T) {
	ok := New(Door, 1, 40, 60)
	for _, c := range []struct {
		change func(p *Part)
		field  string
	}{
		{func(p *Part) { p.Count = 0 }, "count"},
		{func(p *Part) { p.Size[Width] = 0 }, "width"},
		{func(p *Part) { p.Size[Height] = -4 }, "height"},
		{func(p *Part) { p.Size[Height] = math.NaN() }, "height"},
		{func(p *Part) { p.Size[Width] = 601 }, "width"},
		{func(p *Part) { p.Size[Girth] = 3 }, "girth"},
		{func(p *Part) { p.Painted = 8 }, "faces"},
	} {
		p := ok
		c.change(&p)
		if err := p.Check(); Field(err) != c.field {
			t.Errorf("%+v: %v", p, err)
		}
	}
	if err := ok.Check(); err != nil {
		t.Error(err)
	}
}

func TestFit(t *testing.T) {
	// Two faces with 150 micrometres each take .3 mm of the gap.
	for _, c := range []struct {
		gap, film, left float64
		tight, sticks   bool
	}{{1, 150, .7, false, false}, {.7, 150, .4, true, false}, {.4, 150, .1, true, true}, {.2, 150, -.1, true, true}} {
		if f := FitOf(c.gap, c.film); !near(f.LeftMM, c.left, 1e-9) || f.Tight != c.tight || f.Sticks != c.sticks {
			t.Errorf("%v mm under %v µm: %+v", c.gap, c.film, f)
		}
	}
}

// Ids are found again, and are not used twice.
func TestIDs(t *testing.T) {
	for k := range Kinds {
		if got, ok := KindNamed(Kinds[k].ID); !ok || got != Kind(k) {
			t.Errorf("kind %s is found as %v", Kinds[k].ID, got)
		}
		if kind, ok := kindOf(strings.Fields(Kinds[k].Plural)); !ok || kind != Kind(k) {
			t.Errorf("%s are read as %s", Kinds[k].Plural, Kinds[kind].ID)
		}
		for i, f := range Kinds[k].Faces {
			if got, ok := Kind(k).FaceNamed(f.ID); !ok || got != 1<<i {
				t.Errorf("face %s of %s is found as %b", f.ID, Kinds[k].ID, got)
			}
		}
	}
	for r := range Reliefs {
		if got, ok := ReliefNamed(Reliefs[r].ID); !ok || got != Relief(r) {
			t.Error(Reliefs[r].ID)
		}
	}
}

func FuzzRead(f *testing.F) {
	for _, s := range []string{"3 drawer fronts 80x18", "top 4' x 18 1/2\"; knob 3", "¾ x", "pair of", "2x"} {
		f.Add(s, false)
	}
	f.Fuzz(func(t *testing.T, s string, us bool) {
		u := measure.Metric
		if us {
			u = measure.US
		}
		ps, err := Read(s, u)
		if err == nil && len(ps) == 0 || err != nil && err.Error() == "" {
			t.Errorf("%q: nothing, and not a word why", s)
		}
		for i := range ps {
			if err := ps[i].Check(); err != nil {
				t.Errorf("%q became a part that %v", s, err)
			}
		}
	})
}

// random is a part of any kind with sizes that make sense.
func random(r *rand.Rand) Part {
	for {
		p := New(Kind(r.IntN(int(NumKinds))), 1+r.IntN(6))
		for _, n := range Kinds[p.Kind].Needs {
			p.Size[n.Dim] = .5 + 200*r.Float64()*r.Float64()
		}
		p.Place, p.Relief = Place(r.IntN(int(NumPlaces))), Relief(r.IntN(int(NumReliefs)))
		p.Seen = r.IntN(p.Count+2) - 1
		p.Painted = Faces(r.IntN(int(all(p.Kind)) + 1))
		if p.Check() == nil {
			return p
		}
	}
}
