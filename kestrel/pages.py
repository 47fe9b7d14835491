"""Long lists a page at a time: what it costs does not depend on what is not shown."""

from collections.abc import Callable
from typing import Annotated, Any

from django.db.models import QuerySet
from ninja import Query, Schema
from pydantic import Field

PAGE = 60
MOST = 200


class Span(Schema):
    """Which rows of a list are wanted: ``most`` of them from ``offset`` on."""

    offset: int = Field(0, ge=0, le=1_000_000)
    most: int = Field(PAGE, ge=1, le=MOST)


InSpan = Annotated[Span, Query()]


def page_of(rows: QuerySet[Any], span: Span, line: Callable[[Any], Any]) -> dict[str, Any]:
    """The ``rows`` in ``span``, each as ``line`` tells it, and how many there are in all."""
    wanted = rows[span.offset : span.offset + span.most]
    return {"rows": [line(row) for row in wanted], "total": rows.count()}
