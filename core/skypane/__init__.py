"""The rules of Sky Pane: what of a picture shows, which files are needed, what a browser takes.

Nothing here knows a database, a web framework or an interface. Values go in, values come out; only
`pixels` and `cli` touch files.
"""
