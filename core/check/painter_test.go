package check

import (
	"slices"
	"testing"

	"rutile/core/craft"
)

// painterZones are zones with the verdict an experienced painter would give,
// written down before they were run, and the reason for it.
var painterZones = []struct {
	name, zone, plan string
	want             Verdict
	codes            string // one that must be among the findings, if any
	because          string
}{
	{"booth front, nothing done", "laminate_hpl gloss; soils grime1", "paint_chalk x2; wax_clear", Fails, "adhesion.weakest", "matt paint peels off gloss laminate in sheets"},
	{"booth front, done right", "laminate_hpl gloss; soils grime1", "detergent rinse; sand 220; dust; primer_bond_wb; paint_chalk x2; clear_wb x2", Sound, "", "scuffed and bond primed is how laminate is painted"},
	{"booth front, scuffed only", "laminate_hpl gloss", "sand 220; dust; paint_chalk x2; clear_wb x2", Watched, "adhesion.divided", "where painters divide: scuffed and clean it holds for most, and some of it peels"},
	{"bare oak, pale, no block", "oak; bleed tannin2", "raise_grain; dust; paint_chalk x2; wax_clear", Fails, "bleed.tannin", "oak browns every pale paint"},
	{"bare oak, black", "oak; colour #111111", "raise_grain; dust; paint_chalk x2; wax_clear", Sound, "", "nobody sees tannin through black"},
	{"varnished oak, scuffed, no block", "oak varnish_oil satin", "degreaser_alkaline rinse; sand 220; dust; paint_chalk x2; clear_wb x2", Watched, "bleed.tannin", "sound varnish holds most of it; one would be wary"},
	{"varnished oak, shellac under", "oak varnish_oil satin", "degreaser_alkaline rinse; sand 220; dust; shellac_pigmented; paint_chalk x2; clear_wb x2", Sound, "", "the usual good plan"},
	{"knotty pine, ordinary primer", "pine; knots", "sand 180; dust; primer_stainblock_wb; paint_acrylic x2", Fails, "bleed.knot", "knots come through ordinary primer"},
	{"knotty pine, sealed all over", "pine; knots", "sand 180; dust; shellac_pigmented x2; paint_acrylic x2", Sound, "", "pigmented shellac is the knot blocker"},
	{"mahogany, self-priming paint", "mahogany; soils grime1", "detergent rinse; sand 220; dust; paint_mineral x2", Fails, "bleed.self_priming", "it turns pink and brown whatever the tin says"},
	{"mahogany under shellac", "mahogany; soils grime1", "detergent rinse; sand 220; dust; shellac_pigmented x2; paint_mineral x2", Sound, "", "two coats of pigmented shellac hold dye and tannin"},
	{"cash locker, acrylic on bare steel", "steel; soils grease1; wear handled", "degreaser_alkaline rinse; paint_acrylic x2", Fails, "bleed.rust", "water-based paint on bare steel rusts and lifts"},
	{"cash locker, metal primer", "steel; soils grease1", "degreaser_alkaline rinse; sand 180; dust; primer_metal; paint_enamel_oil x2", Sound, "", "the book way"},
	{"umbrella stand, oil paint on zinc", "galvanised; wear wet", "degreaser_alkaline rinse; pad; dust; paint_enamel_oil x2", Fails, "adhesion.bond", "oil paint lets go of zinc"},
	{"umbrella stand, zinc primer", "galvanised; wear handled", "degreaser_alkaline rinse; pad; dust; primer_galv; paint_acrylic x2", Sound, "", "the primer made for it"},
	{"planter, masonry system", "terracotta; soils salts1; use outdoor; wear outdoor", "dry_brush; sealer_masonry x2; paint_masonry x2", Sound, "", "a breathing sealer and masonry paint last outdoors"},
	{"planter, chalk and wax outdoors", "terracotta; use outdoor; wear outdoor", "dry_brush; paint_chalk x2; wax_clear", Fails, "adhesion.weakest", "damp from behind lifts it in a winter"},
	{"planter indoors, chalk and wax", "terracotta; wear display", "dry_brush; paint_chalk x2; wax_clear", Watched, "bleed.salts", "holds, but a pot that held soil may bloom"},
	{"lantern pane, paint on glass", "glass gloss; wear display; soils grime1", "detergent rinse; paint_acrylic x2", Fails, "adhesion.weakest", "it scratches off with a nail"},
	{"lantern pane, glass primer", "glass gloss; wear display; soils release_agent1", "alcohol; primer_glass; paint_acrylic x2", Sound, "", "primer for glass, then anything"},
	{"ushers' seats, flexible paint", "vinyl_fabric satin; wear seat; soils grime2", "detergent rinse; alcohol; pad; dust; paint_flexible x3", Sound, "", "the only thing that stays on vinyl"},
	{"ushers' seats, chalk and wax", "vinyl_fabric satin; wear seat", "detergent rinse; paint_chalk x2; wax_clear", Fails, "adhesion.weakest", "cracks at the first sitting and turns sticky"},
	{"waxed box, straight on", "birch wax", "paint_chalk x2; wax_clear", Fails, "adhesion.wax_under", "nothing holds on wax"},
	{"waxed box, washed first", "birch wax", "white_spirit; detergent rinse; sand 220; dust; paint_chalk x2; wax_clear", Sound, "", "wax off, then it is bare birch"},
	{"greasy door, sanded first", "pine paint_factory semi_gloss; soils grease3; bleed", "sand 220; degreaser_alkaline rinse x2; dust; primer_bond_wb; paint_enamel_wb x2", Fails, "prep.sand_before_clean", "the grease is in the scratches now"},
	{"greasy door, degreased first", "pine paint_factory semi_gloss; soils grease3; bleed", "degreaser_alkaline rinse x2; sand 220; dust; primer_bond_wb; paint_enamel_wb x2", Sound, "", "right order"},
	{"old painted trunk, dry sanded", "pine paint_alkyd_old satin; made 1935; bleed", "sand 180; dust; primer_stainblock_oil; paint_enamel_oil x2", Fails, "safety.lead", "that paint may be full of lead"},
	{"unknown brown finish, no solvent wash", "unknown_wood unknown satin", "detergent rinse; sand 220; dust; shellac_pigmented; paint_chalk x2; wax_clear", Fails, "adhesion.wax_under", "it may be wax, and then all of it comes off"},
	{"unknown brown finish, washed", "unknown_wood unknown satin", "white_spirit; detergent rinse; sand 220; dust; shellac_pigmented x2; paint_chalk x2; wax_clear", Watched, "adhesion.untested", "should be all right; a test would tell"},
	{"silicone-polished top", "oak varnish_oil satin; soils silicone2; wear tabletop", "white_spirit; detergent rinse; sand 220; dust; shellac_clear x2; paint_acrylic x2; clear_wb_hard x3", Watched, "prep.silicone", "however often it is wiped some stays; the shellac mostly holds it"},
	{"silicone-polished top, shut in", "oak varnish_oil satin; soils silicone2; wear handled", "white_spirit x2; detergent rinse; sand 220; dust; shellac_pigmented; paint_acrylic x2; clear_wb x2", Watched, "prep.silicone", "two wipes and a barrier, and now and then a crater all the same"},
	{"plastic crate, promoter", "plastic_polyolefin satin; wear display; soils grime1", "detergent rinse; primer_plastic; paint_aerosol x3", Sound, "", "promoter and a can within the hour"},
	{"plastic crate, bonding primer", "plastic_polyolefin satin; soils grime1", "detergent rinse; sand 320 wet; dust; primer_bond_wb; paint_acrylic x2", Fails, "adhesion.bond", "even bonding primer slides off polyethylene"},
	{"mdf, plain", "mdf", "sand 180; dust; primer_stainblock_wb; paint_acrylic x2", Sound, "", "nothing to go wrong"},
	{"milk paint on bare birch", "birch", "sand 180; dust; paint_milk x3; wax_oil", Sound, "", "milk paint and raw wood belong together"},
	{"seat left in bare chalk paint", "birch; wear seat", "sand 180; dust; paint_chalk x2", Fails, "use.unsealed", "it will be black in a week"},
	{"cold shed", "birch; site 6 70", "sand 180; dust; paint_acrylic x2; clear_wb x2", Fails, "site.cold", "emulsion makes no film at 6 C; wait for the heater"},
	{"raw autumn day", "birch; site 8 85", "sand 180; dust; paint_acrylic x2; clear_wb x2", Watched, "site.humid", "one may get away with it; better wait for a dry day"},
	{"leather armchair, acrylic", "leather satin; wear seat; soils grime1", "detergent rinse; alcohol; paint_acrylic x2; clear_wb x2", Fails, "adhesion.weakest", "it cracks where it folds and comes off in flakes"},
	{"chrome tap rail, spray can", "chrome gloss; wear wet", "alcohol; paint_aerosol x3", Fails, "adhesion.bond", "nothing from a can stays on chrome"},
	{"hardboard back, emulsion", "hardboard", "sand 180; dust; paint_acrylic x2", Fails, "bleed.dye", "hardboard comes through brown"},
	{"hardboard back, shellac", "hardboard", "sand 180; dust; shellac_pigmented; paint_acrylic x2", Sound, "", "what one always does with hardboard"},
	{"pale oak, one coat of water-based blocker", "oak", "sand 180; dust; primer_stainblock_wb; paint_acrylic x2", Watched, "bleed.tannin", "one coat is not enough on oak"},
	{"pale oak, two coats of it", "oak", "sand 180; dust; primer_stainblock_wb x2; paint_acrylic x2", Sound, "", "two are, for most oak"},
	{"aluminium sign, zinc primer", "aluminium satin; soils oxide1", "pad; alcohol; primer_galv; paint_enamel_wb x2", Sound, "", "oxide off, primer the same day"},
	{"wet wood", "birch; moist 21", "sand 180; dust; paint_acrylic x2", Fails, "adhesion.weakest", "paint blisters off wood at 21 %"},
	{"enamel left a week too long", "birch", "sand 180; dust; primer_stainblock_oil; paint_enamel_oil wait400; paint_enamel_oil", Fails, "adhesion.missed_window", "hard enamel takes no more without a scuff"},
	{"powdery old paint", "birch paint_porous_old; excluded; wear handled", "dust; paint_acrylic x2; clear_wb x2", Fails, "adhesion.weakest", "new paint lifts off with the powder"},
	{"powdery old paint, bound", "birch paint_porous_old; excluded; wear handled", "dust; shellac_clear; paint_acrylic x2; clear_wb x2", Sound, "", "shellac binds it"},
}

func TestPainterZones(t *testing.T) {
	for _, x := range painterZones {
		t.Run(x.name, func(t *testing.T) {
			z := zoneOf(t, x.zone, x.plan)
			r := Check(craft.Default(), z, Options{Every: true})
			if r.Verdict != x.want || x.codes != "" && !slices.Contains(codes(&r, Watch), x.codes) {
				t.Errorf("%s: %v %v, want %v %s because %s", x.name, r.Verdict, codes(&r, Watch), x.want, x.codes, x.because)
				if r.Adhesion != nil {
					t.Logf("risk %.3f strength %.2f demand %.2f: %s", r.Adhesion.Risk, r.Adhesion.Weakest.Strength, r.Adhesion.Demand, r.Says(craft.Default()))
				}
				for _, s := range r.Stains {
					t.Logf("%s %.2f", s.Bleeder, s.DeltaE)
				}
			}
			for _, f := range r.Findings {
				if len(f.Repairs) == 0 {
					t.Errorf("%s has no repair", f.Code)
				}
			}
		})
	}
}
