"""Today keeps nothing of its own yet; jobs done will be recorded here."""
