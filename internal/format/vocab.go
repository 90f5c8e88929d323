package format

import (
	"math"

	"rutile/core/apart"
	"rutile/core/check"
	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/identify"
	"rutile/core/offer"
	"rutile/core/parts"
	"rutile/core/surface"
)

// Vocab is every id with its meaning, for the page and for whoever writes
// piece files.
type Vocab struct {
	Substrates []SubstrateWord `json:"substrates"`
	Finishes   []FinishWord    `json:"finishes"`
	Gloss      []Word          `json:"gloss"`
	Soils      []Word          `json:"soils"`
	Bleeders   []Word          `json:"bleeders"`
	Defects    []DefectWord    `json:"defects"`
	Uses       []Word          `json:"uses"`
	Wears      []Word          `json:"wears"`
	Steps      []StepWord      `json:"steps"`
	Cleaners   []CleanerWord   `json:"cleaners"`
	Products   []ProductWord   `json:"products"`
	Methods    []Word          `json:"methods"`
	Hows       []Word          `json:"hows"`
	Scopes     []Word          `json:"scopes"`
	Strips     []Word          `json:"strips"`
	Fillers    []Word          `json:"fillers"`
	Effects    []EffectWord    `json:"effects"`
	Resists    []Word          `json:"resists" doc:"What is laid in patches so that paint lets go there"`
	Families   []Word          `json:"families"`
	Rules      []RuleWord      `json:"rules"`
	PartKinds  []PartKind      `json:"part_kinds"`
	Reliefs    []Word          `json:"reliefs"`
	Fittings   []FittingWord   `json:"fittings"`
	Doings     []Word          `json:"doings" doc:"What is done with a fitting"`
	Tests      []TestWord      `json:"tests" doc:"Looks and small tests that tell what a surface is"`
	CrossCut   []CutWord       `json:"cross_cut" doc:"The classes of the cross-cut scale, the worst first"`
	CutHow     []string        `json:"cut_how" doc:"How a patch is cut and rated, in order"`
	Ways       WayWords        `json:"ways" doc:"Ways of working, and what plans are weighed by"`
	Starts     []StartWord     `json:"starts" doc:"What a plan can be extended with, in the order of the work"`
}

// StartWord is a step as it is when it is put into a plan.
type StartWord struct {
	Group string `json:"group"`
	Name  string `json:"name"`
	Note  string `json:"note,omitempty"`
	Step  Step   `json:"step"`
}

// Word is an id with its meaning.
type Word struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Note string `json:"note,omitempty"`
	Also string `json:"also,omitempty" doc:"Further words to find it by"`
}

// word is a word of the craft with what else it is called.
func word(id, name, note string) Word { return Word{id, name, note, craft.Also[id]} }

// TestWord describes a look or a small test.
type TestWord struct {
	ID       string        `json:"id"`
	Name     string        `json:"name" doc:"As one asks"`
	Short    string        `json:"short" doc:"Within a sentence"`
	How      string        `json:"how"`
	Where    string        `json:"where"`
	LookFor  string        `json:"look_for"`
	Caution  string        `json:"caution,omitempty"`
	Look     bool          `json:"look,omitempty" doc:"Nothing is touched or put on it"`
	Outcomes []OutcomeWord `json:"outcomes"`
}

// OutcomeWord describes an answer to a test.
type OutcomeWord struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Draw string `json:"draw" doc:"A motif, and what varies in it"`
}

// CutWord describes a class of the cross-cut scale.
type CutWord struct {
	Class int     `json:"class"`
	Name  string  `json:"name"`
	Says  string  `json:"says"`
	Gone  float64 `json:"gone" doc:"Share of the squares that are gone, about"`
}

// SubstrateWord describes a substrate.
type SubstrateWord struct {
	Word
	Group    string  `json:"group"`
	Family   string  `json:"family"`
	Colour   string  `json:"colour"`
	Porosity float64 `json:"porosity"`
	Mark     string  `json:"mark" doc:"The marks by which the eye tells it"`
	// Asks are the fields of a survey that mean something for it.
	Asks []string `json:"asks" doc:"Of moisture_pct, age_days, knots, veneer and gloss those that mean something here; gloss where it is bare"`
}

// FinishWord describes a finish.
type FinishWord struct {
	Word
	Family  string `json:"family,omitempty"`
	Colour  string `json:"colour,omitempty"`
	Mark    string `json:"mark,omitempty" doc:"The marks by which the eye tells it; absent where the material is seen as it is"`
	Mirrors bool   `json:"mirrors,omitempty" doc:"Whether a window is seen in it"`
}

// StepWord describes a kind of step.
type StepWord struct {
	Word
	Fields []string `json:"fields"`
}

