package craft

import "math"

// Never stands for a window's missing end and for "not sanded".
var Never = math.Inf(1)

// Window is a span of hours after a coat.
type Window struct{ From, To float64 }

// Role is the part a product plays in a coat system.
type Role string

// The roles.
const (
	RolePrimer Role = "primer"
	RolePaint  Role = "paint"
	RoleClear  Role = "clear"
	RoleWax    Role = "wax or oil"
	RoleStain  Role = "stain or treatment"
	RoleMedium Role = "medium or glaze"
)

// ProductRow describes one generic kind of product. Times are in hours at
// 23 C and 50 % relative humidity for one normal brush coat.
type ProductRow struct {
	ID      string
	Name    string
	Role    Role
	Coat    Coat
	Carrier Carrier
	TwoPart bool
	Touch   float64 // touch dry
	// Recoat is the window for the next coat without sanding; To is Never
	// where there is no latest.
	Recoat Window
	// Again is when a product with two windows opens for the second time; 0
	// for all others. Between the windows the next coat wrinkles it.
	Again float64
	// Left says how long it is left where no label tells and painters have a word for it; its
	// Recoat.From is then the least of that.
	Left Saying
	// Tacky is the span in which it still holds leaf or a resist; zero if it
	// has none.
	Tacky Window
	// Open is how long it can be worked; 0 if the kind has no such figure.
	Open  float64
	Sand  float64 // earliest sanding; Never if it is not sanded
	Cure  float64 // days to full hardness
	Cover float64 // square metres per litre and coat
	Film  float64 // dry film in micrometres per coat
	// Hiding is the contrast ratio of one coat of a pale mix, black against
	// white; 0 is clear.
	Hiding float64
	MinC   float64 // coldest it may be applied at
	MaxRH  float64 // dampest air it may be applied in, per cent
	// PotLife in hours once mixed; Never if it keeps.
	PotLife float64
	// Dried is the family it becomes; NumFamilies if it leaves the surface as
	// it was.
	Dried Family
	// Later is the family it becomes after its second window, NumFamilies if
	// that does not change.
	Later Family
	// Block is its row of the blocking table.
	Block BlockKind
	// Leaves is a bleeder it brings itself until sealed, level 0 for none;
	// Removes one it takes away.
	Leaves  Implied
	Removes []Bleeder
	Sheen   Sheen
	Colour  string // the product's usual colour; empty for paints and clears
	// Alkyd marks a water-borne paint that hardens as an oil paint does, and Acid a treatment or
	// primer that works by acid.
	Alkyd, Acid bool
	// SelfPrime marks paints sold as self-priming; Waxy a shellac that contains wax; Alkali a
	// caustic powder; NoScuff a product whose missed window no scuff cures; Rags one whose rags can
	// catch fire by themselves; Aerosol a spray can.
	SelfPrime, Waxy, Alkali, NoScuff, Rags, Aerosol bool
	// MaxC is the warmest it may be applied at.
	MaxC float64
	// Yellowing is how far a usual coat of it yellows white within a year, in
	// CIEDE2000 units; 0 for what stays as it is.
	Yellowing float64
	// Durability ranks how much wear it takes as the last coat, as [Traits] does.
	Durability int
	// Outside tells that it is weatherproof.
	Outside bool
	// ThinMax is the most water or thinner in per cent that it may carry.
	ThinMax float64
	// Softens is how long water still takes it back, and Drags tells that a wet seal drags its
	// colour along even then.
	Softens Softens
	Drags   bool
	// Tints colours what it lies on; ByParts is mixed from its parts by the painter.
	Tints, ByParts bool
	// Sheens are those it is sold in, the flattest first; Methods are the ids of the ways it is
	// applied, the usual one first; and Sizes are the cans it is sold in, in litres.
	Sheens  []Sheen
	Methods []string
	Sizes   []float64
	// MostFlat is the area in square metres up to which a painter thinks of it on flat faces, and
	// MostSlender the same on frames, legs and rails; 0 for any. They are those of one colour on the
	// whole piece.
	MostFlat, MostSlender float64
	// Only are the surfaces that it is meant for; none for any.
	Only []Family
	// Serves are the places in plans and proposals that it fills.
	Serves []Serve
	// Price in minor units of money per litre, and Smell from 0 to 3. Working
	// defaults.
	Price, Smell int
	Remark       string
	// Ratio is the parts of water or hardener to one part by volume that it is mixed with; 0 for none.
	Ratio float64
	// Keeps is how many months a closed can keeps, and KeepsOpen how many it does once it was opened; 0
	// where it keeps for years.
	Keeps, KeepsOpen int
	// Density is what a litre of it weighs, in kilograms.
	Density float64
	// Mixing and Laying are the ids of how it is mixed and laid, see [Mixings] and [Layings].
	Mixing, Laying string
	// Label is what the label of a can says, and Can which of a piece's cans it is, from 1; nil and 0 for a
	// kind.
	Label *Label
	Can   int
}

