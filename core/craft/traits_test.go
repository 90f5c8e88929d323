package craft

import (
	"slices"
	"testing"
)

// What the tables of harm, abrasion and stripping name is in the tables.
func TestTablesNameWhatThereIs(t *testing.T) {
	c := Default()
	for cleaner, harms := range Harms {
		if _, ok := c.Cleaner(cleaner); !ok {
			t.Errorf("%s harms and is no cleaner", cleaner)
		}
		for _, h := range harms {
			if len(h.Substrates)+len(h.Families) == 0 || h.Says == "" {
				t.Errorf("%s harms nothing, or says nothing of it: %+v", cleaner, h)
			}
			for _, id := range h.Substrates {
				if _, ok := c.Substrate(id); !ok {
					t.Errorf("%s harms %s, which is no substrate", cleaner, id)
				}
			}
		}
	}
	for id, f := range CutThrough {
		if s, ok := c.Substrate(id); !ok || c.Substrates[s].Family == f {
			t.Errorf("%s is stripped down to %v", id, f)
		}
	}
	limits := []AbrasionLimit{LimitVeneer, LimitPaper}
	for _, l := range Limits {
		limits = append(limits, l)
	}
	for _, l := range limits {
		if l.Says == "" || l.Coarsest == 0 && !l.PadOnly && !l.None || l.Coarsest > 0 && (l.Coarsest < MinGrit || l.Coarsest > 600) {
			t.Errorf("%+v", l)
		}
	}
	for f, l := range Limits {
		// What a painter is told to scuff with must be within the limit.
		if row := &Families[f]; row.ScuffHow == Hand && (l.PadOnly || l.None || row.ScuffGrit < l.Coarsest) {
			t.Errorf("%v is scuffed with %d by hand, and stands %+v", f, row.ScuffGrit, l)
		}
	}
}

// Effects name effects and products there are; what covers lays something, and
// what excludes is excluded back or says why not.
func TestEffectsAreComplete(t *testing.T) {
	c := Default()
	grounds := map[Ground]int{}
	for i := range c.Effects {
		r := &c.Effects[i]
		grounds[r.Ground]++
		if r.How == "" || r.Wants == "" || r.Minutes <= 0 || r.Minutes > 120 || r.Settles < 0 {
			t.Errorf("%s: how %q, wants %q, %v min, settles %v h", r.ID, r.How, r.Wants, r.Minutes, r.Settles)
		}
		for _, id := range append(slices.Clone(r.By), r.Lays) {
			if _, ok := c.Product(id); !ok && id != "" {
				t.Errorf("%s is made by %s, which is no product", r.ID, id)
			}
		}
		if r.Covers && r.Lays == "" || r.Deep && !r.Wears {
			t.Errorf("%s covers with nothing, or goes deep without wearing", r.ID)
		}
		for _, id := range r.Excludes {
			if _, ok := c.Effect(id); !ok || id == r.ID {
				t.Errorf("%s excludes %s", r.ID, id)
			}
		}
	}
	if len(grounds) != 7 {
		t.Errorf("effects want %d kinds of ground", len(grounds))
	}
	if x, ok := c.Effect("moonlight"); ok || x != NoEffect {
		t.Error("there is an effect called moonlight")
	}
}

func TestTraitsAreInRange(t *testing.T) {
	c := Default()
	for k := range TraitsOf {
		x := TraitsOf[k]
		if x.Hard < 0 || x.Hard > 3 || x.Durability < 0 || x.Durability > 5 {
			t.Errorf("%v: %+v", Coat(k), x)
		}
	}
	for i := range c.Products {
		p := &c.Products[i]
		if p.MaxC <= p.MinC || p.ThinMax <= 0 || p.Yellowing < 0 || p.Durability < 0 || p.Durability > 5 {
			t.Errorf("%s: %v to %v C, thinned to %v %%, ambers %v, guards %d", p.ID, p.MinC, p.MaxC, p.ThinMax, p.Yellowing, p.Durability)
		}
		if s := p.Softens; s.Never > 0 && !(s.Easy < s.Works && s.Works < s.Never && p.WaterBased()) {
			t.Errorf("%s softens %+v", p.ID, s)
		}
	}
	// Every seal that a wear is advised stands that wear, but for wax and oil on
	// what is handled, and what closes a porous paint for a look.
	for w := range Wears {
		for _, p := range c.For(ForSeal(Wear(w))) {
			id := c.Products[p].ID
			if c.Products[p].Durability < DurabilityNeeded[w] {
				t.Errorf("%s is advised %s, which guards %d of %d", Wears[w].ID, id, c.Products[p].Durability, DurabilityNeeded[w])
			}
			if Wear(w) == Outdoor && !c.Products[p].Outside {
				t.Errorf("%s is advised outdoors", id)
			}
		}
	}
}

func TestHardUnder(t *testing.T) {
	c := Default()
	row := func(id string) *ProductRow { p, _ := c.Product(id); return &c.Products[p] }
	for _, x := range []struct {
		low, up string
		want    float64
	}{{"clear_wb", "wax_dark", 4}, {"clear_wb", "glaze_wb", 24}, {"clear_oil", "wax_clear", 24}, {"clear_wb", "clear_wb", 0}, {"paint_chalk", "wax_clear", 0}} {
		if got := row(x.low).HardUnder(row(x.up)); got != x.want {
			t.Errorf("%s under %s: %v h, want %v", x.low, x.up, got, x.want)
		}
	}
}

func TestLooseNames(t *testing.T) {
	if got := (LooseFoil | LooseFlakes).Names(); !slices.Equal(got, []string{"loose foil", "flaking"}) {
		t.Errorf("%v", got)
	}
	if Loose(0).Names() != nil {
		t.Error("nothing is loose, and it has a name")
	}
}
