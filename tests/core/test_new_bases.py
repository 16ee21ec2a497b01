"""Methods that stand alike in classes that build on nothing: they build on a class that has them."""

from __future__ import annotations

import pytest

from core.builders import printed, report, rules, verdict, worked
from partitor.suggestions.proof import NewBase

PETS = """\
class Otter:
    def __init__(self, name):
        self.name = name
        self.hunger = 5

    def feed(self, amount):
        self.hunger = self.hunger - amount
        if self.hunger < 0:
            self.hunger = 0
            print(self.name, "is full")
        print(self.name, "says thanks")

    def play(self, amount):
        print(self.name, "swims", amount)


# seals are larger
class Seal:
    kind = "seal"

    def __init__(self, name):
        self.name = name
        self.hunger = 5

    # they are always hungry
    def feed(self, amount):
        self.hunger = self.hunger - amount
        if self.hunger < 0:
            self.hunger = 0
            print(self.name, "is full")
        print(self.name, "says thanks")

    def play(self, amount):
        print(self.name, "dives", amount, self.kind)


for pet in (Otter("Ripple"), Seal("Blub")):
    pet.feed(3)
    pet.feed(6)
    pet.play(2)
    print(pet.hunger)
"""
CLAIM = NewBase("main.py", "OtterOrSeal", ("__init__", "feed"), ("Otter", "Seal"))


def test_the_classes_build_on_one_with_all_they_share() -> None:
    after = worked(PETS)
    assert after.startswith("class OtterOrSeal:\n    def __init__(self, name):\n")
    assert "\n\n\nclass Otter(OtterOrSeal):\n    def play(self, amount):\n" in after
    assert '\n\n# seals are larger\nclass Seal(OtterOrSeal):\n    kind = "seal"\n\n    def play' in after
    assert after.count("def feed") == after.count("def __init__") == 1
    assert printed(after) == printed(PETS)
    (told,) = [s for s in report(PETS).suggestions if s.kind == "merge"]
    assert told.title == "One class OtterOrSeal with __init__ and feed, on which Otter and Seal build"


@pytest.mark.parametrize(
    ("first", "second", "name"),
    [("RiverOtter", "SeaOtter", "Otter"), ("Otter", "GreySeal", "Base"), ("Otter", "Seal", "OtterOrSeal")],
)
def test_it_is_called_what_they_share(first: str, second: str, name: str) -> None:
    text = PETS.replace("Otter", first).replace("Seal", second)
    after = worked(text)
    assert f"class {first}({name}):" in after
    assert printed(after) == printed(text)


def test_empty_brackets_take_it() -> None:
    after = worked(PETS.replace("class Seal:", "class Seal():  # large"))
    assert "class Seal(OtterOrSeal):  # large\n" in after


@pytest.mark.parametrize(
    ("was", "now"),
    [
        ("class Otter:", "class Otter(dict):"),
        ("class Otter:", "@keep\nclass Otter:"),
        ('    def play(self, amount):\n        print(self.name, "swims", amount)\n', ""),
        ("    def feed(self, amount):", "    @staticmethod\n    def feed(self, amount):"),
        ("self.hunger = 5", "super().__init__()\n        self.hunger = 5"),
        ("    pet.play(2)", "    pet.play(2)\n    print(type(pet).__bases__)"),
        ("    pet.play(2)", '    pet.play(2)\n    print(hasattr(pet, "feed"))'),
        ("    pet.play(2)", "    pet.play(2)\n    Otter.feed = print"),
        ("    pet.play(2)", "    pet.play(2)\n    Otter = Seal"),
        ("    pet.play(2)", "    pet.play(2)\n    print(vars(Otter))"),
        ("class Otter:", "class Otter:\n    __slots__ = ()"),
        ('print(self.name, "swims", amount)', "super().__init__()"),
        ('print(self.name, "swims", amount)', "print(__class__)"),
        ('self.name, "is full"', "self.__name"),
    ],
)
def test_other_classes_stay_as_they_are(was: str, now: str) -> None:
    text = PETS.replace(was, now)
    assert text != PETS
    assert not [s for s in report(text).suggestions if s.title.startswith("One class") and s.status == "proved"]


def test_a_method_that_differs_stays() -> None:
    text = PETS.replace("self.hunger = 5", "self.hunger = 7", 1)
    after = worked(text)
    assert "class OtterOrSeal:\n    def feed(self, amount):\n" in after
    assert after.count("def __init__") == 2
    assert printed(after) == printed(text)


def test_what_is_left_is_told_in_words() -> None:
    text = PETS.replace("class Otter:", "class Otter(dict):")
    (told,) = [s for s in report(text).suggestions if s.status == "outline"]
    assert "one class" in told.outline
    assert "repeated-block" in rules(text)


AFTER = worked(PETS)


@pytest.mark.parametrize(
    ("was", "wrong"),
    [
        ("self.hunger - amount", "self.hunger + amount"),
        ("class Seal(OtterOrSeal)", "class Seal"),
        ("class Seal(OtterOrSeal)", "class Seal(Otter)"),
        ("class Seal(OtterOrSeal)", "class Seal(OtterOrSeal, dict)"),
        ("class OtterOrSeal:\n", "class OtterOrSeal(dict):\n"),
        ("class OtterOrSeal:\n", "class OtterOrSeal:\n    kind = 3\n\n"),
        ("class OtterOrSeal:\n", "@print\nclass OtterOrSeal:\n"),
        ('"swims"', '"sinks"'),
        ('    kind = "seal"', '    kind = "sea"'),
        ("    def play(self, amount):\n", "    def feed(self, amount):\n        pass\n\n    def play(self, amount):\n"),
        ("\n\nfor pet", "\n\nprint(OtterOrSeal)\n\n\nfor pet"),
    ],
)
def test_a_class_that_is_another_one_is_refused(was: str, wrong: str) -> None:
    assert verdict(PETS, AFTER, CLAIM).proved
    assert was in AFTER
    assert not verdict(PETS, AFTER.replace(was, wrong, 1), CLAIM).proved


def test_the_class_has_to_be_there_before_those_that_build_on_it() -> None:
    base, _, rest = AFTER.partition("class Otter(")
    first, _, more = f"class Otter({rest}".partition("# seals")
    assert not verdict(PETS, f"{first}{base}# seals{more}", CLAIM).proved
    used = PETS.replace("class Otter:", "OtterOrSeal = 3\n\n\nclass Otter:")
    assert not verdict(used, AFTER.replace("class OtterOrSeal", "OtterOrSeal = 3\n\n\nclass OtterOrSeal"), CLAIM).proved


def test_each_of_them_is_in_the_claim() -> None:
    for methods, classes in [
        (("feed",), CLAIM.classes),
        (CLAIM.methods, ("Otter",)),
        (("feed", "feed"), CLAIM.classes),
    ]:
        assert not verdict(PETS, AFTER, NewBase("main.py", "OtterOrSeal", methods, classes)).proved
