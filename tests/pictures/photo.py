"""A body on a ground, as a camera far above sees it: paint, shading, hooks, rings, bill, shadow."""
import numpy as np
from PIL import Image, ImageDraw, ImageFilter


def ground(rng, W, H):
    base = np.array([[0.93, 0.92, 0.9], [0.8, 0.76, 0.68], [0.35, 0.42, 0.5], [0.72, 0.75, 0.7], [0.2, 0.2, 0.22]])[rng.integers(5)]
    g = np.ones((H, W, 3)) * base
    coarse = Image.fromarray(np.uint8(128 + 40 * rng.normal(size=(H // 24, W // 24)).clip(-2, 2))).resize((W, H), Image.BICUBIC)
    g *= (1 + rng.uniform(0, 0.05) * (np.asarray(coarse, float)[..., None] - 128) / 64)
    yy, xx = np.mgrid[0:H, 0:W]
    g *= (1 - rng.uniform(0, 0.25) * xx / W)[..., None]
    return g, base


def colours(rng, base):
    while True:
        back, belly = rng.uniform(0.05, 0.95, 3), rng.uniform(0.05, 0.95, 3)
        if rng.random() < 0.3:
            back = np.ones(3) * rng.uniform(0.08, 0.7)  # grey, black, silver
            belly = np.ones(3) * rng.uniform(0.3, 0.95)
        # Somebody who photographs a bait takes paper it can be seen on.
        if min(np.abs(back - base).max(), np.abs(belly - base).max()) > 0.22:
            return back, belly


def render(body, rng, above=False, gear=True):
    """Picture rgb 0..1, pixels per mm, nose and tail in pixels, mask of the body alone."""
    W, H = 2400, 1600
    per = 0.62 * W / body.length
    turn = np.radians(rng.uniform(-12, 12))
    outline = body.outline(above)
    middle = np.array([body.length / 2, 0])
    R = np.array([[np.cos(turn), np.sin(turn)], [-np.sin(turn), np.cos(turn)]])

    def at(p):
        q = (np.asarray(p, float) - middle) * [1, -1]  # y down
        return q @ R * per + [W / 2, H / 2]

    S = 2  # drawn larger, then made smaller
    poly = [tuple(S * q) for q in at(outline)]
    m = Image.new("L", (S * W, S * H), 0)
    ImageDraw.Draw(m).polygon(poly, fill=255)
    mask = np.asarray(m.resize((W, H), Image.LANCZOS), float) / 255
    img, base = ground(rng, W, H)
    # Shadow: the mask moved and blurred, on one side.
    side = rng.choice([-1, 1])
    depth = rng.uniform(0, 0.5)
    moved = np.roll(np.asarray(Image.fromarray(np.uint8(mask * 255)).filter(ImageFilter.GaussianBlur(rng.uniform(10, 40))), float) / 255,
                    (int(rng.uniform(5, 40)), int(side * rng.uniform(5, 40))), (0, 1))
    img = img * (1 - depth * moved)[..., None]
    back, belly = colours(rng, base)
    # Body coordinates of each pixel.
    yy, xx = np.mgrid[0:H, 0:W]
    q = np.stack([(xx - W / 2) / per, (yy - H / 2) / per], -1) @ R.T
    bx, by = q[..., 0] + body.length / 2, -q[..., 1]
    up, down = (body.half(bx), body.half(bx)) if above else (body.top(bx), body.bottom(bx))
    t = np.clip((by + down) / np.maximum(1e-6, up + down), 0, 1)
    paint = belly + (back - belly) * np.clip((t - 0.3) / 0.35, 0, 1)[..., None]
    if above:
        paint = np.ones_like(paint) * back
    for _ in range(rng.integers(0, 7)):  # bars
        x0 = rng.uniform(0.2, 0.85) * body.length
        paint = np.where((np.abs(bx - x0) < rng.uniform(0.5, 2))[..., None], paint * rng.uniform(0.2, 0.8), paint)
    shade = 0.62 + 0.38 * np.sqrt(np.clip(1 - (2 * t - 1) ** 2, 0, 1))
    gloss = 0.5 * np.exp(-((t - 0.72) / 0.06) ** 2) * rng.uniform(0, 1)
    paint = np.clip(paint * shade[..., None] + gloss[..., None], 0, 1)
    layer = Image.new("RGBA", (S * W, S * H), (0, 0, 0, 0))
    d = ImageDraw.Draw(layer)
    wire = tuple(int(v) for v in rng.uniform(60, 200) * np.ones(3)) + (255,)

    def ring(c, r, width):
        c = S * at(c)
        r, width = S * per * r, max(2, int(S * per * width))
        d.ellipse([c[0] - r, c[1] - r, c[0] + r, c[1] + r], outline=wire, width=width)

    def hook(c):
        c = np.array(c, float)
        ring(c + [0, -1.6], 1.6, 0.5)
        for lean in (-0.5, 0.45):
            line = [c + [0, -3], c + [lean * 4, -9]]
            bend = [line[-1] + [3 * np.sign(lean) * (1 - np.cos(a)) / 1.0, -3 * np.sin(a)] for a in np.linspace(0, np.pi * 0.9, 14)]
            pts = [tuple(S * at(p)) for p in line + bend]
            d.line(pts, fill=wire, width=max(2, int(S * per * 0.6)), joint="curve")

    if gear and not above:
        ring([-1.3, rng.uniform(-1, 1)], 1.5, 0.55)
        if rng.random() < 0.8:
            x0 = rng.uniform(0.35, 0.6) * body.length
            hook([x0, -float(body.bottom(np.array([x0]))[0])])
        if rng.random() < 0.7:
            end = [body.length + 1.0, 0]
            ring(end, 1.4, 0.5)
            hook([body.length + 2.5, -1.5])
        if rng.random() < 0.6:  # a bill, pale and clear
            x0, long = 0.07 * body.length, rng.uniform(0.12, 0.3) * body.length
            y0 = -0.6 * float(body.bottom(np.array([x0]))[0])
            a = np.radians(rng.uniform(20, 60))
            tip = np.array([x0 - long * np.cos(a), y0 - long * np.sin(a)])
            n = np.array([np.sin(a), -np.cos(a)]) * rng.uniform(0.5, 1.1)
            tone = tuple(int(v) for v in 255 * np.clip(base * 0.86 + 0.08, 0, 1)) + (200,)
            d.polygon([tuple(S * at(p)) for p in ([x0, y0] + n, [x0, y0] - n, tip - n, tip + n)], fill=tone)
    gear_rgba = np.asarray(layer.resize((W, H), Image.LANCZOS), float) / 255
    img = img * (1 - gear_rgba[..., 3:]) + gear_rgba[..., :3] * gear_rgba[..., 3:]
    img = img * (1 - mask[..., None]) + paint * mask[..., None]
    img = np.asarray(Image.fromarray(np.uint8(np.clip(img, 0, 1) * 255)).filter(ImageFilter.GaussianBlur(rng.uniform(0.6, 1.6))), float) / 255
    img = np.clip(img + rng.normal(0, rng.uniform(0.004, 0.02), img.shape), 0, 1)
    return img, per, at([0, 0]), at([body.length, 0])
