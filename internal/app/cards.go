package app

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"

	"rutile/core/card"
	"rutile/core/craft"
	"rutile/core/damage"
	"rutile/core/disassembly"
	"rutile/core/measure"
	"rutile/core/parts"
	"rutile/core/quantity"
	"rutile/core/surface"
	"rutile/internal/wire"
)

// Cards are the batches and cards of all zones of the piece that have a plan.
func (j *Job) Cards() wire.Cards {
	out := wire.Cards{Format: wire.CardsFormat, Version: wire.Version, Name: j.Piece.Name, Zones: []wire.ZoneCards{}}
	for i := range j.Zones {
		out.Zones = append(out.Zones, j.ZoneCards(i))
	}
	return out
}

// ZoneCards are the batches and cards of a zone, in the order of its plan.
func (j *Job) ZoneCards(i int) wire.ZoneCards {
	z, src, u := &j.Zones[i], &j.Piece.Zones[i], j.Shop.Units
	out := wire.ZoneCards{ID: src.ID, Name: src.Name, Air: u.Temp(j.Air.TempC) + ", " + fmt.Sprintf("%.0f %%", j.Air.RH), Cards: []wire.Card{}, Order: []wire.Turn{}}
	if z.Area > 0 {
		out.Area = u.Area(z.Area)
	}
	drawing := parts.Elevation(j.Parts, u)
	order := parts.Order(j.Parts, &drawing, i)
	for k := range order {
		out.Order = append(out.Order, turnOf(&order[k]))
	}
	w := surface.Walk(j.Craft, &z.Facts, z.Steps)
	coats := quantity.Coats(j.Craft, &quantity.Zone{Facts: &z.Facts, Relief: z.Relief, Trace: &w}, i)
	at := 0
	for n := range w.Events {
		e := &w.Events[n]
		if e.Done != nil {
			continue
		}
		switch e.Doing.Do {
		case surface.Coat:
			var coat quantity.Coat
			if at < len(coats) {
				coat = coats[at]
				at++
			} else { // no area: a card without amounts
				coat = quantity.Coat{Zone: i, Step: e.Step, CoatNo: e.CoatNo, Product: e.Doing.Product, Can: j.Craft.Products[e.Doing.Product].Can, Colour: e.Doing.Colour}
			}
			out.Cards = append(out.Cards, j.coatCard(i, &w, n, &coat, len(order) > 0))
		case surface.Fill:
			if c, ok := j.fillCard(i, e); ok {
				out.Cards = append(out.Cards, c)
			}
		case surface.Effect:
			if e.Effect != nil {
				out.Cards = append(out.Cards, workCard(e, j.planStep(i, e.Step)))
			}
		}
	}
	switch {
	case len(z.Steps) == 0 || len(out.Cards) == 0:
		out.Needs, out.Says = "steps", "There is nothing to mix yet: no coat is planned."
	case z.Area == 0:
		out.Needs, out.Says = "area", "The area of this zone is not known, so the cards have no amounts."
	default:
		out.Says = fmt.Sprintf("%s for %s, at %s.", measure.Count(len(out.Cards), "card", "cards"), out.Area, out.Air)
	}
	return out
}

// measures are the painter's own.
func (j *Job) measures() measure.Measures {
	if j.Shop.Measures != (measure.Measures{}) {
		return j.Shop.Measures
	}
	return measure.UsualMeasures(j.Shop.Units)
}

