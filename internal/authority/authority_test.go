package authority

import (
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/tls"
	"crypto/x509"
	"errors"
	"math/big"
	"net"
	"strings"
	"testing"
	"time"
)

var now = time.Date(2026, 11, 24, 11, 20, 0, 0, time.UTC)

func fresh(t *testing.T, names ...string) *Authority {
	t.Helper()
	a, err := New("workshop", names, now)
	if err != nil {
		t.Fatal(err)
	}
	return a
}

// believes is what a device says of a certificate that has installed the authority, and whose clock shows a time.
func believes(a *Authority, c *tls.Certificate, name string, at time.Time) error {
	roots := x509.NewCertPool()
	roots.AddCert(a.cert)
	_, err := c.Leaf.Verify(x509.VerifyOptions{Roots: roots, DNSName: name, CurrentTime: at})
	return err
}

func leaf(t *testing.T, a *Authority, at time.Time, names ...string) *tls.Certificate {
	t.Helper()
	c, err := a.For(at, names)
	if err != nil {
		t.Fatal(err)
	}
	return c
}

func TestADeviceBelievesTheComputer(t *testing.T) {
	a := fresh(t, "workshop")
	c := leaf(t, a, now, "192.168.1.20", "workshop", "workshop.local", "fe80::1", "8.8.8.8", "example.com")
	for name, want := range map[string]bool{"192.168.1.20": true, "workshop": true, "workshop.local": true, "fe80::1": true, "192.168.1.21": false, "8.8.8.8": false, "example.com": false} {
		if err := believes(a, c, name, now); (err == nil) != want {
			t.Errorf("%s: %v", name, err)
		}
	}
	// A clock that is a year off, on the device or on the computer.
	for _, off := range []time.Duration{-366 * 24 * time.Hour, 366 * 24 * time.Hour} {
		if err := believes(a, c, "workshop", now.Add(off)); err != nil {
			t.Errorf("%v off: %v", off, err)
		}
	}
	if life := c.Leaf.NotAfter.Sub(c.Leaf.NotBefore); life > 825*24*time.Hour {
		t.Errorf("it holds for %v: browsers take no more than 825 days", life)
	}
}

// A new address is added to the certificate; one that it has is no reason for another.
func TestTheCertificateFollowsTheAddress(t *testing.T) {
	a := fresh(t)
	first := leaf(t, a, now, "192.168.1.20")
	if leaf(t, a, now.Add(time.Hour), "192.168.1.20") != first {
		t.Error("it was made anew for nothing")
	}
	second := leaf(t, a, now, "192.168.1.31")
	for _, name := range []string{"192.168.1.20", "192.168.1.31"} {
		if err := believes(a, second, name, now); err != nil {
			t.Errorf("%s: %v", name, err)
		}
	}
}

// The program was off until the certificate had run out, or nearly so: the next one holds again. The authority itself is
// the same for ten years.
func TestACertificateThatHasRunOut(t *testing.T) {
	a := fresh(t)
	c := leaf(t, a, now, "127.0.0.1")
	for _, days := range []int{31, 500, 2000} {
		at := now.AddDate(0, 0, days)
		next := leaf(t, a, at, "127.0.0.1")
		if next == c {
			t.Errorf("after %d days it is the same", days)
		}
		if err := errors.Join(believes(a, next, "127.0.0.1", at), believes(a, next, "127.0.0.1", at.AddDate(1, 0, 0))); err != nil {
			t.Errorf("after %d days: %v", days, err)
		}
	}
	// The computer's clock was far ahead for a moment.
	if err := believes(a, leaf(t, a, now, "127.0.0.1"), "127.0.0.1", now); err != nil {
		t.Error(err)
	}
	if a.RunsOut(now.AddDate(8, 0, 0)) || !a.RunsOut(now.AddDate(9, 0, 0)) {
		t.Errorf("it runs out on %v", a.Until())
	}
}

