"""What other apps hear of services."""

from django.dispatch import Signal

service_changed = Signal()
"""A service was changed: ``service`` as it is now, ``before`` its document and ``pinned_before`` its versions as they
were. Sent within the change's transaction."""
