"""What tests do read of the key plan."""

from __future__ import annotations

from playwright.sync_api import Page


def bearing(page: Page) -> float:
    return float(page.get_by_test_id("key-plan").get_attribute("data-bearing") or "nan")


def tilt(page: Page) -> float:
    return float(page.get_by_test_id("key-plan").get_attribute("data-tilt") or "nan")


def until(page: Page, attribute: str, value: float) -> None:
    page.wait_for_function(
        """([name, value]) => {
          const now = Number(document.querySelector('[data-testid=key-plan]').dataset[name]);
          return Math.abs(((now - value + 540) % 360) - 180) < 0.2;
        }""",
        arg=[attribute, value],
        timeout=20_000,
    )
