"""The logbook: kept whole, read by windows and machines, never lost to damage, a full disk or clocks."""

import sqlite3

import pytest

import yewhour.state.logbook.logbook as logbook
from tests.core.shelf.shelves import MONDAY, sheet
from yewhour.core.shelf.records import (
    Outing,
    Series,
    ShelvedClass,
    TakeRecord,
)
from yewhour.state.logbook.logbook import FilePlace, Logbook


def one(name="a", title="Slack tide"):
    return ShelvedClass(name, sheet(title))


@pytest.fixture
def folder(tmp_path):
    return tmp_path / "shelf"


@pytest.fixture
def messages():
    return []


def book_in(folder, messages, machine="here"):
    return Logbook(folder, machine, messages.append)


def test_what_is_put_is_there_next_time(folder, messages):
    book = book_in(folder, messages)
    book.put(one(), Outing("o", "a", MONDAY), TakeRecord("t", "a", MONDAY), Series("s", "A course"))
    book.change("a", note="went well")
    book.close()
    again = book_in(folder, messages)
    assert again.shelf.classes["a"].note == "went well"
    assert (len(again.shelf.outings), len(again.shelf.takes), len(again.shelf.series)) == (1, 1, 1)
    again.drop("o")
    assert book_in(folder, messages).shelf.outings == {}
    assert messages == []


def test_two_windows_see_each_other_and_change_different_things_of_one_record(folder, messages):
    first, second = book_in(folder, messages), book_in(folder, messages)
    first.put(one())
    assert second.refresh()
    second.change("a", note="from the second")
    first.change("a", file="first.yewhour")
    second.refresh()
    for book in (first, second):
        assert (book.shelf.classes["a"].note, book.shelf.classes["a"].file) == (
            "from the second",
            "first.yewhour",
        )
    assert not second.refresh()


def test_two_machines_share_a_folder_and_the_later_change_counts_whatever_the_clocks(folder, messages):
    here, there = book_in(folder, messages), book_in(folder, messages, "there")
    here.put(one())
    here.close()
    assert there.refresh()
    there.change("a", note="there")
    there.close()
    again = book_in(folder, messages)
    assert again.shelf.classes["a"].note == "there"
    again.change("a", note="here again")
    again.close()
    there = book_in(folder, messages, "there")
    assert there.shelf.classes["a"].note == "here again"
    there.close()
    assert messages == []
    assert sorted(file.name for file in folder.iterdir()) == ["here.1.sqlite", "there.1.sqlite"]


def test_what_one_machine_lets_go_of_is_gone_on_the_other(folder, messages):
    here = book_in(folder, messages)
    here.put(one())
    here.close()
    there = book_in(folder, messages, "there")
    there.drop("a")
    there.close()
    assert book_in(folder, messages).shelf.classes == {}


def test_damage_is_told_set_aside_whole_and_the_rest_goes_on(folder, messages):
    folder.mkdir()
    (folder / "here.1.sqlite").write_bytes(b"no logbook at all" * 100)
    other = book_in(folder, [], "there")
    other.put(one())
    other.close()
    book = book_in(folder, messages)
    assert "damaged" in str(messages[0])
    assert (folder / "here.1.sqlite.damaged-1").read_bytes() == b"no logbook at all" * 100
    assert list(book.shelf.classes) == ["a"]
    book.put(one("b", "Lamps out"))
    assert len(book_in(folder, messages).shelf.classes) == 2


def test_damage_in_the_middle_is_noticed(folder, messages):
    book = book_in(folder, messages)
    book.put(*(one(f"c{n}", f"Class {n}") for n in range(300)))
    book.close()
    path = folder / "here.1.sqlite"
    content = bytearray(path.read_bytes())
    content[4096 * 3 : 4096 * 5] = b"\xff" * 8192
    path.write_bytes(content)
    again = book_in(folder, messages)
    assert messages
    assert list(folder.glob("*.damaged-*"))
    again.put(one())
    assert list(again.shelf.classes) == ["a"]


