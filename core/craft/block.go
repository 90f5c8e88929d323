package craft

// BlockKind names a row of the blocking table: coats that block stains equally well.
type BlockKind uint8

// The rows of the blocking table. The first ones, down to the masonry sealer,
// are blockers; the rest only dilute what reaches them.
const (
	BlockShellacClear BlockKind = iota
	BlockShellacPigmented
	BlockStainOil
	BlockStainWater
	BlockBond
	BlockEpoxy
	BlockMetal
	BlockGalv
	BlockMasonry
	BlockOil
	BlockFlexible
	BlockPaint
	BlockFilmless
	BlockNothing
	numBlockKinds
)

// Blocks tells whether the row is a blocker, each coat of which counts in
// full. Of the others the first coat counts with its T and every further one
// with the square root of its T.
func (b BlockKind) Blocks() bool { return b <= BlockMasonry }

// defaultLets is T, the share of a stain that one coat lets through, by row
// and by the bleeders that have a column of their own: tannin, resin, dye,
// nicotine, rust, ink, watermark, grease_spot, bitumen, salts, plasticiser.
// Working defaults.
var defaultLets = [numBlockKinds][numColumns]float64{
	//                      tannin resin dye nicot rust ink water grease bitum salts plast
	BlockShellacClear:     {.22, .15, .22, .12, .75, .20, .18, .20, .35, .80, .70},
	BlockShellacPigmented: {.10, .08, .12, .07, .60, .10, .08, .10, .25, .75, .60},
	BlockStainOil:         {.15, .35, .22, .15, .35, .20, .12, .20, .35, .75, .80},
	BlockStainWater:       {.35, .62, .60, .35, .70, .45, .38, .40, .65, .60, .80},
	BlockBond:             {.60, .78, .70, .60, .80, .70, .65, .60, .80, .70, .50},
	BlockEpoxy:            {.08, .12, .12, .08, .08, .10, .08, .08, .12, .40, .20},
	BlockMetal:            {.5, .6, .5, .5, .10, .5, .5, .5, .6, .7, .7},
	BlockGalv:             {.6, .8, .7, .6, .30, .7, .6, .6, .8, .7, .6},
	BlockMasonry:          {.8, .9, .9, .8, .9, .9, .7, .8, .9, .20, .9},
	BlockOil:              {.55, .7, .6, .5, .5, .6, .5, .5, .7, .8, .9},
	BlockFlexible:         {.8, .9, .9, .8, .8, .9, .8, .8, .9, .8, .25},
	BlockPaint:            {.82, .92, .88, .82, .88, .88, .82, .82, .92, .88, .88},
	BlockFilmless:         {.95, .97, .95, .95, .95, .95, .95, .90, .97, .95, .95},
	BlockNothing:          {1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1},
}
