package format

import (
	"fmt"
	"math"
	"slices"
	"strconv"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/offer"
	"rutile/core/section"
	"rutile/core/stage"
	"rutile/core/surface"
)

// CheckResult is what a check says of a piece.
type CheckResult struct {
	Format  string       `json:"format"`
	Version int          `json:"version"`
	Verdict string       `json:"verdict" enum:"sound,watch,fails"`
	Air     Air          `json:"air" doc:"The workshop's air the piece was judged in"`
	Zones   []ZoneResult `json:"zones"`
	Look    *Look        `json:"look,omitempty" doc:"What the piece comes to, looked over"`
}

// Air is the air of a workshop, with the temperature below which a surface
// gathers water from it.
type Air struct {
	TempC     float64 `json:"temp_c"`
	RHPct     float64 `json:"rh_pct"`
	DewPointC float64 `json:"dew_point_c"`
	Own       bool    `json:"own,omitempty" doc:"The piece names an air of its own"`
}

// AirOf words a climate.
func AirOf(cl drying.Climate) Air {
	return Air{TempC: cl.TempC, RHPct: cl.RH, DewPointC: math.Round(drying.DewPoint(cl)*10) / 10}
}

// ZoneResult is what a check says of a zone. A block that was not computed is
// null.
type ZoneResult struct {
	ID       string        `json:"id"`
	Name     string        `json:"name,omitempty"`
	Verdict  string        `json:"verdict" enum:"sound,watch,fails"`
	Says     string        `json:"says" doc:"The verdict as a sentence"`
	Adhesion *AdhesionPart `json:"adhesion"`
	Bleed    []BleedPart   `json:"bleed"`
	Implied  []string      `json:"implied" doc:"What rises by itself where no bleeders are entered, in words"`
	Rises    []Level       `json:"implied_levels" doc:"The same as ids, with how much of it there is"`
	Hiding   *HidingPart   `json:"hiding" doc:"Null where no solid colour is planned"`
	Chips    *ChipsPart    `json:"chips" doc:"Null where nothing is likely to chip"`
	CrackMM  float64       `json:"crack_mm,omitempty" doc:"About how wide the coat over a crackle medium cracks"`
	Cracks   string        `json:"cracks,omitempty" doc:"How it cracks, as sentences"`
	Ready    *ReadyPart    `json:"ready" doc:"Null while nothing is planned"`
	Hours    HoursPart     `json:"hours"`
	Findings []Finding     `json:"findings"`
	Stages   []Stage       `json:"stages,omitempty" doc:"The stages of the work, in their order"`
	Section  *Section      `json:"section,omitempty"`
	Gloss    string        `json:"gloss,omitempty" doc:"The sheen it is taken for, where one was entered or read off a meter"`
	Known    *Known        `json:"known,omitempty" doc:"How sure one may be of what was entered; absent where nothing was tested"`
	Lead     *Lead         `json:"lead,omitempty" doc:"Absent where nothing makes it a suspect"`
	Bonds    []Bond        `json:"bonds" doc:"What a patch test could be made of, weakest first"`
	Patches  []PatchState  `json:"patches" doc:"How the zone's patch tests stand, in their order"`
}

// Stage is how one stage of the work on a zone stands.
type Stage struct {
	ID    string `json:"id" enum:"look_over,identify,prepare,coats,hand_over"`
	Name  string `json:"name"`
	State string `json:"state" enum:"done,open,stuck"`
	Says  string `json:"says"`
	Step  int    `json:"step,omitempty" doc:"From 1; the place in the plan it speaks of"`
}

// AdhesionPart says how well the plan holds.
type AdhesionPart struct {
	Risk     float64  `json:"risk" doc:"Chance that some layer peels, 0 to 1"`
	Words    string   `json:"risk_words" doc:"Over everything the surface may be, each counted by the belief in it"`
	Worst    string   `json:"worst_words,omitempty" doc:"What the risk is at its worst, and for which surface; absent where that is much the same"`
	Strength float64  `json:"strength" doc:"Of the weakest layer"`
	Demand   float64  `json:"demand"`
	Class    string   `json:"class" doc:"On the six-step cross-cut scale"`
	Weakest  Weakest  `json:"weakest"`
	Figures  []Factor `json:"figures"`
}

// Weakest is the weakest layer.
type Weakest struct {
	Step int    `json:"step"`
	Coat string `json:"coat"`
	On   string `json:"on"`
}

// BleedPart says what one bleeder will show.
type BleedPart struct {
	ID      string   `json:"id"`
	Name    string   `json:"name"`
	DeltaE  float64  `json:"delta_e"`
	Where   string   `json:"where"`
	Figures []Factor `json:"figures"`
}

