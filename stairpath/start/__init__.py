"""Starting everything on one machine: database, server, worker, demo."""
