"""The door whole, as the application stands behind it."""

from django.conf import settings

from kestrel.door.asgi import App
from kestrel.door.bodies import Bodies
from kestrel.door.doorman import Doorman


def behind_the_door(app: App) -> App:
    """``app``, where nobody unknown gets to it but as the door allows."""
    most, larger = settings.DATA_UPLOAD_MAX_MEMORY_SIZE, settings.LARGER_BODIES
    return Bodies(Doorman(app), most, larger)
