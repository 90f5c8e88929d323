package plan

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
)

// exhaust judges every plan of the vocabulary by all rules, without a bound, without
// merging and without stopping at a beginning that a rule fails, and returns the
// least points and how many beginnings and plans that took.
func exhaust(t testing.TB, ask Request, most int) (best float64, which *Plan, opened, judged int) {
	t.Helper()
	p, err := newPlanner(craft.Default(), ask)
	if err != nil {
		t.Fatal(err)
	}
	best = math.Inf(1)
	p.nodes = append(p.nodes, p.root())
	for i := 0; i < len(p.nodes) && opened+judged < most; i++ {
		opened++
		j := p.evaluator.SoFar(p.path(int32(i)))
		p.took(&p.nodes[i], &j)
		for _, m := range p.next(&p.nodes[i]) {
			if n, ok := p.child(int32(i), &m); ok {
				if m.to == grounding && p.nodes[i].stage != grounding {
					n.statics[Dirt] = p.soiled()
				}
				p.nodes = append(p.nodes, n)
			}
		}
		if !p.nodes[i].grounded {
			continue
		}
		coats, below := make([]int, len(p.ends)), p.coloursBelow()
		for k := range p.ends {
			coats[k] = p.coatsOver(&p.ends[k], below)
		}
		for k := range p.ends {
			if !p.pairs(&p.nodes[i], &p.ends[k]) {
				continue
			}
			judged++
			if x := p.whole(int32(i), end{tail: int32(k), coats: int32(coats[k])}); x != nil {
				if x.Points < best {
					best, which = x.Points, x
				}
			}
		}
	}
	if opened+judged >= most {
		return math.NaN(), nil, opened, judged
	}
	return best, which, opened, judged
}

// cases is how many random cases a test takes: all of them, or in short tests some.
func cases(all, some int) int {
	if testing.Short() {
		return some
	}
	return all
}

