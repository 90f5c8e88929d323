package app

import (
	"cmp"
	"context"
	"crypto/rand"
	"crypto/sha256"
	"crypto/subtle"
	"encoding/base64"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"
	"sync"
	"time"

	"rutile/internal/authority"
	"rutile/internal/store"
	"rutile/internal/wire"
)

// Limits of pairing. Working defaults.
const (
	CodeLife   = 10 * time.Minute
	CodeTries  = 5  // wrong codes that a code outlives
	MaxDevices = 50 // paired at once
	keptOff    = 50 // devices that were taken off are remembered
)

// codeLetters are those of a pairing code: without those that are mistaken for others.
const codeLetters = "23456789ABCDEFGHJKMNPQRSTUVWXYZ"

const codeLength = 8 // 31^8, some 8.5e11 codes

// devices are the devices that are paired with the studio, read once, and the one pairing code that is good now.
type devices struct {
	mu   sync.Mutex
	read bool
	all  map[string]*wire.KeptDevice

	code    string
	device  string // that is paired again with it
	until   time.Time
	tries   int
	started func() time.Time // the clock of codes; nil for the machine's
}

// wall is the clock by which codes run out: real time, whatever pace the studio's clock has.
func (d *devices) wall() time.Time {
	if d.started != nil {
		return d.started()
	}
	return time.Now()
}

// What a token turns out to be, where it lets nobody in.
var (
	ErrUnpaired = errors.New("this device is not paired")
	ErrRevoked  = errors.New("this device was taken off the list")
	ErrHeld     = errors.New("the data was brought back from a copy, and this device was not let in again")
)

// withDevices does something with the devices.
func (s *Studio) withDevices(ctx context.Context, do func(d *devices) error) error {
	d := &s.devices
	d.mu.Lock()
	defer d.mu.Unlock()
	if !d.read {
		kept, err := s.Store.Documents(ctx, store.Devices)
		if err != nil {
			return err
		}
		d.all = map[string]*wire.KeptDevice{}
		for _, k := range kept {
			var x wire.KeptDevice
			if err := json.Unmarshal(k.Body, &x); err != nil || x.ID != k.ID {
				s.Log.Warn("a device cannot be read and is left out: it has to be paired again", "id", k.ID)
				continue
			}
			d.all[x.ID] = &x
		}
		d.read = true
	}
	return do(d)
}

// keep writes a device; what is known of it changes only where that has succeeded.
func (d *devices) keep(ctx context.Context, s *Studio, x wire.KeptDevice) error {
	body, err := json.Marshal(x)
	if err != nil {
		return fmt.Errorf("write a device: %w", err)
	}
	if err := s.Store.SetDocument(ctx, store.Devices, x.ID, body); err != nil {
		return err
	}
	d.all[x.ID] = &x
	return nil
}

// NewCode makes a code with which one device can be paired within [CodeLife]; the code before it is no good any more.
// device is the id of one that is to be paired again, empty for a new one. The error is a *NotFound or an *Unfit.
func (s *Studio) NewCode(ctx context.Context, device string) error {
	return s.withDevices(ctx, func(d *devices) error {
		if device != "" && d.all[device] == nil {
			return &NotFound{"There is no such device."}
		}
		if device == "" && d.paired() >= MaxDevices {
			return &Unfit{fmt.Sprintf("%d devices are paired, as many as can be. Take one off that is no longer used.", MaxDevices)}
		}
		b := make([]byte, 0, codeLength)
		for len(b) < codeLength {
			var r [1]byte
			_, _ = rand.Read(r[:])                                         // never fails, or ends the program
			if n := int(r[0]); n < 256/len(codeLetters)*len(codeLetters) { // each letter is as likely as the others
				b = append(b, codeLetters[n%len(codeLetters)])
			}
		}
		d.code, d.device, d.until, d.tries = string(b), device, d.wall().Add(CodeLife), CodeTries
		return nil
	})
}

func (d *devices) paired() (n int) {
	for _, x := range d.all {
		if x.Revoked.IsZero() {
			n++
		}
	}
	return n
}

