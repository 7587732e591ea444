package plan

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/evidence"
	"mnemos/core/radio"
	"mnemos/core/slots"
	"mnemos/internal/fault"
)

// Task is one thing to do next, with what does it.
type Task struct {
	Kind  string // one of those below, in their order
	Slot  *int   // where it is; nil for what is of no slot
	Title string
	Why   string
	// Do is what one key does: fix, look, add, import, move or walk; Says is what it is
	// called. ID is that of the fix, or of the channel to add.
	Do, Says, ID string
	From         int64 // the radio from which a channel is added, or that is walked through
	FromSlot     int
	since        string // for the order within a kind
}

// The kinds of tasks, in the order in which they are to be done.
var taskKinds = []string{"stop", "conflict", "behind", "missing", "moved", "unverified", "listing"}

// Work returns what is to be done next with a radio of a plan, the most pressing
// first: what must not go on the air, what a witness denies, what team mates have
// and this radio lacks, what nobody has confirmed, oldest first, and listings that
// have grown old.
func (p *Plans) Work(ctx context.Context, loadID int64) ([]Task, error) {
	d, results, err := p.judgedAll(ctx, loadID)
	if err != nil {
		return nil, err
	}
	out := []Task{}
	for i, r := range results {
		if t, ok := taskOf(r); ok {
			slot := d.entries[i].Slot
			t.Slot = &slot
			if name := label(d.entries[i].Channel); !strings.HasPrefix(t.Title, name) {
				t.Title = name + " · " + t.Title
			}
			out = append(out, t)
		}
	}
	for _, ask := range []func(context.Context, *desk) ([]Task, error){p.behind, p.team} {
		more, err := ask(ctx, d)
		if err != nil {
			return nil, err
		}
		out = append(out, more...)
	}
	old, err := p.oldListings(ctx, d)
	if err != nil {
		return nil, err
	}
	out = append(out, old...)
	slices.SortStableFunc(out, func(a, b Task) int {
		return cmp.Or(cmp.Compare(slices.Index(taskKinds, a.Kind), slices.Index(taskKinds, b.Kind)), cmp.Compare(a.since, b.since))
	})
	return out, nil
}

// taskOf is what a channel asks for, if anything.
func taskOf(r check.Result) (Task, bool) {
	kind := map[evidence.Verdict]string{evidence.Stop: "stop", evidence.Conflict: "conflict", evidence.Unverified: "unverified"}[r.Verdict]
	if kind == "" {
		return Task{}, false
	}
	t := Task{Kind: kind, Title: "Nobody has confirmed it", Do: "look", Says: "look at it"}
	if r.Meant != nil {
		t.since = r.Meant.Updated.String()
		t.Why = fmt.Sprintf("published %s by %s", cmp.Or(t.since, "without a date"), r.Meant.Source)
	}
	for _, f := range r.Findings {
		if f.Severity == check.Note || f.Aside() && f.Severity != check.Stop {
			continue
		}
		t.Title, t.Why = f.Title, f.Message
		if x, ok := sure(f); ok {
			t.Do, t.Says, t.ID = "fix", x.Label, x.ID
		}
		break
	}
	return t, true
}

// team returns the channels that team mates have and this radio could have, and
// those that it has in another slot than everybody.
func (p *Plans) team(ctx context.Context, d *desk) (out []Task, err error) {
	_, absent, err := p.Holdings(ctx, d.plan.ID, d.load.ID)
	if err != nil {
		return nil, err
	}
	for _, a := range absent {
		if !a.Can {
			continue
		}
		t := Task{
			Kind: "missing", Title: label(a.Channel) + " is not in this radio", Do: "add", Says: "add it", ID: fmt.Sprint(a.ID),
			From: a.From.LoadID, FromSlot: a.From.Slot,
		}
		if a.Number != nil {
			t.Why = fmt.Sprintf("the others have it in slot %d", *a.Number)
			t.since = fmt.Sprintf("%06d", *a.Number)
		}
		out = append(out, t)
	}
	if err := p.number(ctx, d); err != nil {
		return nil, err
	}
	away := d.aligned()
	if n := len(away); n > 0 {
		var from []int
		for s := range away {
			from = append(from, s)
		}
		out = append(out, Task{
			Kind: "moved", Title: channels(n) + " in other slots than in the other radios", Why: "slots " + slots.Runs(from),
			Do: "move", Says: "move to the team's slots",
		})
	}
	return out, nil
}

// number reads the numbers that everybody uses.
func (p *Plans) number(ctx context.Context, d *desk) error {
	numbers, err := p.store.TeamSlots(ctx, d.plan.ID)
	d.numbers = map[int64]int{}
	for _, n := range numbers {
		d.numbers[n.ChannelID] = n.Number
	}
	return err
}

// aligned are the moves that put everything into the slot of its number, as far as
// the radio has it.
func (d *desk) aligned() slots.Moves {
	want := slots.Moves{}
	for _, e := range d.entries {
		if n, ok := d.numbers[e.ChannelID]; ok && n != e.Slot && d.radio.Slots.Holds(n) {
			want[e.Slot] = n
		}
	}
	if len(want) == 0 {
		return want
	}
	for _, e := range d.entries { // who is right already stays
		if n, ok := d.numbers[e.ChannelID]; ok && n == e.Slot {
			want[e.Slot] = n
		}
	}
	return d.memory().Place(want)
}

// oldListings returns the listings that were imported longer ago than a listing is
// trusted without a look.
func (p *Plans) oldListings(ctx context.Context, d *desk) (out []Task, err error) {
	sources, err := p.catalog.Sources(ctx, d.plan.ID)
	if err != nil {
		return nil, err
	}
	for _, s := range sources {
		at, err := time.Parse(time.RFC3339, s.Imported)
		if err != nil || d.settings.Today.Before(at.AddDate(0, d.settings.Stale, 0)) {
			continue
		}
		out = append(out, Task{
			Kind: "listing", Title: s.Name + " is old", Why: "imported " + at.Format("2 January 2006"), Do: "import", Says: "import a newer one", since: s.Imported,
		})
	}
	return out, nil
}

// Nearest is what a radio would hold of a channel.
type Nearest struct {
	Can     bool // it could hold it, whole or in part
	Slot    *int // where it has it
	Wanted  channel.Channel
	Held    channel.Channel
	Losses  []radio.Loss
	Channel int64
}

// Nearest returns what a radio would really hold of a channel of its plan.
func (p *Plans) Nearest(ctx context.Context, loadID, channelID int64) (*Nearest, error) {
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	loads, err := p.equipped(ctx, d.plan.ID)
	if err != nil {
		return nil, err
	}
	for _, l := range loads {
		entries, err := p.store.Entries(ctx, l.ID)
		if err != nil {
			return nil, err
		}
		for _, e := range entries {
			if e.ChannelID != channelID {
				continue
			}
			n := &Nearest{Channel: channelID, Can: d.radio.CanReceive(e.Channel.Receive), Wanted: e.Channel, Losses: []radio.Loss{}}
			n.Held, n.Losses = radio.Fit(e.Channel, d.radio)
			for _, own := range d.entries {
				if own.ChannelID == channelID {
					n.Slot = &own.Slot
				}
			}
			return n, nil
		}
	}
	return nil, fmt.Errorf("channel %d of the plan: %w", channelID, fault.ErrNotFound)
}
