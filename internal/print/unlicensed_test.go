package print_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/demo/demotest"
	"mnemos/internal/store"
)

// TestNoLicenceYet: the sheet of somebody without a licence leaves the transmit
// side locked, and the channel keeps it.
func TestNoLicenceYet(t *testing.T) {
	a := demotest.Open(t)
	k, err := a.Sheets.Keypad(t.Context(), demotest.Trail, 1)
	require.NoError(t, err)
	require.Empty(t, k.Sheet.Locked)
	require.NoError(t, a.Store.Edit(t.Context(), 0, store.Latest, store.Stamp{At: "2026-11-25T09:42:00Z", Label: "edit"}, func(e *store.Edit) error {
		return e.Put(store.Person{ID: 1, Name: "operator", Unlicensed: true})
	}))
	k, err = a.Sheets.Keypad(t.Context(), demotest.Trail, 1)
	require.NoError(t, err)
	assert.Equal(t, "No licence yet: you listen here", k.Sheet.Locked)
	assert.Nil(t, k.Sheet.Keyed, "nothing is shown as sent")
	_, sends := k.Channel.Transmit()
	assert.True(t, sends)
}
