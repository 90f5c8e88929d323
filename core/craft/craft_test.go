package craft

import (
	"math"
	"regexp"
	"slices"
	"strings"
	"testing"
)

var (
	idForm  = regexp.MustCompile(`^[a-z][a-z0-9_]*$`)
	hexForm = regexp.MustCompile(`^#[0-9a-f]{6}$`)
)

func TestIDsAreWellFormedAndUnique(t *testing.T) {
	c := Default()
	lists := map[string][]string{}
	for _, r := range c.Substrates {
		lists["substrates"] = append(lists["substrates"], r.ID)
	}
	for _, r := range c.Finishes {
		lists["finishes"] = append(lists["finishes"], r.ID)
	}
	for _, r := range c.Cleaners {
		lists["cleaners"] = append(lists["cleaners"], r.ID)
	}
	for _, r := range c.Products {
		lists["products"] = append(lists["products"], r.ID)
	}
	for _, r := range c.Effects {
		lists["effects"] = append(lists["effects"], r.ID)
	}
	for _, r := range Soils {
		lists["soils"] = append(lists["soils"], r.ID)
	}
	for _, r := range Bleeders {
		lists["bleeders"] = append(lists["bleeders"], r.ID)
	}
	for _, r := range Families {
		lists["families"] = append(lists["families"], r.ID)
	}
	for _, r := range Defects {
		lists["defects"] = append(lists["defects"], r.ID)
	}
	for _, r := range Wears {
		lists["wears"] = append(lists["wears"], r.ID)
	}
	for _, r := range UseRows {
		lists["uses"] = append(lists["uses"], r.ID)
	}
	for _, r := range Methods {
		lists["methods"] = append(lists["methods"], r.ID)
	}
	for name, ids := range lists {
		seen := map[string]bool{}
		for _, id := range ids {
			if !idForm.MatchString(id) {
				t.Errorf("%s: %q is no id", name, id)
			}
			if seen[id] {
				t.Errorf("%s: %q stands twice", name, id)
			}
			seen[id] = true
		}
	}
}

// The vocabulary is a contract: these ids stand in files that people keep.
func TestVocabularyIsComplete(t *testing.T) {
	c := Default()
	for _, id := range []string{
		"pine", "spruce", "fir", "cedar", "redwood", "oak", "chestnut", "walnut", "mahogany", "cherry", "maple",
		"birch", "beech", "ash", "lime", "poplar", "teak", "rosewood", "unknown_wood", "plywood", "hardboard", "mdf",
		"particleboard", "bamboo", "rattan", "willow", "rush", "seagrass", "paper_cord", "paper_foil_board",
		"laminate_hpl", "melamine", "vinyl_wrap", "vinyl_fabric", "leather", "fabric_woven", "fabric_pile", "steel",
		"cast_iron", "galvanised", "aluminium", "brass", "copper", "stainless", "chrome", "glass", "mirror",
		"ceramic_glazed", "terracotta", "stone", "concrete", "plaster", "plastic_abs", "plastic_acrylic",
		"plastic_pvc", "resin_cast", "plastic_polyolefin", "plastic_unknown", "foam_craft",
	} {
		if _, ok := c.Substrate(id); !ok {
			t.Errorf("no substrate %s", id)
		}
	}
	for _, id := range []string{
		"none", "wax", "oil", "shellac", "lacquer", "varnish_oil", "polyurethane", "finish_wb", "catalysed",
		"paint_alkyd_old", "paint_acrylic_old", "paint_porous_old", "factory_film", "paint_porous_waxed",
		"paint_factory", "stain_only", "foil", "powder", "plating", "unknown",
	} {
		if _, ok := c.Finish(id); !ok {
			t.Errorf("no finish %s", id)
		}
	}
	for _, id := range []string{
		"vacuum_tack", "detergent", "degreaser_alkaline", "vinegar_water", "white_spirit", "alcohol", "acetone",
		"deglosser_liquid", "ammonia_water", "biocide_wash", "rust_converter", "dry_brush",
	} {
		if _, ok := c.Cleaner(id); !ok {
			t.Errorf("no cleaner %s", id)
		}
	}
	for _, id := range []string{
		"shellac_clear", "shellac_pigmented", "primer_stainblock_oil", "primer_stainblock_wb", "primer_bond_wb",
		"primer_epoxy", "primer_metal", "primer_galv", "primer_plastic", "primer_glass", "sealer_masonry",
		"paint_milk", "paint_chalk", "paint_clay", "paint_acrylic", "paint_mineral", "paint_enamel_wb",
		"paint_enamel_oil", "paint_aerosol", "paint_masonry", "paint_metallic", "primer_aerosol", "stain_spirit",
		"stain_water", "stain_gel", "grain_filler", "oxalic_bleach", "size_leaf", "clear_oil_wipe", "paint_flexible",
		"paint_diy_chalk", "fabric_wash", "crackle_medium", "lift_medium", "glaze_wb", "glaze_stain", "wax_clear",
		"wax_white", "wax_dark", "wax_oil", "oil_penetrating", "clear_wb", "clear_wb_hard", "clear_oil",
		"clear_acrylic_varnish", "clear_lacquer", "shellac_top",
	} {
		if _, ok := c.Product(id); !ok {
			t.Errorf("no product %s", id)
		}
	}
	for _, id := range []string{
		"chippy", "layered_chippy", "crackle", "lift_off", "distress_wet", "distress_dry", "enamelware",
		"shade_highlight", "glaze", "drawn_grain", "marble", "limed", "stamp", "stencil", "gild", "decoupage",
		"raised_stencil", "colour_blend", "wash_wipe", "dusting", "dry_brush", "fabric_dye",
	} {
		if !slices.ContainsFunc(c.Effects, func(r EffectRow) bool { return r.ID == id }) {
			t.Errorf("no effect %s", id)
		}
	}
}

