package e2e

import (
	"os"
	"testing"

	"rutile/internal/photo"
)

// TestMain lets this program be started once more to unpack a picture.
func TestMain(m *testing.M) {
	if code, started := photo.RunChild(); started {
		os.Exit(code)
	}
	code := m.Run()
	for _, f := range atTheEnd.all {
		f()
	}
	os.Exit(code)
}
