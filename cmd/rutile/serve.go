package main

import (
	"fmt"
	"log/slog"
	"net"
	"os"
	"path/filepath"
	"runtime/debug"
	"time"

	"github.com/spf13/cobra"
	"github.com/spf13/pflag"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/internal/app"
	"rutile/internal/demo"
	"rutile/internal/instruments"
	"rutile/internal/server"
	"rutile/internal/store"
	"rutile/web"
)

func serveCommand() *cobra.Command {
	var (
		isDemo bool
		addr   string
		data   string
		hosts  []string
		seed   uint64
	)
	cmd := &cobra.Command{
		Use:   "serve",
		Short: "Start the application",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) (err error) {
			if os.Getenv("GOGC") == "" {
				debug.SetGCPercent(server.GCPercent)
			}
			o := app.StudioOptions{
				Site: drying.Usual, Demo: isDemo, Instruments: instruments.Simulated(seed),
				Log: slog.New(slog.NewTextHandler(cmd.ErrOrStderr(), nil)),
			}
			if isDemo {
				if data, err = os.MkdirTemp("", "rutile-demo-"); err != nil {
					return fmt.Errorf("make a folder for the demo: %w", err)
				}
				defer os.RemoveAll(data)
				o.Site = demo.Site
			}
			// The address first: a second server must not touch the data.
			l, err := net.Listen("tcp", addr)
			if err != nil {
				return fmt.Errorf("listen on %s: %w; another address is given with --addr", addr, err)
			}
			defer l.Close()
			if o.Store, err = store.Open(data); err != nil {
				return err
			}
			defer func() {
				if cerr := o.Store.Close(); err == nil {
					err = cerr
				}
			}()
			if _, err := o.Store.SweepPhotos(cmd.Context(), unshown); err != nil {
				o.Log.Warn("unused pictures are not removed", "err", err)
			}
			if isDemo {
				if err := demo.Fill(cmd.Context(), o.Store); err != nil {
					return err
				}
			}
			debug.FreeOSMemory() // starting takes more than serving
			fmt.Fprintf(cmd.OutOrStdout(), "Rutile is at http://%s\n", l.Addr())
			studio := app.NewStudio(app.NewEngine(craft.Default()), o)
			return server.Serve(cmd.Context(), l, server.New(server.Options{Studio: studio, Page: web.Dist(), Hosts: hosts}))
		},
	}
	cmd.Flags().BoolVar(&isDemo, "demo", false, "start with a fresh copy of the demo data and touch nothing else")
	cmd.Flags().StringVar(&addr, "addr", "127.0.0.1:8733", "address to listen on")
	cmd.Flags().StringVar(&data, "data", defaultData(), "folder of the database")
	cmd.Flags().StringSliceVar(&hosts, "host", nil, "another host name to accept")
	cmd.Flags().Uint64Var(&seed, "instrument-seed", demo.InstrumentSeed, "seed of the simulated instruments: the same seed repeats the same readings")
	cmd.Flags().SetNormalizeFunc(func(_ *pflag.FlagSet, name string) pflag.NormalizedName {
		if name == "bench-seed" { // its name before
			name = "instrument-seed"
		}
		return pflag.NormalizedName(name)
	})
	cmd.MarkFlagsMutuallyExclusive("demo", "data")
	return cmd
}

// unshown is how long a picture that no piece shows is kept: undo in a browser
// may still bring it back.
const unshown = 30 * 24 * time.Hour

func defaultData() string {
	if dir, err := os.UserConfigDir(); err == nil {
		return filepath.Join(dir, "rutile")
	}
	return "rutile-data"
}

func openapiCommand() *cobra.Command {
	return &cobra.Command{
		Use:    "openapi",
		Short:  "Print the description of the API",
		Hidden: true,
		Args:   cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			spec, err := server.Spec()
			if err != nil {
				return err
			}
			_, err = fmt.Fprintln(cmd.OutOrStdout(), string(spec))
			return err
		},
	}
}
