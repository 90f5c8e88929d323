//go:build !linux

package store

import "errors"

// freeSpace is not known here: a full disk is then told when something is saved.
func freeSpace(string) (int64, error) { return 0, errors.ErrUnsupported }
