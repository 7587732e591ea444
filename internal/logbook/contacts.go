package logbook

import (
	"context"
	"fmt"
	"maps"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"mnemos/core/adif"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/tone"
	"mnemos/core/trial"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
	"mnemos/internal/store"
)

func figure(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }

// ADI returns the contacts of the log as ADI: replies with a callsign. What is no contact
// is left out, and listed.
func (l *Logbook) ADI(ctx context.Context, loadID int64) (text string, losses []string, err error) {
	list, err := l.List(ctx, loadID, "")
	if err != nil {
		return "", nil, err
	}
	var records []adif.Record
	left := 0
	for _, a := range slices.Backward(list.Tries) {
		if a.Kind != string(trial.Contact) && (a.Kind != string(trial.Key) || a.Answer != string(trial.Reply)) || a.Station == "" {
			left++
			continue
		}
		at, err := time.Parse(time.RFC3339, a.At)
		if err != nil {
			return "", nil, fmt.Errorf("read the log: %w", err)
		}
		tx, rx := float64(a.Receive+a.Offset)/1e6, float64(a.Receive)/1e6
		r := adif.Record{}
		r.Set("CALL", strings.ToUpper(a.Station))
		r.Set("STATION_CALLSIGN", a.Callsign)
		r.Set("QSO_DATE", at.UTC().Format("20060102"))
		r.Set("TIME_ON", at.UTC().Format("150405"))
		r.Set("MODE", "FM")
		if a.Receive > 0 {
			r.Set("BAND", adif.Band(tx))
			r.Set("FREQ", figure(tx))
		}
		if a.Offset != 0 {
			r.Set("FREQ_RX", figure(rx))
			r.Set("BAND_RX", adif.Band(rx))
		}
		if a.Watts > 0 {
			r.Set("TX_PWR", figure(a.Watts))
		}
		r.Set("COMMENT", a.Note)
		r.Set("MY_ANTENNA", a.Aerial)
		r.Set(adif.Own("CHANNEL"), a.Name)
		r.Set(adif.Own("TONE_OUT"), a.ToneOut)
		r.Set(adif.Own("TONE_IN"), a.ToneIn)
		r.Set(adif.Own("PLACE"), strings.Trim(a.Place+", "+a.Spot, ", "))
		records = append(records, r)
	}
	text, lost := adif.Write(adif.Record{{Name: "ADIF_VER", Data: "3.1.4"}, {Name: "PROGRAMID", Data: "MNEMOS"}, {Name: "CREATED_TIMESTAMP", Data: l.now().UTC().Format("20060102 150405")}}, records)
	for _, x := range lost {
		losses = append(losses, x.String())
	}
	if left > 0 {
		losses = append(losses, fmt.Sprintf("%d lines of the log are no contact with a station, and are not in it", left))
	}
	return text, losses, nil
}

// mostContacts are how many contacts one file may bring.
const mostContacts = 5000

// Brought is what came of a file of contacts.
type Brought struct {
	Added  int
	Known  int // in the log already
	Losses []string
}

// carried are the fields of a contact that the log keeps, or that say again what others say.
var carried = []string{
	"CALL", "QSO_DATE", "TIME_ON", "MODE", "FREQ", "FREQ_RX", "BAND", "BAND_RX", "TX_PWR", "COMMENT", "MY_ANTENNA", "STATION_CALLSIGN",
	adif.Own("CHANNEL"), adif.Own("TONE_OUT"), adif.Own("TONE_IN"), adif.Own("PLACE"),
}

