package cli

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// number reads how often something is done from the environment.
func number(t *testing.T, name string, otherwise int) int {
	t.Helper()
	text := os.Getenv(name)
	if text == "" {
		return otherwise
	}
	n, err := strconv.Atoi(text)
	require.NoError(t, err)
	return n
}

// served is the program, serving a folder.
type served struct {
	cmd *exec.Cmd
	url string
}

func serveIt(t *testing.T, folder string) *served {
	t.Helper()
	program := filepath.Join(t.TempDir(), "mnemos") // by this name the test binary is the program
	self, err := os.Executable()
	require.NoError(t, err)
	require.NoError(t, os.Symlink(self, program))
	cmd := exec.CommandContext(t.Context(), program, "demo", "--data", folder, "--address", "127.0.0.1:0")
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	cmd.Stderr = os.Stderr
	require.NoError(t, cmd.Start())
	line, err := bufio.NewReader(out).ReadString('\n')
	require.NoError(t, err)
	go func() { _, _ = io.Copy(io.Discard, out) }() // ends with the process
	_, rest, ok := strings.Cut(line, "http://")
	require.True(t, ok, line)
	address, _, _ := strings.Cut(rest, "/")
	return &served{cmd, "http://" + address}
}

// editor is one of ten who edit ten slots each: what was acknowledged, and what
// was asked for and not answered.
type editor struct {
	first  int
	acked  map[int]string
	asking map[int]string
	done   int
}

// edit does one thing after another until the server is gone, and tells of each
// that was acknowledged.
func (e *editor) edit(t *testing.T, url string, r *rand.Rand, acknowledged func()) {
	revision := 1 << 40 // whatever there is
	for {
		slot := e.first + r.IntN(10)
		name := fmt.Sprintf("E%d N%d", e.first, r.IntN(1_000_000))
		method, path, body := http.MethodPatch, fmt.Sprintf("/api/loads/1/entries/%d", slot), map[string]any{"name": name, "revision": revision}
		switch {
		case e.acked[slot] == "":
			method, path = http.MethodPost, "/api/loads/1/entries"
			body = map[string]any{"line": fmt.Sprintf("146.%03d %q", 400+5*(slot%20), name), "slot": slot, "revision": revision}
		case r.IntN(3) == 0:
			method, path, body, name = http.MethodDelete, fmt.Sprintf("%s?revision=%d", path, revision), nil, ""
		}
		e.asking[slot] = name
		b, err := json.Marshal(body)
		if err != nil {
			panic(err) // it always marshals
		}
		req, err := http.NewRequestWithContext(t.Context(), method, url+path, bytes.NewReader(b))
		if err != nil {
			panic(err) // its parts are all good
		}
		req.Header.Set("Content-Type", "application/json")
		res, err := http.DefaultClient.Do(req)
		if err != nil {
			return // killed
		}
		answer, err := io.ReadAll(res.Body)
		_ = res.Body.Close() // it is read
		if res.StatusCode/100 != 2 {
			assert.Fail(t, "refused", "%s %s: %d %s", method, path, res.StatusCode, answer)
			return
		}
		// The status is the acknowledgement, even if the rest was cut off.
		e.acked[slot], e.done = name, e.done+1
		acknowledged()
		delete(e.asking, slot)
		if err != nil {
			return
		}
	}
}

// copied opens a copy of the data as a kill left them: opened themselves, they
// would be tidied up before the program sees them.
func copied(t *testing.T, folder string) *sqlx.DB {
	t.Helper()
	at := t.TempDir()
	for _, name := range []string{"mnemos.db", "mnemos.db-wal"} {
		b, err := os.ReadFile(filepath.Join(folder, name))
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(filepath.Join(at, name), b, 0o600))
	}
	db, err := sqlx.Open("sqlite", "file:"+filepath.Join(at, "mnemos.db"))
	require.NoError(t, err)
	return db
}

