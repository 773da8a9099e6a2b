"""Background work: the queue, failures and workers. All other apps build on it."""
