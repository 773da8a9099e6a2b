"""When to sow: from soil scenarios to dates with reasons."""
