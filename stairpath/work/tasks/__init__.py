"""Long work that jobs do, and what finds work that nobody has in hand."""
