"""Turns: in the order they came, and nobody waits long for one that is slow."""

import threading
import time
import unittest

from axis_path.web.turns import Turns


class TurnsTest(unittest.TestCase):
    def together(self, turns: Turns, *works: object) -> list[str]:
        """Let threads come one after the other, and give what happened in which order."""
        happened: list[str] = []

        def one(name: str, work: object) -> None:
            with turns.take():
                happened.append(f"{name} begins")
                if isinstance(work, threading.Event):
                    work.wait(20)
            happened.append(f"{name} ends")

        threads = []
        for name, work in zip("abcde", works, strict=False):
            threads.append(threading.Thread(target=one, args=(name, work)))
            threads[-1].start()
            # Until it has its turn, or waits for it.
            while name not in "".join(happened) and len(turns._waiting) < len(threads) - 1:
                time.sleep(0.001)
        for work in works:
            if isinstance(work, threading.Event):
                work.set()
        for each in threads:
            each.join(20)
        return happened

    def test_they_come_in_order_and_one_at_a_time(self) -> None:
        for _ in range(20):
            first = threading.Event()
            happened = self.together(Turns(20.0), first, None, None, None, None)
            self.assertEqual(
                [f"{n} begins" for n in "abcde"], [e for e in happened if "begins" in e]
            )
            self.assertEqual("a begins", happened[0])
            self.assertEqual(10, len(happened))

    def test_a_slow_one_is_passed_and_the_queue_goes_on_after_it(self) -> None:
        turns, slow = Turns(0.05), threading.Event()
        entered = threading.Event()

        def hold() -> None:
            with turns.take():
                entered.set()
                slow.wait(20)

        holder = threading.Thread(target=hold)
        holder.start()
        self.assertTrue(entered.wait(20))
        # The holder has not let go: who comes now gets through all the same, one after the other.
        passed = self.together(turns, None, None, None)
        self.assertEqual(6, len(passed))
        self.assertTrue(holder.is_alive())
        slow.set()
        holder.join(20)
        with turns.take():
            pass

    def test_one_that_fails_gives_its_turn_back(self) -> None:
        turns = Turns(20.0)
        for _ in range(3):
            with self.assertRaises(ZeroDivisionError), turns.take():
                raise ZeroDivisionError
        self.assertEqual(["a begins", "a ends"], self.together(turns, None))
