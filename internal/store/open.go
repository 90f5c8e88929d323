package store

import (
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"net/url"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"syscall"
	"time"

	"github.com/gofrs/flock"
	"gorm.io/driver/sqlite"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
	sqlitedriver "modernc.org/sqlite"
)

// Fault is a reason that a studio's data cannot be opened: what is wrong, what is safe, and what to do.
type Fault struct {
	Says, Safe, Do string
	// Err is what the system said; nil where it said nothing.
	Err error
}

// Error returns the sentences.
func (f *Fault) Error() string {
	var out []string
	for _, s := range []string{f.Says, f.Safe, f.Do} {
		if s != "" {
			out = append(out, s)
		}
	}
	return strings.Join(out, " ")
}

// Unwrap is what the system said.
func (f *Fault) Unwrap() error { return f.Err }

// What is kept beside the database.
const (
	lockFile   = "rutile.lock"
	walFile    = File + "-wal"
	sharedFile = File + "-shm"
)

// leastSpace is how much room a disk must have for a studio to be opened for writing, in bytes. Working
// default: some hundred saves.
const leastSpace = 16 << 20

const (
	untouched = "Nothing was changed."
	readIt    = "To look at the data meanwhile, start Rutile with --read-only."
)

// Open opens the database in a folder, making both if need be, and brings its tables up to date. Before
// that it makes sure that nobody else has it open and that it can be read and written. The error is a
// *Fault where something is wrong with the folder.
func Open(dir string) (*Store, error) {
	if err := makeDir(dir); err != nil {
		return nil, folderFault(dir, err)
	}
	lock, err := locked(dir, true)
	if err != nil {
		return nil, err
	}
	s, err := opened(dir, dir, false)
	if err != nil {
		_ = lock.Unlock()
		return nil, err
	}
	s.lock = lock
	return s, nil
}

// OpenReadOnly opens the database in a folder to be read only: it reads a copy, and changes nothing in
// the folder. Writes are refused with ErrReadOnly. The error is a *Fault.
func OpenReadOnly(dir string) (*Store, error) {
	if _, err := os.Stat(filepath.Join(dir, File)); err != nil {
		return nil, &Fault{Says: "There is no studio in the folder " + dir + ".", Do: "Name the right folder with --data.", Err: err}
	}
	lock, err := locked(dir, false)
	if err != nil {
		return nil, err
	}
	defer func() {
		if lock != nil {
			_ = lock.Unlock()
		}
	}()
	copied, err := os.MkdirTemp("", "rutile-read-only-")
	if err != nil {
		return nil, &Fault{Says: "The data cannot be copied to be read.", Safe: untouched, Do: "Free some space on the disk of " + os.TempDir() + ".", Err: err}
	}
	s, err := copiedFrom(dir, copied)
	if err != nil {
		_ = os.RemoveAll(copied)
		return nil, err
	}
	return s, nil
}

func copiedFrom(dir, to string) (*Store, error) {
	for _, name := range []string{File, walFile} {
		err := copyFile(filepath.Join(dir, name), filepath.Join(to, name))
		if err != nil && !(name == walFile && errors.Is(err, fs.ErrNotExist)) {
			return nil, &Fault{Says: "The file " + name + " in " + dir + " cannot be read: " + reason(err) + ".", Safe: untouched, Do: "Give your account the right to read it, or start Rutile as the user who owns it.", Err: err}
		}
	}
	// A log that is damaged hides nothing but the latest changes.
	if log, err := os.Open(filepath.Join(to, walFile)); err == nil {
		fine := isLog(log)
		_ = log.Close()
		if !fine {
			_ = os.Remove(filepath.Join(to, walFile))
		}
	}
	s, err := opened(to, dir, true)
	if err != nil {
		return nil, err
	}
	s.readOnly, s.copied = true, to
	return s, nil
}

func copyFile(from, to string) error {
	in, err := os.Open(from)
	if err != nil {
		return err
	}
	defer in.Close()
	out, err := os.OpenFile(to, os.O_WRONLY|os.O_CREATE|os.O_EXCL, 0o600)
	if err != nil {
		return err
	}
	_, err = io.Copy(out, in)
	return errors.Join(err, out.Close())
}

// locked makes sure that no other program has the folder open for writing. A folder to be read only
// need not have a lock.
func locked(dir string, write bool) (*flock.Flock, error) {
	lock := flock.New(filepath.Join(dir, lockFile), flock.SetPermissions(0o600))
	take := lock.TryRLock
	if write {
		take = lock.TryLock
	}
	switch ok, err := take(); {
	case ok:
		return lock, nil
	case err == nil:
		return nil, &Fault{
			Says: "Another Rutile is already running on the folder " + dir + ".", Safe: untouched,
			Do: "Use that one in the browser, or stop it first. Another folder is given with --data.",
		}
	case write:
		return nil, folderFault(dir, err)
	}
	return nil, nil // nobody can have it open for writing
}

