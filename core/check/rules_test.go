package check

import (
	"slices"
	"strings"
	"testing"

	"rutile/core/craft"
	"rutile/core/surface"
)

// Every rule has a zone on which it speaks, with the severity it should have,
// and one so near to it that a careless rule would speak as well.
var ruleCases = []struct {
	code       string
	zone, plan string
	want       Severity
	nearZone   string // "" for the same zone
	nearPlan   string // "" for the same plan
	says       string // a word that must stand in the reason
}{
	{"walk.unjudged", "birch", "sand 180; dust; fill; paint_acrylic x2", Watch, "", "sand 180; dust; paint_acrylic x2", "left to you"},
	{"walk.unjudged", "birch; look crackle", "sand 180; dust; paint_acrylic x2", Watch, "birch", "", "wanted look"},
	{"walk.empty", "birch", "sand 180; dust", Watch, "", "sand 180; dust; paint_acrylic", "Lay out"},

	{"prep.sand_before_clean", "birch; soils grease2", "sand 180; dust; degreaser_alkaline rinse; paint_acrylic", Fail, "", "degreaser_alkaline rinse; sand 180; dust; paint_acrylic", "grease"},
	{"prep.sand_before_clean", "birch; soils grease1", "sand 180; dust; paint_acrylic", Watch, "birch; soils grime2", "", "grease"},
	{"prep.sand_before_clean", "birch wax", "sand 180; dust; wax_clear", Fail, "birch oil", "", "wax"},
	{"prep.soil_left", "birch; soils grime2", "paint_acrylic x2", Fail, "", "detergent rinse; paint_acrylic x2", "grime"},
	{"prep.soil_left", "birch; soils grime1", "paint_acrylic x2", Watch, "birch; soils dust1", "", "grime"},
	{"prep.soil_left", "birch; soils wax_polish1", "paint_acrylic x2", Fail, "", "shellac_clear; paint_acrylic x2", "Wax polish"},
	{"prep.soil_left", "birch; soils wax_polish1", "paint_enamel_oil", Watch, "", "wax_clear", "wax polish"},
	{"prep.soil_left", "birch; soils silicone2", "shellac_clear", Fail, "birch; soils silicone1", "", "shellac as a barrier"},
	{"prep.soil_left", "birch; unseen", "paint_acrylic x2", Watch, "birch", "", "hidden spot"},
	{"prep.wrong_cleaner", "birch; soils grease2", "detergent rinse; paint_acrylic", Watch, "", "degreaser_alkaline rinse; paint_acrylic", "degreaser"},
	{"prep.wrong_cleaner", "birch; soils grease2", "detergent rinse; paint_acrylic", Watch, "", "detergent rinse; degreaser_alkaline rinse; paint_acrylic", "degreaser"},
	{"prep.no_rinse", "birch; soils grease2", "degreaser_alkaline; paint_acrylic", Fail, "", "degreaser_alkaline rinse; paint_acrylic", "twice"},
	{"prep.no_rinse", "birch; soils grime2", "detergent; paint_acrylic", Watch, "", "detergent; vinegar_water; paint_acrylic", "clear water"},
	{"prep.no_rinse", "birch; soils mould1", "biocide_wash; paint_acrylic", Watch, "", "biocide_wash rinse; paint_acrylic", "clear water"},
	{"prep.dust_left", "birch", "sand 180; paint_acrylic", Watch, "", "sand 180; dust; paint_acrylic", "tack"},
	{"prep.dust_left", "birch", "sand 180; paint_acrylic", Watch, "", "sand 180; alcohol; paint_acrylic", "tack"},
	{"prep.dust_left", "birch", "dust; paint_acrylic; sand 320; paint_acrylic", Watch, "", "dust; paint_acrylic; sand 320; dust; paint_acrylic", "tack"},
	{"prep.damp", "birch; moist 16", "paint_acrylic", Watch, "birch; moist 14", "", "16 %"},
	{"prep.damp", "birch; moist 16", "stain_water; paint_acrylic", Watch, "", "detergent rinse; wait 24", "16 %"},
	{"prep.damp", "birch; moist 19", "paint_acrylic", Fail, "steel; moist 19", "", "19 %"},
	{"prep.damp", "terracotta; moist 13", "sealer_masonry", Watch, "birch; moist 13", "", "13 %"},

	{"adhesion.key", "laminate_hpl gloss", "primer_bond_wb", Watch, "", "sand 220; dust; primer_bond_wb", "20 %"},
	{"adhesion.key", "laminate_hpl gloss", "paint_acrylic", Fail, "laminate_hpl matt", "primer_bond_wb", "shine"},
	{"adhesion.bond", "polyolefin", "paint_acrylic", Fail, "", "", ""}, // filled in below
	{"adhesion.bond", "laminate_hpl matt", "sand 220; dust; paint_acrylic", Fail, "laminate_hpl matt; wear display", "", "Clean and keyed"},
	{"adhesion.wax_under", "birch wax", "paint_chalk", Fail, "", "wax_clear", "slides off"},
	{"adhesion.wax_under", "birch wax", "paint_chalk", Fail, "", "white_spirit; detergent rinse; paint_chalk", "White spirit"},
	{"adhesion.wax_under", "birch wax", "stain_spirit; shellac_clear", Fail, "", "white_spirit; detergent rinse; stain_spirit; shellac_clear", "Old wax under"},
	{"adhesion.wax_under", "birch", "paint_chalk; wax_clear; clear_wb", Fail, "", "paint_chalk; clear_wb; wax_clear", "wax comes last"},
	{"adhesion.missed_window", "birch", "primer_bond_wb wait300; paint_acrylic", Watch, "", "primer_bond_wb wait160; paint_acrylic", "scuff"},
	{"adhesion.missed_window", "birch", "primer_bond_wb wait300; paint_acrylic", Watch, "", "primer_bond_wb wait300; sand 240; dust; paint_acrylic", "scuff"},
	{"adhesion.missed_window", "plastic_abs matt", "primer_plastic wait5; paint_milk", Fail, "", "primer_plastic wait.5; paint_milk", "window"},
	{"adhesion.too_soon", "birch; site 23 50", "paint_acrylic wait2.5; paint_acrylic", Watch, "", "paint_acrylic wait2.6; paint_acrylic", "needs 3 h"},
	{"adhesion.too_soon", "birch; site 23 50", "paint_acrylic wait1; paint_acrylic", Fail, "", "paint_acrylic wait3; paint_acrylic", "needs 3 h"},
	{"adhesion.too_soon", "birch; site 11 50", "paint_acrylic wait4; paint_acrylic", Watch, "birch; site 23 50", "", "needs 6 h"},
	{"adhesion.untested", "birch unknown; tests face=clear_film", "white_spirit; detergent rinse; shellac_clear", Watch, "birch unknown; board shellac_clear varnish_film 5", "", "Looks deceive"},
	{"adhesion.doubted", "birch varnish_oil matt; tests alcohol=sticky uv=orange worn=crazed", "shellac_clear", Watch, "birch shellac matt; tests alcohol=sticky uv=orange worn=crazed", "", "as well as for what was entered"},
	{"adhesion.doubted", "oak matt; tests edge=crumbs repeat=repeats knock=dense", "shellac_clear", Watch, "oak matt; tests edge=solid", "", "Printed paper"},
	{"adhesion.weakest", "laminate_hpl gloss", "paint_chalk", Fail, "", "sand 220; dust; primer_bond_wb; paint_chalk", "chance that it peels"},
	{"adhesion.weakest", "steel powder gloss", "primer_bond_wb; paint_enamel_wb", Watch, "steel powder gloss; wear display", "", "class 3B"},
	{"adhesion.untested", "unknown_wood", "paint_chalk", Watch, "birch", "", "worst"},
	{"adhesion.untested", "birch unknown", "white_spirit; detergent rinse; shellac_clear", Watch, "birch varnish_oil matt", "", "every old finish"},

	{"bleed.tannin", "oak", "paint_chalk", Fail, "", "shellac_pigmented; paint_chalk", "yellow-brown"},
	{"bleed.tannin", "cherry", "paint_enamel_oil", Watch, "cherry; colour #333333", "", "yellow-brown"},
	{"bleed.tannin", "oak; bleed iron_tannin2", "paint_chalk", Fail, "", "oxalic_bleach; paint_chalk", "blue-black"},
	{"bleed.knot", "pine; knots", "primer_stainblock_wb; paint_acrylic", Fail, "", "shellac_pigmented x2; paint_acrylic", "spots over knots"},
	{"bleed.dye", "birch stain_only", "paint_acrylic x2", Fail, "birch", "", "pink"},
	{"bleed.dye", "birch; bleed red_paint2", "paint_acrylic x2", Fail, "birch; bleed red_paint0", "", "pink"},
	{"bleed.smoke", "birch varnish_oil matt; bleed nicotine2", "paint_acrylic", Fail, "", "primer_stainblock_oil x2; paint_acrylic", "yellow cast"},
	{"bleed.rust", "steel", "paint_acrylic", Fail, "", "primer_metal; paint_enamel_oil", "orange-brown"},
	{"bleed.ink", "birch; bleed ink1", "paint_acrylic", Fail, "", "shellac_pigmented; paint_acrylic", "mark"},
	{"bleed.water", "birch; bleed watermark2", "paint_acrylic", Fail, "", "shellac_pigmented; paint_acrylic", "ring"},
	{"bleed.bitumen", "birch; bleed bitumen1", "paint_acrylic", Fail, "", "primer_epoxy; paint_acrylic", "streaks"},
	{"bleed.bitumen", "birch; bleed preservative1", "paint_acrylic", Fail, "birch", "", "green-brown"},
	{"bleed.salts", "terracotta", "paint_masonry", Watch, "", "sealer_masonry; paint_masonry", "bloom"},
	{"bleed.salts", "terracotta; bleed salts3; colour #111111", "paint_masonry", Fail, "terracotta; bleed; colour #111111", "", "bloom"},
	{"bleed.grease", "birch; bleed grease_spot3", "paint_acrylic", Fail, "birch", "", "dull spot"},
	{"bleed.tacky", "vinyl_fabric matt", "paint_acrylic", Fail, "", "paint_flexible x3", "resists it"},
	{"bleed.self_priming", "oak", "paint_mineral x2", Watch, "", "shellac_pigmented; paint_mineral x2", "tannin"},
	{"bleed.self_priming", "oak", "paint_mineral x2", Watch, "oak; colour #111111", "", "left alone"},

	{"use.unsealed", "birch", "paint_chalk x2", Watch, "", "paint_chalk x2; wax_clear", "clear wax"},
	{"use.unsealed", "birch; wear tabletop", "paint_milk x2", Fail, "", "paint_acrylic x2", "a table top"},
	{"use.unsealed", "birch; use outdoor", "paint_chalk", Fail, "birch; use outdoor", "paint_masonry", "the weather"},

	{"site.cold", "birch; site 8 50", "paint_acrylic", Watch, "birch; site 10 50", "", "at least 10 °C"},
	{"site.cold", "birch; site 6.9 50", "paint_acrylic", Fail, "", "primer_stainblock_oil", "Warm the room"},
	{"site.humid", "birch; site 20 81", "paint_acrylic", Watch, "birch; site 20 80", "", "at most 80 %"},
	{"site.humid", "birch; site 20 91", "paint_acrylic", Fail, "", "sand 180; dust", "drier day"},

	{"safety.lead", "birch paint_alkyd_old matt; made 1950", "sand 180; dust; paint_acrylic", Fail, "birch paint_alkyd_old matt; made 1990", "", "laboratory"},
	{"safety.lead", "birch paint_alkyd_old matt; made 0", "paint_acrylic", Watch, "birch paint_alkyd_old matt; made 0; excluded", "", "laboratory"},
	{"safety.lead", "birch varnish_oil matt; made 1950", "paint_acrylic", Watch, "birch shellac matt; made 1950", "", "home swab"},
	{"safety.lead", "birch paint_alkyd_old matt; made 1950", "dry_brush; paint_acrylic", Fail, "birch; made 1950", "", "dust or fumes"},
	{"safety.lead", "pine; made 1930; tests face=paint_brushed worn=layers_paint", "sand 180; dust; paint_acrylic", Fail, "pine; made 1995; tests face=paint_brushed worn=layers_paint", "", "dust or fumes"},
	{"safety.lead", "birch paint_alkyd_old matt; made 1950; swab no", "paint_acrylic", Watch, "birch; made 1950", "", "decides nothing"},
	{"safety.dust", "oak", "sand 180; dust; wax_clear", Note, "", "sand 180 wet; dust; wax_clear", "sensitises"},
	{"safety.solvent", "birch", "white_spirit; wax_clear", Note, "", "detergent rinse; wax_clear", "ventilation"},
	{"safety.solvent", "birch", "shellac_clear", Note, "", "clear_wb", "flames"},
	{"safety.alkali", "birch", "degreaser_alkaline rinse; wax_clear", Note, "", "detergent rinse; wax_clear", "eye protection"},
	{"safety.alkali", "birch", "paint_milk; wax_clear", Note, "", "paint_chalk; wax_clear", "Gloves"},
}

