package plan

import (
	"context"
	"fmt"
	"os"
	"slices"

	"mnemos/core/channel"
	"mnemos/core/compare"
	"mnemos/core/document"
	"mnemos/core/freq"
	"mnemos/core/intake"
	"mnemos/core/limit"
	"mnemos/core/table"
	"mnemos/core/tone"
	"mnemos/internal/exchange"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Temporary keeps the content of a file while something is done with it.
func Temporary(data []byte, f func(path string) error) error {
	file, err := os.CreateTemp("", "mnemos-*")
	if err != nil {
		return fmt.Errorf("keep the file: %w", err)
	}
	defer func() { _ = os.Remove(file.Name()) }() // a temporary file
	if _, err := file.Write(data); err != nil {
		return fmt.Errorf("keep the file: %w", err)
	}
	if err := file.Close(); err != nil {
		return fmt.Errorf("keep the file: %w", err)
	}
	return f(file.Name())
}

// Against says how a file differs from what a radio is to hold: what it has
// instead, in addition, or not at all.
func (p *Plans) Against(ctx context.Context, loadID int64, path string, v intake.Viewpoint) (compare.Result, error) {
	_, r, err := p.against(ctx, loadID, path, v)
	return r, err
}

func (p *Plans) against(ctx context.Context, loadID int64, path string, v intake.Viewpoint) (*desk, compare.Result, error) {
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return nil, compare.Result{}, err
	}
	lines, err := d.fromFile(ctx, path, v)
	if err != nil {
		return nil, compare.Result{}, err
	}
	var was, is []compare.Item
	for _, e := range d.entries {
		was = append(was, compare.Of(0, e.Slot, e.ShortName, e.Scan, e.Channel))
	}
	for _, l := range lines {
		is = append(is, compare.Item{Line: l})
	}
	return d, compare.Lists(was, is), nil
}

// fromFile are the channels of a file for the radio of a desk.
func (d *desk) fromFile(ctx context.Context, path string, v intake.Viewpoint) (out []table.Line, err error) {
	f := &fault.Invalid{}
	if text, err := os.ReadFile(path); err == nil {
		if image, err := document.ReadImage(text); image.Format == document.ImageFormat {
			if err != nil {
				f.Add("file", "%v", err)
				return nil, f
			}
			return d.fromImage(image), nil
		}
	}
	doc, rows, isPlan, err := exchange.ReadPlan(path)
	if err != nil {
		f.Add("file", "%v", err)
		return nil, f
	}
	if isPlan {
		return d.fromPlan(doc), nil
	}
	if len(rows) == 0 || len(rows) > limit.Rows {
		f.Add("file", "a radio is compared with 1 to %d rows, and these are %d", limit.Rows, len(rows))
		return nil, f
	}
	lines, ask, err := d.lines(ctx, rows, v)
	if err != nil {
		return nil, err
	}
	if ask != nil {
		f.Add("viewpoint", "whose TX is it? Either: %s Or: %s", ask.Operator, ask.Repeater)
		return nil, f
	}
	free := d.radio.Slots.First
	for _, l := range lines {
		if l.why != "" {
			continue
		}
		if l.Slot == 0 { // it stands where it stands already, or next
			if i := slices.IndexFunc(d.entries, func(e store.Entry) bool { return same(e.Channel, l.Channel) }); i >= 0 {
				l.Slot = d.entries[i].Slot
			} else {
				l.Slot = free
			}
		}
		free = l.Slot + 1
		out = append(out, l.Line)
	}
	return out, nil
}

func (d *desk) fromImage(image document.Image) (out []table.Line) {
	for _, r := range image.Slots {
		c := channel.New(freq.Hz(r.Receive))
		c.Name, c.Width, c.Power = r.Name, r.Width, r.Power
		for _, e := range d.entries { // a radio has short names only
			if e.ShortName == r.Name && r.Name != "" {
				c.Name = e.Channel.Name
			}
		}
		switch {
		case r.Transmit == nil:
			c.Side = channel.TransmitSide{Kind: channel.Blocked}
		default:
			c.Side = channel.ShiftSide(freq.Hz(*r.Transmit).Sub(c.Receive))
		}
		for _, side := range []struct {
			text string
			to   *tone.Tone
		}{{r.Out, &c.TransmitTone}, {r.In, &c.ReceiveTone}} {
			if t, err := tone.Parse(side.text); err == nil { // written so by us, under a checksum
				*side.to = t
			}
		}
		out = append(out, table.Line{Slot: r.Slot, Short: r.Name, Scan: r.Scan, Channel: c})
	}
	return out
}

