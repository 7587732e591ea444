package cli

import (
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"regexp"
	"syscall"
	"time"

	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"
	"github.com/spf13/cobra"

	"mnemos/core/limit"
	"mnemos/internal/api"
	"mnemos/internal/demo"
	"mnemos/internal/house"
	"mnemos/internal/store"
	"mnemos/internal/webui"
)

type serveFlags struct {
	address, data, today string
	demo                 bool // a new folder gets the demonstration
}

func (f *serveFlags) add(c *cobra.Command) {
	c.Flags().StringVar(&f.address, "address", "127.0.0.1:8146", "where to listen; port 0 takes any free one")
	c.Flags().StringVar(&f.data, "data", f.data, "the data folder")
	c.Flags().StringVar(&f.today, "today", "", "let the clock stand still on this day, YYYY-MM-DD")
}

func serveCommand() *cobra.Command {
	f := serveFlags{data: "mnemos-data"}
	c := &cobra.Command{
		Use: "serve", Short: "Serve the application from a data folder", Args: noArgs,
		RunE: func(cmd *cobra.Command, _ []string) error { return f.serve(cmd.Context(), cmd.OutOrStdout()) },
	}
	f.add(c)
	return c
}

func demoCommand() *cobra.Command {
	var f serveFlags
	c := &cobra.Command{
		Use: "demo", Short: "Serve the application with the demonstration data in a fresh folder", Args: noArgs,
		RunE: func(cmd *cobra.Command, _ []string) (err error) {
			if f.data == "" {
				if f.data, err = os.MkdirTemp("", "mnemos-demo-"); err != nil {
					return fmt.Errorf("make a data folder: %w", err)
				}
				defer func() { err = errors.Join(err, os.RemoveAll(f.data)) }()
			}
			f.demo = true
			return f.serve(cmd.Context(), cmd.OutOrStdout())
		},
	}
	f.add(c)
	return c
}

func noArgs(cmd *cobra.Command, args []string) error {
	if err := cobra.NoArgs(cmd, args); err != nil {
		return usage{err}
	}
	return nil
}

// serve runs until the context ends. A data folder without anybody is new: it is
// asked about in the interface, or gets the demonstration.
func (f *serveFlags) serve(ctx context.Context, out io.Writer) (err error) {
	now, err := clock(f.today)
	if err != nil {
		return err
	}
	if err := onlyLoopback(f.address); err != nil {
		return usage{err}
	}
	s, err := store.Open(ctx, f.data)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, s.Close()) }()
	if people, err := s.People(ctx); err != nil {
		return err
	} else if f.demo && len(people) == 0 {
		if err := demo.Fill(ctx, s, now()); err != nil {
			return err
		}
	}
	h := house.New(s, now)
	h.Catalog.Prime()                           // an import alone needs nothing in memory
	defer context.AfterFunc(ctx, h.Hub.Close)() // whoever follows what happens does not keep the server
	token := rand.Text()
	e := Server(h)
	e.Pre(api.Meant(token))
	err = echo.StartConfig{
		Address: f.address, HideBanner: true, HidePort: true, GracefulTimeout: 3 * time.Second,
		ListenerAddrFunc: func(a net.Addr) {
			if err := s.ServesAt(a.String(), token); err != nil { // an import then waits instead of handing its file over
				fmt.Fprintln(out, err)
			}
			fmt.Fprintf(out, "Mnemos is ready at http://%s/ (data in %s)\n", a, f.data)
		},
		BeforeServeFunc: func(srv *http.Server) error {
			srv.ReadHeaderTimeout, srv.IdleTimeout = 5*time.Second, 2*time.Minute
			return nil
		},
	}.Start(ctx, e)
	switch {
	case errors.Is(err, http.ErrServerClosed):
		return nil
	case errors.Is(err, syscall.EADDRINUSE):
		return fmt.Errorf("%s is in use: choose another with --address, such as --address 127.0.0.1:0", f.address)
	}
	return err
}

// Server returns the whole application as an HTTP handler.
func Server(h *house.House) *echo.Echo {
	e := echo.New()
	e.Logger = slog.New(slog.DiscardHandler)
	e.HTTPErrorHandler = api.ErrorHandler
	e.Pre(api.Heads)
	e.Use(api.Recovered, api.Guard, bodies)
	api.Register(e, h)
	webui.Register(e)
	return e
}

// bodies limits what a request may carry: a megabyte, the file of a plan where one
// is taken, and a whole listing only where one is brought in.
func bodies(next echo.HandlerFunc) echo.HandlerFunc {
	small, file, listing := middleware.BodyLimit(limit.Body)(next), middleware.BodyLimit(limit.PlanFile)(next), middleware.BodyLimit(limit.Listing+1)(next)
	files := regexp.MustCompile(`^/api/loads/\d+/(bring|against|take|table|log/file|beacon/track)$`)
	return func(c *echo.Context) error {
		switch path := c.Request().URL.Path; {
		case c.Request().Method != http.MethodPost:
			return small(c)
		case path == "/api/imports":
			return listing(c)
		case files.MatchString(path):
			return file(c)
		}
		return small(c)
	}
}

func onlyLoopback(address string) error {
	host, _, err := net.SplitHostPort(address)
	if err != nil {
		return fmt.Errorf("--address %q: write HOST:PORT", address)
	}
	if ip := net.ParseIP(host); host != "localhost" && (ip == nil || !ip.IsLoopback()) {
		return fmt.Errorf("--address %q: only addresses of this computer (127.0.0.1) are served", address)
	}
	return nil
}
