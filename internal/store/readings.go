package store

import (
	"context"
	"errors"
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
// them, the oldest first, no more than most. One dated after now counts for nothing here: it would
// hide all others.
func (s *Store) LastReadings(ctx context.Context, now time.Time, span time.Duration, most int) ([]instruments.Reading, error) {
	var newest readingRow
	db := s.db.WithContext(ctx)
	if err := db.Where("at <= ?", now.UTC()).Order("at DESC").Limit(1).Find(&newest).Error; err != nil || newest.ID == 0 {
		return nil, wrap("read the readings", err)
	}
	var rows []readingRow
	if err := db.Where("at >= ? AND at <= ?", newest.At.Add(-span), now.UTC()).Order("at DESC, id DESC").Limit(most).Find(&rows).Error; err != nil {
		return nil, wrap("read the readings", err)
	}
	out := make([]instruments.Reading, len(rows))
	for i, r := range rows {
		out[len(rows)-1-i] = r.reading().Reading
	}
	return out, nil
}

// ErrNoReading tells that there is no such reading.
var ErrNoReading = errors.New("there is no such reading")

// KeptReading is an imported reading with its number.
type KeptReading struct {
	ID uint
	instruments.Reading
}

func (r *readingRow) reading() KeptReading {
	return KeptReading{r.ID, instruments.Reading{At: r.At, By: r.By, Values: r.Body}}
}

// Source is where imported readings come from: a file, by its name.
type Source struct {
	Name     string
	Count    int
	From, To time.Time
}

// Sources lists where imported readings come from, the one with the newest reading first.
func (s *Store) Sources(ctx context.Context) ([]Source, error) {
	rows, err := s.db.WithContext(ctx).Raw("SELECT by, count(*), min(at), max(at) FROM readings GROUP BY by ORDER BY max(at) DESC, by").Rows()
	if err != nil {
		return nil, wrap("read the readings", err)
	}
	defer rows.Close()
	var out []Source
	for rows.Next() {
		var x Source
		var from, to string // what aggregates return has no type
		if err := rows.Scan(&x.Name, &x.Count, &from, &to); err != nil {
			return nil, wrap("read the readings", err)
		}
		if x.From, err = keptTime(from); err == nil {
			x.To, err = keptTime(to)
		}
		if err != nil {
			return nil, wrap("read the readings", err)
		}
		out = append(out, x)
	}
	return out, wrap("read the readings", rows.Err())
}

// keptTime reads a time as the driver writes it.
func keptTime(s string) (time.Time, error) {
	return time.Parse("2006-01-02 15:04:05.999999999-07:00", s)
}

// ReadingsOf lists readings of a source, the newest first, after the first skip of them and no more
// than most.
func (s *Store) ReadingsOf(ctx context.Context, source string, skip, most int) ([]KeptReading, error) {
	var rows []readingRow
	err := s.db.WithContext(ctx).Where("by = ?", source).Order("at DESC, id DESC").Offset(skip).Limit(most).Find(&rows).Error
	out := make([]KeptReading, len(rows))
	for i := range rows {
		out[i] = rows[i].reading()
	}
	return out, wrap("read the readings", err)
}

// Reading reads one imported reading; ErrNoReading where there is none of that number.
func (s *Store) Reading(ctx context.Context, id uint) (KeptReading, error) {
	var row readingRow
	err := s.db.WithContext(ctx).First(&row, id).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return KeptReading{}, ErrNoReading
	}
	return row.reading(), wrap("read the reading", err)
}

// PutReading keeps a reading under a number: a correction of the one that has it, or one that was
// removed once more. Another of the same source and moment gives way to it.
func (s *Store) PutReading(ctx context.Context, r KeptReading) error {
	row := readingRow{ID: r.ID, At: r.At.UTC(), By: r.By, Body: r.Values}
	return s.write(ctx, "keep the reading", func(tx *gorm.DB) error {
		if err := tx.Where("at = ? AND by = ? AND id <> ?", row.At, row.By, row.ID).Delete(&readingRow{}).Error; err != nil {
			return err
		}
		return tx.Save(&row).Error
	})
}

// RemoveReading removes one imported reading; ErrNoReading where there is none of that number.
func (s *Store) RemoveReading(ctx context.Context, id uint) error {
	return s.write(ctx, "remove the reading", func(tx *gorm.DB) error {
		res := tx.Delete(&readingRow{}, id)
		if res.Error == nil && res.RowsAffected == 0 {
			return ErrNoReading
		}
		return res.Error
	})
}

// RemoveSource removes all readings of a source, and says how many there were.
func (s *Store) RemoveSource(ctx context.Context, source string) (n int, err error) {
	err = s.write(ctx, "remove the readings", func(tx *gorm.DB) error {
		res := tx.Where("by = ?", source).Delete(&readingRow{})
		n = int(res.RowsAffected)
		return res.Error
	})
	return n, err
}
