// Package store keeps pieces in SQLite. A piece is written as one
// transaction, and a write that starts from an old revision is refused.
package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/url"
	"os"
	"path/filepath"
	"time"

	"gorm.io/driver/sqlite"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
	sqlitedriver "modernc.org/sqlite"

	"rutile/internal/format"
)

// File is the database's name in its folder.
const File = "rutile.db"

// keptRevisions is how many earlier states of a piece are kept, so that a
// refused write can be told what changed.
const keptRevisions = 50

// The errors that callers decide on. A refused write is a *Conflict.
var (
	ErrNotFound = errors.New("there is no such piece")
	ErrFull     = errors.New("the disk is full: nothing was saved")
)

// Conflict is a write refused because the piece has changed meanwhile.
type Conflict struct {
	Current Saved
	Changes []string // what changed since the writer's revision, in words
}

// Error says that the piece has changed.
func (c *Conflict) Error() string { return "the piece has been changed elsewhere" }

// Saved is a piece as it is stored.
type Saved struct {
	ID      uint         `json:"id"`
	Rev     int          `json:"rev" doc:"Grows with every write"`
	Updated time.Time    `json:"updated"`
	Created time.Time    `json:"created" doc:"Tells it from another piece that had the same number"`
	Piece   format.Piece `json:"piece"`
}

// Store is an open database.
type Store struct {
	db  *gorm.DB
	dir string
	now func() time.Time
}

// The rows. A zone's survey and a step's fields are kept as the documents
// they are on the wire; what one looks for has a column.
type pieceRow struct {
	ID        uint
	Rev       int
	Name      string
	Made      int
	Use       []string     `gorm:"serializer:json"`
	Site      *format.Site `gorm:"serializer:json"`
	CreatedAt time.Time
	UpdatedAt time.Time
	Parts     []format.Part    `gorm:"serializer:json"`
	TakeApart []format.Fitting `gorm:"serializer:json"`
	Photos    []format.Photo   `gorm:"serializer:json"`
	History   *format.History  `gorm:"serializer:json"`
	Zones     []zoneRow        `gorm:"foreignKey:PieceID"`
}

type zoneRow struct {
	ID        uint
	PieceID   uint
	Position  int
	Key       string
	Name      string
	Substrate string
	Finish    string
	Survey    format.Zone `gorm:"serializer:json"`
	Steps     []stepRow   `gorm:"foreignKey:ZoneID"`
}

type stepRow struct {
	ID       uint
	ZoneID   uint
	Position int
	Do       string
	Body     format.Step `gorm:"serializer:json"`
}

type revisionRow struct {
	PieceID uint `gorm:"primaryKey"`
	Rev     int  `gorm:"primaryKey"`
	At      time.Time
	Body    format.Piece `gorm:"serializer:json"`
}

func (pieceRow) TableName() string    { return "pieces" }
func (zoneRow) TableName() string     { return "zones" }
func (stepRow) TableName() string     { return "steps" }
func (revisionRow) TableName() string { return "revisions" }

// Open opens the database in a folder, making both if need be, and brings its
// tables up to date.
func Open(dir string) (*Store, error) {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("data folder: %w", err)
	}
	q := url.Values{}
	for _, p := range []string{"journal_mode(WAL)", "foreign_keys(1)", "busy_timeout(5000)", "synchronous(FULL)"} {
		q.Add("_pragma", p)
	}
	q.Set("_txlock", "immediate")
	q.Set("_time_format", "sqlite")
	dsn := "file:" + (&url.URL{Path: filepath.Join(dir, File)}).EscapedPath() + "?" + q.Encode()
	db, err := gorm.Open(sqlite.New(sqlite.Config{DriverName: "sqlite", DSN: dsn}), &gorm.Config{
		Logger: logger.Discard, SkipDefaultTransaction: true, PrepareStmt: true,
	})
	if err != nil {
		return nil, fmt.Errorf("open %s: %w", filepath.Join(dir, File), err)
	}
	s := &Store{db: db, dir: dir, now: func() time.Time { return time.Now().UTC() }}
	if err := migrate(db); err != nil {
		_ = s.Close()
		return nil, fmt.Errorf("bring %s up to date: %w", filepath.Join(dir, File), err)
	}
	return s, nil
}

// Close closes the database.
func (s *Store) Close() error {
	db, err := s.db.DB()
	if err != nil {
		return err
	}
	return db.Close()
}

// Create stores a new piece.
func (s *Store) Create(ctx context.Context, p *format.Piece) (Saved, error) {
	row := rowOf(p)
	row.Rev, row.CreatedAt, row.UpdatedAt = 1, s.now(), s.now()
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		return tx.Create(&revisionRow{row.ID, row.Rev, row.UpdatedAt, *p}).Error
	})
	if err != nil {
		return Saved{}, wrap("save the piece", err)
	}
	return Saved{row.ID, row.Rev, row.UpdatedAt, row.CreatedAt, *p}, nil
}

