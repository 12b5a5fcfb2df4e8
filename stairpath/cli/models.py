"""Reading models, and what of them is shown."""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import Annotated

import typer

from stairpath.cli.common import AsJson, Files, app, federated, print_document, read_files, say, stop


@app.command()
def read(
    files: Files,
    components: Annotated[bool, typer.Option("--components", help="list every component too")] = False,
    as_json: AsJson = False,
) -> None:
    """Read model files and say what is in them and how they line up."""
    from stairpath.core.federation import report

    readings = read_files(files)
    federation = federated(readings)
    document = report.document(federation, readings if components else None)
    if as_json:
        print_document(document)
        return
    for model in document["models"]:
        alignment = model["alignment"]
        sys.stdout.write(
            f"{model['name']}: {model['schema']}, {model['length_unit']}, {model['components']} components, "
            f"{model['triangles']} triangles; aligned by {alignment['by']} ({alignment['reason']})\n"
        )
        for problem in model["problems"]:
            sys.stdout.write(f"  {problem['text']}\n")


@app.command()
def resolve(
    files: Files,
    rules: Annotated[Path, typer.Option(help="a JSON list of rules, later ones over earlier ones")],
    as_json: AsJson = False,
) -> None:
    """Say what is shown, faded, hidden and tinted by a list of rules, and which rule decided."""
    from stairpath.core.visibility import report
    from stairpath.core.visibility.rules import resolve as resolve_rules
    from stairpath.core.visibility.traits import federation_traits

    try:
        wanted = report.rules_from(json.loads(rules.read_text(encoding="utf-8")))
    except OSError as error:
        stop(f"{rules} cannot be read ({error.strerror}); give another file.")
    except (json.JSONDecodeError, UnicodeDecodeError):
        stop(f"{rules} is not JSON; write a list of rules.")
    except report.NotRulesError as error:
        stop(str(error))
    readings = read_files(files)
    federation = federated(readings)
    traits = federation_traits(federation, readings)
    document = report.document(traits, wanted, resolve_rules(traits, wanted))
    for problem in document["problems"]:
        say(problem["text"])
    if as_json:
        print_document(document)
        return
    sys.stdout.write(", ".join(f"{count} {state}" for state, count in document["counts"].items()) + "\n")
