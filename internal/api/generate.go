package api

//go:generate go tool oapi-codegen -config oapi.yaml openapi.yaml
