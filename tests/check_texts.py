#!/usr/bin/env python3
"""Every text that a person reads passes the translation call: tr() in the window, text() or said() in the words.

A string literal counts as such a text when it holds a word and is no identifier, pointer, unit or style. What stands in
a table of texts is marked QT_TRANSLATE_NOOP and goes through tr() where it is shown; the tables of src/words are
looked up by text() and listed here."""
import pathlib
import re
import sys

source = pathlib.Path(sys.argv[1])

# Calls whose texts nobody reads, or that translate.
WRAPPED = {"tr", "text", "said", "QT_TRANSLATE_NOOP", "translate", "filled"}
SILENT = {"setObjectName", "value", "contains", "erase", "setProperty", "setStyleSheet", "QKeySequence", "setMeta", "meta",
          "textAt", "figureAt", "startsWith", "endsWith", "indexOf", "inherits", "property", "findChild", "addApplicationFont",
          "create", "toString", "child", "find", "setCreator", "makeVersion", "QRegularExpression", "split", "section", "fromString",
          "QCommandLineOption", "setFamilies", "printf", "setApplicationName", "setOrganizationName", "setApplicationDisplayName",
          "qEnvironmentVariable", "splitRef", "replace", "remove", "join", "setStringList", "static_assert", "format", "set", "QFont",
          "setFamily", "setOption", "setDateFormat", "QColor", "indexIn", "count", "setIcon", "notInTheBook"}
# Calls whose texts are always read, single words too.
READ = {"QLabel", "QPushButton", "QCheckBox", "QRadioButton", "setText", "setToolTip", "setPlaceholderText", "setAccessibleName", "addItem",
        "addAction", "addMenu", "message", "say", "setWindowTitle", "setHeadline", "setAccessibleDescription", "rowOf", "NumberField", "addAmount"}
# Codes that stand in files and happen to have a blank.
CODES = {"by hand", "gone back"}
# Words of chemistry and of units that every language writes alike.
ALIKE = re.compile(r"^(?:\W|\d|%\d?|<[^>]*>|&\w+;|mg/L|g/L|kg/L|mmol/L|meq/L|meq/mL|mS/cm|[µu]S/cm|mL/L|pH|EC|ppm|[kmµ]?g|[mk]?L|lb|oz|°[CF]|[CF]|"
                   r"dH|fH|ug/L|umol/L|µmol/L|GH|kPa|cm|mm|m³|m2|atm|GiB|MB|kB|CaCO[3₃]|Butte|Ctrl|[A-Z][a-z]?|(?:[A-Z][a-z]?[0-9₀-₉]*)+(?:[-⁻⁺²³+]|-[A-Z][a-z]?)*|K₂O|urea-N|x|n|N|h|d|s|min)*$")
CODE = re.compile(r"^serial:[\w/]*$|^org\.[\w.]+$|^\w+_\w+$|^[a-z]+[A-Z]\w*(?:%\d)?$|^[a-z0-9_./:,;%#*~\-\[\]{}=|^$\\+?()'@]*$|^[A-Za-z_]+$(?<![a-z]{3}ing)|^[:/.][\w/.\-%]*$|^#[0-9a-fA-F]+$|^(?:d )?MMM|^HH:|^yyyy|\w+\{|: ?#|px\b|^[\w.\-]+\.(?:csv|pdf|json|png|butte)$")


def literals(text):
    """(position, value, what stands before) of every string literal, neighbours joined, comments and #lines left out."""
    code = re.compile(r'//[^\n]*|/\*.*?\*/|^[ \t]*#(?:[^\n\\]|\\\n)*(?:\\\n[^\n]*)*|R"(\w*)\(.*?\)\1"|\'(?:\\.|[^\'\\])+\'|"(?:\\.|[^"\\])*"', re.S | re.M)
    last_end, group = -1, None
    for match in code.finditer(text):
        piece = match.group(0)
        if piece.startswith('"'):
            if group and text[last_end:match.start()].strip() == "":
                group[1] += piece[1:-1]
            else:
                if group:
                    yield tuple(group)
                group = [match.start(), piece[1:-1], text[max(0, match.start() - 60):match.start()].rstrip()]
            last_end = match.end()
    if group:
        yield tuple(group)


def call_before(before):
    match = re.search(r"(\w+)\s*(?:[({]|\({)$", before)
    return match.group(1) if match else before[-1:]


def is_read(value):
    plain = re.sub(r"<[^>]*>|\\n|\\t|&\w+;", " ", value)
    if re.match(r"^[\w-]+: ?[\w% ]+;", plain) or re.search(r"^/[^/]*\.butte$", value):
        return False  # a style, a file's name
    if not re.search(r"[A-Za-z]{2,}", plain) or ALIKE.match(plain):
        return False
    return not CODE.search(value) or bool(re.search(r"[a-z]{2,} [a-z(]{2,}", plain)) and "{" not in value


faults = []
for path in sorted((source / "app").rglob("*.cpp")) + sorted((source / "app").rglob("*.h")):
    name = path.relative_to(source).as_posix()
    if name.endswith("start_options.cpp"):
        continue  # the command line's own help
    text = path.read_text(encoding="utf-8")
    for position, value, before in literals(text):
        shown = call_before(before) in READ and re.search(r"[A-Za-z]{2,}", value) and not ALIKE.match(value)
        if not (shown or is_read(value)) or re.search(r'QT_TRANSLATE_NOOP\("butte",$', before):
            continue
        call = call_before(before)
        # A problem's phrases are looked up where the problem is worded.
        phrase = re.search(r"ProblemCode::\w+[^;]*\{$", text[max(0, position - 160):position].rstrip())
        if value in CODES or phrase or call in WRAPPED or call in SILENT or call == "[" or re.search(r"(setObjectName|setStyleSheet)\([^;]*$", before):
            continue
        faults.append(f"{name}:{text.count(chr(10), 0, position) + 1}: not translated: \"{value[:70]}\"")

# In src/words a sentence stands in text() or said(); tables of texts are looked up by text() as a whole.
TABLES = ("change_words.cpp", "column_words.cpp", "deed_words.cpp", "table_words.h", "chemistry_words.cpp", "water_words.cpp", "cautions.cpp",
          "thing_names.cpp")
for path in sorted((source / "words").glob("*.cpp")):
    text = path.read_text(encoding="utf-8")
    for position, value, before in literals(text):
        code = re.match(r"^[a-z_0-9/%.,-]*$", value)
        if code or not re.search(r"[A-Za-z]{2,}", value) or ALIKE.match(value) or call_before(before) in WRAPPED:
            continue
        in_table = path.name in TABLES and re.search(r"[{,]$", before)
        asked_for = re.search(r"==$", before)
        if not in_table and not asked_for:
            faults.append(f"words/{path.name}:{text.count(chr(10), 0, position) + 1}: not translated: \"{value[:70]}\"")
print("\n".join(faults) or "every text passes the translation call")
sys.exit(bool(faults))
