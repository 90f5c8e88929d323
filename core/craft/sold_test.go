package craft

import (
	"slices"
	"testing"
)

// Every product says what it is sold in, and that is something that exists; the sheen of its row is among
// those it is sold in.
func TestProductsAreSoldInSomething(t *testing.T) {
	c := Default()
	for i := range c.Products {
		p := &c.Products[i]
		if len(p.Sheens) == 0 || len(p.Sizes) == 0 || len(p.Methods) == 0 {
			t.Errorf("%s is sold in %v, %v, and applied by %v", p.ID, p.Sheens, p.Sizes, p.Methods)
		}
		if !slices.IsSorted(p.Sheens) || !slices.Contains(p.Sheens, p.Sheen) || slices.Contains(p.Sheens, NoSheen) {
			t.Errorf("%s is usually %v, and sold in %v", p.ID, p.Sheen, p.Sheens)
		}
		for _, m := range p.Methods {
			if _, ok := MethodNamed(m); !ok {
				t.Errorf("%s is applied by %q", p.ID, m)
			}
		}
		if slices.Contains(p.Methods, "aerosol") != p.Aerosol || p.Aerosol && (p.MostFlat == 0 || p.MostSlender < p.MostFlat) {
			t.Errorf("%s is a can: %v, by %v, up to %v and %v m²", p.ID, p.Aerosol, p.Methods, p.MostFlat, p.MostSlender)
		}
		if (p.Coat == CP || p.Coat == MK) && !p.OneSheen() {
			t.Errorf("%s is porous and comes in %v", p.ID, p.Sheens)
		}
	}
	// The shellacs, waxes and chalk paints come in one sheen; trim paint in satin alone.
	for id, want := range map[string][2]Sheen{
		"paint_trim": {Gloss, Satin}, "paint_enamel_wb": {Matt, Eggshell}, "clear_wb": {DeadFlat, DeadFlat}, "paint_aerosol": {SemiGloss, Satin}, "paint_chalk": {Satin, DeadFlat}, "clear_oil": {NoSheen, Gloss},
	} {
		x, _ := c.Product(id)
		if got := c.Products[x].SoldIn(want[0]); got != want[1] {
			t.Errorf("%s wanted in %v is %v, not %v", id, want[0], got, want[1])
		}
	}
	can, _ := c.Product("paint_aerosol")
	for _, x := range []struct {
		area, work float64
		makes      bool
	}{{.4, 1, true}, {.6, 1, false}, {.6, 1.7, true}, {1.6, 1.7, false}, {0, 1, false}} {
		if got := c.Products[can].Makes(x.area, x.work); got != x.makes {
			t.Errorf("a can for %v m² of work %v: %v", x.area, x.work, got)
		}
	}
}
