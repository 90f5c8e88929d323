package main

import (
	"context"
	"errors"
	"fmt"
	"net"
	"os"
	"strings"
	"time"

	"github.com/spf13/cobra"
	"github.com/spf13/pflag"

	"rutile/internal/app"
	"rutile/internal/server"
)

// lanOptions say how the server is open to devices in the workshop's network.
type lanOptions struct {
	on, anew bool
	addr     string

	l         net.Listener
	authority *app.Authority
}

func (o *lanOptions) flags(f *pflag.FlagSet) {
	f.BoolVar(&o.on, "lan", false, "also open Rutile to phones and other devices in the workshop's network, once they are paired")
	f.StringVar(&o.addr, "lan-addr", ":8734", "address for those devices")
	f.BoolVar(&o.anew, "new-authority", false, "with --lan, make another certificate authority: every device must install it, and be paired again")
}

// listen takes the address before anything else is done, so that nothing is when it is taken.
func (o *lanOptions) listen() error {
	if _, _, err := net.SplitHostPort(o.addr); err != nil {
		return fmt.Errorf("--lan-addr %s: an address is written as :8734, or 192.168.1.20:8734", o.addr)
	}
	l, err := net.Listen("tcp", o.addr)
	if err != nil {
		return unreachable(o.addr, "--lan-addr", err)
	}
	o.l = l
	return nil
}

// hostNames are the names of this computer.
func hostNames() []string {
	h, err := os.Hostname()
	h, _, _ = strings.Cut(strings.ToLower(h), ".")
	letters := func(r rune) bool { return r >= 'a' && r <= 'z' || r >= '0' && r <= '9' || r == '-' }
	if err != nil || h == "" || h == "localhost" || strings.ContainsFunc(h, func(r rune) bool { return !letters(r) }) {
		return nil
	}
	return []string{h, h + ".local"}
}

// open makes the studio ready for devices, and says what that means.
func (o *lanOptions) open(cmd *cobra.Command, s *app.Studio, options *server.Options, here string) error {
	names := append(hostNames(), options.Hosts...)
	a, made, err := s.Authority(cmd.Context(), names, o.anew)
	if errors.Is(err, app.ErrAuthority) {
		return fmt.Errorf("%w. Nothing was changed. Start with --new-authority to make another one: every device must then install it and be paired again", err)
	}
	if err != nil {
		return err
	}
	held, err := s.HoldDevices(cmd.Context())
	if err != nil {
		return err
	}
	o.authority = a
	options.Workshop = &server.Workshop{Authority: a, Names: names, Addresses: func() []string { return server.Addresses(o.l, options.Hosts) }}
	out := cmd.OutOrStdout()
	fmt.Fprintln(out)
	at := options.Workshop.Addresses()
	if len(at) > 0 {
		fmt.Fprintf(out, "Rutile is open to the workshop at %s\n", strings.Join(at, " and "))
	} else {
		fmt.Fprintln(out, "Rutile is open to the workshop, but this computer has no address in a network at home now. It is looked for again whenever a device is paired.")
	}
	fmt.Fprintln(out, "That means: whoever is in this network can reach it, and gets nothing but a page that asks for a pairing code.")
	fmt.Fprintln(out, "A paired device can read and change everything, until you take it off.")
	fmt.Fprintf(out, "Pair devices and take them off on this computer: http://%s/devices\n", here)
	if made {
		fmt.Fprintf(out, "A certificate authority was made for this studio: “%s”. Each device installs it once; you are shown how.\n", a.Name())
	}
	if held > 0 {
		fmt.Fprintf(out, "The data was brought back from a copy, or is on another disk. The devices paired with it (%d) are not let in before you let them in again, at the same place.\n", held)
	}
	return nil
}

// serve answers this computer and the workshop until the context ends or one of the two fails.
func (o *lanOptions) serve(ctx context.Context, l net.Listener, options server.Options) error {
	here, workshop := server.Both(options)
	ctx, stop := context.WithCancel(ctx)
	defer stop()
	done := make(chan error, 2)
	names := options.Workshop.Names
	go func() {
		done <- server.ServeTLS(ctx, o.l, workshop, o.authority.TLS(time.Now, func() []string { return names }))
	}()
	go func() { done <- server.Serve(ctx, l, here) }()
	first := <-done
	stop()
	return errors.Join(first, <-done)
}
