"""The ASGI application, for uvicorn or any other server: screens that listen hold no thread."""

import os

from django.core.asgi import get_asgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "kestrel.settings")
application = get_asgi_application()
