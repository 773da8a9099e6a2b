"""What a cover does for what grows beneath it: the warmth it gains, what plants feel there, and its days on the bed."""
