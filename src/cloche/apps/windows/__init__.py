"""Windows: ground temperatures and when to sow."""
