"""The Bench: one study with its plane, lanes, sliders, findings and values."""
