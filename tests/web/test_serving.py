"""Processes share the pages out: each counts its wires, and sends a page on to one with fewer."""

import unittest
from types import SimpleNamespace

from axis_path import serving


class ServingTest(unittest.TestCase):
    def setUp(self) -> None:
        self.addCleanup(setattr, serving._Own, "place", serving._Own.place)
        for k, held in enumerate(list(serving._held)):
            self.addCleanup(serving._held.__setitem__, k, held)
            serving._held[k] = -1

    def born(self, age: int) -> None:
        serving.post_fork(None, SimpleNamespace(age=age))

    def test_a_process_takes_no_more_than_the_others_and_no_more_than_its_fill(self) -> None:
        self.born(17)
        self.assertEqual([True, True, False], [serving.take_wire(2) for _ in range(3)])
        serving.give_wire_back()
        # A second process: the first has one already, and waits until the other has as many.
        self.born(18)
        serving._Own.place = 1
        self.assertFalse(serving.take_wire(9))
        serving._Own.place = 2
        self.assertTrue(serving.take_wire(9))
        serving._Own.place = 1
        self.assertTrue(serving.take_wire(9))
        # One that has ended does not count.
        serving.child_exit(None, SimpleNamespace(age=18))
        self.assertEqual([True] * 3 + [False], [serving.take_wire(5) for _ in range(4)])
