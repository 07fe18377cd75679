"""Made-up bodies as outlines, by formulas of their own: nothing here knows how the program joins stations."""
import numpy as np


class Body:
    """Outlines over x from the nose, mm: top, bottom (both positive from the axis) and half width."""

    def __init__(self, rng):
        self.length = float(rng.uniform(45, 135))
        slender = rng.uniform(0.16, 0.5)
        height = self.length * slender
        self.up = height * rng.uniform(0.38, 0.6)
        self.down = height - self.up
        self.side = 0.5 * height * rng.uniform(0.4, 1.0)
        # Exponents at nose and tail: 0.5 is round as an ellipse, 1 a point.
        self.nose = rng.uniform(0.42, 0.62)
        self.tail = rng.choice([0.5, 0.6, 0.75, 0.95])
        self.cut = float(rng.choice([1.0, 1.0, 1.0, 0.965]))  # of the whole: a tail cut off straight
        self.belly = self.tail * rng.uniform(0.9, 1.15)

    def _p(self, t, a, b):
        peak = (a / (a + b)) ** a * (b / (a + b)) ** b
        return np.power(np.clip(t, 0, 1), a) * np.power(np.clip(1 - t, 0, 1), b) / peak

    def top(self, x):
        return self.up * self._p(x / self.length * self.cut, self.nose, self.tail)

    def bottom(self, x):
        return self.down * self._p(x / self.length * self.cut, self.nose * 1.05, self.belly)

    def half(self, x):
        return self.side * self._p(x / self.length * self.cut, self.nose, self.tail)

    def xs(self, n=400):
        return self.length * 0.5 * (1 - np.cos(np.pi * np.arange(n + 1) / n))

    def outline(self, above=False):
        """Closed, x from the nose, y up."""
        x = self.xs()
        up, down = (self.half(x), self.half(x)) if above else (self.top(x), self.bottom(x))
        return np.concatenate([np.stack([x, up], 1), np.stack([x, -down], 1)[::-1]])


def near(reading, truth):
    """The nearest points of a closed outline to those of another."""
    a, b = truth, np.roll(truth, -1, 0)
    d = b - a
    length2 = np.maximum((d * d).sum(1), 1e-12)
    out = []
    for p in reading:
        t = np.clip(((p - a) * d).sum(1) / length2, 0, 1)
        q = a + t[:, None] * d
        out.append(q[((q - p) ** 2).sum(1).argmin()])
    return np.array(out)


def miss(reading, truth):
    """Distances from the points of an outline to another one (closed polyline), mm."""
    return np.linalg.norm(reading - near(reading, truth), axis=1)


def laid(reading, truth, rounds=6):
    """The outline turned and moved, never scaled, to where it fits the other best (iterated closest points)."""
    p = reading.copy()
    for _ in range(rounds):
        q = near(p, truth)
        pm, qm = p.mean(0), q.mean(0)
        u, _, v = np.linalg.svd((p - pm).T @ (q - qm))
        r = (u @ np.diag([1, np.sign(np.linalg.det(u @ v))]) @ v)
        p = (p - pm) @ r + qm
    return p
