package server

import (
	"bytes"
	"context"
	"crypto/tls"
	"crypto/x509"
	"encoding/json"
	"fmt"
	"io"
	"io/fs"
	"math/rand/v2"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"regexp"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/go-chi/chi/v5"

	"rutile/internal/app"
	"rutile/internal/wire"
	"rutile/web"
)

// lan is a studio with both of its listeners, as they are served.
type lan struct {
	t          testing.TB
	studio     *app.Studio
	here, away string // addresses
	router     chi.Router
	workshop   *Workshop
	roots      *x509.CertPool
}

func newLAN(t testing.TB) *lan { return lanOf(t, studioWith(t, app.StudioOptions{})) }

func lanOf(t testing.TB, s *app.Studio) *lan {
	t.Helper()
	a, _, err := s.Authority(context.Background(), nil, false)
	if err != nil {
		t.Fatal(err)
	}
	x := &lan{t: t, studio: s, roots: x509.NewCertPool()}
	cert, err := x509.ParseCertificate(a.Certificate())
	if err != nil {
		t.Fatal(err)
	}
	x.roots.AddCert(cert)
	var listeners [2]net.Listener
	for i := range listeners {
		if listeners[i], err = net.Listen("tcp", "127.0.0.1:0"); err != nil {
			t.Fatal(err)
		}
	}
	x.here, x.away = "http://"+listeners[0].Addr().String(), "https://"+listeners[1].Addr().String()
	x.workshop = &Workshop{Authority: a, Addresses: func() []string { return []string{x.away} }}
	o := Options{Studio: s, Page: builtPage, Workshop: x.workshop}
	if _, err := fs.Stat(web.Dist(), "index.html"); err == nil {
		o.Page = web.Dist()
	}
	x.router = routes(o)
	here, workshop := Both(o)
	ctx, stop := context.WithCancel(context.Background())
	done := make(chan error, 2)
	go func() { done <- Serve(ctx, listeners[0], here) }()
	go func() {
		done <- ServeTLS(ctx, listeners[1], workshop, a.TLS(time.Now, func() []string { return nil }))
	}()
	t.Cleanup(func() {
		stop()
		for range 2 {
			if err := <-done; err != nil {
				t.Error(err)
			}
		}
	})
	return x
}

// device is a browser on a device, with the cookies that it was given.
type device struct {
	*lan
	http.Client
}

func (x *lan) device() *device {
	jar, err := cookiejar.New(nil)
	if err != nil {
		x.t.Fatal(err)
	}
	tr := &http.Transport{TLSClientConfig: &tls.Config{RootCAs: x.roots}, ForceAttemptHTTP2: true}
	x.t.Cleanup(tr.CloseIdleConnections)
	return &device{x, http.Client{Jar: jar, Transport: tr, CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}}
}

// asked is an answer that was read.
type asked struct {
	*http.Response
	body string
}

func (d *device) ask(method, path, body string, headers ...string) asked {
	d.t.Helper()
	at := d.away
	if strings.HasPrefix(path, "http") {
		at = ""
	}
	r, err := http.NewRequest(method, at+path, strings.NewReader(body))
	if err != nil {
		d.t.Fatal(err)
	}
	if body != "" {
		r.Header.Set("Content-Type", "application/json")
	}
	for i := 0; i+1 < len(headers); i += 2 {
		r.Header.Set(headers[i], headers[i+1])
	}
	res, err := d.Do(r)
	if err != nil {
		d.t.Fatal(err)
	}
	defer res.Body.Close()
	data, err := io.ReadAll(res.Body)
	if err != nil {
		d.t.Fatal(err)
	}
	return asked{res, string(data)}
}

func (x *lan) code(device string) string {
	x.t.Helper()
	if err := x.studio.NewCode(context.Background(), device); err != nil {
		x.t.Fatal(err)
	}
	c, _ := x.studio.Code(context.Background())
	return c.Code
}

