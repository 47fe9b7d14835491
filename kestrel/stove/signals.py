"""What the stove tells whoever stands above it."""

from django.dispatch import Signal

pot_of_service_begun = Signal()
"""A pot of a service went on the stove: ``batch``, ``user``, the ``plan`` it is of, and ``use_unshown``:
whether what nothing shows to have cooled in time is used (None: nobody was asked yet)."""
