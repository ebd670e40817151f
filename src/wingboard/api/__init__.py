"""FastAPI: one router a station. No rule of the job lives here."""
