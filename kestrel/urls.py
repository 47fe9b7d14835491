"""Where requests go: the API under /api/, everything else is the one page of the interface."""

from django.urls import path, re_path

from kestrel.api import api
from kestrel.live import live
from kestrel.web import page, worker

urlpatterns = [
    path("sw.js", worker),
    path("api/live", live),
    path("api/", api.urls),
    re_path(r"^(?!api/|static/).*$", page),
]

handler400 = "kestrel.trouble.not_understood"
handler403 = "kestrel.trouble.not_allowed"
handler404 = "kestrel.trouble.not_found"
handler500 = "kestrel.trouble.went_wrong"
