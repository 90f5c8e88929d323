package store

import (
	"context"
	"errors"
	"reflect"

	"gorm.io/gorm"

	"rutile/internal/wire"
)

// studioRow is the one row of the studio's settings.
type studioRow struct {
	ID       uint
	Rev      int
	Settings wire.Settings `gorm:"serializer:json"`
}

func (studioRow) TableName() string { return "studio" }

// Settings reads the studio's settings and their revision, which is 0 where none were ever saved.
func (s *Store) Settings(ctx context.Context) (wire.Settings, int, error) {
	var row studioRow
	err := s.db.WithContext(ctx).First(&row, 1).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return wire.Settings{}, 0, nil
	}
	return row.Settings, row.Rev, wrap("read the studio's settings", err)
}

// AnyRevision saves settings over whatever revision there is.
const AnyRevision = -1

// ErrSettingsChanged is a write of settings that was refused because they have changed meanwhile.
var ErrSettingsChanged = errors.New("the studio's settings have been changed elsewhere")

// SaveSettings writes the studio's settings over revision base, and returns their new one. If they have
// another revision by now, they are left alone and the error is ErrSettingsChanged; but a write that
// would change nothing, such as one sent twice, counts as done.
func (s *Store) SaveSettings(ctx context.Context, base int, set wire.Settings) (rev int, err error) {
	err = s.write(ctx, "save the studio's settings", func(tx *gorm.DB) error {
		var now studioRow
		err := tx.First(&now, 1).Error
		if err != nil && !errors.Is(err, gorm.ErrRecordNotFound) {
			return err
		}
		if rev = now.Rev + 1; base != AnyRevision && base != now.Rev {
			if reflect.DeepEqual(now.Settings, set) {
				rev = now.Rev
				return nil
			}
			return ErrSettingsChanged
		}
		return tx.Save(&studioRow{ID: 1, Rev: rev, Settings: set}).Error
	})
	return rev, err
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