func within(t *testing.T, what string, x, lo, hi float64) {
	t.Helper()
	if math.IsNaN(x) || x < lo || x > hi {
		t.Errorf("%s is %v, outside %v to %v", what, x, lo, hi)
	}
}

func TestTablesAreInRange(t *testing.T) {
	c := Default()
	for f := range c.Grip {
		for k := range c.Grip[f] {
			within(t, "grip of "+Coats[k].ID+" on "+Families[f].ID, c.Grip[f][k], .01, 1)
		}
	}
	for k := range c.Lets {
		for b := range c.Lets[k] {
			within(t, "share let through", c.Lets[k][b], .01, 1)
		}
	}
	for _, r := range Families {
		within(t, r.ID+" need", r.Need, 0, 1)
		within(t, r.ID+" natural key", r.Natural, 0, 1)
		within(t, r.ID+" best key", r.Best, .5, 1)
		if r.ScuffGrit != 0 {
			within(t, r.ID+" scuff", float64(r.ScuffGrit), 100, 400)
			if key := KeyGain(r.ScuffGrit, r.ScuffHow) / r.Best; key < .7 {
				t.Errorf("%s: its own scuff gives a key of %.2f", r.ID, key)
			}
		}
	}
	for _, r := range Coats {
		within(t, r.ID+" sensitivity", r.Sens, 0, 1)
		within(t, r.ID+" floor", r.Floor, .3, 1)
		within(t, r.ID+" self", r.Self, .8, 1)
	}
	for _, r := range Soils {
		within(t, r.ID+" harm", r.Harm, .1, .8)
		for n, id := range r.Remedy {
			cl, ok := c.Cleaner(id)
			if !ok {
				t.Errorf("%s: remedy %s is no cleaner", r.ID, id)
				continue
			}
			s, _ := SoilNamed(r.ID)
			if _, ok := c.Cleaners[cl].Shift(s, 1); !ok && s != CleanerResidue && n == 0 {
				t.Errorf("%s: %s does not shift it", r.ID, id)
			}
		}
	}
	for _, r := range Bleeders {
		for i := 1; i < MaxLevel; i++ {
			if r.DeltaE[i] <= r.DeltaE[i-1] {
				t.Errorf("%s: level %d does not stain more than %d", r.ID, i+1, i)
			}
		}
		within(t, r.ID+" tau", r.Tau, 1, 120)
		if r.Column >= numColumns {
			t.Errorf("%s: column %s has no figures", r.ID, r.Column)
		}
		if !hexForm.MatchString(r.Colour) {
			t.Errorf("%s: colour %q", r.ID, r.Colour)
		}
	}
	for _, r := range c.Substrates {
		within(t, r.ID+" porosity", r.Porosity, 0, 1)
		within(t, r.ID+" need", r.Need, 0, 1)
		within(t, r.ID+" grip", r.Grip, .5, 1)
		if r.Family >= NumFamilies || !hexForm.MatchString(r.Colour) {
			t.Errorf("%s: family %v colour %q", r.ID, r.Family, r.Colour)
		}
		for _, b := range r.Bleeds {
			within(t, r.ID+" bleeds", float64(b.Level), 1, MaxLevel)
		}
	}
	for _, r := range c.Finishes {
		within(t, r.ID+" lets", r.Lets, .01, 1)
		if !r.Bare && !r.Unknown && r.Family >= NumFamilies {
			t.Errorf("%s has no family", r.ID)
		}
	}
	for w, r := range Wears {
		within(t, r.ID+" demand", r.Demand, .2, .8)
		if len(c.For(ForSeal(Wear(w)))) == 0 {
			t.Errorf("nothing seals for %s", r.ID)
		}
	}
}