// Save writes a piece over revision base. If the piece has another revision by
// now it is left alone and the error is a *Conflict; but a write that would
// change nothing, as one sent twice, counts as done.
func (s *Store) Save(ctx context.Context, id uint, base int, p *format.Piece) (Saved, error) {
	var out Saved
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		now := s.now()
		row := rowOf(p)
		res := tx.Model(&pieceRow{}).Where("id = ? AND rev = ?", id, base).
			Select("Rev", "Name", "Made", "Use", "Site", "Parts", "TakeApart", "Photos", "History", "UpdatedAt").
			Updates(&pieceRow{
				Rev: base + 1, Name: row.Name, Made: row.Made, Use: row.Use, Site: row.Site, UpdatedAt: now,
				Parts: row.Parts, TakeApart: row.TakeApart, Photos: row.Photos, History: row.History,
			})
		if res.Error != nil {
			return res.Error
		}
		if res.RowsAffected == 0 {
			cur, err := load(tx, id)
			if err != nil {
				return err
			}
			if same(&cur.Piece, p) {
				out = cur
				return nil
			}
			return &Conflict{Current: cur, Changes: changedSince(tx, id, base, &cur.Piece)}
		}
		if err := tx.Where("piece_id = ?", id).Delete(&zoneRow{}).Error; err != nil {
			return err
		}
		for i := range row.Zones {
			row.Zones[i].PieceID = id
		}
		if len(row.Zones) > 0 {
			if err := tx.Create(&row.Zones).Error; err != nil {
				return err
			}
		}
		if err := tx.Create(&revisionRow{id, base + 1, now, *p}).Error; err != nil {
			return err
		}
		var made pieceRow
		if err := tx.Select("created_at").First(&made, id).Error; err != nil {
			return err
		}
		out = Saved{id, base + 1, now, made.CreatedAt, *p}
		return tx.Where("piece_id = ? AND rev <= ?", id, base+1-keptRevisions).Delete(&revisionRow{}).Error
	})
	if err != nil {
		return Saved{}, wrap("save the piece", err)
	}
	return out, nil
}

// Get reads a piece.
func (s *Store) Get(ctx context.Context, id uint) (Saved, error) {
	out, err := load(s.db.WithContext(ctx), id)
	return out, wrap("read the piece", err)
}

// List reads all pieces, the last changed first.
func (s *Store) List(ctx context.Context) ([]Saved, error) {
	var rows []pieceRow
	err := whole(s.db.WithContext(ctx)).Order("updated_at DESC, id DESC").Find(&rows).Error
	if err != nil {
		return nil, wrap("read the pieces", err)
	}
	out := make([]Saved, len(rows))
	for i := range rows {
		out[i] = rows[i].saved()
	}
	return out, nil
}

// Delete removes a piece with all its zones and revisions.
func (s *Store) Delete(ctx context.Context, id uint) error {
	res := s.db.WithContext(ctx).Delete(&pieceRow{}, id)
	if res.Error == nil && res.RowsAffected == 0 {
		return ErrNotFound
	}
	return wrap("remove the piece", res.Error)
}

func whole(tx *gorm.DB) *gorm.DB {
	byPlace := func(db *gorm.DB) *gorm.DB { return db.Order("position") }
	return tx.Preload("Zones", byPlace).Preload("Zones.Steps", byPlace)
}

func load(tx *gorm.DB, id uint) (Saved, error) {
	var row pieceRow
	err := whole(tx).First(&row, id).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return Saved{}, ErrNotFound
	}
	if err != nil {
		return Saved{}, err
	}
	return row.saved(), nil
}

func changedSince(tx *gorm.DB, id uint, base int, now *format.Piece) []string {
	var rev revisionRow
	if tx.First(&rev, "piece_id = ? AND rev = ?", id, base).Error != nil {
		return []string{"It was changed many times since."}
	}
	return format.Changes(&rev.Body, now)
}

func rowOf(p *format.Piece) pieceRow {
	row := pieceRow{
		Name: p.Name, Made: p.Made, Use: p.Use, Site: p.Site,
		Parts: p.Parts, TakeApart: p.TakeApart, Photos: p.Photos, History: p.History,
	}
	for i, z := range p.Zones {
		zr := zoneRow{Position: i, Key: z.ID, Name: z.Name, Substrate: z.Substrate, Finish: z.Finish, Survey: z}
		zr.Survey.Steps = nil
		for j, st := range z.Steps {
			zr.Steps = append(zr.Steps, stepRow{Position: j, Do: st.Do, Body: st})
		}
		row.Zones = append(row.Zones, zr)
	}
	return row
}

func (row *pieceRow) saved() Saved {
	p := format.New(row.Name)
	p.Made, p.Use, p.Site = row.Made, row.Use, row.Site
	p.Parts, p.TakeApart, p.Photos, p.History = row.Parts, row.TakeApart, row.Photos, row.History
	for _, zr := range row.Zones {
		z := zr.Survey
		z.Steps = make([]format.Step, len(zr.Steps))
		for j := range zr.Steps {
			z.Steps[j] = zr.Steps[j].Body
		}
		p.Zones = append(p.Zones, z)
	}
	return Saved{row.ID, row.Rev, row.UpdatedAt, row.CreatedAt, p}
}

// same tells whether two pieces are written alike.
func same(a, b *format.Piece) bool {
	x, errX := json.Marshal(a)
	y, errY := json.Marshal(b)
	return errX == nil && errY == nil && string(x) == string(y)
}

// codeFull is SQLITE_FULL.
const codeFull = 13

func wrap(doing string, err error) error {
	var c *Conflict
	var se *sqlitedriver.Error
	switch {
	case err == nil:
		return nil
	case errors.Is(err, ErrNotFound) || errors.As(err, &c):
		return err
	case errors.As(err, &se) && se.Code()&0xff == codeFull:
		return fmt.Errorf("%s: %w", doing, ErrFull)
	}
	return fmt.Errorf("%s: %w", doing, err)
}