// Whoever steals the key cannot pass for a bank, nor make another authority.
func TestItVouchesForNothingElse(t *testing.T) {
	a := fresh(t, "workshop")
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		t.Fatal(err)
	}
	for _, x := range []x509.Certificate{
		{DNSNames: []string{"bank.example.com"}},
		{IPAddresses: []net.IP{net.ParseIP("8.8.8.8")}},
		{DNSNames: []string{"workshop.example.com"}},
	} {
		x.SerialNumber, x.NotBefore, x.NotAfter = big.NewInt(7), now.AddDate(0, 0, -1), now.AddDate(0, 1, 0)
		x.ExtKeyUsage = []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth}
		der, err := x509.CreateCertificate(rand.Reader, &x, a.cert, &key.PublicKey, a.key)
		if err != nil {
			t.Fatal(err)
		}
		c, err := x509.ParseCertificate(der)
		if err != nil {
			t.Fatal(err)
		}
		if err := believes(a, &tls.Certificate{Leaf: c}, "", now); err == nil {
			t.Errorf("believed: %v %v", x.DNSNames, x.IPAddresses)
		}
	}
	if !a.cert.MaxPathLenZero || !a.cert.PermittedDNSDomainsCritical {
		t.Error("it may make other authorities, or its limits may be ignored")
	}
}

func TestItIsKept(t *testing.T) {
	a := fresh(t)
	text, err := a.PEM()
	if err != nil {
		t.Fatal(err)
	}
	b, err := Parse(text)
	if err != nil || b.Fingerprint() != a.Fingerprint() || b.Name() != a.Name() {
		t.Fatalf("%v %v", b, err)
	}
	if err := believes(a, leaf(t, b, now, "127.0.0.1"), "127.0.0.1", now); err != nil {
		t.Error(err)
	}
	// Two computers of one name have two authorities that a device tells apart.
	if other := fresh(t); other.Name() == a.Name() {
		t.Error("two authorities are called " + a.Name())
	}
	for _, bad := range []string{"", "nothing", string(text[:200]), strings.Replace(string(text), "MI", "IM", 1), string(text[:strings.Index(string(text), "-----BEGIN EC")])} {
		if _, err := Parse([]byte(bad)); !errors.Is(err, ErrUnreadable) {
			t.Errorf("%.40q: %v", bad, err)
		}
	}
}

// What is offered: TLS 1.2 or better, and a certificate for the address that was dialled.
func TestWhatIsOffered(t *testing.T) {
	a := fresh(t)
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	srv := tls.NewListener(l, a.TLS(time.Now, func() []string { return nil }))
	defer srv.Close()
	go func() {
		for {
			c, err := srv.Accept()
			if err != nil {
				return
			}
			go func() { _ = c.(*tls.Conn).Handshake(); _ = c.Close() }()
		}
	}()
	roots := x509.NewCertPool()
	roots.AddCert(a.cert)
	for _, x := range []struct {
		version uint16
		fine    bool
	}{{tls.VersionTLS10, false}, {tls.VersionTLS11, false}, {tls.VersionTLS12, true}, {tls.VersionTLS13, true}} {
		c, err := tls.Dial("tcp", l.Addr().String(), &tls.Config{RootCAs: roots, MinVersion: x.version, MaxVersion: x.version})
		if (err == nil) != x.fine {
			t.Errorf("%s: %v", tls.VersionName(x.version), err)
		}
		if err != nil {
			continue
		}
		s := c.ConnectionState()
		for _, weak := range tls.InsecureCipherSuites() {
			if weak.ID == s.CipherSuite {
				t.Errorf("%s with %s", tls.VersionName(x.version), weak.Name)
			}
		}
		_ = c.Close()
	}
	if _, err := tls.Dial("tcp", l.Addr().String(), &tls.Config{}); err == nil {
		t.Error("a device without the authority believes the computer")
	}
}
