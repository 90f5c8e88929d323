package store

import (
	"context"
	"errors"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"rutile/internal/format"
)

// studioRow is the one row of the studio's settings.
type studioRow struct {
	ID       uint
	Rev      int
	Settings format.Settings `gorm:"serializer:json"`
}

func (studioRow) TableName() string { return "studio" }

// Settings reads the studio's settings; false where none were ever saved.
func (s *Store) Settings(ctx context.Context) (format.Settings, bool, error) {
	var row studioRow
	err := s.db.WithContext(ctx).First(&row, 1).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return format.Settings{}, false, nil
	}
	return row.Settings, err == nil, wrap("read the studio's settings", err)
}

// SaveSettings writes the studio's settings.
func (s *Store) SaveSettings(ctx context.Context, set format.Settings) error {
	row := studioRow{ID: 1, Rev: 1, Settings: set}
	err := s.db.WithContext(ctx).Clauses(clause.OnConflict{
		Columns:   []clause.Column{{Name: "id"}},
		DoUpdates: clause.Assignments(map[string]any{"rev": gorm.Expr("rev + 1"), "settings": gorm.Expr("excluded.settings")}),
	}).Create(&row).Error
	return wrap("save the studio's settings", err)
}

// Since reads a piece and says what has changed in it after revision rev;
// nothing where that is the current one.
func (s *Store) Since(ctx context.Context, id uint, rev int) (Saved, []string, error) {
	var out Saved
	var changes []string
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		var err error
		if out, err = load(tx, id); err != nil || out.Rev == rev {
			return err
		}
		changes = changedSince(tx, id, rev, &out.Piece)
		return nil
	})
	return out, changes, wrap("read the piece", err)
}
