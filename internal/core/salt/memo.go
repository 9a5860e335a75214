package salt

import "sync"

// memo keeps what a function gave for its last arguments. While a cook types, one piece
// changes and the salt of the others is asked for again with the same numbers. The
// function must be pure, and nobody may change what it gives.
type memo[K comparable, V any] struct {
	mu       sync.Mutex
	now, old map[K]V // the older half goes when the newer one is full
}

// mostKept is how many results of each function are kept, twice. The largest, a dry
// brine's course, takes some 15 kB.
const mostKept = 256

// of is compute(k), worked out now or before.
func (m *memo[K, V]) of(k K, compute func(K) V) V {
	m.mu.Lock()
	v, ok := m.now[k]
	if !ok {
		v, ok = m.old[k]
	}
	m.mu.Unlock()
	if !ok {
		v = compute(k)
	}
	m.mu.Lock()
	defer m.mu.Unlock()
	if m.now == nil || len(m.now) >= mostKept {
		m.now, m.old = map[K]V{}, m.now
	}
	m.now[k] = v
	return v
}