func (d *device) pair(code, name string) asked {
	d.t.Helper()
	return d.ask("POST", "/pair", url.Values{"code": {code}, "name": {name}}.Encode(), "Content-Type", "application/x-www-form-urlencoded")
}

// paired is a device that was paired.
func (x *lan) paired(name string) *device {
	x.t.Helper()
	d := x.device()
	if a := d.pair(x.code(""), name); a.StatusCode != http.StatusSeeOther {
		x.t.Fatalf("%s %s", a.Status, a.body)
	}
	return d
}

// addresses are all that the router lists, with something in the place of what varies, and every static file.
func (x *lan) addresses() (out [][2]string) {
	varies := regexp.MustCompile(`\{[^}]*\}`)
	err := chi.Walk(x.router, func(method, path string, _ http.Handler, _ ...func(http.Handler) http.Handler) error {
		for _, with := range []string{"1", "demo-26-5", "uprights"} {
			out = append(out, [2]string{method, strings.ReplaceAll(varies.ReplaceAllString(path, with), "*", "nothing")})
		}
		return nil
	})
	if err != nil {
		x.t.Fatal(err)
	}
	routed := len(out)
	for _, path := range []string{"/", "/index.html", "/today", "/phone", "/devices", "/pieces/1", "/pair/", "/pair/x", "//pair", "/../pair/../", "/%70air/../", "/sw.js", "/theme.js", "/rutile.svg", "/licences.txt", "/authority.crt", "/assets/", "/api", "/api/", "/photos/", "/favicon.ico", "/.well-known/x"} {
		for _, method := range []string{"GET", "HEAD", "POST", "OPTIONS", "PUT", "DELETE", "TRACE", "PROPFIND"} {
			out = append(out, [2]string{method, path})
		}
	}
	err = fs.WalkDir(web.Dist(), ".", func(path string, d fs.DirEntry, err error) error {
		if err == nil && !d.IsDir() {
			out = append(out, [2]string{"GET", "/" + path})
		}
		return err
	})
	if err != nil || routed < 150 {
		x.t.Fatalf("%d routes, %v", routed, err)
	}
	return out
}

// Nothing answers an unpaired device but the pairing page, over a loopback address as well: no route, no file, by no
// method, whatever cookie it shows. What is said does not even tell whether there is such an address.
func TestNothingAnswersAnUnpairedDevice(t *testing.T) {
	x := newLAN(t)
	paired, revoked := x.paired("Phone"), x.paired("Lost")
	for _, d := range must2(x.studio.Devices(context.Background(), func(string) bool { return true })) {
		if d.Name == "Lost" {
			if err := x.studio.RevokeDevice(context.Background(), d.ID); err != nil {
				t.Fatal(err)
			}
		}
	}
	stranger := x.device()
	page := stranger.ask("GET", "/pair", "").body
	tried := 0
	for _, a := range x.addresses() {
		for who, d := range map[string]*device{"unpaired": stranger, "revoked": revoked} {
			for _, headers := range [][]string{nil, {"Accept", "text/html"}, {"Cookie", "__Host-rutile-00000000=x; rutile=x", "If-Match", "*"}} {
				if who == "revoked" && headers != nil {
					continue
				}
				got := d.ask(a[0], a[1], "", headers...)
				tried++
				fine := got.StatusCode == http.StatusUnauthorized && got.Header.Get("X-Rutile-Device") == who && got.Header.Get("Set-Cookie") == "" &&
					(got.body == "" && a[0] == "HEAD" || got.body == page || strings.Contains(got.body, `"title":"Unauthorized"`) && len(got.body) < 200)
				if !fine {
					t.Errorf("%s %s %v, %s: %s %.200s", a[0], a[1], headers, who, got.Status, got.body)
				}
			}
		}
	}
	t.Logf("%d requests", tried)
	// The test can fail: a paired device gets what it asks for.
	for _, path := range []string{"/", "/api/pieces", "/api/pieces/1", "/api/today", "/authority.crt", "/theme.js"} {
		if got := paired.ask("GET", path, ""); got.StatusCode != http.StatusOK {
			t.Errorf("paired: %s: %s", path, got.Status)
		}
	}
	// Loopback stays as it is.
	if got := stranger.ask("GET", x.here+"/api/pieces", ""); got.StatusCode != http.StatusOK {
		t.Errorf("on the computer itself: %s", got.Status)
	}
	// The page itself gives nothing away, and takes nothing but a code.
	for _, body := range []string{"", "code=", "code=AAAA-AAAA", "code=%zz", strings.Repeat("x", 100_000), `{"code": "x"}`} {
		if got := stranger.ask("POST", "/pair", body, "Content-Type", "application/x-www-form-urlencoded"); got.StatusCode/100 != 4 || got.Header.Get("Set-Cookie") != "" {
			t.Errorf("%.20q: %s", body, got.Status)
		}
	}
}

