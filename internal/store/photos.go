package store

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"syscall"
	"time"

	"rutile/internal/wire"
)

// Photos is the folder of pictures beside the database; a subfolder has small ones of the same
// names.
const (
	Photos      = "photos"
	smallPhotos = "small"
)

// ErrNoPhoto tells that there is no such picture.
var ErrNoPhoto = errors.New("there is no such picture")

var (
	photoName  = regexp.MustCompile(wire.FormPhoto.Pattern)
	photoNames = regexp.MustCompile(strings.Trim(wire.FormPhoto.Pattern, "^$"))
)

func (s *Store) photoPath(name string, small bool) (string, error) {
	if !photoName.MatchString(name) {
		return "", ErrNoPhoto
	}
	if small {
		return filepath.Join(s.dir, Photos, smallPhotos, name), nil
	}
	return filepath.Join(s.dir, Photos, name), nil
}

// KeepPhoto stores a picture, large and small. One that is already there is left alone and
// reported. The error is ErrFull where the disk is.
func (s *Store) KeepPhoto(name string, large, small []byte) (already bool, err error) {
	if s.readOnly {
		return false, ErrReadOnly
	}
	paths := [2]string{}
	for i, isSmall := range []bool{true, false} {
		if paths[i], err = s.photoPath(name, isSmall); err != nil {
			return false, err
		}
	}
	if isFile(paths[0]) && isFile(paths[1]) {
		return true, nil
	}
	// The large one comes last: where it is, all of it is.
	for i, data := range [][]byte{small, large} {
		if err := writeWhole(paths[i], data); err != nil {
			if errors.Is(err, syscall.ENOSPC) || errors.Is(err, syscall.EDQUOT) {
				return false, fmt.Errorf("keep the picture: %w", ErrFull)
			}
			return false, fmt.Errorf("keep the picture: %w", err)
		}
	}
	return false, nil
}

func isFile(path string) bool {
	info, err := os.Stat(path)
	return err == nil && info.Mode().IsRegular()
}

// writeWhole writes a file so that it is there whole or not at all, and once it says so, after a
// power cut too.
func writeWhole(path string, data []byte) error {
	dir := filepath.Dir(path)
	if err := makeDir(dir); err != nil {
		return err
	}
	f, err := os.CreateTemp(dir, halfWritten+"*")
	if err != nil {
		return err
	}
	defer os.Remove(f.Name()) // once renamed there is none
	_, err = f.Write(data)
	if err == nil {
		err = f.Sync()
	}
	if cerr := f.Close(); err == nil {
		err = cerr
	}
	if err == nil {
		err = os.Rename(f.Name(), path)
	}
	if err == nil {
		err = syncDir(dir)
	}
	return err
}

// makeDir makes a folder and those that it lies in, each of them there after a power cut too.
func makeDir(dir string) error {
	if info, err := os.Stat(dir); err == nil && info.IsDir() {
		return nil
	}
	above := filepath.Dir(dir)
	if above != dir {
		if err := makeDir(above); err != nil {
			return err
		}
	}
	if err := os.Mkdir(dir, 0o700); err != nil && !errors.Is(err, fs.ErrExist) {
		return err
	}
	return syncDir(above)
}

// syncDir has the names in a folder written to the disk. Where folders cannot be synced, the system
// has its own way.
func syncDir(dir string) error {
	d, err := os.Open(dir)
	if err != nil {
		return err
	}
	defer d.Close()
	if err := d.Sync(); err != nil && !errors.Is(err, syscall.EINVAL) && !errors.Is(err, errors.ErrUnsupported) {
		return err
	}
	return nil
}

// Photo opens a picture; the caller closes it. The error is ErrNoPhoto where
// there is none of that name.
func (s *Store) Photo(name string, small bool) (*os.File, error) {
	path, err := s.photoPath(name, small)
	if err != nil {
		return nil, err
	}
	f, err := os.Open(path)
	if errors.Is(err, fs.ErrNotExist) {
		return nil, ErrNoPhoto
	}
	return f, err
}

// halfAge is how long something half written is left alone: it may be being written.
const halfAge = time.Hour

// halfWritten is how a file is called until all of it is there.
const halfWritten = ".new-"

// sweepHalves removes what a program that was ended left half written: files, and small pictures
// whose large one never came.
func (s *Store) sweepHalves(age time.Duration) {
	smalls, _ := os.ReadDir(filepath.Join(s.dir, Photos, smallPhotos))
	for _, f := range smalls {
		large, err := s.photoPath(f.Name(), false)
		if err != nil || isFile(large) {
			continue
		}
		if info, err := f.Info(); err == nil && s.now().Sub(info.ModTime()) >= age {
			_ = os.Remove(filepath.Join(s.dir, Photos, smallPhotos, f.Name()))
		}
	}
	for _, dir := range []string{Photos, filepath.Join(Photos, smallPhotos)} {
		left, _ := filepath.Glob(filepath.Join(s.dir, dir, halfWritten+"*"))
		for _, path := range left {
			if info, err := os.Stat(path); err == nil && s.now().Sub(info.ModTime()) >= age {
				_ = os.Remove(path)
			}
		}
	}
}

// SweepPhotos removes pictures older than an age that no piece, no log and no can shows, nor any
// earlier state of one that may be gone back to, and says how many.
func (s *Store) SweepPhotos(ctx context.Context, age time.Duration) (int, error) {
	if s.readOnly {
		return 0, nil
	}
	var names []string
	// json_each must not come to see a document that is no JSON.
	err := s.db.WithContext(ctx).Raw(`SELECT DISTINCT json_extract(p.value, '$.file') FROM revisions,
		json_each(CASE WHEN json_valid(revisions.body) THEN revisions.body ELSE '{}' END, '$.photos') p
		UNION SELECT p.value FROM log, json_each(CASE WHEN json_valid(log.body) THEN log.body ELSE '{}' END, '$.photos') p
		UNION SELECT json_extract(body, '$.photo') FROM documents WHERE kind = 'can' AND json_valid(body) AND json_extract(body, '$.photo') IS NOT NULL`).Scan(&names).Error
	var damaged []string
	if err == nil {
		err = s.db.WithContext(ctx).Raw(`SELECT body FROM revisions WHERE NOT json_valid(body) UNION ALL SELECT body FROM log WHERE NOT json_valid(body)`).Scan(&damaged).Error
	}
	if err != nil {
		return 0, wrap("read which pictures are shown", err)
	}
	// What a damaged document may have shown stays.
	for _, body := range damaged {
		names = append(names, photoNames.FindAllString(body, -1)...)
	}
	shown := make(map[string]bool, len(names))
	for _, n := range names {
		shown[n] = true
	}
	files, err := os.ReadDir(filepath.Join(s.dir, Photos))
	if errors.Is(err, fs.ErrNotExist) {
		return 0, nil
	}
	if err != nil {
		return 0, fmt.Errorf("read the pictures: %w", err)
	}
	s.sweepHalves(halfAge)
	n := 0
	for _, f := range files {
		info, err := f.Info()
		if err != nil || f.IsDir() || !photoName.MatchString(f.Name()) || shown[f.Name()] || s.now().Sub(info.ModTime()) < age {
			continue
		}
		for _, small := range []bool{false, true} {
			path, _ := s.photoPath(f.Name(), small)
			if err := os.Remove(path); err != nil && !errors.Is(err, fs.ErrNotExist) {
				return n, fmt.Errorf("remove a picture nobody shows: %w", err)
			}
		}
		n++
	}
	return n, nil
}
