package wire

import (
	"fmt"
	"reflect"
	"slices"

	"rutile/core/measure"
)

// Changes says in a few sentences what differs between two states of a piece.
func Changes(a, b *Piece) []string {
	var out []string
	if a.Name != b.Name {
		out = append(out, fmt.Sprintf("The piece is now called %q.", b.Name))
	}
	if a.Made != b.Made || !slices.Equal(a.Use, b.Use) || !reflect.DeepEqual(a.Site, b.Site) {
		out = append(out, "The piece's year, use or workshop air was changed.")
	}
	for _, x := range []struct {
		was, is any
		says    string
	}{
		{a.Parts, b.Parts, "The parts were changed."},
		{a.TakeApart, b.TakeApart, "The list of hardware was changed."},
		{a.Photos, b.Photos, "The photographs or their markers were changed."},
		{a.History, b.History, "The history of the piece was changed."},
		{a.Cans, b.Cans, "What the piece knows of its cans was changed."},
	} {
		if !reflect.DeepEqual(x.was, x.is) {
			out = append(out, x.says)
		}
	}
	find := func(p *Piece, id string) *Zone {
		if i := slices.IndexFunc(p.Zones, func(z Zone) bool { return z.ID == id }); i >= 0 {
			return &p.Zones[i]
		}
		return nil
	}
	for i := range b.Zones {
		z := &b.Zones[i]
		old := find(a, z.ID)
		if old == nil {
			out = append(out, fmt.Sprintf("Zone %q was added.", z.Title()))
			continue
		}
		x, y := *old, *z
		x.Steps, y.Steps = nil, nil
		if !reflect.DeepEqual(x, y) {
			out = append(out, fmt.Sprintf("The survey of %q was changed.", z.Title()))
		}
		if n, m := len(old.Steps), len(z.Steps); n != m {
			out = append(out, fmt.Sprintf("The plan of %q has %s instead of %d.", z.Title(), measure.Count(m, "step", "steps"), n))
		} else if !reflect.DeepEqual(old.Steps, z.Steps) && n > 0 {
			for j := range z.Steps {
				if !reflect.DeepEqual(old.Steps[j], z.Steps[j]) {
					out = append(out, fmt.Sprintf("Step %d of %q was changed.", j+1, z.Title()))
				}
			}
		}
	}
	for i := range a.Zones {
		if find(b, a.Zones[i].ID) == nil {
			out = append(out, fmt.Sprintf("Zone %q was removed.", a.Zones[i].Title()))
		}
	}
	return out
}
