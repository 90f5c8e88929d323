package quantity

import (
	"fmt"
	"math"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/surface"
)

// Ingredient is the part that something plays in a pot.
type Ingredient string

// The ingredients.
const (
	Base     Ingredient = "base"     // paint, powder, medium, emulsion
	With     Ingredient = "with"     // water, hardener, colour of a glaze, thinner
	Filler   Ingredient = "filler"   // of a home-made paint
	Water    Ingredient = "water"    // of a home-made paint
	Thinner  Ingredient = "thinner"  // of what has a hardener besides
	Additive Ingredient = "additive" // bonding additive
)

// Portion is one thing that is poured into a pot.
type Portion struct {
	Is   Ingredient
	Name string // within a sentence
	// Exact is what is needed, in litres, and Measured what is measured out; never less.
	Exact    float64
	Measured measure.Measured
	// Density is what a litre weighs, in kilograms.
	Density float64
	// Parts are the paints that it is blended from; none for one paint.
	Parts []BlendPortion
}

// BlendPortion is one paint of a blend in a batch: so many times one measure.
type BlendPortion struct {
	Name, Colour string
	Parts        int
	Measured     measure.Measured
}

// Batch is what is mixed for one coat.
type Batch struct {
	Row  *craft.MixingRow
	Home *craft.HomeMadeRow // the recipe of a home-made paint; nil for others
	// Need is what the coat takes, in litres ready to use, for a usual hand and for the fullest one.
	Need, Most float64
	// Pots is how many pots it is mixed in, so that none goes off before it is used, and one where the painter says
	// how much is mixed; Portions are what goes
	// into each, and Makes the litres that each comes to.
	Pots     int
	Portions []Portion
	Makes    float64
	// Life is how many hours a pot can be used in this air; craft.Never where it keeps. Work is how many
	// minutes it takes to lay what is in one pot.
	Life, Work float64
	// Closed and Chilled are how many hours a rest keeps; 0 where it does not.
	Closed, Chilled float64
	// Cans is how many spray cans it takes; 0 for what is poured.
	Cans int
	// Refused says why there is nothing to mix; empty where there is.
	Refused string
	// Own tells that the painter has said how much; Wasted is then what the additive makes it too much by, in
	// litres, and Short what is missing of the need.
	Own           bool
	Wasted, Short float64
}

// Total is all that is mixed for the coat, in litres.
func (b *Batch) Total() float64 { return b.Makes * float64(b.Pots) }

// Left is what a usual hand leaves over, in litres.
func (b *Batch) Left() float64 { return max(0, b.Total()-b.Need) }

// Mixing is what a batch is mixed for.
type Mixing struct {
	Craft    *craft.Craft
	Facts    *surface.Facts
	Step     *surface.Step
	Air      drying.Climate
	Measures measure.Measures
}

// usablePot is the share of a pot life that is spent laying: the rest goes with stirring, pouring and the end,
// when it thickens. Working default.
const usablePot = .75

// canLitres is what a spray can holds where its row does not say, in litres. Working default.
const canLitres = .4

// BatchOf works out what is mixed for a coat. Amounts are rounded up to what the painter's measures can measure, so
// that a batch is never less than the coat needs, nor the additive less than its share. Where the work of a coat
// does not fit into its pot life it is mixed in several pots.
func BatchOf(coat *Coat, m Mixing) Batch {
	c, s := m.Craft, m.Step
	row := &c.Products[coat.Product]
	b := Batch{Row: craft.MixingNamed(row.Mixing), Need: coat.Mixed.Likely, Most: coat.Mixed.Most, Pots: 1, Life: drying.PotLife(row, m.Air)}
	b.Closed, b.Chilled = b.Row.Closed, b.Row.Chilled
	if b.Row.Pour == craft.PourHomeMade {
		if b.Home = craft.HomeMadeNamed(s.Mix().Recipe); b.Home == nil {
			b.Home = &craft.HomeMade[0]
		}
		b.Life = min(b.Life, b.Home.Life)
	}
	additive, thin := s.AdditiveIn(coat.CoatNo), s.ThinPct/100
	paint := b.Need / (1 + additive + thin)
	if s.Mix().Paint > 0 && b.Row.Pour != craft.PourCan {
		b.Own = true
		paint = s.Mix().Paint
		made := paint * (1 + additive + thin)
		if b.Short = b.Need - made; b.Short < tiny {
			b.Short = 0
		}
		if additive > 0 && made > b.Most && paint <= b.Most {
			b.Wasted = made - b.Most
		}
	}
	switch {
	case m.Measures.Check() != nil:
		b.Refused = m.Measures.Check().Error()
	case b.Home != nil && b.Home.Foams != "":
		b.Refused = b.Home.Foams
	case !(b.Need > 0):
		b.Refused = "The area is not known, so there is nothing to mix for yet."
	case paint*(1+additive+thin) > measure.MaxMix:
		b.Refused = fmt.Sprintf("This coat takes %s. That is more than anybody mixes by hand: divide the zone, or have it mixed in the shop.", m.Measures.Units.Volume(paint*(1+additive+thin)))
	}
	if b.Refused != "" {
		return b
	}
	work, setUp := m.Facts.CoatMinutes(c, s, coat.CoatNo)
	work = max(0, work-setUp)
	if b.Life < craft.Never && b.Life > 0 && !b.Own {
		b.Pots = max(1, int(math.Ceil(work/60/(b.Life*usablePot)-1e-6)))
		b.Pots = min(b.Pots, mostPots)
	}
	b.Work = work / float64(b.Pots)
	b.pour(row, s, m, paint/float64(b.Pots), additive, thin)
	return b
}

