"""The WSGI application, for waitress or any other server."""

import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "kestrel.settings")
application = get_wsgi_application()
