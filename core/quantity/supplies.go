package quantity

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"rutile/core/craft"
	"rutile/core/surface"
)

// Supply is something that is used up beside the paint.
type Supply struct {
	ID, Name string
	Amount   int
	Unit     string // of more than one; empty for pieces
	Says     string // what it is for
}

// What is used up. Working defaults: square metres that a sheet of 230 x 280 mm, a disc or a pad lasts for,
// a wet cloth washes, a dry one wipes on or off, and a tack cloth takes dust off; metres of tape for each
// thing that is masked.
const (
	sheetCoarse, sheetMiddle, sheetFine = 1.5, 2.5, 4.
	coarse, fine                        = 120, 240
	discShare                           = .8 // of a sheet by hand
	padM2                               = 4.
	washCloth, wipeCloth, tackCloth     = 1.5, .8, 4.
	tapeMetres                          = 3.
)

// Supplies are what the plans of some zones use up, abrasives first; masked is how many things are masked on
// the piece besides the steps of its plans.
func Supplies(c *craft.Craft, zones []Zone, masked int) []Supply {
	sheets, discs := map[int]float64{}, map[int]float64{}
	var pads, cloths, rags, tack, tape, filters, gloves float64
	tape = float64(masked) * tapeMetres
	for i := range zones {
		z := &zones[i]
		area := z.Facts.Area * max(1, z.Relief)
		if !(area > 0) {
			continue
		}
		for j := range z.Trace.Events {
			e := &z.Trace.Events[j]
			s := e.Doing
			switch s.Do {
			case surface.Abrade:
				switch {
				case s.How == craft.Pad || s.Grit == 0:
					pads += area / padM2
				case s.How == craft.Machine:
					discs[s.Grit] += area / lasts(s.Grit) / discShare
				default:
					sheets[s.Grit] += area / lasts(s.Grit)
				}
			case surface.Clean:
				cloths += float64(s.NumPasses()) * max(1, area/washCloth)
				gloves++
			case surface.Strip:
				gloves++
				rags += area / wipeCloth
			case surface.Dust:
				tack += area / tackCloth
			case surface.Mask:
				tape += tapeMetres
			case surface.Coat:
				row := &c.Products[s.Product]
				if s.Scope == surface.All {
					gloves++
				}
				if row.Powder() || s.Method == "spray" {
					filters++
				}
				if s.Method == "rag" || s.Method == "pad" || row.Role == craft.RoleWax || row.Coat == craft.GZ {
					n := area
					if s.Scope != surface.All {
						n *= surface.SpotShare
					}
					rags += n / wipeCloth
				}
				if e.CoatNo > 1 && row.LiesSmooth() {
					const between = 320
					sheets[between] += area / lasts(between)
				}
			}
		}
	}
	var out []Supply
	for _, m := range []struct {
		by       map[int]float64
		id, name string
	}{{sheets, "sheet", "Abrasive sheets"}, {discs, "disc", "Sanding discs"}} {
		var grits []int
		for g := range m.by {
			grits = append(grits, g)
		}
		slices.SortFunc(grits, cmp.Compare[int])
		for _, g := range grits {
			out = append(out, Supply{fmt.Sprintf("%s_%d", m.id, g), fmt.Sprintf("%s, grit %d", m.name, g), up(m.by[g]), "", "sanding"})
		}
	}
	for _, x := range []struct {
		id, name, unit, says string
		n                    float64
	}{
		{"pad", "Abrasive pads", "", "scuffing", pads},
		{"wash_cloth", "Washing cloths", "", "washing, each turned and rinsed", cloths},
		{"tack_cloth", "Tack cloths", "", "dust", tack},
		{"rag", "Lint-free cloths", "", "wiping on and off", rags},
		{"tape", "Masking tape", "m", "what is not painted", tape},
		{"filter", "Paint filters", "", "powder paint, and whatever is sprayed", filters},
		{"gloves", "Gloves", "pairs", "one pair for each coat and each wash", gloves},
	} {
		if x.n > 0 {
			out = append(out, Supply{x.id, x.name, up(x.n), x.unit, x.says})
		}
	}
	return out
}

func lasts(grit int) float64 {
	switch {
	case grit <= coarse:
		return sheetCoarse
	case grit <= fine:
		return sheetMiddle
	}
	return sheetFine
}

func up(x float64) int { return int(math.Ceil(min(x, 1e6) - 1e-9)) }
