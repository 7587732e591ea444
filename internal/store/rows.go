package store

import (
	"database/sql/driver"
	"encoding/json"
	"fmt"
	"reflect"
	"slices"
	"strings"
)

// Row is a row of a table that is edited: the journal holds its images. Rev is
// the change in which it got what it holds, and no part of the image.
type Row interface {
	of() (table string, id int64)
}

// Person is somebody who works with the plans.
type Person struct {
	ID       int64   `db:"id" json:"id"`
	Name     string  `db:"name" json:"name"`
	Colour   string  `db:"colour" json:"colour"`
	Callsign string  `db:"callsign" json:"callsign"`
	Licence  string  `db:"licence" json:"licence"` // what the person wrote about it
	Services Strings `db:"services" json:"services"`
	Bands    Strings `db:"bands" json:"bands"`
	// Unlicensed is set for somebody who has no licence yet: they listen.
	Unlicensed bool  `db:"unlicensed" json:"unlicensed"`
	Rev        int64 `db:"rev" json:"-"`
}

// Plan is a channel plan: its channels, where it is used and under which rules.
type Plan struct {
	ID         int64    `db:"id" json:"id"`
	Name       string   `db:"name" json:"name"`
	Season     string   `db:"season" json:"season"` // a note on what it is for
	Archived   bool     `db:"archived" json:"archived"`
	Demo       bool     `db:"demo" json:"demo"` // a demonstration: its listings serve it alone
	Region     string   `db:"region" json:"region"`
	Lat        *float64 `db:"lat" json:"lat"`
	Lon        *float64 `db:"lon" json:"lon"`
	Height     float64  `db:"height_m" json:"height_m"`
	Radius     float64  `db:"radius_km" json:"radius_km"`
	TonePolicy string   `db:"tone_policy" json:"tone_policy"`
	Marks      string   `db:"marks" json:"marks"` // places that people named, as find.WriteMarks writes them
	Rev        int64    `db:"rev" json:"-"`

	Revision int64  `db:"revision" json:"-"` // the last change of anything in it
	SavedAt  string `db:"saved_at" json:"-"`
}

// Unit is a radio that can be held in the hand.
type Unit struct {
	ID      int64  `db:"id" json:"id"`
	Name    string `db:"name" json:"name"` // "" for the name of its profile
	Profile string `db:"profile" json:"profile"`
	Holder  *int64 `db:"holder" json:"holder"` // whose licence counts; nil for whoever looks
	Rev     int64  `db:"rev" json:"-"`
}

// Load is what one unit gets of a plan.
type Load struct {
	ID     int64 `db:"id" json:"id"`
	PlanID int64 `db:"plan_id" json:"plan_id"`
	UnitID int64 `db:"unit_id" json:"unit_id"`
	Rev    int64 `db:"rev" json:"-"`
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
	Source       string `db:"repeater_source" json:"repeater_source"`
	Key          string `db:"repeater_key" json:"repeater_key"`
	Rev          int64  `db:"rev" json:"-"`
}

// entryRow is an entry as it stands in the table and in the journal.
type entryRow struct {
	ID        int64  `db:"id" json:"id"`
	LoadID    int64  `db:"load_id" json:"load_id"`
	Kind      string `db:"kind" json:"kind"`
	Slot      int    `db:"slot" json:"slot"`
	ChannelID int64  `db:"channel_id" json:"channel_id"`
	ShortName string `db:"short_name" json:"short_name"`
	Scan      string `db:"scan" json:"scan"`
	Pinned    bool   `db:"pinned" json:"pinned"`
	Rev       int64  `db:"rev" json:"-"`
}

// Set is channels that belong together.
type Set struct {
	ID     int64  `db:"id" json:"id"`
	PlanID int64  `db:"plan_id" json:"plan_id"`
	Kind   string `db:"kind" json:"kind"`
	Name   string `db:"name" json:"name"`
	Rev    int64  `db:"rev" json:"-"`
}

