package craft

import "math"

// Bleeder is something below the paint that can bleed through it.
type Bleeder uint8

// The bleeders. The first eleven have a column in the blocking table; the
// others use a relative's.
const (
	Tannin Bleeder = iota
	Resin
	Dye
	Nicotine
	Rust
	Ink
	Watermark
	GreaseSpot
	Bitumen
	Salts
	Plasticiser
	IronTannin
	RedPaint
	StainUnset
	Preservative
	// NumBleeders counts the bleeders.
	NumBleeders
)

const numColumns = Plasticiser + 1

// BleederRow describes one bleeder.
type BleederRow struct {
	ID   string
	Name string
	// DeltaE is the final stain in CIEDE2000 units through a pale water-based paint with no other
	// coat, for levels 1 to 3.
	DeltaE [MaxLevel]float64
	// Tau is the days to about two thirds of the final stain.
	Tau float64
	// Column is the bleeder whose column of the blocking table applies.
	Column Bleeder
	// Local bleeders sit in spots and not over the whole area.
	Local bool
	// OnFilm tells that it lies on an old film and is not held back by it.
	OnFilm bool
	// WaterWakes and AlcoholWakes tell which first coat brings it out.
	WaterWakes, AlcoholWakes bool
	// Clear tells that the stain shows on dark finishes as on pale ones.
	Clear  bool
	Colour string // of the stain, as #rrggbb
	Rule   string // the rule that reports it
	Mark   string // how it shows
}

// Come is the share of a stain that has appeared after a number of days: it appears slowly and
// never fades. Working default.
func (r *BleederRow) Come(days float64) float64 { return 1 - math.Exp(-days/r.Tau) }

// Bleeders is indexed by Bleeder.
var Bleeders = [NumBleeders]BleederRow{
	Tannin:       {"tannin", "tannin", [3]float64{3, 7, 12}, 20, Tannin, false, false, true, false, false, "#a6793f", "bleed.tannin", "a yellow-brown cast"},
	Resin:        {"resin", "knot resin", [3]float64{4, 8, 14}, 60, Resin, true, false, false, false, false, "#b5762a", "bleed.knot", "yellow-brown spots over knots"},
	Dye:          {"dye", "dye", [3]float64{6, 12, 18}, 5, Dye, false, false, false, true, false, "#b4475a", "bleed.dye", "a pink or brown cast"},
	Nicotine:     {"nicotine", "nicotine", [3]float64{4, 9, 15}, 10, Nicotine, false, true, false, false, false, "#b08a3c", "bleed.smoke", "a yellow cast and smell"},
	Rust:         {"rust", "rust", [3]float64{5, 10, 16}, 15, Rust, false, false, false, false, false, "#a4501f", "bleed.rust", "orange-brown marks"},
	Ink:          {"ink", "ink", [3]float64{6, 12, 18}, 4, Ink, true, true, false, false, false, "#3c3f7a", "bleed.ink", "a ghost of the mark"},
	Watermark:    {"watermark", "water mark", [3]float64{2, 5, 9}, 10, Watermark, true, false, true, false, false, "#a98b5a", "bleed.water", "a ring from the old mark"},
	GreaseSpot:   {"grease_spot", "grease spot", [3]float64{2, 5, 8}, 15, GreaseSpot, true, true, false, false, false, "#8f7f58", "bleed.grease", "a dark, dull patch"},
	Bitumen:      {"bitumen", "bitumen", [3]float64{6, 12, 20}, 30, Bitumen, false, true, false, true, false, "#4a3524", "bleed.bitumen", "brown streaks"},
	Salts:        {"salts", "salts", [3]float64{2, 5, 9}, 25, Salts, false, false, false, false, true, "#efece2", "bleed.salts", "a white bloom that pushes paint off"},
	Plasticiser:  {"plasticiser", "plasticiser", [3]float64{2, 5, 8}, 40, Plasticiser, false, false, false, false, true, "#d9cfae", "bleed.tacky", "a coat that stays sticky"},
	IronTannin:   {"iron_tannin", "iron stain in the wood", [3]float64{5, 10, 15}, 5, Tannin, true, false, true, false, false, "#3d4350", "bleed.tannin", "blue-black marks"},
	RedPaint:     {"red_paint", "bleeding old red", [3]float64{6, 12, 18}, 7, Dye, false, true, false, false, false, "#b8323a", "bleed.dye", "a pink cast"},
	StainUnset:   {"stain_unset", "oil stain that has not dried", [3]float64{4, 9, 14}, 7, Dye, false, true, false, false, false, "#7a4a2a", "bleed.dye", "brown streaks"},
	Preservative: {"preservative", "timber preservative", [3]float64{5, 10, 16}, 30, Bitumen, false, false, false, false, false, "#5d5a35", "bleed.bitumen", "a green-brown cast"},
}

// String returns the bleeder's id.
func (b Bleeder) String() string {
	if b < NumBleeders {
		return Bleeders[b].ID
	}
	return "?"
}
