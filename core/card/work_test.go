package card

import (
	"strings"
	"testing"

	"rutile/core/craft"
	"rutile/core/damage"
	"rutile/core/drying"
	"rutile/core/surface"
)

func TestFillingInPartsThatCanBeWorked(t *testing.T) {
	warm, cold := drying.Climate{TempC: 30, RH: 50}, drying.Climate{TempC: 10, RH: 50}
	holes := []damage.Defect{{ID: "hole", Count: 4}}
	a, b := Fill(holes, warm), Fill(holes, cold)
	if a.Balls.N < 1 || a.Balls.WorkMin*4 < b.Balls.WorkMin*.99 || a.Balls.WorkMin*4 > b.Balls.WorkMin*1.01 {
		t.Errorf("it can be worked for %v min at 30 C and %v at 10: want four times as long", a.Balls.WorkMin, b.Balls.WorkMin)
	}
	pot := 0.
	for _, s := range a.Steps {
		if s.Clock != nil && s.Clock.Timer == craft.TimePot {
			pot = s.Clock.Seconds / 60
		}
	}
	if pot != a.Balls.WorkMin {
		t.Errorf("the clock of the pot runs %v min, and it can be worked for %v", pot, a.Balls.WorkMin)
	}
	if len(a.Keeps) == 0 || !strings.Contains(a.Keeps[0], "does not keep") {
		t.Errorf("a mixed rest: %q", a.Keeps)
	}
	if none := Fill(nil, warm); none.Balls.N != 0 || none.Balls.WorkMin <= 0 || len(none.Steps) != len(a.Steps) {
		t.Error("where no damage is counted the card has no times")
	}
}

func TestTheCardOfALookThatIsWorked(t *testing.T) {
	c := craft.Default()
	x, _ := c.Effect("chippy")
	work := func(heat bool) Laying {
		return Work(&surface.Event{Effect: &c.Effects[x], Doing: &surface.Step{Do: surface.Effect, Effect: "chippy", Heat: heat}})
	}
	cool, hot := strings.Join(work(false).Before, " "), strings.Join(work(true).Before, " ")
	if strings.Contains(cool, "catch fire") || !strings.Contains(hot, "catch fire") || !strings.Contains(cool, "It needs at least two coats") {
		t.Errorf("before it: %q, and with warm air %q", cool, hot)
	}
	if l := work(false); len(l.Steps) == 0 || len(l.Clocks) != 1 || l.Clocks[0].Seconds != max(c.Effects[x].Settles, c.Effects[x].Rests)*3600 {
		t.Errorf("steps %v, clocks %v", l.Steps, l.Clocks)
	}
}

func TestHowAProductIsThinned(t *testing.T) {
	c := craft.Default()
	names := func(product, method string, cloth bool) string {
		p, _ := c.Product(product)
		var out []string
		for _, r := range craft.Thinnings {
			if r.Fits(&c.Products[p], method, cloth) {
				out = append(out, r.ID)
			}
		}
		return strings.Join(out, " ")
	}
	for _, x := range []struct {
		product, method string
		cloth           bool
		want            string
	}{
		{"paint_acrylic", "brush", false, "none brush wash"},
		{"paint_acrylic", "spray", false, "none spray"},
		{"clear_wb", "brush", false, "none brush"}, // a clear is no wash
		{"fabric_wash", "brush", true, "cloth_strong cloth cloth_thin"},
		{"crackle_medium", "brush", false, ""}, // a thinned medium does not work
	} {
		if got := names(x.product, x.method, x.cloth); got != x.want {
			t.Errorf("%s by %s: %q, want %q", x.product, x.method, got, x.want)
		}
	}
}
