package plan

import (
	"slices"
	"time"

	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/tone"
	"mnemos/core/trial"
	"mnemos/internal/store"
)

// witnessed is what was heard on the air of a channel, on the frequency that it has now:
// what something came back to when it was tested last, or what a search for its tone
// found since.
func (d *desk) witnessed(e store.Entry) evidence.Heard {
	here := func(a store.Attempt) bool { return a.Receive == int64(e.Channel.Receive) }
	answered, ok := d.heard[e.ChannelID]
	ok = ok && here(answered)
	searches := slices.DeleteFunc(slices.Clone(d.searched[e.ChannelID]), func(a store.Attempt) bool { return !here(a) })
	if found := trial.Seek(trial.Input, store.Hits(searches)).Found; found != nil && !found.None {
		if at := searches[len(searches)-1].At; !ok || at > answered.At {
			return evidence.Heard{Known: true, Searched: true, Tone: found.Tone, Offset: e.Channel.Offset(), Day: day(at)}
		}
	}
	if !ok {
		return evidence.Heard{}
	}
	t, err := tone.Parse(answered.ToneOut)
	if err != nil {
		t = tone.Off
	}
	return evidence.Heard{Known: true, Tone: t, Offset: freq.Offset(answered.Offset), Day: day(answered.At)}
}

// day is when something was, as it is written for people.
func day(at string) string {
	t, err := time.Parse(time.RFC3339, at)
	if err != nil {
		return at
	}
	return t.Format("2 Jan 2006")
}
