package store

import (
	"context"
	"fmt"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/tone"
)

// Plan is a channel plan; Revision grows with every change.
type Plan struct {
	ID       int64  `db:"id"`
	Name     string `db:"name"`
	Revision int64  `db:"revision"`
	SavedAt  string `db:"saved_at"`
}

// Load is what one radio gets of a plan.
type Load struct {
	ID     int64  `db:"id" json:"id"`
	PlanID int64  `db:"plan_id" json:"plan_id"`
	Radio  string `db:"radio" json:"radio"`
}

// Entry is a channel in a slot of a load.
type Entry struct {
	ID        int64
	LoadID    int64
	Slot      int
	ChannelID int64
	ShortName string
	Scan      entry.Scan
	Channel   channel.Channel
}

// channelRow is a channel as it stands in the table and in the journal.
type channelRow struct {
	ID           int64  `db:"id" json:"id"`
	PlanID       int64  `db:"plan_id" json:"plan_id"`
	Name         string `db:"name" json:"name"`
	Receive      int64  `db:"receive_hz" json:"receive_hz"`
	Kind         string `db:"transmit_kind" json:"transmit_kind"`
	Offset       int64  `db:"offset_hz" json:"offset_hz"`
	Split        int64  `db:"split_hz" json:"split_hz"`
	TransmitTone string `db:"transmit_tone" json:"transmit_tone"`
	ReceiveTone  string `db:"receive_tone" json:"receive_tone"`
	Width        string `db:"bandwidth" json:"bandwidth"`
	Power        string `db:"power" json:"power"`
}

// entryRow is an entry as it stands in the table and in the journal.
type entryRow struct {
	ID        int64  `db:"id" json:"id"`
	LoadID    int64  `db:"load_id" json:"load_id"`
	Slot      int    `db:"slot" json:"slot"`
	ChannelID int64  `db:"channel_id" json:"channel_id"`
	ShortName string `db:"short_name" json:"short_name"`
	Scan      string `db:"scan" json:"scan"`
}

func toRow(id, planID int64, c channel.Channel) channelRow {
	return channelRow{
		ID: id, PlanID: planID, Name: c.Name, Receive: int64(c.Receive),
		Kind: string(c.Side.Kind), Offset: int64(c.Side.Offset), Split: int64(c.Side.Frequency),
		TransmitTone: c.TransmitTone.String(), ReceiveTone: c.ReceiveTone.String(), Width: string(c.Width), Power: string(c.Power),
	}
}

func (r channelRow) channel() (channel.Channel, error) {
	out, err := tone.Parse(r.TransmitTone)
	if err != nil {
		return channel.Channel{}, fmt.Errorf("channel %d: %w", r.ID, err)
	}
	in, err := tone.Parse(r.ReceiveTone)
	if err != nil {
		return channel.Channel{}, fmt.Errorf("channel %d: %w", r.ID, err)
	}
	return channel.Channel{
		Name: r.Name, Receive: freq.Hz(r.Receive),
		Side:         channel.TransmitSide{Kind: channel.Kind(r.Kind), Offset: freq.Offset(r.Offset), Frequency: freq.Hz(r.Split)},
		TransmitTone: out, ReceiveTone: in, Width: channel.Width(r.Width), Power: channel.Power(r.Power),
	}, nil
}

// Plans returns all plans, oldest first.
func (s *Store) Plans(ctx context.Context) ([]Plan, error) {
	var out []Plan
	if err := s.read.SelectContext(ctx, &out, "SELECT id, name, revision, saved_at FROM plan ORDER BY id"); err != nil {
		return nil, fmt.Errorf("read plans: %w", err)
	}
	return out, nil
}

// Plan returns one plan.
func (s *Store) Plan(ctx context.Context, id int64) (Plan, error) {
	var p Plan
	err := s.read.GetContext(ctx, &p, "SELECT id, name, revision, saved_at FROM plan WHERE id = ?", id)
	return p, found(err, fmt.Sprintf("plan %d", id))
}

// Loads returns the loads of a plan in the order in which they were made.
func (s *Store) Loads(ctx context.Context, planID int64) ([]Load, error) {
	var out []Load
	if err := s.read.SelectContext(ctx, &out, "SELECT id, plan_id, radio FROM load WHERE plan_id = ? ORDER BY id", planID); err != nil {
		return nil, fmt.Errorf("read loads: %w", err)
	}
	return out, nil
}

// Load returns one load.
func (s *Store) Load(ctx context.Context, id int64) (Load, error) {
	var l Load
	err := s.read.GetContext(ctx, &l, "SELECT id, plan_id, radio FROM load WHERE id = ?", id)
	return l, found(err, fmt.Sprintf("radio %d", id))
}

// Entries returns the entries of a load in the order of their slots.
func (s *Store) Entries(ctx context.Context, loadID int64) ([]Entry, error) {
	var rows []struct {
		entryRow
		C channelRow `db:"c"`
	}
	err := s.read.SelectContext(ctx, &rows, `SELECT e.id, e.load_id, e.slot, e.channel_id, e.short_name, e.scan,
			c.id AS "c.id", c.plan_id AS "c.plan_id", c.name AS "c.name", c.receive_hz AS "c.receive_hz",
			c.transmit_kind AS "c.transmit_kind", c.offset_hz AS "c.offset_hz", c.split_hz AS "c.split_hz",
			c.transmit_tone AS "c.transmit_tone", c.receive_tone AS "c.receive_tone", c.bandwidth AS "c.bandwidth", c.power AS "c.power"
		FROM entry e JOIN channel c ON c.id = e.channel_id WHERE e.load_id = ? ORDER BY e.slot`, loadID)
	if err != nil {
		return nil, fmt.Errorf("read entries: %w", err)
	}
	out := make([]Entry, 0, len(rows))
	for _, r := range rows {
		c, err := r.C.channel()
		if err != nil {
			return nil, err
		}
		out = append(out, Entry{
			ID: r.ID, LoadID: r.LoadID, Slot: r.Slot, ChannelID: r.ChannelID,
			ShortName: r.ShortName, Scan: entry.Scan(r.Scan), Channel: c,
		})
	}
	return out, nil
}

// NewPlan makes an empty plan with loads for the given radios.
func (s *Store) NewPlan(ctx context.Context, name, savedAt string, radios ...string) (Plan, []Load, error) {
	tx, err := s.write.BeginTxx(ctx, nil)
	if err != nil {
		return Plan{}, nil, fmt.Errorf("new plan: %w", err)
	}
	defer func() { _ = tx.Rollback() }() // no effect after Commit
	p := Plan{Name: name, Revision: 1, SavedAt: savedAt}
	if err := tx.GetContext(ctx, &p.ID, "INSERT INTO plan (name, revision, saved_at) VALUES (?, 1, ?) RETURNING id", name, savedAt); err != nil {
		return Plan{}, nil, fmt.Errorf("new plan: %w", err)
	}
	var loads []Load
	for _, r := range radios {
		l := Load{PlanID: p.ID, Radio: r}
		if err := tx.GetContext(ctx, &l.ID, "INSERT INTO load (plan_id, radio) VALUES (?, ?) RETURNING id", p.ID, r); err != nil {
			return Plan{}, nil, fmt.Errorf("new load: %w", err)
		}
		loads = append(loads, l)
	}
	if err := tx.Commit(); err != nil {
		return Plan{}, nil, fmt.Errorf("new plan: %w", err)
	}
	return p, loads, nil
}