// coatCard is the card of a coat.
func (j *Job) coatCard(i int, w *surface.Trace, n int, coat *quantity.Coat, ordered bool) wire.Card {
	c, z, e := j.Craft, &j.Zones[i], &w.Events[n]
	s := e.Doing
	row := &c.Products[s.Product]
	batch := quantity.BatchOf(coat, quantity.Mixing{Craft: c, Facts: &z.Facts, Step: s, Air: z.Air(z.Now, z.Now), Measures: j.measures()})
	k := card.Coat{Craft: c, Facts: &z.Facts, Trace: w, At: n, Air: z.Air(z.Now, z.Now), Units: j.Shop.Units, Masked: j.maskedOn(i), Beside: j.beside(i)}
	if x, ok := c.Effect(z.Look); ok {
		k.Look = &c.Effects[x]
	}
	k.Turned, k.Flat = parts.Turned(j.Parts, i)
	k.Parts = k.Turned || k.Flat
	k.Upright = parts.Standing(j.Parts, i)
	out := wire.Card{
		ID: fmt.Sprintf("%d-%d", j.planStep(i, e.Step), e.CoatNo), Kind: "coat", Step: j.planStep(i, e.Step), Coat: e.CoatNo, Of: s.NumCoats(), Name: row.Name, Method: methodName(row, s.Method),
		Colour: s.Colour,
	}
	if coat.Can > 0 {
		out.Can, out.Name = j.cans[coat.Can-1].ID, j.cans[coat.Can-1].Title(c)
	}
	if row.Role == craft.RolePaint {
		out.Colour = cmp.Or(out.Colour, row.Colour, z.Colour)
	}
	out.Title = out.Name
	if out.Of > 1 {
		out.Title = fmt.Sprintf("%s, coat %d of %d", out.Name, out.Coat, out.Of)
	}
	switch s.Scope {
	case surface.Knots:
		out.Title += ", on the knots"
	case surface.Spots:
		out.Title += ", on the spots"
	}
	mix, lay := card.Mix(&k, &batch), card.Lay(&k, &batch)
	out.Batch = j.batch(&batch, &mix)
	out.Brief = brief(&batch)
	id := c.Products[c.KindOf(s.Product)].ID
	out.Mix, out.Lay = mixSays(&mix, id), laySays(&lay, id)
	out.Lay.Ordered = ordered && s.Scope == surface.All
	if s.Scope == surface.All && !ordered {
		out.Lay.Order = craft.UsualOrder(c.Substrates[z.Substrate].Group)
	}
	p := batch.Row.Pour
	out.Choices, out.Amount = choicesOf(card.Choices(row, s, &batch)), p != craft.PourCan
	out.Blend = row.Role == craft.RolePaint && (p == craft.PourReady || p == craft.PourPowder) && coat.Can == 0
	return out
}

// choicesOf writes what may be chosen.
func choicesOf(cs []card.Choice) []wire.MixChoice {
	out := []wire.MixChoice{}
	for _, c := range cs {
		x := wire.MixChoice{Field: string(c.Of), Name: c.Name}
		for _, o := range c.Options {
			x.Options = append(x.Options, wire.MixOption(o))
		}
		out = append(out, x)
	}
	return out
}

func methodName(row *craft.ProductRow, id string) string {
	if row.Aerosol {
		id = "aerosol"
	}
	m, _ := craft.MethodNamed(id)
	return m.Name
}

func mixSays(m *card.Mixing, product string) *wire.MixSays {
	return &wire.MixSays{
		TooThick: m.TooThick, TooThin: m.TooThin, Foam: m.Foam, Keeps: orNone(m.Keeps), Steps: cardSteps(m.Steps, product), Clocks: cardClocks(m.Clocks, product),
	}
}

func laySays(l *card.Laying, product string) *wire.LaySays {
	out := &wire.LaySays{
		Tool: l.Tool, Why: l.Why, Load: l.Load, Setup: orNone(l.Setup), Before: orNone(l.Before), Steps: cardSteps(l.Steps, product),
		Stroke: l.Stroke, Reason: l.StrokeWhy, Across: l.Across, Dabbed: l.Dabbed, Once: l.Once, Section: l.SectionSays, Wipe: l.Wipe,
		Cloth: l.Cloth, Little: l.Little, Runs: l.Runs, Faults: []wire.CardFault{}, Protect: orNone(l.Protect), Clean: l.Clean, Keep: l.Keep,
		Waste: l.Waste, Clocks: cardClocks(l.Clocks, product), Edge: clockOf(l.Edge, product),
	}
	for _, f := range l.Faults {
		out.Faults = append(out.Faults, wire.CardFault(f))
	}
	return out
}

func orNone(s []string) []string {
	if s == nil {
		return []string{}
	}
	return s
}

func cardSteps(steps []card.Step, product string) []wire.CardStep {
	out := make([]wire.CardStep, len(steps))
	for i, s := range steps {
		out[i].Says = s.Says
		out[i].Clock = clockOf(s.Clock, product)
	}
	return out
}

func cardClocks(cs []card.Clock, product string) []wire.CardClock {
	out := make([]wire.CardClock, len(cs))
	for i := range cs {
		out[i] = cardClock(&cs[i], product)
	}
	return out
}

func clockOf(c *card.Clock, product string) *wire.CardClock {
	if c == nil {
		return nil
	}
	out := cardClock(c, product)
	return &out
}

