"""Trials: what was measured side by side, analysed honestly."""
