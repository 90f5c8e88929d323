package server

import (
	"bytes"
	"crypto/sha256"
	_ "embed"
	"encoding/base64"
	"encoding/hex"
	"errors"
	"html/template"
	"net"
	"net/http"
	"net/netip"
	"net/url"
	"slices"
	"strings"

	"rutile/internal/app"
)

// Workshop says how devices in the workshop's network reach this computer.
type Workshop struct {
	Authority *app.Authority
	// Addresses are where they reach it, as https://192.168.1.20:8734, the likeliest first.
	Addresses func() []string
	// Names are host names of this computer.
	Names []string
}

// reached tells whether devices reach this computer at an address: one of those, or the same port at a name of it.
func (w *Workshop) reached(origin string) bool {
	u, err := url.Parse(origin)
	if err != nil {
		return false
	}
	ip := net.ParseIP(u.Hostname())
	own := slices.Contains(w.Names, u.Hostname()) || ip != nil && ip.IsLoopback()
	return slices.ContainsFunc(w.Addresses(), func(a string) bool {
		at, err := url.Parse(a)
		return a == origin || own && err == nil && at.Port() == u.Port()
	})
}

// certificate hands out the certificate of the authority, to be installed.
func (w *Workshop) certificate(rw http.ResponseWriter, _ *http.Request) {
	h := rw.Header()
	h.Set("Content-Type", "application/x-x509-ca-cert")
	h.Set("Content-Disposition", `attachment; filename="rutile-authority.crt"`)
	h.Set("Cache-Control", "no-store")
	_, _ = rw.Write(w.Authority.Certificate())
}

// deviceAuth lets paired devices in. Everybody else gets the pairing page and nothing but that, whatever they ask for.
type deviceAuth struct {
	studio *app.Studio
	cookie string
	page   *template.Template
	policy string
}

//go:embed pair.html
var pairHTML string

// between is what stands between two tags of a page.
func between(page, from, to string) string {
	_, rest, _ := strings.Cut(page, from)
	text, _, _ := strings.Cut(rest, to)
	return text
}

func newDeviceAuth(s *app.Studio, w *Workshop) *deviceAuth {
	page := template.Must(template.New("pair").Parse(pairHTML))
	var b bytes.Buffer
	if err := page.Execute(&b, ""); err != nil {
		panic(err) // it ships with the program
	}
	// Style and script are named in the content policy by their digests, as they are written.
	of := func(from, to string) string {
		d := sha256.Sum256([]byte(between(b.String(), from, to)))
		return "'sha256-" + base64.StdEncoding.EncodeToString(d[:]) + "'"
	}
	// Cookies do not tell ports apart: two studios on one computer need two names.
	id := sha256.Sum256(w.Authority.Certificate())
	return &deviceAuth{
		studio: s, cookie: "__Host-rutile-" + hex.EncodeToString(id[:4]),
		page:   page,
		policy: "default-src 'none'; style-src " + of("<style>", "</style>") + "; script-src " + of("<script>", "</script>") + "; form-action 'self'; base-uri 'none'; frame-ancestors 'none'",
	}
}

const pairPath = "/pair"

// pairBody is how long the form of the pairing page may be, in bytes.
const pairBody = 4 << 10

// cookieLife is how long a browser keeps the token, in seconds: as long as browsers allow.
const cookieLife = 400 * 24 * 3600

func (d *deviceAuth) authenticate(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		w.Header().Add("Vary", "Cookie")
		if r.URL.Path == pairPath {
			d.pair(w, r)
			return
		}
		token := ""
		if c, err := r.Cookie(d.cookie); err == nil {
			token = c.Value
		}
		dev, err := d.studio.DeviceOf(r.Context(), token, "https://"+r.Host)
		if err != nil {
			d.refuse(w, r, err)
			return
		}
		if r.URL.Path == "/api/studio" && r.Method == http.MethodGet {
			d.setCookie(w, token) // so that it does not run out while the device is used
		}
		next.ServeHTTP(w, r.WithContext(app.OnDevice(r.Context(), dev)))
	})
}

// setCookie has the browser keep a token. It is sent along by links from elsewhere, as from an old address of this computer,
// and by nothing else: writes from other pages are refused before it is looked at.
func (d *deviceAuth) setCookie(w http.ResponseWriter, token string) {
	http.SetCookie(w, &http.Cookie{Name: d.cookie, Value: token, Path: "/", MaxAge: cookieLife, Secure: true, HttpOnly: true, SameSite: http.SameSiteLaxMode})
}

// Reasons why a device is not let in, as the page reads them.
const (
	reasonUnpaired = "unpaired"
	reasonRevoked  = "revoked"
	reasonHeld     = "held"
)

