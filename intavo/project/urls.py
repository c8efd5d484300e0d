"""All addresses."""

from django.urls import include, path, re_path

from . import views
from .api import api

urlpatterns = [
    path("api/", api.urls),
    path("_allauth/", include("allauth.headless.urls")),
    path("healthz", views.healthz),
    path("sw.js", views.service_worker),
    path("", include("intavo.mailin.urls")),
    path("", include("intavo.visitor.urls")),
    re_path(
        r"^(?!api/|_allauth/|b/|e/|g/|h/|in/mail/|l/|t/|m/|f/|c/|sender/|told/|told-of/|csv/|static/).*$",
        views.console,
    ),
]

handler500 = views.failed
