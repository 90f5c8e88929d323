package check

import (
	"slices"
	"testing"

	"rutile/core/craft"
)

// What a painter would do about it is among what is offered, and leads where it
// should. The best way need not be the only one.
func TestRepairs(t *testing.T) {
	for _, x := range []struct {
		code, zone, plan, title string
		after                   Verdict
	}{
		{"film.reactivate", "beech varnish_oil gloss; look chippy; colour #dfe3d6", "paint_milk x2; effect chippy; dust; wait 48; clear_wb x2", "Seal it with clear wax instead", Sound},
		{"film.reactivate", "beech varnish_oil gloss; look chippy; colour #dfe3d6", "paint_milk x2; effect chippy; dust; wait 48; clear_wb x2", "A mist of clear shellac before it", Sound},
		{"film.thirsty", "birch varnish_oil matt; look glaze", "sand 220; dust; primer_bond_wb; paint_chalk x2; glaze_wb; effect glaze; wait 30; clear_wb x2", "Seal the paint with water-based clear coat first", Sound},
		{"film.seal_young", "birch varnish_oil matt", "sand 220; dust; primer_bond_wb; paint_acrylic x2; clear_wb x2 wait2; wax_clear", "Wait 4 h after water-based clear coat", Sound},
		{"film.yellow", "mdf; colour #ffffff", "primer_stainblock_wb; paint_acrylic x2; clear_oil x2", "Seal with water-based clear coat instead", Sound},
		{"film.yellow", "mdf; colour #ffffff", "primer_stainblock_wb; paint_enamel_oil x2", "Paint with water-borne enamel instead", Sound},
		{"film.hiding", "mdf; colour #f0c020", "primer_stainblock_wb; paint_acrylic", "3 coats of acrylic paint", Sound},
		{"film.sheen", "mdf; target satin", "primer_stainblock_wb; paint_enamel_wb x2 sheen:gloss", "Water-borne enamel in satin", Sound},
		{"film.sheen", "mdf; defects dent", "primer_stainblock_wb; paint_enamel_wb x2 sheen:gloss", "Fill, level and dust off first", Sound},
		{"film.too_thick", "mdf", "primer_stainblock_wb; paint_acrylic x2 thin45", "Stay within its range", Sound},
		{"film.soft_under_hard", "mdf; colour #3a4a44", "primer_stainblock_wb; paint_acrylic x2; wait 700; paint_enamel_oil", "Paint with water-borne enamel instead", Sound},
		{"film.block", "mdf; touching", "primer_stainblock_wb; paint_acrylic x2; wait 24; reassemble", "Wait 7 days before it", Sound},
		{"use.too_early", "mdf", "primer_stainblock_wb; paint_acrylic x2; wait 6; reassemble", "Wait 10 h before it", Sound},
		{"use.wear", "mdf; wear tabletop", "primer_stainblock_wb; paint_acrylic x2; clear_wb x2", "Seal it with 2 coats of hard water-based clear coat", Sound},
		{"use.wear", "mdf; wear seat", "primer_stainblock_wb; paint_acrylic x2; clear_wb", "Seal it with 2 coats of water-based clear coat", Sound},
		{"use.heat_water", "mdf; use hot_items", "primer_stainblock_wb; paint_acrylic x2; shellac_top x2", "Seal it with 2 coats of water-based clear coat", Sound},
		{"use.outdoor", "galvanised matt; use outdoor; wear outdoor; colour #3f5a52", "pad; dust; primer_galv; paint_enamel_wb x2", "Paint with oil enamel instead", Sound},
		{"effect.wont_chip", "beech varnish_oil satin; look chippy; colour #dfe3d6", "sand 220; dust; paint_milk x2 add.5; wax_clear", "Leave out the bonding additive", Sound},
		{"effect.wont_chip", "lime; look chippy; colour #dfe3d6", "raise_grain; dust; paint_milk x2; wax_clear", "Seal the surface with two coats of clear shellac first", Sound},
		{"effect.over_chip", "maple polyurethane gloss; look chippy; colour #dfe3d6", "paint_milk x2; effect chippy heat; dust; wait 48; wax_clear", "No warm air", Sound},
		{"effect.ground", "birch; look wash_wipe", "primer_stainblock_wb; paint_chalk x2; paint_acrylic thin100 col#6b5a48; effect wash_wipe; clear_wb x2", "Seal the paint first, and leave it for a day", Sound},
		{"effect.ground", "mdf; look decoupage", "primer_stainblock_wb; paint_chalk x2; effect decoupage; clear_wb x2", "Seal the paint first, and leave it for a day", Sound},
		{"effect.ground", "beech varnish_oil gloss; look chippy", "paint_milk; effect chippy; dust; wait 48; wax_clear", "Two coats of milk paint", Sound},
		{"effect.settle", "beech varnish_oil gloss; look chippy", "paint_milk x2; effect chippy; dust; wax_clear", "Wait 2 days before it", Sound},
		{"effect.finish", "mdf; look stencil", "primer_stainblock_wb; paint_acrylic x2; effect stencil", "Seal it with 2 coats of water-based clear coat", Sound},
		{"effect.finish", "mdf; look dusting", "primer_stainblock_wb; paint_acrylic x2; effect dusting; clear_wb x2", "Seal it with clear wax instead", Sound},
		{"effect.finish", "mdf; look marble", "primer_stainblock_wb; paint_acrylic x2; effect marble; clear_wb_hard", "3 coats of hard water-based clear coat", Sound},
		{"effect.finish", "mdf; look enamelware", "primer_stainblock_wb; paint_enamel_wb col#1f2a38; paint_enamel_wb x2; effect enamelware; clear_wb x2 sheen:matt", "Water-based clear coat in satin", Sound},
		{"effect.unwanted_chip", "ash polyurethane satin; colour #6d8f86", "sand 220; dust; paint_milk x2; wax_clear", "Mix half bonding additive into every coat of milk paint", Sound},
		{"effect.crackle_window", "mdf; look crackle", "primer_stainblock_wb; paint_acrylic x2 col#332222; crackle_medium wait12; paint_chalk; wax_clear", "Apply crackle medium once more just before", Sound},
		{"effect.crackle_paint", "mdf; look crackle", "primer_stainblock_wb; paint_acrylic x2 col#332222; crackle_medium wait2; paint_mineral; clear_wb x2", "Paint with chalk paint there", Sound},
		{"effect.wet_distress_late", "poplar; look distress_wet; colour #5b7a78", "raise_grain; dust; paint_clay x2; wait 100; effect distress_wet; wait 24; wax_clear", "Wear it two hours after the last coat", Sound},
		{"effect.wrong_paint", "poplar; look distress_wet; colour #5b7a78", "raise_grain; dust; paint_acrylic x2; effect distress_wet", "Paint with clay paint, wear it after two hours, and wax it", Sound},
		{"effect.glaze_wait", "mdf; look glaze", "primer_stainblock_wb; paint_acrylic x2; clear_wb; wait 24; glaze_wb wait10; clear_wb x2", "Spray it instead of brushing", Sound},
		{"effect.undercoat_hidden", "mdf; ground #f4f2ec; look distress_wet", "primer_stainblock_wb; paint_clay x2; effect distress_wet; wax_clear", "A dark coat below", Sound},
		{"effect.tack", "mdf; look gild", "shellac_clear x2; paint_acrylic x2 col#7a3a2a; effect gild; shellac_clear", "Apply leaf size first", Sound},
		{"effect.no_ground", "mdf; look stencil", "primer_stainblock_wb; effect stencil; paint_chalk x2; wax_clear", "Move it after the last paint", Sound},
		{"effect.excludes", "beech varnish_oil gloss; look chippy; colour #dfe3d6", "paint_milk x2; effect chippy; effect gild; wax_clear", "Keep the wanted look only", Watched},
		{"effect.missing", "mdf; look stencil", "primer_stainblock_wb; paint_acrylic x2; clear_wb x2", "Stencilled after the paint", Sound},
		{"adhesion.saponify", "concrete; age 20; colour #777777", "paint_enamel_oil x2", "Seal it with alkali-resistant masonry sealer first", Sound},
		{"adhesion.flex", "fabric_woven; colour #4a5a6b; ground #cfc6b4", "paint_milk x2", "Dye it with fabric wash instead", Sound},
		{"adhesion.plasticiser", "vinyl_fabric matt; colour #7c2f2c", "pad; dust; primer_bond_wb; paint_flexible x2", "Paint with flexible paint instead", Sound},
		{"adhesion.flash_rust", "steel; colour #27343a", "sand 180; dust; paint_acrylic x2", "Prime with metal primer", Sound},
		{"adhesion.solvent_lift", "mdf; colour #27343a", "primer_stainblock_wb; paint_aerosol x2 wait4", "Coat again after 15 min, while aerosol paint is still within its window", Sound},
		{"adhesion.waxy_shellac", "birch", "sand 220; dust; shellac_top x2; clear_oil x2", "Clear shellac, dewaxed, below instead", Sound},
		{"adhesion.additive_gap", "laminate_hpl satin; wear display; colour #6d8f86", "sand 220; dust; paint_milk x2 add1 first; wax_clear", "Put the additive in every coat", Sound},
		{"bleed.cut_back", "oak; look distress_dry", "raise_grain; dust; shellac_pigmented x2; paint_chalk x2; effect distress_dry; dust; clear_wb x2", "Wear it with 320, no deeper than the undercoat", Sound},
		{"prep.cleaner_harms", "brass gloss; soils grime1; colour #333333", "ammonia_water rinse; pad; dust; primer_epoxy; paint_enamel_wb x2", "Detergent wash instead", Sound},
		{"prep.too_coarse", "birch", "sand 120; dust; shellac_clear; paint_acrylic x2", "Sand with 180 instead", Sound},
		{"prep.grit_jump", "birch", "sand 80; sand 240; dust; shellac_clear; paint_acrylic x2", "Sand with 120 and 180 in between", Sound},
		{"prep.cut_through", "oak varnish_oil satin; veneer; colour #333333", "sand 80; dust; primer_bond_wb; paint_acrylic x2", "Sand with 220, by hand, instead", Sound},
		{"prep.grain_raise", "lime", "sand 220; dust; paint_enamel_wb x2", "Raise the grain first", Watched}, // and it still drinks
		{"prep.loose_left", "oak varnish_oil satin; veneer; defects lifted_veneer; colour #333333", "sand 220; dust; primer_bond_wb; paint_acrylic x2", "Glue it down", Sound},
		{"prep.filler_after_primer", "plywood", "fill fine; sand 180; dust; paint_enamel_wb x2", "Prime all of it with water-based stain-blocking primer", Sound},
		{"film.drinks", "mdf", "sand 180; dust; paint_enamel_wb x2", "Prime with bonding primer first", Sound},
		{"prep.no_removal", "mdf; fitting glass", "primer_stainblock_wb; paint_acrylic x2", "Mask it before the first coat", Sound},
		{"prep.mixed_base", "birch; match paint_chalk #f2f0ea", "raise_grain; dust; paint_chalk x2; wax_clear", "Prime it with water-based stain-blocking primer, as on the other zone", Sound},
		{"walk.undone", "birch varnish_oil matt", "sand 220; dust; clear_wb; sand 120 through; dust; wax_clear", "Do not cut through: only scuff it", Watched},
		{"safety.ammonia_bleach", "birch; soils mould1 grime1", "biocide_wash rinse; ammonia_water rinse; shellac_clear; paint_acrylic x2", "Detergent wash instead of ammonia water", Sound},
		{"adhesion.divided", "laminate_hpl satin", "sand 220; dust; paint_chalk x2; wax_clear", "Prime with bonding primer", Sound},
		{"adhesion.clash", "birch; colour #3a4048", "sand 220; dust; shellac_clear; primer_epoxy; paint_enamel_wb x2", "Prime with bonding primer instead", Sound},
		{"adhesion.oxide", "aluminium satin; colour #303838", "sand 240; dust; wait 10; primer_epoxy; paint_enamel_wb x2", "Coat it at once", Sound},
		{"adhesion.powder_wood", "pine; colour #3a4a44", "raise_grain; dust; paint_milk x3; wax_oil", "Mix half bonding additive into every coat of milk paint", Sound},
		{"prep.silicone", "ash varnish_oil satin; soils silicone2", "white_spirit x2; sand 220; dust; primer_bond_wb; paint_enamel_wb x2", "Seal it in with two coats of clear shellac", Watched},
		{"prep.strip_harms", "plastic_abs paint_acrylic_old satin; made 2010; colour #303838", "strip chemical; alcohol; sand 320 wet; dust; primer_plastic wait.3; paint_aerosol x3 wait.3", "Strip with a scraper instead", Watched},
		{"safety.heat_gun", "oak varnish_oil satin; veneer; colour #3a4048", "strip heat; sand 180; dust; primer_bond_wb; paint_enamel_wb x2", "Leave the old coat on", Sound},
		{"safety.oxalic", "oak; bleed iron_tannin2 tannin2", "oxalic_bleach; sand 220; dust; shellac_pigmented x2; paint_chalk x2; clear_wb x2", "Neutralise it and rinse twice first", Sound},
		{"safety.two_part", "steel; colour #3a4048", "sand 180; dust; primer_epoxy spray; paint_enamel_wb x2", "Brush it instead of spraying", Sound},
		{"prep.damp", "birch; soils grime1", "detergent rinse; wait 1; shellac_pigmented; paint_acrylic x2; clear_wb x2", "Let it dry 11 h longer", Sound},
		{"adhesion.flash_rust", "steel; soils grime1; colour #27343a", "sand 120; detergent rinse; primer_metal; paint_enamel_oil x2", "Sand it bright again and dust off, just before", Sound},
		{"safety.flammable", "birch varnish_oil matt; made 2004", "white_spirit; strip heat; dust; wax_clear", "Wait a day before using heat", Sound},
	} {
		t.Run(x.code+" "+x.title, func(t *testing.T) {
			r := Check(craft.Default(), zoneOf(t, x.zone, x.plan), Options{Every: true})
			i := slices.IndexFunc(r.Findings, func(f Finding) bool { return f.Code == x.code })
			if i < 0 {
				t.Fatalf("it does not speak; what does: %v", codes(&r, Note))
			}
			var offered []string
			for _, rp := range r.Findings[i].Repairs {
				offered = append(offered, rp.Title+" -> "+rp.After.String())
				if rp.Kind == Edit && rp.Title == x.title {
					if rp.After != x.after {
						t.Errorf("it leads to %v, want %v", rp.After, x.after)
					}
					return
				}
			}
			t.Errorf("not offered; what is: %q", offered)
		})
	}
}

