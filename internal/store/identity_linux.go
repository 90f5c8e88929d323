package store

import (
	"os"
	"path/filepath"
	"strconv"
	"syscall"
)

// Identity tells the file of the database from every copy of it; empty where that cannot be told. A file that is moved on
// its disk keeps it.
func (s *Store) Identity() string {
	info, err := os.Stat(filepath.Join(s.dir, File))
	if err != nil {
		return ""
	}
	st, ok := info.Sys().(*syscall.Stat_t)
	if !ok {
		return ""
	}
	return "inode " + strconv.FormatUint(st.Ino, 10)
}