// Bring writes the contacts of an ADI file into the log, as one step. A contact says that
// somebody was reached, not how the radio was set: it proves no channel.
func (l *Logbook) Bring(ctx context.Context, loadID int64, text string) (*Brought, error) {
	loading, err := l.plans.Loading(ctx, loadID)
	if err != nil {
		return nil, err
	}
	all, err := l.store.Attempts(ctx, loading.Plan.ID)
	if err != nil {
		return nil, err
	}
	known := map[string]bool{}
	for _, a := range all {
		known[same(a)] = true
	}
	_, records, lost := adif.Read(text)
	f := &fault.Invalid{}
	switch {
	case len(records) == 0:
		f.Add("file", "no contact was found in it: it wants to be an ADI file, with a <CALL:6> and an <EOR> for each")
	case len(records) > mostContacts:
		f.Add("file", "%d contacts are more than %d: split the file", len(records), mostContacts)
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	out := &Brought{}
	for _, x := range lost {
		out.Losses = append(out.Losses, x.String())
	}
	dropped := map[string]int{}
	var rows []store.Attempt
	for i, r := range records {
		row, why := contact(loading, r)
		if why != "" {
			out.Losses = append(out.Losses, fmt.Sprintf("record %d: %s", i+1, why))
		}
		if row == nil {
			continue
		}
		for _, x := range r {
			if !slices.Contains(carried, x.Name) {
				dropped[x.Name]++
			}
		}
		if known[same(*row)] {
			out.Known++
			continue
		}
		known[same(*row)] = true
		rows = append(rows, *row)
	}
	for _, name := range slices.Sorted(maps.Keys(dropped)) {
		out.Losses = append(out.Losses, fmt.Sprintf("%s is not kept: %d records had it", name, dropped[name]))
	}
	out.Added = len(rows)
	if len(rows) == 0 {
		return out, nil
	}
	stamp, err := l.fleet.Stamp(ctx, fmt.Sprintf("bring %d contacts into the log", len(rows)))
	if err != nil {
		return nil, err
	}
	return out, l.store.Edit(ctx, loading.Plan.ID, plan.Latest, stamp, func(e *store.Edit) error {
		for _, row := range rows {
			if row.ID, err = e.ID("attempt"); err != nil {
				return err
			}
			row.PlanID, row.LoadID, row.PersonID = loading.Plan.ID, loadID, loading.Me.ID
			if err := e.Put(row); err != nil {
				return err
			}
		}
		return nil
	})
}

// same is what two lines have in common that tell of one contact: the station, and the
// minute, since many logs have no seconds.
func same(a store.Attempt) string {
	return strings.ToUpper(a.Station) + " " + a.At[:min(len("2006-01-02T15:04"), len(a.At))]
}

// callsign is what can be a station's: letters, figures and strokes, with a figure.
var callsign = regexp.MustCompile(`^[A-Z0-9/]*[0-9][A-Z0-9/]*$`)

// contact is a record as a line of the log, or nil, and what is to be said of it.
func contact(l *plan.Loading, r adif.Record) (*store.Attempt, string) {
	station := strings.ToUpper(strings.TrimSpace(r.Get("CALL")))
	if !callsign.MatchString(station) || len(station) < 3 || len(station) > 20 {
		return nil, fmt.Sprintf("%q is not a callsign, and it is left out", station)
	}
	if mode := strings.ToUpper(r.Get("MODE")); mode != "FM" && mode != "" {
		return nil, fmt.Sprintf("%s with %s is not FM, and it is left out", mode, station)
	}
	clock := (strings.TrimSpace(r.Get("TIME_ON")) + "00")[:min(6, len(strings.TrimSpace(r.Get("TIME_ON")))+2)]
	at, err := time.Parse("20060102 150405", r.Get("QSO_DATE")+" "+clock)
	if err != nil {
		return nil, fmt.Sprintf("%q at %q is no date and time, and the contact with %s is left out", r.Get("QSO_DATE"), r.Get("TIME_ON"), station)
	}
	if at.After(l.At.Add(24 * time.Hour)) {
		return nil, fmt.Sprintf("%s is still to come, and the contact with %s is left out", at.Format("2 Jan 2006"), station)
	}
	a := &store.Attempt{
		At: at.Format(time.RFC3339), Kind: string(trial.Contact), Answer: string(trial.Reply), Station: station, Name: r.Get(adif.Own("CHANNEL")),
		Callsign: r.Get("STATION_CALLSIGN"), Note: r.Get("COMMENT"), Aerial: r.Get("MY_ANTENNA"), Spot: r.Get(adif.Own("PLACE")), Width: string(channel.Wide),
	}
	var says []string
	for _, text := range []*string{&a.Name, &a.Callsign, &a.Note, &a.Aerial, &a.Spot} {
		*text = strings.Join(strings.Fields(*text), " ")
		if runes := []rune(*text); len(runes) > 200 {
			*text = string(runes[:200])
			says = append(says, "a text is cut after 200 characters")
		}
	}
	if t, err := tone.Parse(r.Get(adif.Own("TONE_OUT"))); err == nil {
		a.ToneOut = t.String()
	}
	if t, err := tone.Parse(r.Get(adif.Own("TONE_IN"))); err == nil {
		a.ToneIn = t.String()
	}
	if w, err := strconv.ParseFloat(r.Get("TX_PWR"), 64); err == nil && w > 0 && w <= 5000 {
		a.Watts = w
	}
	tx, rx := megahertz(r.Get("FREQ")), megahertz(r.Get("FREQ_RX"))
	if rx == 0 {
		rx = tx
	}
	if rx == 0 {
		says = append(says, strings.TrimSpace("it has no frequency "+r.Get("BAND")))
	}
	a.Receive, a.Offset = int64(rx), int64(tx)-int64(rx)
	if tx == 0 {
		a.Offset = 0
	}
	if c := used(l, a.Name, rx, tx); c != nil {
		a.Slot, a.Name, a.ChannelID = c.Slot, c.Channel.Name, c.ChannelID
		a.Receive, a.Offset = int64(c.Channel.Receive), int64(c.Channel.Offset())
	}
	return a, strings.Join(says, "; ")
}

// used is the channel on which a contact was: that of the name among those of its
// frequency, or the first of these. A log that keeps one frequency keeps either of a
// repeater's.
func used(l *plan.Loading, name string, rx, tx freq.Hz) (best *store.Entry) {
	for _, c := range l.Channels {
		up, sends := c.Entry.Channel.Transmit()
		if c.Entry.Channel.Receive != rx && (rx != tx || !sends || up != tx) {
			continue
		}
		if best == nil || c.Entry.Channel.Name == name {
			best = &c.Entry
		}
	}
	return best
}

// megahertz is a frequency as a file has it, or 0.
func megahertz(text string) freq.Hz {
	x, err := strconv.ParseFloat(strings.TrimSpace(text), 64)
	if err != nil || math.IsNaN(x) || x <= 0 || x > 300_000 {
		return 0
	}
	return freq.Hz(math.Round(x * 1e6))
}
