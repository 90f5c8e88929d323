package check

import (
	"slices"
	"strconv"
	"strings"
	"testing"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/identify"
	"rutile/core/shelf"
	"rutile/core/surface"
)

// The tests write zones and plans in a shorthand of their own.
//
//	zone: "oak varnish_oil satin; soils grease2; bleed tannin2; wear seat; use outdoor"
//	plan: "degreaser_alkaline rinse; sand 220; dust; shellac_pigmented wait12; paint_chalk x2; wait 24"

func zoneOf(t testing.TB, facts, plan string) *Zone {
	t.Helper()
	c := craft.Default()
	z := &Zone{Look: craft.LookSolid, SoilsKnown: true, Made: 2004, Colour: "#f2f0ea"}
	z.Moisture, z.Climate, z.Wear, z.Area, z.AgeDays = -1, drying.Usual, craft.Handled, 1, -1
	z.Finish, _ = c.Finish("none")
	var tests []string
	for i, clause := range strings.Split(facts, ";") {
		w := strings.Fields(clause)
		if len(w) == 0 {
			continue
		}
		if i == 0 {
			var ok bool
			if z.Substrate, ok = c.Substrate(w[0]); !ok {
				t.Fatalf("no substrate %q", w[0])
			}
			for _, x := range w[1:] {
				f, isFinish := c.Finish(x)
				s, isSheen := craft.SheenNamed(x)
				switch {
				case isFinish:
					z.Finish = f
				case isSheen:
					z.Gloss = s
				default:
					t.Fatalf("no finish or sheen %q", x)
				}
			}
			continue
		}
		switch w[0] {
		case "soils", "bleed":
			if w[0] == "bleed" {
				z.GivenBleeders = true
			}
			for _, x := range w[1:] {
				id, lv := x[:len(x)-1], x[len(x)-1]-'0'
				s, isSoil := craft.SoilNamed(id)
				b, isBleeder := craft.BleederNamed(id)
				switch {
				case w[0] == "soils" && isSoil:
					z.Soils[s] = lv
				case w[0] == "bleed" && isBleeder:
					z.Bleeders[b] = lv
				default:
					t.Fatalf("no %q", x)
				}
			}
		case "unseen":
			z.SoilsKnown = false
		case "wear":
			var ok bool
			if z.Wear, ok = craft.WearNamed(w[1]); !ok {
				t.Fatalf("no wear %q", w[1])
			}
		case "use":
			u, ok := craft.UsesNamed(w[1])
			if !ok {
				t.Fatalf("no use %q", w[1])
			}
			z.Uses |= u
		case "knots":
			z.Knots = 3
		case "veneer":
			z.Veneer = true
		case "defects":
			for _, x := range w[1:] {
				d := defectNamed(t, x)
				z.Loose |= d.Loose
				z.Uneven = z.Uneven || d.Uneven
			}
		case "age":
			z.AgeDays = num(t, w[1])
		case "gap":
			z.GapMM = num(t, w[1])
		case "touching":
			z.Touching = true
		case "fitting":
			z.Unmasked = w[1:]
		case "ground":
			z.Ground = w[1]
		case "target":
			var ok bool
			if z.Sheen, ok = craft.SheenNamed(w[1]); !ok {
				t.Fatalf("no sheen %q", w[1])
			}
		case "surface":
			z.SurfaceRead, z.SurfaceC = true, num(t, w[1])
		case "match": // the paint of another zone, its colour, and whether it is absorbent
			p, _ := c.Product(w[1])
			z.Match = append(z.Match, Base{Name: "the doors", Paint: p, Colour: w[2], Absorbs: len(w) > 3, Primer: craft.NoProduct})
		case "flaking":
			z.Loose = craft.LooseFlakes
		case "made":
			z.Made, _ = strconv.Atoi(w[1])
		case "colour":
			z.Colour = w[1]
		case "look":
			z.Look = w[1]
		case "moist":
			z.Moisture, _ = strconv.ParseFloat(w[1], 64)
		case "site":
			z.Climate.TempC, _ = strconv.ParseFloat(w[1], 64)
			z.Climate.RH, _ = strconv.ParseFloat(w[2], 64)
		case "tests":
			tests = w[1:]
		case "board": // product, family, class; made with everything right
			p, _ := craft.Default().Product(w[1])
			z.PatchTests = append(z.PatchTests, surface.PatchTest{Product: p, On: familyNamed(t, w[2]), Class: int(w[3][0] - '0'), Hidden: true})
		case "swab":
			z.LeadTest = &LeadTest{By: "swab", Date: "2026-11-01", Found: w[1] == "lead"}
		case "laboratory":
			z.LeadTest = &LeadTest{By: "laboratory", Date: "2026-11-01", Found: w[1] == "lead"}
		case "prepared":
			z.Prepared = true
		case "beside":
			what, dangerous := craft.Chemical(0), false
			if cl, ok := c.Cleaner(w[1]); ok {
				what, dangerous = c.Cleaners[cl].Chemical()
			} else {
				p, _ := c.Product(w[1])
				what, dangerous = c.Products[p].Chemical()
			}
			if dangerous {
				z.Beside = append(z.Beside, Chemical{What: what, Zone: "the drawers", Step: 1})
			}
		case "can": // a kind, then what is known of it
			z.Cans = append(z.Cans, canOfWords(t, w[1:]))
		case "area":
			z.Area = num(t, w[1])
		case "today":
			z.Today = w[1]
		case "excluded":
			z.LeadTest = &LeadTest{By: "laboratory", Date: "2026-11-01"}
		default:
			t.Fatalf("no clause %q", w[0])
		}
	}
	if tests != nil {
		c := craft.Default()
		var as []identify.Answer
		for _, x := range tests {
			test, outcome, _ := strings.Cut(x, "=")
			as = append(as, identify.Answer{Test: test, Outcome: outcome})
		}
		b, err := identify.Believe(identify.Known{Substrate: c.Substrates[z.Substrate].ID, Veneer: z.Veneer, Made: z.Made}, as)
		if err != nil {
			t.Fatal(err)
		}
		z.Tests = b
	}
	z.Steps = stepsOf(t, plan)
	return z
}

