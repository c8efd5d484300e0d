#!/usr/bin/env python
"""Django's command line; `load_demo` is the demo's own command."""

import os
import sys

from django.core.management import execute_from_command_line

if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "intavo.project.settings")
    if sys.argv[1:2] == ["load_demo"]:
        os.environ.setdefault("INTAVO_MORE_APPS", "demo")
    execute_from_command_line(sys.argv)
