package store

import "io/fs"

// sub is the migrations folder as goose wants it.
func sub() fs.FS {
	f, err := fs.Sub(migrations, "migrations")
	if err != nil {
		panic(err) // embedded: the folder is there
	}
	return f
}
