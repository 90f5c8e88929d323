package main

import (
	"bufio"
	"bytes"
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"io"
	"math/rand/v2"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"rutile/internal/photo"
	"rutile/internal/store"
	"rutile/internal/wire"
)

// TestMain lets this program be started as rutile itself, which can then be killed.
func TestMain(m *testing.M) {
	if code, started := photo.RunChild(); started {
		os.Exit(code)
	}
	if os.Getenv(asRutile) != "" {
		main()
	}
	os.Exit(m.Run())
}

const asRutile = "RUTILE_TEST_AS_RUTILE"

// process is a server of its own on a folder.
type process struct {
	cmd *exec.Cmd
	url string
}

func begin(t testing.TB, dir string, more ...string) *process {
	t.Helper()
	cmd := exec.Command(os.Args[0], append([]string{"serve", "--addr", "127.0.0.1:0", "--data", dir}, more...)...)
	cmd.Env = append(os.Environ(), asRutile+"=1")
	var errs bytes.Buffer
	cmd.Stderr = &errs
	out, err := cmd.StdoutPipe()
	if err != nil {
		t.Fatal(err)
	}
	if err := cmd.Start(); err != nil {
		t.Fatal(err)
	}
	line, err := bufio.NewReader(out).ReadString('\n')
	url, ok := strings.CutPrefix(strings.TrimSpace(line), "Rutile is at ")
	if err != nil || !ok {
		_ = cmd.Wait()
		t.Fatalf("it does not start: %q %s", line, errs.String())
	}
	return &process{cmd, url}
}

// kill ends it at once, as nothing can refuse.
func (p *process) kill() {
	_ = p.cmd.Process.Kill()
	_ = p.cmd.Wait()
}

// send sends a request; ok tells that it was acknowledged.
func (p *process) send(method, path, contentType string, body []byte, header ...string) (answer []byte, ok bool) {
	r, err := http.NewRequest(method, p.url+path, bytes.NewReader(body))
	if err != nil {
		panic(err)
	}
	r.Header.Set("Content-Type", contentType)
	for i := 0; i+1 < len(header); i += 2 {
		r.Header.Set(header[i], header[i+1])
	}
	res, err := client.Do(r)
	if err != nil {
		return nil, false
	}
	defer res.Body.Close()
	answer, err = io.ReadAll(res.Body)
	return answer, err == nil && res.StatusCode < 300
}

var client = &http.Client{Timeout: 20 * time.Second, Transport: &http.Transport{DisableKeepAlives: true}}

// promises are what a server has acknowledged, and what was sent to it last.
type promises struct {
	mu       sync.Mutex
	pieces   map[uint]promise
	settings promise
	readings int             // imported, one a file
	photos   map[string]bool // by their file names
	n        int             // of all that was sent
	kept     int             // acknowledgements in all
}

// promise is the number in what was acknowledged last, and in what was sent last.
type promise struct{ kept, sent, rev int }

func newPromises() *promises { return &promises{pieces: map[uint]promise{}, photos: map[string]bool{}} }

func (m *promises) next() int {
	m.mu.Lock()
	defer m.mu.Unlock()
	m.n++
	return m.n
}

// picture is a small JPEG unlike all others.
func picture(n int) []byte {
	m := image.NewRGBA(image.Rect(0, 0, 96, 64))
	for y := range 64 {
		for x := range 96 {
			bit := n >> (x / 8 % 12) & 1
			m.SetRGBA(x, y, color.RGBA{uint8(x * 2), uint8(y * 3), uint8(200 * bit), 255})
		}
	}
	var b bytes.Buffer
	if err := jpeg.Encode(&b, m, nil); err != nil {
		panic(err)
	}
	return b.Bytes()
}

// work writes pieces, settings, readings and pictures until the server is gone.
func (m *promises) work(p *process) (done func()) {
	var group sync.WaitGroup
	m.mu.Lock()
	ids := make([]uint, 0, len(m.pieces))
	for id := range m.pieces {
		ids = append(ids, id)
	}
	m.mu.Unlock()
	body := func(n int) []byte {
		return fmt.Appendf(nil, `{"format": "rutile/piece", "version": 1, "name": "n%d", "zones": [{"id": "a", "substrate": "oak", "steps": [{"do": "coat", "product": "paint_milk"}]}]}`, n)
	}
	keep := func(do func()) {
		m.mu.Lock()
		defer m.mu.Unlock()
		do()
		m.kept++
	}
	for _, id := range ids {
		group.Go(func() {
			for {
				n := m.next()
				m.mu.Lock()
				x := m.pieces[id]
				x.sent = n
				m.pieces[id] = x
				m.mu.Unlock()
				answer, ok := p.send("PUT", fmt.Sprintf("/api/pieces/%d", id), "application/json", body(n), "If-Match", fmt.Sprintf(`"%d"`, x.rev))
				var s wire.Saved
				if !ok || json.Unmarshal(answer, &s) != nil {
					return
				}
				keep(func() { m.pieces[id] = promise{n, n, s.Rev} })
			}
		})
	}
	group.Go(func() {
		for {
			n := m.next()
			m.mu.Lock()
			m.settings.sent = n
			m.mu.Unlock()
			if _, ok := p.send("PUT", "/api/studio", "application/json", fmt.Appendf(nil, `{"name": "n%d", "units": "us", "site": {"temp_c": 20, "rh_pct": 50}}`, n), "If-Match", "*"); !ok {
				return
			}
			keep(func() { m.settings = promise{kept: n, sent: n} })
		}
	})
	group.Go(func() {
		for {
			n := m.next()
			at := time.Date(2020, 1, 1, 0, n, 0, 0, time.UTC).Format("2006-01-02 15:04")
			if _, ok := p.send("POST", "/api/instruments/readings?name=loft.csv", "text/csv", []byte("time,temp\n"+at+",12\n")); !ok {
				return
			}
			keep(func() { m.readings++ })
		}
	})
	group.Go(func() {
		for {
			answer, ok := p.send("POST", "/api/photos", "application/octet-stream", picture(m.next()))
			var kept wire.PhotoKept
			if !ok || json.Unmarshal(answer, &kept) != nil {
				return
			}
			keep(func() { m.photos[kept.File] = true })
		}
	})
	return group.Wait
}

