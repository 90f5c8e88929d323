package surface

import (
	"math"
	"testing"

	"rutile/core/craft"
	"rutile/core/drying"
)

// What a search counts of coats is what the walk counts: over a fresh ground the same share of a
// stain, the same minutes, the same wait.
func TestBoundsAreTheWalks(t *testing.T) {
	c := craft.Default()
	f := Facts{Moisture: -1, Area: 2.5, Work: 1.3, Wear: craft.Handled, Climate: drying.Climate{TempC: 14, RH: 70}, AgeDays: -1}
	f.Substrate, _ = c.Substrate("oak")
	f.Finish, _ = c.Finish("none")
	for i := range c.Products {
		p := craft.Product(i)
		if c.Products[i].Coat == craft.NoCoat {
			continue
		}
		for _, coats := range []int{1, 3} {
			s := Step{Do: Coat, Product: p, Coats: coats, Auto: true, Method: "roller"}
			steps := []Step{s}
			walk := Walk(c, &f, steps)
			end := &walk.End.Regions[Field]
			if got, want := LeastTransmission(c, steps, craft.Tannin), float64(end.Transmitted[craft.Tannin]); end.Load[craft.Tannin] > 0 && math.Abs(got-want) > 1e-6 {
				t.Errorf("%d coats of %s let %v through, the walk %v", coats, c.Products[i].ID, got, want)
			}
			got := 0.
			for n := range coats {
				m, _ := f.CoatMinutes(c, &s, n+1)
				got += m
			}
			if math.Abs(got-walk.End.Minutes) > 1e-9 {
				t.Errorf("%d coats of %s take %v min, the walk %v", coats, c.Products[i].ID, got, walk.End.Minutes)
			}
		}
		two := Walk(c, &f, []Step{{Do: Coat, Product: p, Coats: 2, Auto: true}})
		s := Step{Do: Coat, Product: p, Auto: true}
		if n := len(two.Events); n == 2 {
			laid := two.Events[0].After.Hours
			if got, want := CoatWait(c, &f, &s), two.Events[1].Begun-laid; math.Abs(got-want) > 1e-9 {
				t.Errorf("%s waits %v h, the walk %v", c.Products[i].ID, got, want)
			}
		}
	}
	if w := CoatWait(c, &f, &Step{Do: Coat, WaitH: 7}); w != 7 {
		t.Errorf("a wait that was typed is %v", w)
	}
	f.Area = 0
	if m := f.WorkMinutes(10); m != 0 {
		t.Errorf("without an area it takes %v min", m)
	}
}

// What dilutes counts in full once, and by its root from then on; what blocks counts in full each time,
// and spots are taken for where it may come through.
func TestLets(t *testing.T) {
	c := craft.Default()
	paint, _ := c.Product("paint_chalk")
	block, _ := c.Product("shellac_pigmented")
	one, dilutes := Transmission(c, paint, craft.Tannin, false)
	more, _ := Transmission(c, paint, craft.Tannin, true)
	if !dilutes || math.Abs(more-math.Sqrt(one)) > 1e-12 {
		t.Errorf("paint lets %v through, and over paint %v", one, more)
	}
	first, dilutes := Transmission(c, block, craft.Tannin, false)
	again, _ := Transmission(c, block, craft.Tannin, true)
	if dilutes || first != again {
		t.Errorf("a blocker lets %v through, and over paint %v", first, again)
	}
	spots := []Step{{Do: Coat, Product: paint, Coats: 3, Scope: Spots}}
	if got := LeastTransmission(c, spots, craft.Tannin); got != one {
		t.Errorf("on the spots %v is let through, want %v", got, one)
	}
}
