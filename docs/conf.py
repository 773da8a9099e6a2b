"""How `./run docs` builds these pages and those of the engine: Sphinx, without network."""

from __future__ import annotations

import tomllib
from pathlib import Path
from typing import Any, get_origin

from docutils import nodes
from docutils.utils.math.latex2mathml import tex2mathml
from sphinx.application import Sphinx

ROOT = Path(__file__).parents[1]

project = "Cloche"
author = "the contributors"
version = release = tomllib.loads((ROOT / "pyproject.toml").read_text(encoding="utf-8"))["project"]["version"]
extensions = ["myst_parser", "numpydoc", "sphinx.ext.apidoc", "sphinx.ext.autodoc", "sphinx.ext.viewcode"]
exclude_patterns = ["_build"]
html_theme = "alabaster"
html_theme_options = {"description": "The engine and the house", "fixed_sidebar": True}
html_math_renderer = "mathml"
myst_enable_extensions = ["dollarmath"]
myst_heading_anchors = 3
# Links to files beside the pages are for readers of the repository; of two classes of one name the module tells which.
suppress_warnings = ["myst.xref_missing", "ref.python"]
apidoc_modules = [
    {
        "path": "../src/cloche_engine",
        "destination": "api",
        "separate_modules": True,
        "module_first": True,
        "max_depth": 1,
        "exclude_patterns": ["../src/cloche_engine/crops/build.py"],
    }
]
autodoc_typehints = "signature"
autodoc_type_aliases = {name: name for name in ("ArrayLike", "Array", "Days", "Row")}
autodoc_member_order = "bysource"
numpydoc_show_class_members = False


def _inline(translator: Any, node: nodes.math) -> None:
    translator.body.append(tex2mathml(node.astext(), as_block=False))
    raise nodes.SkipNode


def _block(translator: Any, node: nodes.math_block) -> None:
    translator.body.append(tex2mathml(node.astext(), as_block=True))
    raise nodes.SkipNode


def setup(app: Sphinx) -> None:
    """Equations as MathML: browsers set it by themselves, no script is fetched."""
    # numpydoc cannot write the signature of an alias such as dict[str, Any], and it has none.
    app.connect("autodoc-skip-member", lambda app, what, name, obj, skip, options: skip or get_origin(obj) is not None)
    app.add_html_math_renderer("mathml", inline_renderers=(_inline, None), block_renderers=(_block, None))
