"""Loops, branches and functions with copies that leave them by `continue`, `break` or `return`, to break the proof on."""

from __future__ import annotations

from random import Random

HEAD = """given = {given!r}
places = {{"quay": 4, "mill": 7, "pier": 1}}
total = 3


def take():
    return given.pop(0) if given else "5"


"""


def leaving(seed: int) -> str:
    """A program of one shape or the other in which the same is asked, checked and refused in several places."""
    r = Random(seed)
    given = [r.choice(["quay", "mill", "x", "", "3", "12", "0", "-4"]) for _ in range(40)]
    head = HEAD.format(given=given)
    block = [step for step in _checks(r) if r.random() < 0.93]
    shape = r.choice([_menu, _menu, _functions, _tail, _returning])
    return head + shape(r, block)


def _checks(r: Random) -> list[str]:
    """Statements that ask and check; `LEAVE` stands for the way out, `W` for words that may differ."""
    number = r.choice(["int(text)", "len(text)", "places.get(text)", "total + 1", "text and 7"])
    steps = [
        'text = take()\nif text == "":\n    print("nothing W")\n    LEAVE',
        r.choice(["text = take().strip()", "text = str(take())", "text = take()"]),
        r.choice(
            [
                'if text not in places:\n    print("no", text)\n    LEAVE',
                'if text == "x":\n    total = total + 1\n    print("W x")\n    LEAVE',
                "for sign in text:\n    if sign == '-':\n        print(sign)\n        LEAVE",
                'if text == "x":\n    print("x")\n    LEAVE\nelif text == "y":\n    print("y")\n    LEAVE\nelse:\n    total = total + 2',
            ]
        ),
        r.choice(
            [
                f"try:\n    number = {number}\nexcept ValueError:\n    print('W bad')\n    LEAVE",
                f"number = {number}",
                f"number = {number}\nif number is None:\n    print('none')\n    LEAVE",
            ]
        ),
        r.choice(["if number is not None and number > 9:\n    print('W', number)\n    LEAVE", 'print("W", number)']),
    ]
    return steps if r.random() < 0.9 else [*steps, "total = total + 1"]


def _filled(r: Random, block: list[str], leave: str, word: str) -> list[str]:
    lines: list[str] = []
    for step in block:
        text = step.replace("W", word if r.random() < 0.9 else "other")
        if r.random() < 0.06:
            text = text.replace("number", "count")
        if r.random() < 0.04:
            leave = r.choice(["continue", "break", "return", "return 1"])
        lines += text.replace("LEAVE", leave).split("\n")
    return lines


def _indented(lines: list[str], depth: int) -> str:
    return "\n".join("    " * depth + line for line in lines)


def _used(r: Random) -> list[str]:
    return r.choice([["print(number * 2)"], ["total = total + 1", "print(text, total)"], ["print('done')"], []])


def _start(r: Random) -> list[str]:
    return r.choice([[], ["number = 1", "text = 'none'"], ["number = None"]])


def _menu(r: Random, block: list[str]) -> str:
    """A loop with a branch for each thing to do, loose or in a function."""
    leave = r.choice(["continue", "continue", "break"])
    lines = ["total = 3", *_start(r), "for turn in range(6):"]
    if r.random() < 0.2:
        lines.append("    print(locals().get('zzz'), total)")
    if r.random() < 0.3:
        lines.append("    if turn > 2 and total > 4:\n        print('so far', total)")
    for k, word in enumerate(["sell", "buy", "list"]):
        lines.append(f"    {'elif' if k else 'if'} turn % 3 == {k}:")
        lines.append(_indented([*_filled(r, block, leave, word), *_used(r), "print('turn', turn)"], 2))
    if r.random() < 0.3:
        lines.append("    print('end of turn', total)")
    lines.append(r.choice(["print(total)", "print(total, number)", "print(total, text)"]))
    text = "\n".join(lines)
    if r.random() < 0.6:
        return "def main():\n" + _indented(text.split("\n"), 1) + "\n\n\nmain()\n"
    return text + "\n"


def _functions(r: Random, block: list[str]) -> str:
    """Functions that begin with the same checks."""
    leave = r.choice(["return", "return", "return False", "return 0"])
    parts = []
    for word in ("lend", "sell", "swap"):
        own = ["global total"] if r.random() < 0.4 else ["total = 5"]
        lines = [*own, *_start(r), *_filled(r, block, leave, word), *_used(r), "print(total)", "return 7"]
        parts.append(f"def {word}():\n" + _indented(lines, 1))
    calls = [f"print({word}())" for word in ("lend", "sell", "swap", "lend", "sell")]
    return "\n\n\n".join(parts) + "\n\n\n" + "\n".join(calls) + "\nprint(total)\n"


def _tail(r: Random, block: list[str]) -> str:
    """Branches at the end of a turn, or of a function, that are long and may leave."""
    loop = r.random() < 0.6
    leave = "continue" if loop else "return"
    lines = ["total = 3", *_start(r), "for turn in range(4):" if loop else "turn = total % 3"]
    depth = 1 if loop else 0
    for k, word in enumerate(["first", "second", "third"]):
        lines.append("    " * depth + f"{'elif' if k else 'if'} turn == {k}:")
        body = [*_filled(r, block, leave, word), *_used(r), "total = total + len(text)", f"print('{word}', total)"]
        lines.append(_indented(body, depth + 1))
    if r.random() < 0.2:
        lines.append("    " * depth + "print('after', total)")
    lines += ["print(total)"] if loop else []
    text = "def main():\n" + _indented("\n".join(lines).split("\n"), 1)
    return text + "\n\n\nmain()\nmain()\n"


def _returning(r: Random, block: list[str]) -> str:
    """Branches that return in any case."""
    lines = ["total = 3", "text = take()", "number = len(text)", "turn = len(given) % 3"]
    for k, word in enumerate(["first", "second", "third"]):
        lines.append(f"{'elif' if k else 'if'} turn == {k}:")
        body = [
            f"number = number + {r.randint(1, 2)}",
            f"if text == '{r.choice(['quay', 'x'])}':",
            f"    print('{word}', total)",
            f"    return {r.choice(['1', 'number'])}",
            "elif number > 3:",
            f"    print('{word} long')",
            "    return total",
            "else:" if r.random() < 0.9 else "elif number:",
            "    print('short', number)",
            r.choice(["    return -1", "    return -1", "    return None"]),
        ]
        lines.append(_indented(body if r.random() < 0.9 else body[:-3], 1))
    lines += ["print('past')", "return number"]
    text = "def answer():\n" + _indented("\n".join(lines).split("\n"), 1)
    return text + "\n\n\nfor turn in range(6):\n    print(answer())\n"
