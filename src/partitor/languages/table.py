"""What the core must know of a language: which grammar nodes play which part.

A language is data (this table) plus a writer. Nothing outside `languages/` names a grammar node.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping, Sequence

import msgspec

from .parts import Built

Kinds = frozenset[str]


class Binding(msgspec.Struct, frozen=True):
    """How one grammar node binds names: `field` of a node of `kind` holds the target."""

    kind: str
    field: str
    reads_too: bool = False


class Reading(msgspec.Struct, frozen=True, kw_only=True):
    """How a grammar's nodes become nodes of the program tree, whose kinds all languages share.

    `docs/adding-a-language.md` lists the tree's kinds. Fields are renamed by (grammar's kind, grammar's
    field); what is `dissolved` hands its children to its parent.
    """

    kinds: Mapping[str, str]
    fields: Mapping[tuple[str, str], str]
    dissolved: Kinds
    leaves: Kinds
    """Nodes kept as one token."""
    expression_statement: str
    body_fields: Kinds
    """Fields whose statement becomes a block of its own where it is not one already."""
    switches: Kinds
    cases: Kinds
    assignments: Kinds
    """Nodes that assign, by `=` or with an operator such as `+=`."""
    updates: Kinds
    """Nodes of `x++` and `--x`, and of other unary operators where the grammar does not tell them apart."""
    functions: Kinds
    """Nodes that become procedures where they have a block, expressions with a scope where not."""
    member_call: str = ""
    """A call node that holds its object and name itself, instead of a callee."""
    pointers: str = ""
    """The node of `&x` and `*x`."""


class TypeNames(msgspec.Struct, frozen=True):
    """What a language calls the types of plain values."""

    whole: str = "int"
    fraction: str = "double"
    text: str = ""
    """"": a text is an array of characters."""
    truth: str = "bool"
    widest: int = 2**31 - 1
    """The largest whole number that a plain one holds."""
    ranks: tuple[str, ...] = ("int", "long", "float", "double")
    """Types of numbers, the narrowest first."""


class Language(msgspec.Struct, frozen=True, kw_only=True):
    """The parts that grammar nodes play, by node kind."""

    id: str
    title: str
    grammar: str
    """The tree-sitter grammar; "" for one of our own."""
    extensions: tuple[str, ...]
    shebangs: tuple[str, ...] = ()
    comment: Kinds
    blocks: Kinds
    clauses: Kinds
    procedures: Kinds
    classes: Kinds
    wrappers: Kinds
    """Statements that only wrap a procedure or class, such as a decorated definition."""
    branches: Kinds
    loops: Kinds
    conditionals: Kinds
    imports: Kinds
    name: str
    member: tuple[str, str]
    """(node kind, field) under which a name is a field name, not a variable."""
    keyword_argument: tuple[str, str]
    call: str
    callee_field: str
    arguments_field: str
    strings: Kinds
    numbers: Kinds
    constants: Kinds
    opaque: Kinds
    """Nodes read as one token although the grammar divides them."""
    interpolation: str
    parentheses: Kinds
    targets: tuple[Binding, ...]
    patterns: Kinds
    """Nodes that a target may be wrapped in (tuples, starred names)."""
    captures: Kinds
    """Nodes of branch patterns in which a bare name binds."""
    parameter_lists: Kinds
    parameter_kinds: Kinds
    """Nodes inside a parameter list whose first name is the parameter."""
    iterable_field: tuple[str, str]
    """(clause kind, field): the part of a comprehension that its surroundings evaluate first."""
    parameters_field: str
    body_field: str
    name_field: str
    scopes: Kinds
    """Expressions with a name scope of their own (lambda, comprehension)."""
    outer_declarations: Kinds
    leaving: Kinds
    returning: str
    suspending: Kinds
    deleting: Kinds
    definitions_run_in_place: Kinds
    builtins: frozenset[str]
    reflective: frozenset[str]
    """Built-ins that see the names around them, so that no name may be moved."""
    pure_calls: frozenset[str]
    output_calls: frozenset[str]
    input_calls: frozenset[str]
    """Functions that give what somebody types, or what a sensor tells."""
    keywords: frozenset[str]
    reading: Reading | None = None
    """None where the grammar's nodes are the program tree's own."""
    declares: bool = False
    """A variable belongs to the procedure that declares it; what no procedure declares is the program's."""
    typed: bool = False
    """Declarations, parameters and results name their types."""
    types: TypeNames = TypeNames()
    copied_types: frozenset[str] = frozenset()
    """Types of the library that are records, which who hands them on copies, beside classes, which he does not; a
    program may have its own."""
    value_types: bool = False
    """A plain literal takes on the type that its place wants, and nothing else changes type by itself."""
    annotates: bool = False
    """Types may be told, and mean nothing when the program runs."""
    types_behind: bool = False
    """Types stand behind the names that have them; a result's has the field `result`."""
    untyped: str = ""
    """The type of what is declared without one; "": that of its value."""
    implicit_locals: bool = False
    """What a procedure writes without declaring it is its own, and so is the variable of a loop."""
    by_reference: bool = False
    """A function may change the variables that it is given, unless a parameter says `ByVal`."""
    list_call: str = ""
    """The call that makes a list of its arguments, where there are no list displays."""
    references: bool = False
    """A parameter may be another name of the variable that it is given."""
    changes_unseen: bool = False
    """Nothing but the program's own functions sees when its variables change, and no error leaves a statement half
    done."""
    shares_top: bool = False
    """A variable at the top of one file is that of the others too."""
    quiet_calls: str = ""
    """A pattern for functions of the surroundings that run nothing of the program and change no variable of it, where
    a name that nothing in sight gives a value is a variable of the object that the surroundings keep."""
    shows_decimals: bool = False
    """A number with a fraction is shown as it is usually written."""
    case_blind: bool = False
    """`Gate` and `gate` are one name."""
    capitals: bool = False
    """Names of functions begin with a capital as a matter of course."""
    hoists: bool = False
    """A function at the top may be called above the place where it stands."""
    values_everywhere: bool = False
    """The last statement of a body is its value, and no text stands alone as documentation."""
    lists_below: bool = False
    """What a loop runs through stands below its statements, a list a line."""
    shows_values: bool = False
    """The value of a statement at the top is shown, unless there is none (`void_calls`)."""
    void_calls: frozenset[str] = frozenset()
    word_joint: str = ""
    """What joins the words of a name; "": as the student does."""
    closers_trail: bool = False
    """The brackets of what stands around close behind its last line."""
    variables_as_lists: bool = False
    """Numbered variables can become the places of one list."""
    functions_are_values: bool = False
    """A function can be given to another by its plain name."""
    functions_keep_variables: bool = False
    """A function inside another goes on using the variables around it."""
    started_by_hand: bool = False
    """Whoever uses the program can start any procedure that is not private."""
    fixed_parameters: bool = False
    """A function cannot change its parameters."""
    cases_end: bool = False
    """A branch of a `switch` does not run on into the next."""
    struct_values: bool = False
    """Assigning to a field changes the variable that holds the record."""
    methods: bool = False
    """Functions stand in classes, and see each other there."""
    own_object: str = ""
    """What a method calls the object that it belongs to, where functions need stand in no class."""
    object_is_given: bool = False
    """A method has its object as its first parameter."""
    bare_members: bool = False
    """A method names what belongs to its object without saying so."""
    fields: Kinds = frozenset()
    """Members of a class that are no statements."""
    named_constants: str = ""
    """What the names of constants look like that the surroundings give (a pattern)."""
    constant_holders: frozenset[str] = frozenset()
    """Types of the library all of whose members are constants of that type."""
    framework_calls: frozenset[str] = frozenset()
    """Functions that the surroundings call by name."""
    suggestions: str = "with patches, each proved"
    """In what form suggestions are given."""
    runs_top_down: bool = False
    """The loose code of a file runs once, from top to bottom, and nothing runs beside it."""
    either_sign: str = ""
    """What joins two tests of which the second is only asked where the first one fails."""
    started_prefix: str = ""
    """What the names of functions begin with that something outside starts."""
    open_library: bool = False
    """More can be called than any list of ours tells."""
    global_style: bool = False
    """Functions share the program's variables as a matter of course."""
    texts_take_numbers: frozenset[str] | None = None
    """Calls whose text can take a number in; None: every text can."""
    texts_take_texts: bool = False
    """A text can be put into another where it stands."""
    loops_declare: bool = False
    """The head of a loop can declare a counter that only the loop knows."""
    case_methods: tuple[str, ...] = ()
    """Methods that give a text in capital or small letters."""
    ready_types: str = ""
    """What types look like whose variables have a value once they are declared (a pattern)."""
    argument_names: Mapping[str, tuple[str, ...]] = msgspec.field(default_factory=dict)
    """What well-known calls take, for the names of parameters."""
    comment_marks: tuple[str, ...] = ("#",)
    build: Callable[[bytes], Built] | None = None
    """Builds the program tree's parts itself, where no grammar comes near them."""
    mask: Callable[[bytes], bytes] | None = None
    """Writes a text in the words of its grammar, byte for byte as long."""
    code_spans: Callable[[bytes], Sequence[tuple[int, int]]] | None = None
    """The bytes of a text that are code, where a file may hold other things around it (`mask` blanks these)."""
    told_outside: Callable[[bytes], frozenset[str]] | None = None
    """Names that a file mentions outside of its code."""
    repair: Callable[[str], str] | None = None
    """Mends a text that does not parse, keeping its lines; the mended text is only analysed."""

    def numbers_in(self, text: str) -> list[str]:
        """A text split at its numbers: words, a number, words, and so on."""
        return re.split(r"(\d+(?:\.\d+)?)" if self.shows_decimals else r"(\d+)", text)

    @property
    def lists_are_values(self) -> bool:
        """True where a list can stand wherever a value can, not only where a variable is declared."""
        return not self.typed or self.value_types

    def names_a_constant(self, name: str) -> bool:
        """True for the name of a constant that the surroundings give."""
        return bool(self.named_constants) and re.fullmatch(self.named_constants, name) is not None
