"""What all apps of the server share, and none of them: problems, database, bodies, files."""
