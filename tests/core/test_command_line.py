"""`partitor check` from outside, as the contract has it: files, exit status, patches, no traceback."""

import csv
import json
import subprocess
import sys
import zipfile
from pathlib import Path

import jsonschema
import pytest
from builders import DEMO, ROOT, run

SUBMISSIONS = DEMO / "submissions"


def partitor(*arguments: object) -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [sys.executable, "-m", "partitor.cli", *map(str, arguments)],
        capture_output=True,
        text=True,
        cwd=ROOT,
        check=False,
        timeout=120,
    )


@pytest.fixture(scope="module")
def checked(tmp_path_factory) -> Path:
    out = tmp_path_factory.mktemp("results")
    done = partitor(
        "check",
        SUBMISSIONS,
        "--out",
        out,
        "--assignment",
        DEMO / "assignment.toml",
        "--starter",
        DEMO / "starter",
        "--reference",
        DEMO / "reference",
        "--jobs",
        2,
    )
    assert done.returncode == 3, done.stderr
    assert "Petra Nyman" in done.stderr
    assert "Quentin Ash" in done.stderr
    assert "24 of 24" in done.stdout
    return out


@pytest.fixture(scope="module")
def report(checked):
    return json.loads((checked / "report.json").read_text())


def test_the_report_holds_what_the_contract_names(report):
    assert (report["format"], report["version"]) == ("partitor-report", 1)
    assert report["assignment"] == {"title": "Sluice gates", "language": "python"}
    assert [u["name"] for u in report["unreadable"]] == ["Petra Nyman", "Quentin Ash"]
    assert len(report["submissions"]) == 24
    for s in report["submissions"]:
        assert {
            "name",
            "files",
            "measures",
            "findings",
            "suggestions",
            "worked_answer",
            "scores",
            "total",
            "of",
        } <= set(s)
        assert 0 <= s["measures"]["repeated_share"] <= 1
        known = {x["id"] for x in s["suggestions"]}
        for finding in s["findings"]:
            assert finding["suggestion"] is None or finding["suggestion"] in known
            for place in finding["places"]:
                assert 1 <= place["start_line"] <= place["end_line"]


def test_a_patch_is_written_exactly_for_what_is_proved(checked, report):
    for s in report["submissions"]:
        for x in s["suggestions"]:
            assert (x["status"] == "proved") == (x["patch"] is not None)
            if x["patch"]:
                assert (checked / x["patch"]).is_file()
        if s["worked_answer"]["patch"]:
            assert (checked / s["worked_answer"]["patch"]).is_file()


def outputs(report, checked):
    for s in report["submissions"]:
        source = next(SUBMISSIONS.glob(f"{s['name']}_*"))
        patches = [x["patch"] for x in s["suggestions"] if x["patch"]]
        patches += [s["worked_answer"]["patch"]] if s["worked_answer"]["patch"] else []
        for patch in patches:
            yield source, checked / patch


@pytest.mark.parametrize("tool", [["patch", "-s", "-p1", "-i"], ["git", "apply"]], ids=["patch", "git"])
def test_every_patch_applies_and_keeps_the_programs_output(checked, report, tmp_path, tool):
    tried = 0
    for number, (source, patch) in enumerate(outputs(report, checked)):
        folder = tmp_path / str(number)
        folder.mkdir()
        target = folder / source.name
        target.write_bytes(source.read_bytes())
        subprocess.run([*tool, str(patch)], cwd=folder, check=True, capture_output=True)
        assert target.read_bytes() != source.read_bytes()
        assert run(target) == run(source)
        tried += 1
    assert tried >= 25


def test_lines_before_and_after_are_the_code_lines_of_the_files(checked, report):
    s = next(s for s in report["submissions"] if s["name"] == "Salma Brook")
    text = next(SUBMISSIONS.glob("Salma*")).read_text()
    code = [line for line in text.split("\n") if line.strip() and not line.strip().startswith("#")]
    assert s["worked_answer"]["lines_before"] == len(code) == s["files"][0]["lines"]
    assert s["worked_answer"]["lines_after"] == s["worked_answer"]["steps"][-1]["lines"]


def test_sarif_is_valid_against_the_published_schema(checked, report):
    document = json.loads((checked / "findings.sarif").read_text())
    schema = json.loads((ROOT / "tests" / "data" / "sarif-schema-2.1.0.json").read_text())
    jsonschema.Draft202012Validator(schema).validate(document)
    results = document["runs"][0]["results"]
    assert len(results) == sum(len(s["findings"]) for s in report["submissions"])
    assert {r["ruleId"] for r in results} >= {"repeated-run", "repeated-block", "twin-functions"}