// Member is a channel in a set.
type Member struct {
	ID        int64 `db:"id" json:"id"`
	SetID     int64 `db:"set_id" json:"set_id"`
	ChannelID int64 `db:"channel_id" json:"channel_id"`
	Place     int   `db:"place" json:"place"` // its order in the set
	Priority  bool  `db:"priority" json:"priority"`
	Rev       int64 `db:"rev" json:"-"`
}

// Standing is how far a channel has come into a radio, and the fingerprint of what
// that was to hold then.
type Standing struct {
	ID          int64  `db:"id" json:"id"`
	LoadID      int64  `db:"load_id" json:"load_id"`
	ChannelID   int64  `db:"channel_id" json:"channel_id"`
	State       string `db:"state" json:"state"`
	Fingerprint string `db:"fingerprint" json:"fingerprint"`
	PersonID    int64  `db:"person_id" json:"person_id"`
	At          string `db:"at" json:"at"`
	Rev         int64  `db:"rev" json:"-"`
}

// Listening is how a radio scans, and what its person wants to hear. The zero value of
// each is what is usual.
type Listening struct {
	ID            int64   `db:"id" json:"id"`
	LoadID        int64   `db:"load_id" json:"load_id"`
	Sets          Strings `db:"sets" json:"sets"` // numbers of scan lists
	TimedChannels int     `db:"timed_channels" json:"timed_channels"`
	TimedSeconds  float64 `db:"timed_seconds" json:"timed_seconds"`
	Resume        string  `db:"resume" json:"resume"`
	Stay          float64 `db:"stay" json:"stay"`
	Every         int     `db:"every" json:"every"`
	WatchID       int64   `db:"watch_id" json:"watch_id"`
	Goal          string  `db:"goal" json:"goal"`
	Talk          string  `db:"talk" json:"talk"` // JSON: hertz -> Talk
	Rev           int64   `db:"rev" json:"-"`
}

func (l Listening) load() int64 { return l.LoadID }

// Relay is a cross-band relay on a vehicle unit.
type Relay struct {
	ID          int64   `db:"id" json:"id"`
	LoadID      int64   `db:"load_id" json:"load_id"`
	HandID      int64   `db:"hand_id" json:"hand_id"` // load of the handheld
	LineA       string  `db:"line_a" json:"line_a"`
	LineB       string  `db:"line_b" json:"line_b"`
	Way         string  `db:"way" json:"way"`
	Consent     string  `db:"consent" json:"consent"`
	IdentifyA   string  `db:"identify_a" json:"identify_a"`
	IdentifyB   string  `db:"identify_b" json:"identify_b"`
	Control     string  `db:"control" json:"control"`
	Microphone  string  `db:"microphone" json:"microphone"`
	Timeout     int     `db:"timeout" json:"timeout"`
	Mine        int     `db:"mine" json:"mine"`
	Theirs      int     `db:"theirs" json:"theirs"`
	Over        float64 `db:"over_s" json:"over_s"`
	AmpHours    float64 `db:"amp_hours" json:"amp_hours"`
	Usable      float64 `db:"usable" json:"usable"`
	Starting    bool    `db:"starting" json:"starting"`
	Hours       float64 `db:"hours" json:"hours"`
	Standby     float64 `db:"standby_a" json:"standby_a"`
	AmpsA       float64 `db:"amps_a" json:"amps_a"`
	AmpsB       float64 `db:"amps_b" json:"amps_b"`
	Gain        float64 `db:"gain_dbi" json:"gain_dbi"`
	Ticks       string  `db:"ticks" json:"ticks"` // JSON: line of the run card -> when
	RehearsedAt string  `db:"rehearsed_at" json:"rehearsed_at"`
	RehearsedBy int64   `db:"rehearsed_by" json:"rehearsed_by"`
	RehearsedAs string  `db:"rehearsed_as" json:"rehearsed_as"`
	Rev         int64   `db:"rev" json:"-"`
}

