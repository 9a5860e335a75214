package localdb

// Option changes how a server runs.
type Option func(*Server)

// Forgetful runs a server whose data need not outlive it, as tests want it: what is written
// reaches the disk some time later, so that making and dropping a table costs next to nothing.
// A server that is killed may lose the last second.
func Forgetful() Option {
	return func(s *Server) {
		s.more = append(s.more,
			"--innodb-flush-log-at-trx-commit=0", "--innodb-doublewrite=OFF", "--sync-frm=OFF", "--skip-log-bin",
			"--innodb-buffer-pool-size=256M", "--max-connections=500", "--innodb-file-per-table=OFF")
	}
}
