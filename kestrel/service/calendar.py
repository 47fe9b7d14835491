"""The kitchen's dated services as a calendar."""

from collections.abc import Iterable
from datetime import UTC, datetime, timedelta

from kestrel.service.models import Dish, Service
from saucier.words import say


def services_ics(rows: Iterable[Service], dishes: dict[str, Dish], name: str) -> bytes:
    """``rows`` that have a day as an iCalendar file (RFC 5545), a day each, with their dishes and portions."""
    from icalendar import Calendar, Event  # heavy, and wanted here only

    calendar = Calendar()
    calendar.add("prodid", "-//Kestrel Fog//services//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", name)
    for row in rows:
        if row.date is None:
            continue
        lines = row.document.get("lines", [])
        told = [
            str(
                say("calendar-line", portions=line["portions"], dish=dishes[str(line["dish"])].name)
            )
            for line in lines
            if str(line["dish"]) in dishes
        ]
        portions = sum(line["portions"] for line in lines)
        event = Event()
        event.add("uid", f"service-{row.kitchen_id}-{row.pk}@kestrel-fog.invalid")
        event.add("dtstamp", datetime.now(UTC))
        event.add("last-modified", row.updated_at)
        event.add("dtstart", row.date)
        event.add("dtend", row.date + timedelta(days=1))
        event.add("summary", str(say("calendar-service", name=row.name, portions=portions)))
        event.add("description", "\n".join(told))
        calendar.add_component(event)
    written: bytes = calendar.to_ical()
    return written
