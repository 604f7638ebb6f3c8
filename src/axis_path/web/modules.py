"""Join the script modules of a page to one: sixty files take a browser longer than what they do.

The modules stay what they are, and are served one by one to whoever asks; this is the same text in
the order in which a browser would run it, each module in a function of its own. What our modules
never do (renaming imports, exports by name, circles) is refused when the server starts.
"""

from __future__ import annotations

import posixpath
import re
from collections.abc import Callable

_IMPORT = re.compile(r'^import (?:\{ (\w+(?:, \w+)*) \}|(\w+)) from "(\.[^"]+)";$')
_EXPORT = re.compile(r"^export (?:async function|function|class|const) (\w+)")
_OTHER = re.compile(r"^(?:import|export)\b|\bimport(?:\.meta\b|\s*\()", re.M)
#: Files that are modules already and stay so, such as libraries that were made shorter.
_APART = "vendor/"


class ModuleError(Exception):
    """A module that cannot be joined to others."""


def join_modules(entry: str, read: Callable[[str], str], beside: str) -> str:
    """Return the text of one script that does what a module and all that it imports do.

    Args:
        entry: the path of the module from the folder of all static files.
        read: gives the text of a file by such a path.
        beside: the way from where the script is served to that folder, such as ``../../``.

    Raises:
        ModuleError: a module does what is not foreseen.
    """
    apart: dict[str, str] = {}
    parts: dict[str, str] = {}

    def take(path: str, above: tuple[str, ...]) -> str:
        """Take a module in, behind all that it imports, and give the name it is known by."""
        if path in above:
            raise ModuleError(f"{path} imports itself, by {' and '.join(above)}")
        name = "module_" + re.sub(r"\W", "_", path)
        if path in parts:
            return name
        lines, exports = [], []
        for line in read(path).splitlines():
            if match := _IMPORT.match(line):
                wanted = posixpath.normpath(posixpath.join(posixpath.dirname(path), match[3]))
                if match[2]:
                    if not wanted.startswith(_APART):
                        raise ModuleError(f"{path} imports {match[2]} without braces")
                    apart[match[2]] = wanted
                else:
                    lines.append(f"const {{ {match[1]} }} = {take(wanted, (*above, path))};")
            elif match := _EXPORT.match(line):
                exports.append(match[1])
                lines.append(line.removeprefix("export "))
            else:
                lines.append(line)
        text = "\n".join(lines)
        code = re.sub(r"/\*.*?\*/|//[^\n]*", "", text, flags=re.S)
        if other := _OTHER.search(code):
            raise ModuleError(f"{path} does what is not foreseen: {other[0]}")
        text += f"\nreturn {{ {', '.join(exports)} }};"
        parts[path] = f"// {path}\nconst {name} = (() => {{\n{text}\n}})();"
        return name

    take(entry, ())
    heads = [f'import {name} from "{beside}{path}";' for name, path in apart.items()]
    return "\n".join([*heads, *parts.values(), ""])
