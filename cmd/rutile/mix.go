package main

import (
	"cmp"
	"fmt"
	"io"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/internal/app"
	"rutile/internal/wire"
)

func mixCommand() *cobra.Command {
	var units, measures, amount string
	var cup float64
	var text bool
	cmd := &cobra.Command{
		Use:   "mix FILE...",
		Short: "Say how each coat of piece files is mixed and laid; - reads standard input",
		Long: "Work out the batch of every coat in a painter's own measures, how long it keeps, and what to do step by step:\n" +
			"mixing and laying. Amounts are rounded up to what can be measured.\n" +
			"Exit code 0: done. 1: a coat cannot be mixed as planned. 2: an input cannot be used.",
		Args: cobra.MinimumNArgs(1),
		RunE: func(cmd *cobra.Command, files []string) error {
			u, err := unitsOf(units)
			if err != nil {
				return err
			}
			m, err := measuresOf(cmd, u, measures, cup)
			if err != nil {
				return err
			}
			litres := 0.
			if amount != "" {
				if litres, err = m.Read(amount); err != nil {
					return fmt.Errorf("--make %s: %w", amount, err)
				}
			}
			e := app.NewEngine(craft.Default())
			shop := app.Workshop{Air: drying.Usual, Units: u, Today: today(), Now: time.Now(), Measures: m}
			refused := false
			err = eachPiece(cmd, files, func(name string, p *wire.Piece) error {
				if litres > 0 {
					makeOf(p, litres)
				}
				cards := e.Job(p, shop).Cards()
				for i := range cards.Zones {
					for k := range cards.Zones[i].Cards {
						b := cards.Zones[i].Cards[k].Batch
						refused = refused || b != nil && b.Refused != ""
					}
				}
				if !text {
					return writeJSON(cmd.OutOrStdout(), cards)
				}
				return mixText(cmd.OutOrStdout(), &cards, cmp.Or(p.Name, name))
			})
			if err == nil && refused {
				return exit{exitFails}
			}
			return err
		},
	}
	cmd.Flags().StringVar(&units, "units", measure.Metric.String(), "metric or us")
	cmd.Flags().StringVar(&measures, "measures", "", "what is measured with: "+strings.Join(vesselIDs(), ", ")+"; as is usual for the units")
	cmd.Flags().Float64Var(&cup, "cup", 0, "what your cup holds, in millilitres")
	cmd.Flags().StringVar(&amount, "make", "", "litres of paint to mix for each coat before any additive, such as \"2 cups\", in place of what it needs")
	cmd.Flags().BoolVar(&text, "text", false, "write readable text instead of JSON")
	return cmd
}

func vesselIDs() []string {
	var out []string
	for _, v := range measure.Vessels {
		out = append(out, v.ID)
	}
	return out
}

// measuresOf are the measures that flags name. Cups of a size that nobody has said are refused: kitchen cups differ.
func measuresOf(cmd *cobra.Command, u measure.Units, vessel string, cup float64) (measure.Measures, error) {
	m := measure.UsualMeasures(u)
	m.Units = u
	if vessel != "" {
		v, ok := measure.VesselNamed(vessel)
		if !ok {
			return m, fmt.Errorf("--measures %s: there is no such measure; choose one of %s", vessel, strings.Join(vesselIDs(), ", "))
		}
		m.By = v
	}
	if cmd.Flags().Changed("cup") {
		if err := measure.CheckCup(cup); err != nil {
			return m, fmt.Errorf("--cup %v: %w", cup, err)
		}
		m.CupML = cup
	}
	if err := m.Check(); err != nil {
		return m, fmt.Errorf("--measures cups: %w", err)
	}
	return m, nil
}

// makeOf has every coat mixed in some litres of paint.
func makeOf(p *wire.Piece, litres float64) {
	for i := range p.Zones {
		for k := range p.Zones[i].Steps {
			s := &p.Zones[i].Steps[k]
			if s.Do != "coat" {
				continue
			}
			m := wire.Mix{}
			if s.Mix != nil {
				m = *s.Mix
			}
			m.PaintL = litres
			s.Mix = &m
		}
	}
}

func mixText(w io.Writer, c *wire.Cards, name string) error {
	var b strings.Builder
	fmt.Fprintf(&b, "%s\n", name)
	for i := range c.Zones {
		z := &c.Zones[i]
		fmt.Fprintf(&b, "\n%s: %s\n", wire.ZoneTitle(z.Name, z.ID), z.Says)
		for k := range z.Cards {
			cardText(&b, &z.Cards[k])
		}
		if len(z.Order) > 0 {
			b.WriteString("\n  The order\n")
			for _, p := range z.Order {
				apart := ""
				if p.Apart {
					apart = " (lying apart)"
				}
				fmt.Fprintf(&b, "  %3d  %s%s\n", p.N, p.Says, apart)
			}
		}
	}
	b.WriteString("\nAmounts are estimates. The label, the safety data sheet and your own hand decide.\n")
	_, err := io.WriteString(w, b.String())
	return err
}

func cardText(b *strings.Builder, k *wire.Card) {
	fmt.Fprintf(b, "\n  Step %d: %s\n", k.Step, k.Title)
	line := func(head, says string) {
		if says != "" {
			fmt.Fprintf(b, "    %s%s\n", head, says)
		}
	}
	if x := k.Batch; x != nil {
		if x.Refused != "" {
			line("Not mixed: ", x.Refused)
		} else {
			line("Mix: ", k.Brief)
			line("  Takes ", x.Needs)
			line("  ", x.Life)
			for _, n := range x.Notes {
				line("  ", n)
			}
			line("  ", x.Like)
			line("  ", x.Left)
		}
	}
	if m := k.Mix; m != nil && (k.Batch == nil || k.Batch.Refused == "") {
		for n, s := range m.Steps {
			fmt.Fprintf(b, "    %2d. %s%s\n", n+1, s.Says, clockText(s.Clock))
		}
		for _, says := range m.Keeps {
			line("    ", says)
		}
		line("Too thick: ", m.TooThick)
		line("Too thin: ", m.TooThin)
		line("Foam: ", m.Foam)
	}
	if l := k.Lay; l != nil {
		if l.Tool != "" {
			line("Lay it with: ", strings.TrimSpace(l.Tool+". "+l.Why))
		}
		line("Load: ", l.Load)
		for _, s := range append(append([]string{}, l.Protect...), append(l.Setup, l.Before...)...) {
			line("  ", s)
		}
		line("Strokes: ", strings.TrimSpace(l.Stroke+" "+l.Reason))
		line("Section: ", l.Section+clockText(l.Edge))
		for n, s := range l.Steps {
			fmt.Fprintf(b, "    %2d. %s%s\n", n+1, s.Says, clockText(s.Clock))
		}
		for _, s := range l.Order {
			line("Order: ", s)
		}
		line("Wipe: ", l.Wipe)
		line("Cloth: ", l.Cloth)
		line("How little: ", l.Little)
		if l.Runs != "" {
			line("It gathers ", l.Runs)
		}
		for _, f := range l.Faults {
			fmt.Fprintf(b, "    %s. Wet: %s Dry: %s\n", f.Name, f.Wet, f.Dry)
		}
		line("Clean up: ", l.Clean)
		line("Until the next coat: ", l.Keep)
		line("Waste: ", l.Waste)
		for _, c := range l.Clocks {
			line("Clock: ", c.Says)
		}
	}
}

func clockText(c *wire.CardClock) string {
	if c == nil {
		return ""
	}
	return " [" + c.Says + "]"
}
