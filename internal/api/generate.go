package api

//go:generate go run ./contract/write
//go:generate go tool oapi-codegen -config oapi.yaml openapi.yaml
