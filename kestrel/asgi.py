"""The ASGI application, for uvicorn or any other server: screens that listen hold no thread."""

import os
import warnings

from django.conf import settings
from django.core.asgi import get_asgi_application

from kestrel.door.bodies import Bodies

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "kestrel.settings")
_django = get_asgi_application()
application = Bodies(_django, settings.DATA_UPLOAD_MAX_MEMORY_SIZE, settings.LARGER_BODIES)

# Static files are small and are read whole: that is as it should be here.
warnings.filterwarnings("ignore", message="StreamingHttpResponse must consume synchronous")