func (r Relay) load() int64 { return r.LoadID }

// Beacon is an APRS station on a radio.
type Beacon struct {
	ID      int64  `db:"id" json:"id"`
	LoadID  int64  `db:"load_id" json:"load_id"`
	Station string `db:"station" json:"station"` // JSON
	Rev     int64  `db:"rev" json:"-"`
}

func (r Beacon) load() int64 { return r.LoadID }

// Listened is some time in which somebody listened.
type Listened struct {
	ID       int64  `db:"id" json:"id"`
	PlanID   int64  `db:"plan_id" json:"plan_id"`
	LoadID   int64  `db:"load_id" json:"load_id"`
	PersonID int64  `db:"person_id" json:"person_id"`
	Began    string `db:"began" json:"began"`
	Ended    string `db:"ended" json:"ended"`
	Chances  string `db:"chances" json:"chances"` // JSON: hertz -> 0 to 1
	Rev      int64  `db:"rev" json:"-"`
}

// Heard is an over that somebody heard.
type Heard struct {
	ID         int64  `db:"id" json:"id"`
	PlanID     int64  `db:"plan_id" json:"plan_id"`
	ListenedID int64  `db:"listened_id" json:"listened_id"`
	Receive    int64  `db:"receive_hz" json:"receive_hz"`
	PersonID   int64  `db:"person_id" json:"person_id"`
	At         string `db:"at" json:"at"`
	Rev        int64  `db:"rev" json:"-"`
}

// Attempt is a try on the air, or something that was found out without keying.
type Attempt struct {
	ID        int64   `db:"id" json:"id"`
	PlanID    int64   `db:"plan_id" json:"plan_id"`
	LoadID    int64   `db:"load_id" json:"load_id"`
	ChannelID int64   `db:"channel_id" json:"channel_id"`
	PersonID  int64   `db:"person_id" json:"person_id"`
	At        string  `db:"at" json:"at"`
	Kind      string  `db:"kind" json:"kind"`
	Answer    string  `db:"answer" json:"answer"`
	Yes       bool    `db:"yes" json:"yes"`
	Negative  bool    `db:"negative" json:"negative"`
	Slot      int     `db:"slot" json:"slot"`
	Name      string  `db:"name" json:"name"`
	Receive   int64   `db:"receive_hz" json:"receive_hz"`
	Offset    int64   `db:"offset_hz" json:"offset_hz"`
	ToneOut   string  `db:"tone_out" json:"tone_out"`
	ToneIn    string  `db:"tone_in" json:"tone_in"`
	Width     string  `db:"width" json:"width"`
	Power     string  `db:"power" json:"power"`
	Watts     float64 `db:"watts" json:"watts"`
	PowerSet  bool    `db:"power_set" json:"power_set"`
	ModeSeen  bool    `db:"mode_seen" json:"mode_seen"`
	Place     string  `db:"place" json:"place"`
	Spot      string  `db:"spot" json:"spot"`
	Aerial    string  `db:"aerial" json:"aerial"`
	Callsign  string  `db:"callsign" json:"callsign"`
	Station   string  `db:"station" json:"station"`
	Note      string  `db:"note" json:"note"`
	Side      string  `db:"side" json:"side"` // where a search for a tone sat
	Rev       int64   `db:"rev" json:"-"`
}

// Permission is what the owner of a closed repeater said.
type Permission struct {
	ID       int64  `db:"id" json:"id"`
	PlanID   int64  `db:"plan_id" json:"plan_id"`
	Receive  int64  `db:"receive_hz" json:"receive_hz"`
	Note     string `db:"note" json:"note"`
	PersonID int64  `db:"person_id" json:"person_id"`
	At       string `db:"at" json:"at"`
	Rev      int64  `db:"rev" json:"-"`
}

// Snapshot is a plan as it was after a change, under a name.
type Snapshot struct {
	ID     int64  `db:"id" json:"id"`
	PlanID int64  `db:"plan_id" json:"plan_id"`
	Name   string `db:"name" json:"name"`
	Event  int64  `db:"event" json:"event"` // the last change that is in it
	At     string `db:"at" json:"at"`
	Rev    int64  `db:"rev" json:"-"`
}