// good tells whether there is a code, and forgets one that has run out.
func (d *devices) good() bool {
	if d.code != "" && (d.tries <= 0 || !d.wall().Before(d.until)) {
		d.code, d.device = "", ""
	}
	return d.code != ""
}

// Code is the code that is good now; false where there is none.
func (s *Studio) Code(ctx context.Context) (out wire.PairingCode, ok bool) {
	_ = s.withDevices(ctx, func(d *devices) error {
		if ok = d.good(); ok {
			half := codeLength / 2
			out = wire.PairingCode{Code: d.code[:half] + "-" + d.code[half:], LeftS: int(d.until.Sub(d.wall()).Seconds()), Tries: d.tries, Device: d.device}
		}
		return nil
	})
	return out, ok
}

// EndCode makes the code no good any more.
func (s *Studio) EndCode(ctx context.Context) error {
	return s.withDevices(ctx, func(d *devices) error {
		d.code = ""
		return nil
	})
}

// plainCode is a code as it is compared: as typed by somebody in a hurry.
func plainCode(typed string) string {
	return strings.Map(func(r rune) rune {
		switch {
		case r >= 'a' && r <= 'z':
			return r - 'a' + 'A'
		case r == '-' || r == ' ' || r == '\u2013' || r == '\u00a0':
			return -1
		}
		return r
	}, typed)
}

// Pair pairs a device by a code, and returns the token that lets it in from now on. origin is the address at which it
// reached this computer. The error is an *Unfit that does not tell whether there is a code at all.
func (s *Studio) Pair(ctx context.Context, code, name, origin string) (token string, dev wire.KeptDevice, err error) {
	no := &Unfit{"That code is not right, or it has run out. Make a new one on the computer and try again."}
	err = s.withDevices(ctx, func(d *devices) error {
		if !d.good() {
			return no
		}
		is, was := sha256.Sum256([]byte(plainCode(code))), sha256.Sum256([]byte(d.code))
		if subtle.ConstantTimeCompare(is[:], was[:]) != 1 {
			d.tries--
			if d.tries == 0 {
				s.Log.Warn("pairing: too many wrong codes; the code is no good any more")
			}
			return no
		}
		now := s.Now().UTC()
		x := wire.KeptDevice{ID: randomID(), Name: d.free(name), Paired: now}
		if again := d.all[d.device]; d.device != "" && again != nil {
			x = *again
			x.Revoked, x.Held = time.Time{}, false
		}
		token = randomText()
		x.Token, x.Seen, x.Origin = digest(token), now, origin
		if err := d.keep(ctx, s, x); err != nil {
			return err
		}
		d.code, d.device = "", ""
		dev = x
		return nil
	})
	return token, dev, err
}

// free is a name that no paired device has.
func (d *devices) free(name string) string {
	const most = 60
	name = strings.Join(strings.Fields(name), " ")
	if r := []rune(name); len(r) > most {
		name = strings.TrimSpace(string(r[:most]))
	}
	name = cmp.Or(name, "Phone")
	taken := func(n string) bool {
		for _, x := range d.all {
			if x.Revoked.IsZero() && strings.EqualFold(x.Name, n) {
				return true
			}
		}
		return false
	}
	out := name
	for k := 2; taken(out); k++ {
		out = fmt.Sprintf("%s %d", name, k)
	}
	return out
}

func randomText() string {
	b := make([]byte, 24)
	_, _ = rand.Read(b) // never fails, or ends the program
	return base64.RawURLEncoding.EncodeToString(b)
}

// randomID is an id in the form that ids have.
func randomID() string {
	b := make([]byte, 10)
	_, _ = rand.Read(b)
	return hex.EncodeToString(b)
}

func digest(token string) string {
	d := sha256.Sum256([]byte(token))
	return hex.EncodeToString(d[:])
}

// seenEvery is how often it is written down that a device was seen.
const seenEvery = 15 * time.Minute

