// Package authority is a studio's own certificate authority: it vouches for the studio's computer in the workshop's
// network, for devices that have it installed, and for nothing else in the world.
package authority

import (
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/sha256"
	"crypto/tls"
	"crypto/x509"
	"crypto/x509/pkix"
	"encoding/hex"
	"encoding/pem"
	"errors"
	"fmt"
	"maps"
	"math/big"
	"net"
	"net/netip"
	"slices"
	"strings"
	"sync"
	"time"
)

// How long certificates hold. A device whose clock is a year off must still believe them, so they begin long ago and
// end long after; browsers refuse a computer's certificate that holds for more than 825 days. Working defaults.
const (
	authorityLife = 10 * 365 * 24 * time.Hour
	skew          = 400 * 24 * time.Hour
	leafLeft      = 370 * 24 * time.Hour // less than that left, and it is made anew
)

// Authority is a certificate authority with the certificate that it gave this computer.
type Authority struct {
	cert *x509.Certificate
	key  *ecdsa.PrivateKey

	mu    sync.Mutex
	leaf  *tls.Certificate
	names map[string]bool // that the leaf is for
	until time.Time       // when it is made anew
}

// private are the addresses that it may vouch for: those of networks at home, by RFC 1918, 3927, 4193 and 4291.
var private = []string{"127.0.0.0/8", "10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "::1/128", "fc00::/7", "fe80::/10"}

// local are the names that it may vouch for, besides those that it was made for: names at home, by RFC 6761, 6762 and 8375.
var local = []string{"localhost", "local", "home.arpa", "lan", "internal"}

// New makes an authority, named after a studio and a computer, that may vouch for addresses and names at home and for
// some other names.
func New(of string, names []string, now time.Time) (*Authority, error) {
	key, serial, err := keyAndSerial()
	if err != nil {
		return nil, err
	}
	// Two computers may have one name: the number tells their authorities apart.
	t := &x509.Certificate{
		SerialNumber: serial, Subject: pkix.Name{Organization: []string{"Rutile"}, CommonName: fmt.Sprintf("Rutile on %s (%x)", clip(of), serial.Bytes()[:4])},
		NotBefore: now.Add(-skew), NotAfter: now.Add(authorityLife),
		IsCA: true, BasicConstraintsValid: true, MaxPathLenZero: true, KeyUsage: x509.KeyUsageCertSign,
		// Whoever steals its key cannot pass for a bank.
		PermittedDNSDomainsCritical: true, PermittedDNSDomains: append(slices.Clone(local), names...), PermittedIPRanges: networks(),
		ExtKeyUsage: []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth},
	}
	der, err := x509.CreateCertificate(rand.Reader, t, t, &key.PublicKey, key)
	if err != nil {
		return nil, fmt.Errorf("make a certificate authority: %w", err)
	}
	cert, err := x509.ParseCertificate(der)
	if err != nil {
		return nil, fmt.Errorf("read the new certificate authority: %w", err)
	}
	return &Authority{cert: cert, key: key}, nil
}

func networks() (out []*net.IPNet) {
	for _, s := range private {
		if _, n, err := net.ParseCIDR(s); err == nil {
			out = append(out, n)
		}
	}
	return out
}

// keyAndSerial are a new key, and a number that no other certificate has.
func keyAndSerial() (*ecdsa.PrivateKey, *big.Int, error) {
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return nil, nil, fmt.Errorf("make a key: %w", err)
	}
	b := make([]byte, 16)
	_, _ = rand.Read(b) // never fails, or ends the program
	b[0] = b[0]&0x7f | 0x40
	return key, new(big.Int).SetBytes(b), nil
}

func clip(s string) string {
	const most = 40
	if r := []rune(s); len(r) > most {
		return string(r[:most])
	}
	return s
}

// ErrUnreadable tells that a kept authority cannot be read.
var ErrUnreadable = errors.New("the certificate authority cannot be read")

// Parse reads an authority as [Authority.PEM] wrote it. The error is ErrUnreadable.
func Parse(text []byte) (*Authority, error) {
	var a Authority
	for {
		var b *pem.Block
		if b, text = pem.Decode(text); b == nil {
			break
		}
		var err error
		switch b.Type {
		case "CERTIFICATE":
			a.cert, err = x509.ParseCertificate(b.Bytes)
		case "EC PRIVATE KEY":
			a.key, err = x509.ParseECPrivateKey(b.Bytes)
		}
		if err != nil {
			return nil, fmt.Errorf("%w: %w", ErrUnreadable, err)
		}
	}
	if a.cert == nil || a.key == nil || !a.key.PublicKey.Equal(a.cert.PublicKey) {
		return nil, ErrUnreadable
	}
	return &a, nil
}

