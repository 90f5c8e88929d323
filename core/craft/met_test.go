package craft

import (
	"slices"
	"testing"
)

// Every material says what is met on it; what an untested one may carry is among it, and so is
// what it bleeds by itself.
func TestMet(t *testing.T) {
	c := Default()
	for i := range c.Substrates {
		r := &c.Substrates[i]
		m := r.Met()
		if len(m.Finishes) < 3 || len(m.Soils) < 3 || len(m.Bleeders) < 3 || !slices.Contains(m.Finishes, "unknown") || !slices.Contains(m.Finishes, "none") {
			t.Errorf("%s: %+v", r.ID, m)
		}
		for _, id := range m.Finishes {
			if _, ok := c.Finish(id); !ok {
				t.Errorf("%s: there is no finish %s", r.ID, id)
			}
		}
		for _, id := range m.Soils {
			if _, ok := SoilNamed(id); !ok {
				t.Errorf("%s: there is no soil %s", r.ID, id)
			}
		}
		for _, id := range m.Bleeders {
			if !slices.ContainsFunc(Bleeders[:], func(b BleederRow) bool { return b.ID == id }) {
				t.Errorf("%s: there is no bleeder %s", r.ID, id)
			}
		}
		for _, f := range c.Plausible(r.Family) {
			if id := c.Finishes[f].ID; !slices.Contains(m.Finishes, id) {
				t.Errorf("%s may carry %s, which is not met on it", r.ID, id)
			}
		}
		for _, b := range r.Bleeds {
			if id := Bleeders[b.Bleeder].ID; !slices.Contains(m.Bleeders, id) {
				t.Errorf("%s bleeds %s, which is not met on it", r.ID, id)
			}
		}
	}
	// Wax, oil and shellac sink into wood; melamine cannot carry them.
	melamine, _ := c.Substrate("melamine")
	for _, id := range []string{"wax", "oil", "shellac"} {
		if slices.Contains(c.Substrates[melamine].Met().Finishes, id) {
			t.Errorf("melamine is said to carry %s", id)
		}
	}
}
