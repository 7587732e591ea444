package store

import (
	"context"
	"fmt"
)

// Relay returns the relay on a vehicle unit; the usual where nobody has said anything.
func (s *Store) Relay(ctx context.Context, loadID int64) (Relay, error) {
	var out []Relay
	if err := s.read.SelectContext(ctx, &out, "SELECT "+tables["relay"].columns+" FROM relay WHERE load_id = ?", loadID); err != nil {
		return Relay{}, fmt.Errorf("read the relay of load %d: %w", loadID, err)
	}
	if len(out) == 0 {
		return Relay{LoadID: loadID, Way: "both", Timeout: -1, Mine: 8, Theirs: 12, Over: 15, Usable: 0.5, Gain: 3, Ticks: "{}"}, nil
	}
	return out[0], nil
}

// Relays says how a vehicle unit relays.
func (e *Edit) Relays(r Relay) error {
	if r.ID == 0 {
		var err error
		if r.ID, err = e.ID("relay"); err != nil {
			return err
		}
	}
	return e.Put(r)
}
