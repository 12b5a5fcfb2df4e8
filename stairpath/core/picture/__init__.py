"""Pictures of what is seen, drawn without a graphics card."""
