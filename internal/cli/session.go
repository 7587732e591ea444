package cli

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"time"

	"mnemos/internal/api"
	"mnemos/internal/fault"
	"mnemos/internal/house"
)

// session is a command at work on a data folder. It speaks the contract of the
// application: to the Mnemos that serves the folder, or else to one in this process
// that nobody can reach. So a command does the same either way.
type session struct {
	planFlags
	out, errOut io.Writer
	do          func(*http.Request) (*http.Response, error)
	host, token string
	person      string
	close       func() error
}

// inside answers requests in this process.
func inside(h http.Handler) func(*http.Request) (*http.Response, error) {
	return func(r *http.Request) (*http.Response, error) {
		w := httptest.NewRecorder()
		h.ServeHTTP(w, r)
		return w.Result(), nil
	}
}

func open(ctx context.Context, f planFlags, out, errOut io.Writer) (*session, error) {
	if _, err := os.Stat(filepath.Join(f.data, "mnemos.db")); err != nil {
		return nil, usage{fmt.Errorf("%s holds no data yet: start mnemos serve --data %s once", f.data, f.data)}
	}
	x := &session{planFlags: f, out: out, errOut: errOut, host: "127.0.0.1", close: func() error { return nil }}
	s, busy, err := (&importFlags{data: f.data}).open(ctx, errOut)
	switch {
	case err != nil:
		return nil, err
	case busy != nil:
		x.host, x.token, x.do = busy.Owner.Address, busy.Owner.Token, http.DefaultClient.Do
	default:
		s.Alone()
		h := house.New(s, time.Now)
		x.do, x.close = inside(Server(h)), s.Close
	}
	if f.as == "" {
		return x, nil
	}
	if err := x.be(ctx, f.as); err != nil {
		return nil, errors.Join(err, x.close())
	}
	return x, nil
}

// be does what follows as a person.
func (x *session) be(ctx context.Context, name string) error {
	w, err := x.workspace(ctx, 0)
	if err != nil {
		return err
	}
	var names []string
	for _, p := range w.People {
		names = append(names, p.Name)
		if strings.EqualFold(p.Name, name) {
			x.person = strconv.FormatInt(p.Id, 10)
			return nil
		}
	}
	return usage{fmt.Errorf("--as %q: nobody is called so; there are %s", name, strings.Join(names, ", "))}
}

// ask asks for something and reads the answer.
func (x *session) ask(ctx context.Context, method, path string, body, into any) error {
	var content io.Reader
	if body != nil {
		b, err := json.Marshal(body)
		if err != nil {
			return err
		}
		content = bytes.NewReader(b)
	}
	r, err := http.NewRequestWithContext(ctx, method, "http://"+x.host+path, content)
	if err != nil {
		return err
	}
	if body != nil {
		r.Header.Set("Content-Type", "application/json")
	}
	for name, value := range map[string]string{api.PersonHeader: x.person, api.TokenHeader: x.token} {
		if value != "" {
			r.Header.Set(name, value)
		}
	}
	res, err := x.do(r)
	if err != nil {
		return fmt.Errorf("the Mnemos at http://%s/ does not answer: %w", x.host, err)
	}
	defer func() { _ = res.Body.Close() }() // nothing is written to it
	if res.StatusCode < http.StatusBadRequest {
		return json.NewDecoder(res.Body).Decode(into)
	}
	var p api.Problem
	if err := json.NewDecoder(res.Body).Decode(&p); err != nil {
		return fmt.Errorf("the Mnemos at http://%s/ says %s", x.host, res.Status)
	}
	if p.Errors != nil {
		f := &fault.Invalid{}
		for _, e := range *p.Errors {
			f.Add(e.Field, "%s", e.Message)
		}
		return f
	}
	said := p.Title
	if p.Detail != nil {
		said = *p.Detail
	}
	return errors.New(said)
}

func (x *session) workspace(ctx context.Context, plan int64) (w api.Workspace, err error) {
	path := "/api/workspace"
	if plan != 0 {
		path += "?plan=" + strconv.FormatInt(plan, 10)
	}
	return w, x.ask(ctx, "GET", path, nil, &w)
}

// plan returns a plan by its name or number, or the first one where none is named.
func (x *session) plan(ctx context.Context, name string) (api.Workspace, error) {
	w, err := x.workspace(ctx, 0)
	if err != nil || name == "" {
		return w, err
	}
	i := slices.IndexFunc(w.Plans, func(p api.PlanInfo) bool { return strconv.FormatInt(p.Id, 10) == name })
	var called []api.PlanInfo
	var names []string
	for _, p := range w.Plans {
		names = append(names, fmt.Sprintf("%s (%d)", p.Name, p.Id))
		if strings.EqualFold(p.Name, strings.TrimSpace(name)) {
			called = append(called, p)
		}
	}
	switch {
	case len(called) == 1:
		return x.workspace(ctx, called[0].Id)
	case i >= 0:
		return x.workspace(ctx, w.Plans[i].Id)
	case len(called) > 1:
		return w, usage{fmt.Errorf("%d plans are called %q: name one by its number; there are %s", len(called), name, strings.Join(names, ", "))}
	}
	return w, usage{fmt.Errorf("no plan is called %q; there are %s", name, strings.Join(names, ", "))}
}

// load returns the radio that is asked for, or the first one.
func (x *session) load(w api.Workspace) (api.LoadInfo, error) {
	if x.radio == "" && len(w.Loads) > 0 {
		return w.Loads[0], nil
	}
	return loadOf(w, x.radio)
}

func loadOf(w api.Workspace, name string) (api.LoadInfo, error) {
	var names []string
	for _, l := range w.Loads {
		names = append(names, l.Unit.Name)
		if strings.EqualFold(l.Unit.Name, name) || strconv.FormatInt(l.Id, 10) == name {
			return l, nil
		}
	}
	return api.LoadInfo{}, usage{fmt.Errorf("%s has no radio %q; it has %s", w.Plan.Name, name, strings.Join(names, ", "))}
}

func (x *session) ledger(ctx context.Context, plan string) (l api.Ledger, load api.LoadInfo, err error) {
	w, err := x.plan(ctx, plan)
	if err != nil {
		return l, load, err
	}
	if load, err = x.load(w); err != nil {
		return l, load, err
	}
	l, err = x.settled(ctx, load.Id)
	return l, load, err
}

// settled returns the slots of a radio once every channel is judged.
func (x *session) settled(ctx context.Context, load int64) (l api.Ledger, err error) {
	for {
		if err := x.ask(ctx, "GET", fmt.Sprintf("/api/loads/%d", load), nil, &l); err != nil || !l.Checking {
			return l, err
		}
		select {
		case <-ctx.Done():
			return l, ctx.Err()
		case <-time.After(100 * time.Millisecond):
		}
	}
}
