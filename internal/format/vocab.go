package format

import (
	"math"
	"strings"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/section"
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
	Defects    []Word          `json:"defects"`
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
	Effects    []Word          `json:"effects"`
	Families   []Word          `json:"families"`
	Rules      []RuleWord      `json:"rules"`
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
}

// SubstrateWord describes a substrate.
type SubstrateWord struct {
	Word
	Group    string  `json:"group"`
	Family   string  `json:"family"`
	Colour   string  `json:"colour"`
	Porosity float64 `json:"porosity"`
	// Asks are the fields of a survey that mean something for it.
	Asks []string `json:"asks" doc:"Of moisture_pct, knots and veneer those that mean something here"`
}

// FinishWord describes a finish.
type FinishWord struct {
	Word
	Family string `json:"family,omitempty"`
	Colour string `json:"colour,omitempty"`
}

// StepWord describes a kind of step.
type StepWord struct {
	Word
	Judged bool     `json:"judged" doc:"Whether the check follows it through"`
	Fields []string `json:"fields"`
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
	Why   string `json:"why"`
	When  string `json:"when"`
}

// RuleWords describes the rule book.
func RuleWords(rules []*check.Rule) []RuleWord {
	out := make([]RuleWord, len(rules))
	for i, r := range rules {
		out[i] = RuleWord{r.Code, r.Title, r.Why, r.When}
	}
	return out
}

// VocabOf lists the vocabulary of a craft.
func VocabOf(c *craft.Craft, rules []RuleWord) Vocab {
	v := Vocab{Rules: rules}
	for i := range c.Substrates {
		r := &c.Substrates[i]
		w := SubstrateWord{Word: Word{r.ID, r.Name, r.Caution}, Group: string(r.Group), Family: r.Family.String(), Colour: r.Colour, Porosity: r.Porosity}
		w.Asks = asks(r)
		v.Substrates = append(v.Substrates, w)
	}
	var plain craft.SubstrateRow
	plain.Colour = "#c09a66"
	for i := range c.Finishes {
		r := &c.Finishes[i]
		w := FinishWord{Word: Word{r.ID, r.Name, r.Tells}, Colour: section.Ground(&plain, r)}
		if !r.Bare && !r.Unknown {
			w.Family = r.Family.String()
		}
		v.Finishes = append(v.Finishes, w)
	}
	for _, r := range craft.Sheens[1:] {
		v.Gloss = append(v.Gloss, Word{r.ID, r.Name, ""})
	}
	for _, r := range craft.Soils {
		v.Soils = append(v.Soils, Word{r.ID, r.Name, r.Advice})
	}
	for _, r := range craft.Bleeders {
		v.Bleeders = append(v.Bleeders, Word{r.ID, r.Name, r.How})
	}
	for _, r := range craft.Defects {
		v.Defects = append(v.Defects, Word{r.ID, r.Name, ""})
	}
	for _, r := range craft.UseRows {
		v.Uses = append(v.Uses, Word{r.ID, r.Name, ""})
	}
	for _, r := range craft.Wears {
		v.Wears = append(v.Wears, Word{r.ID, r.Name, ""})
	}
	for _, r := range surface.Kinds {
		fields := stepFields[r.ID].fields
		if fields == nil {
			fields = []string{}
		}
		v.Steps = append(v.Steps, StepWord{Word{r.ID, r.Name, ""}, r.Judged, fields})
	}
	for i := range c.Cleaners {
		r := &c.Cleaners[i]
		w := CleanerWord{Word: Word{r.ID, r.Name, r.Warns}, Carrier: r.Carrier.String(), Rinses: r.Rinses, Shifts: []string{}}
		for _, s := range r.Shifts {
			w.Shifts = append(w.Shifts, s.Soil.String())
		}
		v.Cleaners = append(v.Cleaners, w)
	}
	for i := range c.Products {
		r := &c.Products[i]
		v.Products = append(v.Products, ProductWord{
			Word: Word{r.ID, r.Name, r.Remark}, Role: string(r.Role), Family: r.Coat.String(), Carrier: r.Carrier.String(),
			RecoatFrom: r.Recoat.From, RecoatTo: finite(r.Recoat.To), CureDays: r.Cure, CoverM2L: r.Cover,
			FilmUM: r.Film, Hiding: r.Hiding, MinC: r.MinC, MaxRH: r.MaxRH, Sheen: craft.Sheens[r.Sheen].ID,
			Colour: r.Colour, PriceMinor: r.Price, Smell: r.Smell, PotLifeH: finite(r.PotLife),
			TakesAdd: r.Coat == craft.MK, LeavesFilm: r.LeavesFilm(), BlocksStain: r.Block.Blocks(),
		})
	}
	for _, r := range craft.Methods {
		v.Methods = append(v.Methods, Word{r.ID, r.Name, ""})
	}
	for _, r := range craft.Hows {
		v.Hows = append(v.Hows, Word{string(r.ID), r.Name, ""})
	}
	for _, r := range c.Effects {
		v.Effects = append(v.Effects, Word{r.ID, r.Name, r.How})
	}
	for _, r := range craft.Families {
		v.Families = append(v.Families, Word{r.ID, r.Name, ""})
	}
	v.Scopes = named("all", "the whole zone", "knots", "the knots only", "spots", "the spots only")
	v.Strips = named("chemical", "with stripper", "scrape", "by scraping", "heat", "with heat", "sand", "by sanding")
	v.Starts = starts(c)
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
	if r.Knotted > 0 {
		out = append(out, "knots")
	}
	return out
}

