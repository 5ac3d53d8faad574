"""The visits to come as an iCalendar file."""

from datetime import datetime, timedelta

from icalendar import Calendar, Event

from havrin_core.follow_up.plan import Return
from havrin_core.wording.names import visit_reason
from havrin_core.wording.phrases import words
from havrin_server.visits.models import Visit


def calendar_of(visit: Visit, returns: tuple[Return, ...], now: datetime) -> bytes:
    """Return the planned visits that have a day, as whole-day events; one that hangs on something has none."""
    calendar = Calendar()
    calendar.add("prodid", "-//Havrin//visits to come//EN")
    calendar.add("version", "2.0")
    for row in returns:
        if row.day is None:
            continue
        event = Event()
        event.add("uid", f"visit-{visit.pk}-{row.reason}@havrin")
        event.add("dtstamp", now)
        event.add("dtstart", row.day)
        event.add("dtend", row.day + timedelta(days=1))
        event.add("summary", f"{visit_reason(row.reason)}: {visit.unit.name}")
        event.add("location", visit.unit.site.name)
        event.add("description", f"{words(row.why)}. {visit.unit.site.access}".strip())
        calendar.add_component(event)
    content: bytes = calendar.to_ical()
    return content
