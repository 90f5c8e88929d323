package app

import (
	"math"
	"strings"

	"rutile/core/check"
	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/damage"
	"rutile/core/disassembly"
	"rutile/core/identify"
	"rutile/core/measure"
	"rutile/core/parts"
	"rutile/core/suggest"
	"rutile/core/surface"
	"rutile/internal/wire"
)

// word is a word of the craft with what else it is called.
func word(id, name, note string) wire.Word {
	return wire.Word{ID: id, Name: name, Note: note, Also: craft.Also[id]}
}

// RuleWords describes the rule book.
func RuleWords(rules []*check.Rule) []wire.RuleWord {
	out := make([]wire.RuleWord, len(rules))
	for i, r := range rules {
		out[i] = wire.RuleWord{Code: r.Code, Title: r.Title, Group: r.Group(), Why: r.Why, When: r.When, Inputs: craft.Upper(r.Inputs), Fix: craft.Upper(r.Fix), Divided: r.Divides != nil}
	}
	return out
}

// Vocab lists every id with its meaning.
func (e *Engine) Vocab() wire.Vocab {
	c := e.Craft
	v := wire.Vocab{Rules: RuleWords(e.Book.Rules), Ways: wayWords(), Kits: kitWords()}
	for i := range c.Substrates {
		r := &c.Substrates[i]
		w := wire.SubstrateWord{Word: word(r.ID, r.Name, r.Caution), Group: string(r.Group), Family: r.Family.String(), Colour: r.Colour, Porosity: r.Porosity}
		w.Asks, w.Mark = asks(r), r.Mark()
		met := r.Met()
		w.Finishes, w.Soils, w.Bleeders = met.Finishes, met.Soils, met.Bleeders
		v.Substrates = append(v.Substrates, w)
	}
	var plain craft.SubstrateRow
	plain.Colour = "#c09a66"
	for i := range c.Finishes {
		r := &c.Finishes[i]
		w := wire.FinishWord{Word: word(r.ID, r.Name, r.Tells), Colour: colour.Ground(&plain, r).Hex(), Mark: r.Mark(), Mirrors: r.Mirrors()}
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
		v.Bleeders = append(v.Bleeders, word(r.ID, r.Name, r.Mark))
	}
	for _, n := range colour.Words() {
		c, _ := colour.Named(n)
		v.Colours = append(v.Colours, wire.ColourWord{Name: n, Colour: c.Hex()})
	}
	for _, hex := range []string{"#f4f2ec", "#ede3cc", "#c9d2cd", "#7d8f9a", "#2f4a40", "#8a3b32", "#34373a"} {
		v.Quick = append(v.Quick, wire.ColourWord{Name: colour.NameHex(hex), Colour: hex})
	}
	v.Defects, v.PartKinds, v.Fittings = defectWords(), partKinds(), fittingWords()
	for _, f := range parts.Furnitures {
		v.Furniture = append(v.Furniture, word(f.ID, f.Name, ""))
	}
	for _, r := range parts.Reliefs {
		v.Reliefs = append(v.Reliefs, word(r.ID, r.Name, ""))
	}
	for _, d := range disassembly.Treatments {
		v.Treatments = append(v.Treatments, word(d.ID, d.Name, ""))
	}
	for _, r := range craft.UseRows {
		v.Uses = append(v.Uses, word(r.ID, r.Name, ""))
	}
	for _, r := range craft.Wears {
		v.Wears = append(v.Wears, word(r.ID, r.Name, ""))
	}
	for _, r := range craft.SeenRows {
		w := wire.SeenWord{ID: r.ID, Name: r.Name}
		for _, l := range r.Levels {
			w.Levels = append(w.Levels, wire.SeenLevel(l))
		}
		v.Seen = append(v.Seen, w)
	}
	for _, r := range craft.LaidRows {
		v.Laid = append(v.Laid, wire.LaidWord(r))
	}
	for _, r := range surface.Kinds {
		fields := wire.StepFields(r.ID)
		v.Steps = append(v.Steps, wire.StepWord{Word: word(r.ID, r.Name, ""), Fields: fields})
	}
	for i := range c.Cleaners {
		r := &c.Cleaners[i]
		w := wire.CleanerWord{Word: word(r.ID, r.Name, r.Warns), Carrier: r.Carrier.String(), Rinses: r.Rinses, Shifts: []string{}}
		for _, s := range r.Shifts {
			w.Shifts = append(w.Shifts, s.Soil.String())
		}
		v.Cleaners = append(v.Cleaners, w)
	}
	for i := range c.Products {
		r := &c.Products[i]
		sheens := make([]string, len(r.Sheens))
		for k, s := range r.Sheens {
			sheens[k] = craft.Sheens[s].ID
		}
		v.Products = append(v.Products, wire.ProductWord{
			Sheens: sheens, SizesL: r.Sizes, Methods: r.Methods, MostFlatM2: r.MostFlat, MostSlender: r.MostSlender,
			Word: word(r.ID, r.Name, r.Remark), Role: string(r.Role), Family: r.Coat.String(), Carrier: r.Carrier.String(),
			RecoatFrom: r.Recoat.From, RecoatTo: finite(r.Recoat.To), CureDays: r.Cure, CoverM2L: r.Cover,
			FilmUM: r.Film, Hiding: r.Hiding, MinC: r.MinC, MaxRH: r.MaxRH, Sheen: craft.Sheens[r.Sheen].ID,
			Colour: r.Colour, PriceMinor: r.Price, Smell: r.Smell, PotLifeH: finite(r.PotLife),
			TakesAdd: r.Coat == craft.MK, LeavesFilm: r.LeavesFilm(), BlocksStain: r.Block.Blocks(),
			Usual: r.Usual(), Blends: mixable(r), Powder: r.Powder(),
		})
	}
	for _, r := range measure.Vessels {
		v.Measures = append(v.Measures, word(r.ID, r.Name, ""))
	}
	for _, r := range craft.Methods {
		v.Methods = append(v.Methods, word(r.ID, r.Name, ""))
	}
	for _, r := range craft.Hows {
		v.Hows = append(v.Hows, word(string(r.ID), r.Name, ""))
	}
	for _, r := range c.Effects {
		v.Effects = append(v.Effects, wire.EffectWord{Word: word(r.ID, r.Name, r.How), Wants: r.Wants, Trap: r.Trap, Wears: r.Wears, Sands: r.Deep, Flakes: r.Flakes()})
	}
	for _, r := range craft.Families {
		v.Families = append(v.Families, word(r.ID, r.Name, ""))
	}
	v.Scopes = named("all", "the whole zone", "knots", "the knots only", "spots", "the spots only")
	v.Strips = named("chemical", "with stripper", "scrape", "by scraping", "heat", "with heat", "sand", "by sanding", "caustic", "with caustic stripper")
	for _, id := range craft.Resists {
		v.Resists = append(v.Resists, word(id, craft.ResistNames[id], ""))
	}
	for _, r := range craft.LabelFigures {
		v.Label = append(v.Label, wire.FigureWord{ID: r.ID, Name: r.Name, Unit: r.Unit})
	}
	for _, d := range colour.Directions {
		v.Directions = append(v.Directions, word(d.ID, d.Name, ""))
	}
	v.Options = stepOptions(c)
	for i := range identify.Tests {
		t := &identify.Tests[i]
		w := wire.TestWord{ID: t.ID, Name: t.Name, Short: t.Short, How: t.How, Where: t.Where, LookFor: t.LookFor, Caution: t.Caution, Observation: t.Observation, Outcomes: nil}
		for _, o := range t.Outcomes {
			w.Outcomes = append(w.Outcomes, wire.OutcomeWord{ID: o.ID, Name: o.Name, Draw: o.Draw})
		}
		v.Tests = append(v.Tests, w)
	}
	v.CutHow = surface.CutHow
	for i, r := range surface.CrossCut {
		v.CrossCut = append(v.CrossCut, wire.CutWord{Class: i, Name: r.Name, Says: r.Says, Gone: r.Gone})
	}
	for i := range e.Stages {
		x := &e.Stages[i]
		v.Stages = append(v.Stages, wire.StageWord{ID: string(x.ID), Name: x.Name, View: x.View, Fields: idsOf(x.Fields)})
	}
	v.Levels, v.Limits = check.Levels[:], wire.Limits()
	v.Fillers = named("filler_two_part", "Two-part filler", "filler_fine", "Fine filler")
	return v
}

