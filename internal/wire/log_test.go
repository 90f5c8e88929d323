package wire

import (
	"bytes"
	"encoding/json"
	"testing"
	"time"
)

// FuzzEntries looks for entries that are read and are others once they are written and read again.
func FuzzEntries(f *testing.F) {
	f.Add([]byte(`{"entries": [{"id": "a", "at": "2026-11-24T10:00:00Z", "what": "done", "zone": "z", "planned": {"step": 4, "coat": 1}, "thick": 1.5, "air": {"temp_c": 11, "rh_pct": 70}}]}`))
	f.Add([]byte(`{"entries": [{"id": "b", "at": "2026-11-24T10:00+01:00", "what": "note", "seen": [{"what": "chips", "level": 5}], "photos": ["a.jpg"], "lesson": true}]}`))
	f.Add([]byte(`{"entries": [{"id": "c", "at": "2026-11-24T10:00:00.5Z", "what": "note", "corrects": "b", "void": true}]}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		all, err := DecodeEntries(data)
		if err != nil {
			return
		}
		for _, e := range all {
			if Instant(e.At).IsZero() {
				t.Errorf("%q is no moment", e.At)
			}
			body, err := json.Marshal(e)
			if err != nil {
				t.Fatal(err)
			}
			again, err := DecodeEntry(body)
			if err != nil {
				t.Fatalf("%s: %v", body, err)
			}
			if kept, err := json.Marshal(again); err != nil || !bytes.Equal(kept, body) {
				t.Errorf("%s became %s: %v", body, kept, err)
			}
		}
	})
}

func TestInstants(t *testing.T) {
	want := time.Date(2026, 11, 24, 9, 15, 0, 0, time.UTC)
	for s, ok := range map[string]bool{"2026-11-24T10:15:00+01:00": true, "2026-11-24T09:15Z": true, "2026-11-24T09:15:00.000Z": true, "2026-11-24T09:15": false, "2026-02-30T09:15Z": false, "": false} {
		if got := Instant(s); ok != got.Equal(want) {
			t.Errorf("%q is %v", s, got)
		}
	}
}
