package disassembly

import (
	"slices"
	"testing"

	"rutile/core/measure"
	"rutile/core/parts"
)

func TestSuggest(t *testing.T) {
	ps, err := parts.Read("carcass 90x170x40; 2 doors 44 x 150; 3 drawer fronts 80x18; 3 drawer boxes 70x40x15; 8 knobs 3; 2 panes 30x40; shelf 80x30; cushion 80x40", measure.Metric)
	if err != nil {
		t.Fatal(err)
	}
	var got []string
	for _, it := range Suggest(ps) {
		row, ok := RowOf(it.Kind)
		if !ok || it.Do != row.Do {
			t.Errorf("%+v", it)
		}
		got = append(got, it.Kind+" "+string(rune('0'+it.Count)))
	}
	want := []string{"drawer 3", "door 2", "hinge 6", "knob 8", "shelf 1", "glass 2", "pad 1"}
	if !slices.Equal(got, want) {
		t.Errorf("%q, want %q", got, want)
	}
	if s := Suggest(nil); s != nil {
		t.Errorf("of nothing comes off %v", s)
	}
}

func TestLabels(t *testing.T) {
	got := Labels([]Item{{Kind: "drawer", Count: 3}, {Kind: "handle", Count: 1}, {Kind: "handle", Count: 4}, {Kind: "door"}})
	if want := []string{"R1–R3", "H1", "H2–H5", "D1"}; !slices.Equal(got, want) {
		t.Errorf("%q, want %q", got, want)
	}
	letters := map[string]string{}
	for _, r := range Rows {
		if other, taken := letters[r.Letter]; taken {
			t.Errorf("%s and %s are labelled alike", other, r.ID)
		}
		letters[r.Letter] = r.ID
	}
}

func TestHoles(t *testing.T) {
	for _, c := range []struct {
		n           int
		was, is     float64
		fill, drill int
		says        string
	}{
		{3, 64, 96, 6, 6, "The holes differ: before painting, fill 6 and drill 6, in pairs 96 mm apart."},
		{3, 0, 96, 3, 6, "The holes differ: before painting, fill 3 and drill 6, in pairs 96 mm apart."},
		{2, 96, 0, 4, 2, "The holes differ: before painting, fill 4 and drill 2, one for each."},
		{3, 96, 96.4, 0, 0, "The new hardware fits the old holes."},
		{3, 0, 0, 0, 0, "The new hardware fits the old holes."},
		{3, -1, 96, 0, 0, "Measure the old holes, centre to centre, before buying new hardware."},
		{3, 96, -1, 0, 0, ""},
	} {
		if h := HolesOf(c.n, c.was, c.is, measure.Metric); h.Fill != c.fill || h.Drill != c.drill || h.Says != c.says {
			t.Errorf("%d pieces from %v to %v: %+v", c.n, c.was, c.is, h)
		}
	}
}
