package plan

import (
	"context"
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/surface"
)

// objections are what no painter would hand to a client, found by looking at the steps as they are
// written. They know nothing of how the planner finds them.
func objections(c *craft.Craft, ask *Request, p *Plan) []string {
	z := ask.Zone
	var out []string
	no := func(format string, args ...any) { out = append(out, fmt.Sprintf(format, args...)) }
	steps := p.Steps
	sub, fin := &c.Substrates[z.Substrate], &c.Finishes[z.Finish]
	look, _ := c.Effect(z.Look)
	var effect craft.EffectRow
	if look != craft.NoEffect {
		effect = c.Effects[look]
	}
	flakes, solid := effect.Ground == craft.GroundPowder, z.Look == "" || z.Look == craft.LookSolid
	lead, damp := z.LeadBars(c), z.Uses&(craft.UseOutdoor|craft.Damp) != 0 || z.Wear == craft.Outdoor
	outdoors := z.Uses&craft.UseOutdoor != 0 || z.Wear == craft.Outdoor
	metal := sub.Group == craft.GroupMetal
	row := func(s *surface.Step) *craft.ProductRow { return &c.Products[s.Product] }
	coat := func(s *surface.Step) bool { return s.Do == surface.Coat && s.Scope == surface.All }
	first := slices.IndexFunc(steps, func(s surface.Step) bool { return coat(&s) })
	if first < 0 {
		return []string{"nothing is painted"}
	}
	before := steps[:slices.IndexFunc(steps, func(s surface.Step) bool { return s.Do == surface.Coat })]
	has := func(list []surface.Step, f func(*surface.Step) bool) bool {
		return slices.ContainsFunc(list, func(s surface.Step) bool { return f(&s) })
	}
	wash := func(s *surface.Step) bool {
		return s.Do == surface.Clean && c.Cleaners[s.Cleaner].Carrier == craft.Water
	}
	rub := func(s *surface.Step) bool {
		return s.Do == surface.Abrade || s.Do == surface.Strip || s.Do == surface.RaiseGrain || s.Do == surface.Clean && c.Cleaners[s.Cleaner].Key > 0
	}
	stripped := has(before, func(s *surface.Step) bool { return s.Do == surface.Strip })
	drinks := craft.Families[sub.Family].Porous
	sands := ask.Way.Sand != SandNever
	on := func(h Habit) bool { return !(ask.HabitsOff | ask.Way.drops()).Has(h) }

	if on(WashFirst) && (!fin.Bare || !drinks) && sub.Family != craft.Leather && (sub.Family != craft.MineralPorous || z.Soils[craft.SaltsSoil] == 0) && sub.Family != craft.Textile && !stripped && !has(before, wash) {
		no("a used piece is not washed")
	}
	hard := []craft.Family{craft.ShellacFilm, craft.VarnishFilm, craft.LacquerFilm, craft.AcrylicPaint, craft.AlkydPaint, craft.MelamineFilm, craft.VinylRigid, craft.PlasticHard, craft.PowderFilm}
	top := fin.Family
	if fin.Bare {
		top = sub.Family
	}
	if on(ScuffFilms) && sands && !flakes && slices.Contains(hard, top) && !fin.Unknown && !has(before, rub) && !(lead && top == craft.VinylRigid) {
		no("a hard film is not scuffed")
	}
	if on(SandBare) && sands && fin.Bare && !z.Prepared && (sub.Group == craft.GroupWood || sub.Group == craft.GroupBoard) && !has(before, rub) {
		no("bare wood is not sanded")
	}
	if spirit := before[max(0, len(before)-1):]; on(SpiritWipe) && !ask.Way.NoSmell && fin.Bare && (metal || sub.Group == craft.GroupGlass || sub.Family == craft.WoodOily) && !has(before, func(s *surface.Step) bool { return s.Do == surface.Clean && c.Cleaners[s.Cleaner].Biocide }) &&
		!has(spirit, func(s *surface.Step) bool { return s.Do == surface.Clean && c.Cleaners[s.Cleaner].Carrier.Volatile() }) {
		no("not wiped with spirit before its first coat")
	}
	sanded := false
	cleans := map[craft.Cleaner]int{}
	primers, paints, clears := 0, map[craft.Product]bool{}, map[craft.Product]bool{}
	var last *craft.ProductRow
	waxed := false
	for i := range steps {
		s := &steps[i]
		switch s.Do {
		case surface.Abrade:
			sanded = true
			if lead && s.How != craft.Wet && i < first {
				no("dry sanding where there may be lead")
			}
		case surface.Dust:
			sanded = false
		case surface.Clean:
			if row := &c.Cleaners[s.Cleaner]; row.Key == 0 && row.Carrier != craft.Alcohol && row.Carrier != craft.Dry {
				cleans[s.Cleaner]++
			}
			if c.Cleaners[s.Cleaner].Carrier != craft.Dry {
				sanded = false
			}
		case surface.Strip:
			if z.Loose&craft.Falls == 0 && !effect.Pores && surface.Levels(c, &z.Facts)[craft.IronTannin] == 0 {
				no("stripped without a reason")
			}
		case surface.Fill:
			if metal && s.With == craft.FillerFine && on(FillByMaterial) {
				no("fine filler on metal")
			}
		case surface.Coat:
			r := row(s)
			if sanded && !lead {
				no("%s goes on sanding dust", r.ID)
			}
			sanded = false
			if !slices.Contains(r.Methods, s.Method) && s.Scope == surface.All {
				no("%s is not applied by %s", r.ID, s.Method)
			}
			if s.Sheen != craft.NoSheen && !slices.Contains(r.Sheens, s.Sheen) {
				no("%s is not sold in %s", r.ID, craft.Sheens[s.Sheen].Name)
			}
			if s.Method == "spray" && ask.Kit != nil && !slices.Contains(ask.Kit.Tools, "gun") {
				no("sprayed without a gun")
			}
			if !ask.Kit.Keeps(r.ID) && !slices.ContainsFunc(p.Buys, func(x Item) bool { return x.Product == r.ID }) {
				no("%s is not in the kit, and nobody says so", r.ID)
			}
			if r.Aerosol && s.Scope == surface.All && on(SmallCans) && (z.Area <= 0 || z.Area > 1.5 || z.Work < 1.4 && z.Area > .5) {
				no("cans on %v m²", z.Area)
			}
			if r.Coat == craft.SH && damp && on(NoShellacOutside) {
				no("shellac in the damp")
			}
			if r.Coat == craft.EP && on(RightPrimer) && !metal && !fin.Unknown {
				no("epoxy on %s", sub.ID)
			}
			if r.Coat == craft.OE && on(HardLast) && !metal && !outdoors {
				no("oil enamel indoors")
			}
			if s.Scope != surface.All {
				continue
			}
			switch r.Role {
			case craft.RolePrimer:
				if primers += s.NumCoats(); primers > 4 {
					no("%d coats of primer", primers)
				}
			case craft.RolePaint:
				paints[s.Product] = true
				if s.NumCoats() > 6 {
					no("%d coats of paint", s.NumCoats())
				}
			case craft.RoleClear:
				clears[s.Product] = true
				if flakes && r.WaterBased() && ask.Way.FlakeSeal != FlakeMist {
					no("a water-based clear over flaking paint")
				}
			case craft.RoleWax:
				waxed = true
			}
			if r.LeavesFilm() {
				last = r
			}
		case surface.Reassemble:
			if h := steps[i-1].Hours; steps[i-1].Do == surface.Wait && h < 24 {
				no("put back after %v h", h)
			}
		}
	}
	for cl, n := range cleans {
		if n > 2 {
			no("%s is used %d times", c.Cleaners[cl].ID, n)
		}
	}
	if len(cleans) > 4 {
		no("%d cleaners", len(cleans))
	}
	if solid && len(clears) > 1 {
		no("two kinds of clear")
	}
	if solid && len(paints) > 1 {
		no("two kinds of paint")
	}
	if last != nil && on(HardLast) && opaque(c, steps) {
		emulsion := last.ID == "paint_acrylic" || last.ID == "paint_metallic"
		switch {
		case emulsion && z.Wear != craft.Display && z.Wear != craft.Outdoor:
			no("ends in wall paint")
		case z.Wear == craft.Tabletop && last.ID != "clear_wb_hard" && last.ID != "clear_oil":
			no("a table top ends in %s", last.ID)
		case z.Wear == craft.WetWear && (emulsion || last.ID == "paint_trim" || last.ID == "paint_mineral"):
			no("a kitchen ends in %s", last.ID)
		case solid && waxed:
			for x := range paints {
				if c.Products[x].Dried != craft.PorousPaint {
					no("wax over %s", c.Products[x].ID)
				}
			}
		}
	}
	if pale := check.Lightness(z.Colour) >= 70; pale && on(BlockTwice) && ask.Way.Holds != Additive && ask.Way.Holds != StraightOn && (solid || effect.ID == "distress_wet") && opaque(c, steps) {
		for _, b := range []craft.Bleeder{craft.Tannin, craft.Dye, craft.Nicotine} {
			lv := surface.Levels(c, &z.Facts)[b]
			if b == craft.Nicotine {
				lv = max(lv, z.Soils[craft.NicotineSoil])
			}
			if lv < 2 || surface.Local(sub, b) || fin.Colour != "" && !z.GivenBleeders && z.Soils[craft.NicotineSoil] < 2 {
				continue
			}
			blocks := 0
			for i := range steps {
				if s := &steps[i]; coat(s) && row(s).Block.Blocks() && c.LetsThrough(s.Product, b) <= .4 {
					blocks += s.NumCoats()
				}
			}
			if blocks < 2 {
				no("%v blocked with %d coats under a pale colour", b, blocks)
			}
			break
		}
	}
	if flakes && z.Uses&(craft.Food|craft.Child) != 0 {
		no("flakes where food or children are")
	}
	if effect.Pores && sub.Mark() != "open" && !sub.Unknown {
		no("limed without pores")
	}
	return out
}