// folderFault tells why a folder cannot be used.
func folderFault(dir string, err error) error {
	f := &Fault{Says: "The data folder " + dir + " cannot be used: " + reason(err) + ".", Safe: untouched, Err: err}
	switch {
	case errors.Is(err, fs.ErrPermission), errors.Is(err, syscall.EROFS):
		f.Says = "Rutile may not write to the data folder " + dir + "."
		f.Do = "Give your account the right to write there, or name another folder with --data. " + readIt
	case errors.Is(err, syscall.ENOTDIR), errors.Is(err, fs.ErrExist):
		f.Says = "The data folder " + dir + " is a file and not a folder."
		f.Do = "Name a folder with --data."
	case isFull(err):
		f.Says, f.Do = "The disk of the data folder "+dir+" is full.", "Free some space, and start Rutile again. "+readIt
	}
	return f
}

func isFull(err error) bool { return errors.Is(err, syscall.ENOSPC) || errors.Is(err, syscall.EDQUOT) }

// reason is what the system said, without the path.
func reason(err error) string {
	var pe *fs.PathError
	if errors.As(err, &pe) {
		return pe.Err.Error()
	}
	return err.Error()
}

// opened opens the database in a folder, with the pictures of another or the same.
func opened(dir, pictures string, readOnly bool) (*Store, error) {
	path := filepath.Join(dir, File)
	if err := usable(dir, pictures, readOnly); err != nil {
		return nil, err
	}
	q := url.Values{}
	for _, p := range []string{"journal_mode(WAL)", "foreign_keys(1)", "busy_timeout(5000)", "synchronous(FULL)"} {
		q.Add("_pragma", p)
	}
	q.Set("_txlock", "immediate")
	q.Set("_time_format", "sqlite")
	dsn := "file:" + (&url.URL{Path: path}).EscapedPath() + "?" + q.Encode()
	db, err := gorm.Open(sqlite.New(sqlite.Config{DriverName: "sqlite", DSN: dsn}), &gorm.Config{
		Logger: logger.Discard, SkipDefaultTransaction: true, PrepareStmt: true,
	})
	if err != nil {
		return nil, databaseFault(pictures, err)
	}
	s := &Store{db: db, dir: pictures, writing: make(chan struct{}, 1), now: func() time.Time { return time.Now().UTC() }}
	err = s.sound(pictures)
	if readOnly && errors.Is(err, errDamaged) {
		return s, nil // what can still be read
	}
	if err == nil {
		if err = migrate(db); err != nil {
			err = databaseFault(pictures, err)
		}
	}
	if err != nil {
		_ = s.Close()
		return nil, err
	}
	return s, nil
}

// usable looks at the files of a database before it is opened. It makes the file of a new one, which
// only its owner may read.
func usable(dir, named string, readOnly bool) error {
	if !readOnly {
		if free, err := freeSpace(dir); err == nil && free < leastSpace {
			return &Fault{
				Says: fmt.Sprintf("The disk of the data folder %s is full or nearly so: Rutile needs %d MB to save safely, and there are %d.", named, leastSpace>>20, free>>20), Safe: untouched,
				Do: "Free some space, and start Rutile again. " + readIt,
			}
		}
	}
	for _, name := range []string{File, walFile, sharedFile} {
		path := filepath.Join(dir, name)
		info, err := os.Stat(path)
		switch {
		case errors.Is(err, fs.ErrNotExist) && name != File:
			continue
		case err != nil && !errors.Is(err, fs.ErrNotExist):
			return folderFault(named, err)
		case err == nil && !info.Mode().IsRegular():
			return &Fault{Says: "In the data folder " + named + ", " + name + " is not a file.", Safe: untouched, Do: "Move it away, or name another folder with --data."}
		}
		f, err := os.OpenFile(path, os.O_RDWR|os.O_CREATE, 0o600)
		if err != nil {
			fault := &Fault{
				Says: "Rutile may not read and write the file " + name + " in the data folder " + named + ".", Safe: untouched,
				Do: "Give your account the right to do so, or start Rutile as the user who owns it. " + readIt, Err: err,
			}
			if !errors.Is(err, fs.ErrPermission) && !errors.Is(err, syscall.EROFS) {
				return folderFault(named, err)
			}
			return fault
		}
		damaged := name == walFile && !isLog(f)
		_ = f.Chmod(0o600)
		if err := f.Close(); err != nil {
			return folderFault(named, err)
		}
		if damaged {
			return &Fault{
				Says: "The file " + walFile + " in the data folder " + named + " is damaged. It holds the latest changes.", Safe: "Nothing was changed; older changes are in " + File + ".",
				Do: "Copy the whole folder to a safe place first. Then bring back a backup of it; or, to go on without the latest changes, move " + walFile + " out of the folder and start Rutile again.",
			}
		}
	}
	return nil
}

