"""Days and times on paper, at the place and as the firm writes them."""

from datetime import datetime

from django import template

from havrin_core.quantities import formats

register = template.Library()
register.filter("day", formats.day_words, expects_localtime=True)
register.filter("short_day", formats.short_day, expects_localtime=True)


@register.filter(expects_localtime=True)
def clock(at: datetime) -> str:
    """Return the time of day at the place."""
    return formats.clock_words(at)


@register.filter(expects_localtime=True)
def moment(at: datetime) -> str:
    """Return day and time of day at the place."""
    return formats.moment_words(at)
