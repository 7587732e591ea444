package store

import (
	"encoding/json"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"mnemos/core/freq"
	"mnemos/internal/fault"
)

// conflict is a change that cannot be taken back, or done again, because a row
// is no longer as it left it.
func conflict(format string, values ...any) error {
	return &fault.Stale{Why: fmt.Sprintf(format, values...)}
}

// columnWords are what the columns of a row are called, in the order in which they
// are told.
var columnWords = []struct{ column, words string }{
	{"name", "name"},
	{"receive_hz", "receive frequency"},
	{"transmit_kind", "way of transmitting"},
	{"offset_hz", "shift"},
	{"split_hz", "transmit frequency"},
	{"transmit_tone", "tone sent"},
	{"receive_tone", "tone heard"},
	{"bandwidth", "width"},
	{"power", "power"},
	{"slot", "slot"},
	{"channel_id", "channel"},
	{"short_name", "short name"},
	{"pinned", "pinned"},
	{"scan", "scanning"},
	{"sets", "what is scanned"},
	{"resume", "how the scan goes on"},
	{"stay", "how long it stays"},
	{"watch_id", "the other side"},
	{"goal", "goal"},
	{"answer", "what came back"},
	{"note", "note"},
	{"callsign", "callsign"},
	{"season", "season"},
	{"region", "region"},
	{"lat", "latitude"},
	{"lon", "longitude"},
	{"height_m", "aerial height"},
	{"radius_km", "radius"},
	{"tone_policy", "tones"},
	{"marks", "named places"},
	{"licence", "licence"},
	{"bands", "bands"},
	{"unlicensed", "no licence yet"},
	{"archived", "archived"},
	{"colour", "colour"},
	{"services", "services"},
	{"profile", "profile"},
	{"holder", "holder"},
	{"value", "value"},
	{"same", "one repeater"},
	{"active", "counting"},
	{"yaml", "profile"},
}

// differs says in words how a row differs from what a change left.
func differs(left, now json.RawMessage) error {
	var mine, theirs map[string]any
	if err := json.Unmarshal(left, &mine); err != nil {
		return fmt.Errorf("read journal: %w", err)
	}
	if err := json.Unmarshal(now, &theirs); err != nil {
		return fmt.Errorf("read journal: %w", err)
	}
	switch {
	case theirs == nil:
		return conflict("%s was removed since", called(mine))
	case mine == nil:
		return conflict("%s was put back since", called(theirs))
	}
	var changed []string
	for _, c := range columnWords {
		if was, is := shown(c.column, mine[c.column]), shown(c.column, theirs[c.column]); was != is {
			if c.column == "channel_id" {
				changed = append(changed, "another channel")
				continue
			}
			changed = append(changed, fmt.Sprintf("%s is %s now and was %s", c.words, is, was))
		}
	}
	return conflict("%s was changed since: %s", called(mine), strings.Join(changed, "; "))
}

// called is what a person calls a row.
func called(row map[string]any) string {
	switch {
	case row["fingerprint"] != nil:
		return "how far a channel has come"
	case row["station"] != nil && row["load_id"] != nil && row["kind"] == nil:
		return "the beacon"
	case row["line_a"] != nil:
		return "the relay"
	case row["timed_channels"] != nil:
		return "how the radio scans"
	case row["power_set"] != nil:
		return "a try on the air"
	case row["receive_hz"] != nil && row["note"] != nil:
		return "a permission"
	case row["began"] != nil:
		return "a time of listening"
	case row["listened_id"] != nil:
		return "what was heard"
	case row["set_id"] != nil:
		return "a channel of a set"
	case row["event"] != nil:
		return fmt.Sprintf("the snapshot %v", row["name"])
	case row["kind"] != nil && row["plan_id"] != nil:
		return fmt.Sprintf("the set %v", row["name"])
	case row["slot"] != nil:
		return fmt.Sprintf("slot %v", row["slot"])
	case row["profile"] != nil:
		return fmt.Sprintf("the radio %v", row["profile"])
	case row["unit_id"] != nil:
		return "the radio in the plan"
	case row["body"] != nil:
		return fmt.Sprintf("the columns %v", row["name"])
	case row["value"] != nil:
		return fmt.Sprintf("the correction of %v", row["field"])
	case row["slug"] != nil:
		return fmt.Sprintf("the profile %v", row["slug"])
	case row["active"] != nil:
		return fmt.Sprintf("this edition of %v", row["source"])
	case row["a_key"] != nil:
		return "the decision"
	case row["name"] != nil && row["name"] != "":
		return fmt.Sprintf("%q", row["name"])
	case row["receive_hz"] != nil:
		return shown("receive_hz", row["receive_hz"])
	}
	return "a row"
}

func shown(column string, v any) string {
	switch n, ok := v.(float64); {
	case ok && column == "offset_hz":
		return freq.Offset(n).String()
	case ok && strings.HasSuffix(column, "_hz"):
		return freq.Hz(n).String()
	case ok:
		return strconv.FormatFloat(n, 'f', -1, 64)
	case v == nil, v == "":
		return "none"
	}
	return fmt.Sprintf("%v", v)
}

// merged are the changes with one for each row: as it was before the first and
// after the last. A row that ended as it began has none.
func merged(changes []RowChange) []RowChange {
	type row struct {
		table string
		id    int64
	}
	var out []RowChange
	at := map[row]int{}
	for _, c := range changes {
		r := row{c.Table, c.ID}
		if i, known := at[r]; known {
			out[i].After = c.After
			continue
		}
		at[r] = len(out)
		out = append(out, c)
	}
	return slices.DeleteFunc(out, func(c RowChange) bool { return string(c.Before) == string(c.After) })
}