// smallZone is a random zone that a painter may bring, with few enough products on
// the shelf for all plans of it to be tried.
func smallZone(r *rand.Rand, c *craft.Craft) Request {
	z := &check.Zone{Look: craft.LookSolid, SoilsKnown: r.IntN(6) > 0, Made: 2004}
	z.Moisture, z.AgeDays, z.Area = -1, -1, .5+2*r.Float64()
	pick := func(ids ...string) string { return ids[r.IntN(len(ids))] }
	z.Substrate, _ = c.Substrate(pick("oak", "pine", "beech", "mahogany", "mdf", "laminate_hpl", "paper_foil_board", "steel", "galvanised", "glass", "plastic_abs", "terracotta", "vinyl_fabric", "teak", "brass"))
	z.Finish, _ = c.Finish("none")
	if f := c.Substrates[z.Substrate].Family; f == craft.WoodBare || f == craft.BoardRaw {
		z.Finish, _ = c.Finish(pick("none", "varnish_oil", "shellac", "lacquer", "wax", "paint_acrylic_old", "unknown", "stain_only"))
	}
	z.Gloss = craft.Sheen(1 + r.IntN(6))
	for range r.IntN(3) {
		s, _ := craft.SoilNamed(pick("grease", "grime", "wax_polish", "silicone", "nicotine", "dust", "release_agent"))
		z.Soils[s] = uint8(1 + r.IntN(3))
	}
	if r.IntN(3) == 0 {
		z.GivenBleeders = true
		b, _ := craft.BleederNamed(pick("tannin", "resin", "dye", "rust", "ink", "salts", "nicotine"))
		z.Bleeders[b] = uint8(1 + r.IntN(3))
	}
	if r.IntN(12) == 0 {
		z.Loose = craft.LooseFlakes
	}
	z.Wear = craft.Wear(r.IntN(4))
	z.Climate = drying.Climate{TempC: 12 + 14*r.Float64(), RH: 40 + 35*r.Float64()}
	if r.IntN(4) == 0 { // air that is watched
		z.Climate = drying.Climate{TempC: 7 + 26*r.Float64(), RH: 25 + 60*r.Float64()}
	}
	z.Colour = pick("#f2f0ea", "#7d8f86", "#202830", "#c9a23a")
	z.Sheen = craft.Sheen(r.IntN(7))
	if r.IntN(4) == 0 {
		z.Look = pick("chippy", "crackle", "distress_dry", "glaze", "stencil", "distress_wet", "lift_off", "gild", "raised_stencil", "limed", "enamelware", "wash_wipe")
	}
	if r.IntN(8) == 0 {
		z.Unmasked = []string{"glass"}
	}
	if r.IntN(10) == 0 {
		z.Made = 1950
	}
	z.Uneven, z.GapMM = r.IntN(8) == 0, []float64{0, 0, 0, .4, 1}[r.IntN(5)]
	ask := Request{Zone: z, Way: Ways[0], PutBack: r.IntN(6) == 0}
	if r.IntN(3) == 0 {
		ask.Way = Ways[r.IntN(len(Ways))]
	}
	primers := []string{"shellac_clear", "shellac_pigmented", "primer_stainblock_oil", "primer_stainblock_wb", "primer_bond_wb", "primer_metal", "primer_galv", "primer_glass", "primer_plastic", "sealer_masonry"}
	paints := []string{"paint_milk", "paint_chalk", "paint_clay", "paint_acrylic", "paint_mineral", "paint_enamel_wb", "paint_enamel_oil", "paint_flexible", "paint_aerosol", "crackle_medium", "glaze_wb"}
	tops := []string{"clear_wb", "clear_wb_hard", "clear_oil", "wax_clear", "wax_oil", "shellac_top"}
	ask.Way.Shelf = []string{}
	for _, list := range []struct {
		ids []string
		n   int
	}{{primers, 2}, {paints, 3}, {tops, 2}} {
		for _, i := range r.Perm(len(list.ids))[:list.n] {
			ask.Way.Shelf = append(ask.Way.Shelf, list.ids[i])
		}
	}
	switch z.Look { // what makes it is there
	case "chippy":
		ask.Way.Shelf = append(ask.Way.Shelf, "paint_milk", "wax_clear")
	case "distress_dry":
		ask.Way.Deep = r.IntN(2) == 0
	case "crackle":
		ask.Way.Shelf = append(ask.Way.Shelf, "crackle_medium", "paint_chalk")
	case "glaze":
		ask.Way.Shelf = append(ask.Way.Shelf, "glaze_wb", "clear_wb")
	case "lift_off":
		ask.Way.Shelf = append(ask.Way.Shelf, "lift_medium", "paint_chalk")
	case "gild":
		ask.Way.Shelf = append(ask.Way.Shelf, "size_leaf", "paint_acrylic", "shellac_clear")
	case "limed":
		ask.Way.Shelf = append(ask.Way.Shelf, "wax_white", "clear_wb")
	}
	if r.IntN(2) == 0 { // a kit that lacks some of it, and habits that are off
		kit := Kit{ID: "own", Choice: [numPaintUses]string{UseEveryday: pick(paints...), UseMatt: "paint_chalk"}}
		for _, id := range ask.Way.Shelf {
			if r.IntN(3) > 0 {
				kit.Products = append(kit.Products, id)
			}
		}
		for t := range numTools {
			if r.IntN(2) == 0 || t == Gun {
				kit.Tools = append(kit.Tools, Tools[t].ID)
			}
		}
		ask.Kit = &kit
	}
	switch r.IntN(3) {
	case 0:
		ask.HabitsOff = HabitSet(r.IntN(1 << NumHabits))
	case 1:
		ask.HabitsOff = AllHabits
	}
	if r.IntN(6) == 0 {
		ask.TakeOff = "knobs"
	}
	for i := range ask.Weights {
		ask.Weights[i] = []float64{.3, 1, 3}[r.IntN(3)]
	}
	if ask.Kit != nil && r.IntN(2) == 0 { // with some of it on the shelf, and labels on some of that
		var cans []craft.Can
		ask.Kit.Shelf = true
		for _, id := range ask.Kit.Products {
			k, _ := c.Product(id)
			l := &craft.Label{}
			switch r.IntN(4) {
			case 0:
				ask.Kit.Open = append(ask.Kit.Open, id)
			case 1:
				ask.Kit.Closed = append(ask.Kit.Closed, id)
			default:
				continue
			}
			if r.IntN(2) == 0 {
				l.Has[craft.LabelRecoatFrom], l.At[craft.LabelRecoatFrom] = true, 1+20*r.Float64()
			}
			if r.IntN(3) == 0 {
				l.On = []craft.Family{c.Substrates[z.Substrate].Family}
			}
			cans = append(cans, craft.Can{Kind: k, Label: l})
		}
		ask.Stocked = c.Stocked(cans)
	}
	return ask
}

