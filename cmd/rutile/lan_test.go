package main

import (
	"bufio"
	"context"
	"crypto/tls"
	"crypto/x509"
	"encoding/json"
	"fmt"
	"io"
	"math/rand/v2"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"rutile/internal/store"
	"rutile/internal/wire"
)

// free is an address that nobody listens on.
func free(t *testing.T) string {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	defer l.Close()
	return l.Addr().String()
}

// phone is a paired device with its cookies.
type phone struct {
	http.Client
	at string
}

func (p *phone) post(path, contentType, body string) (string, int) {
	res, err := p.Post("https://"+p.at+path, contentType, strings.NewReader(body))
	if err != nil {
		return err.Error(), 0
	}
	defer res.Body.Close()
	answer, err := io.ReadAll(res.Body)
	if err != nil {
		return err.Error(), 0
	}
	return string(answer), res.StatusCode
}

// paired pairs a device with a server; the authority is fetched from the computer itself.
func (p *process) paired(t *testing.T, at, name string) *phone {
	t.Helper()
	der, ok := p.send("GET", "/authority.crt", "", nil)
	cert, err := x509.ParseCertificate(der)
	if !ok || err != nil {
		t.Fatal(err)
	}
	roots := x509.NewCertPool()
	roots.AddCert(cert)
	jar, err := cookiejar.New(nil)
	if err != nil {
		t.Fatal(err)
	}
	x := &phone{http.Client{Jar: jar, Timeout: 20 * time.Second, Transport: &http.Transport{TLSClientConfig: &tls.Config{RootCAs: roots}, DisableKeepAlives: true}}, at}
	var d wire.Devices
	answer, _ := p.send("POST", "/api/devices/code", "application/json", []byte("{}"))
	if err := json.Unmarshal(answer, &d); err != nil || d.Code == nil {
		t.Fatalf("%s", answer)
	}
	if answer, code := x.post("/pair", "application/x-www-form-urlencoded", url.Values{"code": {d.Code.Code}, "name": {name}}.Encode()); code != http.StatusOK && code != http.StatusNotFound {
		t.Fatalf("%d %s", code, answer)
	}
	return x
}

// Three devices send what they logged in a day out of reach, and the server is killed in the middle of it, again and
// again: each entry counts once, and none is lost.
func TestKilledWhileADayIsSent(t *testing.T) {
	t.Parallel()
	dir, at := filepath.Join(t.TempDir(), "studio"), free(t)
	devices, each, times := 3, rounds(60, 334), rounds(6, 100)
	start := func() *process { return begin(t, dir, "--lan", "--lan-addr", at) }
	p := start()
	answer, ok := p.send("POST", "/api/pieces", "application/json", []byte(`{"format": "rutile/piece", "version": 1, "name": "Stool", "zones": [{"id": "a", "substrate": "beech"}]}`))
	var saved wire.Saved
	if !ok || json.Unmarshal(answer, &saved) != nil {
		t.Fatalf("%s", answer)
	}
	path := fmt.Sprintf("/api/pieces/%d/log", saved.ID)
	phones := make([]*phone, devices)
	for n := range phones {
		phones[n] = p.paired(t, at, fmt.Sprint("Phone ", n))
	}
	acknowledged := make([]map[int]bool, devices)
	day := time.Now().UTC().Add(-24 * time.Hour)
	// send has a device send some of its entries, those that have waited longest or any others.
	send := func(n int, r *rand.Rand) bool {
		var lines []string
		var some []int
		for i, left := r.IntN(each), 1+r.IntN(4); left > 0; i, left = (i+1)%each, left-1 {
			some = append(some, i)
			lines = append(lines, fmt.Sprintf(`{"id": "d%d-%d", "at": %q, "what": "note", "note": "%d"}`, n, i, day.Add(time.Duration(i)*4*time.Minute).Format(time.RFC3339), i))
		}
		answer, code := phones[n].post(path, "application/json", `{"entries": [`+strings.Join(lines, ", ")+`]}`)
		if code != 0 && code != http.StatusOK {
			t.Errorf("%d %s", code, answer)
		}
		if code == http.StatusOK {
			for _, i := range some {
				acknowledged[n][i] = true
			}
		}
		return code == http.StatusOK
	}
	for n := range acknowledged {
		acknowledged[n] = map[int]bool{}
	}
	pause := rand.New(rand.NewPCG(25, 1))
	for k := range times {
		var all sync.WaitGroup
		for n := range devices {
			all.Go(func() {
				r := rand.New(rand.NewPCG(uint64(n), uint64(k)))
				for send(n, r) {
				}
			})
		}
		time.Sleep(10*time.Millisecond + time.Duration(pause.Int64N(int64(150*time.Millisecond))))
		p.kill()
		all.Wait()
		p = start()
	}
	defer p.kill()
	inTime := 0
	for n := range devices {
		inTime += len(acknowledged[n])
		r := rand.New(rand.NewPCG(uint64(n), 99))
		for len(acknowledged[n]) < each {
			if !send(n, r) {
				t.Fatal("it does not answer")
			}
		}
	}
	var log wire.PieceLog
	answer, _ = p.send("GET", path, "", nil)
	if err := json.Unmarshal(answer, &log); err != nil {
		t.Fatal(err)
	}
	seen := map[string]int{}
	for _, l := range log.Lines {
		seen[l.Entry.ID]++
		if l.Entry.By != "Phone "+l.Entry.ID[1:2] {
			t.Errorf("%s is by %q", l.Entry.ID, l.Entry.By)
		}
	}
	if len(seen) != devices*each || len(log.Lines) != devices*each {
		t.Errorf("%d entries, %d of them different; %d were sent", len(log.Lines), len(seen), devices*each)
	}
	t.Logf("killed %d times, %d of %d entries acknowledged by then", times, inTime, devices*each)
}

