package wire

import (
	"fmt"
	"strings"
)

// Tables are the tables of fields of docs/format.md, made from [Objects].
func Tables() string {
	var b strings.Builder
	for _, o := range Objects() {
		fmt.Fprintf(&b, "### %s\n\n%s\n\n", o.Name, o.Says)
		rows(&b, o.Fields)
		for _, v := range o.Variants {
			if len(v.Fields) == 0 {
				fmt.Fprintf(&b, "`%s`: no further fields.\n\n", v.ID)
				continue
			}
			fmt.Fprintf(&b, "`%s`:\n\n", v.ID)
			rows(&b, v.Fields)
		}
	}
	return strings.TrimSuffix(b.String(), "\n")
}

func rows(b *strings.Builder, fields []Field) {
	b.WriteString("| field | holds | meaning | absent |\n|---|---|---|---|\n")
	for i := range fields {
		f := &fields[i]
		absent := f.Absent
		if f.Must {
			absent = "not allowed"
		}
		fmt.Fprintf(b, "| `%s` | %s | %s | %s |\n", f.Name, f.Limits(), f.Says, absent)
	}
	b.WriteString("\n")
}
