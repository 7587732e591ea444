package exchange

import (
	"encoding/json"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/document"
	"mnemos/core/entry"
	"mnemos/core/table"
)

// TestSchema holds what is written against the published schema, by a validator
// that shares no code with us; a file that is spoiled does not pass it.
func TestSchema(t *testing.T) {
	c := jsonschema.NewCompiler()
	schema, err := c.Compile("../../docs/formats/plan.schema.json")
	require.NoError(t, err)
	valid := func(b []byte) error {
		var v any
		require.NoError(t, json.Unmarshal(b, &v))
		return schema.Validate(v)
	}
	f, err := Plan(season(60), "json", places)
	require.NoError(t, err)
	require.NoError(t, valid(f.Data))
	var v map[string]any
	require.NoError(t, json.Unmarshal(f.Data, &v))
	v["channels"].([]any)[0].(map[string]any)["bandwidth"] = "loud"
	b, err := json.Marshal(v)
	require.NoError(t, err)
	assert.Error(t, valid(b))

	schema, err = c.Compile("../../docs/formats/memory-image.schema.json")
	require.NoError(t, err)
	lines := []table.Line{}
	for _, x := range season(60).Channels {
		lines = append(lines, table.Line{Slot: *x.Number, Scan: entry.ScanYes, Channel: x.Channel})
	}
	f, err = Load(document.Held("p", "Trail", trail(t), lines), "json", document.Plan{}, places)
	require.NoError(t, err)
	require.NoError(t, valid(f.Data))
	assert.Error(t, valid([]byte(strings.Replace(string(f.Data), `"tx_hz":null`, `"tx_hz":0`, 1))))
}

// TestSpreadsheets sends a plan through two spreadsheets: openpyxl reads the workbook
// and saves it again, LibreOffice takes the CSV through a workbook and back. No
// channel is changed. `make proof` installs both.
func TestSpreadsheets(t *testing.T) {
	if os.Getenv("MNEMOS_SPREADSHEETS") == "" {
		t.Skip("set MNEMOS_SPREADSHEETS, or run make proof")
	}
	want := season(200)
	folder := t.TempDir()
	write := func(format string) string {
		f, err := Plan(want, format, places)
		require.NoError(t, err)
		path := filepath.Join(folder, "plan."+format)
		require.NoError(t, os.WriteFile(path, f.Data, 0o600))
		return path
	}
	same := func(path string) {
		got, _, ok, err := ReadPlan(path)
		require.NoError(t, err)
		require.True(t, ok)
		assert.Equal(t, want, got, path)
	}
	book := write("xlsx")
	again := filepath.Join(folder, "again.xlsx")
	out, err := exec.CommandContext(t.Context(), "/usr/bin/python3", "-c", `
import json, sys, openpyxl
book = openpyxl.load_workbook(sys.argv[1])
rows = [["" if c is None else c for c in r] for r in book.active.iter_rows(values_only=True)]
assert all(isinstance(c, str) for r in rows for c in r), "a cell is not text"
book.save(sys.argv[2])
print(json.dumps(rows))`, book, again).Output()
	require.NoError(t, err)
	var cells [][]string
	require.NoError(t, json.Unmarshal(out, &cells))
	for i, row := range document.Rows(want) {
		require.Equal(t, row, cells[i][:len(row)], "openpyxl, row %d", i+1)
	}
	same(again)

	home := "-env:UserInstallation=file://" + filepath.Join(folder, "home")
	convert := func(from, to, name string) string {
		// UTF-8, cells divided by commas, every column as the spreadsheet likes
		in := "--infilter=Text - txt - csv (StarCalc):44,34,76,1"
		if filepath.Ext(from) != ".csv" {
			in = "--infilter=Calc MS Excel 2007 XML"
		}
		out, err := exec.CommandContext(t.Context(), "soffice", home, "--headless", in, "--convert-to", to, "--outdir", filepath.Join(folder, name), from).CombinedOutput()
		require.NoError(t, err, "%s", out)
		kind, _, _ := strings.Cut(to, ":")
		return filepath.Join(folder, name, "plan."+kind)
	}
	through := convert(write("csv"), "xlsx", "one")
	same(convert(through, "csv:Text - txt - csv (StarCalc):44,34,76,1,,0,false,true,false", "two"))
	same(convert(through, "csv:Text - txt - csv (StarCalc):59,34,76,1,,0,false,true,false", "three"))
	same(convert(book, "xlsx", "four"))
}
