"""The program of each board: what it reads and drives by name, its tables, the files of its folder."""
