"""Lines of the protocol: what is damaged on the way is told from what is not."""

from hypothesis import given
from hypothesis import strategies as st

from wingboard.devices.spoken import Lines, checksum, heard, line_of

WORDS = st.lists(st.text("abcdefghijklmnopqrstuvwxyz0123456789.-+", min_size=1, max_size=12), min_size=1, max_size=4)


def test_the_checksum_is_that_of_the_system_management_bus() -> None:
    assert checksum("123456789") == "F4"  # the check value of CRC-8 in catalogues of such codes, from memory


@given(WORDS, st.data())
def test_one_letter_changed_is_noticed_wherever_lines_are_cut(words: list[str], data: st.DataObject) -> None:
    line = line_of(*words)
    cut = data.draw(st.integers(0, len(line)))
    lines = Lines()
    got = [*lines.take(line[:cut]), *lines.take(line[cut:])]
    assert [(one.words, one.garbled) for one in got] == [(tuple(words), False)]
    at = data.draw(st.integers(0, len(line) - 2))
    other = data.draw(st.characters(min_codepoint=33, max_codepoint=125).filter(lambda c: c != line[at]))
    assert heard((line[:at] + other + line[at + 1 :]).rstrip("\n")).garbled


def test_what_never_ends_is_left_out_and_the_next_line_is_heard() -> None:
    lines = Lines()
    assert lines.take("x" * 5000) == []
    assert [one.garbled for one in lines.take("\nis f1 1 ~" + checksum("is f1 1") + "\r\n")] == [True, False]
