package craft

import (
	"cmp"
	"slices"
)

// Purpose is a place in plans and proposals that several products or cleaners can fill: what primes
// steel, what seals a paint, what keeps it off in patches. A row says which it fills; plans and
// proposals ask for the purpose and name no product.
type Purpose string

// Purposes in a plan.
const (
	ForUnder       Purpose = "under"        // the colour that shows where an aged paint is worn or cracked
	ForThinTop     Purpose = "thin_top"     // a matt paint that cracks over a medium, or is thinned to a veil
	ForFlaking     Purpose = "flaking"      // powder paint that flakes
	ForWipingBack  Purpose = "wiping_back"  // a matt paint that water or a glaze is worked on
	ForEnamelware  Purpose = "enamelware"   // smooth paint, worn at the rims
	ForWorn        Purpose = "worn"         // a paint that wears well with abrasive
	ForCrackMedium Purpose = "crack_medium" // what a coat cracks over
	ForLiftMedium  Purpose = "lift_medium"  // what a coat is pulled off
	ForTacky       Purpose = "tacky"        // what powder paint cracks over while it is tacky
	ForGlaze       Purpose = "glaze"        // what is wiped over sealed paint
	ForDragging    Purpose = "dragging"     // a glaze that grain is drawn in
	ForLiming      Purpose = "liming"       // what lies in open grain
	ForLeafGround  Purpose = "leaf_ground"  // the warm colour below leaf
	ForSize        Purpose = "size"         // what leaf sticks to
	ForDyeing      Purpose = "dyeing"       // cloth
	ForGrain       Purpose = "grain"        // open pores, filled
	ForIronStain   Purpose = "iron_stain"   // taken out of bare wood

	// What seals.
	ForWax        Purpose = "wax"         // wax or oil over a paint
	ForClear      Purpose = "clear"       // a clear coat over a paint
	ForPlainSeal  Purpose = "plain_seal"  // a clear coat that neither yellows nor bites
	ForUnderGlaze Purpose = "under_glaze" // what keeps glaze from sinking in
	ForWhiteSeal  Purpose = "white_seal"  // what stays clear over white
	ForLeafSeal   Purpose = "leaf_seal"

	// What makes a ground.
	ForScuffAndSeal Purpose = "scuff_and_seal" // two coats of it over a light sanding, under any paint
	ForBarrier      Purpose = "barrier"        // isolates what is below, the clear one first
	ForBlocking     Purpose = "blocking"       // the blocking coat of first choice
	ForEvenGround   Purpose = "even_ground"    // under a shiny paint on an absorbent surface
	ForFilledSpots  Purpose = "filled_spots"   // over filler
	ForSteel        Purpose = "steel"
	ForMineral      Purpose = "mineral"

	// What keeps paint off in patches.
	ForResistWax     Purpose = "resist_wax"
	ForResistShellac Purpose = "resist_shellac"
	ForResistLacquer Purpose = "resist_lacquer"

	// What is proposed in another's place.
	ForUsualPaint    Purpose = "usual_paint" // does not harm what is below
	ForHardPaint     Purpose = "hard_paint"
	ForFlexing       Purpose = "flexing"
	ForOutdoorPaint  Purpose = "outdoor_paint"
	ForOutdoorPrimer Purpose = "outdoor_primer"

	// Cleaners.
	ForWash       Purpose = "wash"
	ForSolvent    Purpose = "solvent_wipe"
	ForDeglossing Purpose = "deglossing"
	ForBrushing   Purpose = "brushing"
)

// ForSeal is the purpose of closing a porous paint well enough for a wear.
func ForSeal(w Wear) Purpose { return Purpose("seal_" + Wears[w].ID) }

// Serve is a purpose that a row fills, and its rank among those that do: 1 is the first choice.
// Working defaults.
type Serve struct {
	For  Purpose
	Rank int
}

// as adds purposes that a product fills at a rank.
func (p ProductRow) as(rank int, purposes ...Purpose) ProductRow {
	p.Serves = slices.Clone(p.Serves)
	for _, x := range purposes {
		p.Serves = append(p.Serves, Serve{x, rank})
	}
	return p
}

// ranked lists the rows that fill each purpose, the first choice first.
func ranked[R any, I ~uint8](rows []R, serves func(*R) []Serve, _ I) map[Purpose][]I {
	type cand struct {
		row  I
		rank int
	}
	all := map[Purpose][]cand{}
	for i := range rows {
		for _, s := range serves(&rows[i]) {
			all[s.For] = append(all[s.For], cand{I(i), s.Rank})
		}
	}
	out := map[Purpose][]I{}
	for p, cs := range all {
		slices.SortStableFunc(cs, func(a, b cand) int { return cmp.Compare(a.rank, b.rank) })
		for _, c := range cs {
			out[p] = append(out[p], c.row)
		}
	}
	return out
}

// For lists the products that fill a purpose, the first choice first.
func (c *Craft) For(p Purpose) []Product { return c.forProducts[p] }

// First is the first choice for a purpose; NoProduct where there is none.
func (c *Craft) First(p Purpose) Product {
	if all := c.forProducts[p]; len(all) > 0 {
		return all[0]
	}
	return NoProduct
}

// Fills tells whether a product fills a purpose.
func (c *Craft) Fills(x Product, p Purpose) bool {
	return slices.Contains(c.forProducts[p], c.KindOf(x))
}

// CleanersFor lists the cleaners that fill a purpose, the first choice first.
func (c *Craft) CleanersFor(p Purpose) []Cleaner { return c.forCleaners[p] }
