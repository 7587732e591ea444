package who

import "context"

type onceKey struct{}

// Once returns a context for a change that is asked for under a key: asked for
// again under the same key, it does not take place again.
func Once(ctx context.Context, key string) context.Context {
	return context.WithValue(ctx, onceKey{}, key)
}

// Key returns the key that a change is asked for under, or "".
func Key(ctx context.Context) string {
	key, _ := ctx.Value(onceKey{}).(string)
	return key
}
