// Package print makes what is carried to a radio on paper: keypad sheets, and a
// simulated radio to try them on.
package print

import (
	"context"
	"fmt"
	"math/rand/v2"
	"slices"
	"strconv"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/entry"
	"mnemos/core/evidence"
	"mnemos/core/handset"
	"mnemos/core/keypad"
	"mnemos/core/radio"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
	"mnemos/internal/store"
)

// Sheets makes the sheets of plans.
type Sheets struct{ plans *plan.Plans }

// New returns the sheets of some plans.
func New(p *plan.Plans) *Sheets { return &Sheets{p} }

// KeypadSheet is a sheet with what its head says.
type KeypadSheet struct {
	Slot      int
	Name      string
	ShortName string
	Plan      string
	Radio     *radio.Profile
	Channel   channel.Channel
	Verdict   evidence.Verdict
	Stops     []string // why the channel must not be keyed
	Doubts    []string // what a witness says otherwise
	Source    string   // the listing, with its date, or ""
	Sheet     keypad.Sheet
	Untried   string // why there is no handset to try the sheet on, or ""
}

// Keypad returns the sheet of the channel in a slot. A channel that a rule
// stops is locked: it can be listened to until it is put right.
func (p *Sheets) Keypad(ctx context.Context, loadID int64, slot int) (*KeypadSheet, error) {
	j, err := p.plans.Judged(ctx, loadID, slot)
	if err != nil {
		return nil, err
	}
	e, r := j.Entry, j.Result
	w := wanted(e, r)
	k := &KeypadSheet{
		Slot: slot, Name: e.Channel.Name, ShortName: e.ShortName, Plan: j.Plan, Radio: j.Radio, Channel: e.Channel,
		Verdict: r.Verdict, Stops: w.stops, Doubts: w.doubts,
	}
	if r.Meant != nil {
		k.Source = fmt.Sprintf("%s, %s", r.Meant.Source, r.Meant.Updated)
	}
	k.Sheet = keypad.Write(w.Wanted, j.Radio)
	if k.Sheet.Reason == "" {
		if _, err := handset.New(j.Radio); err != nil {
			k.Untried = err.Error()
		}
	}
	return k, nil
}

// asked is what a slot is to hold, and what the checks say about that.
type asked struct {
	keypad.Wanted
	stops  []string // why it must not be keyed
	doubts []string // what a witness says otherwise
}

// wanted is what is keyed in for an entry: what a rule stops, or the licence does not
// permit, is locked.
func wanted(e store.Entry, r check.Result) asked {
	w := asked{stops: []string{}, doubts: []string{}}
	w.Wanted = keypad.Wanted{
		Channel: e.Channel, Slot: e.Slot, Short: e.ShortName, Skip: e.Scan == entry.ScanSkip, Priority: e.Scan == entry.ScanPriority,
	}
	for _, f := range r.Findings {
		switch {
		case f.Rule == check.NoLicence:
			w.Forbidden = f.Title
		case f.Aside(): // what the radio cannot hold, the sheet says itself
		case f.Severity == check.Stop:
			w.stops = append(w.stops, f.Title+". "+f.Message)
			if _, transmits := e.Channel.Transmit(); w.Forbidden == "" && transmits {
				w.Forbidden = f.Title
			}
		case f.Severity == check.Fix:
			w.doubts = append(w.doubts, f.Title+". "+f.Message)
		}
	}
	return w
}

// Handset is a simulated radio in the hand, with what was pressed so far.
type Handset struct {
	Keys    []string // of the radio
	Display handset.Display
	Frames  []Frame  // the keys that the last act pressed, with what showed after each
	Trouble string   // why the last act could not be done, or ""
	Slot    string   // what the slot holds now, in words
	Differs []string // in what that is not as planned
}

// Frame is one key, or the same key several times, and what showed after it.
type Frame struct {
	Key     string
	Times   int
	Display handset.Display
}

// apart is how often a key is shown press by press, before the presses that
// follow are counted together.
const apart = 5

