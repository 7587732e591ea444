// Package who says on whose behalf something is done: a request carries the
// number of a person, and whatever it changes is that person's doing.
package who

import "context"

type key struct{}

// As returns a context for what a person does.
func As(ctx context.Context, person int64) context.Context {
	return context.WithValue(ctx, key{}, person)
}

// Is returns the number of the person; 0 where nobody was named.
func Is(ctx context.Context) int64 {
	id, _ := ctx.Value(key{}).(int64)
	return id
}
