package main

import (
	"cmp"
	"context"
	"fmt"
	"io"
	"os"
	"strings"
	"text/tabwriter"
	"time"

	"github.com/spf13/cobra"

	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/internal/app"
	"rutile/internal/exchange"
	"rutile/internal/store"
	"rutile/internal/wire"
)

// source is where a command finds cans: the folder of a studio, or a CSV file.
type source struct{ data, csv string }

func (s *source) flags(cmd *cobra.Command) {
	cmd.Flags().StringVar(&s.data, "data", "", "folder of a studio, whose shelf is read")
	cmd.Flags().StringVar(&s.csv, "csv", "", "CSV file with the cans, instead of a studio's shelf")
	cmd.MarkFlagsMutuallyExclusive("data", "csv")
}

// cans are those of the source; nil where none is named.
func (s *source) cans(ctx context.Context) ([]wire.Can, error) {
	switch {
	case s.csv != "":
		data, err := os.ReadFile(s.csv)
		if err != nil {
			return nil, fmt.Errorf("%s: it cannot be opened: %s", s.csv, reason(err))
		}
		read, err := exchange.ReadCans(craft.Default(), data)
		if err != nil {
			return nil, fmt.Errorf("%s: %w", s.csv, err)
		}
		for _, r := range read.Refused {
			fmt.Fprintf(os.Stderr, "%s: line %d: %s\n", s.csv, r.Line, r.Says)
		}
		return read.Cans, nil
	case s.data != "":
		st, err := store.OpenReadOnly(s.data)
		if err != nil {
			return nil, err
		}
		defer st.Close()
		return app.CansOf(ctx, st)
	}
	return nil, nil
}

func today() string { return time.Now().Format(time.DateOnly) }

func shelfCommand() *cobra.Command {
	var from source
	var find, units string
	var text bool
	cmd := &cobra.Command{
		Use:   "shelf",
		Short: "List the cans of a studio, in the order in which they are used",
		Long: "List the cans on the shelf of a studio, or of a CSV file, with what is left, how long they keep and what\n" +
			"their labels say.\nExit code 0: done. 2: an input cannot be used.",
		Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			u, err := unitsOf(units)
			if err != nil {
				return err
			}
			if from == (source{}) {
				from.data = defaultData()
			}
			cans, err := from.cans(cmd.Context())
			if err != nil {
				return err
			}
			e := app.NewEngine(craft.Default())
			list := e.ShelfOf(cans, today()).Listed(e.Craft, find, today(), u)
			if !text {
				return writeJSON(cmd.OutOrStdout(), list)
			}
			return shelfText(cmd.OutOrStdout(), &list)
		},
	}
	from.flags(cmd)
	cmd.Flags().StringVar(&find, "find", "", "only cans in which all of these words are found")
	cmd.Flags().StringVar(&units, "units", measure.Metric.String(), "metric or us")
	cmd.Flags().BoolVar(&text, "text", false, "write readable text instead of JSON")
	return cmd
}

func shelfText(w io.Writer, s *wire.Shelf) error {
	t := tabwriter.NewWriter(w, 0, 0, 2, ' ', 0)
	for i := range s.Cans {
		x := &s.Cans[i]
		var says []string
		for _, n := range x.Warnings {
			says = append(says, n.Says)
		}
		if x.Says != "" {
			says = append(says, "Label: "+x.Says)
		}
		fmt.Fprintf(t, "%s\t%s\t%s\t%s\t%s\n", x.Title, x.KindName, cmp.Or(x.ColourName, "-"), x.Left, strings.Join(says, " "))
	}
	if err := t.Flush(); err != nil {
		return err
	}
	_, err := fmt.Fprintf(w, "\n%s of %d.\n", measure.Count(len(s.Cans), "can", "cans"), s.Total)
	return err
}

func blendCommand() *cobra.Command {
	var from source
	var palette, kind string
	var text bool
	cmd := &cobra.Command{
		Use:   "blend COLOUR",
		Short: "Find the parts of paints that come nearest to a colour",
		Long: "Find the blends of up to three paints and eight parts that come nearest to a colour: a name, #rrggbb or\n" +
			"L*a*b* such as \"lab(62, 12, -8)\". Paints are those of a studio's shelf, of a CSV file, of a GIMP palette, or\n" +
			"else of the palette that comes with Rutile.\nExit code 0: done. 2: an input cannot be used.",
		Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			e := app.NewEngine(craft.Default())
			if kind != "" {
				id, ok := exchange.KindNamed(e.Craft, kind)
				if !ok {
					return fmt.Errorf("--kind %s: there is no such product; rutile vocab lists them", kind)
				}
				kind = id
			}
			pool, err := blendPool(cmd.Context(), e, &from, palette, kind)
			if err != nil {
				return err
			}
			n, err := e.Nearest(args[0], pool, kind)
			if err != nil {
				return err
			}
			if !text {
				return writeJSON(cmd.OutOrStdout(), n)
			}
			return blendText(cmd.OutOrStdout(), &n)
		},
	}
	from.flags(cmd)
	cmd.Flags().StringVar(&palette, "palette", "", "GIMP palette with the colours of the paints")
	cmd.Flags().StringVar(&kind, "kind", "", "kind of paint, as paint_chalk")
	cmd.Flags().BoolVar(&text, "text", false, "write readable text instead of JSON")
	cmd.MarkFlagsMutuallyExclusive("data", "csv", "palette")
	return cmd
}

