"""How large the drift of a place is: sizes and lengths weighed by how likely they make its readings."""

from __future__ import annotations

from dataclasses import astuple

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import cholesky, solve_triangular

from cloche.core.soil.drift import Alike, Wandering, covariance

Array = NDArray[np.float64]

BASES = tuple(
    Wandering(level, days, stays, gain=gain, scatter_k=scatter)
    for level in (0.3, 0.8, 2.0)
    for days in (3.0, 8.0)
    for stays in (0.3, 1.0, 2.5)
    for gain in (0.03, 0.10)
    for scatter in (0.3, 0.6)
)
UNLOGGED_SD = (0.03, 0.1, 0.3, 0.6)
"""What evidence weighs, each with each (assumption)."""

LOGARITHMS = np.log([(*astuple(base)[:-1], sd) for base in BASES for sd in UNLOGGED_SD])


def weighed(evidence: Array) -> Wandering:
    """Geometric mean over the grid by evidence: steadier than the best of it, which changes with every reading.

    Parameters
    ----------
    evidence : ndarray
        Logarithm of the evidence of each, (`BASES`, `UNLOGGED_SD`).

    Returns
    -------
    Wandering
    """
    weight = np.exp(evidence - evidence.max()).ravel()
    return Wandering(*np.exp(weight @ LOGARITHMS / weight.sum()).tolist())


def log_evidence(covariance_k2: Array, residual_k: Array) -> float:
    """Log density of residuals, but for a constant.

    Parameters
    ----------
    covariance_k2 : ndarray
        Covariance of the residuals, (readings, readings) [K²].
    residual_k : ndarray
        Readings less the run, (readings,) [K].

    Returns
    -------
    float
    """
    if not len(residual_k):
        return 0.0
    root = cholesky(covariance_k2, lower=True)
    white = solve_triangular(root, residual_k, lower=True)
    return float(-0.5 * white @ white - np.log(np.diag(root)).sum())


def over_grid(alike: Alike, swing_k: Array, scatter: Array, residual_k: Array, slope: Array, unlogged: Array) -> Array:
    """Log evidence of every size of drift, but for a constant, a place's numbers integrated out.

    The numbers add slope @ slope.T and SD² unlogged @ unlogged.T to the covariance of the drift: of low rank, so that the
    readings' own matrix is taken apart once for all SDs (matrix inversion and determinant lemmas).

    Parameters
    ----------
    alike : Alike
        The readings' hours.
    swing_k : ndarray
        Course less its daily mean at each reading, (readings,) [K].
    scatter : ndarray
        Factor of each reading's variance, (readings,).
    residual_k : ndarray
        Readings less the run with all numbers at their prior's mean, (readings,) [K].
    slope : ndarray
        Derivative of the course by each number whose prior is a standard normal, (readings, numbers) [K].
    unlogged : ndarray
        Derivative by each knot of the unlogged wetness at an SD of 1, (readings, knots) [K].

    Returns
    -------
    ndarray
        (`BASES`, `UNLOGGED_SD`).
    """
    if not len(residual_k):
        return np.zeros((len(BASES), len(UNLOGGED_SD)))
    columns = np.column_stack([slope, unlogged, residual_k])
    products, logs = [], []
    for base in BASES:
        root = cholesky(covariance(base, alike, swing_k, scatter), lower=True, overwrite_a=True, check_finite=False)
        white = solve_triangular(root, columns, lower=True, check_finite=False)
        products.append(white.T @ white)
        logs.append(np.log(np.diag(root)).sum())
    between = np.array(products)[:, None]
    sd = np.column_stack([np.ones((len(UNLOGGED_SD), slope.shape[1])), np.outer(UNLOGGED_SD, np.ones(unlogged.shape[1]))])
    cross = sd * between[..., -1, :-1]
    inner = np.eye(sd.shape[1]) + sd[:, :, None] * between[..., :-1, :-1] * sd[:, None, :]
    explained = (cross * np.linalg.solve(inner, cross[..., None])[..., 0]).sum(axis=-1)
    spread = np.linalg.slogdet(inner).logabsdet
    return np.asarray((explained - between[..., -1, -1] - spread) / 2 - np.array(logs)[:, None])
