"""Topics in and out: files of the open format, and its web interface."""