func TestProductsAreInRange(t *testing.T) {
	c := Default()
	// What leaves the surface as it was, and why.
	asItWas := map[string]string{
		"stain_spirit": "colours the wood", "stain_water": "colours the wood", "stain_gel": "colours the wood",
		"oxalic_bleach": "takes a stain out", "crackle_medium": "lets the next coat go", "lift_medium": "lets the next coat go",
	}
	for i := range c.Products {
		p := &c.Products[i]
		if _, listed := asItWas[p.ID]; listed == p.LeavesFilm() {
			t.Errorf("%s: dries to %v, listed as leaving the surface as it was: %v", p.ID, p.Dried, listed)
		}
		within(t, p.ID+" touch", p.Touch, .01, 24)
		within(t, p.ID+" recoat", p.Recoat.From, .05, 48)
		if p.Recoat.To <= p.Recoat.From {
			t.Errorf("%s: its window %v is empty", p.ID, p.Recoat)
		}
		if p.Again > 0 && p.Again <= p.Recoat.To {
			t.Errorf("%s: its second window opens inside the first", p.ID)
		}
		within(t, p.ID+" cure", p.Cure, 1, 60)
		within(t, p.ID+" cover", p.Cover, 2, 30)
		within(t, p.ID+" film", p.Film, 0, 100)
		within(t, p.ID+" hiding", p.Hiding, 0, 1)
		within(t, p.ID+" cold limit", p.MinC, 0, 15)
		within(t, p.ID+" damp limit", p.MaxRH, 60, 90)
		within(t, p.ID+" price", float64(p.Price), 500, 10000)
		within(t, p.ID+" smell", float64(p.Smell), 0, 3)
		if p.Block >= numBlockKinds || p.Coat > NoCoat || p.Name == "" || p.Role == "" {
			t.Errorf("%s is not filled in", p.ID)
		}
		if p.Carrier.Volatile() && p.Smell == 0 {
			t.Errorf("%s is carried in %s and is said not to smell", p.ID, p.Carrier)
		}
	}
}

