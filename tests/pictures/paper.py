"""The tracing sheet with a pencil drawn on it, and what a scanner or a phone makes of it."""
import numpy as np
from PIL import Image, ImageFilter

PER_MM = 10.0


def draw(page, line, rng, width=0.5, dark=0.55, pressure=(0.6, 1.0), wobble=0.06, closed=True, gaps=(), pale=()):
    """Darkens the page (grey 0..1) along a line in mm of the page, y down, as a pencil does."""
    pts = np.asarray(line, float)
    if closed:
        pts = np.vstack([pts, pts[:1]])
    seg = np.linalg.norm(np.diff(pts, axis=0), axis=1)
    s = np.concatenate([[0], np.cumsum(seg)])
    n = int(s[-1] / 0.05) + 2
    at = np.linspace(0, s[-1], n)
    x, y = np.interp(at, s, pts[:, 0]), np.interp(at, s, pts[:, 1])
    # A hand neither presses nor follows evenly.
    def slow(lo, hi, step):
        k = max(4, int(s[-1] / step))
        return np.interp(at, np.linspace(0, s[-1], k), rng.uniform(lo, hi, k))
    tx, ty = np.gradient(x), np.gradient(y)
    norm = np.hypot(tx, ty) + 1e-9
    off = slow(-wobble, wobble, 9)
    x, y = x - off * ty / norm, y + off * tx / norm
    strength = dark * slow(pressure[0], pressure[1], 14)
    for lo, hi, share in pale:  # the hand hardly presses
        strength[(at > lo) & (at < hi)] = dark * share
    for lo, hi in gaps:
        strength[(at > lo) & (at < hi)] = 0
    r = width * slow(0.85, 1.15, 20) / 2
    cover = np.zeros_like(page)
    h, w = page.shape
    reach = int(width * PER_MM) + 3
    for px, py, radius, k in zip(x * PER_MM, y * PER_MM, r * PER_MM, strength):
        if k <= 0:
            continue
        ix, iy = int(px), int(py)
        x0, x1, y0, y1 = max(0, ix - reach), min(w, ix + reach + 1), max(0, iy - reach), min(h, iy + reach + 1)
        if x0 >= x1 or y0 >= y1:
            continue
        gy, gx = np.mgrid[y0:y1, x0:x1]
        d = np.hypot(gx + 0.5 - px, gy + 0.5 - py)
        cover[y0:y1, x0:x1] = np.maximum(cover[y0:y1, x0:x1], k * np.clip(radius - d + 0.5, 0, 1))
    grain = rng.normal(1, 0.18, page.shape)
    page *= 1 - np.clip(cover * np.clip(grain, 0.3, 1.4), 0, 1)


def seen(page, rng, kind):
    """A picture of the page, rgb; kind "scan" or "photo"."""
    h, w = page.shape
    if kind == "scan":
        scale = rng.choice([0.6, 0.8, 1.2]) * 10 / PER_MM
        img = Image.fromarray(np.uint8(np.clip(page, 0, 1) * 250)).resize((int(w * scale), int(h * scale)), Image.LANCZOS)
        img = img.rotate(rng.uniform(-2, 2), fillcolor=235, expand=True, resample=Image.BICUBIC)
        a = np.asarray(img, float) / 255
        a = np.clip(a * rng.uniform(0.92, 1) + rng.normal(0, 0.012, a.shape), 0, 1)
        return np.repeat(a[..., None], 3, 2)
    W, H = 3000, 2250
    tilt, turn = np.radians(rng.uniform(-22, 22)), np.radians(rng.uniform(-25, 25))
    tilt2 = np.radians(rng.uniform(-12, 12))
    f = 1.25 * W
    distance = rng.uniform(1.25, 1.6) * w / W * f / PER_MM
    # Corners of the page through a pinhole.
    R = np.array([[np.cos(turn), -np.sin(turn), 0], [np.sin(turn), np.cos(turn), 0], [0, 0, 1]])
    T = np.array([[1, 0, 0], [0, np.cos(tilt), -np.sin(tilt)], [0, np.sin(tilt), np.cos(tilt)]])
    S = np.array([[np.cos(tilt2), 0, np.sin(tilt2)], [0, 1, 0], [-np.sin(tilt2), 0, np.cos(tilt2)]])
    M = S @ T @ R
    K = np.array([[f, 0, W / 2], [0, f, H / 2], [0, 0, 1]])
    # page mm (centred) -> camera: M * (X, Y, 0) + (0, 0, distance)
    G = K @ np.column_stack([M[:, 0], M[:, 1], np.array([0, 0, distance])])
    inv = np.linalg.inv(G)
    yy, xx = np.mgrid[0:H, 0:W]
    k = rng.uniform(-0.015, 0.02)  # the lens
    u, v = (xx - W / 2) / (W / 2), (yy - H / 2) / (W / 2)
    bend = 1 + k * (u * u + v * v)
    q = inv @ np.stack([(u * bend * W / 2 + W / 2).ravel(), (v * bend * W / 2 + H / 2).ravel(), np.ones(W * H)])
    px = (q[0] / q[2]).reshape(H, W) * PER_MM + w / 2
    py = (q[1] / q[2]).reshape(H, W) * PER_MM + h / 2
    inside = (px > 0) & (py > 0) & (px < w - 2) & (py < h - 2)
    x0, y0 = np.clip(px, 0, w - 2).astype(int), np.clip(py, 0, h - 2).astype(int)
    fx, fy = np.clip(px - x0, 0, 1), np.clip(py - y0, 0, 1)
    soft = np.asarray(Image.fromarray(np.uint8(np.clip(page, 0, 1) * 255)).filter(ImageFilter.GaussianBlur(0.6)), float) / 255
    grey = ((soft[y0, x0] * (1 - fx) + soft[y0, x0 + 1] * fx) * (1 - fy) +
            (soft[y0 + 1, x0] * (1 - fx) + soft[y0 + 1, x0 + 1] * fx) * fy)
    table = np.array(rng.choice([[0.42, 0.3, 0.2], [0.25, 0.26, 0.28], [0.55, 0.52, 0.47]]))
    rgb = np.where(inside[..., None], grey[..., None] * np.array([0.97, 0.96, 0.92]), table * (1 + 0.1 * np.sin(xx / 37.0))[..., None])
    light = 1 - rng.uniform(0, 0.45) * ((xx / W) if rng.random() < 0.5 else (1 - yy / H))
    if rng.random() < 0.35:  # a soft shadow over a corner
        edge = (xx * np.cos(0.7) + yy * np.sin(0.7) - rng.uniform(900, 1800)) / 120
        light = light * (1 - 0.35 / (1 + np.exp(edge)))
    rgb = rgb * light[..., None] * rng.uniform(0.8, 1.0)
    rgb = np.asarray(Image.fromarray(np.uint8(np.clip(rgb, 0, 1) * 255)).filter(ImageFilter.GaussianBlur(rng.uniform(0.5, 1.4))), float) / 255
    return np.clip(rgb + rng.normal(0, rng.uniform(0.005, 0.03), rgb.shape), 0, 1)
