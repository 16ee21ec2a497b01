"""Python programs whose copies first give a literal to a variable, which each of them calls otherwise."""

from __future__ import annotations

from random import Random

WORDS = ["north", "mill", "east", "ferry"]
SETS = [("prices", "top"), ("weights", "most"), ("levels", "best")]
LATER = ["{0}.append(4)", "print({0})", "{0} = 3", "print({1})", "kept.append({0})", "show()", "print(sum({0}))"]


def wild_first(seed: int) -> str:
    """A wild program."""
    r = Random(seed)
    body = [_statement(r) for _ in range(r.randint(2, 5))]
    lines: list[str] = []
    for k, (held, found) in enumerate(r.sample(SETS, r.randint(2, 3))):
        first = r.choice([f"[{r.randint(1, 9)}, {r.randint(1, 9)}, 5]"] * 3 + ["[]", f"{r.randint(1, 9)}", "(1, 2)"])
        copy = [f"@ = {first}", f"% = {r.choice(['0', '0', 'len(str(@))', 'LIMIT'])}", *body]
        for line in copy:
            if r.random() < 0.25:
                line = line.replace(r.choice(WORDS), r.choice(WORDS))
            lines += line.replace("@", held).replace("%", found).split("\n")
        if r.random() < 0.4:
            held, found = r.choice(SETS[: k + 1])
            lines.append(f"if {r.randint(0, 1)}:\n    {r.choice(LATER).format(held, found)}")
    start = [
        "kept = []",
        "LIMIT = 4",
        f"prices = {r.choice(['[1]', '2'])}",
        "weights = levels = [2]",
        "top = most = best = 1",
    ]
    shown = "    try:\n        print(len(prices), kept)\n    except (NameError, TypeError):\n        print('none')"
    show = ["def show():", *shown.split("\n")]
    if r.random() < 0.5:
        inner = [f"    {x}" for line in [*start[2:], *lines] for x in line.split("\n")]
        return "\n".join(
            [*start, *show, "def work():", *inner, "    return prices", "print(work())", "print(prices, kept)", ""]
        )
    inner = start if r.random() < 0.5 else start[:2]
    return "\n".join([*inner, *show, *lines, "print(kept)", ""])


def _statement(r: Random) -> str:
    n, w = r.randint(0, 5), r.choice(WORDS)
    return r.choice(
        [
            f'print("{w}", @, %)',
            f"% = % + {n}",
            "for x in list(str(@)):\n    % = % + 1",
            f'if % > {n}:\n    print("{w}")',
            "other = @",
            "kept.append(@)",
            "@ = @ * 2",
            f"later = lambda: (@, {n})\nprint(later())",
            "show()",
            "% = len(str(@))",
            f'print(f"{w} {{%}} {n}")',
        ]
    )
