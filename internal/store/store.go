// Package store keeps pieces in SQLite. A piece is written in one transaction, and a write based on
// an old revision is refused.
package store

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"time"

	"github.com/gofrs/flock"
	"gorm.io/gorm"
	sqlitedriver "modernc.org/sqlite"

	"rutile/internal/wire"
)

// File is the database's name in its folder.
const File = "rutile.db"

// keptRevisions is how many earlier states of a piece are kept, so that a refused write can be told
// what changed.
const keptRevisions = 50

// The errors that callers decide on. A refused write is a *Conflict.
var (
	ErrNotFound = errors.New("there is no such piece")
	ErrFull     = errors.New("the disk is full: nothing was saved")
	ErrReadOnly = errors.New("this was opened to be read only: nothing was saved")
)

// Conflict is a write refused because the piece has changed meanwhile.
type Conflict struct {
	Current wire.Saved
	Changes []string // what changed since the writer's revision, in words
}

// Error says that the piece has changed.
func (c *Conflict) Error() string { return "the piece has been changed elsewhere" }

// Damaged is a piece whose document cannot be read. It is still there as it was written, see
// [Store.Document].
type Damaged struct{ Says string }

// Error says what is wrong with the document.
func (d *Damaged) Error() string { return "the piece is damaged: " + d.Says }

// Loaded is a piece that was read. Where Damage is not nil, Saved has no more of it than its row says.
type Loaded struct {
	wire.Saved
	Damage *Damaged
}

// Store is an open database.
type Store struct {
	db  *gorm.DB
	dir string
	now func() time.Time
	// writing is held by the one write at work; the others wait in the order they came.
	writing chan struct{}
	// readOnly refuses every write; copied is then the folder of the copy that is read.
	readOnly bool
	copied   string
	lock     *flock.Flock
}

// The rows. A piece is kept as the document it is on the wire, once for each revision; what one
// looks for has a column.
type pieceRow struct {
	ID        uint
	Rev       int
	Name      string
	CreatedAt time.Time
	UpdatedAt time.Time
}

type revisionRow struct {
	PieceID uint `gorm:"primaryKey"`
	Rev     int  `gorm:"primaryKey"`
	At      time.Time
	Body    string
}

func (pieceRow) TableName() string    { return "pieces" }
func (revisionRow) TableName() string { return "revisions" }

// write does one write, as a transaction, once those before it are done. SQLite has room for one
// writer at a time, and whoever polls for it may wait for ever while others get in.
func (s *Store) write(ctx context.Context, doing string, do func(tx *gorm.DB) error) error {
	if s.readOnly {
		return wrap(doing, ErrReadOnly)
	}
	select {
	case s.writing <- struct{}{}:
		defer func() { <-s.writing }()
	case <-ctx.Done():
		return wrap(doing, ctx.Err())
	}
	return wrap(doing, s.db.WithContext(ctx).Transaction(do))
}

// Create stores a new piece.
func (s *Store) Create(ctx context.Context, p *wire.Piece) (wire.Saved, error) {
	log := p.Log
	p = withoutLog(p)
	body, err := json.Marshal(p)
	if err != nil {
		return wire.Saved{}, wrap("save the piece", err)
	}
	row := pieceRow{Rev: 1, Name: p.Name, CreatedAt: s.now()}
	row.UpdatedAt = row.CreatedAt
	err = s.write(ctx, "save the piece", func(tx *gorm.DB) error {
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		if _, err := s.addEntries(tx, row.ID, log); err != nil {
			return err
		}
		return addRevision(tx, &row, body)
	})
	if err != nil {
		return wire.Saved{}, err
	}
	return row.saved(p), nil
}

// addRevision keeps what a piece is at its revision.
func addRevision(tx *gorm.DB, row *pieceRow, body []byte) error {
	return tx.Exec("INSERT INTO revisions (piece_id, rev, at, body) VALUES (?, ?, ?, ?)", row.ID, row.Rev, row.UpdatedAt, string(body)).Error
}