// lost lists what was acknowledged and is not there.
func (m *promises) lost(t *testing.T, p *process) (out []string) {
	t.Helper()
	for id, x := range m.pieces {
		answer, ok := p.send("GET", fmt.Sprintf("/api/pieces/%d", id), "", nil)
		var s wire.Saved
		var n int
		if !ok || json.Unmarshal(answer, &s) != nil {
			out = append(out, fmt.Sprintf("piece %d: %s", id, answer))
			continue
		}
		if _, err := fmt.Sscanf(s.Piece.Name, "n%d", &n); err != nil || n != x.kept && n != x.sent {
			out = append(out, fmt.Sprintf("piece %d is %q, acknowledged n%d", id, s.Piece.Name, x.kept))
		}
		m.pieces[id] = promise{n, n, s.Rev}
	}
	answer, _ := p.send("GET", "/api/studio", "", nil)
	var set wire.Studio
	var n int
	_ = json.Unmarshal(answer, &set)
	if _, err := fmt.Sscanf(set.Name, "n%d", &n); m.settings.kept > 0 && (err != nil || n != m.settings.kept && n != m.settings.sent) {
		out = append(out, fmt.Sprintf("the settings are %q, acknowledged n%d", set.Name, m.settings.kept))
	}
	m.settings = promise{kept: n, sent: n}
	answer, _ = p.send("GET", "/api/instruments/sources", "", nil)
	var sources []wire.Source
	_ = json.Unmarshal(answer, &sources)
	if m.readings > 0 && (len(sources) != 1 || sources[0].Count < m.readings) {
		out = append(out, fmt.Sprintf("readings: %+v, acknowledged %d", sources, m.readings))
	}
	if len(sources) == 1 {
		m.readings = sources[0].Count
	}
	for name := range m.photos {
		large, ok := p.send("GET", "/photos/"+name, "", nil)
		sum := sha256.Sum256(large)
		small, ok2 := p.send("GET", "/photos/small/"+name, "", nil)
		if _, err := jpeg.Decode(bytes.NewReader(small)); !ok || !ok2 || err != nil || fmt.Sprintf("%x.jpg", sum[:16]) != name {
			out = append(out, "picture "+name)
		}
	}
	clear(m.photos) // each is looked for once
	return out
}

// made has some pieces made to write to.
func (m *promises) made(t *testing.T, p *process) {
	t.Helper()
	for range 3 {
		answer, ok := p.send("POST", "/api/pieces", "application/json", []byte(`{"format": "rutile/piece", "version": 1, "name": "n0", "zones": []}`))
		var s wire.Saved
		if !ok || json.Unmarshal(answer, &s) != nil {
			t.Fatalf("%s", answer)
		}
		m.pieces[s.ID] = promise{rev: s.Rev}
	}
}

func rounds(short, long int) int {
	if testing.Short() {
		return short
	}
	return long
}

// ruined has a server on a folder write until it is ended, again and again, and makes sure each time that
// everything it has acknowledged is there, and in the end that its data is whole. end ends it while it
// writes, which done waits for.
func ruined(t *testing.T, dir string, times int, least, most time.Duration, end func(p *process, done func())) {
	t.Helper()
	r := rand.New(rand.NewPCG(3, 4))
	m := newPromises()
	losses := 0
	for k := range times + 1 {
		p := begin(t, dir)
		if k == 0 {
			m.made(t, p)
		}
		for _, what := range m.lost(t, p) {
			t.Errorf("the %d. time, lost: %s", k, what)
			losses++
		}
		if k == times {
			p.kill()
			break
		}
		done := m.work(p)
		time.Sleep(least + time.Duration(r.Int64N(int64(most-least))))
		end(p, done)
	}
	whole(t, dir)
	t.Logf("ended %d times, %d acknowledgements, %d losses", times, m.kept, losses)
	if m.kept < times {
		t.Errorf("%d acknowledgements are too few to tell", m.kept)
	}
}

