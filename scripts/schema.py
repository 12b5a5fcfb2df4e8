"""Print the server's OpenAPI document, from which the browser's types are generated."""

import json
import sys

from stairpath.api.server import create_app

sys.stdout.write(json.dumps(create_app().openapi(), indent=1))
