"""What the stove tells whoever stands above it."""

from django.dispatch import Signal

middle_read = Signal()
"""A step that warms to a figure in the middle was left: ``batch``, ``user``, the ``key`` of the act, ``at``, ``asked_c``,
and the hottest a probe read of it (``read_c``; None: nobody read it)."""
pot_of_service_begun = Signal()
"""A pot of a service went on the stove: ``batch``, ``user``, the ``plan`` it is of, and ``use_unshown``:
whether what nothing shows to have cooled in time is used (None: nobody was asked yet)."""