// Save writes a piece over revision base. If the piece has another revision by now, it is left
// alone and the error is a *Conflict; but a write that would change nothing, such as one sent
// twice, counts as done.
func (s *Store) Save(ctx context.Context, id uint, base int, p *wire.Piece) (wire.Saved, error) {
	log := p.Log
	p = withoutLog(p)
	body, err := json.Marshal(p)
	if err != nil {
		return wire.Saved{}, wrap("save the piece", err)
	}
	var out wire.Saved
	err = s.write(ctx, "save the piece", func(tx *gorm.DB) error {
		row := pieceRow{ID: id, Rev: base + 1, Name: p.Name, UpdatedAt: s.now()}
		res := tx.Raw("UPDATE pieces SET rev = ?, name = ?, updated_at = ? WHERE id = ? AND rev = ? RETURNING created_at",
			row.Rev, row.Name, row.UpdatedAt, id, base).Scan(&row.CreatedAt)
		if res.Error != nil {
			return res.Error
		}
		if res.RowsAffected == 0 {
			cur, err := load(tx, id)
			if err != nil {
				return err
			}
			if _, err := s.addEntries(tx, id, log); err != nil {
				return err
			}
			if same(&cur.Piece, body) {
				out = cur
				return nil
			}
			return &Conflict{Current: cur, Changes: changedSince(tx, id, base, &cur.Piece)}
		}
		if _, err := s.addEntries(tx, id, log); err != nil {
			return err
		}
		if err := addRevision(tx, &row, body); err != nil {
			return err
		}
		out = row.saved(p)
		return tx.Exec("DELETE FROM revisions WHERE piece_id = ? AND rev <= ?", id, row.Rev-keptRevisions).Error
	})
	if err != nil {
		return wire.Saved{}, err
	}
	return out, nil
}

// Get reads a piece.
func (s *Store) Get(ctx context.Context, id uint) (wire.Saved, error) {
	out, err := load(s.db.WithContext(ctx), id)
	return out, wrap("read the piece", err)
}

// Head is a piece without what it holds.
type Head struct {
	ID        uint
	Rev       int
	UpdatedAt time.Time
}

// Heads lists all pieces, the last changed first.
func (s *Store) Heads(ctx context.Context) ([]Head, error) {
	var out []Head
	err := s.db.WithContext(ctx).Raw("SELECT id, rev, updated_at FROM pieces ORDER BY updated_at DESC, id DESC").Scan(&out).Error
	return out, wrap("read the pieces", err)
}

// atOnce is how many rows one statement names; SQLite takes no more than 32,766 variables.
const atOnce = 500

// Pieces reads the pieces of some ids, in no order; those that are not there are left out.
func (s *Store) Pieces(ctx context.Context, ids []uint) ([]Loaded, error) {
	out := make([]Loaded, 0, len(ids))
	for some := range slices.Chunk(ids, atOnce) {
		read, err := s.pieces(ctx, some)
		var se *sqlitedriver.Error
		if errors.As(err, &se) && se.Code()&0xff == codeCorrupt {
			// What of a damaged database can be read, one by one.
			read = read[:0]
			for _, id := range some {
				one, err := s.pieces(ctx, []uint{id})
				if err != nil {
					one = []Loaded{{Saved: wire.Saved{ID: id, Piece: wire.New("")}, Damage: &Damaged{"the database is damaged here"}}}
				}
				read = append(read, one...)
			}
			err = ctx.Err()
		}
		if err != nil {
			return nil, wrap("read the pieces", err)
		}
		out = append(out, read...)
	}
	return out, nil
}

func (s *Store) pieces(ctx context.Context, ids []uint) (out []Loaded, err error) {
	rows, err := s.db.WithContext(ctx).Raw(current+"WHERE p.id IN ?", ids).Rows()
	if err != nil {
		return nil, err
	}
	for rows.Next() {
		x, err := scan(rows.Scan)
		l := Loaded{Saved: x}
		if err != nil && !errors.As(err, &l.Damage) {
			return nil, errors.Join(err, rows.Close())
		}
		out = append(out, l)
	}
	return out, errors.Join(rows.Err(), rows.Close())
}