func TestEveryRuleFiresAndHoldsItsTongue(t *testing.T) {
	c := craft.Default()
	covered := map[string]bool{}
	for _, x := range ruleCases {
		if x.zone == "polyolefin" {
			x.zone, x.nearZone, x.nearPlan, x.says = "plastic_polyolefin matt", "plastic_polyolefin matt", "primer_plastic; paint_aerosol", "go between"
		}
		covered[x.code] = true
		t.Run(x.code+" "+x.zone+" "+x.plan, func(t *testing.T) {
			r := Check(c, zoneOf(t, x.zone, x.plan), Options{})
			i := slices.IndexFunc(r.Findings, func(f Finding) bool { return f.Code == x.code })
			if i < 0 {
				t.Fatalf("it does not speak; what does: %v", codes(&r, Note))
			}
			f := r.Findings[i]
			if f.Severity != x.want {
				t.Errorf("severity %v, want %v", f.Severity, x.want)
			}
			if !strings.Contains(f.Why+f.Title, x.says) {
				t.Errorf("it says %q, %q, without %q", f.Title, f.Why, x.says)
			}
			if len(f.Repairs) == 0 {
				t.Error("nothing mends it")
			}
			if group, _, _ := strings.Cut(x.code, "."); len(f.Figures) == 0 && (group == "site" || group == "bleed" || x.code == "prep.damp") {
				t.Error("no figures stand behind it")
			}
			zone, plan := x.nearZone, x.nearPlan
			if zone == "" {
				zone = x.zone
			}
			if plan == "" {
				plan = x.plan
			}
			r = Check(c, zoneOf(t, zone, plan), Options{})
			for _, g := range r.Findings {
				// A near miss is a finding less, or at least one less severe.
				if g.Code == x.code && g.Subject == f.Subject && g.Severity >= f.Severity {
					t.Errorf("it speaks of the near miss %q %q as well: %s", zone, plan, g.Why)
				}
			}
		})
	}
	for _, r := range Rules {
		if !covered[r.Code] {
			t.Errorf("%s has no case", r.Code)
		}
	}
}

