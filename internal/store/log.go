package store

import (
	"context"
	"encoding/json"
	"errors"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"rutile/internal/wire"
)

// logRow is an entry of a piece's log. Rows are never changed.
type logRow struct {
	Seq     int64 `gorm:"primaryKey"`
	PieceID uint
	ID      string
	Arrived time.Time
	Body    string
}

func (logRow) TableName() string { return "log" }

// withoutLog is a piece without its log, which has a table of its own.
func withoutLog(p *wire.Piece) *wire.Piece {
	if p.Log == nil {
		return p
	}
	out := *p
	out.Log = nil
	return &out
}

// addEntries adds those entries that are not there yet, and returns their ids.
func (s *Store) addEntries(tx *gorm.DB, piece uint, all []wire.Entry) (added []string, err error) {
	for _, e := range all {
		body, err := json.Marshal(e)
		if err != nil {
			return nil, err
		}
		row := logRow{PieceID: piece, ID: e.ID, Arrived: s.now(), Body: string(body)}
		res := tx.Clauses(clause.OnConflict{Columns: []clause.Column{{Name: "piece_id"}, {Name: "id"}}, DoNothing: true}).Create(&row)
		if res.Error != nil {
			return nil, res.Error
		}
		if res.RowsAffected > 0 {
			added = append(added, e.ID)
		}
	}
	return added, nil
}

// CanChange is how much more is in a can than before, in litres.
type CanChange struct {
	ID    string
	MoreL float64
}

// ErrLogFull tells that a piece's log holds no more entries.
var ErrLogFull = errors.New("the log of this piece is full")

// AddEntries adds entries to the log of a piece, those that are there already not again, and returns the ids of the new
// ones. What they took from cans is taken off in the same write: taken is asked which cans hold how much more or less
// because of the new ones. The errors are ErrNotFound where there is no such piece, and ErrLogFull.
func (s *Store) AddEntries(ctx context.Context, piece uint, all []wire.Entry, taken func(added []string) []CanChange) (added []string, err error) {
	err = s.write(ctx, "keep the log", func(tx *gorm.DB) error {
		var n int64
		if err := tx.Raw("SELECT count(*) FROM pieces WHERE id = ?", piece).Scan(&n).Error; err != nil {
			return err
		}
		if n == 0 {
			return ErrNotFound
		}
		if added, err = s.addEntries(tx, piece, all); err != nil {
			return err
		}
		if err := tx.Raw("SELECT count(*) FROM log WHERE piece_id = ?", piece).Scan(&n).Error; err != nil {
			return err
		}
		if n > wire.MaxEntries && len(added) > 0 {
			return ErrLogFull
		}
		if len(added) == 0 || taken == nil {
			return nil
		}
		for _, x := range taken(added) {
			if err := s.pour(tx, x); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return nil, err
	}
	return added, nil
}

// pour changes what is left in a can. One that is no longer there, or of which nobody knows how much it holds, is left
// alone.
func (s *Store) pour(tx *gorm.DB, x CanChange) error {
	var row documentRow
	err := tx.First(&row, "kind = ? AND id = ?", Cans, x.ID).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return nil
	}
	if err != nil {
		return err
	}
	can, err := wire.DecodeCan([]byte(row.Body))
	if err != nil || can.LeftL == nil {
		return nil
	}
	left := max(0, *can.LeftL+x.MoreL)
	if can.SizeL > 0 {
		left = min(left, max(can.SizeL, *can.LeftL))
	}
	can.LeftL = &left
	body, err := json.Marshal(can)
	if err != nil {
		return err
	}
	return tx.Save(&documentRow{Cans, row.ID, row.Rev + 1, s.now(), string(body)}).Error
}

// EntriesBy counts the entries of all logs by the device that they were written on.
func (s *Store) EntriesBy(ctx context.Context) (map[string]int, error) {
	var rows []struct {
		Device string
		N      int
	}
	err := s.db.WithContext(ctx).Raw(`SELECT json_extract(body, '$.device') AS device, count(*) AS n FROM log
		WHERE body LIKE '%"device":%' AND json_valid(body) GROUP BY 1`).Scan(&rows).Error
	out := make(map[string]int, len(rows))
	for _, r := range rows {
		out[r.Device] = r.N
	}
	return out, wrap("count the entries of devices", err)
}

// Log is a piece's log in the order in which it arrived, and its newest number; 0 where there is none. An entry that
// cannot be read is left out, and counted as lost.
func (s *Store) Log(ctx context.Context, piece uint) (out []wire.Entry, seq int64, lost int, err error) {
	var rows []logRow
	if err := s.db.WithContext(ctx).Where("piece_id = ?", piece).Order("seq").Find(&rows).Error; err != nil {
		return nil, 0, 0, wrap("read the log", err)
	}
	out = make([]wire.Entry, 0, len(rows))
	for _, r := range rows {
		seq = r.Seq
		e, err := wire.DecodeEntry([]byte(r.Body))
		if err != nil {
			lost++
			continue
		}
		out = append(out, e)
	}
	return out, seq, lost, nil
}

// LogHeads is the newest number of each piece's log.
func (s *Store) LogHeads(ctx context.Context) (map[uint]int64, error) {
	var rows []struct {
		PieceID uint
		Seq     int64
	}
	err := s.db.WithContext(ctx).Raw("SELECT piece_id, max(seq) AS seq FROM log GROUP BY piece_id").Scan(&rows).Error
	out := make(map[uint]int64, len(rows))
	for _, r := range rows {
		out[r.PieceID] = r.Seq
	}
	return out, wrap("read the log", err)
}
