"""The job itself: pure computation, one package a station. No server, no database, no interface."""
