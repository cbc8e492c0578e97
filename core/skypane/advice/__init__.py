"""The gentlest remedies for what is not whole, and crops that hold all areas."""
