"""The page that carries the interface."""

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe


@require_safe
@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """The built ``index.html``; which place to show is the interface's own business."""
    index = settings.WEB_DIST / "index.html"
    if not index.exists():
        return HttpResponse(
            "The interface is not built yet: run “make demo” or “make run”.",
            status=503,
            content_type="text/plain; charset=utf-8",
        )
    response = HttpResponse(index.read_bytes())
    response["Cache-Control"] = "no-cache"
    return response


@require_safe
def worker(request: HttpRequest) -> HttpResponse:
    """The service worker, from the root, so that it is there for every place."""
    script = settings.WEB_DIST / "sw.js"
    if not script.exists():
        return HttpResponse("not built", status=404, content_type="text/plain; charset=utf-8")
    response = HttpResponse(script.read_bytes(), content_type="text/javascript; charset=utf-8")
    response["Cache-Control"] = "no-cache"
    return response