// isLog tells whether a write-ahead log begins as one does (SQLite file format, 4.1), or holds nothing: a
// power cut may leave one whose head was never written, and then nothing of it was ever acknowledged.
func isLog(f io.Reader) bool {
	var head [32]byte
	if _, err := io.ReadFull(f, head[:]); errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
		return true
	} else if err != nil {
		return false
	}
	return head == [32]byte{} || binary.BigEndian.Uint32(head[:])&^1 == 0x377f0682
}

// sound makes sure that the database is whole, and not of a newer version.
func (s *Store) sound(dir string) error {
	var says []string
	if err := s.db.Raw("PRAGMA quick_check(1)").Scan(&says).Error; err != nil {
		return databaseFault(dir, err)
	}
	if !slices.Equal(says, []string{"ok"}) {
		return damagedFault(dir, errors.New(strings.Join(says, "; ")))
	}
	var newer []string
	known := make([]string, len(migrations))
	for i, m := range migrations {
		known[i] = m.ID
	}
	if s.db.Migrator().HasTable("migrations") {
		if err := s.db.Raw("SELECT id FROM migrations WHERE id NOT IN ?", append(known, "SCHEMA_INIT")).Scan(&newer).Error; err != nil {
			return databaseFault(dir, err)
		}
	}
	if len(newer) > 0 {
		return &Fault{
			Says: "The data in " + dir + " was written by a newer version of Rutile.", Safe: untouched,
			Do: "Start that version or a later one.",
		}
	}
	return nil
}

var errDamaged = errors.New("the database is damaged")

func damagedFault(dir string, err error) error {
	return &Fault{
		Says: "The database " + File + " in the data folder " + dir + " is damaged.", Safe: "Nothing was changed, and the pictures in the folder are not affected.",
		Do: "Copy the whole folder to a safe place first. Then bring back a backup of it. " + readIt + " It shows what can still be read.", Err: errors.Join(errDamaged, err),
	}
}

// databaseFault tells what is wrong with a database, by what SQLite says of it.
func databaseFault(dir string, err error) error {
	var se *sqlitedriver.Error
	if !errors.As(err, &se) {
		return &Fault{Says: "The database " + File + " in the data folder " + dir + " cannot be opened: " + err.Error() + ".", Safe: untouched, Err: err}
	}
	switch se.Code() & 0xff {
	case codeCorrupt:
		return damagedFault(dir, err)
	case codeNotADB:
		return &Fault{Says: "The file " + File + " in the data folder " + dir + " is not a database of Rutile.", Safe: untouched, Do: "Move it away, or name another folder with --data.", Err: err}
	case codeFull:
		return folderFault(dir, syscall.ENOSPC)
	case codeReadOnly, codePerm:
		return folderFault(dir, fs.ErrPermission)
	case codeBusy:
		return &Fault{Says: "Another program is using the database " + File + " in the data folder " + dir + ".", Safe: untouched, Do: "Close it, and start Rutile again.", Err: err}
	case codeIO:
		return &Fault{Says: "The disk of the data folder " + dir + " does not read or write as it should.", Safe: untouched, Do: "Check that it is connected, not full and not damaged. Copy the folder to another disk if you can.", Err: err}
	}
	return &Fault{Says: "The database " + File + " in the data folder " + dir + " cannot be opened.", Safe: untouched, Do: "Check that your account may read and write the folder and its files. " + readIt, Err: err}
}

// The result codes of SQLite that are told apart.
const (
	codePerm     = 3
	codeBusy     = 5
	codeReadOnly = 8
	codeIO       = 10
	codeCorrupt  = 11
	codeFull     = 13
	codeNotADB   = 26
)

// ReadOnly tells whether writes are refused.
func (s *Store) ReadOnly() bool { return s.readOnly }

// Close closes the database.
func (s *Store) Close() error {
	db, err := s.db.DB()
	if err == nil {
		err = db.Close()
	}
	if s.lock != nil {
		err = errors.Join(err, s.lock.Unlock())
	}
	if s.copied != "" {
		err = errors.Join(err, os.RemoveAll(s.copied))
	}
	return err
}
