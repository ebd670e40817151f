"""``python -m wingboard`` is the same as ``wingboard``."""

from wingboard.cli import app

if __name__ == "__main__":
    app(prog_name="wingboard")