// EffectWord describes an effect.
type EffectWord struct {
	Word
	Wants  string `json:"wants"`
	Trap   string `json:"trap,omitempty"`
	Wears  bool   `json:"wears,omitempty" doc:"It lays open what is below at edges"`
	Sands  bool   `json:"sands,omitempty" doc:"It is worked with a grit, and the grit says how deep it goes"`
	Flakes bool   `json:"flakes,omitempty" doc:"Warm air, water and resists help it"`
}

// CleanerWord describes a cleaner.
type CleanerWord struct {
	Word
	Carrier string   `json:"carrier"`
	Shifts  []string `json:"shifts"`
	Rinses  int      `json:"rinses"`
}

// ProductWord describes a kind of product.
type ProductWord struct {
	Word
	Role        string   `json:"role"`
	Family      string   `json:"family"`
	Carrier     string   `json:"carrier"`
	RecoatFrom  float64  `json:"recoat_from_h"`
	RecoatTo    *float64 `json:"recoat_to_h" doc:"Null where there is no latest"`
	CureDays    float64  `json:"cure_days"`
	CoverM2L    float64  `json:"cover_m2_per_l"`
	FilmUM      float64  `json:"dry_film_um"`
	Hiding      float64  `json:"hiding"`
	MinC        float64  `json:"min_c"`
	MaxRH       float64  `json:"max_rh_pct"`
	Sheen       string   `json:"sheen"`
	Colour      string   `json:"colour,omitempty"`
	PriceMinor  int      `json:"price_minor_per_l" doc:"Working default, in minor units of money"`
	Smell       int      `json:"smell" doc:"0 to 3, working default"`
	PotLifeH    *float64 `json:"pot_life_h"`
	TakesAdd    bool     `json:"takes_additive,omitempty"`
	LeavesFilm  bool     `json:"leaves_film"`
	BlocksStain bool     `json:"blocks_stain"`
}

// RuleWord describes a rule.
type RuleWord struct {
	Code  string `json:"code"`
	Title string `json:"title"`
	Group string `json:"group" doc:"In words"`
	Why   string `json:"why"`
	When  string `json:"when" doc:"When it fires, and how severely"`
	Looks string `json:"looks" doc:"What it looks at"`
	Mends string `json:"mends" doc:"What mends it"`
}

// RuleWords describes the rule book.
func RuleWords(rules []*check.Rule) []RuleWord {
	out := make([]RuleWord, len(rules))
	for i, r := range rules {
		out[i] = RuleWord{r.Code, r.Title, r.Group(), r.Why, r.When, craft.Upper(r.Looks), craft.Upper(r.Mends)}
	}
	return out
}

