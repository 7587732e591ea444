package store

import (
	"context"
	"fmt"
)

// Standings returns how far channels have come, by load and channel, in a plan.
func (s *Store) Standings(ctx context.Context, planID int64) (map[int64]map[int64]Standing, error) {
	var rows []Standing
	err := s.read.SelectContext(ctx, &rows, "SELECT "+columnsOf("standing", "s")+" FROM standing AS s JOIN load ON load.id = s.load_id WHERE load.plan_id = ?", planID)
	if err != nil {
		return nil, fmt.Errorf("read standings: %w", err)
	}
	out := map[int64]map[int64]Standing{}
	for _, r := range rows {
		if out[r.LoadID] == nil {
			out[r.LoadID] = map[int64]Standing{}
		}
		out[r.LoadID][r.ChannelID] = r
	}
	return out, nil
}

// Stand says how far a channel has come in a radio.
func (e *Edit) Stand(st Standing) error {
	var now []Standing
	if err := e.tx.SelectContext(e.ctx, &now, "SELECT "+tables["standing"].columns+" FROM standing WHERE load_id = ? AND channel_id = ?", st.LoadID, st.ChannelID); err != nil {
		return fmt.Errorf("read standings: %w", err)
	}
	var err error
	if len(now) > 0 {
		st.ID = now[0].ID
	} else if st.ID, err = e.ID("standing"); err != nil {
		return err
	}
	return e.Put(st)
}

// forget drops what is known of a channel in all radios, or of all channels in a
// radio. It follows from what happens to them, so nobody needs to have seen it.
func (e *Edit) forget(column string, id int64) error {
	var rows []Standing
	if err := e.tx.SelectContext(e.ctx, &rows, "SELECT "+tables["standing"].columns+" FROM standing WHERE "+column+" = ?", id); err != nil {
		return fmt.Errorf("read standings: %w", err)
	}
	for _, r := range rows {
		if err := e.remove(r); err != nil {
			return err
		}
	}
	return nil
}
