"""What is handed over: the markup and the CSS of a placement."""