// HidingPart says whether the coats hide the ground.
type HidingPart struct {
	CoatsPlanned int      `json:"coats_planned"`
	CoatsNeeded  int      `json:"coats_needed"`
	DeltaE       float64  `json:"delta_e" doc:"From the colour that is meant, after the planned coats, where they are thinnest"`
	Colour       string   `json:"colour" doc:"That they come to"`
	Sealed       string   `json:"sealed" doc:"The same under its seal"`
	Figures      []Factor `json:"figures"`
}

// ChipsPart says how much of a powder paint will chip.
type ChipsPart struct {
	P10     float64  `json:"p10"`
	P50     float64  `json:"p50"`
	P90     float64  `json:"p90"`
	Layer   string   `json:"layer" doc:"Where it parts"`
	Words   string   `json:"words"`
	Figures []Factor `json:"figures"`
}

// ReadyPart says when the finished zone may be used, in days after the plan ends.
type ReadyPart struct {
	Careful float64 `json:"careful_days" doc:"Hardware back, handled with care"`
	Normal  float64 `json:"normal_days" doc:"Everyday use"`
	Hard    float64 `json:"hard_days" doc:"Hard use, heat and water"`
	Says    string  `json:"says"`
}

// HoursPart says how long the plan takes.
type HoursPart struct {
	HandsOn *float64 `json:"hands_on" doc:"Null while the area is not known"`
	Elapsed float64  `json:"elapsed"`
	// Steps are minutes of work by step, with how long each takes in all.
	Steps []Factor `json:"steps" doc:"Minutes of work by step, and in words how long it takes in all"`
}

// Factor is one figure with what it means.
type Factor struct {
	ID    string  `json:"id"`
	Value float64 `json:"value"`
	Shown string  `json:"shown" doc:"The value as it is read"`
	Words string  `json:"words"`
}

// Finding is one thing a rule has to say.
type Finding struct {
	Code         string             `json:"code"`
	Severity     string             `json:"severity" enum:"note,watch,fail"`
	Step         int                `json:"step,omitempty" doc:"From 1; absent for the zone as a whole"`
	Title        string             `json:"title"`
	Why          string             `json:"why"`
	Figures      map[string]float64 `json:"figures"`
	Factors      []Factor           `json:"factors" doc:"The figures with their meaning, in order"`
	Repairs      []Repair           `json:"repairs"`
	Acknowledged string             `json:"acknowledged,omitempty" doc:"Date on which the caution was read"`
}

// Repair is one way to answer a finding.
type Repair struct {
	Kind    string `json:"kind" enum:"edit,measure,acknowledge"`
	Title   string `json:"title"`
	Steps   []Step `json:"steps,omitempty" doc:"Of an edit: the zone's whole repaired steps"`
	Field   string `json:"field,omitempty" doc:"Of a measurement: the field to fill in"`
	Verdict string `json:"verdict,omitempty" doc:"Of an edit: what it leads to"`
}

// Section is the cut through a zone's coats, from the substrate up.
type Section struct {
	Layers   []Layer  `json:"layers"`
	Marks    []Mark   `json:"marks" doc:"Steps that leave no layer, and where they were done"`
	Grit     int      `json:"grit,omitempty"`
	Source   []string `json:"source,omitempty" doc:"What may rise from below, worst first"`
	Faces    []Face   `json:"faces,omitempty" doc:"The finished surface as stains come, from fresh to a year old"`
	Worn     []Shown  `json:"worn" doc:"What an edge shows as it wears down, the topmost paint first"`
	WornSays string   `json:"worn_says,omitempty" doc:"The same in words"`
}

// Face is the finished surface at a moment.
type Face struct {
	Name   string  `json:"name"`
	Days   float64 `json:"days"`
	Colour string  `json:"colour"`
	DeltaE float64 `json:"delta_e"`
	Of     string  `json:"of,omitempty" doc:"The worst stain by then"`
	Spots  bool    `json:"spots,omitempty" doc:"It shows in spots"`
	Says   string  `json:"says"`
}

// Shown is a layer that wear lays open.
type Shown struct {
	Layer  int     `json:"layer" doc:"From 0"`
	Colour string  `json:"colour"`
	Apart  float64 `json:"apart" doc:"From the finished colour, in CIEDE2000 units"`
}

