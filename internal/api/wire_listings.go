package api

import (
	"mnemos/core/intake"
	"mnemos/internal/catalog"
	"mnemos/internal/importing"
)

func wireImport(p *importing.Preview) ImportPreview {
	return ImportPreview{
		Id: p.ID, File: p.File, Source: p.Source, Remembered: p.Remembered, Prose: p.Prose, Roles: texts(p.Roles), Good: p.Good, Bad: p.Bad, Aside: p.Aside, Channels: p.Channels,
		Info: FileInfo{Format: p.Info.Format, Encoding: p.Info.Encoding, Delimiter: p.Info.Delimiter, Sheet: p.Info.Sheet},
		View: ImportView{Viewpoint: ImportViewViewpoint(p.View.Viewpoint), Settled: p.View.Settled, Reasons: texts(p.View.Reasons), Sentence: p.View.Sentence, Other: p.View.Other},
		Columns: each(p.Columns, func(c importing.Column) PreviewColumn {
			return PreviewColumn{Heading: c.Heading, Role: string(c.Role), Unit: string(c.Unit), Order: string(c.Order), Side: string(c.Side), Samples: c.Samples}
		}),
		Rows: each(p.Rows, func(r importing.Row) ImportRow {
			out := ImportRow{Line: r.Line, Cells: r.Cells, Faults: each(r.Faults, wireCellFault), Aside: r.Aside}
			if r.Record != nil {
				rec := wireRecord(*r.Record)
				out.Record = &rec
			}
			return out
		}),
	}
}

func wireCellFault(f intake.Fault) CellFault {
	return CellFault{Column: f.Column, Role: string(f.Role), Text: f.Text, Message: f.Message}
}

func wireState(s importing.State) ImportState {
	out := ImportState{
		State: ImportStateState(s.State), Rows: s.Rows, Good: s.Good, Bad: s.Bad, Aside: s.Aside, Bytes: int(s.Bytes), TotalBytes: int(s.Total), Seconds: s.Seconds,
		RowsPerSecond: s.Rate, SecondsLeft: s.Left, Error: s.Error, Source: s.Source,
	}
	if c := s.Changes; c != nil {
		out.Changes = &EditionChanges{
			New: c.Fresh, Changed: c.Changed, Gone: c.Gone, Same: c.Same,
			Rows: each(c.Rows, func(r importing.Change) RecordChange {
				return RecordChange{What: RecordChangeWhat(r.What), Title: r.Title, OutputHz: int(r.Output), Fields: r.Fields}
			}),
		}
	}
	return out
}

func wireSource(s catalog.Source) PublishedSource {
	return PublishedSource{Name: s.Name, File: s.File, Updated: s.Imported, Records: s.Records, Rejects: s.Rejects}
}

func wireRejects(r *importing.Rejects) Rejects {
	return Rejects{
		Columns: r.Columns, More: r.More,
		Rows: each(r.Rows, func(x importing.RejectRow) RejectRow {
			return RejectRow{Id: x.ID, Line: x.Line, Cells: x.Cells, Faults: each(x.Faults, wireCellFault), State: RejectRowState(x.State)}
		}),
	}
}

func wireCorrection(c catalog.Correction) Correction {
	return Correction{
		Id: c.ID, Of: StatementID{Source: c.Source, Key: c.Key}, Field: c.Field, Value: c.Value, Against: c.Against, Note: c.Note, Person: c.Person, At: c.At, Revision: c.Rev,
	}
}

func wireDecision(d catalog.Decision) Decision {
	return Decision{
		Id: d.ID, A: StatementID{Source: d.ASource, Key: d.AKey}, B: StatementID{Source: d.BSource, Key: d.BKey}, Same: d.Same, Person: d.Person, At: d.At, Revision: d.Rev,
	}
}