// wordOf is what comes out of a can, within a sentence, by its role.
func wordOf(row *craft.ProductRow, usual string) string {
	if usual != "paint" {
		return usual
	}
	switch row.Role {
	case craft.RolePrimer:
		return "primer"
	case craft.RoleClear:
		return "clear coat"
	}
	return usual
}

// tiny is a rounding error of litres.
const tiny = 1e-9

// mostPots bounds how many pots one coat is mixed in.
const mostPots = 99

// Densities of what is poured besides products, in kilograms per litre. Working defaults.
const (
	densityWater, densityAdditive, densityAlcohol, densitySpirit, densityFiller = 1, 1.05, .81, .8, .9
)

// ThinnerOf is what a product is thinned with, within a sentence, and what a litre of that weighs, in kilograms.
func ThinnerOf(row *craft.ProductRow) (name string, density float64) {
	switch row.Carrier {
	case craft.Water:
		return "water", densityWater
	case craft.Alcohol:
		return "alcohol", densityAlcohol
	}
	return "thinner", densitySpirit
}

// pour fills in what goes into one pot that is to hold some litres of paint, before additive and thinner.
func (b *Batch) pour(row *craft.ProductRow, s *surface.Step, m Mixing, paint, additive, thin float64) {
	up := m.Measures.Up
	add := func(is Ingredient, name string, exact, density float64) float64 {
		x := Portion{Is: is, Name: name, Exact: exact, Measured: up(exact, density), Density: density}
		b.Portions = append(b.Portions, x)
		return x.Measured.Litres
	}
	// base is the paint, powder or medium, of one can or blended.
	var blend []surface.BlendPart
	if s.Mix().Blend != nil {
		blend = s.Mix().Blend.Parts
	}
	base := func(name string, exact float64) float64 {
		x := Portion{Is: Base, Name: name, Exact: exact, Density: row.Density}
		all := 0
		for _, p := range blend {
			all += p.Parts
		}
		if len(blend) < 2 || all == 0 {
			x.Measured = up(exact, row.Density)
		} else {
			one := up(exact/float64(all), row.Density)
			x.Measured = times(one, all)
			for _, p := range blend {
				if p.Parts > 0 {
					x.Parts = append(x.Parts, BlendPortion{p.Name, p.Colour, p.Parts, times(one, p.Parts)})
				}
			}
		}
		b.Portions = append(b.Portions, x)
		return x.Measured.Litres
	}
	thinner, thinnerDensity := ThinnerOf(row)
	made := 0.
	switch b.Row.Pour {
	case craft.PourPowder:
		ratio := row.Ratio
		if s.WaterRatio > 0 {
			ratio = s.WaterRatio
		}
		powder := base(b.Row.Base, paint/makes(row, ratio))
		made = powderYield*powder + add(With, b.Row.With, ratio*powder, densityWater)
	case craft.PourTwoPart:
		m.Measures.By = measure.Millilitres // spoons and cups are too rough for a hardener
		up = m.Measures.Up
		poured := base(b.Row.Base, paint/(1+row.Ratio))
		hard := Portion{Is: With, Name: b.Row.With, Exact: row.Ratio * poured, Density: row.Density}
		hard.Measured = up(math.Ceil(row.Ratio*poured*1000-1e-6)/1000, row.Density)
		if l := math.Ceil(row.Ratio*poured*1000-1e-6) / 1000; l < hard.Measured.Litres {
			hard.Measured = measure.Measured{Litres: l, Says: m.Measures.Says(l)} // to the millilitre
		}
		b.Portions = append(b.Portions, hard)
		made = poured + hard.Measured.Litres
	case craft.PourGlaze:
		tint := s.Mix().Tint
		if tint == 0 {
			tint = craft.UsualTint
		}
		medium := base(b.Row.Base, paint/(1+tint))
		made = medium + add(With, b.Row.With, tint*medium, row.Density)
	case craft.PourHomeMade:
		h := b.Home
		one := paint / (h.Bulk*h.FillerParts + h.Water + h.Emulsion)
		emulsion := base(b.Row.Base, one*h.Emulsion)
		part := emulsion / h.Emulsion
		made = emulsion + h.Bulk*add(Filler, h.Filler, part*h.FillerParts, densityFiller) + add(Water, "cold water", part*h.Water, densityWater)
	case craft.PourCan:
		size := canLitres
		if len(row.Sizes) > 0 {
			size = row.Sizes[0]
		}
		b.Cans = int(math.Ceil(b.Need/size - 1e-6))
		b.Makes = float64(b.Cans) * size
		return
	default:
		if b.Row.Pour == craft.PourPaste && m.Measures.By == measure.Millilitres {
			m.Measures.By = measure.Grams
			up = m.Measures.Up
		}
		made = base(wordOf(row, b.Row.Base), paint)
	}
	if thin > 0 {
		is := With
		if b.Row.Pour != craft.PourReady {
			is = Thinner
		}
		made += add(is, thinner, thin*made, thinnerDensity)
	}
	if additive > 0 {
		plain := made
		if thin > 0 { // its share is of the paint, not of what thins it
			plain /= 1 + thin
		}
		made += add(Additive, "bonding additive", additive*plain, densityAdditive)
	}
	b.Makes = made
}

// times is a measure several times.
func times(one measure.Measured, n int) measure.Measured {
	out := measure.Measured{Litres: one.Litres * float64(n), Grams: one.Grams * float64(n), Says: one.Says}
	if n > 1 {
		out.Says = fmt.Sprintf("%d × %s", n, one.Says)
	}
	return out
}