// Figures that the whole judgement hangs on, as they were set down.
func TestKnownCells(t *testing.T) {
	c := Default()
	for _, x := range []struct {
		on   Family
		coat Coat
		want float64
	}{
		{WoodBare, MK, .95}, {VarnishFilm, SH, .90}, {MelamineFilm, BP, .88}, {MelamineFilm, CP, .57}, {MetalLight, PA, .70}, {MetalChrome, EP, .65}, {ShellacNew, OE, .90}, {ShellacNew, EP, .25}, {MetalNonferrous, ZP, .40}, {Polyolefin, PA, .20},
		{MetalZinc, ZP, .92}, {MetalFerrous, MP, .95}, {MetalFerrous, ZP, .6}, {GlassSmooth, GP, .92},
		{MineralPorous, MS, .92}, {VinylSoft, FX, .88}, {Polyolefin, PP, .78}, {WaxFilm, WX, .95},
		{Promoted, AE, .85}, {PorousPaint, WP, .90}, {OilFilm, OL, .95}, {Leather, SW, .45}, {Leather, EP, Blank},
		{Textile, TX, .85}, {Textile, SO, Blank}, {AlkydPaint, CM, .85}, {VarnishFilm, GZ, .88}, {PorousPaint, GZ, .85},
		{AcrylicPaint, FX, .85}, {WoodBare, ZP, Blank},
	} {
		if got := c.Grip[x.on][x.coat]; got != x.want {
			t.Errorf("grip of %s on %s is %v, want %v", x.coat, x.on, got, x.want)
		}
	}
	for _, x := range []struct {
		product string
		bleeder Bleeder
		want    float64
	}{
		{"shellac_pigmented", Tannin, .10}, {"shellac_clear", Rust, .75}, {"primer_stainblock_wb", Resin, .62},
		{"primer_epoxy", Rust, .08}, {"primer_metal", Rust, .10}, {"paint_enamel_oil", Dye, .6},
		{"primer_aerosol", Tannin, 1}, {"clear_oil", Salts, .8}, {"paint_flexible", Plasticiser, .25},
		{"paint_chalk", Tannin, .82}, {"paint_milk", Tannin, .95}, {"primer_glass", Ink, 1},
		{"paint_chalk", IronTannin, .82}, {"shellac_pigmented", RedPaint, .12}, {"primer_epoxy", Preservative, .12},
	} {
		p, ok := c.Product(x.product)
		if got := c.LetsThrough(p, x.bleeder); !ok || got != x.want {
			t.Errorf("%s lets %v of %s through, want %v", x.product, got, x.bleeder, x.want)
		}
	}
}

func TestAdditiveMovesMilkPaint(t *testing.T) {
	c := Default()
	for _, x := range []struct{ ratio, want float64 }{{0, .35}, {.25, .50}, {.5, .65}, {1, .65}} {
		if got := c.GripOf(VarnishFilm, MK, x.ratio); math.Abs(got-x.want) > 1e-9 {
			t.Errorf("with %v of additive milk paint grips at %v, want %v", x.ratio, got, x.want)
		}
	}
	if got := c.GripOf(VarnishFilm, CP, .5); got != .70 {
		t.Errorf("additive changed chalk paint to %v", got)
	}
	if got := c.GripOf(VarnishFilm, NoCoat, 0); got != 1 {
		t.Errorf("a stain has a grip of %v", got)
	}
}

func TestKeyGain(t *testing.T) {
	for _, x := range []struct {
		grit int
		how  How
		want float64
	}{
		{60, Hand, .95}, {120, Hand, .95}, {150, Machine, .95}, {180, Hand, 1}, {220, Hand, 1}, {240, Hand, 1},
		{280, Hand, .875}, {320, Wet, .75}, {360, Hand, .675}, {400, Hand, .6}, {600, Hand, .4}, {5000, Hand, .1},
		{9000, Hand, .1}, {24, Hand, .95}, {0, Hand, PadGain}, {220, Pad, PadGain},
	} {
		if got := KeyGain(x.grit, x.how); math.Abs(got-x.want) > 1e-9 {
			t.Errorf("%d %s gives a key of %v, want %v", x.grit, x.how, got, x.want)
		}
	}
}

