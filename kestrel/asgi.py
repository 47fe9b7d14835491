"""The ASGI application, for uvicorn or any other server: screens that listen hold no thread."""

import os
import warnings

from django.core.asgi import get_asgi_application

from kestrel.door.door import behind_the_door

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "kestrel.settings")
_django = get_asgi_application()
application = behind_the_door(_django)

# Static files are small and are read whole: that is as it should be here.
warnings.filterwarnings("ignore", message="StreamingHttpResponse must consume synchronous")
