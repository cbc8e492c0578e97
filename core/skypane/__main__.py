"""`python -m skypane` is `skypane`."""

from skypane.cli import app

if __name__ == "__main__":
    app()