func TestNamedLookups(t *testing.T) {
	if _, ok := SoilNamed("grease"); !ok {
		t.Error("no grease")
	}
	if _, ok := SoilNamed("marmalade"); ok {
		t.Error("marmalade is a soil")
	}
	if _, ok := BleederNamed("tannin"); !ok {
		t.Error("no tannin")
	}
	if _, ok := BleederNamed(""); ok {
		t.Error("nothing bleeds")
	}
	if s, ok := SheenNamed("satin"); !ok || s != Satin {
		t.Error("no satin")
	}
	if _, ok := SheenNamed(""); ok {
		t.Error("a sheen without a name was found")
	}
	if w, ok := WearNamed("tabletop"); !ok || w != Tabletop {
		t.Error("no tabletop")
	}
	if u, ok := UsesNamed("outdoor"); !ok || u != UseOutdoor {
		t.Error("no outdoor")
	}
	if m, ok := MethodNamed("nonsense"); ok || m.ID != "brush" {
		t.Errorf("an unknown method is %v", m.ID)
	}
	if Family(200).String() != "none" || Soil(99).String() != "?" || Bleeder(99).String() != "?" || Coat(99).String() != "?" {
		t.Error("an index outside its table has a name")
	}
}

func TestPlausibleFinishesFitTheirFamily(t *testing.T) {
	c := Default()
	if n := len(c.Plausible(WoodBare)); n < 4 {
		t.Errorf("an unknown finish on wood may be only %d things", n)
	}
	wax, _ := c.Finish("wax")
	if !slices.Contains(c.Plausible(WoodBare), wax) {
		t.Error("an unknown finish on wood cannot be wax")
	}
	if c.Plausible(GlassSmooth) != nil {
		t.Error("glass may carry something unseen")
	}
	for f := range Families {
		for _, x := range c.Plausible(Family(f)) {
			if c.Finishes[x].Unknown {
				t.Errorf("%s may be unknown, which explains nothing", Families[f].ID)
			}
		}
	}
}

// Words for finding are of ids that exist, and none says its own name again.
func TestFurtherWordsAreOfThingsThatExist(t *testing.T) {
	c := Default()
	for id, words := range Also {
		_, sub := c.Substrate(id)
		_, fin := c.Finish(id)
		_, cl := c.Cleaner(id)
		_, pr := c.Product(id)
		_, so := SoilNamed(id)
		if !sub && !fin && !cl && !pr && !so {
			t.Errorf("%q is the id of nothing", id)
		}
		if strings.TrimSpace(words) == "" || words != strings.ToLower(words) {
			t.Errorf("%q has the words %q", id, words)
		}
	}
	for _, r := range c.Substrates {
		if Also[r.ID] == "" && r.ID != "redwood" {
			t.Errorf("%s is found by its name alone", r.ID)
		}
	}
}

// Each material and finish is told by its marks.
func TestMarks(t *testing.T) {
	c := Default()
	sub := func(id string) string { x, _ := c.Substrate(id); return c.Substrates[x].Mark() }
	fin := func(id string) *FinishRow { x, _ := c.Finish(id); return &c.Finishes[x] }
	for id, want := range map[string]string{"pine": "knotty", "oak": "open", "maple": "wood", "mdf": "board", "steel": "metal", "terracotta": "mineral", "vinyl_wrap": "laminate and vinyl"} {
		if got := sub(id); got != want {
			t.Errorf("%s has the marks of %q, want %q", id, got, want)
		}
	}
	for _, id := range openGrained {
		if _, ok := c.Substrate(id); !ok {
			t.Errorf("%q is no substrate", id)
		}
	}
	for id, want := range map[string]string{"none": "", "shellac": "wood", "paint_alkyd_old": "plastic", "paint_porous_waxed": "mineral", "plating": "metal", "foil": "laminate and vinyl"} {
		if got := fin(id).Mark(); got != want {
			t.Errorf("%s has the marks of %q, want %q", id, got, want)
		}
	}
	if !fin("shellac").Mirrors() || fin("oil").Mirrors() || fin("unknown").Mirrors() || fin("none").Mirrors() {
		t.Error("what mirrors and what does not is mixed up")
	}
}
