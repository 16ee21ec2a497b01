"""Twin methods of a Python class become one method, where every call goes through an object that is known for certain."""

import pytest
from builders import printed, prove, read, report, worked

from partitor.suggestions.proof import MergedFunctions

STALL = """class Stall{base}:
    def __init__(self):
        self.sold = 0
        self.log = []

{more}    def sell_tea(self, count):
        self.sold += count
        self.log.append("tea")
        print("sold", count, "at", 2)

    def sell_soup(self, count):
        self.sold += count
        self.log.append("soup")
        print("sold", count, "at", 5)


{then}"""
CALLS = "stall = Stall()\nstall.sell_tea(3)\nstall.sell_soup(2)\nprint(stall.sold, stall.log)\n"


def stall(then: str = CALLS, base: str = "", more: str = "") -> str:
    return STALL.format(base=base, more=more, then=then)


@pytest.mark.parametrize(
    ("then", "more"),
    [
        (CALLS, ""),
        ("Stall().sell_tea(1)\nStall().sell_soup(4)\n", ""),
        (
            "def main():\n    one = Stall()\n    one.rush()\n    one = Stall()\n    one.sell_soup(1)\n    print(one.log)\n\n\n"
            "main()\n",
            "    def rush(self):\n        self.sell_tea(4)\n        self.sell_soup(4)\n\n",
        ),
    ],
)
def test_twin_methods_become_one_and_their_calls_change(then: str, more: str) -> None:
    text = stall(then, more=more)
    after = worked(text)
    assert after.count("self.sold += count") == 1
    assert "sell_tea" not in after
    assert "sell_soup" not in after
    assert printed(after) == printed(text)
    (suggestion,) = [s for s in report(text).suggestions if s.kind == "merge"]
    assert suggestion.status == "proved"
    assert suggestion.title.startswith("One method sell(count, ")


@pytest.mark.parametrize(
    ("then", "base", "more"),
    [
        # whose it is, is not in sight
        ("for stall in [Stall()]:\n    stall.sell_tea(3)\n    stall.sell_soup(2)\n", "", ""),
        ("def serve(stall):\n    stall.sell_tea(3)\n    stall.sell_soup(1)\n\n\nserve(Stall())\n", "", ""),
        ("other = [Stall()]\nstall = Stall()\nstall, = other\n" + CALLS[16:], "", ""),
        # a method is handed on, replaced, or found by its name's text
        (CALLS + "act = stall.sell_tea\nact(2)\n", "", ""),
        ("Stall.sell_tea = lambda self, n: print('patched')\n" + CALLS, "", ""),
        (CALLS + "stall.sell_tea = print\nstall.sell_tea(9)\n", "", ""),
        (CALLS + "print(hasattr(stall, 'sell_soup'))\n", "", ""),
        (CALLS + "Stall.sell_tea(stall, 4)\n", "", ""),
        # another class has a say
        ("class Big(Stall):\n    def sell_tea(self, count):\n        print('big')\n\n\n" + CALLS, "", ""),
        (CALLS, "(list)", ""),
        (CALLS, "", "    def __getattr__(self, name):\n        return print\n\n"),
        (
            "class Stand:\n    def sell_tea(self, count):\n        print('stand')\n\n\nStand().sell_tea(1)\n" + CALLS,
            "",
            "",
        ),
        # the class's name is given anew
        ("def Made():\n    return Stall()\n\n\nold, Stall = Stall, Made\nStall = old\n" + CALLS, "", ""),
    ],
)
def test_not_where_an_object_may_be_another_or_a_method_looked_up(then: str, base: str, more: str) -> None:
    text = stall(then, base, more)
    after = worked(text)
    assert "def sell_tea" in after
    assert printed(after) == printed(text)


def test_a_decorated_method_stays() -> None:
    text = stall().replace("    def sell_soup(self, count)", "    @noted\n    def sell_soup(self, count)")
    text = "def noted(f):\n    return lambda *given: print('noted') or f(*given)\n\n\n" + text
    assert "def sell_tea" in worked(text)
    assert printed(worked(text)) == printed(text)


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("stall.sell(2, 'soup', 5)", "stall.sell(2, 'tea', 5)"),
        ("stall.sell(3, 'tea', 2)", "stall.sell(2, 'tea', 3)"),
        ("self.log.append(name)", "self.log.append(count)"),
        ("self.sold += count", "self.sold += price"),
        ("stall.sell(3, 'tea', 2)", "Stall().sell(3, 'tea', 2)"),
        ("def sell(self,", "@staticmethod\n    def sell(self,"),
        ("print('sold', count", "self = None\n        print('sold', count"),
    ],
)
def test_seeded_faults_are_refused(old: str, new: str) -> None:
    before = stall().replace('"', "'")
    right = (
        "class Stall:\n    def __init__(self):\n        self.sold = 0\n        self.log = []\n\n"
        "    def sell(self, count, name, price):\n        self.sold += count\n        self.log.append(name)\n"
        "        print('sold', count, 'at', price)\n\n\n"
        "stall = Stall()\nstall.sell(3, 'tea', 2)\nstall.sell(2, 'soup', 5)\nprint(stall.sold, stall.log)\n"
    )
    claim = MergedFunctions("main.py", "sell", ("sell_tea", "sell_soup"), "Stall")
    assert prove(read(before, "python"), read(right, "python"), claim).proved
    assert old in right
    assert not prove(read(before, "python"), read(right.replace(old, new), "python"), claim).proved
