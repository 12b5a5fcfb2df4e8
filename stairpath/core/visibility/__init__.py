"""Show, fade, hide, tint, sets."""
