package plan_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"mnemos/core/trial"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/logbook"
)

// found is a hit of a tone search on the input of slot 7.
func found(t *testing.T, a *demotest.Rig, tone string) {
	t.Helper()
	_, err := a.Log.Searched(t.Context(), demotest.Trail, 7, logbook.SearchForm{Side: trial.Input, System: trial.CTCSS, Tone: tone})
	require.NoError(t, err)
}
