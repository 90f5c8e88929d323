package wire

import "time"

// KeptDevice is a paired device as it is kept. Its token is kept as a digest only.
type KeptDevice struct {
	ID     string    `json:"id"`
	Name   string    `json:"name"`
	Token  string    `json:"token_sha256"`
	Paired time.Time `json:"paired"`
	Seen   time.Time `json:"seen"`
	// Origin is the address at which it was last seen.
	Origin  string    `json:"origin,omitempty"`
	Revoked time.Time `json:"revoked,omitzero"`
	// Held tells that the data was brought back from a copy since, and nobody has let it in again.
	Held bool `json:"held,omitempty"`
}

// KeptAuthority is the studio's certificate authority with its key, as it is kept.
type KeptAuthority struct {
	PEM string `json:"pem"`
}

// KeptFolder is which folder the data was last in.
type KeptFolder struct {
	Is string `json:"is"`
}

// Device is a device that was paired.
type Device struct {
	ID      string `json:"id"`
	Name    string `json:"name"`
	Paired  string `json:"paired"`
	Seen    string `json:"seen" doc:"When it last asked for something"`
	Revoked string `json:"revoked,omitempty" doc:"When it was taken off"`
	Held    bool   `json:"held,omitempty" doc:"The data was brought back from a copy, and it was not let in again since"`
	Moved   bool   `json:"moved,omitempty" doc:"It knows this computer by an address that it no longer has"`
	Entries int    `json:"entries" doc:"How many entries of the logs were written on it"`
}

// Devices are the devices of a studio, and how others reach this computer.
type Devices struct {
	Open      bool         `json:"open" doc:"Devices in the workshop's network can reach this computer"`
	Addresses []string     `json:"addresses" doc:"Where they reach it, the likeliest first"`
	Authority string       `json:"authority,omitempty" doc:"Name of the certificate authority"`
	Print     string       `json:"fingerprint,omitempty" doc:"SHA-256 fingerprint of the certificate authority"`
	Until     string       `json:"until,omitempty" doc:"When it runs out"`
	Devices   []Device     `json:"devices" doc:"The ones that may, and then those that were taken off"`
	Code      *PairingCode `json:"code,omitempty" doc:"The code with which a device can be paired now"`
}

// PairingCode is a code with which one device can be paired.
type PairingCode struct {
	Code   string `json:"code"`
	LeftS  int    `json:"left_s" doc:"For how many seconds it is good"`
	Tries  int    `json:"tries" doc:"How many wrong ones it stands yet"`
	Device string `json:"device,omitempty" doc:"Id of the device that is paired again with it"`
	URL    string `json:"url" doc:"What to open on the device"`
	QR     string `json:"qr" doc:"That as a QR code: the path of its dark squares, one unit each"`
	Size   int    `json:"size" doc:"How many squares it is wide"`
}

// NewPairing asks for a pairing code.
type NewPairing struct {
	Device  string `json:"device,omitempty" maxLength:"40" doc:"Id of a device that is to be paired again; none for a new one"`
	Address string `json:"address,omitempty" maxLength:"300" doc:"Which of the addresses the QR code is for; none for the likeliest"`
}

// DeviceName is the name of a device.
type DeviceName struct {
	Name string `json:"name" minLength:"1" maxLength:"60"`
}

// ThisDevice is the device that asks, where it is one in the workshop's network.
type ThisDevice struct {
	ID        string `json:"id"`
	Name      string `json:"name"`
	Authority string `json:"authority" doc:"Name of the certificate authority to install on it"`
	Print     string `json:"fingerprint"`
	Before    string `json:"before,omitempty" doc:"The address at which it knew this computer before"`
}
