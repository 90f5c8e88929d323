//go:build !linux

package photo

// limitMemory does nothing where there is no such limit; time is limited
// everywhere.
func limitMemory() {}
