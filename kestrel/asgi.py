"""The ASGI application, for uvicorn or any other server: screens that listen hold no thread."""

import os
import warnings

from django.core.asgi import get_asgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "kestrel.settings")
application = get_asgi_application()

# Static files are small and are read whole: that is as it should be here.
warnings.filterwarnings("ignore", message="StreamingHttpResponse must consume synchronous")
