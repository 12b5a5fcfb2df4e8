"""Points, planes, axes and areas that all of the core counts by."""
