"""What all rooms share: the clock, words, fields, checks at the border. No models."""