// Layer is one layer of the cut.
type Layer struct {
	Kind    string    `json:"kind" enum:"substrate,finish,coat"`
	Name    string    `json:"name"`
	Group   string    `json:"group,omitempty"`
	Mark    string    `json:"mark,omitempty" doc:"Of the substrate: the marks by which the eye tells it"`
	Family  string    `json:"family"`
	Colour  string    `json:"colour,omitempty"`
	Clear   bool      `json:"clear,omitempty"`
	Microns float64   `json:"microns"`
	Step    int       `json:"step,omitempty"`
	Coat    int       `json:"coat,omitempty"`
	Joint   *Joint    `json:"joint,omitempty"`
	Soils   []string  `json:"soils,omitempty"`
	Stain   float64   `json:"stain,omitempty"`
	StainAs string    `json:"stain_colour,omitempty"`
	Over    []float64 `json:"stain_over,omitempty" doc:"The stain at the moments of faces"`
	Spots   bool      `json:"spots,omitempty"`
	Driven  []string  `json:"driven,omitempty" doc:"Those of the soils that sanding rubbed in"`
	Grit    int       `json:"grit,omitempty" doc:"Of the scratches on its face"`
	Padded  bool      `json:"padded,omitempty"`
	WaitsH  float64   `json:"waits_h,omitempty" doc:"Until the next coat, or the plan's end"`
	FromH   float64   `json:"from_h,omitempty" doc:"Its window for the next coat here"`
	ToH     *float64  `json:"to_h,omitempty" doc:"Absent where there is no latest"`
	InTime  bool      `json:"in_time,omitempty" doc:"The next coat comes when it may"`
}

// Mark is a step that leaves no layer.
type Mark struct {
	Step int    `json:"step"`
	Do   string `json:"do"`
	On   int    `json:"on" doc:"The layer whose face it worked on, from 0"`
}

// Joint is how a layer holds on what is below it.
type Joint struct {
	Strength float64  `json:"strength"`
	Class    string   `json:"class"`
	Holds    string   `json:"holds" enum:"well,barely,not,meant" doc:"Meant: it is to let go, as the look wants"`
	Figures  []Factor `json:"figures"`
}

// CheckOptions choose what a check of a piece writes.
type CheckOptions struct {
	Site      drying.Climate // where the piece names none
	NoRepairs bool
	Section   bool
	Look      bool
	Units     measure.Units // that findings are worded in
	Today     string        // as 2026-11-24; empty where there is no clock
	LeadYear  int           // before which old paint is suspected of lead; 0 as is usual
}

// repairBudget is shared by the zones of a piece, so that the longest piece is
// answered in bounded time too.
const repairBudget = 400_000

// Check judges every zone of a decoded piece.
func Check(c *craft.Craft, p *Piece, o CheckOptions) CheckResult {
	out := CheckResult{Format: CheckFormat, Version: Version, Zones: make([]ZoneResult, len(p.Zones))}
	worst := check.Sound
	out.Air = AirOf(p.air(o.Site))
	out.Air.Own = p.Site != nil
	if len(p.Zones) == 0 {
		worst = check.Watched
	}
	films := make([]float64, len(p.Zones))
	bases := p.bases(c, o)
	for i := range p.Zones {
		z := p.beside(c, i, o, bases)
		r := check.Check(c, &z, check.Options{NoRepairs: o.NoRepairs, Budget: repairBudget / len(p.Zones)})
		worst = max(worst, r.Verdict)
		out.Zones[i] = zoneResult(c, &p.Zones[i], &z, &r, o)
		films[i] = r.Trace.End.Patches[0].Film
	}
	if o.Look {
		l := LookOver(c, p, o, films)
		out.Look = &l
	}
	out.Verdict = worst.String()
	return out
}

