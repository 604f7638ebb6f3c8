"""Eigenvalues and eigenvectors of large matrices, in floats with error bounds.

With approximate vectors X and values D of a matrix A, the matrix X^-1 A X is D + G with a small G.
Gershgorin's discs of D + G hold the eigenvalues: as many as discs are connected. If the i-th disc
is alone, D + G has an eigenvector whose i-th entry is 1, and the others are at most
max|G_ji| / (gap - r), where r is the greatest row sum of |G|, and the gap is the distance of the
disc from the other middles. For a symmetric matrix X^T serves as X^-1.

Source: Golub and Van Loan, *Matrix Computations*, sections 7.2 and 8.1; Rump, *Verification
methods*, 2010, section 13.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from axis_path.core.arithmetic.bounded.discs import Discs, Numbers, exactly
from axis_path.core.arithmetic.bounded.entries import ROUNDING, outward
from axis_path.core.arithmetic.bounded.linear import (
    NotProvedError,
    distance_to_identity,
    lengths_of,
    product,
    summed,
)
from axis_path.core.arithmetic.bounded.radii import Floats, Later, OuterSum
from axis_path.core.deadline import check

#: More than the relative error of a product of two complex floats.
_ROUNDING = 4 * ROUNDING


@dataclass(frozen=True, slots=True)
class Spectrum:
    """The eigenvalues of a matrix, by their real parts and then by their imaginary parts.

    Attributes:
        values: (n,); for several that lie too close to be kept apart, the bound of each holds all.
        vectors: approximate eigenvectors as columns, (n, n).
        near: bounds for the entries of G, (n, n); see above.
        alone: which of the values are proved to lie apart from all others, (n,).
        real: which of them are proved to be real, (n,).
    """

    values: Discs
    vectors: Numbers
    near: Floats
    alone: np.ndarray
    real: np.ndarray


def spectrum(a: Discs, size: int, *, is_symmetric: bool) -> Spectrum:
    """Return all eigenvalues of a square matrix, and what is known of its eigenvectors.

    Args:
        a: the matrix, row by row.
        size: how many rows it has.
        is_symmetric: whether it is known to equal its conjugate transpose; so do its middles.

    Raises:
        NotProvedError: the floats do not show where they are.
    """
    middles = a.middles.reshape(size, size)
    try:
        values, vectors = np.linalg.eigh(middles) if is_symmetric else np.linalg.eig(middles)
    except np.linalg.LinAlgError:
        raise NotProvedError from None
    order = np.lexsort((values.imag, values.real))
    values, vectors = values[order], np.ascontiguousarray(vectors[:, order])
    check()
    near = _rest(a, values, vectors, size, is_symmetric=is_symmetric)
    radii = summed(near, 1)
    groups = _groups(values, radii)
    alone = np.bincount(groups)[groups] == 1
    # The conjugate of an eigenvalue of a real matrix is one too: alone on the axis, it is real.
    real = np.full(size, is_symmetric) | (alone & (values.imag == 0) & (not a.has_complex))
    bounds = np.where(alone, radii, _spread(values, radii, groups))
    return Spectrum(Discs(values, Later(lambda: outward(bounds))), vectors, near, alone, real)


def _rest(a: Discs, values: Numbers, vectors: Numbers, size: int, *, is_symmetric: bool) -> Floats:
    """Return bounds for the entries of X^-1 A X - D, (n, n).

    With Y near X^-1 and 1 - Y X = F, X^-1 (A X - X D) is Y R + F Y R + F^2 Y R + ...
    """
    shape = (size, size, size)
    held = exactly(vectors.ravel())
    try:
        turned = vectors.conj().T if is_symmetric else np.linalg.inv(vectors)
    except np.linalg.LinAlgError:
        raise NotProvedError from None
    inverse = exactly(np.ascontiguousarray(turned).ravel())
    off = distance_to_identity(inverse, held, size)
    check()
    lengths = summed(off, 1)
    norm = float(lengths.max())
    image = product(a, held, shape)
    if image is None or not norm < 0.5:
        raise NotProvedError
    scaled = (vectors * values).ravel()
    left = image.middles - scaled
    slack = image.radii + _ROUNDING * (np.abs(scaled) + np.abs(left))
    check()
    turned_left = product(inverse, Discs(left, Later(lambda: outward(slack))), shape)
    if turned_left is None:
        raise NotProvedError
    sizes = outward((1 + _ROUNDING) * np.abs(turned_left.middles) + turned_left.radii)
    sizes = sizes.reshape(size, size)
    return outward(sizes + np.outer(lengths, sizes.max(axis=0) / (1 - norm)))


def _groups(values: Numbers, radii: Floats) -> np.ndarray:
    """Return for each disc a number that those connected with it have too, (n,)."""
    distances = np.abs(values[:, None] - values)
    touching = distances <= (radii[:, None] + radii) * (1 + _ROUNDING) + _ROUNDING * distances
    labels = np.arange(values.size)
    while True:
        least = np.where(touching, labels, values.size).min(axis=1)
        # The label of a label is in the same group: long chains are shortened so.
        least = np.minimum(least, least[least])
        if bool((least == labels).all()):
            return labels
        labels = least


def _spread(values: Numbers, radii: Floats, groups: np.ndarray) -> Floats:
    """Return for each value how far the farthest point of its group is from it."""
    far = np.zeros(values.size)
    for group in np.flatnonzero(np.bincount(groups) > 1):
        members = np.flatnonzero(groups == group)
        distances = np.abs(values[members, None] - values[members]) * (1 + _ROUNDING)
        far[members] = (distances + radii[members]).max(axis=1)
    return far


def eigenvectors(known: Spectrum, size: int) -> Discs:
    """Return an eigenvector for each eigenvalue as the columns of a matrix, row by row.

    Each has the length 1, and its largest entry is positive.

    Raises:
        NotProvedError: two eigenvalues lie too close to be kept apart.
    """
    if not bool(known.alone.all()):
        raise NotProvedError
    values, radii = known.values.middles, known.values.radii
    distances = np.abs(values[:, None] - values) * (1 - _ROUNDING)
    np.fill_diagonal(distances, np.inf)
    gaps = distances.min(axis=0) - radii - float(summed(known.near, 1).max())
    if not bool((gaps > 0).all()):
        raise NotProvedError
    others = known.near.copy()
    np.fill_diagonal(others, 0.0)
    weights = outward(others.max(axis=0) / gaps)
    held = Discs(
        known.vectors.ravel(), OuterSum(((summed(np.abs(known.vectors), 1), weights),), (1.0, 0.0))
    )
    return _scaled(held, known, size)


def _scaled(held: Discs, known: Spectrum, size: int) -> Discs:
    """Return vectors of length 1 whose largest entries are positive.

    With u within e of x, u/|u| turned so that its k-th entry is positive is within
    (e + |x| (|e|/|x| + 2 e_k/|x_k|))/(|x| - |e|) of x/|x| turned so.
    """
    middles, errors = held.middles.reshape(size, size), held.radii.reshape(size, size)
    columns = np.arange(size)
    largest = np.abs(middles).argmax(axis=0)
    heads, head_errors = middles[largest, columns], errors[largest, columns]
    sizes = np.abs(heads) * (1 - _ROUNDING)
    lengths, spreads = (lengths_of(part, 0) for part in (middles, errors))
    shortest = lengths * (1 - 8 * size * ROUNDING)
    if not bool((sizes > 2 * head_errors).all() and (shortest > 2 * spreads).all()):
        raise NotProvedError
    turned = spreads / shortest + 2 * head_errors / sizes + 8 * size * ROUNDING
    bounds = (errors + np.abs(middles) * turned) / (shortest - spreads)
    vectors = middles * (np.conj(heads) / (np.abs(heads) * lengths))
    # A real eigenvector of length 1 with a positive entry is real.
    if np.iscomplexobj(vectors):
        vectors.imag[:, known.real] = 0.0
    flat = outward(bounds).ravel()
    return Discs(vectors.ravel(), Later(lambda: flat))