// fromPlan is what the radio of the same name has in another plan, or of the same
// profile, or else all channels under their numbers.
func (d *desk) fromPlan(doc document.Plan) (out []table.Line) {
	for _, is := range []func(document.Unit) bool{
		func(u document.Unit) bool { return u.Name == d.unit.Name && u.Profile == d.unit.Profile },
		func(u document.Unit) bool { return u.Title() == d.unit.Title() },
		func(u document.Unit) bool { return u.Profile == d.unit.Profile },
	} {
		if i := slices.IndexFunc(doc.Units, is); i >= 0 {
			for _, e := range doc.Units[i].Entries {
				out = append(out, table.Line{Slot: e.Slot, Short: e.Short, Scan: e.Scan, Channel: doc.Channels[e.Channel-1].Channel})
			}
			return out
		}
	}
	for i, c := range doc.Channels {
		l := table.Line{Slot: i + 1, Scan: "yes", Channel: c.Channel}
		if c.Number != nil {
			l.Slot = *c.Number
		}
		out = append(out, l)
	}
	return out
}

// Take takes some of what differs from a file into a radio, as one step: parts are
// the places in the comparison.
func (p *Plans) Take(ctx context.Context, loadID int64, path string, v intake.Viewpoint, parts []int, revision int64) (*Ledger, error) {
	d, r, err := p.against(ctx, loadID, path, v)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	var taken []compare.Difference
	for _, i := range parts {
		if i < 0 || i >= len(r.Differences) {
			f.Add("parts", "there is no difference %d any more: compare again", i+1)
			return nil, f
		}
		taken = append(taken, r.Differences[i])
	}
	if len(taken) == 0 {
		f.Add("parts", "choose what to take")
		return nil, f
	}
	shown, err := p.called(ctx, d.plan.ID, d.radio.Names)
	if err != nil {
		return nil, err
	}
	return p.change(ctx, d, revision, fmt.Sprintf("take %s from a file", channels(len(taken))), func(x *store.Edit) error {
		used := d.memory()
		for _, t := range taken { // what goes makes room
			if t.Is != nil {
				continue
			}
			e, _ := d.at(t.Was.Slot)
			if err := x.DropEntry(e.ID); err != nil {
				return err
			}
			if err := x.DropChannel(e.ChannelID); err != nil {
				return err
			}
			used.Used = slices.DeleteFunc(used.Used, func(s int) bool { return s == e.Slot })
		}
		var placings []store.Placing
		for _, t := range taken {
			if t.Was == nil || t.Is == nil {
				continue
			}
			e, _ := d.at(t.Was.Slot)
			to := e
			to.Channel, to.Scan = t.Is.Channel, t.Is.Scan
			if t.Is.Short != "" && t.Is.Short != e.ShortName && !shown.taken(e.ChannelID)(t.Is.Short) {
				to.ShortName, to.Pinned = t.Is.Short, true
			}
			if err := x.SetChannel(e.ChannelID, to.Channel, link(e, to.Channel)); err != nil {
				return err
			}
			if err := x.SetEntry(to); err != nil {
				return err
			}
			if t.Is.Slot != e.Slot && d.radio.Slots.Holds(t.Is.Slot) && !slices.Contains(used.Used, t.Is.Slot) {
				placings = append(placings, store.Placing{Entry: to, To: t.Is.Slot})
				used.Used = append(used.Used, t.Is.Slot)
			}
		}
		if err := x.Arrange(placings); err != nil {
			return err
		}
		for _, t := range taken {
			if t.Was != nil || !d.radio.CanReceive(t.Is.Channel.Receive) {
				continue
			}
			free := used.Vacant(t.Is.Slot, 1)
			if len(free) == 0 {
				break
			}
			used.Used = append(used.Used, free[0])
			e := store.Entry{LoadID: d.load.ID, Slot: free[0], ShortName: t.Is.Short, Scan: t.Is.Scan, Channel: t.Is.Channel}
			if e.ShortName == "" || shown.taken(0)(e.ShortName) {
				e.ShortName = shown.name(0, e.Channel.Name)
			}
			if err := add(x, e); err != nil {
				return err
			}
		}
		return nil
	})
}