func zoneResult(c *craft.Craft, src *Zone, z *check.Zone, r *check.Result, o CheckOptions) ZoneResult {
	out := ZoneResult{
		ID: src.ID, Name: src.Name, Verdict: r.Verdict.String(), Says: r.Says(c),
		Bleed: []BleedPart{}, Findings: []Finding{}, Implied: []string{}, Rises: []Level{},
		Hours: HoursPart{Elapsed: tidy(r.Hours)}, Bonds: bondsOf(c, r),
	}
	out.Patches = patchStates(c, src, out.Bonds, o.Today)
	out.Gloss = craft.Sheens[z.Gloss].ID
	out.Known, out.Lead = knownOf(c, z, r), leadOf(c, z)
	if r.Minutes >= 0 {
		h := tidy(r.Minutes / 60)
		out.Hours.HandsOn = &h
	}
	out.Hours.Steps = hoursBySteps(c, z, r)
	out.Hiding, out.Chips, out.CrackMM = hidingOf(c, r), chipsOf(c, r), Tenths(r.CrackMM)
	if r.CrackMM > 0 {
		out.Cracks = check.CrackSays(z.Units)
	}
	if r.Ready {
		out.Ready = &ReadyPart{Tenths(r.Cured.Careful), Tenths(r.Cured.Normal), Tenths(r.Cured.Hard), r.Cured.Says()}
	}
	plain := z.Facts
	plain.GivenBleeders = false
	for b, lv := range surface.Levels(c, &plain) {
		if lv > 0 {
			out.Implied = append(out.Implied, craft.Bleeders[b].Name)
			out.Rises = append(out.Rises, Level{craft.Bleeder(b).String(), int(lv)})
		}
	}
	if a := r.Adhesion; a != nil {
		w := &a.Weakest
		on := w.On.String()
		if w.Bare {
			on = c.Substrates[z.Substrate].ID
		}
		out.Adhesion = &AdhesionPart{
			Risk: tidy(a.Risk), Words: check.Percent(a.Expected), Worst: worstWords(a), Strength: tidy(w.Strength), Demand: a.Demand,
			Class:   check.Class(w.Strength),
			Weakest: Weakest{w.Step, c.Products[w.Product].ID, on},
			Figures: factors(a.Explain(c, w)),
		}
	}
	for i := range r.Stains {
		s := &r.Stains[i]
		out.Bleed = append(out.Bleed, BleedPart{
			s.Bleeder.String(), craft.Bleeders[s.Bleeder].Name, tidy(s.DeltaE), s.Patch.String(), factors(check.StainFigures(s)),
		})
	}
	for i := range r.Findings {
		f := &r.Findings[i]
		g := Finding{
			Code: f.Code, Severity: f.Severity.String(), Step: f.Step, Title: f.Title, Why: f.Why,
			Figures: map[string]float64{}, Factors: factors(f.Figures), Repairs: []Repair{},
		}
		for _, x := range g.Factors {
			g.Figures[x.ID] = x.Value
		}
		for _, rp := range f.Repairs {
			w := Repair{Kind: rp.Kind.String(), Title: rp.Title, Field: rp.Field}
			if rp.Kind == check.Edit {
				w.Steps = StepsFrom(c, rp.Steps)
				w.Verdict = rp.After.String()
			}
			g.Repairs = append(g.Repairs, w)
		}
		if n := slices.IndexFunc(src.Read, func(a ReadNotes) bool { return a.Code == f.Code }); n >= 0 {
			g.Acknowledged = src.Read[n].Date
		}
		out.Findings = append(out.Findings, g)
	}
	if o.Section {
		out.Section = drawing(c, src, z, r)
	}
	for _, s := range stage.Of(c, z, r) {
		out.Stages = append(out.Stages, Stage{string(s.ID), s.Name, s.State.String(), s.Says, s.Step})
	}
	return out
}

func hidingOf(c *craft.Craft, r *check.Result) *HidingPart {
	s := &r.Story
	if s.Planned == 0 {
		return nil
	}
	return &HidingPart{
		CoatsPlanned: s.Planned, CoatsNeeded: s.Needed, DeltaE: tidy(s.Off), Colour: s.Final.Hex(), Sealed: r.Sealed(c).Hex(),
		Figures: factors(r.HidingFigures()),
	}
}

func chipsOf(c *craft.Craft, r *check.Result) *ChipsPart {
	x := &r.Chips
	if x.Bound == nil || !r.Chippy && x.P90 <= check.ChipsShown {
		return nil
	}
	return &ChipsPart{
		P10: tidy(x.P10), P50: tidy(x.P50), P90: tidy(x.P90), Layer: x.Bound.On.String(),
		Words: check.Span(x.P10, x.P90), Figures: factors(r.ChipFigures()),
	}
}

func worstWords(a *check.Adhesion) string {
	const much = .05
	if a.Risk-a.Expected < much {
		return ""
	}
	return check.Percent(a.Risk) + " if " + a.If
}

// hoursBySteps is where the time of a plan goes. Where the area is not known,
// the minutes are 0 and the words say so.
func hoursBySteps(c *craft.Craft, z *check.Zone, r *check.Result) []Factor {
	out := make([]Factor, len(z.Steps))
	events := r.Trace.Events
	for i := range z.Steps {
		var minutes, hours float64
		for j := range events {
			if e := &events[j]; e.Step == i+1 {
				end := r.Trace.End.Hours
				if j+1 < len(events) {
					end = events[j+1].Begun
				}
				minutes += e.After.Minutes - e.Before.Minutes
				hours += end - e.Begun
			}
		}
		words := check.StepWords(c, &z.Steps[i])
		if hours > 0 {
			words += ": " + check.Hours(hours) + " until what follows"
		}
		if r.Minutes < 0 {
			words += "; the work is not known without an area"
		}
		out[i] = Factor{fmt.Sprintf("step_%d", i+1), math.Round(minutes*10) / 10, fmt.Sprintf("%.0f min", minutes), words}
	}
	return out
}

