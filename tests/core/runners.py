"""Runs many programs of one language at once and gives back what each prints."""

from __future__ import annotations

import json
import re
import shutil
import subprocess
from collections.abc import Sequence
from pathlib import Path

from partitor.languages.gamescript.table import mask

NEEDED = {"javascript": ("node",), "java": ("javac", "java"), "c": ("gcc",), "cpp": ("g++",), "arduino": ("g++",)}
NEEDED |= {"racket": ("racket",), "scheme": ("guile",), "csharp": ("mcs", "mono")}
NEEDED |= {"typescript": ("node",), "gamescript": ("node",)}
HERE = Path(__file__).parent
TYPESCRIPT = HERE.parent.parent / "web" / "node_modules" / "typescript"
"""The compiler that the interface is built with."""
SECONDS = 10
GIVEN = ""
"""What programs read."""
NODE = """
const vm = require("vm");
const texts = JSON.parse(require("fs").readFileSync(0, "utf8"));
console.log(JSON.stringify(texts.map((text) => {
  const out = [];
  const log = (...values) => out.push(values.map(String).join(" "));
  try { vm.runInNewContext(text, { console: { log } }, { timeout: 5000 }); } catch (e) { out.push("ERROR " + e); }
  return out.join("\\n");
})));
"""


def can_run(language: str) -> bool:
    """True where this machine has what the language needs."""
    return all(shutil.which(tool) for tool in NEEDED[language]) and (language != "typescript" or TYPESCRIPT.is_dir())


def require_same_output(language: str, before: str, after: str, folder: Path) -> None:
    """Both print the same, where they can be run; that something is compiled, and printed, counts too."""
    if language in NEEDED and can_run(language):
        first, second = outputs(language, [before, after], folder)
        assert first == second != ""
        assert "COMPILE" not in first, first


def outputs(language: str, texts: Sequence[str], folder: Path) -> list[str]:
    """What each text prints, its errors included; a text that does not compile gives what the compiler says."""
    if language in {"javascript", "typescript", "gamescript"}:
        return _scripts(language, texts)
    if language == "java":
        return _java(texts, folder)
    if language == "csharp":
        return [_csharp(text, folder) for text in texts]
    if language in {"racket", "scheme"}:
        return [_lisp(language, text, folder) for text in texts]
    return [_compiled(language, text, folder) for text in texts]


def _scripts(language: str, texts: Sequence[str]) -> list[str]:
    """JavaScript as it is; TypeScript compiled, with what its compiler says; game scripts in JavaScript's words."""
    asked = list(texts)
    program = NODE
    if language == "typescript":
        program = NODE.replace("(text) => {", "(typed) => { const text = compiled(typed);", 1) + (
            f"function compiled(text) {{ const ts = require({json.dumps(str(TYPESCRIPT))});"
            " return ts.transpileModule(text, { compilerOptions: { target: 'ES2022' } }).outputText; }"
        )
    if language == "gamescript":
        counted = [re.sub(r"repeat \((\d+)\)", r"for (let turn_ = 0; turn_ < \1; turn_++)", t) for t in texts]
        asked = ["const show_debug_message = console.log;\n" + mask(t.encode()).decode() for t in counted]
    done = subprocess.run(
        ["node", "-e", program], input=json.dumps(asked), capture_output=True, text=True, timeout=300, check=True
    )
    return list(json.loads(done.stdout))


CHECKER = """
const ts = require(process.argv[1]);
const options = { strict: true, noEmit: true, target: ts.ScriptTarget.ES2022, types: [] };
options.lib = ["lib.es2022.d.ts", "lib.dom.d.ts"];
const base = ts.createCompilerHost(options);
const known = {};
const found = JSON.parse(require("fs").readFileSync(0, "utf8")).map((text) => {
  const host = { ...base };
  host.getSourceFile = (name, version) => name === "made.ts" ? ts.createSourceFile(name, text, version)
    : (known[name] ??= base.getSourceFile(name, version));
  host.fileExists = (name) => name === "made.ts" || base.fileExists(name);
  host.readFile = (name) => name === "made.ts" ? text : base.readFile(name);
  const program = ts.createProgram(["made.ts"], options, host);
  return ts.getPreEmitDiagnostics(program).map((d) => ts.flattenDiagnosticMessageText(d.messageText, " "));
});
console.log(JSON.stringify(found));
"""