// starts lists the steps a painter begins from: the usual grit, the rinse a
// cleaner must have, two coats of a paint and one of a wax.
func starts(c *craft.Craft) []StartWord {
	var out []StartWord
	for i := range c.Cleaners {
		r := &c.Cleaners[i]
		var shifts []string
		for _, s := range r.Shifts {
			if s.Soil != craft.Dust || len(r.Shifts) == 1 {
				shifts = append(shifts, craft.Soils[s.Soil].Name)
			}
		}
		out = append(out, StartWord{"Clean", r.Name, strings.Join(shifts, ", "), Step{Do: "clean", With: r.ID, Rinse: r.Rinses > 0}})
	}
	const sanding = "Sand and dust"
	out = append(out,
		StartWord{sanding, "Sand", "220 by hand to begin with", Step{Do: "abrade", Grit: 220, How: string(craft.Hand)}},
		StartWord{sanding, "Scuff with a fine pad", "vinyl, foil, zinc", Step{Do: "abrade", How: string(craft.Pad)}},
		StartWord{sanding, "Dust off", "vacuum and tack cloth", Step{Do: "dust"}},
		StartWord{sanding, "Raise the grain", "damp cloth, dry, knock back", Step{Do: "raise_grain"}})
	for i := range c.Products {
		p := &c.Products[i]
		s := Step{Do: "coat", Product: p.ID, Coats: 1, Method: "brush"}
		switch {
		case p.Role == craft.RolePaint || p.Role == craft.RoleClear:
			s.Coats = 2
		case p.Role == craft.RoleWax:
			s.Method = "rag"
		}
		if p.Aerosol {
			s.Method = "aerosol"
		}
		group := string(p.Role)
		out = append(out, StartWord{strings.ToUpper(group[:1]) + group[1:], p.Name, p.Remark, s})
	}
	day, best := 24., 5
	out = append(out, StartWord{"Wait", "Wait", "a day to begin with", Step{Do: "wait", Hours: &day}})
	for _, k := range surface.Kinds {
		if k.Judged {
			continue
		}
		s := Step{Do: k.ID}
		switch k.ID {
		case "strip":
			s.How = craft.Strips[0]
		case "fill":
			s.With = craft.Fillers[1]
		case "remove":
			s.What = "handles"
		case "effect":
			s.Effect = "distress_dry"
		case "test":
			s.Rating = &best
		}
		out = append(out, StartWord{"Kept in the plan, not judged yet", k.Name, "", s})
	}
	return out
}

func named(pairs ...string) []Word {
	var out []Word
	for i := 0; i+1 < len(pairs); i += 2 {
		out = append(out, Word{pairs[i], pairs[i+1], ""})
	}
	return out
}

func finite(x float64) *float64 {
	if math.IsInf(x, 0) {
		return nil
	}
	return &x
}