// PEM writes the authority with its key, to be kept.
func (a *Authority) PEM() ([]byte, error) {
	key, err := x509.MarshalECPrivateKey(a.key)
	if err != nil {
		return nil, fmt.Errorf("write a key: %w", err)
	}
	out := pem.EncodeToMemory(&pem.Block{Type: "CERTIFICATE", Bytes: a.cert.Raw})
	return append(out, pem.EncodeToMemory(&pem.Block{Type: "EC PRIVATE KEY", Bytes: key})...), nil
}

// Certificate is what devices install, in DER. It holds no secret.
func (a *Authority) Certificate() []byte { return a.cert.Raw }

// Name is what devices call it.
func (a *Authority) Name() string { return a.cert.Subject.CommonName }

// Fingerprint is the SHA-256 digest of its certificate, in pairs, as devices show it.
func (a *Authority) Fingerprint() string {
	d := sha256.Sum256(a.cert.Raw)
	pairs := make([]string, len(d))
	for i, b := range d {
		pairs[i] = strings.ToUpper(hex.EncodeToString([]byte{b}))
	}
	return strings.Join(pairs, ":")
}

// Until is when it runs out.
func (a *Authority) Until() time.Time { return a.cert.NotAfter }

// RunsOut tells that it can no longer give this computer a certificate that devices with a clock that is off believe.
func (a *Authority) RunsOut(now time.Time) bool { return now.Add(leafLeft).After(a.cert.NotAfter) }

// For gives this computer a certificate for addresses and names. It is kept and made anew when it holds for too short a
// time, or is asked for others. Addresses that are not at home are left out.
func (a *Authority) For(now time.Time, names []string) (*tls.Certificate, error) {
	a.mu.Lock()
	defer a.mu.Unlock()
	fresh := a.leaf != nil && now.Before(a.until) && now.After(a.leaf.Leaf.NotBefore.Add(skew-leafLeft))
	for _, n := range names {
		fresh = fresh && a.names[n]
	}
	if fresh {
		return a.leaf, nil
	}
	all := map[string]bool{}
	if a.leaf != nil {
		maps.Copy(all, a.names)
	}
	for _, n := range names {
		all[n] = true
	}
	leaf, err := a.issue(now, slices.Sorted(maps.Keys(all)))
	if err != nil {
		return nil, err
	}
	a.leaf, a.names, a.until = leaf, all, leaf.Leaf.NotAfter.Add(-leafLeft)
	return leaf, nil
}

func (a *Authority) issue(now time.Time, names []string) (*tls.Certificate, error) {
	key, serial, err := keyAndSerial()
	if err != nil {
		return nil, err
	}
	t := &x509.Certificate{
		SerialNumber: serial, Subject: pkix.Name{Organization: []string{"Rutile"}, CommonName: "Rutile"},
		NotBefore: later(now.Add(-skew), a.cert.NotBefore), NotAfter: now.Add(skew),
		KeyUsage: x509.KeyUsageDigitalSignature, ExtKeyUsage: []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth},
	}
	for _, n := range names {
		if ip, err := netip.ParseAddr(n); err == nil {
			ip = ip.Unmap().WithZone("")
			if slices.ContainsFunc(a.cert.PermittedIPRanges, func(r *net.IPNet) bool { return r.Contains(ip.AsSlice()) }) {
				t.IPAddresses = append(t.IPAddresses, ip.AsSlice())
			}
		} else if slices.ContainsFunc(a.cert.PermittedDNSDomains, func(d string) bool { return n == d || strings.HasSuffix(n, "."+d) }) {
			t.DNSNames = append(t.DNSNames, n)
		}
	}
	der, err := x509.CreateCertificate(rand.Reader, t, a.cert, &key.PublicKey, a.key)
	if err != nil {
		return nil, fmt.Errorf("make a certificate: %w", err)
	}
	leaf, err := x509.ParseCertificate(der)
	if err != nil {
		return nil, fmt.Errorf("read the new certificate: %w", err)
	}
	return &tls.Certificate{Certificate: [][]byte{der, a.cert.Raw}, PrivateKey: key, Leaf: leaf}, nil
}

func later(a, b time.Time) time.Time {
	if a.Before(b) {
		return b
	}
	return a
}

// TLS is what the server in the workshop's network offers: TLS 1.2 or better, with a certificate for the address that a
// device reached it at and for names. Errors of connections are those of the authority.
func (a *Authority) TLS(now func() time.Time, names func() []string) *tls.Config {
	return &tls.Config{
		MinVersion: tls.VersionTLS12, NextProtos: []string{"h2", "http/1.1"},
		GetCertificate: func(hello *tls.ClientHelloInfo) (*tls.Certificate, error) {
			all := names()
			if at, ok := hello.Conn.LocalAddr().(*net.TCPAddr); ok {
				all = append(slices.Clone(all), at.AddrPort().Addr().Unmap().WithZone("").String())
			}
			return a.For(now(), all)
		},
	}
}
