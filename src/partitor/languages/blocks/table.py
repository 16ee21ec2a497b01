"""Block programs, in the text that `reading.blocks` gives them: indented, one function a stack."""

from __future__ import annotations

import msgspec

from ..python.table import PYTHON

BLOCKS = msgspec.structs.replace(
    PYTHON,
    id="blocks",
    title="Block program",
    suggestions="in the words of blocks, no patches",
    extensions=(".sb3", ".xml", ".json"),
    shebangs=(),
    builtins=frozenset({"my", "range", "enumerate", "zip", "True", "False"}),
    output_calls=frozenset({"say", "sayforsecs", "think", "text_print", "doSayFor", "bubble"}),
    input_calls=frozenset({"askandwait", "text_prompt", "doAsk"}),
    pure_calls=frozenset(),
    reflective=frozenset(),
    framework_calls=frozenset({"main"}),
    started_prefix="when_",
    functions_are_values=False,
    variables_as_lists=False,
    texts_take_texts=False,
    open_library=True,
    repair=None,
)
