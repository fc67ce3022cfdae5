"""`python -m yewhour`."""

import sys

from yewhour.cli import main

sys.exit(main())