def test_scores_are_one_row_a_submission(checked, report):
    rows = list(csv.reader((checked / "scores.csv").read_text(encoding="utf-8").splitlines()))
    assert rows[0] == [
        "name",
        "repetition",
        "loops",
        "functions",
        "size",
        "parameters",
        "entry",
        "total",
        "out of",
        "percent",
    ]
    assert len(rows) == 25
    for row, s in zip(rows[1:], report["submissions"], strict=True):
        assert float(row[-3]) == s["total"] == sum(float(c) for c in row[1:7])


def test_feedback_is_one_html_file_without_script_or_outside_resource(checked, report):
    for s in report["submissions"]:
        page = (checked / "feedback" / f"{s['name']}.html").read_text()
        assert "<script" not in page
        assert "http" not in page.replace("http-equiv", "")
        assert (checked / "feedback" / f"{s['name']}.md").read_text().startswith("# Sluice gates")
        others = [o["name"] for o in report["submissions"] if o["name"] != s["name"]]
        assert not any(name in page for name in others)
    index = (checked / "index.html").read_text()
    assert all(s["name"] in index for s in report["submissions"])


def test_the_result_is_the_same_whatever_the_form_of_the_class_and_the_number_of_jobs(report, tmp_path):
    archive = tmp_path / "class.zip"
    with zipfile.ZipFile(archive, "w") as z:
        for path in sorted(SUBMISSIONS.iterdir(), reverse=True):
            z.write(path, f"outer/{path.name}")
    done = partitor(
        "check",
        archive,
        "--out",
        tmp_path / "out",
        "--assignment",
        DEMO / "assignment.toml",
        "--starter",
        DEMO / "starter",
        "--reference",
        DEMO / "reference",
        "--jobs",
        1,
        "--quiet",
    )
    assert done.stdout == ""
    assert json.loads((tmp_path / "out" / "report.json").read_text()) == report


def test_a_run_replaces_what_an_earlier_one_wrote_and_nothing_else(tmp_path):
    (tmp_path / "in").mkdir()
    (tmp_path / "in" / "ada.py").write_text("print(1)\n")
    out = tmp_path / "out"
    assert partitor("check", tmp_path / "in", "--out", out).returncode == 0
    (out / "mine.txt").write_text("keep me")
    (tmp_path / "in" / "ada.py").rename(tmp_path / "in" / "bo.py")
    assert partitor("check", tmp_path / "in", "--out", out).returncode == 0
    assert sorted(p.name for p in (out / "feedback").iterdir()) == ["bo.html", "bo.md"]
    assert (out / "mine.txt").read_text() == "keep me"
    assert not [p for p in out.iterdir() if p.name.startswith(".partitor")]


@pytest.mark.parametrize(
    ("arguments", "part"),
    [
        (["check", "nowhere", "--out", "{tmp}/out"], "nowhere: there is no such folder or archive"),
        (["check", "{tmp}", "--out", "{tmp}/out"], "stands inside the submissions"),
        (["check", "{tmp}", "--out", "/dev/null"], "is a file"),
        (["check", "demo", "--out", "{tmp}/out", "--assignment", "{tmp}/none.toml"], "none.toml: cannot be read"),
        (["check", "demo", "--out", "{tmp}/out", "--assignment", "{tmp}/bad.toml"], "bad.toml, line 1"),
        (["check", "{tmp}/bad.zip", "--out", "{tmp}/out"], "not a whole ZIP"),
        (["check", "demo", "--out", "{tmp}/out", "--jobs", "-1"], "--jobs"),
        (["check", "demo"], "--out"),
    ],
)
def test_a_wrong_call_is_one_sentence_and_status_2(arguments, part, tmp_path):
    (tmp_path / "bad.toml").write_text("title = \n")
    (tmp_path / "bad.zip").write_bytes(b"PK\x03\x04nothing")
    done = partitor(*[a.replace("{tmp}", str(tmp_path)) for a in arguments])
    assert done.returncode == 2
    assert part in done.stderr
    assert "Traceback" not in done.stderr
    assert not (tmp_path / "out").exists()


def test_help_lists_everything_with_an_example():
    assert "Example: partitor check" in partitor("check", "--help").stdout
    assert "measures" in partitor("--help").stdout
    assert "python" in partitor("languages").stdout
    assert "repeated_share" in partitor("measures").stdout
    assert "[[criteria]]" in partitor("rubric").stdout


def test_the_patches_of_a_notebook_apply_to_the_text_beside_them(tmp_path):
    (tmp_path / "in").mkdir()
    notebook = DEMO.parent / "seed-labels" / "labels.ipynb"
    (tmp_path / "in" / "Bo.ipynb").write_bytes(notebook.read_bytes())
    assert partitor("check", tmp_path / "in", "--out", tmp_path / "out", "--quiet").returncode == 0
    folder = tmp_path / "out" / "suggestions" / "Bo"
    before = (folder / "Bo.ipynb.py").read_text()
    assert before.startswith("# cell 2\n")
    done = subprocess.run(["patch", "-p1", "-i", "all.patch"], cwd=folder, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stdout
    assert run((folder / "Bo.ipynb.py").read_text()) == run(before)
