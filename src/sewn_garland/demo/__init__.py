"""The demo world, Plover Quay: a ferry landing whose kiosk sells printed and stitched goods."""
