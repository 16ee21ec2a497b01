"""Branches that do the same in another direction are told as one thing; what only looks a little like it is not."""

from __future__ import annotations

import pytest

from core.builders import report

STEP = """
    {word} way == "{way}":
        if (px, py {sign} 1) in walls:
            print("A wall is in the way")
        else:
            py = py {sign} 1
            print("Moved to", px, py)
"""


def walk(*branches: tuple[str, str]) -> str:
    """A function with such a branch for each (way, sign); ways called x are turned to the other variable."""
    lines = ["walls = [(1, 2)]", "px, py = 0, 0", "", "", "def go(way):", "    global px, py"]
    for k, (way, sign) in enumerate(branches):
        text = STEP.strip("\n").format(word="elif" if k else "if", way=way, sign=sign)
        if way in ("east", "west"):
            text = text.replace(f"(px, py {sign} 1)", f"(px {sign} 1, py)").replace(
                f"py = py {sign} 1", f"px = px {sign} 1"
            )
        lines += text.split("\n")
    return "\n".join([*lines, "", "", 'go("north")']) + "\n"


def told(text: str, language: str = "python") -> list[list[int]]:
    """Where each repeated block that is told begins."""
    found = report(text, language=language)
    blocks = [f for f in found.findings if f.rule == "repeated-block"]
    return [[p.start_line for p in f.places] for f in blocks]


def test_four_ways_are_one_thing_to_tell():
    text = walk(("north", "-"), ("south", "+"), ("west", "-"), ("east", "+"))
    assert told(text) == [[8, 14, 20, 26]]
    (found,) = [f for f in report(text).findings if f.rule == "repeated-block"]
    assert found.message == "These four branches do the same, each in another direction."
    (suggestion,) = [s for s in report(text).suggestions if s.id == found.suggestion]
    assert (suggestion.status, suggestion.patch) == ("outline", None)


def test_tests_one_behind_the_other_are_a_choice_too():
    text = walk(("north", "-"), ("south", "+"), ("west", "-"), ("east", "+")).replace("elif", "if")
    assert told(text) == [[8, 14, 20, 26]]


BOUNDS = """
let x = 0, y = 0;
function go(key) {
  if (key === "w") {
    y -= 5;
    if (y < 0) { y = 0; }
    draw(x, y, "gull");
  } else if (key === "s") {
    y += 5;
    if (y > 390) { y = 390; }
    draw(x, y, "gull");
  } else if (key === "a") {
    x -= 5;
    if (x < 0) { x = 0; }
    draw(x, y, "gull");
  } else if (key === "d") {
    x += 5;
    if (x > 590) { x = 590; }
    draw(x, y, "gull");
  }
}
"""


def test_variables_kept_within_bounds_in_another_language():
    assert told(BOUNDS, "javascript") == [[4, 8, 12, 16]]


OTHERS = {
    "one way only": walk(("north", "-")),
    "always the same way": walk(("north", "+"), ("east", "+"), ("south", "+")).replace("px +", "px * 2 +"),
    "a step each": "".join(
        f"{'el' if k else ''}if way == '{w}':\n    {v} = {v} {s} 1\n"
        for k, (w, v, s) in enumerate([("n", "y", "-"), ("s", "y", "+"), ("w", "x", "-"), ("e", "x", "+")])
    ),
    "other words each": walk(("north", "-"), ("west", "-"), ("east", "+"))
    .replace("A wall", "W", 1)
    .replace("Moved to", "North to", 1),
}


@pytest.mark.parametrize("about", OTHERS)
def test_it_is_not_told_as_directions(about):
    messages = [f.message for f in report(OTHERS[about]).findings]
    assert not any("direction" in message for message in messages)