func blendPool(ctx context.Context, e *app.Engine, from *source, palette, kind string) ([]wire.BlendPart, error) {
	if *from != (source{}) {
		cans, err := from.cans(ctx)
		if err != nil {
			return nil, err
		}
		return e.ShelfOf(cans, today()).Paints(e.Craft), nil
	}
	var swatches []wire.Swatch
	if palette != "" {
		data, err := os.ReadFile(palette)
		if err != nil {
			return nil, fmt.Errorf("%s: it cannot be opened: %s", palette, reason(err))
		}
		p, err := exchange.ReadPalette(data, palette)
		if err != nil {
			return nil, fmt.Errorf("%s: %w", palette, err)
		}
		swatches = p.Swatches
	} else {
		for _, s := range colour.Palette {
			swatches = append(swatches, wire.Swatch{Name: s.Name, Colour: s.Hex})
		}
	}
	return app.PaletteParts(swatches, kind), nil
}

func blendText(w io.Writer, n *wire.Nearest) error {
	fmt.Fprintf(w, "%s (%s, L* %v a* %v b* %v)\n%s\n\n", n.Want.Colour, n.Want.Name, n.Want.L, n.Want.A, n.Want.B, n.Says)
	for _, b := range n.Blends {
		fmt.Fprintf(w, "%s  %s: %s; %s (ΔE %.1f)\n", b.Colour, b.Name, b.Says, b.Against, b.Off)
	}
	_, err := fmt.Fprintf(w, "\nTried %s. %s\n", measure.Count(n.Of, "paint", "paints"), n.Caution)
	return err
}

func needsCommand() *cobra.Command {
	var from source
	var units string
	var text bool
	cmd := &cobra.Command{
		Use:   "needs FILE...",
		Short: "Say how much paint the plans of piece files take; - reads standard input",
		Long: "Work out what every coat takes, whether there is enough of it and what to buy, and what is used up besides.\n" +
			"Cans are those that the file names, and those of a studio's shelf or a CSV file where one is given.\n" +
			"Exit code 0: there is enough of everything, or no shelf to hold it against. 1: something is short.\n" +
			"2: an input cannot be used.",
		Args: cobra.MinimumNArgs(1),
		RunE: func(cmd *cobra.Command, files []string) error {
			u, err := unitsOf(units)
			if err != nil {
				return err
			}
			cans, err := from.cans(cmd.Context())
			if err != nil {
				return err
			}
			e := app.NewEngine(craft.Default())
			shop := app.Workshop{Air: drying.Usual, Units: u, Today: today(), Now: time.Now()}
			if from != (source{}) {
				shop.Shelf = e.ShelfOf(cans, today())
			}
			short := false
			err = eachPiece(cmd, files, func(name string, p *wire.Piece) error {
				n := e.Job(p, shop).Needs()
				for _, x := range n.Items {
					held := shop.Shelf != nil || x.Can != ""
					short = short || held && (x.State == "short" || x.State == "none")
				}
				if !text {
					return writeJSON(cmd.OutOrStdout(), n)
				}
				return needsText(cmd.OutOrStdout(), &n, cmp.Or(p.Name, name))
			})
			if err == nil && short {
				return exit{exitFails}
			}
			return err
		},
	}
	from.flags(cmd)
	cmd.Flags().StringVar(&units, "units", measure.Metric.String(), "metric or us")
	cmd.Flags().BoolVar(&text, "text", false, "write readable text instead of JSON")
	return cmd
}

func needsText(w io.Writer, n *wire.Needs, name string) error {
	var b strings.Builder
	fmt.Fprintf(&b, "%s: %s\n", name, n.Says)
	for _, z := range n.Zones {
		if len(z.Coats) == 0 {
			continue
		}
		fmt.Fprintf(&b, "\n%s, %s\n", wire.ZoneTitle(z.Name, z.ID), z.Area)
		for _, c := range z.Coats {
			label := ""
			if c.FromCan {
				label = ", cover from the label"
			}
			fmt.Fprintf(&b, "  step %d, coat %d: %s, %s%s\n", c.Step, c.Coat, c.Name, c.Says, label)
			if c.Parts != "" {
				fmt.Fprintf(&b, "    %s\n", c.Parts)
			}
		}
	}
	if len(n.Items) > 0 {
		b.WriteString("\nFrom the shelf\n")
	}
	for _, x := range n.Items {
		fmt.Fprintf(&b, "  %s: %s %s\n", x.Name, x.Says, x.BuySays)
	}
	if len(n.Supplies) > 0 {
		b.WriteString("\nUsed up besides\n")
	}
	for _, s := range n.Supplies {
		fmt.Fprintf(&b, "  %s: %s (%s)\n", s.Name, s.Amount, s.Says)
	}
	b.WriteString("\nThese are estimates. The cover on the label and your own hand decide.\n")
	_, err := io.WriteString(w, b.String())
	return err
}