// DeviceOf is the device of a token, which is asking at an address now. The error is ErrUnpaired, ErrRevoked, ErrHeld,
// or the store's.
func (s *Studio) DeviceOf(ctx context.Context, token, origin string) (dev wire.KeptDevice, err error) {
	is := digest(token)
	err = s.withDevices(ctx, func(d *devices) error {
		for _, x := range d.all {
			if x.Token != is || token == "" {
				continue
			}
			dev = *x
			switch {
			case !x.Revoked.IsZero():
				return ErrRevoked
			case x.Held:
				return ErrHeld
			}
			if now := s.Now().UTC(); now.Sub(x.Seen).Abs() > seenEvery || x.Origin != origin {
				dev.Seen, dev.Origin = now, origin
				if err := d.keep(ctx, s, dev); err != nil {
					s.Log.Warn("it cannot be written down that a device was seen", "err", err)
				}
			}
			return nil
		}
		return ErrUnpaired
	})
	return dev, err
}

// Devices are the devices that are paired, and after them those that were taken off. reached tells whether an address
// is one of this computer.
func (s *Studio) Devices(ctx context.Context, reached func(origin string) bool) ([]wire.Device, error) {
	written, err := s.Store.EntriesBy(ctx)
	if err != nil {
		return nil, err
	}
	out := []wire.Device{}
	err = s.withDevices(ctx, func(d *devices) error {
		for _, x := range d.all {
			out = append(out, wire.Device{
				ID: x.ID, Name: x.Name, Paired: x.Paired.Format(time.RFC3339), Seen: x.Seen.Format(time.RFC3339), Revoked: stampOf(x.Revoked),
				Held: x.Held, Moved: x.Revoked.IsZero() && x.Origin != "" && !reached(x.Origin), Entries: written[x.ID],
			})
		}
		return nil
	})
	slices.SortFunc(out, func(a, b wire.Device) int {
		return cmp.Or(cmp.Compare(a.Revoked, b.Revoked), cmp.Compare(strings.ToLower(a.Name), strings.ToLower(b.Name)), cmp.Compare(a.ID, b.ID))
	})
	return out, err
}

func stampOf(t time.Time) string {
	if t.IsZero() {
		return ""
	}
	return t.Format(time.RFC3339)
}

// changeDevice changes a device.
func (s *Studio) changeDevice(ctx context.Context, id string, do func(d *devices, x *wire.KeptDevice) error) error {
	return s.withDevices(ctx, func(d *devices) error {
		was := d.all[id]
		if was == nil {
			return &NotFound{"There is no such device."}
		}
		x := *was
		if err := do(d, &x); err != nil {
			return err
		}
		return d.keep(ctx, s, x)
	})
}

// RenameDevice gives a device another name. The error is a *NotFound.
func (s *Studio) RenameDevice(ctx context.Context, id, name string) error {
	return s.changeDevice(ctx, id, func(d *devices, x *wire.KeptDevice) error {
		if !strings.EqualFold(x.Name, name) {
			name = d.free(name)
		}
		x.Name = name
		return nil
	})
}

// RevokeDevice takes a device off: nothing answers it from now on. What it has sent stays. The error is a *NotFound.
func (s *Studio) RevokeDevice(ctx context.Context, id string) error {
	return s.changeDevice(ctx, id, func(d *devices, x *wire.KeptDevice) error {
		if d.device == id {
			d.code, d.device = "", ""
		}
		if x.Revoked.IsZero() {
			x.Revoked = s.Now().UTC()
		}
		return d.forgetOldest(ctx, s, id)
	})
}

// forgetOldest forgets devices that were taken off long ago, so that there are never too many.
func (d *devices) forgetOldest(ctx context.Context, s *Studio, but string) error {
	var off []*wire.KeptDevice
	for _, x := range d.all {
		if !x.Revoked.IsZero() && x.ID != but {
			off = append(off, x)
		}
	}
	slices.SortFunc(off, func(a, b *wire.KeptDevice) int { return b.Revoked.Compare(a.Revoked) })
	for _, x := range off[min(len(off), keptOff):] {
		if err := s.Store.RemoveDocument(ctx, store.Devices, x.ID); err != nil && !errors.Is(err, store.ErrNoDocument) {
			return err
		}
		delete(d.all, x.ID)
	}
	return nil
}

