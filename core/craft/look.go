package craft

import "slices"

// openGrained are the woods whose pores are drawn as dashes. Working default.
var openGrained = []string{"oak", "ash", "chestnut", "mahogany", "walnut", "teak", "rosewood"}

// Mark names the marks by which the eye tells the material: those of its
// group, and for woods with a face of their own "knotty" or "open".
func (r *SubstrateRow) Mark() string {
	switch {
	case r.Knotted > 0:
		return "knotty"
	case slices.Contains(openGrained, r.ID):
		return "open"
	}
	return string(r.Group)
}

// Mark names the marks by which the eye tells the finish; empty for one that
// lets the material be seen as it is.
func (r *FinishRow) Mark() string {
	switch {
	case r.Bare:
		return ""
	case r.Family == MelamineFilm || r.Family == VinylRigid:
		return string(GroupFilm)
	case r.Family.BareMetal():
		return string(GroupMetal)
	case r.Family == PorousPaint || r.Family == PowderFilm || r.Family == WaxFilm && r.Colour != "":
		return string(GroupMineral)
	case r.Colour != "":
		return string(GroupPlastic)
	}
	return string(GroupWood)
}

// Mirrors tells whether a window is seen in the finish.
func (r *FinishRow) Mirrors() bool {
	switch r.Family {
	case ShellacFilm, LacquerFilm, VarnishFilm, AlkydPaint, MelamineFilm, VinylRigid, MetalChrome:
		return !r.Bare && !r.Unknown
	}
	return false
}