// canOfWords reads a can: its kind, and then what is known of it, as left=.4 or not=wood_bare.
func canOfWords(t testing.TB, w []string) Can {
	t.Helper()
	c := craft.Default()
	x := Can{Can: shelf.Can{ID: "can", Name: "The can", Kind: craft.NoProduct, Size: 1, Left: 1, Label: &craft.Label{}}}
	if w[0] != craft.AdditiveID {
		var ok bool
		if x.Kind, ok = c.Product(w[0]); !ok {
			t.Fatalf("no product %q", w[0])
		}
	}
	for _, kv := range w[1:] {
		switch k, v, _ := strings.Cut(kv, "="); k {
		case "left":
			x.Left = num(t, v)
		case "colour":
			x.Colour = v
		case "opened":
			x.Opened = v
		case "for":
			x.For = v
		case "elsewhere":
			x.Elsewhere = num(t, v)
		case "not":
			if u, ok := craft.UsesNamed(v); ok {
				x.Label.NotFor |= u
			} else {
				x.Label.NotOn = append(x.Label.NotOn, familyNamed(t, v))
			}
		case "on":
			x.Label.On = append(x.Label.On, familyNamed(t, v))
		case "stops":
			b, ok := craft.BleederNamed(v)
			if !ok {
				t.Fatalf("no stain %q", v)
			}
			x.Label.Stops = append(x.Label.Stops, b)
		default:
			i := slices.IndexFunc(craft.LabelFigures[:], func(r craft.LabelRow) bool { return r.ID == k })
			if i < 0 {
				t.Fatalf("no figure %q", k)
			}
			x.Label.Has[i], x.Label.At[i] = true, num(t, v)
		}
	}
	return x
}

// craftOf is the craft with the cans of a zone.
func craftOf(z *Zone) *craft.Craft {
	cans := make([]craft.Can, len(z.Cans))
	for i, x := range z.Cans {
		cans[i] = craft.Can{Kind: x.Kind, Colour: x.Colour, Label: x.Label}
	}
	c, _ := craft.Default().WithCans(cans)
	return c
}

func num(t testing.TB, s string) float64 {
	t.Helper()
	x, err := strconv.ParseFloat(s, 64)
	if err != nil {
		t.Fatal(err)
	}
	return x
}

func defectNamed(t testing.TB, id string) *craft.DefectRow {
	t.Helper()
	for i := range craft.Defects {
		if craft.Defects[i].ID == id {
			return &craft.Defects[i]
		}
	}
	t.Fatalf("no damage %q", id)
	return nil
}