// TeamSlot is the number that everybody uses for a channel.
type TeamSlot struct {
	ID        int64 `db:"id" json:"id"`
	PlanID    int64 `db:"plan_id" json:"plan_id"`
	Number    int   `db:"number" json:"number"`
	ChannelID int64 `db:"channel_id" json:"channel_id"`
	Rev       int64 `db:"rev" json:"-"`
}

// Template is the columns that somebody defined for a tool of theirs.
type Template struct {
	ID   int64  `db:"id" json:"id"`
	Name string `db:"name" json:"name"`
	Body string `db:"body" json:"body"` // JSON
	Rev  int64  `db:"rev" json:"-"`
}

// Profile is a radio profile that somebody made, as YAML.
type Profile struct {
	ID      int64  `db:"id" json:"id"`
	Slug    string `db:"slug" json:"slug"` // what people and units call it by
	YAML    string `db:"yaml" json:"yaml"`
	SavedAt string `db:"saved_at" json:"saved_at"`
	Rev     int64  `db:"rev" json:"-"`
}

// Decision is what somebody decided about two statements: that they speak of
// one repeater, or of two. A statement is named by its source and key, which
// outlive an edition.
type Decision struct {
	ID       int64  `db:"id" json:"id"`
	ASource  string `db:"a_source" json:"a_source"`
	AKey     string `db:"a_key" json:"a_key"`
	BSource  string `db:"b_source" json:"b_source"`
	BKey     string `db:"b_key" json:"b_key"`
	Same     bool   `db:"same" json:"same"`
	PersonID int64  `db:"person_id" json:"person_id"`
	At       string `db:"at" json:"at"`
	Rev      int64  `db:"rev" json:"-"`
}

// Correction is what somebody knows better than a statement about one field.
// It holds as long as the statement says what it said then.
type Correction struct {
	ID       int64  `db:"id" json:"id"`
	Source   string `db:"source" json:"source"`
	Key      string `db:"key" json:"key"`
	Field    string `db:"field" json:"field"`
	Value    string `db:"value" json:"value"`
	Against  string `db:"against" json:"against"` // what the statement said; "" for nothing
	Note     string `db:"note" json:"note"`
	PersonID int64  `db:"person_id" json:"person_id"`
	At       string `db:"at" json:"at"`
	Rev      int64  `db:"rev" json:"-"`
}

// editionRow is an edition as the journal knows it: whether it counts. What it
// says never changes.
type editionRow struct {
	ID     int64  `db:"id" json:"id"`
	Source string `db:"source" json:"source"`
	Active bool   `db:"active" json:"active"`
	Rev    int64  `db:"rev" json:"-"`

	ImportedAt string `db:"imported_at" json:"-"`
}

func (r Person) of() (string, int64)     { return "person", r.ID }
func (r Plan) of() (string, int64)       { return "plan", r.ID }
func (r Unit) of() (string, int64)       { return "unit", r.ID }
func (r Load) of() (string, int64)       { return "load", r.ID }
func (r channelRow) of() (string, int64) { return "channel", r.ID }
func (r entryRow) of() (string, int64)   { return "entry", r.ID }
func (r TeamSlot) of() (string, int64)   { return "team_slot", r.ID }
func (r Set) of() (string, int64)        { return "channel_set", r.ID }
func (r Member) of() (string, int64)     { return "member", r.ID }
func (r Standing) of() (string, int64)   { return "standing", r.ID }
func (r Listening) of() (string, int64)  { return "listening", r.ID }
func (r Relay) of() (string, int64)      { return "relay", r.ID }
func (r Beacon) of() (string, int64)     { return "beacon", r.ID }
func (r Listened) of() (string, int64)   { return "listened", r.ID }
func (r Heard) of() (string, int64)      { return "heard", r.ID }
func (r Attempt) of() (string, int64)    { return "attempt", r.ID }
func (r Permission) of() (string, int64) { return "permission", r.ID }
func (r Snapshot) of() (string, int64)   { return "snapshot", r.ID }
func (r Template) of() (string, int64)   { return "template", r.ID }
func (r Profile) of() (string, int64)    { return "profile", r.ID }
func (r Decision) of() (string, int64)   { return "decision", r.ID }
func (r Correction) of() (string, int64) { return "correction", r.ID }
func (r editionRow) of() (string, int64) { return "edition", r.ID }