// Delete removes a piece with all its revisions.
func (s *Store) Delete(ctx context.Context, id uint) error {
	return s.write(ctx, "remove the piece", func(tx *gorm.DB) error {
		res := tx.Delete(&pieceRow{}, id)
		if res.Error == nil && res.RowsAffected == 0 {
			return ErrNotFound
		}
		return res.Error
	})
}

// Document is the document of a piece as it was written, whether or not it can be read. The error is
// ErrNotFound where there is none.
func (s *Store) Document(ctx context.Context, id uint) ([]byte, error) {
	var row struct{ Body string }
	res := s.db.WithContext(ctx).Raw("SELECT r.body FROM pieces p JOIN revisions r ON r.piece_id = p.id WHERE p.id = ? AND r.rev <= p.rev ORDER BY r.rev DESC LIMIT 1", id).Scan(&row)
	if res.Error == nil && res.RowsAffected == 0 {
		return nil, ErrNotFound
	}
	return []byte(row.Body), wrap("read the piece", res.Error)
}

// current selects pieces as they are now.
const current = "SELECT p.id, p.rev, p.name, p.updated_at, p.created_at, r.body FROM pieces p LEFT JOIN revisions r ON r.piece_id = p.id AND r.rev = p.rev "

// scan reads a row of what current selects. The error is a *Damaged, with what the row says, where
// the document cannot be read.
func scan(into func(...any) error) (wire.Saved, error) {
	var row pieceRow
	var body sql.NullString
	if err := into(&row.ID, &row.Rev, &row.Name, &row.UpdatedAt, &row.CreatedAt, &body); err != nil {
		return wire.Saved{}, err
	}
	blank := wire.New(row.Name)
	if !body.Valid {
		return row.saved(&blank), &Damaged{"its document is missing"}
	}
	p, err := wire.DecodeStored([]byte(body.String))
	if err != nil {
		return row.saved(&blank), &Damaged{err.Error()}
	}
	return row.saved(p), nil
}

func load(tx *gorm.DB, id uint) (wire.Saved, error) {
	out, err := scan(tx.Raw(current+"WHERE p.id = ?", id).Row().Scan)
	if errors.Is(err, sql.ErrNoRows) {
		return wire.Saved{}, ErrNotFound
	}
	return out, err
}

func changedSince(tx *gorm.DB, id uint, base int, now *wire.Piece) []string {
	var rev revisionRow
	if tx.First(&rev, "piece_id = ? AND rev = ?", id, base).Error != nil {
		return []string{"It was changed many times since."}
	}
	was, err := wire.DecodeStored([]byte(rev.Body))
	if err != nil {
		return []string{"It was changed since."}
	}
	return wire.Changes(was, now)
}

func (row *pieceRow) saved(p *wire.Piece) wire.Saved {
	return wire.Saved{ID: row.ID, Rev: row.Rev, Updated: row.UpdatedAt, Created: row.CreatedAt, Piece: *p}
}

// same tells whether a piece is written as a document.
func same(p *wire.Piece, body []byte) bool {
	x, err := json.Marshal(p)
	return err == nil && bytes.Equal(x, body)
}

func wrap(doing string, err error) error {
	var c *Conflict
	var d *Damaged
	var se *sqlitedriver.Error
	switch {
	case err == nil:
		return nil
	case errors.Is(err, ErrNotFound) || errors.Is(err, ErrLogFull) || errors.Is(err, ErrNoReading) || errors.Is(err, ErrReadOnly) || errors.Is(err, ErrNoDocument) || errors.Is(err, ErrDocumentChanged) || errors.As(err, &c) || errors.As(err, &d):
		return err
	case errors.As(err, &se) && se.Code()&0xff == codeFull:
		return fmt.Errorf("%s: %w", doing, ErrFull)
	}
	return fmt.Errorf("%s: %w", doing, err)
}