func must2[T any](v T, err error) T {
	if err != nil {
		panic(err)
	}
	return v
}

func TestThePairingPage(t *testing.T) {
	x := newLAN(t)
	d := x.device()
	got := d.ask("GET", "/anything", "", "Accept", "text/html,*/*")
	if p := got.Header.Get("Content-Security-Policy"); !strings.Contains(got.body, "Pair this device") || !strings.Contains(p, "script-src 'sha256-") || strings.Contains(p, "unsafe") || got.Header.Get("Cache-Control") != "no-store" {
		t.Errorf("%v %.100s", got.Header, got.body)
	}
	code := x.code("")
	if got := d.pair("AAAA-AAAA", "x"); got.StatusCode != http.StatusForbidden || !strings.Contains(got.body, "not right") {
		t.Errorf("a wrong code: %s", got.Status)
	}
	// Another page cannot have the phone pair itself.
	if got := d.ask("POST", "/pair", "code="+code, "Content-Type", "application/x-www-form-urlencoded", "Sec-Fetch-Site", "cross-site", "Origin", "https://evil.example"); got.StatusCode != http.StatusForbidden {
		t.Errorf("from elsewhere: %s", got.Status)
	}
	got = d.pair(code, "Phone <script>alert(1)</script>")
	c := got.Cookies()
	if got.StatusCode != http.StatusSeeOther || got.Header.Get("Location") != "/phone" || len(c) != 1 || !c[0].Secure || !c[0].HttpOnly || c[0].SameSite != http.SameSiteLaxMode || c[0].Path != "/" || c[0].Domain != "" || !strings.HasPrefix(c[0].Name, "__Host-") || c[0].MaxAge < 300*24*3600 {
		t.Errorf("%s %v", got.Status, got.Header)
	}
	// It is renewed while it is used.
	if got := d.ask("GET", "/api/studio", ""); len(got.Cookies()) != 1 || !strings.Contains(got.body, `"device":"Phone`) {
		t.Errorf("%v %s", got.Header, got.body)
	}
	// Where the page is told an old address, that is one at home, or it is left out.
	for old, want := range map[string]string{"https://192.168.1.20:8734": "/phone#before=https%3A%2F%2F192.168.1.20%3A8734", "https://workshop.local:8734": "/phone#before=https%3A%2F%2Fworkshop.local%3A8734", "https://8.8.8.8:8734": "/phone", "javascript:alert(1)": "/phone", "https://a\"b:1": "/phone", "http://192.168.1.20:8734": "/phone"} {
		e := x.device()
		got := e.ask("POST", "/pair", url.Values{"code": {x.code("")}, "before": {old}}.Encode(), "Content-Type", "application/x-www-form-urlencoded")
		if at := got.Header.Get("Location"); at != want {
			t.Errorf("%s: %s", old, at)
		}
	}
	// Two studios on one computer do not overwrite each other's cookies.
	if other := newLAN(t); newDeviceAuth(x.studio, x.workshop).cookie == newDeviceAuth(other.studio, other.workshop).cookie {
		t.Error("two studios have one name for their cookies")
	}
}

