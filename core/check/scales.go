package check

import (
	"strings"

	"rutile/core/craft"
	"rutile/core/measure"
)

// This file puts figures that painters do not know into words: bonds, stains and
// grades of wear. The limits are those of the verdicts, so that a word and a
// severity never disagree.

// StrongStain is the stain in CIEDE2000 units from which it is called strong. Working default.
const StrongStain = 8.

// StainWords says what a stain of de CIEDE2000 units looks like on the finished face.
func StainWords(b craft.Bleeder, de float64) string {
	row := &craft.Bleeders[b]
	if b == craft.Plasticiser {
		switch {
		case de < stainWatch:
			return "not sticky"
		case de < stainFail:
			return "slightly sticky"
		}
		return "sticky"
	}
	how := "strong"
	switch {
	case de < stainWatch:
		return "no visible stain"
	case de < stainFail:
		how = "faint"
	case de < StrongStain:
		how = "clearly visible"
	}
	if rest, ok := strings.CutPrefix(row.Mark, "a "); ok {
		return "a " + how + " " + rest
	}
	return how + " " + row.Mark
}

// HoldWords says whether a plan holds whose risk of peeling is p.
func HoldWords(p float64) string {
	switch {
	case p < RiskShown:
		return "holds well"
	case p < riskWatch:
		return "holds"
	case p < riskFail:
		return "may peel"
	}
	return "will peel"
}

// BondWords says how a bond compares with what the wear needs.
func BondWords(strength, demand float64) string {
	switch r := strength / demand; {
	case r >= 1.2:
		return "strong enough"
	case r >= 1:
		return "only just strong enough"
	case r >= .7:
		return "too weak"
	}
	return "much too weak"
}

// grades says by how many grades of durability something falls short.
func grades(n float64) string {
	if n == 1 {
		return "one grade"
	}
	return measure.Count(int(n), "grade", "grades")
}

// yellower says how much yellower a colour turns by de CIEDE2000 units.
func yellower(de float64) string {
	switch YellowVerdict(de) {
	case Sound:
		return "slightly"
	case Watched:
		return "visibly"
	}
	return "clearly"
}
