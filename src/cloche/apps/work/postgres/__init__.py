"""Django's PostgreSQL that opens no connection to a database which was just found to hang (work.patience)."""
