package card

import (
	"fmt"
	"math"
	"regexp"

	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/quantity"
)

// Mixing is what the mixing card says of a coat.
type Mixing struct {
	Steps             []Step
	TooThick, TooThin string
	Keeps             []string // how long, and where
	Left              string   // what the rest is good for
	Foam              string
	Clocks            []Clock // that may be started when the pot stands ready
}

// Mix is the mixing card of a coat, with its batch.
func Mix(k *Coat, b *quantity.Batch) Mixing {
	out := Mixing{TooThick: b.Row.TooThick, TooThin: b.Row.TooThin, Left: b.Row.Left, Foam: b.Row.Foam}
	names := portions(b)
	for _, l := range k.lines(b.Row.Lines, b) {
		says, missing := fill(l.Says, names)
		if missing {
			continue
		}
		s := Step{Says: says}
		switch {
		case l.Timer == craft.TimePot:
			s.Clock = k.clock(craft.TimePot, k.potLife(b), 0)
		case l.Timer != craft.NoTimer:
			s.Clock = k.clock(l.Timer, l.Minutes/60, 0)
		}
		out.Steps = append(out.Steps, s)
	}
	if b.Pots > 1 {
		out.Steps = append(out.Steps, Step{Says: fmt.Sprintf("This is one of %d pots: mix the next when this one is empty. One pot is laid in about %s.", b.Pots, measure.Hours(b.Work/60))})
	}
	if b.Life < craft.Never {
		if c := k.clock(craft.TimePot, k.potLife(b), 0); c != nil {
			out.Clocks = append(out.Clocks, *c)
		}
	}
	if b.Chilled > 0 && !math.IsInf(b.Chilled, 1) {
		out.Clocks = append(out.Clocks, Clock{Timer: craft.TimeKeeps, Says: "What is left, chilled, " + keepSpan(b.Chilled), Seconds: b.Chilled * 3600, Need: b.Chilled * 3600, Pace: 1})
	}
	keep := func(where string, h float64) {
		switch {
		case math.IsInf(h, 1):
			out.Keeps = append(out.Keeps, where+": as long as the can.")
		case h > 0:
			out.Keeps = append(out.Keeps, where+": "+keepSpan(h)+".")
		}
	}
	keep("In a closed jar", b.Closed)
	keep("Closed and chilled", b.Chilled)
	k.stepsInUnits(out.Steps)
	k.inUnits(&out.TooThick, &out.TooThin, &out.Left, &out.Foam)
	if b.Row.NotKept != "" {
		out.Keeps = append(out.Keeps, b.Row.NotKept)
	}
	return out
}

// potLife is a pot's life at the pace of an ordinary room, in hours.
func (k *Coat) potLife(b *quantity.Batch) float64 {
	p := k.pace(craft.TimePot)
	if math.IsInf(b.Life, 1) || p == 0 {
		return 0
	}
	return b.Life / p
}

// keepSpan words how long something keeps, in whole days, weeks or months.
func keepSpan(h float64) string {
	switch d := h / 24; {
	case d < 2:
		return fmt.Sprintf("%.0f h", math.Floor(h))
	case d < 14:
		return measure.Count(int(d), "day", "days")
	case d < 60:
		return measure.Count(int(d/7), "week", "weeks")
	default:
		return measure.Count(int(d/30), "month", "months")
	}
}

// portions are the amounts of a batch, for the places in lines.
func portions(b *quantity.Batch) map[string]string {
	out := map[string]string{}
	for _, p := range b.Portions {
		says := p.Measured.Says + " of " + p.Name
		if len(p.Parts) > 0 {
			var each []string
			for _, q := range p.Parts {
				each = append(each, q.Measured.Says+" of “"+q.Name+"”")
			}
			says = craft.List(each)
		}
		out[string(p.Is)] = says
	}
	if b.Cans > 0 {
		out["base"] = measure.Count(b.Cans, "can", "cans")
	}
	return out
}

// amountAt is a place for an amount in a line.
var amountAt = regexp.MustCompile(`\{[a-z]+\}`)

// fill puts amounts into a line; missing tells that the batch has none of them.
func fill(says string, names map[string]string) (_ string, missing bool) {
	for {
		a := amountAt.FindStringIndex(says)
		if a == nil {
			return says, false
		}
		word, ok := names[says[a[0]+1:a[1]-1]]
		if !ok {
			return "", true
		}
		says = says[:a[0]] + word + says[a[1]:]
	}
}
