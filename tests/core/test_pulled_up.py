"""Methods that stand alike in classes that build on one class stand there once; and what the proof refuses."""

from __future__ import annotations

import pytest

from core.builders import printed, report, verdict, worked
from partitor.suggestions.proof import PulledUp

SHAPES = """
class Shape:
    def __init__(self, name):
        self.name = name


class Rect(Shape):
    def __init__(self, w, h):
        Shape.__init__(self, "rect")
        self.w = w
        self.h = h

    def area(self):
        return self.w * self.h

    def describe(self, unit):
        print("I am a", self.name)
        print("My area is", round(self.area(), 2), unit)
        if self.area() > 100:
            print("I am large")
        else:
            print("I am small")


class Disc(Shape):
    def __init__(self, r):
        Shape.__init__(self, "disc")
        self.r = r

    def describe(self, unit):
        print("I am a", self.name)
        print("My area is", round(self.area(), 2), unit)
        if self.area() > 100:
            print("I am large")
        else:
            print("I am small")

    def area(self):
        return 3 * self.r ** 2


for s in [Rect(3, 4), Disc(10)]:
    s.describe("cm2")
"""
CLAIM = PulledUp("main.py", "describe", "Shape", ("Rect", "Disc"))


def test_the_method_stands_in_the_class_that_both_build_on() -> None:
    after = worked(SHAPES)
    assert after.count("def describe(self, unit):") == 1
    assert after.index("def describe") < after.index("class Rect")
    assert printed(after) == printed(SHAPES)
    assert "One method describe in Shape in place of 2" in [s.title for s in report(SHAPES).suggestions]


def test_the_comment_above_it_stays() -> None:
    after = worked(SHAPES.replace("    def describe", "    # says what it is\n    def describe", 1))
    assert "\n\n    # says what it is\n    def describe(self, unit):\n" in after


@pytest.mark.parametrize(
    ("was", "now"),
    [
        # The class below has one of its own, or something of the name.
        ("class Rect", "    def describe(self, unit):\n        pass\n\n\nclass Rect"),
        ("class Rect", "    describe = None\n\n\nclass Rect"),
        ("        self.w = w", "        self.w = w\n        super().describe(3)"),
        # More ways to a method than one.
        (
            "class Disc(Shape)",
            "class Round:\n    def describe(self, unit):\n        pass\n\n\nclass Disc(Round, Shape)",
        ),
        ("class Disc(Shape)", "class Disc(dict)"),
        ("class Shape:", "import abc\nclass Shape(abc.ABC):"),
        # Somebody may ask whether there is such a method.
        ("s.describe", "if hasattr(Shape, 'describe'):\n        print('yes')\n    s.describe"),
        ("s.describe('cm2')", "try:\n        s.describe('cm2')\n    except Exception:\n        pass"),
        ("for s in", "Rect.describe = print\nfor s in"),
        # It means something only where it stands.
        ('print("I am a", self.name)', 'print("I am a", self.__name)'),
        ('print("I am a", self.name)', 'print("I am a", super().name)'),
    ],
)
def test_a_method_stays_where_it_could_be_seen_to_move(was: str, now: str) -> None:
    text = SHAPES.replace('"cm2"', "'cm2'")
    assert was in text
    assert worked(text.replace(was, now)).count("def describe(self, unit):") >= 2


@pytest.mark.parametrize(
    ("was", "now"),
    [
        ("area() > 100", "area() > 101"),
        ("self.area(), 2), unit)", "self.area(), 2))"),
        ("    def describe(self, unit):", "    def describe(self, size):"),
        ("class Rect(Shape)", "class Rect"),
        ("        self.w = w\n", ""),
    ],
)
def test_another_method_in_its_place_is_refused(was: str, now: str) -> None:
    after = worked(SHAPES)
    assert verdict(SHAPES, after, CLAIM).proved
    assert was in after
    assert not verdict(SHAPES, after.replace(was, now), CLAIM).proved
