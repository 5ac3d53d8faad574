"""Days and times on paper, at the place and as the firm writes them."""

from datetime import datetime

from django import template
from django.utils.safestring import mark_safe

from havrin_core.quantities import formats

register = template.Library()
register.filter("day", formats.day_words, expects_localtime=True)
register.filter("short_day", formats.short_day, expects_localtime=True)


@register.filter(is_safe=True)
def css_text(text: str) -> str:
    """Return text as it stands between the quotes of a style sheet: whatever is no letter, digit or space as its number."""
    return mark_safe("".join(c if c.isalnum() or c == " " else f"\\{ord(c):x} " for c in str(text)))


@register.filter(expects_localtime=True)
def clock(at: datetime) -> str:
    """Return the time of day at the place."""
    return formats.clock_words(at)


@register.filter(expects_localtime=True)
def moment(at: datetime) -> str:
    """Return day and time of day at the place."""
    return formats.moment_words(at)