// Devices are paired and taken off on the computer itself, and nowhere else.
func TestDevicesAreManagedOnTheComputer(t *testing.T) {
	x := newLAN(t)
	d := x.paired("Phone")
	for _, a := range [][3]string{{"GET", "/api/devices", ""}, {"POST", "/api/devices/code", "{}"}, {"DELETE", "/api/devices/code", ""}, {"DELETE", "/api/devices/x", ""}, {"POST", "/api/devices/x/let-in", ""}, {"PUT", "/api/devices/x", `{"name": "y"}`}} {
		if got := d.ask(a[0], a[1], a[2]); got.StatusCode != http.StatusForbidden {
			t.Errorf("%s %s: %s %s", a[0], a[1], got.Status, got.body)
		}
	}
	ask := func(method, path, body string) wire.Devices {
		t.Helper()
		got := d.ask(method, x.here+path, body)
		var out wire.Devices
		if err := json.Unmarshal([]byte(got.body), &out); err != nil || got.StatusCode != http.StatusOK {
			t.Fatalf("%s %s: %s %s", method, path, got.Status, got.body)
		}
		return out
	}
	all := ask("POST", "/api/devices/code", "{}")
	if !all.Open || len(all.Devices) != 1 || all.Code == nil || all.Code.LeftS < 590 || all.Code.Tries != app.CodeTries || all.Code.URL != x.away+"/pair#"+all.Code.Code || all.Code.Size < 21 || !strings.HasPrefix(all.Code.QR, "M0 0h1v1h-1z") {
		t.Errorf("%+v", all)
	}
	id := all.Devices[0].ID
	if all = ask("PUT", "/api/devices/"+id, `{"name": "Phone by the window"}`); all.Devices[0].Name != "Phone by the window" {
		t.Errorf("%+v", all.Devices)
	}
	if all = ask("DELETE", "/api/devices/code", ""); all.Code != nil {
		t.Errorf("%+v", all.Code)
	}
	var this wire.ThisDevice
	if got := d.ask("GET", "/api/this-device", ""); json.Unmarshal([]byte(got.body), &this) != nil || this.Name != "Phone by the window" || this.Print != all.Print {
		t.Errorf("%s", got.body)
	}
	if got := d.ask("GET", x.here+"/api/this-device", ""); got.StatusCode != http.StatusNotFound {
		t.Errorf("the computer is a device: %s", got.Status)
	}
	// A code for a device again carries the address that it knew.
	if all = ask("POST", "/api/devices/code", `{"device": "`+id+`"}`); !strings.HasSuffix(all.Code.URL, "&"+x.away) || all.Code.Device != id {
		t.Errorf("%+v", all.Code)
	}
	if all = ask("DELETE", "/api/devices/"+id, ""); all.Devices[0].Revoked == "" {
		t.Errorf("%+v", all.Devices)
	}
	// Without the second listener nothing can be paired.
	if got := (call{method: "POST", path: "/api/devices/code", body: "{}"}).to(New(Options{Studio: x.studio, Page: builtPage})); got.Code != http.StatusUnprocessableEntity || !strings.Contains(got.Body.String(), "--lan") {
		t.Errorf("%d %s", got.Code, got.Body)
	}
}

// A device that knows this computer by a name of it, or by an address that it has, is where it was.
func TestWhereDevicesReachThisComputer(t *testing.T) {
	w := &Workshop{Names: []string{"workshop", "workshop.local"}, Addresses: func() []string { return []string{"https://192.168.1.20:8734", "https://10.0.0.7:8734"} }}
	for origin, want := range map[string]bool{
		"https://192.168.1.20:8734": true, "https://10.0.0.7:8734": true, "https://workshop.local:8734": true, "https://127.0.0.1:8734": true,
		"https://192.168.1.31:8734": false, "https://192.168.1.20:9000": false, "https://workshop.local:9000": false, "https://elsewhere:8734": false, "": false, "%": false,
	} {
		if got := w.reached(origin); got != want {
			t.Errorf("%s: %t", origin, got)
		}
	}
}

