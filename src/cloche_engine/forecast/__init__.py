"""A place's forecast, step by step, and the smaller questions that start from one that was made."""
