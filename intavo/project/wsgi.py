"""The WSGI application that granian serves."""

import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "intavo.project.settings")
os.environ.setdefault("INTAVO_STATEMENT_SECONDS", "15")
application = get_wsgi_application()