func TestRuleBookIsComplete(t *testing.T) {
	seen := map[string]bool{}
	for _, r := range Rules {
		if seen[r.Code] {
			t.Errorf("%s stands twice", r.Code)
		}
		seen[r.Code] = true
		if r.Title == "" || r.Why == "" || r.When == "" || r.Say == nil || r.Mend == nil || r.Step == nil && r.End == nil {
			t.Errorf("%s is not filled in", r.Code)
		}
		if !strings.Contains(r.Code, ".") || strings.HasSuffix(r.Title, ".") || !strings.HasSuffix(r.Why, ".") || !strings.HasSuffix(r.When, ".") {
			t.Errorf("%s is not written as the others are", r.Code)
		}
	}
	for _, b := range craft.Bleeders {
		if !seen[b.Rule] {
			t.Errorf("%s reports under %s, which is no rule", b.ID, b.Rule)
		}
	}
}

func TestFindingsAreOrderedAndOnce(t *testing.T) {
	c := craft.Default()
	r := Check(c, zoneOf(t, "mahogany varnish_oil gloss; soils grease2 grime2", "sand 220; paint_chalk x4"), Options{})
	for i := range r.Findings {
		for j := range r.Findings[:i] {
			a, b := &r.Findings[j], &r.Findings[i]
			if a.Severity < b.Severity {
				t.Errorf("%s (%v) stands before %s (%v)", a.Code, a.Severity, b.Code, b.Severity)
			}
			if a.Code == b.Code && a.Subject == b.Subject && a.Step == b.Step {
				t.Errorf("%s %s is said twice", a.Code, a.Subject)
			}
		}
	}
}

