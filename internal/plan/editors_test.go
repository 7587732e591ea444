package plan_test

import (
	"context"
	"fmt"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/listing"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/fault"
	"mnemos/internal/house"
	"mnemos/internal/importing"
	"mnemos/internal/live"
	"mnemos/internal/plan"
)

// TestEditorsAtOnce has ten people edit a radio, look at it and correct what is
// published, while a listing is brought in and somebody follows. Nobody in
// another slot is in the way, everything is there in the end, and who follows
// is told of every change once, in order.
func TestEditorsAtOnce(t *testing.T) {
	a := demotest.Open(t)
	from := a.Ledger(t, demotest.Trail)
	follow, stop := context.WithCancel(t.Context())
	var events []int64
	var g, f sync.WaitGroup
	at, _, err := a.Hub.Now(t.Context())
	require.NoError(t, err)
	f.Go(func() {
		_ = a.Hub.Follow(follow, at, func(e live.Event) error { // until it is stopped
			if c, ok := e.Data.(house.Changeset); ok {
				events = append(events, c.Event)
			}
			return nil
		})
	})
	for i := range 10 {
		ctx := a.Person(t, fmt.Sprint("Editor ", i))
		g.Go(func() {
			for n := range 3 {
				slot := 100 + 10*i + n
				l, err := a.Plans.Store(ctx, demotest.Trail, plan.Save{Line: fmt.Sprintf(`146.52 "E%d %d"`, i, n), Slot: &slot, Revision: from.Revision})
				if !assert.NoError(t, err) {
					return
				}
				name := fmt.Sprintf("F%d %d", i, n)
				l, err = a.Plans.Update(ctx, demotest.Trail, slot, plan.Update{Name: &name, Revision: l.Revision})
				if assert.NoError(t, err) {
					assert.Equal(t, "change "+strings.Replace(name, "F", "E", 1)+fmt.Sprintf(" in slot %d", slot), l.Undo)
				}
				_, err = a.Plans.Evidence(ctx, demotest.Trail, slot)
				assert.NoError(t, err)
				assert.NoError(t, a.Catalog.Correct(ctx, listing.ID{Source: "Harbour list", Key: "h-qx2lhv"}, "status", []string{"on-air", "off-air"}[n%2], ""))
			}
			_, err := a.Plans.Undo(ctx, demotest.Trail, plan.Latest, false) // the correction, unless somebody else made another one since
			assert.True(t, err == nil || fault.IsStale(err), err)
		})
	}
	g.Go(func() {
		p, err := a.Bring(t.Context(), "list.csv", strings.NewReader("Output,Input,Town\n147.24,147.84,Fern Top\n"))
		if !assert.NoError(t, err) {
			return
		}
		_, err = a.Imports.Run(t.Context(), p.ID, importing.Form{Source: "List", Columns: p.Mapping()})
		assert.NoError(t, err)
		assert.NoError(t, a.Imports.Watch(t.Context(), p.ID, func(importing.State) error { return nil }))
	})
	g.Wait()
	last := a.Ledger(t, demotest.Trail)
	assert.Len(t, last.Rows, len(from.Rows)+30)
	for i := range 10 {
		for n := range 3 {
			r := row(last, 100+10*i+n)
			require.NotNil(t, r)
			assert.Equal(t, fmt.Sprintf("F%d %d", i, n), r.Channel.Name)
		}
	}
	stop()
	f.Wait()
	require.NotEmpty(t, events)
	for i, e := range events {
		require.Equal(t, events[0]+int64(i), e)
	}
	assert.LessOrEqual(t, events[len(events)-1], last.Revision)
}
