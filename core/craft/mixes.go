package craft

// Chemical is a kind of liquid that must not meet certain others.
type Chemical uint8

// The chemicals. Many biocides contain bleach without saying so in their name; where no label is
// known they are taken to.
const (
	Ammonia Chemical = iota
	Bleach
	Acid
	Spirit
	AcetoneLiquid
	// NumChemicals counts them.
	NumChemicals
)

// ChemicalNames are their names within a sentence.
var ChemicalNames = [NumChemicals]string{"ammonia", "bleach", "acid", "alcohol", "acetone"}

// Mix is a pair of chemicals that must never meet: not in one bucket, and not in one room on one day.
// The usual warnings of safety data sheets for sodium hypochlorite.
type Mix struct {
	A, B Chemical
	Says string // what they give off, as a sentence
}

// NeverTogether lists those pairs.
var NeverTogether = []Mix{
	{Bleach, Ammonia, "Together they give off chloramine, which burns the lungs."},
	{Bleach, Acid, "Together they give off chlorine, which burns the lungs."},
	{Bleach, Spirit, "Together they make chloroform and other poisons."},
	{Bleach, AcetoneLiquid, "Together they make chloroform and other poisons."},
}

// Apart is how many hours must lie between the two: one day. Working default.
const Apart = 24.

// Chemical is what the cleaner is, as far as it must not meet others; false for most.
func (r *CleanerRow) Chemical() (Chemical, bool) {
	switch {
	case r.Ammonia:
		return Ammonia, true
	case r.Biocide:
		return Bleach, true
	case r.ID == "vinegar_water":
		return Acid, true
	case r.ID == "acetone":
		return AcetoneLiquid, true
	case r.Carrier == Alcohol:
		return Spirit, true
	}
	return 0, false
}

// Chemical is the same of a treatment that is left on like a coat.
func (p *ProductRow) Chemical() (Chemical, bool) { return Acid, p.Acid && p.Coat == NoCoat }
