"""Whether the pages of random gardens agree with each other: `./run bench agreement [GARDENS [SEED]]`."""
