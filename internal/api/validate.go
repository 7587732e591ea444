package api

import (
	"errors"
	"fmt"
	"mime"
	"net/http"
	"strings"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/getkin/kin-openapi/openapi3filter"
	"github.com/getkin/kin-openapi/routers"
	"github.com/getkin/kin-openapi/routers/legacy"
	"github.com/labstack/echo/v5"

	"mnemos/core/limit"
	"mnemos/internal/fault"
)

// valid refuses requests that are not as the contract says, before anything is
// made of them: each answer names the field and what to write.
func valid(router routers.Router) echo.MiddlewareFunc {
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
			if err := asContracted(router, c.Request()); err != nil {
				return err
			}
			return next(c)
		}
	}
}

// contracted finds the operation of the contract that a request is for.
func contracted() routers.Router {
	spec, err := GetSpec()
	if err != nil {
		panic(err) // it is generated from the contract
	}
	spec.Servers = nil
	bound(spec)
	router, err := legacy.NewRouter(spec)
	if err != nil {
		panic(err)
	}
	return router
}

func asContracted(router routers.Router, r *http.Request) error {
	route, params, err := router.FindRoute(r)
	if err != nil {
		return nil // a page, or nothing: others say so
	}
	kind, _, _ := mime.ParseMediaType(r.Header.Get("Content-Type")) // none is none of those below
	if body := route.Operation.RequestBody; body != nil && kind == "application/json" {
		if media := body.Value.Content.Get(kind); media != nil {
			if err := exact(media.Schema.Value, r); err != nil {
				return err
			}
		}
	}
	err = openapi3filter.ValidateRequest(r.Context(), &openapi3filter.RequestValidationInput{
		Request: r, PathParams: params, Route: route,
		Options: &openapi3filter.Options{
			MultiError:         true,
			ExcludeRequestBody: kind == "application/octet-stream", // a file: it is not read into memory
		},
	})
	if err == nil {
		return nil
	}
	f := &fault.Invalid{}
	if err := tell(f, "", err); err != nil {
		return err
	}
	return f.Or()
}

// tell adds to f what a request lacks. The errors of the library nest: those of
// several fields, of one request, of one schema.
func tell(f *fault.Invalid, field string, err error) error {
	var all openapi3.MultiError
	var request *openapi3filter.RequestError
	var schema *openapi3.SchemaError
	switch {
	case multi(err, &all):
		for _, e := range all {
			if err := tell(f, field, e); err != nil {
				return err
			}
		}
		return nil
	case errors.As(err, &request) && field == "":
		switch {
		case request.Parameter != nil:
			field = request.Parameter.Name
			if !errors.As(request.Err, &schema) && !errors.Is(request.Err, openapi3filter.ErrInvalidRequired) { // no number, or NaN
				f.Add(field, "%s", number(request.Parameter.Schema.Value))
				return nil
			}
		case strings.HasPrefix(request.Reason, "header Content-Type"):
			return echo.NewHTTPError(http.StatusUnsupportedMediaType, "send JSON, with the content type application/json")
		default:
			field = "body"
		}
		if request.Err != nil {
			return tell(f, field, request.Err)
		}
		f.Add(field, "%s", request.Reason)
	case errors.As(err, &schema):
		if at := schema.JSONPointer(); len(at) > 0 && field == "body" {
			field = strings.Join(at, ".")
		}
		f.Add(field, "%s", wanted(schema))
	case errors.Is(err, openapi3filter.ErrInvalidRequired):
		f.Add(field, "it is missing")
	case field == "body":
		f.Add(field, "it is not JSON")
	default:
		f.Add(field, "it cannot be read")
	}
	return nil
}

// multi reports whether an error is several, by itself and not further down.
func multi(err error, all *openapi3.MultiError) bool {
	m, ok := err.(openapi3.MultiError) //nolint:errorlint // what is wrapped belongs to a field
	*all = m
	return ok
}

// wanted says what a schema asks for.
func wanted(e *openapi3.SchemaError) string {
	s := e.Schema
	switch e.SchemaField {
	case "enum":
		var words []string
		for _, v := range s.Enum {
			words = append(words, fmt.Sprint(v))
		}
		return "write one of " + strings.Join(words, ", ")
	case "minimum", "maximum":
		return number(s)
	case "maxLength":
		return fmt.Sprintf("write up to %d characters", *s.MaxLength)
	case "required":
		return "it is missing"
	case "pattern":
		return "write it as " + strings.Trim(s.Pattern, "^$")
	case "maxItems":
		return fmt.Sprintf("list up to %d at once", *s.MaxItems)
	case "type":
		return "write " + articled(strings.Join(s.Type.Slice(), " or "))
	}
	return e.Reason
}

// number says which numbers a schema, or each item of a list, takes.
func number(s *openapi3.Schema) string {
	if s.Items != nil {
		s = s.Items.Value
	}
	switch {
	case s.Type.Is("boolean"):
		return "write true or false"
	case s.Max != nil && *s.Max >= limit.Number:
		return "write a number that is not so large"
	case s.Min != nil && s.Max != nil:
		return fmt.Sprintf("write a number from %v to %v", *s.Min, *s.Max)
	case s.Min != nil:
		return fmt.Sprintf("write a number from %v", *s.Min)
	case s.Max != nil:
		return fmt.Sprintf("write a number up to %v", *s.Max)
	}
	return "write a number"
}

func articled(noun string) string {
	if strings.ContainsAny(noun[:1], "aeiou") {
		return "an " + noun
	}
	return "a " + noun
}
