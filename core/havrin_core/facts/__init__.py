"""What a tape says once corrected. No rule."""