// No plan is one that a painter would not hand to a client: neither for the jobs, nor for random zones;
// and whoever switches habits off, or cannot keep one, is told what that risks.
func TestNoObjections(t *testing.T) {
	t.Parallel()
	c := craft.Default()
	objected := map[string]int{}
	look := func(name string, ask *Request) *Answer {
		a, err := Find(context.Background(), c, *ask)
		if err != nil {
			t.Fatal(err)
		}
		if a.Best == nil {
			return &a
		}
		for _, o := range objections(c, ask, a.Best) {
			if a.Best.Leaves&^(ask.HabitsOff|ask.Way.drops()) == 0 {
				if objected[o]++; objected[o] <= 2 {
					t.Errorf("%s: %s\n%s", name, o, words(c, a.Best))
				}
			}
		}
		return &a
	}
	for _, file := range []string{"jobs_seen.txt", "jobs_kept.txt"} {
		for _, j := range jobsOf(t, file) {
			ask := j.ask(t)
			look(j.name, &ask)
		}
	}
	r := rand.New(rand.NewPCG(40, 9))
	zones, planned, without := cases(5000, 25), 0, 0
	left := map[string]int{}
	for range zones {
		ask := anyZone(r, c)
		a := look(describe(c, &ask), &ask)
		if a.Best == nil {
			continue
		}
		planned++
		off := ask.HabitsOff | ask.Way.drops()
		if a.Best.Leaves&^off != 0 {
			without++
			for h := range NumHabits {
				if (a.Best.Leaves &^ off).Has(h) {
					if left[Habits[h].ID]++; left[Habits[h].ID] <= 9 {
						t.Logf("without %s: %s\n%s", Habits[h].ID, describe(c, &ask), words(c, a.Best))
					}
				}
			}
		}
	}
	t.Logf("%d of %d planned, %d of them without a habit: %v; objections %v", planned, zones, without, left, objected)
}
