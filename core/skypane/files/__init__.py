"""The files that a placement needs, and what they are called."""
