package plan

import (
	"context"
	"testing"
	"time"

	"rutile/core/check"
	"rutile/core/craft"
)

func TestTry(t *testing.T) {
	c := craft.Default()
	for _, facts := range []string{
		"oak varnish_oil satin; soils grease2 grime1; bleed tannin2; target matt",
		"pine; knots; colour #f2f0ea",
		"laminate_hpl satin; soils grime1",
		"beech varnish_oil gloss; look chippy; colour #dfe3d6",
		"steel gloss; soils oil_cutting1",
		"unknown_wood unknown satin",
		"mahogany varnish_oil satin; soils wax_polish2; wear tabletop; bleed tannin2 dye2",
	} {
		z := zoneOf(t, facts)
		at := time.Now()
		a, err := Find(context.Background(), c, Ask{Zone: z, Way: Ways[0]})
		if err != nil {
			t.Fatal(err)
		}
		t.Logf("%s: %v %+v proved %v", facts, time.Since(at), a.Stats, a.Proved)
		for _, x := range []*Plan{a.Best, a.Next} {
			if x == nil {
				continue
			}
			t.Logf("  %.1f points, amounts %.3v", x.Points, x.Amounts)
			for i := range x.Steps {
				t.Logf("    %s", check.StepWords(c, &x.Steps[i]))
			}
		}
	}
}
