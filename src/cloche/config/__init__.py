"""Settings and addresses. The environment is read only here."""
