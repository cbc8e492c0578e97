"""Words on pictures: how text is laid out, what lies under it, and whether it can be read."""
