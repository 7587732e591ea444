package store

import (
	"context"
	"fmt"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

// Entry is a channel in a slot of a load.
type Entry struct {
	ID        int64
	LoadID    int64
	Slot      int
	ChannelID int64
	ShortName string
	Scan      entry.Scan
	Pinned    bool // a person chose the short name
	Channel   channel.Channel
	Repeater  listing.ID // the published statement that the channel was made from; zero for none
	Rev       int64      // the change in which it came into its slot
}

func (v Entry) row() entryRow {
	return entryRow{ID: v.ID, LoadID: v.LoadID, Slot: v.Slot, ChannelID: v.ChannelID, ShortName: v.ShortName, Scan: string(v.Scan), Pinned: v.Pinned}
}

func toRow(id, planID int64, c channel.Channel, of listing.ID) channelRow {
	return channelRow{
		ID: id, PlanID: planID, Name: c.Name, Receive: int64(c.Receive),
		Kind: string(c.Side.Kind), Offset: int64(c.Side.Offset), Split: int64(c.Side.Frequency),
		TransmitTone: c.TransmitTone.String(), ReceiveTone: c.ReceiveTone.String(), Width: string(c.Width), Power: string(c.Power),
		Source: of.Source, Key: of.Key,
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
	if err := s.read.SelectContext(ctx, &out, "SELECT "+tables["plan"].columns+" FROM plan ORDER BY id"); err != nil {
		return nil, fmt.Errorf("read plans: %w", err)
	}
	return out, nil
}

// Plan returns one plan.
func (s *Store) Plan(ctx context.Context, id int64) (Plan, error) {
	var p Plan
	err := s.read.GetContext(ctx, &p, "SELECT "+tables["plan"].columns+" FROM plan WHERE id = ?", id)
	return p, found(err, fmt.Sprintf("plan %d", id))
}

// Loads returns the loads of a plan in the order in which they were made; of
// all plans with 0.
func (s *Store) Loads(ctx context.Context, planID int64) ([]Load, error) {
	var out []Load
	if err := s.read.SelectContext(ctx, &out, "SELECT "+tables["load"].columns+" FROM load WHERE plan_id = ?1 OR ?1 = 0 ORDER BY id", planID); err != nil {
		return nil, fmt.Errorf("read loads: %w", err)
	}
	return out, nil
}

// Load returns one load.
func (s *Store) Load(ctx context.Context, id int64) (Load, error) {
	var l Load
	err := s.read.GetContext(ctx, &l, "SELECT "+tables["load"].columns+" FROM load WHERE id = ?", id)
	return l, found(err, fmt.Sprintf("radio %d", id))
}

// TeamSlots returns the numbers that everybody uses in a plan.
func (s *Store) TeamSlots(ctx context.Context, planID int64) ([]TeamSlot, error) {
	var out []TeamSlot
	if err := s.read.SelectContext(ctx, &out, "SELECT "+tables["team_slot"].columns+" FROM team_slot WHERE plan_id = ? ORDER BY number", planID); err != nil {
		return nil, fmt.Errorf("read team slots: %w", err)
	}
	return out, nil
}

var entriesOf = "SELECT " + columnsOf("entry", "e") + ", " + prefixed("channel", "c") + " FROM entry AS e JOIN channel AS c ON c.id = e.channel_id WHERE e.load_id = ? AND e.kind = '' ORDER BY e.slot"

// prefixed are the columns of a table that fill a field with that name.
func prefixed(table, as string) string {
	var parts []string
	for _, c := range strings.Split(tables[table].columns, ", ") {
		parts = append(parts, fmt.Sprintf(`%[1]s.%[2]s AS "%[1]s.%[2]s"`, as, c))
	}
	return strings.Join(parts, ", ")
}

// Entries returns the entries of a load in the order of their slots.
func (s *Store) Entries(ctx context.Context, loadID int64) ([]Entry, error) {
	var rows []struct {
		entryRow
		C channelRow `db:"c"`
	}
	err := s.read.SelectContext(ctx, &rows, entriesOf, loadID)
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
			ShortName: r.ShortName, Scan: entry.Scan(r.Scan), Pinned: r.Pinned, Channel: c, Repeater: listing.ID{Source: r.C.Source, Key: r.C.Key}, Rev: r.Rev,
		})
	}
	return out, nil
}

// NewPlan makes an empty plan for radios of the given profiles.
func (s *Store) NewPlan(ctx context.Context, p Plan, stamp Stamp, profiles ...string) (Plan, []Load, error) {
	var loads []Load
	err := s.transact(ctx, 0, Latest, func(e *Edit) (err error) {
		if p, err = e.AddPlan(p); err != nil {
			return err
		}
		for _, profile := range profiles {
			l, err := e.AddLoad(Unit{Profile: profile})
			if err != nil {
				return err
			}
			loads = append(loads, l)
		}
		return e.journal(stamp, "do", 0)
	})
	if err != nil {
		return Plan{}, nil, fmt.Errorf("new plan: %w", err)
	}
	p, err = s.Plan(ctx, p.ID)
	return p, loads, err
}