// LetIn lets a device in again after the data was brought back from a copy. The error is a *NotFound.
func (s *Studio) LetIn(ctx context.Context, id string) error {
	return s.changeDevice(ctx, id, func(_ *devices, x *wire.KeptDevice) error {
		x.Held = false
		return nil
	})
}

// folderID is the one document that tells which folder the data was in.
const folderID = "folder"

// HoldDevices holds all devices where the data is not in the folder that it was in: it was brought back from a copy,
// in which a device may still be paired that was taken off since. It returns how many it holds.
func (s *Studio) HoldDevices(ctx context.Context) (held int, err error) {
	is := s.Store.Identity()
	kept, err := s.Store.Documents(ctx, store.Folder)
	if err != nil {
		return 0, err
	}
	var was wire.KeptFolder
	for _, k := range kept {
		if k.ID == folderID {
			_ = json.Unmarshal(k.Body, &was) // what cannot be read is another folder
		}
	}
	if is == was.Is && is != "" {
		return 0, nil
	}
	err = s.withDevices(ctx, func(d *devices) error {
		for _, x := range d.all {
			if !x.Revoked.IsZero() || x.Held {
				continue
			}
			y := *x
			y.Held = true
			if err := d.keep(ctx, s, y); err != nil {
				return err
			}
			held++
		}
		return nil
	})
	if err != nil {
		return held, err
	}
	body, err := json.Marshal(wire.KeptFolder{Is: is})
	if err != nil {
		return held, fmt.Errorf("write which folder this is: %w", err)
	}
	return held, s.Store.SetDocument(ctx, store.Folder, folderID, body)
}

// authorityID is the one document of the certificate authority.
const authorityID = "authority"

// ErrAuthority tells that the studio's certificate authority cannot be read.
var ErrAuthority = authority.ErrUnreadable

// Authority is a studio's certificate authority.
type Authority = authority.Authority

// Authority is the studio's certificate authority, made at the first time for a computer of some names. anew makes
// another one, as does one that runs out; made tells that devices have to install it. The error is ErrAuthority or the
// store's.
func (s *Studio) Authority(ctx context.Context, names []string, anew bool) (a *Authority, made bool, err error) {
	kept, err := s.Store.Documents(ctx, store.Authority)
	if err != nil {
		return nil, false, err
	}
	now := s.Now()
	for _, k := range kept {
		if anew || k.ID != authorityID {
			continue
		}
		var x wire.KeptAuthority
		if err := json.Unmarshal(k.Body, &x); err != nil {
			return nil, false, fmt.Errorf("%w: %w", ErrAuthority, err)
		}
		if a, err = authority.Parse([]byte(x.PEM)); err != nil {
			return nil, false, err
		}
		if !a.RunsOut(now) {
			return a, false, nil
		}
	}
	of := s.Settings(ctx).Name
	if len(names) > 0 {
		of = names[0]
	}
	if a, err = authority.New(cmp.Or(of, "this computer"), names, now); err != nil {
		return nil, false, err
	}
	text, err := a.PEM()
	if err != nil {
		return nil, false, err
	}
	body, err := json.Marshal(wire.KeptAuthority{PEM: string(text)})
	if err != nil {
		return nil, false, fmt.Errorf("write the certificate authority: %w", err)
	}
	return a, true, s.Store.SetDocument(ctx, store.Authority, authorityID, body)
}

type deviceKey struct{}

// OnDevice tells which device of the workshop's network something is done on.
func OnDevice(ctx context.Context, d wire.KeptDevice) context.Context {
	return context.WithValue(ctx, deviceKey{}, d)
}

// DeviceIn is the device that something is done on; false for this computer itself.
func DeviceIn(ctx context.Context) (wire.KeptDevice, bool) {
	d, ok := ctx.Value(deviceKey{}).(wire.KeptDevice)
	return d, ok
}

// Device is a device by its id; false where there is none.
func (s *Studio) Device(ctx context.Context, id string) (dev wire.KeptDevice, ok bool) {
	_ = s.withDevices(ctx, func(d *devices) error {
		if x := d.all[id]; x != nil {
			dev, ok = *x, true
		}
		return nil
	})
	return dev, ok
}
