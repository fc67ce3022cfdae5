from tests.conftest import shipped
from yewhour.content.block_files import load_blocks

LIBRARY = shipped().library


def load(tmp_path, **files):
    for name, text in files.items():
        (tmp_path / f"{name}.txt").write_text(text)
    return load_blocks([tmp_path], LIBRARY)


def test_a_teachers_block_is_loaded_with_ids_of_its_own(tmp_path):
    blocks, problems = load(tmp_path, mine="# block my end\nreturn\nfarewell\n")
    assert problems == []
    assert [node.id for node in blocks["my end"]] == ["my end:1", "my end:2"]


def test_a_circle_of_blocks_is_named_with_file_and_line_and_the_rest_loads(tmp_path):
    text = "# block a\ncat 2b\ninsert b\n\n# block b\ninsert a\n\n# block c\nfarewell\n"
    blocks, problems = load(tmp_path, mine=text)
    assert "c" in blocks
    assert "a" not in blocks
    assert "a > b > a" in problems[0].what
    assert problems[0].where.endswith("mine.txt, line 3")


def test_a_broken_file_of_blocks_is_named_and_the_others_load(tmp_path):
    blocks, problems = load(tmp_path, bad="# block a\nmoonwalk\n", good="# block b\nfarewell\n")
    assert set(blocks) == {"b"}
    assert problems[0].where.endswith("bad.txt, line 2")
