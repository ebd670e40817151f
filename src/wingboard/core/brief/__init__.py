"""Brief: what the panel must do, and what it must fit."""
