package store

import (
	"context"
	"errors"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"rutile/internal/wire"
)

// studioRow is the one row of the studio's settings.
type studioRow struct {
	ID       uint
	Rev      int
	Settings wire.Settings `gorm:"serializer:json"`
}

func (studioRow) TableName() string { return "studio" }

// Settings reads the studio's settings; false where none were ever saved.
func (s *Store) Settings(ctx context.Context) (wire.Settings, bool, error) {
	var row studioRow
	err := s.db.WithContext(ctx).First(&row, 1).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return wire.Settings{}, false, nil
	}
	return row.Settings, err == nil, wrap("read the studio's settings", err)
}

// SaveSettings writes the studio's settings.
func (s *Store) SaveSettings(ctx context.Context, set wire.Settings) error {
	row := studioRow{ID: 1, Rev: 1, Settings: set}
	return s.write(ctx, "save the studio's settings", func(tx *gorm.DB) error {
		return tx.Clauses(clause.OnConflict{
			Columns:   []clause.Column{{Name: "id"}},
			DoUpdates: clause.Assignments(map[string]any{"rev": gorm.Expr("rev + 1"), "settings": gorm.Expr("excluded.settings")}),
		}).Create(&row).Error
	})
}

// Since reads a piece and says what has changed in it after revision rev;
// nothing where that is the current one.
func (s *Store) Since(ctx context.Context, id uint, rev int) (wire.Saved, []string, error) {
	db := s.db.WithContext(ctx)
	out, err := load(db, id)
	if err != nil || out.Rev == rev {
		return out, nil, wrap("read the piece", err)
	}
	return out, changedSince(db, id, rev, &out.Piece), nil
}
