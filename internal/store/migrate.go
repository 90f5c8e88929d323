package store

import (
	"github.com/go-gormigrate/gormigrate/v2"
	"gorm.io/gorm"
)

// The migrations are never changed once released; a change to a table is a
// new one at the end.
var migrations = []*gormigrate.Migration{
	{
		ID: "001_pieces",
		Migrate: run(
			`CREATE TABLE pieces (
				id INTEGER PRIMARY KEY AUTOINCREMENT,
				rev INTEGER NOT NULL,
				name TEXT NOT NULL,
				made INTEGER NOT NULL DEFAULT 0,
				use TEXT,
				site TEXT,
				created_at DATETIME NOT NULL,
				updated_at DATETIME NOT NULL
			)`,
			`CREATE TABLE zones (
				id INTEGER PRIMARY KEY AUTOINCREMENT,
				piece_id INTEGER NOT NULL REFERENCES pieces(id) ON DELETE CASCADE,
				position INTEGER NOT NULL,
				key TEXT NOT NULL,
				name TEXT NOT NULL,
				substrate TEXT NOT NULL,
				finish TEXT NOT NULL,
				survey TEXT NOT NULL,
				UNIQUE (piece_id, key)
			)`,
			`CREATE TABLE steps (
				id INTEGER PRIMARY KEY AUTOINCREMENT,
				zone_id INTEGER NOT NULL REFERENCES zones(id) ON DELETE CASCADE,
				position INTEGER NOT NULL,
				do TEXT NOT NULL,
				body TEXT NOT NULL
			)`,
			`CREATE INDEX steps_of_zone ON steps (zone_id, position)`,
			`CREATE TABLE revisions (
				piece_id INTEGER NOT NULL REFERENCES pieces(id) ON DELETE CASCADE,
				rev INTEGER NOT NULL,
				at DATETIME NOT NULL,
				body TEXT NOT NULL,
				PRIMARY KEY (piece_id, rev)
			)`,
		),
	},
	{
		ID: "002_studio",
		Migrate: run(
			`CREATE TABLE studio (
				id INTEGER PRIMARY KEY CHECK (id = 1),
				rev INTEGER NOT NULL,
				settings TEXT NOT NULL
			)`,
		),
	},
	{
		ID: "003_look_over",
		Migrate: run(
			`ALTER TABLE pieces ADD COLUMN parts TEXT`,
			`ALTER TABLE pieces ADD COLUMN take_apart TEXT`,
			`ALTER TABLE pieces ADD COLUMN photos TEXT`,
			`ALTER TABLE pieces ADD COLUMN history TEXT`,
		),
	},
	{
		ID: "004_readings",
		Migrate: run(
			`CREATE TABLE readings (
				id INTEGER PRIMARY KEY AUTOINCREMENT,
				at DATETIME NOT NULL,
				by TEXT NOT NULL,
				body TEXT NOT NULL,
				UNIQUE (at, by)
			)`,
		),
	},
}

func run(statements ...string) gormigrate.MigrateFunc {
	return func(tx *gorm.DB) error {
		for _, s := range statements {
			if err := tx.Exec(s).Error; err != nil {
				return err
			}
		}
		return nil
	}
}

func migrate(db *gorm.DB) error {
	o := *gormigrate.DefaultOptions
	o.UseTransaction = true
	o.ValidateUnknownMigrations = true
	return gormigrate.New(db, &o, migrations).Migrate()
}
