"""What the stove tells whoever stands above it."""

from django.dispatch import Signal

pot_of_service_begun = Signal()
"""A pot of a service went on the stove: ``batch``, ``user`` and the ``plan`` it is of."""