def test_another_machines_file_that_is_half_there_is_told_and_left(folder, messages):
    book_in(folder, messages).put(one())
    (folder / "there.1.sqlite").write_bytes(b"SQLite format 3\0" + b"half" * 50)
    book = book_in(folder, messages)
    assert "another machine" in str(messages[0])
    assert list(book.shelf.classes) == ["a"]
    assert (folder / "there.1.sqlite").exists()


def test_what_a_newer_program_wrote_is_left_as_it_is(folder, messages):
    folder.mkdir()
    (folder / "here.7.sqlite").write_bytes(b"from the future")
    book = book_in(folder, messages)
    assert "newer" in str(messages[0])
    book.put(one())
    assert (folder / "here.7.sqlite").read_bytes() == b"from the future"
    assert list(book_in(folder, []).shelf.classes) == ["a"]


def test_an_older_schema_is_copied_and_the_copy_brought_to_the_new_one(folder, messages, monkeypatch):
    before = book_in(folder, messages)
    before.put(one())
    before.close()
    old = (folder / "here.1.sqlite").read_bytes()
    monkeypatch.setattr(logbook, "SCHEMA", 2)
    monkeypatch.setattr(logbook, "STEPS", {1: "ALTER TABLE entries ADD COLUMN hand TEXT DEFAULT ''"})
    book = book_in(folder, messages)
    assert list(book.shelf.classes) == ["a"]
    assert (folder / "here.2.sqlite").exists()
    assert (folder / "here.1.sqlite").read_bytes() == old
    with sqlite3.connect(folder / "here.2.sqlite") as file:
        assert file.execute("SELECT hand FROM entries").fetchall() == [("",)]


def test_where_nothing_can_be_written_it_is_told_once_read_and_kept_in_memory(folder, messages, monkeypatch):
    before = book_in(folder, [])
    before.put(one())
    before.close()
    timed, full = logbook._made, [True]

    def refused(path):
        if full[0] and path != ":memory:":
            raise sqlite3.OperationalError("attempt to write a readonly database")
        return timed(path)

    monkeypatch.setattr(logbook, "_made", refused)
    book = book_in(folder, messages)
    assert list(book.shelf.classes) == ["a"]
    book.put(one("b", "Lamps out"))
    book.put(one("c", "Low water"))
    assert len(messages) == 1
    assert "readonly" in str(messages[0])
    full[0] = False
    book.put(one("d", "Moorings"))
    assert set(book_in(folder, []).shelf.classes) == {"a", "b", "c", "d"}


def test_a_full_disk_is_told_and_nothing_is_lost(folder, messages):
    book = book_in(folder, messages)
    book.put(one())
    book._file.execute("PRAGMA max_page_count = 4")
    book.put(*(one(f"c{n}", f"Class {n}") for n in range(40)))
    assert "full" in str(messages[0])
    assert len(book.shelf.classes) == 41
    book._file.execute("PRAGMA max_page_count = 100000")
    book.flush()
    assert len(book_in(folder, []).shelf.classes) == 41


def test_a_logbook_that_is_kept_nowhere_works_too(messages):
    book = Logbook(None, on_problem=messages.append)
    book.put(one())
    book.place("a", FilePlace("/nowhere"))
    assert book.places() == {"a": FilePlace("/nowhere")}
    assert list(book.shelf.classes) == ["a"]
    book.close()


def test_one_change_reads_one_record_anew(folder, messages, monkeypatch):
    book = book_in(folder, messages)
    book.put(*(one(f"c{number}") for number in range(20)))
    assert len(book.shelf.classes) == 20
    read, decoded = [], logbook._decoded
    monkeypatch.setattr(
        logbook, "_decoded", lambda kind, values: read.extend(values) or decoded(kind, values)
    )
    book.change("c7", note="went well")
    assert book.shelf.classes["c7"].note == "went well"
    assert len(book.shelf.classes) == 20
    assert len(read) == 1
