"""What shows of a part: windows, keep areas, safe areas, and what a missing picture must be."""
