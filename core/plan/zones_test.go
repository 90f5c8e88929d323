package plan

import (
	"fmt"
	"strings"
	"testing"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
)

// zoneOf reads a zone written as clauses: the material with its finish and its
// shine, and then any of soils, bleed, wear, use, look, colour and the like.
func zoneOf(t testing.TB, facts string) *check.Zone {
	t.Helper()
	c := craft.Default()
	z := &check.Zone{Look: craft.LookSolid, SoilsKnown: true, Made: 2004, Colour: "#f2f0ea"}
	z.Moisture, z.Climate, z.Wear, z.Area, z.AgeDays = -1, drying.Usual, craft.Handled, 1, -1
	z.Finish, _ = c.Finish("none")
	clauses := strings.Split(facts, ";")
	first := strings.Fields(clauses[0])
	var ok bool
	if z.Substrate, ok = c.Substrate(first[0]); !ok {
		t.Fatalf("no material %q", first[0])
	}
	for _, id := range first[1:] {
		if f, ok := c.Finish(id); ok {
			z.Finish = f
		} else if z.Gloss, ok = craft.SheenNamed(id); !ok {
			t.Fatalf("neither finish nor shine: %q", id)
		}
	}
	number := func(s string) (x float64) {
		if _, err := fmt.Sscan(s, &x); err != nil {
			t.Fatalf("%q: %v", s, err)
		}
		return x
	}
	reads := map[string]func(word string) bool{
		"soils": func(w string) bool {
			s, ok := craft.SoilNamed(w[:len(w)-1])
			z.Soils[s] = w[len(w)-1] - '0'
			return ok
		},
		"bleed": func(w string) bool {
			b, ok := craft.BleederNamed(w[:len(w)-1])
			z.Bleeders[b] = w[len(w)-1] - '0'
			return ok
		},
		"wear":   func(w string) (ok bool) { z.Wear, ok = craft.WearNamed(w); return ok },
		"use":    func(w string) bool { u, ok := craft.UsesNamed(w); z.Uses |= u; return ok },
		"target": func(w string) (ok bool) { z.Sheen, ok = craft.SheenNamed(w); return ok },
		"look":   func(w string) bool { z.Look = w; return true },
		"colour": func(w string) bool { z.Colour = w; return true },
		"ground": func(w string) bool { z.Ground = w; return true },
		"made":   func(w string) bool { z.Made = int(number(w)); return true },
		"age":    func(w string) bool { z.AgeDays = number(w); return true },
		"moist":  func(w string) bool { z.Moisture = number(w); return true },
		"warm":   func(w string) bool { z.Climate.TempC = number(w); return true },
		"damp":   func(w string) bool { z.Climate.RH = number(w); return true },
		"area":   func(w string) bool { z.Area = number(w); return true },
		"gap":    func(w string) bool { z.GapMM = number(w); return true },
		"fitting": func(w string) bool {
			z.Unmasked = append(z.Unmasked, w)
			return true
		},
		"loose": func(w string) bool {
			for i := range craft.Defects {
				if craft.Defects[i].ID == w {
					z.Loose |= craft.Defects[i].Loose
					return z.Loose != 0
				}
			}
			return false
		},
	}
	for _, clause := range clauses[1:] {
		w := strings.Fields(clause)
		switch w[0] {
		case "bleed":
			z.GivenBleeders = true
		case "knots":
			z.Knots = 3
		case "veneer":
			z.Veneer = true
		case "prepared":
			z.Prepared = true
		case "unseen":
			z.SoilsKnown = false
		case "touching":
			z.Touching = true
		case "uneven":
			z.Uneven = true
		}
		for _, word := range w[1:] {
			if f := reads[w[0]]; f == nil || !f(word) {
				t.Fatalf("%q in %q", word, facts)
			}
		}
	}
	return z
}
