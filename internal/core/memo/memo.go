// Package memo keeps what a pure function gave for its last arguments.
//
//	var roots memo.Of[float64, float64]
//	roots.Get(2, math.Sqrt) // worked out once, and kept while it is asked for
package memo

import "sync"

// Of keeps what a function gave for its last arguments. While a cook types, one piece
// changes and the others are asked for again with the same numbers. The function must be
// pure, and nobody may change what it gives.
type Of[K comparable, V any] struct {
	mu       sync.Mutex
	now, old map[K]V // the older half goes when the newer one is full
}

// mostKept is how many results of each function are kept, twice. The largest, a dry
// brine's course, takes some 15 kB.
const mostKept = 256

// Get is compute(k), worked out now or before.
func (m *Of[K, V]) Get(k K, compute func(K) V) V {
	v, ok := m.Kept(k)
	if !ok {
		v = compute(k)
	}
	m.Keep(k, v)
	return v
}

// Kept is what is kept for k, if anything is.
func (m *Of[K, V]) Kept(k K) (V, bool) {
	m.mu.Lock()
	defer m.mu.Unlock()
	v, ok := m.now[k]
	if !ok {
		v, ok = m.old[k]
	}
	return v, ok
}

// Keep notes what the function gave for k.
func (m *Of[K, V]) Keep(k K, v V) {
	m.mu.Lock()
	defer m.mu.Unlock()
	if m.now == nil || len(m.now) >= mostKept {
		m.now, m.old = map[K]V{}, m.now
	}
	m.now[k] = v
}