// show adds a press to the frames.
func (h *Handset) show(key string, d handset.Display) {
	n := len(h.Frames)
	if n >= apart && !slices.ContainsFunc(h.Frames[n-apart:], func(f Frame) bool { return f.Key != key }) {
		h.Frames[n-1].Times++
		h.Frames[n-1].Display = d
		return
	}
	h.Frames = append(h.Frames, Frame{Key: key, Times: 1, Display: d})
}

// MaxActs is how many acts are replayed.
const MaxActs = 1000

// Try replays acts on a simulated radio that has a past: leftovers of another
// channel in every setting, and something old in the slot. An act is
// "key MENU", "wait 6" (seconds) or "line 3" of the sheet; line 0 is the state
// from which it starts, and the line after the last step that in which it ends.
func (p *Sheets) Try(ctx context.Context, loadID int64, slot int, acts []string) (*Handset, error) {
	k, err := p.Keypad(ctx, loadID, slot)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	switch {
	case k.Sheet.Reason != "":
		f.Add("slot", "%s", k.Sheet.Reason)
	case k.Untried != "":
		f.Add("slot", "%s", k.Untried)
	case len(acts) > MaxActs:
		f.Add("acts", "up to %d acts; start over", MaxActs)
	}
	if len(f.Fields) > 0 {
		return nil, f
	}
	h, err := handset.New(k.Radio)
	if err != nil {
		return nil, err
	}
	h.Stir(rand.New(rand.NewPCG(1, uint64(slot))).IntN, slot, nil)
	lines := strings.Split(strings.TrimSpace(k.Sheet.Text()), "\n")
	out := &Handset{Keys: h.Keys(), Frames: []Frame{}}
	for i, act := range acts {
		var each func(string)
		if i == len(acts)-1 {
			each = func(key string) { out.show(key, h.Display()) }
		}
		if out.Trouble, err = do(h, lines, act, each); err != nil {
			f.Add("acts", "%v", err)
			return nil, f
		}
	}
	out.Display = h.Display()
	out.Slot, out.Differs = compare(h, k)
	return out, nil
}

// do does one act; trouble is what a person would see go wrong.
func do(h *handset.Handset, lines []string, act string, each func(string)) (trouble string, err error) {
	what, rest, _ := strings.Cut(act, " ")
	n, nerr := strconv.Atoi(rest)
	switch {
	case what == "key" && rest != "" && len(rest) < 40:
		h.Press(rest)
		if each != nil {
			each(rest)
		}
		return "", nil
	case what == "wait" && nerr == nil:
		h.Wait(n)
		return "", nil
	case what == "line" && nerr == nil && n >= 0 && n < len(lines):
		if err := h.Line(lines[n], each); err != nil {
			return err.Error(), nil
		}
		return "", nil
	}
	return "", fmt.Errorf("%.40q is not an act: write key MENU, wait 6 or line 3", act)
}

// compare says what the slot holds, and in what that is not as planned.
func compare(h *handset.Handset, k *KeypadSheet) (holds string, differs []string) {
	differs = []string{}
	got, ok := h.Holds(k.Slot)
	if !ok {
		return "nothing", append(differs, "the slot is empty")
	}
	want := k.Sheet.Holds
	add := func(what, has, wanted string) {
		if has != wanted {
			differs = append(differs, fmt.Sprintf("%s %s, not %s", what, has, wanted))
		}
	}
	add("receives", got.Receive.String(), want.Receive.String())
	add("transmits", transmits(got), transmits(want))
	if _, ok := want.Transmit(); ok {
		add("sends", got.TransmitTone.Words(), want.TransmitTone.Words())
		add("power", string(got.Power), string(want.Power))
	}
	add("opens to", got.ReceiveTone.Words(), want.ReceiveTone.Words())
	add("width", string(got.Width), string(want.Width))
	return entry.Sentence(entry.Say(&entry.Draft{Channel: got})), differs
}

func transmits(c channel.Channel) string {
	if tx, ok := c.Transmit(); ok {
		return "on " + tx.String()
	}
	return "nothing"
}
