package parts

import (
	"math"
	"slices"
	"strings"
	"testing"

	"rutile/core/measure"
)

func orderOf(all []Part, zone int) ([]Turn, Drawing) {
	d := Elevation(all, measure.Metric)
	return Order(all, &d, zone), d
}

func in(zone int, ps ...Part) []Part {
	for i := range ps {
		ps[i].Zone = zone
	}
	return ps
}

func said(turns []Turn) []string {
	out := make([]string, len(turns))
	for i, t := range turns {
		out[i] = t.Says
	}
	return out
}

// Field and moulding of a panel, then rails, then stiles, then edges; and what comes off before the body.
func TestAPanelledDresser(t *testing.T) {
	door, drawer := New(Door, 2, 45, 70), New(DrawerFront, 2, 45, 18)
	door.Relief = Moulded
	all := in(0, New(Carcass, 1, 100, 90, 45), New(Top, 1, 105, 50), drawer, door, New(LegTurned, 4, 12, 6))
	turns, d := orderOf(all, 0)
	got := strings.Join(said(turns), "\n")
	want := strings.Join([]string{
		"Drawer fronts, each: the edges all round", "Drawer fronts, each: the face",
		"Doors, each: the field of the panel", "Doors, each: the moulding around it, into the corners", "Doors, each: its rails, the cross members",
		"Doors, each: its stiles, the uprights", "Doors, each: the edges all round",
		"Turned legs, each: all round, hollows first, dabbed", "Carcass: the front edges between the openings", "Carcass: both sides",
		"Top: the edges", "Top: the upper face",
	}, "\n")
	if got != want {
		t.Errorf("the order is\n%s\nwant\n%s", got, want)
	}
	for i, x := range turns {
		if x.N != i+1 || x.Apart != (x.Part == 2 || x.Part == 3) {
			t.Errorf("%+v", x)
		}
		if x.Last != (i == len(turns)-1 || turns[i+1].Part != x.Part) {
			t.Errorf("turn %d ends its part: %v", x.N, x.Last)
		}
		for _, m := range x.Marks {
			shape := slices.IndexFunc(d.Shapes, func(s Shape) bool { return s.Part == x.Part && s.N == m.N })
			if shape < 0 {
				t.Fatalf("turn %d marks shape %d, which is not drawn", x.N, m.N)
			}
			// What is marked lies on its part.
			b, part := boxOf(m.Outline), boxOf(d.Shapes[shape].Outline)
			if b.x0 < part.x0-1e-6 || b.x1 > part.x1+1e-6 || b.y0 < part.y0-1e-6 || b.y1 > part.y1+1e-6 {
				t.Errorf("turn %d lies beside its part: %+v in %+v", x.N, b, part)
			}
			if cx, cy := m.Middle(); cx < part.x0 || cx > part.x1 || cy < part.y0-1e-6 || cy > part.y1+1e-6 {
				t.Errorf("the number of turn %d stands beside its part", x.N)
			}
		}
	}
	if n := len(turns[2].Marks); n != 2 {
		t.Errorf("the fields of %d doors are marked", n)
	}
	if turns[4].Run != Level || turns[5].Run != Upright || turns[7].Run != Around {
		t.Error("strokes go another way")
	}
	// The marks of a door are disjoint, and together its face but for the band inside the moulding.
	area := 0.
	for _, k := range []int{2, 3, 4, 5} {
		for _, m := range turns[k].Marks {
			if m.N == 1 {
				area += areaOf(m.Outline) - areaOf(m.Hole)
			}
		}
	}
	if face := 45. * 70; math.Abs(area-face) > .02*face {
		t.Errorf("field, moulding, rails and stiles come to %.0f of %.0f cm²", area, face)
	}
}

func areaOf(ps []Point) float64 {
	if len(ps) == 0 {
		return 0
	}
	b := boxOf(ps)
	return (b.x1 - b.x0) * (b.y1 - b.y0)
}

func TestUndersidesFirstAndTheTopLast(t *testing.T) {
	table, leg, rail := New(Top, 1, 120, 60), New(LegSquare, 4, 70, 5), New(Rail, 2, 100, 10)
	under, _ := Top.FaceNamed("under")
	table.Painted |= under
	turns, _ := orderOf(in(0, table, leg, rail), 0)
	if len(turns) == 0 || !strings.Contains(turns[0].Says, "underside") || !strings.Contains(turns[len(turns)-1].Says, "upper face") {
		t.Errorf("the order is %q", said(turns))
	}
}

// Whatever a piece has, each painted face of the zone has its turn, and no other.
func TestEveryPaintedFaceHasItsTurn(t *testing.T) {
	for k := range NumKinds {
		for _, relief := range []Relief{Smooth, Moulded} {
			p := New(k, 2, []float64{60, 50, 40}[:min(3, len(Kinds[k].Needs))]...)
			p.Relief, p.Painted = relief, 1<<len(Kinds[k].Faces)-1
			other := New(Panel, 1, 30, 30)
			other.Zone = 1
			all := append(in(0, p), other)
			turns, _ := orderOf(all, 0)
			faces := map[string]bool{}
			for _, b := range bitsOf(&all[0]) {
				faces[b.face] = true
			}
			for _, f := range Kinds[k].Faces {
				if !faces[f.ID] {
					t.Errorf("%s of a %s is never painted", f.ID, Kinds[k].ID)
				}
			}
			if len(turns) < len(faces) {
				t.Errorf("a %s has %d turns and %d faces", Kinds[k].ID, len(turns), len(faces))
			}
			for _, x := range turns {
				if x.Part != 0 || x.Says == "" {
					t.Errorf("%+v", x)
				}
			}
			all[0].Painted = 0
			if turns, _ := orderOf(all, 0); len(turns) > 0 {
				t.Errorf("what is not painted has %d turns", len(turns))
			}
		}
	}
}

func TestWhatAZoneHolds(t *testing.T) {
	all := in(0, New(LegTurned, 4, 70, 5), New(Top, 1, 100, 60))
	if turned, flat := Turned(all, 0); !turned || !flat {
		t.Error("a table has turned legs and a flat top")
	}
	if turned, flat := Turned(all[:1], 0); !turned || flat {
		t.Error("legs alone are turned")
	}
	if Standing(all, 0) {
		t.Error("a top is laid flat, and paint does not run on legs")
	}
	all = append(all, in(1, New(Carcass, 1, 80, 90, 40, 2))...)
	if !Standing(all, 1) || Standing(all, 0) {
		t.Error("a carcass stands, in its own zone")
	}
}
