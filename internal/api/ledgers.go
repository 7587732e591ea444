package api

import (
	"context"
	"crypto/rand"
	"encoding/json"
	"hash/maphash"
	"strconv"
	"sync"

	"github.com/labstack/echo/v5"

	"mnemos/internal/plan"
)

// LedgerHeader names, by its tag, a ledger that the caller holds: only the rows
// that are different from it are answered.
const LedgerHeader = "Mnemos-Ledger"

type ledgerKey struct{}

func holding(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		if tag := c.Request().Header.Get(LedgerHeader); tag != "" {
			c.SetRequest(c.Request().WithContext(context.WithValue(c.Request().Context(), ledgerKey{}, tag)))
		}
		return next(c)
	}
}

// ledgers remembers what the last ledgers that were told held, row by row, so
// that the next answer need hold only what is different. What is forgotten is
// told whole.
type ledgers struct {
	mu    sync.Mutex
	seed  maphash.Seed
	epoch string
	last  int64
	kept  map[string]told
	order []string
}

// told is a ledger as it was told: a digest of each row, by slot.
type told struct {
	load int64
	rows map[int]uint64
}

// remembered is how many ledgers are: some for each tab that is open.
const remembered = 64

func newLedgers() *ledgers {
	return &ledgers{seed: maphash.MakeSeed(), epoch: rand.Text()[:8], kept: map[string]told{}}
}

// wire is a ledger for somebody who may hold an earlier one.
func (k *ledgers) wire(ctx context.Context, l *plan.Ledger) (Ledger, error) {
	out := wireLedger(l)
	now := told{l.Load, make(map[int]uint64, len(out.Rows))}
	for _, r := range out.Rows {
		b, err := json.Marshal(r)
		if err != nil {
			return out, err
		}
		now.rows[r.Slot] = maphash.Bytes(k.seed, b)
	}
	tag, _ := ctx.Value(ledgerKey{}).(string)
	k.mu.Lock()
	base, known := k.kept[tag]
	k.last++
	out.Tag = k.epoch + "-" + strconv.FormatInt(k.last, 10)
	k.kept[out.Tag] = now
	if k.order = append(k.order, out.Tag); len(k.order) > remembered {
		delete(k.kept, k.order[0])
		k.order = k.order[1:]
	}
	k.mu.Unlock()
	if !known || base.load != l.Load {
		return out, nil
	}
	out.Base = tag
	changed := []Row{}
	for _, r := range out.Rows {
		if was, ok := base.rows[r.Slot]; !ok || was != now.rows[r.Slot] {
			changed = append(changed, r)
		}
	}
	for slot := range base.rows {
		if _, still := now.rows[slot]; !still {
			out.Gone = append(out.Gone, slot)
		}
	}
	out.Rows = changed
	return out, nil
}
