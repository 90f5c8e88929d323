package check

import (
	"slices"
	"strings"

	"rutile/core/craft"
	"rutile/core/surface"
)

// once leaves out what another finding tells already: one cause is told once, where it is cured, at its
// most severe. The verdict is not changed by it. also are the codes that each of those that are left
// tells as well.
func once(hits []Hit) (kept []Hit, also [][]string) {
	const none = -1
	var few [32]int
	by := append(few[:0], make([]int, len(hits))...) // who tells it, none where nobody else does
	told := 0
	for i := range hits {
		by[i] = none
		if !hits[i].Rule.told {
			continue
		}
		for j := range hits {
			if hits[j].Severity >= hits[i].Severity && tells(&hits[j], &hits[i]) {
				by[i] = j
				told++
				break
			}
		}
	}
	if told == 0 {
		return hits, nil
	}
	at := make([]int, len(hits))
	kept, also = make([]Hit, 0, len(hits)-told), make([][]string, len(hits)-told)
	for i := range hits {
		if by[i] == none {
			at[i] = len(kept)
			kept = append(kept, hits[i])
		}
	}
	for i := range hits {
		j := i
		for range len(hits) { // what tells it may be told by another in turn
			if by[j] == none {
				break
			}
			j = by[j]
		}
		if code := hits[i].Rule.Code; j != i && by[j] == none && hits[j].Rule.Code != code && !slices.Contains(also[at[j]], code) {
			also[at[j]] = append(also[at[j]], code)
		}
	}
	return kept, also
}

// mayBeTold are the rules whose cause another may tell; see tells.
var mayBeTold = []string{
	"adhesion.weakest", "adhesion.key", "adhesion.bond", "bleed.tacky", "bleed.self_priming", "bleed.rust",
	"prep.soil_left", "prep.wrong_cleaner", "prep.sand_before_clean", "safety.oxalic",
}

// tells tells whether one finding tells the cause of another.
func tells(o, h *Hit) bool {
	if o.Rule == h.Rule { // acid that is left in is told where it first matters
		return h.Rule.Code == "safety.oxalic" && o.Severity == Fail && (h.Severity < Fail || o.Step < h.Step)
	}
	same := o.Bound != nil && h.Bound != nil && sameFace(o.Bound, h.Bound)
	soil := o.Level > 0 && h.Level > 0 && o.Soil == h.Soil
	switch h.Rule.Code {
	case "adhesion.weakest":
		// Whatever weakens that bond says so itself.
		return same || o.Rule.Code == "prep.loose_left" && h.Bound != nil && h.Bound.CapWhy == surface.CapFlaking ||
			strings.HasPrefix(o.Rule.Code, "site.") && h.Bound != nil && h.Bound.SiteWhy != 0
	case "adhesion.key":
		return same && (o.Rule.Code == "adhesion.bond" || o.Rule.Code == "effect.unwanted_chip")
	case "adhesion.bond":
		return same && (o.Rule.Code == "adhesion.plasticiser" || o.Rule.Code == "adhesion.saponify" || o.Rule.Code == "effect.unwanted_chip")
	case "bleed.tacky":
		return o.Rule.Code == "adhesion.plasticiser"
	case "bleed.self_priming":
		return o.Stain != nil && h.Stain != nil && o.Stain.Bleeder == h.Stain.Bleeder
	case "bleed.rust":
		return o.Rule.Code == "adhesion.flash_rust"
	case "prep.soil_left":
		return soil && o.Rule.Code == "prep.sand_before_clean" && (o.Soil != craft.Silicone)
	case "prep.wrong_cleaner":
		return soil && o.Rule.Code == "prep.soil_left"
	case "prep.sand_before_clean":
		return soil && o.Rule.Code == "prep.silicone"
	}
	return false
}

// sameFace tells whether two bonds are of one coat on one surface.
func sameFace(a, b *surface.Boundary) bool {
	return a.Step == b.Step && a.On == b.On && a.Product == b.Product
}
