package app

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
	os.Exit(m.Run())
}