// table is how the rows of one are read and written.
type table struct {
	row     reflect.Type
	columns string
	write   string
}

// tables are those that are edited.
var tables = func() map[string]table {
	out := map[string]table{}
	for _, r := range []Row{Person{}, Plan{}, Unit{}, Load{}, channelRow{}, entryRow{}, TeamSlot{}, Set{}, Member{}, Standing{}, Listening{}, Relay{}, Beacon{}, Listened{}, Heard{}, Attempt{}, Permission{}, Snapshot{}, Template{}, Profile{}, Decision{}, Correction{}, editionRow{}} {
		name, _ := r.of()
		out[name] = tableOf(name, reflect.TypeOf(r))
	}
	return out
}()

func tableOf(name string, row reflect.Type) table {
	var all, set []string
	for i := range row.NumField() {
		f := row.Field(i)
		column := f.Tag.Get("db")
		all = append(all, column)
		if column != "id" && (f.Tag.Get("json") != "-" || column == "rev") {
			set = append(set, column+" = excluded."+column)
		}
	}
	return table{
		row: row, columns: strings.Join(all, ", "),
		write: "INSERT INTO " + name + " (" + strings.Join(all, ", ") + ") VALUES (:" + strings.Join(all, ", :") + ") ON CONFLICT (id) DO UPDATE SET " + strings.Join(set, ", "),
	}
}

// columnsOf are the columns of a table, of one that stands under another name.
func columnsOf(name, as string) string {
	parts := strings.Split(tables[name].columns, ", ")
	for i := range parts {
		parts[i] = as + "." + parts[i]
	}
	return strings.Join(parts, ", ")
}

// image is a row as the journal keeps it.
func image(r any) (json.RawMessage, error) {
	b, err := json.Marshal(r)
	if err != nil {
		return nil, fmt.Errorf("journal: %w", err)
	}
	return b, nil
}

// read turns an image into the row; ok is false for that of no row. An image
// that an older version kept lacks what is new, which has its zero value.
func (t table) read(image json.RawMessage) (r Row, ok bool, err error) {
	if string(image) == "null" {
		return nil, false, nil
	}
	v := reflect.New(t.row)
	if err := json.Unmarshal(image, v.Interface()); err != nil {
		return nil, false, fmt.Errorf("read journal: %w", err)
	}
	return v.Elem().Interface().(Row), true, nil //nolint:forcetypeassert // every table has rows
}

// revised is a row with its revision.
func revised(r Row, rev int64) any {
	v := reflect.New(reflect.TypeOf(r)).Elem()
	v.Set(reflect.ValueOf(r))
	v.FieldByName("Rev").SetInt(rev)
	return v.Interface()
}

// revision is the change in which a row got what it holds.
func revision(r Row) int64 { return reflect.ValueOf(r).FieldByName("Rev").Int() }

// Strings is a list that is kept as JSON in one column.
type Strings []string

// Value implements driver.Valuer.
func (l Strings) Value() (driver.Value, error) {
	b, err := json.Marshal(slices.Concat(Strings{}, l))
	return string(b), err
}

// Scan implements sql.Scanner.
func (l *Strings) Scan(v any) error {
	s, ok := v.(string)
	if !ok {
		return fmt.Errorf("a list is kept as text, not as %T", v)
	}
	return json.Unmarshal([]byte(s), (*[]string)(l))
}
