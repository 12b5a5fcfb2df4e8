"""The second factor against the test vectors of its standard, and letters."""

from __future__ import annotations

import base64

import pytest

from stairpath.core.people import letters, second_factor
from stairpath.core.people.passwords import NotAPasswordError, check_password

SECRET = base64.b32encode(b"12345678901234567890").decode()
"""The secret of RFC 6238, appendix B."""


@pytest.mark.parametrize(
    ("at_s", "code"),
    # The last six of the eight digits that the appendix gives for SHA-1.
    [(59, "287082"), (1111111109, "081804"), (1234567890, "005924"), (2000000000, "279037"), (20000000000, "353130")],
)
def test_codes_are_those_of_the_standard(at_s, code):
    assert second_factor.step_of(SECRET, code, at_s, 0) == at_s // 30
    assert second_factor.step_of(SECRET, f" {code[:3]} {code[3:]} ", at_s, 0) == at_s // 30
    assert second_factor.step_of(SECRET, f"{(int(code) + 1) % 1_000_000:06d}", at_s, 0) is None


def test_a_code_is_good_a_step_early_or_late_and_no_more():
    step = 1111111109 // 30
    at = [at_s for at_s in range(step * 30 - 90, step * 30 + 120) if second_factor.step_of(SECRET, "081804", at_s, 0)]
    assert (at[0], at[-1]) == (step * 30 - 30, step * 30 + 59)


def test_a_code_is_good_once_and_so_are_those_before_it():
    assert second_factor.step_of(SECRET, "081804", 1111111109, 1111111109 // 30 - 1) == 1111111109 // 30
    assert second_factor.step_of(SECRET, "081804", 1111111109, 1111111109 // 30) is None


@pytest.mark.parametrize("odd", ["", "12345", "1234567", "28708a", "２８７０８２", "-87082"])
def test_what_is_no_code_is_none(odd):
    assert second_factor.step_of(SECRET, odd, 59, 0) is None


def test_recovery_codes_are_many_and_different_and_read_however_they_are_typed():
    codes = [each for _ in range(20) for each in second_factor.new_recovery_codes()]
    assert len(set(codes)) == len(codes) == 200
    assert second_factor.recovery_code(codes[0].upper().replace("-", " ")) == codes[0].replace("-", "")


@pytest.mark.parametrize(
    ("name", "is_one"),
    [
        ("ida.fenn@quillhaven.example", True), ("ida", False), ("ida@", False), ("@a.example", False), ("a@b", False),
        ("a@b.c\nBcc: d@e.example", False), ("<a@b.example>", False), ("a,b@c.example", False), ("a@b.example.", False),
    ],
)  # fmt: skip
def test_what_is_a_mail_address(name, is_one):
    assert letters.is_mail_address(name) is is_one


@pytest.mark.parametrize("long", ["seventeen swans under a crane", "x7#Kq2!pV9@zL4", "ebb and flow " * 9])
def test_passwords_that_nobody_guesses_are_taken(long):
    check_password(long, "ida@quillhaven.example", "Ida Fenn")


@pytest.mark.parametrize("easy", ["iloveyou1234", "QuillhavenIda", "abcdefghijklm", "121212121212", "1qaz2wsx3edc"])
def test_passwords_that_are_easy_to_guess_are_not(easy):
    with pytest.raises(NotAPasswordError, match="easy to guess"):
        check_password(easy, "ida@quillhaven", "Ida Quillhaven")
