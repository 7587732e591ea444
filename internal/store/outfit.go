package store

import (
	"context"
	"fmt"
)

// ofLoad is a row of which a radio has one at the most: it goes and comes with the radio.
type ofLoad interface {
	Row
	load() int64
}

// strip drops what a radio has one of. It follows from what happens to the radio.
func (e *Edit) strip(loadID int64) error {
	var scans []Listening
	if err := owned(e, "listening", loadID, &scans); err != nil {
		return err
	}
	var relays []Relay
	if err := owned(e, "relay", loadID, &relays); err != nil {
		return err
	}
	var beacons []Beacon
	return owned(e, "beacon", loadID, &beacons)
}

// owned removes the rows of a table that belong to a radio.
func owned[R Row](e *Edit, table string, loadID int64, rows *[]R) error {
	if err := e.tx.SelectContext(e.ctx, rows, "SELECT "+tables[table].columns+" FROM "+table+" WHERE load_id = ?", loadID); err != nil {
		return fmt.Errorf("read the %s of load %d: %w", table, loadID, err)
	}
	for _, r := range *rows {
		if err := e.remove(r); err != nil {
			return err
		}
	}
	return nil
}

// outfit puts back what a radio has one of, unless the radio is gone by now.
func (e *Edit) outfit(r reversal) error {
	was, had := r.was.(ofLoad)
	switch {
	case r.now != nil && !had:
		return e.remove(r.now)
	case !had:
		return nil
	}
	var possible bool
	err := e.tx.GetContext(e.ctx, &possible, `SELECT EXISTS (SELECT 1 FROM load WHERE id = ?1) AND NOT EXISTS (SELECT 1 FROM `+r.table+` WHERE load_id = ?1 AND id <> ?2)`, was.load(), r.id)
	if err != nil || !possible {
		return err
	}
	return e.write(r.now, was)
}

// Beacon returns the APRS station on a radio; one without an ID where nobody has set one up.
func (s *Store) Beacon(ctx context.Context, loadID int64) (Beacon, error) {
	var out []Beacon
	if err := s.read.SelectContext(ctx, &out, "SELECT "+tables["beacon"].columns+" FROM beacon WHERE load_id = ?", loadID); err != nil {
		return Beacon{}, fmt.Errorf("read the beacon of load %d: %w", loadID, err)
	}
	if len(out) == 0 {
		return Beacon{LoadID: loadID}, nil
	}
	return out[0], nil
}

// Beacons says what APRS station is on a radio.
func (e *Edit) Beacons(b Beacon) error {
	if b.ID == 0 {
		var err error
		if b.ID, err = e.ID("beacon"); err != nil {
			return err
		}
	}
	return e.Put(b)
}
