package exchange

import (
	"fmt"
	"io"
	"os"
	"strings"

	"github.com/xuri/excelize/v2"
)

type workbook struct {
	file *os.File
	book *excelize.File
	rows *excelize.Rows
	line int
	wide int // how often the rows so far were wider than a listing
}

// openWorkbook opens the first sheet that has anything in it. Values come as
// they are stored, not as they are shown: 147.2375 shown with two places is
// still 147.2375. A formula comes as the value that was saved with it, or as
// its text.
func openWorkbook(f *os.File) (Table, Info, error) {
	if err := unpacks(f); err != nil {
		return nil, Info{}, err
	}
	book, err := excelize.OpenReader(f, excelize.Options{RawCellValue: true, UnzipSizeLimit: largest, UnzipXMLSizeLimit: 32 << 20})
	if err != nil {
		if strings.Contains(err.Error(), "unzip size") {
			return nil, Info{}, fmt.Errorf("the workbook unpacks to more than %d MB: this is not a listing", largest>>20)
		}
		return nil, Info{}, fmt.Errorf("%w (%s)", ErrFormat, err)
	}
	for _, sheet := range book.GetSheetList() {
		rows, err := book.Rows(sheet)
		if err != nil {
			continue // a chart
		}
		if rows.Next() {
			if err := rows.Close(); err != nil {
				return nil, Info{}, fmt.Errorf("read sheet %s: %w", sheet, err)
			}
			if rows, err = book.Rows(sheet); err != nil {
				return nil, Info{}, fmt.Errorf("read sheet %s: %w", sheet, err)
			}
			return &workbook{file: f, book: book, rows: rows}, Info{Format: "xlsx", Sheet: sheet}, nil
		}
	}
	return nil, Info{}, fmt.Errorf("no sheet of the workbook has a row")
}

func (w *workbook) Next() (int, []string, error) {
	for w.rows.Next() {
		w.line++
		cells, err := w.rows.Columns()
		if err != nil {
			return w.line, nil, fmt.Errorf("read row %d: %w", w.line, err)
		}
		if w.wide += len(cells) / MaxColumns; w.wide > 50 {
			return w.line, nil, tooWide(w.line, len(cells)) // empty columns cost as much as full ones
		}
		for _, c := range cells {
			if c != "" {
				return w.line, cells, nil
			}
		}
	}
	if err := w.rows.Error(); err != nil {
		return 0, nil, fmt.Errorf("read row %d: %w", w.line+1, err)
	}
	return 0, nil, io.EOF
}

// Bytes is not known: a workbook is unpacked as a whole.
func (w *workbook) Bytes() int64 { return 0 }

func (w *workbook) Close() error {
	err := w.rows.Close()
	for _, e := range []error{w.book.Close(), w.file.Close()} {
		if err == nil {
			err = e
		}
	}
	return err
}