// Fields are the ids of all fields that an answer may ask for.
func (e *Engine) Fields() []string { return idsOf(craft.Fields) }

func idsOf(fields []craft.Field) []string {
	out := make([]string, len(fields))
	for i, f := range fields {
		out[i] = string(f)
	}
	return out
}

func asks(r *craft.SubstrateRow) []string {
	out := []string{}
	switch r.Group {
	case craft.GroupWood:
		out = append(out, "moisture_pct", "veneer", "prepared")
	case craft.GroupBoard:
		out = append(out, "moisture_pct", "prepared")
	case craft.GroupMineral:
		out = append(out, "moisture_pct")
	}
	if r.Alkaline() {
		out = append(out, "age_days")
	}
	if r.Knotted > 0 {
		out = append(out, "knots")
	}
	// A shiny surface's gloss tells how much key it has.
	if f := &craft.Families[r.Family]; f.Natural == 0 && f.Need > 0 {
		out = append(out, "gloss")
	}
	return out
}

func stepOptions(c *craft.Craft) []wire.StepOption {
	all := suggest.Options(c)
	out := make([]wire.StepOption, len(all))
	for i := range all {
		out[i] = stepOption(c, &all[i])
	}
	return out
}

func stepOption(c *craft.Craft, s *suggest.Option) wire.StepOption {
	return wire.StepOption{Group: s.Group, Name: s.Name, Note: s.Note, Step: stepsFrom(c, []surface.Step{s.Step})[0]}
}

func named(pairs ...string) []wire.Word {
	var out []wire.Word
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

func partKinds() []wire.PartKind {
	out := make([]wire.PartKind, parts.NumKinds)
	for k := range parts.Kinds {
		row := &parts.Kinds[k]
		out[k] = wire.PartKind{Word: wire.Word{ID: row.ID, Name: row.Name, Also: strings.Join(row.Words, " ")}, Wants: parts.Kind(k).Wants(), Moves: row.Moves}
		for _, n := range row.Needs {
			out[k].Sizes = append(out[k].Sizes, parts.DimIDs[n.Dim]+"_cm")
		}
		for _, f := range row.Faces {
			out[k].Faces = append(out[k].Faces, wire.PartFace{ID: f.ID, Name: f.Name, Usual: f.Usual})
		}
	}
	return out
}

func defectWords() []wire.DefectWord {
	var out []wire.DefectWord
	for _, r := range craft.Defects {
		w := wire.DefectWord{Word: word(r.ID, r.Name, "")}
		if m, ok := damage.RowOf(r.ID); ok {
			w.Across, w.Along, w.Note = m.Across, m.Along, m.How
		}
		out = append(out, w)
	}
	return out
}

func fittingWords() []wire.FittingWord {
	var out []wire.FittingWord
	for _, r := range disassembly.Rows {
		out = append(out, wire.FittingWord{Word: wire.Word{ID: r.ID, Name: r.Name}, Do: r.Do, Holes: r.Holes})
	}
	return out
}
