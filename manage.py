#!/usr/bin/env python
"""Django's command line for Kestrel Fog."""

import os
import sys

if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "kestrel.settings")
    from django.core.management import execute_from_command_line

    from kestrel.private import write_for_owner_only

    write_for_owner_only()
    execute_from_command_line(sys.argv)