// Powder tells whether it is bought as a powder and mixed with water for each coat.
func (p *ProductRow) Powder() bool { return p.Coat == MK }

// Sensitises tells whether its hardener or cross-linker can make people allergic for life, so that its mist is not
// for a home workshop.
func (p *ProductRow) Sensitises() bool { return p.TwoPart || p.Coat == WH }

// LeavesFilm reports whether the product changes what the next coat meets.
func (p *ProductRow) LeavesFilm() bool { return p.Dried != NumFamilies }

// Opaque reports whether the product hides what is under it.
func (p *ProductRow) Opaque() bool { return p.Hiding >= .3 }

// WaterBased reports whether water carries the product.
func (p *ProductRow) WaterBased() bool { return p.Carrier == Water }

// LiesSmooth tells whether coats of it are sanded lightly in between, so that it lies smooth: paints and
// clears that make a film of their own. Matt porous paints, primers and what dissolves into its own last
// coat are not.
func (p *ProductRow) LiesSmooth() bool {
	switch p.Coat {
	case AC, ME, OE, WP, WH, OP:
		return p.Role == RolePaint || p.Role == RoleClear
	}
	return false
}

// HardUnder is how many hours the product must have dried before a rag drags the
// next over it, 0 where nothing is rubbed: a clear coat under wax and oil until
// it may be sanded, and a day under glaze, which is wiped with water; left is the
// word for that. Working default.
func (p *ProductRow) HardUnder(next *ProductRow) (hours float64, left Saying) {
	if p.Role != RoleClear || math.IsInf(p.Sand, 1) {
		return 0, NoSaying
	}
	switch next.Coat {
	case GZ:
		return p.Sand, ADay
	case WX, OL:
		return p.Sand, NoSaying
	}
	return 0, NoSaying
}

const asItWas = NumFamilies

// warmest is the highest temperature for a coat with a carrier: above it, it dries on the brush.
// Working default.
var warmest = map[Carrier]float64{Dry: 40, Water: 30, Alcohol: 30, Solvent: 32, StrongSolvent: 32, Paste: 35, OilCarrier: 35}

// thinner is the most that a product of a role is thinned by, in per cent.
// Working default.
var thinner = map[Role]float64{RolePrimer: 10, RolePaint: 20, RoleClear: 10, RoleWax: 10, RoleStain: 50, RoleMedium: 20}

// p1 starts a row with the columns every product has.
func p1(id, name string, role Role, coat Coat, carrier Carrier, touch, from, to, sand, cure, cover, film, hiding, minC, maxRH float64) ProductRow {
	return ProductRow{
		ID: id, Name: name, Role: role, Coat: coat, Carrier: carrier, Touch: touch,
		Recoat: Window{from, to}, Sand: sand, Cure: cure, Cover: cover, Film: film,
		Hiding: hiding, MinC: minC, MaxRH: maxRH, PotLife: Never,
		Dried: driedBy[coat], Later: asItWas, Block: Coats[coat].Block, Sheen: Matt,
		MaxC: warmest[carrier], Durability: TraitsOf[coat].Durability, Outside: TraitsOf[coat].Outside, ThinMax: thinner[role],
	}
}

func (p ProductRow) with(f func(*ProductRow)) ProductRow {
	f(&p)
	return p
}

// look sets sheen, colour, price per litre, smell and remark.
func (p ProductRow) look(sheen Sheen, colour string, price, smell int, remark string) ProductRow {
	p.Sheen, p.Colour, p.Price, p.Smell, p.Remark = sheen, colour, price, smell, remark
	return p
}