// The plan that is found is the best of all there are.
func TestBestOfAllThereAre(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	r := rand.New(rand.NewPCG(21, 7))
	// One zone in fifty has more plans than the first, and takes as long as ten others.
	wanted, most := cases(800, 40), cases(25_000, 3_000)
	zones, planned, soiled, waxed, bleeding, slick := 0, 0, 0, 0, 0, 0
	var all, looked float64
	for tried := 0; zones < wanted; tried++ {
		if tried > 6*wanted {
			t.Fatalf("only %d of %d zones were small enough", zones, tried)
		}
		ask := smallZone(r, c)
		best, which, opened, judged := exhaust(t, ask, most)
		if math.IsNaN(best) {
			continue
		}
		zones++
		p, _ := newPlanner(c, ask)
		a := p.search(context.Background())
		if !a.Proved {
			t.Fatalf("not proved: %s", describe(c, &ask))
		}
		switch {
		case a.Best == nil && !math.IsInf(best, 1):
			t.Fatalf("nothing found where there is a plan of %.2f points: %s", best, describe(c, &ask))
		case a.Best != nil && math.Abs(a.Best.Points-best) > 1e-6:
			t.Fatalf("%.6f points found, the best has %.6f: %s\n%s%s", a.Best.Points, best, describe(c, &ask), words(c, a.Best), words(c, which))
		case a.Best != nil:
			planned++
		}
		all += float64(opened + judged)
		looked += float64(a.Stats.Opened + a.Stats.Judged)
		z := ask.Zone
		for s := range z.Soils {
			if z.Soils[s] > 0 {
				soiled++
				break
			}
		}
		if z.Soils[craft.WaxPolish] > 0 || c.Finishes[z.Finish].Family == craft.WaxFilm && !c.Finishes[z.Finish].Bare {
			waxed++
		}
		if z.GivenBleeders {
			bleeding++
		}
		if f := c.Substrates[z.Substrate].Family; f == craft.MelamineFilm || f == craft.GlassSmooth || z.Gloss >= craft.SemiGloss {
			slick++
		}
	}
	t.Logf("%d zones (%d soiled, %d waxed, %d bleeding, %d slick), %d with a plan; %.0f looked at a zone, of %.0f", zones, soiled, waxed, bleeding, slick, planned, looked/float64(zones), all/float64(zones))
	if planned < wanted/3 || soiled < wanted/9 || waxed < wanted/18 || bleeding < wanted/9 || slick < wanted/9 {
		t.Error("the zones are too much alike")
	}
}

func describe(c *craft.Craft, a *Request) string {
	z := a.Zone
	return fmt.Sprintf("%s %s gloss %v, soils %v, bleeders %v, loose %v, wear %s, look %q, %v, sheen %v, colour %s, made %d; way %s with %v, weights %v",
		c.Substrates[z.Substrate].ID, c.Finishes[z.Finish].ID, z.Gloss, z.Soils, z.Bleeders, z.Loose, craft.Wears[z.Wear].ID, z.Look, z.Climate, z.Sheen, z.Colour, z.Made, a.Way.ID, a.Way.Shelf, a.Weights)
}

func words(c *craft.Craft, p *Plan) string {
	s := fmt.Sprintf("%.2f points, %v\n", p.Points, p.Amounts)
	for i := range p.Steps {
		s += "  " + check.StepWords(c, &p.Steps[i]) + "\n"
	}
	return s
}
