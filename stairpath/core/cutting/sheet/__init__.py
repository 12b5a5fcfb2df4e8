"""A cut drawn to scale on a sheet of paper, and written as SVG, DXF and PDF."""