// A server that is killed at any moment has kept everything that it has acknowledged, and its data is
// whole.
func TestKilledAtAnyMoment(t *testing.T) {
	t.Parallel()
	ruined(t, filepath.Join(t.TempDir(), "studio"), rounds(6, 500), 20*time.Millisecond, 320*time.Millisecond, func(p *process, done func()) {
		p.kill()
		done()
	})
}

// A server that is killed while entries of a log are sent to it has kept every one that it has acknowledged, once.
func TestKilledWhileLogging(t *testing.T) {
	t.Parallel()
	dir := filepath.Join(t.TempDir(), "studio")
	r := rand.New(rand.NewPCG(5, 6))
	var id uint
	n, acknowledged := 0, map[string]bool{}
	times := rounds(5, 200)
	for k := range times + 1 {
		p := begin(t, dir)
		if id == 0 {
			answer, ok := p.send("POST", "/api/pieces", "application/json", []byte(`{"format": "rutile/piece", "version": 1, "name": "Stool", "zones": [{"id": "a", "substrate": "beech", "finish": "none", "steps": [{"do": "dust"}]}]}`))
			var s wire.Saved
			if !ok || json.Unmarshal(answer, &s) != nil {
				t.Fatalf("%s", answer)
			}
			id = s.ID
		}
		path := fmt.Sprintf("/api/pieces/%d/log", id)
		answer, _ := p.send("GET", path, "", nil)
		var log wire.PieceLog
		if err := json.Unmarshal(answer, &log); err != nil {
			t.Fatalf("%s: %v", answer, err)
		}
		seen := map[string]int{}
		for _, l := range log.Lines {
			seen[l.Entry.ID]++
		}
		for x := range acknowledged {
			if seen[x] != 1 {
				t.Errorf("the %d. time: entry %s is there %d times", k, x, seen[x])
			}
		}
		if k == times {
			p.kill()
			break
		}
		var work sync.WaitGroup
		stop := make(chan struct{})
		work.Go(func() {
			for {
				select {
				case <-stop:
					return
				default:
				}
				n++
				x := fmt.Sprintf("n%d", n)
				body := fmt.Sprintf(`{"entries": [{"id": %q, "at": %q, "what": "done", "zone": "a", "planned": {"step": 1}}]}`, x, time.Now().UTC().Format(time.RFC3339))
				if _, ok := p.send("POST", path, "application/json", []byte(body)); !ok {
					return
				}
				acknowledged[x] = true
			}
		})
		time.Sleep(20*time.Millisecond + time.Duration(r.Int64N(int64(200*time.Millisecond))))
		p.kill()
		close(stop)
		work.Wait()
	}
	whole(t, dir)
	if len(acknowledged) < times {
		t.Errorf("%d acknowledgements are too few to tell", len(acknowledged))
	}
	t.Logf("killed %d times, %d acknowledged", times, len(acknowledged))
}

// whole makes sure that a database is as it should be.
func whole(t *testing.T, dir string) {
	t.Helper()
	db, err := sql.Open("sqlite", filepath.Join(dir, store.File))
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	var says string
	if err := db.QueryRow("PRAGMA integrity_check").Scan(&says); err != nil || says != "ok" {
		t.Errorf("the database is %q, %v", says, err)
	}
}

// A power cut takes what was not yet on the disk with it. Here the disk is a file with a file system in it:
// a copy of the file at the moment of the cut is what the disk then holds.
func TestPowerCuts(t *testing.T) {
	work := t.TempDir()
	disk, at := filepath.Join(work, "disk"), filepath.Join(work, "mounted")
	if err := errors.Join(os.Mkdir(at, 0o700), os.WriteFile(disk, nil, 0o600), os.Truncate(disk, 96<<20)); err != nil {
		t.Fatal(err)
	}
	run := func(name string, args ...string) error {
		ctx, stop := context.WithTimeout(context.Background(), time.Minute)
		defer stop()
		out, err := exec.CommandContext(ctx, name, args...).CombinedOutput()
		if err != nil {
			return fmt.Errorf("%s: %w: %s", name, err, out)
		}
		return nil
	}
	// The journal is written only when something is synced, and not by the clock.
	mount := func() error { return run("mount", "-o", "loop,commit=300", disk, at) }
	if err := run("mkfs.ext4", "-q", "-E", "lazy_itable_init=0,lazy_journal_init=0", disk); err != nil {
		t.Skip("no disk can be made here: ", err)
	}
	if err := mount(); err != nil {
		t.Skip("no disk can be mounted here: ", err)
	}
	defer func() { _ = run("umount", at) }()
	ruined(t, filepath.Join(at, "studio"), rounds(2, 50), 100*time.Millisecond, 600*time.Millisecond, func(p *process, done func()) {
		p.kill()
		left := disk + ".cut"
		if err := run("cp", "--sparse=always", disk, left); err != nil {
			t.Fatal(err)
		}
		done()
		if err := errors.Join(run("umount", at), os.Rename(left, disk), mount()); err != nil {
			t.Fatal(err)
		}
	})
}