func drawing(c *craft.Craft, src *Zone, z *check.Zone, r *check.Result) *Section {
	d := section.Draw(c, z, src.Colour, r)
	out := &Section{Grit: d.Grit, Source: d.Source, Worn: []Shown{}, WornSays: d.WearSays(), Layers: make([]Layer, len(d.Layers)), Marks: make([]Mark, len(d.Marks))}
	for i, f := range d.Faces {
		at := section.Moments[i]
		out.Faces = append(out.Faces, Face{at.Name, at.Days, f.Colour, tidy(f.DeltaE), f.Of, f.Spots, f.Says()})
	}
	for _, w := range d.Worn {
		out.Worn = append(out.Worn, Shown{w.Layer, w.Colour, Tenths(w.Apart)})
	}
	for i, m := range d.Marks {
		out.Marks[i] = Mark{m.Step, surface.Kinds[m.Do].ID, m.On}
	}
	for i := range d.Layers {
		l := &d.Layers[i]
		w := Layer{
			Kind: string(l.Kind), Name: l.Name, Group: string(l.Group), Family: l.Family.String(),
			Colour: l.Colour, Clear: l.Clear, Microns: l.Microns, Step: l.Step, Coat: l.CoatNo,
			Soils: l.Soils, Stain: tidy(l.Stain), StainAs: l.StainColour, Spots: l.Spots,
			Driven: l.Driven, Grit: l.Grit, Padded: l.Padded, WaitsH: tidy(l.Waits), FromH: tidy(l.From), InTime: l.InTime,
		}
		if l.Stain > 0 {
			for _, x := range l.Over {
				w.Over = append(w.Over, tidy(x))
			}
		}
		if l.Kind == section.Substrate {
			w.Mark = c.Substrates[z.Substrate].Mark()
		}
		if l.To > 0 && !math.IsInf(l.To, 1) {
			to := tidy(l.To)
			w.ToH = &to
		}
		if b := l.Joint; b != nil {
			w.Joint = &Joint{Strength: tidy(b.Strength), Class: check.Class(b.Strength), Holds: holds(r, b)}
			if r.Adhesion != nil {
				w.Joint.Figures = factors(r.Adhesion.Explain(c, &b.Boundary))
			}
		}
		out.Layers[i] = w
	}
	return out
}

func holds(r *check.Result, b *check.Bond) string {
	v := check.RiskVerdict(b.Risk)
	switch {
	case v != check.Sound && r.Meant(&b.Boundary):
		return "meant"
	case v == check.Fails:
		return "not"
	case v == check.Watched:
		return "barely"
	}
	return "well"
}

func factors(fs []check.Figure) []Factor {
	out := make([]Factor, len(fs))
	for i, f := range fs {
		out[i] = Factor{f.ID, tidy(f.Value), f.Shown(), f.Words}
	}
	return out
}

// Tenths rounds to one decimal.
func Tenths(x float64) float64 { return math.Round(x*10) / 10 }

// Number writes a figure without needless zeros.
func Number(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }

// tidy rounds to four decimals: no estimate here is better than that.
func tidy(x float64) float64 { return math.Round(x*1e4) / 1e4 }

// NextStep is a step that could come next in a zone's plan.
type NextStep struct {
	StartWord
	Why     string `json:"why,omitempty" doc:"Why it makes sense here; absent where nothing calls for it"`
	Brings  string `json:"brings,omitempty" doc:"The fault it would bring into the plan"`
	Barred  string `json:"barred,omitempty" doc:"Why it cannot be planned at all"`
	Verdict string `json:"verdict" enum:"sound,watch,fails" doc:"On the plan with the step in it"`
}

// Next lists what could come after the first at steps of a zone's plan, what
// makes sense first. The piece must be a decoded one.
func Next(c *craft.Craft, p *Piece, zone, at int, o CheckOptions) []NextStep {
	z := p.judged(c, zone, o)
	offers := offer.Next(c, &z, at)
	out := make([]NextStep, len(offers))
	for i := range offers {
		x := &offers[i]
		out[i] = NextStep{StartWord: startWord(c, &x.Start), Brings: x.Brings, Barred: x.Barred, Verdict: x.After.String()}
		if x.Sensible() {
			out[i].Why = x.Why
		}
	}
	return out
}
