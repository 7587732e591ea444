package logbook_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/channel"
	"mnemos/core/standing"
	"mnemos/core/trial"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/logbook"
	"mnemos/internal/plan"
	"mnemos/internal/store"
)

// told is a line of the log as the model of the test remembers it.
type told struct {
	id      int64
	at      string
	channel channel.Channel // as it was set when it was called
	proves  bool            // it was no negative test
	back    bool
}

// model is what the standing of one channel has to be, reckoned from nothing but what
// was done: it knows neither fingerprints nor rows.
type model struct {
	channel channel.Channel
	log     []told
	state   standing.State  // said of it last
	held    channel.Channel // what was said of
	by      int64           // the call that proved it; 0 for somebody's word
}

func (m model) clone() model { m.log = slices.Clone(m.log); return m }

// now is how far the channel has come: what is said of another channel counts for nothing.
func (m model) now() standing.State {
	if m.state == "" || m.held != m.channel {
		return standing.Planned
	}
	return m.state
}

// again looks for another call that proves what the radio holds, after one has gone.
func (m *model) again() {
	m.state, m.by = standing.Stored, 0
	if m.held != m.channel {
		return
	}
	for _, x := range m.log { // the log is in the order of time
		if x.proves && x.back && x.channel == m.channel {
			m.state, m.by = standing.Proven, x.id
		}
	}
}

// TestStandingFollowsTheLog does at random what can be done with one channel, and compares
// its standing with the model's after every step, over undo and redo too.
func TestStandingFollowsTheLog(t *testing.T) {
	seen := map[standing.State]int{}
	for seed := range uint64(4) {
		t.Run(fmt.Sprint(seed), func(t *testing.T) {
			rnd := rand.New(rand.NewPCG(seed, 18)) //nolint:gosec // the same evening each time
			walk(t, rnd, seen)
		})
	}
	for _, s := range []standing.State{standing.Planned, standing.Stored, standing.Keyed, standing.Proven} {
		assert.GreaterOrEqual(t, seen[s], 5, "%s was hardly ever reached", s)
	}
}

func walk(t *testing.T, rnd *rand.Rand, seen map[standing.State]int) { //nolint:gocognit,cyclop,funlen // one evening
	a := open(t)
	const slot = 7
	m := model{channel: card(t, a, slot).Channel}
	var past, future []model
	minute := 0
	for step := range 70 {
		before, does, revision := m.clone(), "", a.Ledger(t, demotest.Trail).Revision
		switch rnd.IntN(9) {
		case 0, 1, 2: // a call
			c := card(t, a, slot)
			if len(c.Acts) == 0 {
				continue
			}
			x := c.Acts[rnd.IntN(len(c.Acts))]
			form := logbook.Form{Kind: x.Kind, Setting: x.Setting, Answer: trial.Answers[rnd.IntN(5)].Answer, Yes: rnd.IntN(2) == 0}
			minute++
			at := time.Date(2026, 11, 25, 0, minute, 0, 0, time.UTC).Format(time.RFC3339)
			form.At = at
			does = fmt.Sprintf("%s %s: %s", x.Kind, x.Change, form.Answer)
			c, err := try(t, a, slot, form)
			require.NoError(t, err, does)
			if x.Kind != trial.Key {
				break
			}
			line := told{id: c.Tries[len(c.Tries)-1].ID, at: at, channel: x.Channel, proves: true, back: form.Answer.Back()}
			m.log = append(m.log, line)
			if line.back && line.channel == m.channel {
				m.state, m.held, m.by = standing.Proven, m.channel, line.id
			}
		case 3: // the channel is set otherwise
			text := []string{"88.5", "100", "127.3", "off"}[rnd.IntN(4)]
			does = "send " + text
			l, err := a.Plans.Update(t.Context(), demotest.Trail, slot, plan.Update{TransmitTone: &text, Revision: plan.Latest})
			require.NoError(t, err)
			was := m.channel
			m.channel = l.Rows[slices.IndexFunc(l.Rows, func(r plan.Row) bool { return r.Slot == slot })].Channel
			if was == m.channel {
				continue // nothing was done
			}
		case 4: // an answer is corrected
			if len(m.log) == 0 {
				continue
			}
			i := rnd.IntN(len(m.log))
			to := []string{"nothing", "tail"}[rnd.IntN(2)]
			does = fmt.Sprintf("line %d is %s", i, to)
			_, err := a.Log.Correct(t.Context(), m.log[i].id, logbook.Edit{Answer: &to})
			require.NoError(t, err)
			m.log[i].back = to != "nothing"
			switch {
			case m.state == standing.Proven && m.by == m.log[i].id:
				if !m.log[i].back {
					m.again()
				}
			case m.log[i].back && m.log[i].channel == m.channel && (m.now() != standing.Proven) && last(m) == i:
				m.state, m.held, m.by = standing.Proven, m.channel, m.log[i].id
			}
		case 5: // a line is taken out
			if len(m.log) == 0 {
				continue
			}
			i := rnd.IntN(len(m.log))
			does = fmt.Sprintf("line %d is taken out", i)
			gone := m.log[i]
			require.NoError(t, a.Log.Drop(t.Context(), gone.id))
			m.log = slices.Delete(m.log, i, i+1)
			if m.state == standing.Proven && m.by == gone.id {
				m.again()
			}
		case 6: // somebody says how far it has come
			s := []standing.State{standing.Stored, standing.Keyed, standing.Planned}[rnd.IntN(3)]
			does = "say " + string(s)
			_, err := a.Plans.Stand(t.Context(), demotest.Trail, []int{slot}, s, plan.Latest)
			require.NoError(t, err)
			m.state, m.held, m.by = s, m.channel, 0
		default: // undo, redo
			redo := rnd.IntN(3) == 0
			from, to := &past, &future
			if redo {
				from, to = &future, &past
			}
			if len(*from) == 0 {
				continue
			}
			_, err := a.Plans.Undo(t.Context(), demotest.Trail, plan.Latest, redo)
			require.NoError(t, err)
			*to = append(*to, m.clone())
			m, *from = (*from)[len(*from)-1], (*from)[:len(*from)-1]
			seen[m.now()]++
			require.Equal(t, m.now(), stands(t, a, slot), "step %d, undo or redo", step)
			continue
		}
		if a.Ledger(t, demotest.Trail).Revision == revision { // as it was: there is no step to undo
			require.Equal(t, before.now(), m.now(), "step %d, %s", step, does)
			continue
		}
		past, future = append(past, before), nil
		seen[m.now()]++
		require.Equal(t, m.now(), stands(t, a, slot), "step %d, %s", step, does)
	}
	var log []store.Attempt
	list, err := a.Log.List(t.Context(), demotest.Trail, "")
	require.NoError(t, err)
	for _, x := range list.Tries {
		if x.Kind == string(trial.Key) {
			log = append(log, x)
		}
	}
	require.Len(t, log, len(m.log), "nothing is lost, and nothing is there twice")
}

// last is the last line that proves the channel as it is, or −1.
func last(m model) int {
	at := -1
	for i, x := range m.log {
		if x.proves && x.back && x.channel == m.channel {
			at = i
		}
	}
	return at
}
