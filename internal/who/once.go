package who

import "context"

type onceKey struct{}

// Request is how a change is asked for.
type Request struct {
	Key  string // asked for again under it, the change does not take place again
	Hash string // a digest of what is asked for
}

// Once returns a context for a change that is asked for under a key.
func Once(ctx context.Context, r Request) context.Context {
	return context.WithValue(ctx, onceKey{}, r)
}

// Asked returns how the change is asked for; zero where it has no key.
func Asked(ctx context.Context) Request {
	r, _ := ctx.Value(onceKey{}).(Request)
	return r
}