// refuse answers a device that is not let in: the same, whatever it asked for.
func (d *deviceAuth) refuse(w http.ResponseWriter, r *http.Request, err error) {
	reason, says := reasonUnpaired, "This device is not paired with this computer."
	switch {
	case errors.Is(err, app.ErrRevoked):
		reason, says = reasonRevoked, "This device was taken off on the computer."
	case errors.Is(err, app.ErrHeld):
		reason, says = reasonHeld, "The data on the computer was brought back from a copy. Open Devices on the computer and let this device in again."
	case !errors.Is(err, app.ErrUnpaired):
		d.studio.Log.Error("store", "err", err)
		problem(w, http.StatusInternalServerError, "The computer cannot tell which devices are paired.")
		return
	}
	h := w.Header()
	h.Set("X-Rutile-Device", reason)
	h.Set("Cache-Control", "no-store")
	if (r.Method == http.MethodGet || r.Method == http.MethodHead) && strings.Contains(r.Header.Get("Accept"), "text/html") {
		if reason == reasonUnpaired {
			says = ""
		}
		d.show(w, http.StatusUnauthorized, says)
		return
	}
	problem(w, http.StatusUnauthorized, says)
}

// show writes the pairing page.
func (d *deviceAuth) show(w http.ResponseWriter, status int, says string) {
	var b bytes.Buffer
	if err := d.page.Execute(&b, says); err != nil {
		problem(w, http.StatusInternalServerError, "The pairing page cannot be written.")
		return
	}
	h := w.Header()
	h.Set("Content-Type", "text/html; charset=utf-8")
	h.Set("Content-Security-Policy", d.policy)
	h.Set("Referrer-Policy", "same-origin") // without it some browsers hide from us that the form is our own
	h.Set("Cache-Control", "no-store")
	w.WriteHeader(status)
	_, _ = w.Write(b.Bytes())
}

// pair shows the pairing page, and pairs a device by the code that was put into it.
func (d *deviceAuth) pair(w http.ResponseWriter, r *http.Request) {
	switch r.Method {
	case http.MethodGet, http.MethodHead:
		d.show(w, http.StatusOK, "")
	case http.MethodPost:
		r.Body = http.MaxBytesReader(w, r.Body, pairBody)
		if err := r.ParseForm(); err != nil {
			d.show(w, http.StatusBadRequest, "That could not be read. Type the code again.")
			return
		}
		token, _, err := d.studio.Pair(r.Context(), r.PostForm.Get("code"), r.PostForm.Get("name"), "https://"+r.Host)
		var unfit *app.Unfit
		switch {
		case errors.As(err, &unfit):
			d.show(w, http.StatusForbidden, unfit.Says)
			return
		case err != nil:
			d.studio.Log.Error("store", "err", err)
			d.show(w, http.StatusInternalServerError, "The device could not be written down. Is the disk of the computer full?")
			return
		}
		d.studio.Log.Info("a device was paired")
		d.setCookie(w, token)
		http.Redirect(w, r, "/phone"+before(r.PostForm.Get("before")), http.StatusSeeOther)
	default:
		problem(w, http.StatusMethodNotAllowed, "This address pairs devices.")
	}
}

// before is where the page finds the address at which a device knew this computer, where that is one at home.
func before(origin string) string {
	rest, ok := strings.CutPrefix(origin, "https://")
	if host, _, err := net.SplitHostPort(rest); !ok || err != nil || !atHome(host) {
		return ""
	}
	return "#before=" + url.QueryEscape(origin)
}

// atHome tells whether a host is an address that only networks at home have, or a plain name.
func atHome(host string) bool {
	if ip, err := netip.ParseAddr(host); err == nil {
		return ip.IsLoopback() || ip.IsPrivate() || ip.IsLinkLocalUnicast()
	}
	letters := func(r rune) bool {
		return r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' || r >= '0' && r <= '9' || r == '-' || r == '.'
	}
	return host != "" && !strings.ContainsFunc(host, func(r rune) bool { return !letters(r) })
}

// Addresses are where devices reach a listener, as origins, the likeliest first: names that were given, then the
// addresses of this computer.
func Addresses(l net.Listener, names []string) []string {
	at, ok := l.Addr().(*net.TCPAddr)
	if !ok {
		return nil
	}
	_, port, _ := net.SplitHostPort(l.Addr().String())
	var hosts []string
	hosts = append(hosts, names...)
	if !at.IP.IsUnspecified() {
		hosts = append(hosts, at.IP.String())
	} else {
		hosts = append(hosts, homeAddresses()...)
	}
	out := make([]string, len(hosts))
	for i, h := range hosts {
		out[i] = "https://" + net.JoinHostPort(h, port)
	}
	return out
}

// homeAddresses are the addresses of this computer in networks at home, those of the usual kind first.
func homeAddresses() (out []string) {
	all, err := net.InterfaceAddrs()
	if err != nil {
		return nil
	}
	var later []string
	for _, a := range all {
		n, ok := a.(*net.IPNet)
		if !ok || n.IP.IsLoopback() || !n.IP.IsPrivate() {
			continue
		}
		if n.IP.To4() != nil {
			out = append(out, n.IP.String())
		} else {
			later = append(later, n.IP.String())
		}
	}
	slices.Sort(later)
	return append(out, later...)
}