func TestVerdicts(t *testing.T) {
	c := craft.Default()
	for _, x := range []struct {
		zone, plan string
		want       Verdict
		says       string
	}{
		{"birch", "sand 180; dust; paint_acrylic x2", Sound, "This should hold"},
		{"birch", "", Watched, "No coat is planned yet."},
		{"oak", "shellac_pigmented x2; paint_acrylic x2", Sound, "no stain the eye would see (tannin"},
		{"laminate_hpl gloss", "paint_chalk; wax_clear", Fails, "Chalk paint will not hold on high-pressure laminate, and 1 more"},
	} {
		r := Check(c, zoneOf(t, x.zone, x.plan), Options{})
		if r.Verdict != x.want || !strings.Contains(r.Says(c), x.says) {
			t.Errorf("%s: %v, %q; want %v with %q (%v)", x.zone, r.Verdict, r.Says(c), x.want, x.says, codes(&r, Note))
		}
	}
}

func TestUnknownFinishIsWalkedForAllItMayBe(t *testing.T) {
	c := craft.Default()
	r := Check(c, zoneOf(t, "birch unknown", "sand 220; dust; primer_bond_wb; paint_acrylic x2"), Options{})
	i := slices.IndexFunc(r.Findings, func(f Finding) bool { return f.Code == "adhesion.wax_under" })
	if i < 0 {
		t.Fatal("it may be wax, and nobody says so")
	}
	if !strings.HasPrefix(r.Findings[i].Why, "If the old finish is wax: ") {
		t.Errorf("what is only supposed is said as if it were known: %s", r.Findings[i].Why)
	}
	if c.Finishes[r.Facts.Finish].ID != "wax" || r.Adhesion.Risk < .9 {
		t.Errorf("the worst it may be is %s at %v", c.Finishes[r.Facts.Finish].ID, r.Adhesion.Risk)
	}
	// Its repair holds whatever it is.
	for _, rp := range r.Findings[i].Repairs {
		if rp.Kind != Edit {
			continue
		}
		z := zoneOf(t, "birch unknown", "")
		z.Steps = rp.Steps
		again := Check(c, z, Options{})
		if again.Verdict == Fails {
			t.Errorf("%s leads to %v", rp.Title, codes(&again, Fail))
		}
		return
	}
	t.Error("no edit takes the wax off")
}

