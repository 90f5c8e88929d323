package main

import (
	"fmt"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/internal/app"
	"rutile/internal/exchange"
	"rutile/internal/wire"
)

// logged is the log of a piece as the command prints it.
type logged struct {
	Name string        `json:"name,omitempty"`
	Log  wire.PieceLog `json:"log"`
	Back wire.LookBack `json:"back"`
}

func logCommand() *cobra.Command {
	var units string
	var csv, text bool
	cmd := &cobra.Command{
		Use:   "log FILE...",
		Short: "Print the logs of piece files, and the work against the plan; - reads standard input",
		Long:  "What holds of the log of a piece once corrections are taken into account, the newest first, with what went back and how the work\nturned out against the plan; as JSON, as CSV the oldest first, or as text.",
		Args:  cobra.MinimumNArgs(1),
		RunE: func(cmd *cobra.Command, files []string) error {
			u, err := unitsOf(units)
			if err != nil {
				return err
			}
			e := app.NewEngine(craft.Default())
			shop := app.Workshop{Air: drying.Usual, Units: u, Today: today(), Now: time.Now()}
			return eachPiece(cmd, files, func(_ string, p *wire.Piece) error {
				j := e.Job(p, shop)
				out := logged{p.Name, j.PieceLog(), j.LookBack()}
				w := cmd.OutOrStdout()
				switch {
				case csv:
					_, err := w.Write(exchange.WriteLog(out.Log.Lines))
					return err
				case !text:
					return writeJSON(w, out)
				}
				var b strings.Builder
				fmt.Fprintf(&b, "%s\n%s\n", out.Name, out.Back.Says)
				for i := len(out.Log.Lines) - 1; i >= 0; i-- {
					l := &out.Log.Lines[i]
					fmt.Fprintf(&b, "  %s  %s", l.Entry.At, l.Says)
					if l.ZoneName != "" {
						fmt.Fprintf(&b, " (%s)", l.ZoneName)
					}
					if len(l.How) > 0 {
						fmt.Fprintf(&b, ": %s", strings.Join(l.How, "; "))
					}
					if l.Entry.Note != "" {
						fmt.Fprintf(&b, ". %s", l.Entry.Note)
					}
					b.WriteByte('\n')
				}
				_, err := fmt.Fprint(w, b.String())
				return err
			})
		},
	}
	cmd.Flags().StringVar(&units, "units", measure.Metric.String(), "metric or us")
	cmd.Flags().BoolVar(&csv, "csv", false, "as CSV")
	cmd.Flags().BoolVar(&text, "text", false, "for reading")
	cmd.MarkFlagsMutuallyExclusive("csv", "text")
	return cmd
}
