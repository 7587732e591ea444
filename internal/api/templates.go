package api

import (
	"context"

	"mnemos/core/document"
	"mnemos/core/template"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
)

func coreTemplate(t ColumnTemplate) template.Template {
	return template.Template{Name: t.Name, Comma: t.Comma, Divide: t.Divide, Heading: t.Heading, Columns: each(t.Columns, func(c TemplateColumn) template.Column {
		return template.Column{Of: template.Field(c.Of), Heading: c.Heading, Unit: or(c.Unit), Decimals: or(c.Decimals), Words: or(c.Words), Text: or(c.Text)}
	})}
}

func wireTemplate(t plan.Template) KeptTemplate {
	return KeptTemplate{Id: t.ID, Revision: t.Revision, Template: ColumnTemplate{
		Name: t.Name, Comma: t.Comma, Divide: t.Divide, Heading: t.Heading, Columns: each(t.Columns, func(c template.Column) TemplateColumn {
			out := TemplateColumn{Of: string(c.Of), Heading: c.Heading, Unit: some(c.Unit), Decimals: some(c.Decimals), Text: some(c.Text)}
			if len(c.Words) > 0 {
				out.Words = &c.Words
			}
			return out
		}),
	}}
}

func wireTemplates(all []plan.Template) Templates {
	return Templates{Templates: each(all, wireTemplate), Fields: each(template.Fields, func(f template.Info) TemplateField {
		return TemplateField{Of: string(f.Of), Says: f.Says, Frequency: f.Frequency, Words: orNone(f.Words)}
	})}
}

func (s *server) GetTemplates(ctx context.Context, _ GetTemplatesRequestObject) (GetTemplatesResponseObject, error) {
	all, err := s.Plans.Templates(ctx)
	if err != nil {
		return nil, err
	}
	return GetTemplates200JSONResponse(wireTemplates(all)), nil
}

func (s *server) SaveTemplate(ctx context.Context, r SaveTemplateRequestObject) (SaveTemplateResponseObject, error) {
	all, err := s.Plans.SaveTemplate(ctx, plan.Template{Template: coreTemplate(r.Body.Template), ID: r.Body.Id, Revision: r.Body.Revision})
	if err != nil {
		return nil, err
	}
	return SaveTemplate201JSONResponse(wireTemplates(all)), nil
}

func (s *server) DropTemplate(ctx context.Context, r DropTemplateRequestObject) (DropTemplateResponseObject, error) {
	all, err := s.Plans.DropTemplate(ctx, r.Id, orLatest(r.Params.Revision))
	if err != nil {
		return nil, err
	}
	return DropTemplate200JSONResponse(wireTemplates(all)), nil
}

func (s *server) SampleTemplate(ctx context.Context, r SampleTemplateRequestObject) (SampleTemplateResponseObject, error) {
	v, err := s.Plans.Sample(ctx, r.Load, coreTemplate(*r.Body))
	if err != nil {
		return nil, err
	}
	out := TemplateSample{
		Rows: v.Rows, Lost: each(v.Lost, func(l document.Loss) string { return l.String() }),
		Faults: each(v.Faults, func(f fault.Field) FieldFault { return FieldFault{Field: f.Field, Message: f.Message} }),
	}
	if len(v.Faults) == 0 {
		f := wireFile(v.File)
		out.File = &f
	}
	return SampleTemplate200JSONResponse(out), nil
}
