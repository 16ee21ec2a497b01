"""Brace-style game scripts (.gml), read with the JavaScript grammar where their words are its own.

`and`, `or`, `not`, `mod`, `div` and `repeat` are masked with what JavaScript writes, of the same length,
so that every place in the text stays where it is; the tree's texts are the student's.
"""

from __future__ import annotations

import re
from typing import Any

from ..javascript.table import TABLE
from ..table import Language

MASKS = {
    b"and": b"&& ",
    b"or": b"||",
    b"not": b"!  ",
    b"mod": b"%  ",
    b"div": b"/  ",
    b"xor": b"^  ",
    b"repeat": b"while ",
    b"until": b"while",
}
PIECE = re.compile(
    rb"//[^\n]*|/\*.*?\*/|\"(?:\\.|[^\"\\\n])*\"|'(?:\\.|[^'\\\n])*'|^[ \t]*#\w+[^\n]*|[A-Za-z_]\w*",
    re.DOTALL | re.MULTILINE,
)


def mask(source: bytes) -> bytes:
    """The text as JavaScript would write it, byte for byte as long.

    >>> mask(b'if (a and not b) x = "and";')
    b'if (a &&  !   b) x = "and";'
    """

    def masked(match: re.Match[bytes]) -> bytes:
        piece = match.group()
        if piece.lstrip().startswith(b"#"):
            return piece.replace(piece.lstrip()[:2], b"//", 1)
        return MASKS.get(piece, piece)

    return PIECE.sub(masked, source)


GAMESCRIPT_TABLE: dict[str, Any] = {
    **TABLE,
    "shebangs": (),
    "builtins": frozenset(
        """
        show_debug_message instance_create_layer instance_destroy place_meeting keyboard_check random irandom choose
        draw_text draw_sprite draw_self point_distance lengthdir_x lengthdir_y string real floor round abs sign min
        max clamp lerp array_length audio_play_sound room_goto x y hspeed vspeed speed direction sprite_index
        image_index self other noone true false global room room_width room_height
        """.split()
    ),
    "keywords": TABLE["keywords"] | frozenset("and or not mod div repeat until self other global then exit".split()),
    "output_calls": frozenset({"show_debug_message", "draw_text"}),
    "input_calls": frozenset(
        {"get_integer", "get_string", "keyboard_check", "keyboard_check_pressed", "mouse_check_button"}
    ),
    "texts_take_numbers": frozenset(),
    "loops_declare": False,
    "texts_take_texts": True,
    "framework_calls": frozenset(),
    "runs_top_down": False,
    "quiet_calls": r"(?:draw|string|keyboard|mouse|point|lengthdir|color|make_color)_\w+|string|real|floor|round|abs"
    r"|sign|min|max|clamp|lerp|array_length|show_debug_message|random|irandom|choose",
    "named_constants": r"(?:obj|spr|snd|rm|fnt|vk|c|ev|fa|mb)_\w+",
}
GAMESCRIPT = Language(
    id="gamescript",
    title="Game script",
    grammar="javascript",
    extensions=(".gml",),
    mask=mask,
    **GAMESCRIPT_TABLE,
)
