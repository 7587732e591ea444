package trial_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/tone"
	"mnemos/core/trial"
)

func hits(side trial.Side, texts ...string) (out []trial.Hit) {
	for _, s := range texts {
		h := trial.Hit{Side: side, System: trial.CTCSS}
		switch s {
		case "no ctcss":
		case "no dcs":
			h.System = trial.DCS
		default:
			h.Tone = tone.MustParse(s)
			if h.Tone.Kind() == tone.DCS {
				h.System = trial.DCS
			}
		}
		out = append(out, h)
	}
	return out
}

// TestSeek follows searches step by step. Source of the order, CTCSS then DCS and two that
// agree: common practice, no source. Of the pairs of DCS codes that are one signal: printed
// tables of inverted codes, from memory.
func TestSeek(t *testing.T) {
	for name, c := range map[string]struct {
		hits  []string
		next  trial.System
		found string // "" for nothing yet
		doubt string
	}{
		"nothing yet":            {nil, trial.CTCSS, "", ""},
		"one hit is none":        {[]string{"88.5"}, trial.CTCSS, "", ""},
		"two agree":              {[]string{"88.5", "88.5"}, trial.CTCSS, "88.5", ""},
		"a miss between":         {[]string{"88.5", "no ctcss", "88.5"}, trial.CTCSS, "88.5", ""},
		"neighbours":             {[]string{"85.4", "88.5"}, trial.CTCSS, "", "neighbours"},
		"neighbours, settled":    {[]string{"85.4", "88.5", "88.5"}, trial.CTCSS, "88.5", "Another hit said 85.4 Hz"},
		"two stations":           {[]string{"88.5", "127.3"}, trial.CTCSS, "", "do not agree"},
		"two stations, twice":    {[]string{"88.5", "127.3", "88.5", "127.3"}, trial.CTCSS, "", "do not agree"},
		"one miss is no proof":   {[]string{"no ctcss"}, trial.CTCSS, "", ""},
		"then dcs":               {[]string{"no ctcss", "no ctcss"}, trial.DCS, "", ""},
		"dcs, once":              {[]string{"no ctcss", "no ctcss", "D023N"}, trial.DCS, "", ""},
		"dcs":                    {[]string{"no ctcss", "no ctcss", "D023N", "D023N"}, trial.DCS, "D023N", ""},
		"dcs by its other name":  {[]string{"D023N", "D047I"}, trial.DCS, "D023N", ""},
		"dcs upside down, twice": {[]string{"D047I", "D047I"}, trial.DCS, "D023N", ""},
		"neither":                {[]string{"no ctcss", "no ctcss", "no dcs", "no dcs"}, trial.DCS, "none", ""},
		"it has changed":         {[]string{"88.5", "88.5", "88.5", "100", "100", "100", "100"}, trial.CTCSS, "100.0", "Another hit said 88.5 Hz"},
	} {
		s := trial.Seek(trial.Input, append(hits(trial.Output, "67", "67", "67"), hits(trial.Input, c.hits...)...))
		assert.Equal(t, c.next, s.System, name)
		if c.found == "" {
			assert.Nil(t, s.Found, name)
		} else if assert.NotNil(t, s.Found, name) {
			assert.Equal(t, c.found, s.Found.Tone.String(), name)
			assert.Equal(t, c.found == "none", s.Found.None, name)
			assert.Equal(t, "tone out", s.Found.Field(), name)
		}
		if c.doubt == "" {
			assert.Empty(t, s.Doubt, name)
		}
		assert.Contains(t, s.Doubt, c.doubt, name)
	}
	s := trial.Seek(trial.Output, hits(trial.Output, "D023N", "D047I"))
	require.NotNil(t, s.Found)
	assert.Equal(t, "tone in", s.Found.Field())
	assert.Equal(t, "D047I", s.Found.Same.String())
}

// TestSeekFinds: a station sends one tone, or none, and one hit at most is misread. What is
// found is what is sent, under one of its names, and it takes six hits at most.
func TestSeekFinds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		sent := rapid.SampledFrom(hits(trial.Input, "67", "88.5", "254.1", "D023N", "D047I", "D754N", "no ctcss")).Draw(t, "sent").Tone
		wrong := rapid.SampledFrom(hits(trial.Input, "69.3", "D031N", "151.4", "no ctcss")).Draw(t, "misread").Tone
		at := rapid.IntRange(0, 8).Draw(t, "when")
		var done []trial.Hit
		for i := range 9 {
			s := trial.Seek(trial.Input, done)
			if s.Found != nil {
				if s.Found.None != sent.IsOff() || !sent.IsOff() && !tone.Same(sent, s.Found.Tone) {
					t.Fatalf("%s is sent, and %+v is found from %v", sent, s.Found, done)
				}
				return
			}
			h := trial.Hit{Side: trial.Input, System: s.System}
			shown := sent
			if i == at {
				shown = wrong
			}
			if k := shown.Kind(); k == tone.CTCSS && s.System == trial.CTCSS || k == tone.DCS && s.System == trial.DCS {
				h.Tone = shown
			}
			done = append(done, h)
		}
		t.Fatalf("%s is never found: %v", sent, done)
	})
}