func familyNamed(t testing.TB, id string) craft.Family {
	t.Helper()
	for f := range craft.Families {
		if craft.Families[f].ID == id {
			return craft.Family(f)
		}
	}
	t.Fatalf("no family %q", id)
	return 0
}

func stepsOf(t testing.TB, plan string) []surface.Step {
	t.Helper()
	c := craft.Default()
	var out []surface.Step
	for _, clause := range strings.Split(plan, ";") {
		w := strings.Fields(clause)
		if len(w) == 0 {
			continue
		}
		s := surface.Step{Method: "brush"}
		cl, isCleaner := c.Cleaner(w[0])
		p, isProduct := c.Product(w[0])
		if n, isCan := strings.CutPrefix(w[0], "can"); isCan {
			p, isProduct = craft.Product(len(c.Products)+int(num(t, n))-1), true
		}
		switch {
		case isCleaner:
			s = surface.Step{Do: surface.Clean, Cleaner: cl, Rinse: slices.Contains(w, "rinse")}
		case w[0] == "sand":
			s = surface.Step{Do: surface.Abrade, How: craft.Hand}
			s.Grit, _ = strconv.Atoi(w[1])
			s.Through = slices.Contains(w, "through")
			if slices.Contains(w, "wet") {
				s.How = craft.Wet
			}
			if slices.Contains(w, "machine") {
				s.How = craft.Machine
			}
		case w[0] == "pad":
			s = surface.Step{Do: surface.Abrade, How: craft.Pad}
		case w[0] == "wait":
			s = surface.Step{Do: surface.Wait}
			s.Hours, _ = strconv.ParseFloat(w[1], 64)
		case isProduct:
			s.Do, s.Product, s.Auto = surface.Coat, p, true
		default:
			k, ok := surface.KindNamed(w[0])
			if !ok {
				t.Fatalf("no step %q", clause)
			}
			s = surface.Step{Do: k}
			switch k {
			case surface.Strip:
				s.StripHow = w[1]
			case surface.Fill:
				s.With = "filler_" + w[1]
			case surface.Test:
				s.Rating, _ = strconv.Atoi(w[1])
			case surface.Effect:
				s.Effect = w[1]
				s.Heat, s.Wetted = slices.Contains(w, "heat"), slices.Contains(w, "wetted")
				if _, ok := c.Effect(w[1]); !ok {
					t.Fatalf("no effect %q", w[1])
				}
			}
		}
		for _, x := range w[1:] {
			id, value, given := strings.Cut(x, ":")
			switch {
			case given && id == "sheen":
				s.Sheen, _ = craft.SheenNamed(value)
			case given && id == "resist":
				s.Resist = value
			case given && id == "recipe":
				s.Remix(func(m *surface.Mix) { m.Recipe = value })
			case given && id == "tint":
				s.Remix(func(m *surface.Mix) { m.Tint = num(t, value) })
			case given && id == "litres":
				s.Remix(func(m *surface.Mix) { m.Paint = num(t, value) })
			case x == "unstrained":
				s.Remix(func(m *surface.Mix) { m.Unstrained = true })
			case given && id == "grit":
				s.Grit, _ = strconv.Atoi(value)
			case x == "spray" || x == "first":
				if x == "spray" {
					s.Method = x
				} else {
					s.AdditiveFirst = true
				}
			case strings.HasPrefix(x, "col#"):
				s.Colour = x[3:]
			case strings.HasPrefix(x, "thin") && s.Do == surface.Coat:
				s.ThinPct = num(t, x[4:])
			case strings.HasPrefix(x, "water") && s.Do == surface.Coat:
				s.WaterRatio = num(t, x[5:])
			case x == "knots":
				s.Scope = surface.Knots
			case x == "spots":
				s.Scope = surface.Spots
			case strings.HasPrefix(x, "wait"):
				s.Auto = false
				s.WaitH, _ = strconv.ParseFloat(x[4:], 64)
			case strings.HasPrefix(x, "add"):
				s.Additive, _ = strconv.ParseFloat(x[3:], 64)
			case strings.HasPrefix(x, "x"):
				n, _ := strconv.Atoi(x[1:])
				if s.Do == surface.Clean {
					s.Passes = n
				} else {
					s.Coats = n
				}
			}
		}
		out = append(out, s)
	}
	return out
}

func codes(r *Result, from Severity) []string {
	var out []string
	for _, f := range r.Findings {
		if f.Severity >= from {
			out = append(out, f.Code)
		}
	}
	return out
}