def type_errors(texts: Sequence[str]) -> list[list[str]]:
    """What TypeScript's compiler says against each text, at its strictest."""
    done = subprocess.run(
        ["node", "-e", CHECKER, str(TYPESCRIPT)],
        input=json.dumps(list(texts)),
        capture_output=True,
        text=True,
        timeout=300,
        check=True,
    )
    return [list(found) for found in json.loads(done.stdout)]


def _lisp(language: str, text: str, folder: Path) -> str:
    program = folder / {"racket": "program.rkt", "scheme": "program.scm"}[language]
    program.write_text(text)
    command = ["racket", program] if language == "racket" else ["guile", "--no-auto-compile", program]
    done = subprocess.run(command, capture_output=True, text=True, timeout=SECONDS, check=False, input=GIVEN)
    said = "ERROR" if done.returncode else ""
    return f"{done.stdout}\n{said}"


def _as_sketch(text: str) -> str:
    """A sketch as a program: with the board that writes down what it does, and with its functions known above."""
    heads = re.findall(r"^((?!else|return)[\w ]+[ *&]\w+\([^;{})]*\))\s*\{", text, re.MULTILINE)
    known = [re.sub(r"\s*=\s*\w+", "", head) + ";" for head in heads if "=" not in head]
    included = [line for line in text.split("\n") if line.startswith("#include")]
    rest = [line for line in text.split("\n") if not line.startswith("#include")]
    return "\n".join(['#include "board.h"', *included, *known, *rest])


def _csharp(text: str, folder: Path) -> str:
    source, program = folder / "Program.cs", folder / "program.exe"
    source.write_text(text)
    built = subprocess.run(["mcs", "-warn:0", f"-out:{program}", source], capture_output=True, text=True, check=False)
    if built.returncode:
        return f"DOES NOT COMPILE {built.stdout}{built.stderr}"
    done = subprocess.run(["mono", program], capture_output=True, text=True, timeout=SECONDS, check=False, input=GIVEN)
    return f"{done.stdout}\n{done.returncode}"


def _compiled(language: str, text: str, folder: Path) -> str:
    suffix, compiler = {"c": (".c", "gcc"), "cpp": (".cpp", "g++"), "arduino": (".cpp", "g++")}[language]
    source, program = folder / f"program{suffix}", folder / "program"
    source.write_text(_as_sketch(text) if language == "arduino" else text)
    built = subprocess.run(
        [compiler, "-w", "-O0", "-I", HERE / "board", "-o", program, source],
        capture_output=True,
        text=True,
        check=False,
    )
    if built.returncode:
        return f"DOES NOT COMPILE {built.stderr}"
    done = subprocess.run([program], capture_output=True, text=True, timeout=SECONDS, check=False, input=GIVEN)
    return f"{done.stdout}\n{done.returncode}"


def _java(texts: Sequence[str], folder: Path) -> list[str]:
    """All classes in one call of the compiler and one run; `Main` of each text is renamed."""
    names = []
    for k, text in enumerate(texts):
        name = f"Main{k}"
        names.append(name)
        (folder / f"{name}.java").write_text(re.sub(r"\bMain\b", name, text))
    calls = "".join(
        f'        try {{ {n}.main(new String[0]); }} catch (Throwable e) {{ System.out.println("ERROR " + e); }}\n'
        '        System.out.println("@@@@");\n'
        for n in names
    )
    (folder / "All.java").write_text(
        "public class All {\n    public static void main(String[] args) {\n" + calls + "    }\n}\n"
    )
    files = [folder / f"{n}.java" for n in (*names, "All")]
    built = subprocess.run(["javac", "-nowarn", "-d", folder, *files], capture_output=True, text=True, check=False)
    if built.returncode:
        return _one_by_one(texts, folder, built.stderr)
    done = subprocess.run(["java", "-cp", folder, "All"], capture_output=True, text=True, timeout=120, check=False)
    return done.stdout.split("@@@@\n")[: len(texts)]


def _one_by_one(texts: Sequence[str], folder: Path, said: str) -> list[str]:
    """Some text does not compile: the others run, it gives what the compiler says."""
    broken = {int(k) for k in re.findall(r"Main(\d+)\.java:\d+: error", said)}
    if not broken:
        raise AssertionError(said)
    good = [text for k, text in enumerate(texts) if k not in broken]
    inner = folder / "rest"
    inner.mkdir()
    rest = iter(_java(good, inner)) if good else iter(())
    return [f"DOES NOT COMPILE {said}" if k in broken else next(rest) for k in range(len(texts))]
