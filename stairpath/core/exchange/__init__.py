"""Topics and viewpoints in the open exchange format, minutes, lists."""