// Which device it was stands in the log, whatever the device says; and entries about another piece are refused.
func TestWhichDeviceItWas(t *testing.T) {
	x := newLAN(t)
	d := x.paired("Phone")
	now := time.Now().UTC().Format(time.RFC3339)
	entry := func(id string) string {
		return `{"entries": [{"id": "` + id + `", "at": "` + now + `", "what": "note", "note": "dry", "by": "somebody else", "device": "x"}]}`
	}
	saved := decodeBody[wire.Saved](t, d.ask("GET", "/api/pieces/3", ""))
	created := url.QueryEscape(saved.Created.Format(time.RFC3339Nano))
	if got := d.ask("POST", "/api/pieces/3/log?created="+created, entry("a")); got.StatusCode != http.StatusOK {
		t.Fatalf("%s %s", got.Status, got.body)
	}
	if got := d.ask("POST", x.here+"/api/pieces/3/log", entry("b")); got.StatusCode != http.StatusOK {
		t.Fatalf("%s %s", got.Status, got.body)
	}
	other := url.QueryEscape(saved.Created.Add(time.Second).Format(time.RFC3339Nano))
	if got := d.ask("POST", "/api/pieces/3/log?created="+other, entry("c")); got.StatusCode != http.StatusConflict || !strings.Contains(got.body, "Nothing was logged") {
		t.Errorf("of another piece: %s %s", got.Status, got.body)
	}
	log := decodeBody[wire.PieceLog](t, d.ask("GET", "/api/pieces/3/log", ""))
	by := map[string]wire.Entry{}
	for _, l := range log.Lines {
		by[l.Entry.ID] = l.Entry
	}
	if a, b := by["a"], by["b"]; a.By != "Phone" || a.Device == "" || a.Device == "x" || b.By != "somebody else" || b.Device != "" || len(by) != 2 {
		t.Errorf("%+v", by)
	}
	if all := must2(x.studio.Devices(context.Background(), func(string) bool { return true })); all[0].Entries != 1 {
		t.Errorf("%+v", all)
	}
}

func decodeBody[T any](t *testing.T, a asked) T {
	t.Helper()
	var v T
	if err := json.Unmarshal([]byte(a.body), &v); err != nil {
		t.Fatalf("%s %s: %v", a.Status, a.body, err)
	}
	return v
}

// A clock that was started out of reach has run since.
func TestAClockStartedOutOfReach(t *testing.T) {
	x := newLAN(t)
	d := x.paired("Phone")
	start := func(id string, ago float64) asked {
		return d.ask("POST", "/api/clocks", fmt.Sprintf(`{"id": %q, "kind": "own", "need_s": 1200, "ago_s": %v}`, id, ago))
	}
	if c := decodeBody[wire.Clock](t, start("a", 300)); c.LeftS < 895 || c.LeftS > 905 || c.TotalS < 1195 {
		t.Errorf("%+v", c)
	}
	if c := decodeBody[wire.Clock](t, start("b", 5000)); c.LeftS > -3700 || c.State != "past" {
		t.Errorf("%+v", c)
	}
	for _, ago := range []float64{-5, 1e9} {
		if got := start("c", ago); got.StatusCode != http.StatusUnprocessableEntity {
			t.Errorf("%v: %s", ago, got.Status)
		}
	}
}

// What comes after the next step is told to devices only: they may soon be out of reach.
func TestWhatComesAfterIsToldToDevices(t *testing.T) {
	x := newLAN(t)
	d := x.paired("Phone")
	told := func(path string) (n int) {
		for _, i := range decodeBody[wire.Today](t, d.ask("GET", path, "")).Items {
			n += len(i.Then)
			for k, due := range i.Then {
				if due.State != "ahead" || due.Says == "" || due.Step < i.Due.Step || k > 0 && due.Step == i.Then[k-1].Step && due.Coat <= i.Then[k-1].Coat {
					t.Errorf("%s: %+v", i.Piece, due)
				}
			}
		}
		return n
	}
	if here, away := told(x.here+"/api/today"), told("/api/today"); here != 0 || away < 20 {
		t.Errorf("%d on the computer, %d on a device", here, away)
	}
}

