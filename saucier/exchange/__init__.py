"""Recipes in and out: schema.org JSON-LD, plain text, Markdown; the larder as CSV."""

from saucier.exchange.blanks import MeantFor
from saucier.exchange.files import File, written
from saucier.exchange.json_ld import to_json_ld
from saucier.exchange.larder_csv import RowRead, read_larder_csv, write_larder_csv
from saucier.exchange.lines import ReadLine, read_line
from saucier.exchange.markdown import to_markdown
from saucier.exchange.recipe import Reading, Settled, read_recipe

__all__ = [
    "File",
    "MeantFor",
    "ReadLine",
    "Reading",
    "RowRead",
    "Settled",
    "read_larder_csv",
    "read_line",
    "read_recipe",
    "to_json_ld",
    "to_markdown",
    "write_larder_csv",
    "written",
]