// Plans as painters lay them out every week. Nobody wants to be told off for
// them: nothing above a note may be said, but where the last column says so.
func TestGoodPlansAreNotNagged(t *testing.T) {
	for _, x := range []struct{ zone, plan, but string }{
		{"birch paint_factory semi_gloss; made 2010; soils grease2; target satin", "degreaser_alkaline rinse; sand 220; dust; primer_bond_wb; paint_enamel_wb x2 sheen:satin", ""},
		{"steel powder satin; soils grime1; colour #303838; target gloss", "detergent rinse; sand 220; dust; alcohol; primer_aerosol; paint_aerosol x3 wait.3", ""},
		{"teak; wear outdoor; use outdoor", "sand 180; dust; oil_penetrating x2", ""},
		{"oak; wear tabletop", "sand 180; sand 240; dust; clear_oil x3", ""},
		{"oak; wear floor", "sand 120; sand 180; dust; clear_wb_hard x3", "prep.grain_raise"}, // one would sand after the first coat
		{"pine; knots; target satin", "sand 180; dust; shellac_pigmented x2; sand 320; dust; paint_enamel_wb x2 sheen:satin", ""},
		{"walnut shellac gloss; colour #2f3d3a", "detergent rinse; sand 320; dust; shellac_clear; paint_chalk x2; wax_clear; wax_dark", ""},
		{"mdf; look crackle; colour #e6ddc4", "sand 180; dust; primer_stainblock_wb; paint_chalk x2 col#5a3b34; crackle_medium; paint_chalk; clear_wb x2", ""},
		{"beech; look chippy; colour #dfe3d6", "sand 220; dust; shellac_clear x2; paint_milk x2; effect chippy; dust; wait 48; wax_oil", ""},
		{"oak; look limed; target matt", "sand 180; raise_grain; dust; wax_white; wax_clear", ""},
		{"glass gloss; wear display; soils grime1", "detergent rinse; alcohol; primer_glass; paint_enamel_wb x2", ""},
		{"leather satin; wear seat; soils grime1; colour #5b3a2a", "detergent rinse; alcohol; paint_flexible x3; clear_wb", ""},
		{"terracotta; wear display; bleed", "dust; paint_chalk x2; wax_clear", ""},
		{"plastic_abs satin; colour #303838", "detergent rinse; sand 320 wet; dust; primer_plastic wait.3; paint_aerosol x3 wait.3", ""},
		{"cherry varnish_oil satin; wear tabletop; look distress_dry; colour #3f5a52", "degreaser_alkaline rinse; sand 220; dust; shellac_pigmented; paint_chalk x2; effect distress_dry; dust; clear_wb_hard x3", ""},
		{"rattan matt; wear seat; colour #3f5a52", "detergent rinse; sand 220; dust; primer_bond_wb spray; paint_enamel_wb x2 spray", ""},
		{"melamine gloss; soils grease1", "degreaser_alkaline rinse; sand 220; dust; shellac_pigmented; paint_mineral x2", ""},
		{"birch paint_porous_waxed; made 2018; colour #3f5a52", "white_spirit; detergent rinse; sand 240; dust; paint_chalk x2; wax_clear", ""},
		{"brass gloss; colour #2c3331", "sand 240; alcohol; primer_epoxy; paint_enamel_wb x2", ""},
		{"stone; age 4000; wear tabletop; bleed; look marble", "sand 120; dust; primer_bond_wb; paint_acrylic x2; effect marble; clear_wb_hard x3", ""},
	} {
		r := Check(craft.Default(), zoneOf(t, x.zone, x.plan), Options{NoRepairs: true})
		said := slices.DeleteFunc(codes(&r, Watch), func(code string) bool { return code == x.but })
		if len(said) > 0 || x.but != "" && r.Verdict == Sound {
			t.Errorf("%s: %s: %v", x.zone, x.plan, codes(&r, Watch))
		}
	}
}
