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

	"mnemos/core/intake"
	"mnemos/internal/api"
	"mnemos/internal/fault"
	"mnemos/internal/importing"
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

func (r remote) Bring(ctx context.Context, name string, content io.Reader) (*importing.Preview, error) {
	var w api.ImportPreview
	err := r.ask(ctx, http.MethodPost, "/api/imports?name="+url.QueryEscape(name), io.NopCloser(content), "application/octet-stream", &w)
	p := &importing.Preview{ID: w.Id, Source: w.Source, Prose: w.Prose}
	p.View.Viewpoint, p.View.Settled, p.View.Sentence, p.View.Other = intake.Viewpoint(w.View.Viewpoint), w.View.Settled, w.View.Sentence, w.View.Other
	for _, c := range w.Columns {
		p.Columns = append(p.Columns, importing.Column{
			Heading: c.Heading, Role: intake.Role(c.Role), Unit: intake.Unit(c.Unit), Order: intake.Order(c.Order), Side: intake.Side(c.Side),
		})
	}
	return p, err
}

func (r remote) Run(ctx context.Context, id string, form importing.Form) (*importing.State, error) {
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
	var w api.ImportState
	err = r.ask(ctx, http.MethodPost, "/api/imports/"+id+"/run", bytes.NewReader(b), "application/json", &w)
	s := state(w)
	return &s, err
}

// state reads how far an import is.
func state(w api.ImportState) importing.State {
	return importing.State{State: string(w.State), Rows: w.Rows, Good: w.Good, Bad: w.Bad, Aside: w.Aside, Seconds: w.Seconds, Left: w.SecondsLeft, Error: w.Error, Source: w.Source}
}

func (r remote) Watch(ctx context.Context, id string, f func(importing.State) error) error {
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
	var last importing.State
	for lines.Scan() {
		data, ok := strings.CutPrefix(lines.Text(), "data: ")
		if !ok {
			continue
		}
		var w api.ImportState
		if err := json.Unmarshal([]byte(data), &w); err != nil {
			return err
		}
		last = state(w)
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

func (r remote) Drop(id string) error {
	return r.ask(context.Background(), http.MethodDelete, "/api/imports/"+id, nil, "", nil)
}
