package section

import (
	"strings"
	"testing"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/surface"
)

// Each line is a step with what is said of it; of its layers, how long each is left and when it
// takes the next coat.
func TestWhatIsSaidOfSteps(t *testing.T) {
	c := craft.Default()
	product := func(id string) craft.Product {
		p, ok := c.Product(id)
		if !ok {
			t.Fatal(id)
		}
		return p
	}
	layers := func(waits ...float64) []Layer {
		out := make([]Layer, 0, len(waits)/2)
		for i := 0; i < len(waits); i += 2 {
			out = append(out, Layer{Kind: Laid, Waits: waits[i], From: waits[i+1]})
		}
		return out
	}
	chalk := surface.Step{Do: surface.Coat, Product: product("paint_chalk"), Auto: true}
	two, three, typed := chalk, chalk, chalk
	knots := surface.Step{Do: surface.Coat, Product: product("shellac_pigmented"), Coats: 2, Auto: true, Scope: surface.Knots}
	two.Coats, three.Coats, typed.Coats, typed.Auto, typed.WaitH = 2, 3, 2, false, 0
	for _, x := range []struct {
		says   string
		step   surface.Step
		layers []Layer
		more   bool
	}{
		// 35 h until the second coat, and five days until the plan's end: neither is true of each.
		{"2 coats, wait 35 h after the first, 5 days after the last", two, layers(35, 35, 120, 0), false},
		{"2 coats, wait 4 h after each, the earliest here", two, layers(4, 4, 4, 4), true},
		{"2 coats, wait 4 h after the first, the earliest here", two, layers(4, 4, 0, 0), false},
		{"3 coats, wait 4 h between coats, 30 h after the last", three, layers(4, 4, 4, 4, 30, 4), true},
		{"1 coat, wait 4 h, the earliest here", chalk, layers(4, 4), true},
		{"1 coat, wait 30 h", chalk, layers(30, 4), true},
		{"1 coat", chalk, layers(0, 0), false},
		{"1 coat", chalk, nil, false},
		// Typed, a wait of 0 h is a wait of 0 h.
		{"2 coats, wait 0 min after each", typed, layers(0, 4, 0, 4), true},
		{"by hand, through to the bare material", surface.Step{Do: surface.Abrade, How: craft.Hand, Grit: 120, Through: true}, nil, false},
		{"", surface.Step{Do: surface.Abrade, How: craft.Pad}, nil, false},
		{"the hinges", surface.Step{Do: surface.Mask, What: "the hinges"}, nil, false},
		{"over shellac, still tacky in patches, lay it, and paint over it within 21 min", surface.Step{Do: surface.Effect, Effect: "chippy", Resist: "shellac_tacky"}, nil, false},
		{"2 coats, on the knots only, 25 mm beyond each mark, feathered out", knots, nil, false},
		{"over wax in patches, with warm air, wetted, with 220, 10 % of it", surface.Step{Do: surface.Effect, Effect: "chippy", Resist: "wax", Heat: true, Wetted: true, Grit: 220, Share: .1}, nil, false},
	} {
		z := check.Zone{Steps: []surface.Step{x.step}}
		z.Climate = drying.Standard
		if got := strings.Join(notes(c, &z, 0, x.layers, x.more), ", "); got != x.says {
			t.Errorf("%s, and not %s", got, x.says)
		}
	}
	for want, s := range map[string]surface.Step{
		"Sand with 220":         {Do: surface.Abrade, How: craft.Hand, Grit: 220},
		"Scuff with a fine pad": {Do: surface.Abrade, How: craft.Pad},
		"Chalk paint":           two,
		"Remove the old foil":   {Do: surface.Remove, What: "the old foil"},
		"Wait 36 h":             {Do: surface.Wait, Hours: 36},
		"Mask":                  {Do: surface.Mask, What: "the hinges"},
		"Dust off":              {Do: surface.Dust},
	} {
		if got := Title(c, &s); got != want {
			t.Errorf("%q, and not %q", got, want)
		}
	}
}