func TestWantedChipsAreNoFault(t *testing.T) {
	c := craft.Default()
	plan := "sand 220; dust; paint_milk x2; wax_clear"
	flaking := Check(c, zoneOf(t, "oak varnish_oil gloss; look chippy; bleed", plan), Options{})
	if slices.ContainsFunc(flaking.Findings, func(f Finding) bool { return strings.HasPrefix(f.Code, "adhesion.") }) {
		t.Errorf("a flaking look is nagged: %v", codes(&flaking, Note))
	}
	if flaking.Verdict == Sound {
		t.Error("a look that is not judged was called sound")
	}
	solid := Check(c, zoneOf(t, "oak varnish_oil gloss; bleed", plan), Options{})
	if solid.Verdict != Fails {
		t.Error("milk paint without additive on varnish was let pass as a solid finish")
	}
}

func TestRepairsKeepTheWantedSteps(t *testing.T) {
	c := craft.Default()
	for _, x := range painterZones {
		z := zoneOf(t, x.zone, x.plan)
		r := Check(c, z, Options{})
		wanted := coatsOf(c, z.Steps)
		for _, f := range r.Findings {
			for _, rp := range f.Repairs {
				if rp.Kind == Edit {
					got := coatsOf(c, rp.Steps)
					for id, n := range wanted {
						if got[id] < n && !(strings.Contains(strings.ToLower(rp.Title), "paint with ") && strings.HasPrefix(id, "paint")) {
							t.Errorf("%s, %s: %q takes %s away", x.name, f.Code, rp.Title, id)
						}
					}
				}
			}
		}
	}
}

