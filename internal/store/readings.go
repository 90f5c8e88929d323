package store

import (
	"context"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"rutile/internal/instruments"
)

// readingRow is one imported reading.
type readingRow struct {
	ID   uint
	At   time.Time
	By   string
	Body map[instruments.Quantity]float64 `gorm:"serializer:json"`
}

func (readingRow) TableName() string { return "readings" }

// AddReadings keeps imported readings, all or none. One of the same source and
// moment takes the place of the one before.
func (s *Store) AddReadings(ctx context.Context, rs []instruments.Reading) error {
	if len(rs) == 0 {
		return nil
	}
	rows := make([]readingRow, len(rs))
	for i, r := range rs {
		rows[i] = readingRow{At: r.At.UTC(), By: r.By, Body: r.Values}
	}
	return s.write(ctx, "keep the readings", func(tx *gorm.DB) error {
		return tx.Clauses(clause.OnConflict{
			Columns:   []clause.Column{{Name: "at"}, {Name: "by"}},
			DoUpdates: clause.AssignmentColumns([]string{"body"}),
		}).CreateInBatches(&rows, atOnce).Error
	})
}

// LastReadings are the imported readings of the last span before the newest of
// them, the oldest first, no more than most.
func (s *Store) LastReadings(ctx context.Context, span time.Duration, most int) ([]instruments.Reading, error) {
	var newest readingRow
	db := s.db.WithContext(ctx)
	if err := db.Order("at DESC").Limit(1).Find(&newest).Error; err != nil || newest.ID == 0 {
		return nil, wrap("read the readings", err)
	}
	var rows []readingRow
	if err := db.Where("at >= ?", newest.At.Add(-span)).Order("at DESC, id DESC").Limit(most).Find(&rows).Error; err != nil {
		return nil, wrap("read the readings", err)
	}
	out := make([]instruments.Reading, len(rows))
	for i, r := range rows {
		out[len(rows)-1-i] = instruments.Reading{At: r.At, By: r.By, Values: r.Body}
	}
	return out, nil
}