func cardClock(c *card.Clock, product string) wire.CardClock {
	out := wire.CardClock{Kind: craft.Timers[c.Timer].ID, Says: c.Says, Seconds: math.Ceil(c.Seconds), NeedS: c.Need, LeastS: c.Least}
	if row := &craft.Timers[c.Timer]; row.Dries || row.Ends || c.Pace != 1 { // the air may change its pace
		out.Product = product
	}
	return out
}

// brief is a batch in a line.
func brief(b *quantity.Batch) string {
	switch {
	case b.Refused != "":
		return b.Refused
	case b.Cans > 0:
		return measure.Count(b.Cans, "can", "cans")
	}
	var say []string
	for _, p := range b.Portions {
		say = append(say, p.Measured.Says+" of "+p.Name)
	}
	says := craft.List(say)
	if b.Pots > 1 {
		says = fmt.Sprintf("%d pots, each %s", b.Pots, says)
	}
	return says
}

// batch writes a batch.
func (j *Job) batch(b *quantity.Batch, mix *card.Mixing) *wire.Batch {
	u, m := j.Shop.Units, j.measures()
	out := &wire.Batch{
		Refused: b.Refused, NeedL: ml(b.Need), MostL: ml(b.Most), Pots: b.Pots, Portions: []wire.Portion{}, Notes: []string{}, WorkMin: math.Ceil(b.Work),
	}
	if b.Need > 0 {
		out.Needs = fmt.Sprintf("%s for a usual hand, up to %s with a full brush", u.Volume(b.Need), u.Volume(b.Most))
	}
	if b.Home != nil {
		out.Like = craft.Upper(b.Home.Like) + "."
	}
	if b.Refused != "" {
		return out
	}
	out.MakesL, out.Makes = ml(b.Makes), u.Volume(math.Floor(b.Makes*1000+1e-6)/1000)
	for _, p := range b.Portions {
		x := wire.Portion{Is: string(p.Is), Name: p.Name, Says: p.Measured.Says, Litres: tidy(p.Measured.Litres), Grams: tidy(p.Measured.Grams), ExactL: tidy(p.Exact)}
		for _, q := range p.Parts {
			x.Parts = append(x.Parts, wire.PortionPart{Name: cmp.Or(q.Name, q.Colour), Colour: q.Colour, Parts: q.Parts, Says: q.Measured.Says, Litres: tidy(q.Measured.Litres)})
		}
		out.Portions = append(out.Portions, x)
	}
	if b.Life < craft.Never {
		out.LifeH, out.Life = tidy(b.Life), "Use it within "+measure.Within(b.Life)+" in this air."
	}
	if b.Pots > 1 {
		out.Notes = append(out.Notes, fmt.Sprintf("Mix %d pots, one after the other: all at once would go off before it is laid.", b.Pots))
	}
	switch {
	case b.Short > 0:
		out.Notes = append(out.Notes, "It is less than the coat takes: "+u.Volume(b.Short)+" are missing.")
	case b.Wasted > 0:
		out.Notes = append(out.Notes, "The additive has a volume of its own: "+u.Volume(b.Wasted)+" of it will be left over.")
	}
	if out.LeftL = ml(b.Left()); out.LeftL > 0 && b.Cans == 0 {
		out.Left = "About " + m.Up(b.Left(), 1).Says + " may be left. "
		if m.By == measure.Grams {
			out.Left = "About " + u.Volume(b.Left()) + " may be left. "
		}
		out.Left += "Good for " + mix.Left + "."
		if mix.Left == b.Row.Left && b.Row.Pour == craft.PourTwoPart {
			out.Left = "A rest is good for " + mix.Left + "."
		}
	}
	return out
}