// coatsOf counts the coats of paints, clears and waxes, by product and by the
// part they play.
func coatsOf(c *craft.Craft, steps []surface.Step) map[string]int {
	out := map[string]int{}
	for i := range steps {
		if s := &steps[i]; s.Do == surface.Coat {
			if p := &c.Products[s.Product]; p.Role != craft.RolePrimer {
				out[p.ID] += s.NumCoats()
				out["coats of "+string(p.Role)] += s.NumCoats()
			}
		}
	}
	return out
}

// Where nothing makes a coat hold, another one does; and what is to stay in
// sight is not painted over.
func TestRepairsThatChangeTheCoat(t *testing.T) {
	c := craft.Default()
	for _, x := range []struct {
		zone, plan, code string
		title            string // of the best edit; "" for none
	}{
		{"leather matt; wear seat", "paint_chalk x3; clear_wb", "adhesion.bond", "Paint with flexible paint instead"},
		{"leather matt; wear seat; look crackle", "paint_chalk x3; clear_wb", "adhesion.bond", ""},
		{"chrome satin", "sand 240; dust; primer_metal; paint_enamel_oil x2", "adhesion.bond", "Prime with epoxy primer instead"},
		{"laminate_hpl gloss", "primer_bond_wb; paint_chalk x2; clear_wb x2", "adhesion.key", "Sand with 220 and dust off"},
		{"birch wax", "stain_spirit; shellac_clear; wax_clear", "adhesion.wax_under", "Take the wax off with white spirit and wash"},
		{"birch varnish_oil satin; soils silicone3", "sand 220; dust; shellac_clear; paint_chalk; wax_clear", "prep.sand_before_clean", "First white spirit, 3 passes"},
		{"walnut shellac gloss; wear tabletop; made 1995", "pad; dust; clear_oil x3", "adhesion.weakest", ""},
	} {
		r := Check(c, zoneOf(t, x.zone, x.plan), Options{})
		i := slices.IndexFunc(r.Findings, func(f Finding) bool { return f.Code == x.code })
		if i < 0 {
			t.Errorf("%s: no %s among %v", x.zone, x.code, codes(&r, Note))
			continue
		}
		got := ""
		if rp := r.Findings[i].Repairs[0]; rp.Kind == Edit {
			got = rp.Title
		}
		if got != x.title {
			t.Errorf("%s: the best edit is %q, want %q", x.zone, got, x.title)
		}
	}
}
