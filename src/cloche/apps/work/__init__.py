"""Work done outside requests: the queue, what failed in it, and who is at work. Every other room rests on it."""
