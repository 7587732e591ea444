package store

import (
	"fmt"
	"math"
	"reflect"
	"strings"

	"mnemos/core/freq"
	"mnemos/core/limit"
	"mnemos/core/text"
	"mnemos/internal/fault"
)

// longest is how long a text of a row is at most, in characters: what is larger is
// bounded where it enters.
const longest = 1 << 20

// sound reports what in a row Mnemos never keeps, whatever it came through: a
// number beyond its bounds, a text that cannot be shown. Both the last thing before
// a row is written and the first when a backup is read go by it.
func sound(r any) error {
	f := &fault.Invalid{}
	v := reflect.ValueOf(r)
	for i := range v.NumField() {
		column := v.Type().Field(i).Tag.Get("db")
		if why := odd(column, v.Field(i)); why != "" {
			f.Add(column, "%s", why)
		}
	}
	return f.Or()
}

func odd(column string, v reflect.Value) string {
	switch v.Kind() {
	case reflect.Pointer:
		if !v.IsNil() {
			return odd(column, v.Elem())
		}
	case reflect.String:
		return text.Problem(v.String(), longest)
	case reflect.Slice:
		for i := range v.Len() {
			if why := odd(column, v.Index(i)); why != "" {
				return why
			}
		}
	case reflect.Int, reflect.Int64:
		n := v.Int()
		switch {
		case strings.HasSuffix(column, "_hz") && (n > int64(freq.Max) || n < -int64(freq.Max)):
			return fmt.Sprintf("a frequency goes up to %s", freq.Max)
		case n > limit.Number || n < -limit.Number:
			return fmt.Sprintf("%d is too large a number", n)
		}
	case reflect.Float64:
		if x := v.Float(); math.IsNaN(x) || math.Abs(x) > limit.Number {
			return "it is not a number that can be used"
		}
	}
	return ""
}

// composed is a row with its texts in composed form.
func composed[R any](r R) R {
	v := reflect.New(reflect.TypeOf(r)).Elem()
	v.Set(reflect.ValueOf(r))
	for i := range v.NumField() {
		switch f := v.Field(i); f.Kind() {
		case reflect.String:
			f.SetString(text.Composed(f.String()))
		case reflect.Slice:
			words := reflect.MakeSlice(f.Type(), f.Len(), f.Len()) // that of the caller stays as it is
			for i := range f.Len() {
				words.Index(i).SetString(text.Composed(f.Index(i).String()))
			}
			if !f.IsNil() {
				f.Set(words)
			}
		}
	}
	return v.Interface().(R) //nolint:forcetypeassert // of that type
}
