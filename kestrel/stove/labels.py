"""Labels of what is put away, and the printers that fetch them."""

import io
import textwrap
from datetime import date, datetime, timedelta
from datetime import timezone as dt_timezone
from html import escape
from typing import NamedTuple

import segno
from django.db import transaction
from django.utils import timezone

from kestrel.accounts.models import User
from kestrel.larder.actions import rules_of
from kestrel.live import tell
from kestrel.stove.following import came_out, off_fire_at
from kestrel.stove.models import Batch, Device
from kestrel.stove.models import Label as Row
from kestrel.stove.plans import keeps_until
from kestrel.stove.probes import yolk_read_c
from saucier.errors import BadInput
from saucier.keeping import LINE, ColdBy, Label, keeps, lines_of, use_by

MOST_COPIES = 20
_WIDTH, _HEIGHT, _EDGE, _LINE, _CODE = 480, 300, 12, 24, 140
"""Of the picture, in points: a label of 48 by 30 mm at ten to the mm."""
_NAME_PX, _NAME_LETTERS = 30, 27
_WIDE = 0.62
"""How wide a letter is, against its height, at the most."""
_LOUD = ("USE BY", "IF AT", "CONTAINS")


class Cooled(NamedTuple):
    """What readings show of a cooling: until when it is used, and how cold by when a reading still has to show it."""

    use_by: date
    still_due: tuple[tuple[float, datetime], ...]


def make_label(
    batch: Batch,
    user: User,
    *,
    opens: str,
    copies: int = 1,
    mass_g: float | None = None,
    utc_offset_min: int = 0,
    cooled: Cooled | None = None,
) -> Row:
    """A label of ``batch``, to be printed ``copies`` times; it leads to the address ``opens``, and tells the
    time as clocks at ``utc_offset_min`` do. ``cooled``: what readings show of its cooling (None: nothing is known, and
    its use-by holds only if it is cold in time). Raises :class:`BadInput` by field."""
    if not 1 <= copies <= MOST_COPIES:
        raise BadInput.at("copies", "is-no-number-of-labels", most=MOST_COPIES)
    if mass_g is not None and not 1.0 <= mass_g <= 1e6:
        raise BadInput.at("mass_g", "is-no-weight-of-a-label")
    if batch.kind == Batch.Kind.ASIDE or batch.status == Batch.Status.LEFT:
        raise BadInput.at("batch", "gets-no-label")
    found = came_out(batch)
    if found is None or not found.checked.steps:
        raise BadInput.at("batch", "gets-no-label")
    final = found.checked.steps[-1]
    rules = rules_of(batch.kitchen)
    how_long = keeps(final.pot, rules.chilled_days, yolk_read_c(batch))
    clock = dt_timezone(timedelta(minutes=utc_offset_min))
    off_fire = off_fire_at(batch) or timezone.now()
    made_at = off_fire.astimezone(clock)
    if cooled is None:
        cooled = Cooled(
            use_by(made_at, how_long),
            tuple(
                (stage.to_c, off_fire + timedelta(minutes=stage.minutes)) for stage in rules.stages
            ),
        )
    label = Label(
        name=batch.plan["name"],
        code=f"B{batch.pk}",
        opens=opens,
        kitchen=batch.kitchen.name,
        made_at=made_at.replace(second=0, microsecond=0),
        made_by=batch.cook or user.called,
        mass_g=round(mass_g or final.pot.yield_g, 0),
        grade=final.thickness.grade or "",
        allergens=tuple(sorted(final.pot.allergens)),
        use_by=min(cooled.use_by, use_by(made_at, how_long), keeps_until(batch) or cooled.use_by),
        if_cold=tuple(
            ColdBy(to_c=to_c, at=at.astimezone(clock).replace(second=0, microsecond=0))
            for to_c, at in cooled.still_due
        )
        if how_long.days
        else (),
        keeps=str(how_long.words),
    )
    row = Row.objects.create(
        kitchen=batch.kitchen,
        batch=batch,
        document=label.model_dump(mode="json"),
        copies=copies,
        made_by=user,
    )
    tell(batch.kitchen_id, "batch", {"id": batch.pk})
    return row


def text_of(row: Row) -> str:
    """The label in plain lines."""
    return "\n".join(lines_of(Label.model_validate(row.document)))


def picture_of(row: Row) -> str:
    """The label as an SVG picture, with its code to scan."""
    label = Label.model_validate(row.document)
    names = textwrap.wrap(label.name, _NAME_LETTERS, max_lines=2, placeholder="…")
    lines = lines_of(label)[len(textwrap.wrap(label.name, LINE)) :]
    code = io.BytesIO()
    segno.make(label.opens or label.code, error="m").save(
        code, kind="svg", xmldecl=False, svgns=True, omitsize=True, border=2
    )
    texts = [
        _text(line, _NAME_PX * (n + 1), _NAME_PX, _WIDTH - 2 * _EDGE, bold=True)
        for n, line in enumerate(names)
    ]
    # Beside the code, however many there are: nothing of what is in it may be cut off.
    begin = _NAME_PX * len(names) + 8
    step = min(_LINE, (_HEIGHT - _EDGE - begin) / len(lines))
    beside = _WIDTH - _CODE - 3 * _EDGE
    texts += [
        _text(line, begin + step * (n + 1), 0.82 * step, beside, bold=line.startswith(_LOUD))
        for n, line in enumerate(lines)
    ]
    at = f'<svg x="{_WIDTH - _CODE - _EDGE}" y="{_HEIGHT - _CODE - _EDGE}"'
    drawn = code.getvalue().decode()
    drawn = drawn.replace("<svg", f'{at} width="{_CODE}" height="{_CODE}"', 1)
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {_WIDTH} {_HEIGHT}"'
        f' font-family="sans-serif"><rect width="{_WIDTH}" height="{_HEIGHT}" fill="#fff"/>'
        f"{''.join(texts)}{drawn}</svg>"
    )


def _text(words: str, y: float, px: float, room: float, *, bold: bool) -> str:
    """A line of text in so much ``room``: drawn together where it would be wider."""
    fitted = (
        f' textLength="{room:.0f}" lengthAdjust="spacingAndGlyphs"'
        if len(words) * px * _WIDE > room
        else ""
    )
    weight = ' font-weight="700"' if bold else ""
    return (
        f'<text x="{_EDGE}" y="{y:.0f}" font-size="{px:.1f}"{weight}{fitted}>{escape(words)}</text>'
    )


def next_for(printer: Device) -> Row | None:
    """The oldest label of the printer's kitchen that is not printed."""
    return Row.objects.filter(kitchen=printer.kitchen, printed_at=None).first()


@transaction.atomic
def printed(printer: Device, label_id: int) -> Row | None:
    """A label is out: told again, it stays as it was. None: it is none of this kitchen's."""
    row = Row.objects.select_for_update().filter(kitchen=printer.kitchen, pk=label_id).first()
    if row is not None and row.printed_at is None:
        row.printed_at = timezone.now()
        row.save(update_fields=["printed_at"])
        transaction.on_commit(lambda: tell(row.kitchen_id, "batch", {"id": row.batch_id}))
    return row