// What --lan means is said when it starts; the certificate authority is made once.
func TestServeForTheWorkshop(t *testing.T) {
	dir := t.TempDir()
	start := func(more ...string) (said string, p *process) {
		at := free(t)
		p = begin(t, dir, append([]string{"--lan", "--lan-addr", at}, more...)...)
		t.Cleanup(p.kill)
		return at, p
	}
	fingerprint := func(p *process) string {
		t.Helper()
		var d wire.Devices
		answer, _ := p.send("GET", "/api/devices", "", nil)
		if err := json.Unmarshal(answer, &d); err != nil || !d.Open {
			t.Fatalf("%s", answer)
		}
		return d.Print
	}
	at, p := start()
	first := fingerprint(p)
	phone := p.paired(t, at, "Phone")
	p.kill()
	at, p = start()
	if fingerprint(p) != first {
		t.Error("the authority is another one after a restart")
	}
	phone.at = at
	if answer, code := phone.post("/api/clocks", "application/json", `{"id": "a", "kind": "own", "need_s": 60}`); code != http.StatusOK {
		t.Errorf("pairing does not outlive a restart at another port: %d %s", code, answer)
	}
	p.kill()
	_, p = start("--new-authority")
	if fingerprint(p) == first {
		t.Error("there is no new authority")
	}
	p.kill()

	// What it means is said.
	ctx, stop := context.WithCancel(context.Background())
	cmd := root()
	r, w := io.Pipe()
	cmd.SetOut(w)
	cmd.SetErr(io.Discard)
	cmd.SetArgs([]string{"serve", "--demo", "--addr", "127.0.0.1:0", "--lan", "--lan-addr", "127.0.0.1:0"})
	done := make(chan int, 1)
	go func() { done <- run(ctx, cmd) }()
	var out strings.Builder
	for lines := bufio.NewScanner(r); !strings.Contains(out.String(), "installs it once") && lines.Scan(); {
		out.WriteString(lines.Text() + "\n")
	}
	stop()
	if code := <-done; code != 0 {
		t.Errorf("it ends with %d", code)
	}
	for _, part := range []string{"open to the workshop at https://127.0.0.1:", "whoever is in this network", "can read and change everything", "/devices", "certificate authority was made"} {
		if !strings.Contains(out.String(), part) {
			t.Errorf("it does not say %q: %s", part, out.String())
		}
	}

	s, err := store.Open(dir)
	if err != nil {
		t.Fatal(err)
	}
	if err := s.SetDocument(context.Background(), store.Authority, "authority", []byte(`{"pem": "spoilt"}`)); err != nil {
		t.Fatal(err)
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	defer l.Close()
	for _, x := range []struct {
		args []string
		says string
	}{
		{[]string{"--lan-addr", "127.0.0.1:0"}, "--new-authority"},
		{[]string{"--lan-addr", "nowhere"}, "192.168.1.20:8734"},
		{[]string{"--lan-addr", "203.0.113.7:1"}, "--lan-addr"},
		{[]string{"--lan-addr", l.Addr().String()}, "another program is using"},
		{[]string{"--read-only"}, "none of the others can be"},
		{[]string{"--behind-proxy"}, "none of the others can be"},
	} {
		_, errs, code := rutile("", append([]string{"serve", "--lan", "--addr", "127.0.0.1:0", "--data", dir}, x.args...)...)
		if code != 2 || !strings.Contains(errs, x.says) || strings.Count(errs, "\n") != 1 {
			t.Errorf("%v: %d %q", x.args, code, errs)
		}
	}
}
