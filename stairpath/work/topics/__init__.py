"""Topics, their rules and files, questions and meetings."""
