"""Where the camera stands, and what cuts go through."""
