"""Runs macros in the Basic of an office suite, where that is installed, and tells what they print and write in cells.

The suite is another process with a Python of its own, to which the texts are handed; `--inside` is what runs there.
"""

from __future__ import annotations

import json
import re
import shutil
import socket
import subprocess
import sys
import tempfile
import time
from collections.abc import Sequence
from pathlib import Path

OFFICE = "soffice"
PYTHON = "/usr/bin/python3"
SHOWN = re.compile(r"^(\s*)(?:Debug\.Print|MsgBox)\s+(.*)$", re.MULTILINE | re.IGNORECASE)
LOG = """Option VBASupport 1
Public told As String
Sub Clear()
    told = ""
End Sub
Sub Say(ByVal what)
    told = told & CStr(what) & Chr(10)
End Sub
Function Said()
    Said = told
End Function
"""


def can_run_macros() -> bool:
    """True where the suite is, and a Python that can speak with it."""
    if not shutil.which(OFFICE) or not Path(PYTHON).exists():
        return False
    return subprocess.run([PYTHON, "-c", "import uno"], capture_output=True, check=False).returncode == 0


def outputs_of_macros(texts: Sequence[str]) -> list[str]:
    """What `Sub Main` of each text prints, and the cells it leaves behind."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    with tempfile.TemporaryDirectory() as profile:
        command = [OFFICE, f"-env:UserInstallation=file://{profile}", "--headless", "--norestore", "--nologo"]
        command.append(f"--accept=socket,host=127.0.0.1,port={port};urp;")
        with subprocess.Popen(command, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL) as office:
            try:
                done = subprocess.run(
                    [PYTHON, __file__, "--inside", str(port)],
                    input=json.dumps([SHOWN.sub(r"\1Say \2", text) for text in texts]),
                    capture_output=True,
                    text=True,
                    timeout=600,
                    check=False,
                )
            finally:
                office.terminate()
    if done.returncode:
        raise AssertionError(done.stderr)
    return list(json.loads(done.stdout))


def _inside() -> None:
    import uno  # type: ignore[import-not-found]
    from com.sun.star.beans import PropertyValue  # type: ignore[import-not-found]

    def prepared(name: str, value: object) -> object:
        found = PropertyValue()
        found.Name, found.Value = name, value
        return found

    here = uno.getComponentContext()
    resolver = here.ServiceManager.createInstanceWithContext("com.sun.star.bridge.UnoUrlResolver", here)
    for _ in range(120):
        try:
            context = resolver.resolve(f"uno:socket,host=127.0.0.1,port={sys.argv[2]};urp;StarOffice.ComponentContext")
            break
        except Exception:
            time.sleep(0.5)
    desktop = context.ServiceManager.createInstanceWithContext("com.sun.star.frame.Desktop", context)
    told = []
    for text in json.loads(sys.stdin.read()):
        options = (prepared("Hidden", True), prepared("MacroExecutionMode", 4))
        document = desktop.loadComponentFromURL("private:factory/scalc", "_blank", 0, options)
        document.BasicLibraries.createLibrary("Standard")
        library = document.BasicLibraries.getByName("Standard")
        library.insertByName("TheLog", LOG)
        library.insertByName("TheProgram", "Option VBASupport 1\n" + text)
        scripts = document.getScriptProvider()

        def called(name: str, scripts: object = scripts) -> object:
            place = f"vnd.sun.star.script:Standard.{name}?language=Basic&location=document"
            return scripts.getScript(place).invoke((), (), ())[0]  # type: ignore[attr-defined]

        called("TheLog.Clear")
        try:
            called("TheProgram.Main")
            failed = ""
        except Exception as error:
            found = re.search(r"Error code: \d+|Message: [^\n]*", str(error))
            failed = f"ERROR {found.group() if found else error}"
        sheet = document.Sheets.getByIndex(0)
        cells = sheet.getCellRangeByName("A1:H40").getDataArray()
        written = [f"{row} {column} {v}" for row, line in enumerate(cells) for column, v in enumerate(line) if v != ""]
        told.append("\n".join([str(called("TheLog.Said")), failed, *written]))
        document.close(True)
    print(json.dumps(told))


if __name__ == "__main__" and "--inside" in sys.argv:
    _inside()
