"""Plants in a bed: how they are spaced, how tall they stand, whom they shade, what stood there before."""
