"""Fields that an object keeps since it was made are values like any other, for the methods of its class."""

import pytest
from builders import printed, report, rules, worked

FORM = """
class Part:
    def __init__(self, name):
        self.title = name
        self.seen = 0

    def config(self, bg):
        self.seen += 1
        print(self.title, bg, self.seen)


class Form{base}:
    def __init__(self):
        {first}
        self.left = Part('left')
        self.mid = Part('mid')
        self.right = Part('right')

    def check(self, a, b, c):
        {inside}
        if a == "":
            print("enter the left one")
            self.left.config("red")
        else:
            self.left.config("white")
        if b == "":
            print("enter the mid one")
            self.mid.config("red")
        else:
            self.mid.config("white")
        if c == "":
            print("enter the right one")
            self.right.config("red")
        else:
            self.right.config("white")

    def other(self):
        {elsewhere}


form = Form()
form.check('', 'x', '')
form.check('y', '', 'z')
"""


def form(base: str = "", first: str = "pass", inside: str = "pass", elsewhere: str = "pass") -> str:
    return FORM.format(base=base, first=first, inside=inside, elsewhere=elsewhere)


def test_a_loop_goes_through_fields_of_the_object() -> None:
    text = form(base="(object)", elsewhere="print(self.left)")
    after = worked(text)
    assert after.count('.config("red")') == 1
    assert "(a, 'left', self.left)" in after
    assert printed(after) == printed(text)


@pytest.mark.parametrize(
    "changed",
    [
        form(elsewhere="self.left = Part('new')"),
        form(elsewhere="for self.left in []:\n            pass"),
        form(elsewhere="with open('x') as self.left:\n            pass"),
        form(elsewhere="del self.left"),
        form(elsewhere="self.left, x = Part('new'), 1"),
        form(elsewhere="setattr(self, 'left', 3)"),
        form(inside="self = Form()"),
        # Somebody may be given the object before it has its fields, and call its method.
        form(first="self.check('', '', '')"),
        form(first="print(self)"),
        form(first="handlers = [self.check]"),
        form(base="(Part)"),
        form(first="if len('a') > 1:\n            return"),
        form() + "Form.check(form, '', 'x', '')\n",
        form() + "\n\nclass Sub(Form):\n    pass\n",
        form() + "form.left = Part('late')\n",
        form() + "\n\nclass Other:\n    def __init__(self, one):\n        one.left = 3\n",
        form().replace("    def other(self)", "    @property\n    def left(self)"),
        form().replace("    def other(self)", "    def __getattr__(self, name)"),
    ],
)
def test_a_field_that_may_have_another_value_is_left_where_it_stands(changed: str) -> None:
    assert "self.left)" not in "".join(worked(changed).split("        for ")[1:2])
    assert worked(changed).count('.config("red")') == 3


def test_widgets_that_are_made_alike_are_told() -> None:
    text = """
class Form:
    def __init__(self, root):
        self.name_label = Label(root, text="Name:")
        self.name_label.grid(row=0, column=0)
        self.name_entry = Entry(root)
        self.name_entry.grid(row=0, column=1)
        self.age_label = Label(root, text="Age:")
        self.age_label.grid(row=1, column=0)
        self.age_entry = Entry(root)
        self.age_entry.grid(row=1, column=1)
        self.town_label = Label(root, text="Town:")
        self.town_label.grid(row=2, column=0)
        self.town_entry = Entry(root)
        self.town_entry.grid(row=2, column=1)


Form(root)
"""
    assert "repeated-block" in rules(text)
    assert [s.status for s in report(text).suggestions] == ["outline"]


def test_a_constructor_that_takes_what_it_is_given_is_no_repetition() -> None:
    text = """
class Boat:
    def __init__(self, name, length, crew):
        self.name = name
        self.length = length
        self.crew = crew
        self.log = []
        self.tags = []
        self.past = []

    def show(self):
        print(self.name)
        print(self.length)
        print(self.crew)


Boat("Tern", 4, 2).show()
"""
    assert rules(text, "") == []
