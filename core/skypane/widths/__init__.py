"""Everything that is a function of the viewport width."""