// TestKilledUnderEditors kills the server again and again while ten people edit.
// Nothing that was acknowledged is lost, no slot is there twice, and the journal
// leads to the very rows that are there. `make soak` does it 200 times.
func TestKilledUnderEditors(t *testing.T) {
	folder := filepath.Join(t.TempDir(), "data")
	r := rand.New(rand.NewPCG(11, 26))
	var editors []*editor
	for i := range 10 {
		editors = append(editors, &editor{first: 100 + 10*i, acked: map[int]string{}, asking: map[int]string{}})
	}
	rounds, cut := number(t, "MNEMOS_KILLS", 4), 0
	for round := range rounds {
		s := serveIt(t, folder)
		var g sync.WaitGroup
		started, begun := context.WithCancel(t.Context())
		for _, e := range editors {
			own := rand.New(rand.NewPCG(uint64(round), uint64(e.first)))
			g.Go(func() { e.edit(t, s.url, own, begun) })
		}
		select {
		case <-started.Done():
		case <-time.After(30 * time.Second):
			assert.Fail(t, "nothing was acknowledged")
		}
		time.Sleep(time.Duration(r.IntN(400)) * time.Millisecond)
		begun()
		require.NoError(t, s.cmd.Process.Kill())
		_ = s.cmd.Wait() // killed
		g.Wait()
		http.DefaultClient.CloseIdleConnections()
		db := copied(t, folder)
		replayed(t, db)
		var rows []struct {
			Slot int    `db:"slot"`
			Name string `db:"name"`
		}
		require.NoError(t, db.Select(&rows, "SELECT slot, channel.name FROM entry JOIN channel ON channel.id = channel_id WHERE load_id = 1 AND slot >= 100"))
		require.NoError(t, db.Close())
		have := map[int]string{}
		for _, x := range rows {
			have[x.Slot] = x.Name
		}
		for _, e := range editors {
			for slot := e.first; slot < e.first+10; slot++ {
				if asked, ok := e.asking[slot]; ok && have[slot] == asked {
					e.acked[slot] = asked // it got in, and the answer did not get out
					cut++
				}
				require.Equal(t, e.acked[slot], have[slot], "round %d, slot %d", round, slot)
				delete(e.asking, slot)
			}
		}
	}
	total := 0
	for _, e := range editors {
		total += e.done
	}
	require.Greater(t, total, rounds*5)
	t.Logf("%d kills, %d changes acknowledged, %d got in unanswered", rounds, total, cut)
}

// TestLogCutOff: a copy of the data whose log is cut off or garbled anywhere
// opens as the plan was at some moment before: whole changes, in their order.
func TestLogCutOff(t *testing.T) {
	folder := filepath.Join(t.TempDir(), "data")
	s := serveIt(t, folder)
	e := &editor{first: 100, acked: map[int]string{}, asking: map[int]string{}}
	time.AfterFunc(1500*time.Millisecond, func() { _ = s.cmd.Process.Kill() })
	e.edit(t, s.url, rand.New(rand.NewPCG(1, 2)), func() {})
	_ = s.cmd.Wait() // killed
	data, err := os.ReadFile(filepath.Join(folder, "mnemos.db"))
	require.NoError(t, err)
	log, err := os.ReadFile(filepath.Join(folder, "mnemos.db-wal"))
	require.NoError(t, err)
	require.Greater(t, len(log), 100_000)
	r := rand.New(rand.NewPCG(3, 4))
	open := func(log []byte) int {
		at := t.TempDir()
		require.NoError(t, os.WriteFile(filepath.Join(at, "mnemos.db"), data, 0o600))
		require.NoError(t, os.WriteFile(filepath.Join(at, "mnemos.db-wal"), log, 0o600))
		db, err := sqlx.Open("sqlite", "file:"+filepath.Join(at, "mnemos.db"))
		require.NoError(t, err)
		defer func() { require.NoError(t, db.Close()) }()
		var n int
		require.NoError(t, db.Get(&n, "SELECT count(*) FROM sqlite_master WHERE name = 'team_slot'"))
		if n == 0 {
			return 0 // before there was anything of today
		}
		return replayed(t, db)
	}
	whole := open(log)
	require.GreaterOrEqual(t, whole, e.done)
	lengths := map[int]bool{}
	for i := range number(t, "MNEMOS_CUTS", 24) {
		at := r.IntN(len(log))
		spoilt := bytes.Clone(log[:at])
		if i%2 == 0 { // garbled and not cut
			spoilt = bytes.Clone(log)
			for k := at; k < min(at+1+r.IntN(64), len(spoilt)); k++ {
				spoilt[k] ^= byte(1 + r.IntN(255))
			}
		}
		n := open(spoilt)
		require.LessOrEqual(t, n, whole)
		lengths[n] = true
	}
	require.Greater(t, len(lengths), 5, "cut at many moments")
}