// driedBy is what a dried coat of each family becomes.
var driedBy = [NoCoat + 1]Family{
	MK: PorousPaint, MB: PorousPaint, CP: PorousPaint,
	AC: AcrylicPaint, ME: AcrylicPaint, FX: AcrylicPaint, MS: AcrylicPaint,
	OE: AlkydPaint, AE: LacquerFilm, SH: ShellacNew,
	BP: PrimerFilm, SO: PrimerFilm, SW: PrimerFilm, EP: PrimerFilm, MP: PrimerFilm, ZP: PrimerFilm, GP: PrimerFilm, PA: PrimerFilm, ET: PrimerFilm,
	PP: Promoted, WP: VarnishFilm, WH: VarnishFilm, OP: VarnishFilm,
	WX: WaxFilm, OL: OilFilm, TX: Textile, GZ: PorousPaint,
	CM: asItWas, NoCoat: asItWas,
}

var defaultProducts = []ProductRow{
	p1("shellac_clear", "Clear shellac", RolePrimer, SH, Alcohol, .25, .75, Never, .75, 3, 9, 12, 0, 8, 65).look(SemiGloss, "", 2600, 2, "dewaxed; each coat dissolves into the last; two coats for a full seal").with(func(p *ProductRow) { p.Tacky = Window{.05, .35} }).as(1, ForTacky, ForLeafSeal, ForBarrier, ForScuffAndSeal, ForResistShellac).as(3, ForFilledSpots).sold([]Sheen{SemiGloss}, .25, 1).by("brush", "pad", "spray"),
	p1("shellac_pigmented", "Pigmented shellac", RolePrimer, SH, Alcohol, .35, .75, Never, .75, 3, 10, 30, .85, 5, 80).look(Matt, "#f4f2ec", 3400, 2, "seals knots and dyes").with(func(p *ProductRow) { p.Block = BlockShellacPigmented }).as(2, ForBarrier, ForEvenGround, ForFilledSpots).as(1, ForBlocking).sold([]Sheen{Matt}, .5, 1).by("brush", "spray"),
	p1("primer_stainblock_oil", "Solvent stain-blocking primer", RolePrimer, SO, Solvent, 2, 6, 168, 8, 7, 10, 40, .9, 5, 85).look(Matt, "#f3f1ea", 2400, 3, "").as(1, ForOutdoorPrimer),
	p1("primer_stainblock_wb", "Water-based stain-blocking primer", RolePrimer, SW, Water, .5, 1, Never, 1, 7, 10, 35, .88, 10, 80).look(Matt, "#f4f3ee", 2200, 1, "two coats over anything that bleeds").as(1, ForEvenGround, ForFilledSpots),
	p1("primer_bond_wb", "Bonding primer", RolePrimer, BP, Water, 1, 4, 168, 6, 10, 10, 35, .8, 10, 80).look(Matt, "#f1f0ec", 2800, 1, "grips slick surfaces; a weak stain blocker").as(3, ForEvenGround).as(2, ForOutdoorPrimer),
	p1("primer_epoxy", "Epoxy primer", RolePrimer, EP, Solvent, 2, 8, 72, 12, 7, 8, 60, .85, 12, 80).look(Satin, "#c9cbc9", 4200, 3, "pot life four hours; respirator").with(func(p *ProductRow) { p.TwoPart = true; p.PotLife = 4 }).as(2, ForSteel),
	p1("primer_metal", "Metal primer", RolePrimer, MP, Solvent, 1, 4, 168, 6, 7, 9, 40, .9, 5, 80).look(Matt, "#9a4a3a", 2300, 3, "rust-inhibiting; for steel and iron").as(1, ForSteel),
	p1("primer_galv", "Zinc primer", RolePrimer, ZP, Water, 1, 4, Never, 6, 7, 10, 30, .7, 10, 80).look(Matt, "#d4d6d2", 2500, 1, "for zinc and light alloy"),
	p1("primer_plastic", "Plastic promoter", RolePrimer, PP, Solvent, .1, .15, 1, Never, 1, 15, 3, 0, 10, 75).look(Satin, "", 4800, 3, "paint over it within the hour").with(func(p *ProductRow) { p.NoScuff = true }).by("rag", "spray"),
	p1("primer_glass", "Glass primer", RolePrimer, GP, Water, 1, 16, 72, Never, 7, 12, 20, .4, 12, 70).look(Matt, "#eef0ee", 3600, 1, "for glass and tile"),
	p1("sealer_masonry", "Masonry sealer", RolePrimer, MS, Water, 1, 4, Never, Never, 7, 7, 15, .1, 8, 80).look(Matt, "", 1500, 1, "resists alkali; lets moisture out").as(1, ForMineral),
	p1("paint_milk", "Milk paint", RolePaint, MK, Water, .3, 1, Never, 1, 30, 10, 20, .86, 12, 75).look(DeadFlat, "", 2000, 0, "powder; pot life 8 hours, 48 chilled; alkaline powder: wear a dust mask").with(func(p *ProductRow) {
		p.PotLife = 8
		p.Alkali = true
		p.ThinMax = 200
		p.MaxC = 32
		p.Softens = Softens{6, 8, 48}
	}).as(1, ForFlaking).as(3, ForWorn).sold([]Sheen{DeadFlat}, .25, 1).by("brush", "spray"),
	p1("paint_chalk", "Chalk paint", RolePaint, CP, Water, .5, 2, Never, 2, 25, 11, 40, .93, 10, 80).look(DeadFlat, "", 2700, 0, "decorative matt; absorbent until sealed").with(func(p *ProductRow) { p.Softens = Softens{2, 12, 48} }).as(1, ForUnder, ForThinTop, ForWorn).as(2, ForWipingBack, ForLeafGround).sold([]Sheen{DeadFlat}, .1, 1, 2.5),
	p1("paint_clay", "Clay paint", RolePaint, CP, Water, .5, 1, Never, 1, 21, 11, 45, .94, 10, 80).look(DeadFlat, "", 2600, 0, "softens again with water until it is sealed: easy up to 3 hours, workable for a day, with elbow grease after days").with(func(p *ProductRow) { p.Softens = Softens{3, 24, Never}; p.Drags = true }).as(5, ForUnder).as(3, ForThinTop).as(1, ForWipingBack).as(4, ForWorn).sold([]Sheen{DeadFlat}, .1, 1).by("brush", "roller"),
	p1("paint_acrylic", "Acrylic paint", RolePaint, AC, Water, 1, 3, Never, 4, 28, 11, 35, .92, 10, 80).look(Matt, "", 1600, 1, "emulsion or craft paint; softens in heat and sticks to itself until cured").with(func(p *ProductRow) { p.Durability = 1 }).as(2, ForUnder, ForThinTop, ForHardPaint).as(3, ForEnamelware).as(1, ForLeafGround, ForUsualPaint).as(2, ForWorn).sold([]Sheen{DeadFlat, Matt, Eggshell, Satin}, .1, 1, 2.5),
	p1("paint_mineral", "Mineral paint", RolePaint, ME, Water, 1, 4, Never, 6, 30, 12, 38, .93, 10, 80).look(Eggshell, "", 3200, 1, "sold as primer and clear in one; not a stain blocker").with(func(p *ProductRow) { p.SelfPrime = true }).as(3, ForUnder, ForLeafGround).as(2, ForEnamelware).as(5, ForWorn).sold([]Sheen{Matt, Eggshell, Satin}, .125, .5, 1),
	p1("paint_enamel_wb", "Water-borne enamel", RolePaint, ME, Water, 2, 16, Never, 16, 30, 12, 38, .94, 10, 80).look(Satin, "", 2900, 1, "").with(func(p *ProductRow) { p.Alkyd = true }).as(4, ForUnder).as(1, ForEnamelware, ForHardPaint).as(2, ForUsualPaint).sold([]Sheen{Eggshell, Satin, SemiGloss, Gloss}, .75, 2.5),
	p1("paint_trim", "Acrylic trim paint", RolePaint, AC, Water, 1, 4, Never, 6, 21, 12, 35, .93, 10, 80).look(Satin, "", 2600, 1, "for doors, trim and everyday furniture; sold in satin").with(func(p *ProductRow) { p.Durability = 3 }).as(3, ForHardPaint),
	p1("paint_enamel_oil", "Oil enamel", RolePaint, OE, Solvent, 8, 24, 120, 24, 25, 14, 38, .95, 8, 80).look(Gloss, "", 2500, 3, "yellows in dark places").with(func(p *ProductRow) { p.Yellowing = 2.5 }).as(4, ForEnamelware).as(2, ForOutdoorPaint).sold([]Sheen{Eggshell, Satin, SemiGloss, Gloss}, .25, .75, 2.5),
	p1("paint_aerosol", "Aerosol paint", RolePaint, AE, StrongSolvent, .2, .1, 1, 24, 7, 4, 15, .75, 10, 70).look(Gloss, "", 3000, 3, "wrinkles if recoated outside its windows; thin coats").with(func(p *ProductRow) { p.Again = 24; p.Later = AlkydPaint; p.Aerosol = true; p.NoScuff = true }).sold([]Sheen{Matt, Satin, Gloss}, .4).by("aerosol").upTo(.5, 1.5),
	p1("paint_masonry", "Masonry paint", RolePaint, AC, Water, 1, 4, Never, Never, 28, 8, 50, .94, 8, 80).look(Matt, "", 1300, 1, "outdoor; for terracotta and stone").with(func(p *ProductRow) { p.Outside = true; p.Durability = 3; p.Only = []Family{MineralPorous} }).as(1, ForOutdoorPaint),
	p1("paint_metallic", "Metallic paint", RolePaint, AC, Water, .5, 2, Never, Never, 21, 10, 20, .6, 12, 75).look(Satin, "#b9a06a", 3800, 1, "covers poorly: needs a base close to its colour"),
	p1("primer_aerosol", "Aerosol primer", RolePrimer, PA, StrongSolvent, .25, .5, 24, 1, 5, 4, 15, .8, 8, 75).look(Matt, "#b8b9b6", 2800, 3, "metal, plastic, awkward shapes; what it holds on and blocks is on the can").with(func(p *ProductRow) { p.Aerosol = true }).sold([]Sheen{Matt}, .4).by("aerosol").upTo(.5, 1.5),
	p1("primer_etch", "Etch primer", RolePrimer, ET, StrongSolvent, .25, 1, 24, Never, 3, 10, 10, .2, 10, 75).look(Matt, "#b9b27a", 3600, 3, "bites bright metal with acid; nothing two-part over it").with(func(p *ProductRow) { p.Acid = true }).by("brush", "spray"),
	p1("stain_spirit", "Spirit stain", RoleStain, NoCoat, Alcohol, .5, 1, Never, Never, 3, 12, 0, 0, 10, 80).look(Matt, "", 2400, 2, "bleeds until sealed").with(func(p *ProductRow) { p.Leaves = Implied{Dye, 2} }),
	p1("stain_water", "Water stain", RoleStain, NoCoat, Water, 2, 4, Never, Never, 3, 12, 0, 0, 10, 80).look(Matt, "", 1800, 0, "raises the grain; bleeds until sealed").with(func(p *ProductRow) { p.Leaves = Implied{Dye, 2} }),
	p1("stain_gel", "Gel stain", RoleStain, NoCoat, Solvent, 8, 24, Never, Never, 3, 12, 0, 0, 10, 80).look(Matt, "", 2600, 2, "bleeds until sealed").with(func(p *ProductRow) { p.Leaves = Implied{Dye, 1}; p.Rags = true }),
	p1("grain_filler", "Grain filler", RoleStain, AC, Water, 1, 6, Never, 6, 3, 6, 60, .3, 10, 80).look(Matt, "#d8c6a4", 2200, 0, "for open grain that should be smooth").with(func(p *ProductRow) { p.Durability = 1 }).as(1, ForGrain).cards("medium", "grain_filler"),
	p1("oxalic_bleach", "Oxalic bleach", RoleStain, NoCoat, Water, 2, 24, Never, 24, 1, 10, 0, 0, 10, 80).look(Matt, "", 1200, 0, "takes out iron stain; toxic: gloves, rinse, never dry-sand the residue").with(func(p *ProductRow) { p.Removes = []Bleeder{IronTannin}; p.Acid = true }).as(1, ForIronStain).cards("stain", "bleach"),
	p1("size_leaf", "Leaf size", RoleMedium, GP, Water, .3, .3, 12, Never, 1, 14, 5, 0, 12, 75).look(Satin, "", 3600, 1, "lay the leaf while it is tacky; seal afterwards").with(func(p *ProductRow) { p.Tacky = Window{.3, 12}; p.NoScuff = true }).as(1, ForSize).sold([]Sheen{Satin}, .1, .25).cards("medium", "size"),
	p1("clear_oil_wipe", "Wiping varnish", RoleClear, OP, Solvent, 3, 8, 48, 12, 20, 18, 10, 0, 8, 80).look(Satin, "", 2400, 3, "thin and forgiving; ambers").with(func(p *ProductRow) { p.Rags = true; p.Yellowing = 3.5 }).as(5, ForClear).by("rag", "brush").cards("oil", "wiping_varnish"),
	p1("paint_flexible", "Flexible paint", RolePaint, FX, Water, .5, .5, Never, Never, 7, 12, 15, .85, 12, 75).look(Satin, "", 4500, 1, "for vinyl and leather").as(1, ForFlexing).sold([]Sheen{Matt, Satin}, .25, .5),
	p1("paint_diy_chalk", "Home-made matt paint", RolePaint, CP, Water, 1, 3, Never, 3, 28, 9, 45, .9, 10, 80).look(DeadFlat, "", 1500, 0, "mixed by parts from emulsion and filler").with(func(p *ProductRow) { p.Softens = Softens{2, 12, 48}; p.ByParts = true }).as(3, ForWipingBack).cards("home_made", "matt"),
	p1("fabric_wash", "Fabric wash", RolePaint, TX, Water, 3, 6, Never, 12, 7, 6, 2, .5, 12, 75).look(DeadFlat, "", 1400, 0, "thinned paint on wet cloth; sand lightly between coats").with(func(p *ProductRow) { p.ThinMax = 300 }).as(1, ForDyeing).by("brush", "foam"),
	p1("crackle_medium", "Crackle medium", RoleMedium, CM, Water, .5, .75, 4, Never, 1, 9, 25, 0, 12, 75).look(Satin, "", 3000, 0, "apply the coat over it within its window, in one pass").with(func(p *ProductRow) { p.NoScuff = true }).as(1, ForCrackMedium),
	p1("lift_medium", "Lift medium", RoleMedium, CM, Water, .75, 1, 8, Never, 1, 9, 25, 0, 12, 75).look(Satin, "", 3000, 0, "makes the next coat come away when rubbed").with(func(p *ProductRow) { p.NoScuff = true }).as(1, ForLiftMedium),
	p1("glaze_wb", "Water-based glaze", RoleMedium, GZ, Water, .5, 16, Never, Never, 7, 14, 8, .1, 12, 75).look(Satin, "", 2400, 0, "applied wet over a set glaze, it lifts the set one").with(func(p *ProductRow) { p.Open = .08; p.Left = ADay }).as(1, ForGlaze).by("brush", "rag"),
	p1("glaze_stain", "Stain glaze", RoleMedium, GZ, Water, 3, 6, Never, Never, 7, 14, 8, .1, 12, 75).look(Satin, "", 2600, 1, "").with(func(p *ProductRow) { p.Rags = true }).as(2, ForGlaze).as(1, ForDragging),
	p1("wax_clear", "Clear wax", RoleWax, WX, Paste, .3, 24, Never, Never, 30, 25, 2, 0, 10, 85).look(Eggshell, "", 3200, 1, "buff after 20 minutes to 12 hours").as(1, ForWax, ForResistWax, ForSeal(Display), ForSeal(Handled)).as(3, ForWhiteSeal),
	p1("wax_white", "White wax", RoleWax, WX, Paste, .3, 24, Never, Never, 30, 25, 2, 0, 10, 85).look(Eggshell, "", 3400, 1, "buff after 20 minutes to 12 hours").with(func(p *ProductRow) { p.Tints = true }).as(1, ForLiming),
	p1("wax_dark", "Dark wax", RoleWax, WX, Paste, .3, 24, Never, Never, 30, 25, 2, 0, 10, 85).look(Eggshell, "", 3400, 1, "goes over clear wax; buff after 20 minutes to 12 hours").with(func(p *ProductRow) { p.Tints = true }),
	p1("wax_oil", "Wax oil", RoleWax, OL, OilCarrier, 8, 24, Never, Never, 30, 20, 5, 0, 10, 85).look(Eggshell, "", 3600, 1, "wipe off after 15 to 25 minutes; oily rags can catch fire by themselves").with(func(p *ProductRow) { p.Rags = true; p.Yellowing = 1.5 }).as(2, ForWax).as(3, ForSeal(Handled)),
	p1("oil_penetrating", "Penetrating oil", RoleWax, OL, OilCarrier, 8, 24, Never, Never, 30, 20, 5, 0, 10, 85).look(Matt, "", 2800, 1, "wipe off after 15 to 25 minutes; oily rags can catch fire by themselves").with(func(p *ProductRow) { p.Rags = true; p.Yellowing = 3 }),
	p1("clear_wb", "Water-based clear coat", RoleClear, WP, Water, 1, 2, 24, 4, 21, 11, 20, 0, 10, 80).look(Satin, "", 2600, 1, "stays clear; all sheens").as(1, ForClear, ForPlainSeal, ForUnderGlaze, ForSeal(Seat)).as(2, ForWhiteSeal, ForLeafSeal, ForSeal(Display), ForSeal(Handled)).sold([]Sheen{DeadFlat, Matt, Eggshell, Satin, SemiGloss, Gloss}, .25, 1, 2.5),
	p1("clear_wb_hard", "Hard water-based clear coat", RoleClear, WH, Water, 1, 3, 24, 6, 14, 10, 25, 0, 12, 75).look(Satin, "", 3600, 1, "floor grade; for table tops").as(2, ForClear, ForSeal(Seat)).as(3, ForUnderGlaze).as(1, ForWhiteSeal, ForSeal(Tabletop), ForSeal(WetWear), ForSeal(Floor)).as(5, ForLeafSeal).sold([]Sheen{Matt, Eggshell, Satin, SemiGloss, Gloss}, 1, 2.5),
	p1("clear_oil", "Oil-based clear coat", RoleClear, OP, Solvent, 5, 12, 48, 24, 30, 13, 30, 0, 8, 80).look(Gloss, "", 2400, 3, "ambers: slightly at once, clearly within a year over white").with(func(p *ProductRow) { p.Yellowing = 8 }).as(4, ForClear, ForLeafSeal).as(2, ForSeal(Tabletop), ForSeal(WetWear)).as(1, ForSeal(Outdoor)).sold([]Sheen{Matt, Eggshell, Satin, SemiGloss, Gloss}, .25, .75, 2.5),
	p1("clear_acrylic_varnish", "Matt acrylic varnish", RoleClear, WP, Water, 1, 3, Never, 4, 14, 12, 18, 0, 10, 80).look(Matt, "", 2200, 1, "").with(func(p *ProductRow) { p.Durability = 2 }).as(3, ForClear, ForLeafSeal).as(2, ForPlainSeal, ForUnderGlaze).sold([]Sheen{DeadFlat, Matt, Eggshell, Satin}, .25, .75),
	p1("clear_lacquer", "Aerosol clear lacquer", RoleClear, AE, StrongSolvent, .15, .1, 1, 24, 7, 5, 12, 0, 10, 65).look(Gloss, "", 3000, 3, "dissolves into the layer below").with(func(p *ProductRow) { p.Again = 24; p.Aerosol = true; p.NoScuff = true }).as(6, ForClear).as(2, ForTacky).as(1, ForResistLacquer).sold([]Sheen{Gloss}, .4).by("aerosol").upTo(.5, 1.5),
	p1("shellac_top", "Shellac topcoat", RoleClear, SH, Alcohol, .25, 1, Never, 1, 5, 10, 12, 0, 8, 65).look(SemiGloss, "", 2600, 2, "contains wax; spirits and heat mark it; polyurethane does not stick to it").with(func(p *ProductRow) {
		p.Dried = ShellacFilm
		p.Waxy = true
		p.Yellowing = 4
		p.Durability = 2
	}).as(7, ForClear).sold([]Sheen{SemiGloss}, .25, 1).by("brush", "pad", "spray"),
}

// AdditiveID is the bonding additive: mixed into powder paint, never a coat by
// itself.
const AdditiveID = "bonding_additive"

// AdditiveFull is the ratio of additive to mixed paint, by volume, at which
// milk paint reaches the grip of the full additive.
const AdditiveFull = .5
