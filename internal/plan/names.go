package plan

import (
	"context"
	"fmt"
	"maps"
	"slices"
	"sync"

	"mnemos/core/naming"
	"mnemos/core/radio"
	"mnemos/core/slots"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// called is what the channels of a plan are called on displays of one kind. All
// radios with such a display show the same, so that team mates read one word.
type called struct {
	limits radio.Names
	group  naming.Group
	of     map[int64]string // by channel
	by     map[string]int64
	pinned map[int64]bool
}

// alike reports whether two displays show the same names.
func alike(a, b radio.Names) bool { return a.Length == b.Length && a.Characters == b.Characters }

// spoken remembers the names until anything changes: they are asked for at each key
// that somebody types on the line.
type spoken struct {
	mu   sync.Mutex
	head int64 // the last change of anything when they were read
	of   map[string]*called
}

// copy is one that can be added to.
func (c *called) copy() *called {
	return &called{c.limits, maps.Clone(c.group), maps.Clone(c.of), maps.Clone(c.by), maps.Clone(c.pinned)}
}

// called returns the names for the display of a radio.
func (p *Plans) called(ctx context.Context, planID int64, limits radio.Names) (*called, error) {
	head, err := p.store.Head(ctx) // before they are read
	if err != nil {
		return nil, err
	}
	key := fmt.Sprint(planID, limits.Length, limits.Characters)
	p.spoken.mu.Lock()
	known := p.spoken.of[key]
	if p.spoken.head != head {
		known, p.spoken.head, p.spoken.of = nil, head, map[string]*called{}
	}
	p.spoken.mu.Unlock()
	if known == nil {
		if known, err = p.names(ctx, planID, limits); err != nil {
			return nil, err
		}
		p.spoken.mu.Lock()
		if p.spoken.head == head {
			p.spoken.of[key] = known
		}
		p.spoken.mu.Unlock()
	}
	return known.copy(), nil
}

func (p *Plans) names(ctx context.Context, planID int64, limits radio.Names) (*called, error) {
	loads, err := p.equipped(ctx, planID)
	if err != nil {
		return nil, err
	}
	c := &called{limits: limits, of: map[int64]string{}, by: map[string]int64{}, pinned: map[int64]bool{}}
	long := map[int64]string{}
	for _, l := range loads {
		entries, err := p.store.Entries(ctx, l.ID)
		if err != nil {
			return nil, err
		}
		for _, e := range entries {
			long[e.ChannelID] = e.Channel.Name
			if alike(l.Unit.Radio.Names, limits) && e.ShortName != "" {
				c.keep(e.ChannelID, e.ShortName)
				c.pinned[e.ChannelID] = c.pinned[e.ChannelID] || e.Pinned
			}
		}
	}
	all := make([]string, 0, len(long))
	for _, name := range long {
		all = append(all, name)
	}
	c.group = naming.Among(all)
	return c, nil
}

// more counts the names of channels that are being made.
func (c *called) more(long []string) {
	for w, n := range naming.Among(long) {
		c.group[w] += n
	}
}

// keep takes a name that a channel has; the first one counts.
func (c *called) keep(channel int64, short string) {
	if _, has := c.of[channel]; has || short == "" {
		return
	}
	c.of[channel] = short
	if _, taken := c.by[short]; !taken {
		c.by[short] = channel
	}
}

// free reports whether nobody but a channel has a name.
func (c *called) taken(channel int64) func(string) bool {
	return func(s string) bool {
		by, is := c.by[s]
		return is && (by != channel || channel == 0)
	}
}

// name returns what a channel is called: what it is called already, or else a new
// name for it, which is kept. A new channel has no number yet.
func (c *called) name(channel int64, long string) string {
	if s, has := c.of[channel]; has {
		return s
	}
	s := c.group.Short(long, c.limits, c.taken(channel))
	if channel != 0 {
		c.keep(channel, s)
	} else if s != "" {
		c.by[s] = -1 // of a channel that is being made
	}
	return s
}

// all names channels together, in their order.
func (c *called) all(channels []numbered) {
	var long, have []string
	for _, n := range channels {
		long, have = append(long, n.Channel.Name), append(have, c.of[n.ChannelID])
	}
	for i, s := range c.group.All(long, have, c.limits) {
		c.keep(channels[i].ChannelID, s)
	}
}

// chosen reports whether a person chose what a channel is called: it is pinned, or
// no option of its long name.
func (c *called) chosen(e store.Entry) bool {
	return e.Pinned || e.ShortName != "" && !slices.Contains(c.group.Options(e.Channel.Name, c.limits), e.ShortName)
}

// renamed returns the entries of a channel, in all radios of the plan, whose short
// name follows from a change: of the long name, or of the short one on a display.
// The one that was changed is among them.
func (p *Plans) renamed(ctx context.Context, d *desk, was, is store.Entry) ([]store.Entry, error) {
	if was.Channel.Name == is.Channel.Name && was.ShortName == is.ShortName && was.Pinned == is.Pinned {
		return []store.Entry{is}, nil
	}
	loads, err := p.equipped(ctx, d.plan.ID)
	if err != nil {
		return nil, err
	}
	typed := was.ShortName != is.ShortName || was.Pinned != is.Pinned
	kinds := map[string]*called{}
	out := []store.Entry{}
	for _, l := range loads {
		limits := l.Unit.Radio.Names
		entries, err := p.store.Entries(ctx, l.ID)
		if err != nil {
			return nil, err
		}
		i := slices.IndexFunc(entries, func(e store.Entry) bool { return e.ChannelID == is.ChannelID })
		if i < 0 {
			continue
		}
		e := entries[i]
		switch {
		case e.ID == is.ID && typed:
			e = is
		case typed && alike(limits, d.radio.Names):
			e.ShortName, e.Pinned = is.ShortName, is.Pinned
		case typed && was.Channel.Name == is.Channel.Name:
			continue
		default:
			key := fmt.Sprint(limits.Length, limits.Characters)
			c := kinds[key]
			if c == nil {
				if c, err = p.called(ctx, d.plan.ID, limits); err != nil {
					return nil, err
				}
				kinds[key] = c
				if !c.chosen(entries[i]) {
					delete(c.by, c.of[e.ChannelID])
					delete(c.of, e.ChannelID)
				}
			}
			e.ShortName = c.name(e.ChannelID, is.Channel.Name)
		}
		if e.ID == is.ID {
			to := is
			to.ShortName, to.Pinned = e.ShortName, e.Pinned
			e = to
		}
		out = append(out, e)
	}
	return out, nil
}

// Names returns other short names for the channel in a slot, the most readable
// first, that no other channel has.
func (p *Plans) Names(ctx context.Context, loadID int64, slot int) ([]string, error) {
	d, e, err := p.occupied(ctx, loadID, slot)
	if err != nil {
		return nil, err
	}
	c, err := p.called(ctx, d.plan.ID, d.radio.Names)
	if err != nil {
		return nil, err
	}
	out := []string{}
	taken := c.taken(e.ChannelID)
	for _, s := range c.group.Options(e.Channel.Name, d.radio.Names) {
		if !taken(s) && s != e.ShortName {
			out = append(out, s)
		}
		if len(out) == alternatives {
			break
		}
	}
	return out, nil
}

// alternatives is how many other names are offered.
const alternatives = 8

// Rename gives channels new short names, all worked out together, in every radio
// of the plan with the same display. Those that are pinned stay; with no slots it is
// all channels of the radio.
func (p *Plans) Rename(ctx context.Context, loadID int64, in []int, revision int64) (*Ledger, error) {
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	c, err := p.called(ctx, d.plan.ID, d.radio.Names)
	if err != nil {
		return nil, err
	}
	var long, have []string
	var ids []int64
	for _, e := range d.entries {
		if e.Pinned || len(in) > 0 && !slices.Contains(in, e.Slot) {
			continue
		}
		long, ids = append(long, e.Channel.Name), append(ids, e.ChannelID)
		delete(c.by, c.of[e.ChannelID])
		delete(c.of, e.ChannelID)
	}
	if len(ids) == 0 {
		f := &fault.Invalid{}
		f.Add("slots", "nothing to name: the slots are empty, or their short names are pinned")
		return nil, f
	}
	for _, s := range c.of { // what stays comes first
		long, have = append(long, ""), append(have, s)
	}
	named := c.group.All(long, append(make([]string, len(ids)), have...), d.radio.Names)
	next := map[int64]string{}
	for i, id := range ids {
		next[id] = named[i]
	}
	loads, err := p.equipped(ctx, d.plan.ID)
	if err != nil {
		return nil, err
	}
	var changed []store.Entry
	for _, l := range loads {
		if !alike(l.Unit.Radio.Names, d.radio.Names) {
			continue
		}
		entries, err := p.store.Entries(ctx, l.ID)
		if err != nil {
			return nil, err
		}
		for _, e := range entries {
			if s, ok := next[e.ChannelID]; ok && s != e.ShortName {
				e.ShortName = s
				changed = append(changed, e)
			}
		}
	}
	what := "name all channels again"
	if len(in) > 0 {
		what = fmt.Sprintf("name %s again: %s", channels(len(ids)), slots.Runs(in))
	}
	return p.change(ctx, d, revision, what, func(x *store.Edit) error {
		for _, e := range changed {
			if err := x.SetEntry(e); err != nil {
				return err
			}
		}
		return nil
	})
}