// Three devices were out of reach for a day; what they send, in any order and twice, counts once, and none is lost.
func TestADayOutOfReach(t *testing.T) {
	x := newLAN(t)
	const devices, each = 3, 334
	const path = "/api/pieces/3/log"
	day := time.Now().UTC().Add(-24 * time.Hour)
	var all sync.WaitGroup
	for n := range devices {
		d := x.paired(fmt.Sprint("Phone ", n))
		all.Go(func() {
			r := rand.New(rand.NewPCG(uint64(n), 25))
			off := time.Duration(n-1) * 366 * 24 * time.Hour // clocks a year off
			var batches []string
			for from := 0; from < each; {
				size := min(1+r.IntN(40), each-from)
				var b bytes.Buffer
				for i := range size {
					if i > 0 {
						b.WriteByte(',')
					}
					at := day.Add(time.Duration(from+i) * 4 * time.Minute).Add(off)
					fmt.Fprintf(&b, `{"id": "d%d-%d", "at": %q, "what": "note", "note": "%d"}`, n, from+i, at.Format(time.RFC3339), i)
				}
				batches = append(batches, `{"entries": [`+b.String()+`]}`)
				from += size
			}
			batches = append(batches, batches...)
			r.Shuffle(len(batches), func(i, j int) { batches[i], batches[j] = batches[j], batches[i] })
			for _, b := range batches {
				sent := url.QueryEscape(time.Now().Add(off).UTC().Format(time.RFC3339))
				if got := d.ask("POST", path+"?sent="+sent, b); got.StatusCode != http.StatusOK {
					t.Errorf("%s %s", got.Status, got.body)
				}
			}
		})
	}
	all.Wait()
	log := decodeBody[wire.PieceLog](t, (&device{x, http.Client{}}).ask("GET", x.here+path, ""))
	seen := map[string]string{}
	for _, l := range log.Lines {
		if seen[l.Entry.ID] != "" {
			t.Errorf("%s is there twice", l.Entry.ID)
		}
		seen[l.Entry.ID] = l.Entry.By
		if at := wire.Instant(l.Entry.At); at.Before(day.Add(-time.Minute)) || at.After(time.Now().Add(time.Minute)) {
			t.Errorf("%s is at %s", l.Entry.ID, l.Entry.At)
		}
	}
	if len(seen) != devices*each {
		t.Errorf("%d entries arrived, of %d", len(seen), devices*each)
	}
	for n := range devices {
		if by := seen[fmt.Sprintf("d%d-7", n)]; by != fmt.Sprint("Phone ", n) {
			t.Errorf("the log says %q", by)
		}
	}
}

// BenchmarkFirstLoad asks for the page, its script and its style, over one listener and the other, each time over a new
// connection.
func BenchmarkFirstLoad(b *testing.B) {
	x := newLAN(b)
	d := x.paired("Phone")
	index := d.ask("GET", "/", "").body
	paths := []string{"/"}
	for _, m := range regexp.MustCompile(`(?:src|href)="(/[^"]+)"`).FindAllStringSubmatch(index, -1) {
		paths = append(paths, m[1])
	}
	for _, at := range []string{x.here, x.away} {
		b.Run(strings.SplitN(at, ":", 2)[0], func(b *testing.B) {
			for b.Loop() {
				for _, p := range paths {
					if got := d.ask("GET", at+p, "", "Accept-Encoding", "gzip"); got.StatusCode != http.StatusOK {
						b.Fatal(got.Status)
					}
				}
				d.CloseIdleConnections()
			}
		})
	}
}
