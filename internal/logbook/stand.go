package logbook

import (
	"context"
	"errors"
	"slices"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/standing"
	"mnemos/core/trial"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
	"mnemos/internal/store"
)

// proves reports whether a line of the log proves a channel: a call as it is stored, to
// which something came back.
func proves(a store.Attempt, c channel.Channel) bool {
	return a.Kind == string(trial.Key) && !a.Negative && trial.Answer(a.Answer).Back() && freq.Hz(a.Receive) == c.Receive && as(c, setting(a)) == c
}

// as is a channel as a try sets it.
func as(c channel.Channel, s trial.Setting) channel.Channel {
	c.TransmitTone, c.Width = s.Tone, s.Width
	if s.Offset != c.Offset() {
		c.Side = channel.TransmitSide{Kind: channel.Shift, Offset: s.Offset}
		if s.Offset == 0 {
			c.Side = channel.TransmitSide{Kind: channel.Simplex}
		}
	}
	return c
}

// restand is how far a channel has come where a line of the log now reads otherwise, or
// is gone; nil where nothing changes. What one call proved, another can prove as well;
// where none does, the channel is in the radio, and that it works is no longer shown.
func (l *Logbook) restand(ctx context.Context, a store.Attempt, gone bool) (*store.Standing, error) {
	loading, err := l.plans.Loading(ctx, a.LoadID)
	if errors.Is(err, fault.ErrNotFound) {
		return nil, nil //nolint:nilnil // the radio was taken out
	}
	if err != nil {
		return nil, err
	}
	i := slices.IndexFunc(loading.Channels, func(c plan.Loaded) bool { return c.Entry.ChannelID == a.ChannelID })
	if i < 0 {
		return nil, nil //nolint:nilnil // the channel was taken out
	}
	at := loading.Channels[i]
	all, err := l.store.Attempts(ctx, a.PlanID)
	if err != nil {
		return nil, err
	}
	var by *store.Attempt // the last call that proves it
	for _, x := range all {
		if x.ID == a.ID {
			if x = a; gone {
				continue
			}
		}
		if x.LoadID == a.LoadID && x.ChannelID == a.ChannelID && proves(x, at.Entry.Channel) {
			by = &x
		}
	}
	stands, err := l.store.Standings(ctx, a.PlanID)
	if err != nil {
		return nil, err
	}
	s, ok := stands[a.LoadID][a.ChannelID]
	proven := ok && s.State == string(standing.Proven)
	switch {
	case proven && s.At == a.At && !gone && trial.Answer(a.Answer).Back():
		return nil, nil //nolint:nilnil // it still does, or did when the channel was as it was then
	case proven && s.At == a.At && (by == nil || s.Fingerprint != at.Fingerprint):
		s.State = string(standing.Stored)
	case proven && s.At == a.At, by != nil && by.ID == a.ID && !(proven && s.Fingerprint == at.Fingerprint):
		s = store.Standing{ID: s.ID, LoadID: a.LoadID, ChannelID: a.ChannelID, State: string(standing.Proven), Fingerprint: at.Fingerprint, PersonID: by.PersonID, At: by.At}
	default:
		return nil, nil //nolint:nilnil // it was not this line
	}
	return &s, nil
}
