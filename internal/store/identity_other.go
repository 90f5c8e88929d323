//go:build !linux

package store

import (
	"path/filepath"
)

// Identity tells the file of the database from copies of it in other folders.
func (s *Store) Identity() string {
	path, err := filepath.Abs(filepath.Join(s.dir, File))
	if err != nil {
		return ""
	}
	return path
}
