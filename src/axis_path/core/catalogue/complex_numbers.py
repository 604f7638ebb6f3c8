"""Parts of complex numbers; of a real number they are functions like any other."""

import numpy as np
from flint import acb

from axis_path.core.arithmetic import (
    Ball,
    Enclosure,
    ball,
    ball_special,
    enclosure,
    enclosure_special,
    floats,
)
from axis_path.core.catalogue.entry import Argument, Backends, Floats, FunctionEntry, Group, Parity
from axis_path.core.catalogue.unit_rules import COUNTS, KEEPS

_NUMBER = (Argument("z", "a number"),)
_EVERY = "for every number"


def _same(value: Floats) -> Floats:
    return value


def _same_enclosure(value: Enclosure) -> Enclosure:
    return value


def _same_ball(value: Ball) -> Ball:
    return value


def _nothing(value: Floats) -> Floats:
    return np.where(np.isnan(value), np.nan, 0.0)


def _nothing_enclosed(value: Enclosure) -> Enclosure:
    return enclosure.multiply(enclosure.constant(0.0, 0.0), value)


def _nothing_proved(value: Ball) -> Ball:
    return ball.multiply(ball.from_fraction(0), value)


def _angle(value: Floats) -> Floats:
    return floats.angle_of(np.zeros(()), value)


def _angle_enclosed(value: Enclosure) -> Enclosure:
    return enclosure_special.angle_of(enclosure.constant(0.0, 0.0), value)


def _angle_proved(value: Ball) -> Ball:
    return ball_special.angle_of(ball.from_fraction(0), value)


def _real(z: acb, analytic: bool) -> acb:
    return acb(z.real)


def _imaginary(z: acb, analytic: bool) -> acb:
    return acb(z.imag)


def _argument(z: acb, analytic: bool) -> acb:
    return acb(z.arg()) if not z.contains(0) else acb("nan")


def _conjugate(z: acb, analytic: bool) -> acb:
    return z.conjugate()


COMPLEX = (
    FunctionEntry(
        name="re",
        units=KEEPS,
        group=Group.COMPLEX,
        arguments=_NUMBER,
        meaning="the real part",
        defined=_EVERY,
        returns="a real number",
        example="re(3 + 4i)",
        backends=Backends(_same, _same_enclosure, _same_ball, "re", _real),
        derivative=("1",),
        parity=Parity.ODD,
    ),
    FunctionEntry(
        name="im",
        units=KEEPS,
        group=Group.COMPLEX,
        arguments=_NUMBER,
        meaning="the imaginary part",
        defined=_EVERY,
        returns="a real number",
        example="im(3 + 4i)",
        backends=Backends(_nothing, _nothing_enclosed, _nothing_proved, "im", _imaginary),
        derivative=("0",),
        parity=Parity.ODD,
    ),
    FunctionEntry(
        name="arg",
        units=COUNTS,
        group=Group.COMPLEX,
        arguments=_NUMBER,
        meaning="the angle of a number in the complex plane, from the real axis",
        defined="except at 0",
        returns="an angle over −180° and up to 180°, in the unit of the study",
        example="arg(1 + i)",
        backends=Backends(_angle, _angle_enclosed, _angle_proved, "arg", _argument),
        derivative=("0/u",),
        returns_angle=True,
        rough=("u",),
        has_gaps=True,
    ),
    FunctionEntry(
        name="conj",
        units=KEEPS,
        group=Group.COMPLEX,
        arguments=_NUMBER,
        meaning="the conjugate: the imaginary part with the other sign",
        defined=_EVERY,
        returns="a number",
        example="conj(3 + 4i)",
        backends=Backends(_same, _same_enclosure, _same_ball, "conjugate", _conjugate),
        derivative=("1",),
        parity=Parity.ODD,
    ),
)
