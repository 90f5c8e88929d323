package store

import (
	"context"
	"errors"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// Kind is a kind of document that a studio keeps beside its pieces. Each is kept as it is on the wire.
type Kind string

// The kinds.
const (
	Cans      Kind = "can"
	Blends    Kind = "blend"
	Palettes  Kind = "palette"
	Clocks    Kind = "clock"
	Timeline  Kind = "timeline"
	Devices   Kind = "device"
	Authority Kind = "authority"
	Folder    Kind = "folder"
)

// Kinds lists them.
var Kinds = []Kind{Cans, Blends, Palettes, Clocks, Timeline, Devices, Authority, Folder}

// documentRow is one of them.
type documentRow struct {
	Kind Kind   `gorm:"primaryKey"`
	ID   string `gorm:"primaryKey"`
	Rev  int
	At   time.Time
	Body string
}

func (documentRow) TableName() string { return "documents" }

// Kept is a document with its id and revision.
type Kept struct {
	ID   string
	Rev  int
	At   time.Time
	Body []byte
}

// ErrNoDocument tells that there is no document of an id, and ErrDocumentChanged that a write was refused
// because it has changed meanwhile.
var (
	ErrNoDocument      = errors.New("there is no such document")
	ErrDocumentChanged = errors.New("the document has been changed elsewhere")
)

// Documents reads all documents of a kind, in the order of their ids.
func (s *Store) Documents(ctx context.Context, of Kind) ([]Kept, error) {
	var rows []documentRow
	if err := s.db.WithContext(ctx).Where("kind = ?", of).Order("id").Find(&rows).Error; err != nil {
		return nil, wrap("read the "+string(of)+"s", err)
	}
	out := make([]Kept, len(rows))
	for i, r := range rows {
		out[i] = Kept{r.ID, r.Rev, r.At, []byte(r.Body)}
	}
	return out, nil
}

// PutDocument keeps a document over revision base, 0 for a new one or one that was removed, and returns its
// new revision. If it has another revision by now it is left alone, and the error is ErrDocumentChanged; but a
// write that would change nothing, such as one sent twice, counts as done.
func (s *Store) PutDocument(ctx context.Context, of Kind, id string, base int, body []byte) (rev int, err error) {
	err = s.write(ctx, "save the "+string(of), func(tx *gorm.DB) error {
		var now documentRow
		err := tx.First(&now, "kind = ? AND id = ?", of, id).Error
		if err != nil && !errors.Is(err, gorm.ErrRecordNotFound) {
			return err
		}
		if now.Rev != base {
			if now.Body == string(body) {
				rev = now.Rev
				return nil
			}
			if now.Rev == 0 {
				return ErrNoDocument
			}
			return ErrDocumentChanged
		}
		rev = base + 1
		return tx.Save(&documentRow{of, id, rev, s.now(), string(body)}).Error
	})
	return rev, err
}

// SetDocument keeps a document over whatever there is of its id.
func (s *Store) SetDocument(ctx context.Context, of Kind, id string, body []byte) error {
	return s.write(ctx, "save the "+string(of), func(tx *gorm.DB) error {
		row := documentRow{of, id, 1, s.now(), string(body)}
		return tx.Clauses(clause.OnConflict{
			Columns:   []clause.Column{{Name: "kind"}, {Name: "id"}},
			DoUpdates: clause.Assignments(map[string]any{"rev": gorm.Expr("rev + 1"), "at": row.At, "body": row.Body}),
		}).Create(&row).Error
	})
}

// AddDocuments keeps new documents, all or none. One of an id that is there already is left alone.
func (s *Store) AddDocuments(ctx context.Context, of Kind, all []Kept) error {
	if len(all) == 0 {
		return nil
	}
	rows := make([]documentRow, len(all))
	for i, x := range all {
		rows[i] = documentRow{of, x.ID, 1, s.now(), string(x.Body)}
	}
	return s.write(ctx, "save the "+string(of)+"s", func(tx *gorm.DB) error {
		return tx.Clauses(clause.OnConflict{DoNothing: true}).CreateInBatches(&rows, atOnce).Error
	})
}

// RemoveDocument removes a document; ErrNoDocument where there is none of that id.
func (s *Store) RemoveDocument(ctx context.Context, of Kind, id string) error {
	return s.write(ctx, "remove the "+string(of), func(tx *gorm.DB) error {
		res := tx.Where("kind = ? AND id = ?", of, id).Delete(&documentRow{})
		if res.Error == nil && res.RowsAffected == 0 {
			return ErrNoDocument
		}
		return res.Error
	})
}

// CanUse says that a piece's plans name a can.
type CanUse struct{ Can, Piece string }

// CansNamed lists which cans the pieces keep copies of, as they are now.
func (s *Store) CansNamed(ctx context.Context) ([]CanUse, error) {
	var out []CanUse
	err := s.db.WithContext(ctx).Raw(`SELECT DISTINCT json_extract(c.value, '$.id') AS can, p.name AS piece FROM pieces p
		JOIN revisions r ON r.piece_id = p.id AND r.rev = p.rev,
		json_each(CASE WHEN json_valid(r.body) THEN r.body ELSE '{}' END, '$.cans') c
		WHERE r.body LIKE '%"cans":%' ORDER BY p.id`).Scan(&out).Error
	return out, wrap("read which cans are used", err)
}
