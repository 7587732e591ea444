package store

import "fmt"

// ofLoad is a row of which a radio has one at the most: it goes and comes with the radio.
type ofLoad interface {
	Row
	load() int64
}

// strip drops what a radio has one of. It follows from what happens to the radio.
func (e *Edit) strip(loadID int64) error {
	var scans []Listening
	if err := e.tx.SelectContext(e.ctx, &scans, "SELECT "+tables["listening"].columns+" FROM listening WHERE load_id = ?", loadID); err != nil {
		return fmt.Errorf("read how load %d scans: %w", loadID, err)
	}
	for _, r := range scans {
		if err := e.remove(r); err != nil {
			return err
		}
	}
	var relays []Relay
	if err := e.tx.SelectContext(e.ctx, &relays, "SELECT "+tables["relay"].columns+" FROM relay WHERE load_id = ?", loadID); err != nil {
		return fmt.Errorf("read the relay of load %d: %w", loadID, err)
	}
	for _, r := range relays {
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
