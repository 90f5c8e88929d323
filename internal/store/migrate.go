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
	{
		// The document of a piece's current revision is what the piece is; its zones and steps
		// as rows said the same a second time, and nothing looked for them.
		ID: "005_documents",
		Migrate: run(
			// Every program wrote the document of a revision with the rows of the same. A piece
			// that lacks it all the same gets it from its rows.
			`INSERT INTO revisions (piece_id, rev, at, body)
			SELECT p.id, p.rev, p.updated_at, json_patch('{}', json_object(
				'format', 'rutile/piece', 'version', 1, 'name', p.name, 'made', nullif(p.made, 0),
				'use', json(p.use), 'site', json(p.site), 'parts', json(p.parts), 'take_apart', json(p.take_apart),
				'photos', json(p.photos), 'history', json(p.history),
				'zones', json((SELECT json_group_array(json(zone)) FROM (
					SELECT json_set(z.survey, '$.steps', json((
						SELECT json_group_array(json(body)) FROM (SELECT s.body FROM steps s WHERE s.zone_id = z.id ORDER BY s.position)
					))) AS zone FROM zones z WHERE z.piece_id = p.id ORDER BY z.position)))
			))
			FROM pieces p WHERE NOT EXISTS (SELECT 1 FROM revisions r WHERE r.piece_id = p.id AND r.rev = p.rev)`,
			`DROP TABLE steps`,
			`DROP TABLE zones`,
			`ALTER TABLE pieces DROP COLUMN made`,
			`ALTER TABLE pieces DROP COLUMN use`,
			`ALTER TABLE pieces DROP COLUMN site`,
			`ALTER TABLE pieces DROP COLUMN parts`,
			`ALTER TABLE pieces DROP COLUMN take_apart`,
			`ALTER TABLE pieces DROP COLUMN photos`,
			`ALTER TABLE pieces DROP COLUMN history`,
		),
	},
	{
		// Cans, blends and palettes: each a document of its own.
		ID: "006_shelf",
		Migrate: run(
			`CREATE TABLE documents (
				kind TEXT NOT NULL,
				id TEXT NOT NULL,
				rev INTEGER NOT NULL,
				at DATETIME NOT NULL,
				body TEXT NOT NULL,
				PRIMARY KEY (kind, id)
			)`,
		),
	},
	{
		// What was done on a piece. Entries are only ever added; an entry is known by its piece and the id that it
		// was given where it was written.
		ID: "007_log",
		Migrate: run(
			`CREATE TABLE log (
				seq INTEGER PRIMARY KEY AUTOINCREMENT,
				piece_id INTEGER NOT NULL REFERENCES pieces(id) ON DELETE CASCADE,
				id TEXT NOT NULL,
				arrived DATETIME NOT NULL,
				body TEXT NOT NULL,
				UNIQUE (piece_id, id)
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
