package photo

import (
	"os"
	"testing"
)

// TestMain lets this program be started once more to unpack a picture.
func TestMain(m *testing.M) {
	if code, started := RunChild(); started {
		os.Exit(code)
	}
	os.Exit(m.Run())
}