// fillCard is the card of a filling with two-part filler: how much at once, so that it can be worked.
func (j *Job) fillCard(i int, e *surface.Event) (wire.Card, bool) {
	if e.Doing.With != craft.FillerTwoPart {
		return wire.Card{}, false
	}
	f := card.Fill(j.damage(i), j.Air)
	b, x := &f.Balls, &wire.Batch{Pots: f.Balls.N, Portions: []wire.Portion{}, Notes: []string{}}
	out := wire.Card{
		ID: fmt.Sprintf("%d-0", j.planStep(i, e.Step)), Kind: "fill", Step: j.planStep(i, e.Step), Name: "Two-part filler", Title: "Two-part filler", Choices: []wire.MixChoice{},
		Batch: x, Mix: mixSays(&f.Mixing, ""),
	}
	if b.N == 0 { // a ball at a time
		x.Needs = "The damage is not counted in the survey."
		out.Brief = "a walnut of filler with a pea of hardener at a time"
	} else {
		grams := math.Ceil(b.Grams)
		hard := math.Ceil(grams*damage.HardenerShare*10-1e-6) / 10
		x.NeedL, x.MakesL = ml(b.ML*float64(b.N)/1000), ml(b.ML/1000)
		x.Portions = []wire.Portion{
			{Is: "base", Name: "filler", Says: fmt.Sprintf("%.0f g", grams), Grams: grams, Litres: tidy(grams / damage.TwoPartGrams / 1000), ExactL: tidy(b.ML / 1000)},
			{Is: "with", Name: "hardener", Says: measure.Number(hard) + " g", Grams: hard, Litres: tidy(hard / 1000), ExactL: tidy(b.Hardener / 1000)},
		}
		out.Brief = fmt.Sprintf("%.0f g of filler with %s g of hardener", grams, measure.Number(hard))
		if b.N > 1 {
			out.Brief = measure.Count(b.N, "ball", "balls") + ", each " + out.Brief
		}
	}
	x.LifeH, x.Life = tidy(b.WorkMin/60), "It can be worked for "+measure.Within(b.WorkMin/60)+" at "+j.Shop.Units.Temp(j.Air.TempC)+"."
	return out, true
}

// workCard is the card of an effect that is worked on what was laid.
func workCard(e *surface.Event, step int) wire.Card {
	lay := card.Work(e)
	return wire.Card{
		ID: fmt.Sprintf("%d-0", step), Kind: "work", Step: step, Name: e.Effect.Name, Title: e.Effect.Name, Brief: craft.Upper(e.Effect.How) + ".",
		Choices: []wire.MixChoice{}, Lay: laySays(&lay, e.Effect.Lays),
	}
}

// maskedOn names what is masked or stays in place on a zone.
func (j *Job) maskedOn(zone int) []string {
	return j.fittingsOn(zone, func(do string) bool { return do != disassembly.Off })
}

// beside names the other zones of the piece that it meets, within a sentence: what is taken off lies by itself.
func (j *Job) beside(zone int) []string {
	apart := func(i int) bool {
		return len(j.ofZone[i]) > 0 && !slices.ContainsFunc(j.ofZone[i], func(p parts.Part) bool { return !parts.Kinds[p.Kind].Moves })
	}
	var out []string
	if apart(zone) {
		return nil
	}
	for i := range j.Zones {
		if i != zone && !apart(i) && len(out) < 3 {
			out = append(out, "the zone “"+j.name(i)+"”")
		}
	}
	return out
}

// turnOf writes a place in the order.
func turnOf(p *parts.Turn) wire.Turn {
	out := wire.Turn{N: p.N, Part: p.Part, Says: p.Says, Run: [...]string{parts.Level: "level", parts.Upright: "upright", parts.Around: "around"}[p.Run], Apart: p.Apart, Last: p.Last, Marks: []wire.TurnMark{}}
	for i := range p.Marks {
		m := &p.Marks[i]
		b := path(nil, m.Outline, true)
		if len(m.Hole) > 0 {
			b = path(b, m.Hole, true)
		}
		x, y := m.Middle()
		out.Marks = append(out.Marks, wire.TurnMark{N: m.N, D: string(b), X: mm(x), Y: mm(y)})
	}
	return out
}

// MeasuresOf are a painter's measures by the id of a vessel and what a cup holds; empty and 0 stand for what is
// usual in the units.
func MeasuresOf(u measure.Units, vessel string, cupML float64) measure.Measures {
	m := measure.UsualMeasures(u)
	m.Units = u
	if v, ok := measure.VesselNamed(vessel); ok {
		m.By = v
	}
	switch {
	case cupML > 0:
		m.CupML = cupML
	case m.CupML == 0 && u == measure.US:
		m.CupML = measure.USCup
	case m.CupML == 0:
		m.CupML = measure.MetricCup
	}
	return m
}

// ReadAmount reads a typed amount in the studio's measures. Errors are an *Unfit.
func (s *Studio) ReadAmount(ctx context.Context, text string) (wire.AmountRead, error) {
	w := s.Workshop(ctx)
	l, err := w.Measures.Read(text)
	if err != nil {
		return wire.AmountRead{}, &Unfit{err.Error()}
	}
	return wire.AmountRead{Litres: tidy(l), Says: w.Measures.Says(l)}, nil
}
