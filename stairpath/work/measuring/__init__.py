"""What measures come to, and what is around a component."""
