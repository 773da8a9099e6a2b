"""Speed and accuracy, printed as tables: `./run bench`."""
