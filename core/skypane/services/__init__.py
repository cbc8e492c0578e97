"""Image services: files that are asked for by address, at the size, cut and format that the address
says (RFC 6570)."""
