package store

import (
	"gorm.io/gorm/clause"
)

// is asks for the rows in which a column has a value.
func is(column string, value any) clause.Expression { return clause.Eq{Column: column, Value: value} }

// over asks for the rows in which a column is more than a value.
func over(column string, value any) clause.Expression { return clause.Gt{Column: column, Value: value} }

// among asks for the rows in which a column has one of some values.
func among[T any](column string, values []T) clause.Expression {
	all := make([]any, len(values))
	for i, v := range values {
		all[i] = v
	}
	return clause.IN{Column: column, Values: all}
}
