package server

import (
	"context"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/boombuler/barcode/qr"
	"github.com/danielgtaylor/huma/v2"

	"rutile/internal/app"
	"rutile/internal/wire"
)

func (h *handlers) registerDevices(a huma.API) {
	const get, post, put, del = http.MethodGet, http.MethodPost, http.MethodPut, http.MethodDelete

	huma.Register(a, route("devices", get, "/api/devices", "The devices that are paired, and how others reach this computer; on this computer only", 403), onComputer(h.devices))
	huma.Register(a, typed(route("newCode", post, "/api/devices/code", "Make a code with which one device can be paired", 403, 404, 422)), onComputer(h.newCode))
	huma.Register(a, route("endCode", del, "/api/devices/code", "Make the code no good any more", 403), onComputer(h.endCode))
	huma.Register(a, typed(route("renameDevice", put, "/api/devices/{id}", "Give a device another name", 403, 404, 422, 507)), onComputer(h.renameDevice))
	huma.Register(a, route("revokeDevice", del, "/api/devices/{id}", "Take a device off: nothing answers it from then on", 403, 404, 507), onComputer(h.revokeDevice))
	huma.Register(a, route("letIn", post, "/api/devices/{id}/let-in", "Let a device in again after the data was brought back from a copy", 403, 404, 507), onComputer(h.letIn))
	huma.Register(a, route("thisDevice", get, "/api/this-device", "The device in the workshop's network that asks", 404), h.thisDevice)
}

// devicesNow are the devices, and how others reach this computer, for an address of it.
func (h *handlers) devicesNow(ctx context.Context, address string, err error) (*answer[wire.Devices], error) {
	if err != nil {
		return nil, h.problemOf(err)
	}
	out := wire.Devices{Addresses: []string{}}
	if w := h.workshop; w != nil {
		out.Open, out.Addresses = true, w.Addresses()
		out.Authority, out.Print, out.Until = w.Authority.Name(), w.Authority.Fingerprint(), w.Authority.Until().Format(time.DateOnly)
		if c, ok := h.Code(ctx); ok && len(out.Addresses) > 0 {
			if !slices.Contains(out.Addresses, address) {
				address = out.Addresses[0]
			}
			c.URL = address + "/pair#" + c.Code
			if c.Device != "" {
				c.URL += "&" + h.knew(ctx, c.Device)
			}
			if c.QR, c.Size, err = qrPath(c.URL); err != nil {
				return nil, h.problemOf(err)
			}
			out.Code = &c
		}
	}
	out.Devices, err = h.Devices(ctx, func(origin string) bool { return !out.Open || h.workshop.reached(origin) })
	return of(h, out, err)
}

// knew is the address at which a device knew this computer.
func (h *handlers) knew(ctx context.Context, device string) string {
	if device == "" {
		return ""
	}
	d, _ := h.Device(ctx, device)
	return d.Origin
}

// qrPath is a text as a QR code (ISO/IEC 18004): the path of its dark squares, of one unit each, and how many squares it
// is wide.
func qrPath(text string) (path string, size int, err error) {
	code, err := qr.Encode(text, qr.M, qr.Auto)
	if err != nil {
		return "", 0, fmt.Errorf("draw a QR code: %w", err)
	}
	var b strings.Builder
	size = code.Bounds().Dx()
	for y := range size {
		for x := range size {
			if r, _, _, _ := code.At(x, y).RGBA(); r == 0 {
				fmt.Fprintf(&b, "M%d %dh1v1h-1z", x, y)
			}
		}
	}
	return b.String(), size, nil
}

// onComputer is a handler of what is done on the computer itself only.
func onComputer[In, Out any](do func(context.Context, *In) (*Out, error)) func(context.Context, *In) (*Out, error) {
	return func(ctx context.Context, in *In) (*Out, error) {
		if onDevice(ctx) {
			return nil, huma.Error403Forbidden("Devices are paired and taken off on the computer that Rutile runs on.")
		}
		return do(ctx, in)
	}
}

func (h *handlers) devices(ctx context.Context, in *struct {
	Address string `query:"address" maxLength:"300" doc:"Which of the addresses the QR code is for"`
}) (*answer[wire.Devices], error) {
	return h.devicesNow(ctx, in.Address, nil)
}

func (h *handlers) newCode(ctx context.Context, in *struct{ Body wire.NewPairing }) (*answer[wire.Devices], error) {
	if h.workshop == nil {
		return nil, huma.Error422UnprocessableEntity("No other device reaches this computer. Start Rutile with --lan first.")
	}
	return h.devicesNow(ctx, in.Body.Address, h.NewCode(ctx, in.Body.Device))
}

func (h *handlers) endCode(ctx context.Context, _ *nothing) (*answer[wire.Devices], error) {
	return h.devicesNow(ctx, "", h.EndCode(ctx))
}

// OfDevice names a device.
type OfDevice struct {
	ID string `path:"id" maxLength:"40"`
}

func (h *handlers) renameDevice(ctx context.Context, in *struct {
	OfDevice
	Body wire.DeviceName
}) (*answer[wire.Devices], error) {
	return h.devicesNow(ctx, "", h.RenameDevice(ctx, in.ID, in.Body.Name))
}

func (h *handlers) revokeDevice(ctx context.Context, in *OfDevice) (*answer[wire.Devices], error) {
	return h.devicesNow(ctx, "", h.RevokeDevice(ctx, in.ID))
}

func (h *handlers) letIn(ctx context.Context, in *OfDevice) (*answer[wire.Devices], error) {
	return h.devicesNow(ctx, "", h.LetIn(ctx, in.ID))
}

func (h *handlers) thisDevice(ctx context.Context, _ *nothing) (*answer[wire.ThisDevice], error) {
	d, ok := app.DeviceIn(ctx)
	if !ok || h.workshop == nil {
		return nil, huma.Error404NotFound("This is the computer that Rutile runs on.")
	}
	return of(h, wire.ThisDevice{ID: d.ID, Name: d.Name, Authority: h.workshop.Authority.Name(), Print: h.workshop.Authority.Fingerprint()}, nil)
}