// VocabOf lists the vocabulary of a craft.
func VocabOf(c *craft.Craft, rules []RuleWord) Vocab {
	v := Vocab{Rules: rules, Ways: wayWords()}
	for i := range c.Substrates {
		r := &c.Substrates[i]
		w := SubstrateWord{Word: word(r.ID, r.Name, r.Caution), Group: string(r.Group), Family: r.Family.String(), Colour: r.Colour, Porosity: r.Porosity}
		w.Asks, w.Mark = asks(r), r.Mark()
		v.Substrates = append(v.Substrates, w)
	}
	var plain craft.SubstrateRow
	plain.Colour = "#c09a66"
	for i := range c.Finishes {
		r := &c.Finishes[i]
		w := FinishWord{Word: word(r.ID, r.Name, r.Tells), Colour: colour.Ground(&plain, r).Hex(), Mark: r.Mark(), Mirrors: r.Mirrors()}
		if !r.Bare && !r.Unknown {
			w.Family = r.Family.String()
		}
		v.Finishes = append(v.Finishes, w)
	}
	for _, r := range craft.Sheens[1:] {
		v.Gloss = append(v.Gloss, word(r.ID, r.Name, ""))
	}
	for _, r := range craft.Soils {
		v.Soils = append(v.Soils, word(r.ID, r.Name, r.Advice))
	}
	for _, r := range craft.Bleeders {
		v.Bleeders = append(v.Bleeders, word(r.ID, r.Name, r.How))
	}
	v.Defects, v.PartKinds, v.Fittings = defectWords(), partKinds(), fittingWords()
	for _, r := range parts.Reliefs {
		v.Reliefs = append(v.Reliefs, word(r.ID, r.Name, ""))
	}
	for _, d := range apart.Doings {
		v.Doings = append(v.Doings, word(d.ID, d.Name, ""))
	}
	for _, r := range craft.UseRows {
		v.Uses = append(v.Uses, word(r.ID, r.Name, ""))
	}
	for _, r := range craft.Wears {
		v.Wears = append(v.Wears, word(r.ID, r.Name, ""))
	}
	for _, r := range surface.Kinds {
		fields := stepFields[r.ID].fields
		if fields == nil {
			fields = []string{}
		}
		v.Steps = append(v.Steps, StepWord{word(r.ID, r.Name, ""), fields})
	}
	for i := range c.Cleaners {
		r := &c.Cleaners[i]
		w := CleanerWord{Word: word(r.ID, r.Name, r.Warns), Carrier: r.Carrier.String(), Rinses: r.Rinses, Shifts: []string{}}
		for _, s := range r.Shifts {
			w.Shifts = append(w.Shifts, s.Soil.String())
		}
		v.Cleaners = append(v.Cleaners, w)
	}
	for i := range c.Products {
		r := &c.Products[i]
		v.Products = append(v.Products, ProductWord{
			Word: word(r.ID, r.Name, r.Remark), Role: string(r.Role), Family: r.Coat.String(), Carrier: r.Carrier.String(),
			RecoatFrom: r.Recoat.From, RecoatTo: finite(r.Recoat.To), CureDays: r.Cure, CoverM2L: r.Cover,
			FilmUM: r.Film, Hiding: r.Hiding, MinC: r.MinC, MaxRH: r.MaxRH, Sheen: craft.Sheens[r.Sheen].ID,
			Colour: r.Colour, PriceMinor: r.Price, Smell: r.Smell, PotLifeH: finite(r.PotLife),
			TakesAdd: r.Coat == craft.MK, LeavesFilm: r.LeavesFilm(), BlocksStain: r.Block.Blocks(),
		})
	}
	for _, r := range craft.Methods {
		v.Methods = append(v.Methods, word(r.ID, r.Name, ""))
	}
	for _, r := range craft.Hows {
		v.Hows = append(v.Hows, word(string(r.ID), r.Name, ""))
	}
	for _, r := range c.Effects {
		v.Effects = append(v.Effects, EffectWord{word(r.ID, r.Name, r.How), r.Wants, r.Trap, r.Wears, r.Deep, r.Flakes()})
	}
	for _, r := range craft.Families {
		v.Families = append(v.Families, word(r.ID, r.Name, ""))
	}
	v.Scopes = named("all", "the whole zone", "knots", "the knots only", "spots", "the spots only")
	v.Strips = named("chemical", "with stripper", "scrape", "by scraping", "heat", "with heat", "sand", "by sanding")
	v.Resists = named("wax", "wax", "shellac_tacky", "shellac, still tacky", "lacquer_tacky", "lacquer, still tacky")
	v.Starts = starts(c)
	for i := range identify.Tests {
		t := &identify.Tests[i]
		w := TestWord{t.ID, t.Name, t.Short, t.How, t.Where, t.LookFor, t.Caution, t.Look, nil}
		for _, o := range t.Outcomes {
			w.Outcomes = append(w.Outcomes, OutcomeWord{o.ID, o.Name, o.Draw})
		}
		v.Tests = append(v.Tests, w)
	}
	v.CutHow = surface.CutHow
	for i, r := range surface.CrossCut {
		v.CrossCut = append(v.CrossCut, CutWord{i, r.Name, r.Says, r.Gone})
	}
	v.Fillers = named("filler_two_part", "Two-part filler", "filler_fine", "Fine filler")
	return v
}

func asks(r *craft.SubstrateRow) []string {
	out := []string{}
	switch r.Group {
	case craft.GroupWood:
		out = append(out, "moisture_pct", "veneer")
	case craft.GroupBoard, craft.GroupMineral:
		out = append(out, "moisture_pct")
	}
	if r.Alkaline() {
		out = append(out, "age_days")
	}
	if r.Knotted > 0 {
		out = append(out, "knots")
	}
	// What shines by itself tells by its shine how much of a key it has.
	if f := &craft.Families[r.Family]; f.Natural == 0 && f.Need > 0 {
		out = append(out, "gloss")
	}
	return out
}

func starts(c *craft.Craft) []StartWord {
	all := offer.Starts(c)
	out := make([]StartWord, len(all))
	for i := range all {
		out[i] = startWord(c, &all[i])
	}
	return out
}

func startWord(c *craft.Craft, s *offer.Start) StartWord {
	return StartWord{s.Group, s.Name, s.Note, StepsFrom(c, []surface.Step{s.Step})[0]}
}

func named(pairs ...string) []Word {
	var out []Word
	for i := 0; i+1 < len(pairs); i += 2 {
		out = append(out, word(pairs[i], pairs[i+1], ""))
	}
	return out
}

func finite(x float64) *float64 {
	if math.IsInf(x, 0) {
		return nil
	}
	return &x
}
