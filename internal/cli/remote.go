package cli

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"strings"

	"mnemos/internal/app"
	"mnemos/internal/fault"
)

// remote takes a listing in by way of the Mnemos that serves the folder.
type remote struct{ address string }

func (r remote) ask(ctx context.Context, method, path string, body io.Reader, kind string, into any) error {
	req, err := http.NewRequestWithContext(ctx, method, "http://"+r.address+path, body)
	if err != nil {
		return err
	}
	if kind != "" {
		req.Header.Set("Content-Type", kind)
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return fmt.Errorf("the Mnemos at http://%s/ does not answer: %w", r.address, err)
	}
	defer func() { _ = res.Body.Close() }() // nothing is written to it
	if res.StatusCode >= http.StatusBadRequest {
		var p struct {
			Title, Detail string
			Errors        []fault.Field
		}
		if err := json.NewDecoder(res.Body).Decode(&p); err != nil {
			return fmt.Errorf("the Mnemos at http://%s/ says %s", r.address, res.Status)
		}
		if len(p.Errors) > 0 {
			return &fault.Invalid{Fields: p.Errors}
		}
		return errors.New(strings.TrimSpace(p.Title + " " + p.Detail))
	}
	if into == nil {
		return nil
	}
	return json.NewDecoder(res.Body).Decode(into)
}

func (r remote) Bring(ctx context.Context, name string, content io.Reader) (*app.ImportPreview, error) {
	var p app.ImportPreview
	return &p, r.ask(ctx, http.MethodPost, "/api/imports?name="+url.QueryEscape(name), io.NopCloser(content), "application/octet-stream", &p)
}

func (r remote) RunImport(ctx context.Context, id string, form app.ImportForm) (*app.ImportState, error) {
	type column struct {
		Role  string `json:"role"`
		Unit  string `json:"unit"`
		Order string `json:"order"`
		Side  string `json:"side"`
	}
	body := struct {
		Source       string   `json:"source"`
		Prose        bool     `json:"prose"`
		Columns      []column `json:"columns"`
		Viewpoint    string   `json:"viewpoint"`
		AcceptLosses bool     `json:"accept_losses"`
		Confirmed    bool     `json:"confirmed"`
	}{form.Source, form.Prose, []column{}, string(form.Viewpoint), form.AcceptLosses, form.Confirmed}
	for _, c := range form.Columns {
		body.Columns = append(body.Columns, column{string(c.Role), string(c.Unit), string(c.Order), string(c.Side)})
	}
	b, err := json.Marshal(body)
	if err != nil {
		return nil, err
	}
	var s app.ImportState
	return &s, r.ask(ctx, http.MethodPost, "/api/imports/"+id+"/run", bytes.NewReader(b), "application/json", &s)
}

func (r remote) WatchImport(ctx context.Context, id string, f func(app.ImportState) error) error {
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, "http://"+r.address+"/api/imports/"+id+"/events", nil)
	if err != nil {
		return err
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return fmt.Errorf("the Mnemos at http://%s/ does not answer: %w", r.address, err)
	}
	defer func() { _ = res.Body.Close() }() // nothing is written to it
	lines := bufio.NewScanner(res.Body)
	var last app.ImportState
	for lines.Scan() {
		data, ok := strings.CutPrefix(lines.Text(), "data: ")
		if !ok {
			continue
		}
		if err := json.Unmarshal([]byte(data), &last); err != nil {
			return err
		}
		if err := f(last); err != nil {
			return err
		}
	}
	if err := lines.Err(); err != nil {
		return err
	}
	if !last.Over() {
		return fmt.Errorf("the Mnemos at http://%s/ stopped before the import was done: nothing was changed", r.address)
	}
	return nil
}

func (r remote) DropImport(id string) error {
	return r.ask(context.Background(), http.MethodDelete, "/api/imports/"+id, nil, "", nil)
}
