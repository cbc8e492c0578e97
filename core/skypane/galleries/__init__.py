"""Many pictures in one spot: columns, justified rows, masonry, the ratio that loses least, and the
cuts of a logo (rules §2, §12). Numbers in, numbers out; the layouts make frames of them."""
