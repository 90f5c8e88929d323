package craft

import (
	"slices"
	"testing"
)

// What the tables of harm, abrasion and stripping name is in the tables.
func TestTablesNameWhatThereIs(t *testing.T) {
	c := Default()
	for i := range StandsExcept {
		x := &StandsExcept[i]
		if len(x.Substrates)+len(x.Finishes) == 0 && !x.Veneer || x.Says == "" || x.Stand <= Stands {
			t.Errorf("an exception for nothing, or that says nothing: %+v", x)
		}
		for _, to := range x.To {
			if !slices.Contains(Treatments, to) {
				t.Errorf("%s is no treatment", to)
			}
		}
		for _, id := range x.Substrates {
			if _, ok := c.Substrate(id); !ok {
				t.Errorf("%s is no substrate", id)
			}
		}
		for _, id := range x.Finishes {
			if _, ok := c.Finish(id); !ok {
				t.Errorf("%s is no finish", id)
			}
		}
	}
	for id, f := range CutThrough {
		if s, ok := c.Substrate(id); !ok || c.Substrates[s].Family == f {
			t.Errorf("%s is stripped down to %v", id, f)
		}
	}
	for f, l := range Limits {
		if l.Says == "" || !l.Any && l.Coarsest == 0 && !l.PadOnly && !l.None || l.Coarsest > 0 && (l.Coarsest < MinGrit || l.Coarsest > 600) {
			t.Errorf("%v: %+v", Family(f), l)
		}
		// What a painter is told to scuff with must be within the limit.
		if row := &Families[f]; row.ScuffHow != "" && l.Harms(row.ScuffGrit, row.ScuffHow) != Stands {
			t.Errorf("%v is scuffed with %d %s, and stands %+v", Family(f), row.ScuffGrit, row.ScuffHow, l)
		}
	}
}

// Every surface answers to every cleaner, stripper and abrasive; what a coat grips on a surface is in
// the table, or rests on the figure for what nobody has a figure for, and how many do is told here.
func TestEverySurfaceAnswers(t *testing.T) {
	c := Default()
	for i := range c.Cleaners {
		if !slices.Contains(Treatments, Treatment(c.Cleaners[i].ID)) {
			t.Errorf("no surface answers to %s", c.Cleaners[i].ID)
		}
	}
	for _, how := range Strips {
		if !slices.Contains(Treatments, Treatment(how)) {
			t.Errorf("no surface answers to stripping, %s", how)
		}
	}
	for f := range StandsOf {
		if len(StandsOf[f]) != len(Treatments) {
			t.Errorf("%v answers to %d of %d", Family(f), len(StandsOf[f]), len(Treatments))
			continue
		}
		for i := range Treatments {
			if letters[StandsOf[f][i]] == NoAnswer {
				t.Errorf("%v has no answer to %s", Family(f), Treatments[i])
			}
		}
	}
	worst := map[Stand]int{}
	for s := range c.Substrates {
		for fin := range c.Finishes {
			top := c.Finishes[fin].Family
			if c.Finishes[fin].Bare {
				top = c.Substrates[s].Family
			}
			for _, to := range Treatments {
				a := c.StandsTo(to, top, Substrate(s), Finish(fin), false, c.Finishes[fin].Bare)
				worst[a.Stand]++
				if a.Stand == NoAnswer || a.Stand > Stands && a.Says() == "" {
					t.Errorf("%s under %s does not answer to %s: %+v", c.Substrates[s].ID, c.Finishes[fin].ID, to, a)
				}
			}
		}
	}
	if worst[Stands] == 0 || worst[NeedsCare] == 0 || worst[AtRisk] == 0 || worst[Ruined] == 0 {
		t.Errorf("%v", worst)
	}
	blank := map[string]int{}
	cells, all := 0, 0
	for f := range NumFamilies {
		for k := range NumCoats {
			if cells++; c.Grip[f][k] == Blank {
				blank[Coats[k].ID]++
				all++
			}
		}
	}
	t.Logf("%d of %d pairs of coat and surface rest on the default grip: %v", all, cells, blank)
	const most = 300
	if all > most {
		t.Errorf("%d pairs rest on a default, and there were %d", all, most)
	}
}

func TestStandsTo(t *testing.T) {
	c := Default()
	for _, x := range []struct {
		to           Treatment
		sub, fin     string
		veneer, bare bool
		want         Stand
	}{
		{StripHeat, "plastic_abs", "paint_acrylic_old", false, false, Ruined},
		{StripHeat, "vinyl_wrap", "none", false, true, Ruined},
		{StripHeat, "willow", "none", false, true, Ruined},
		{StripHeat, "oak", "lacquer", false, false, Ruined},
		{StripHeat, "oak", "paint_factory", false, false, AtRisk},
		{StripHeat, "oak", "varnish_oil", false, false, NeedsCare},
		{StripHeat, "oak", "varnish_oil", true, false, Ruined},
		{StripChemical, "laminate_hpl", "paint_acrylic_old", false, false, AtRisk},
		{StripChemical, "foam_craft", "paint_acrylic_old", false, false, Ruined},
		{StripChemical, "oak", "varnish_oil", false, false, Stands},
		{StripCaustic, "oak", "varnish_oil", false, false, Ruined},
		{StripCaustic, "pine", "paint_alkyd_old", false, false, NeedsCare},
		{StripCaustic, "steel", "paint_alkyd_old", false, false, Stands},
		{StripCaustic, "aluminium", "paint_alkyd_old", false, false, Ruined},
		{StripSand, "melamine", "paint_acrylic_old", false, false, Ruined},
		{StripSand, "vinyl_wrap", "none", false, true, NeedsCare},
		{"alcohol", "oak", "shellac", false, false, Ruined},
		{"alcohol", "plastic_acrylic", "none", false, true, Ruined},
		{"alcohol", "plastic_acrylic", "paint_acrylic_old", false, false, NeedsCare},
		{"acetone", "plastic_unknown", "none", false, true, Ruined},
		{"acetone", "plastic_polyolefin", "none", false, true, NeedsCare},
		{"alcohol", "plastic_unknown", "none", false, true, NeedsCare},
		{"ammonia_water", "mirror", "none", false, true, Ruined},
		{"ammonia_water", "glass", "none", false, true, Stands},
		{"sandpaper", "glass", "none", false, true, NoAnswer},
	} {
		sub, _ := c.Substrate(x.sub)
		fin, _ := c.Finish(x.fin)
		top := c.Finishes[fin].Family
		if c.Finishes[fin].Bare {
			top = c.Substrates[sub].Family
		}
		if a := c.StandsTo(x.to, top, sub, fin, x.veneer, x.bare); a.Stand != x.want {
			t.Errorf("%s on %s under %s: %v %q, want %v", x.to, x.sub, x.fin, a.Stand, a.Says(), x.want)
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
		left    Saying
	}{{"clear_wb", "wax_dark", 4, NoSaying}, {"clear_wb", "glaze_wb", 4, ADay}, {"clear_oil", "wax_clear", 24, NoSaying}, {"clear_wb", "clear_wb", 0, NoSaying}, {"paint_chalk", "wax_clear", 0, NoSaying}} {
		if got, left := row(x.low).HardUnder(row(x.up)); got != x.want || left != x.left {
			t.Errorf("%s under %s: %v h, left %v, want %v, %v", x.low, x.up, got, left, x.want, x.left)
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
