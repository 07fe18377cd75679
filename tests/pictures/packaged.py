"""Photographs of elongated things with an alpha channel, from a Debian package of pictures, laid on grounds made here: what the program
finds against where the alpha is one half. Nothing of them is kept.

Thin things (tails, legs, needles) are taken off by the reader on purpose: what counts is half of the points, and compact things.
"""
import glob, json, os, subprocess, sys, tempfile
import numpy as np
from PIL import Image

CLI = os.environ["NINE_LEAVES_CLI"]
ROOT = os.environ.get("PACKAGED_PICTURES", "/usr/share/tuxpaint/stamps")
LONG = 1300  # pixels of the thing, taken for 100 mm
GROUNDS = [(236, 238, 240), (70, 110, 160), (40, 42, 46), (196, 176, 140)]


def parts(mask):
    """Labels of parts that hang together over edges, the largest first in the list of their sizes."""
    label = np.zeros(mask.shape, np.int32)
    sizes = []
    for y, x in zip(*np.nonzero(mask)):
        if label[y, x]:
            continue
        sizes.append(0)
        stack = [(y, x)]
        label[y, x] = len(sizes)
        while stack:
            a, b = stack.pop()
            sizes[-1] += 1
            for c, d in ((a + 1, b), (a - 1, b), (a, b + 1), (a, b - 1)):
                if 0 <= c < mask.shape[0] and 0 <= d < mask.shape[1] and mask[c, d] and not label[c, d]:
                    label[c, d] = len(sizes)
                    stack.append((c, d))
    return label, sizes


def elongated():
    """Pictures of one thing, solid and more than twice as long as wide, by the moments of its alpha."""
    for f in sorted(glob.glob(ROOT + "/**/*.png", recursive=True)):
        im = Image.open(f)
        if im.mode != "RGBA" or max(im.size) < 220 or "cartoon" in f or "mirror" in f:
            continue
        on = np.asarray(im)[..., 3] > 127
        if on.sum() < 1000:
            continue
        ys, xs = np.nonzero(on)
        ev = np.linalg.eigvalsh(np.cov(np.stack([xs, ys])))
        if ev[0] <= 0 or np.sqrt(ev[1] / ev[0]) < 2.2 or on.sum() < 0.75 * np.pi * 4 * np.sqrt(ev[0] * ev[1]):
            continue
        if max(parts(on)[1]) < 0.985 * on.sum():
            continue
        yield f, im


def edge_of(alpha):
    """Places where alpha passes one half, along rows and columns."""
    out = []
    for axis in (0, 1):
        p, q = (alpha[:-1], alpha[1:]) if axis == 0 else (alpha[:, :-1], alpha[:, 1:])
        y, x = np.nonzero((p > 0.5) != (q > 0.5))
        t = (0.5 - p[y, x]) / (q[y, x] - p[y, x])
        out.append(np.stack([x + 0.5, y + 0.5 + t], 1) if axis == 0 else np.stack([x + 0.5 + t, y + 0.5], 1))
    return np.concatenate(out)


def main():
    if not os.path.isdir(ROOT):
        sys.exit(f"No pictures in {ROOT}: scripts/install-packages photographs")
    rng = np.random.default_rng(4)
    rows, count = [], 0
    with tempfile.TemporaryDirectory() as folder:
        for f, im in elongated():
            count += 1
            k = LONG / max(im.size)
            px = np.asarray(im.resize((int(im.width * k), int(im.height * k)), Image.LANCZOS), float)
            alpha, rgb, pad = px[..., 3] / 255, px[..., :3], 220
            ground = np.array(max(GROUNDS, key=lambda g: np.linalg.norm(np.array(g) - rgb[alpha > 0.9].mean(0))), float)
            h, w = alpha.shape[0] + 2 * pad, alpha.shape[1] + 2 * pad
            whole = np.zeros((h, w))
            whole[pad:-pad, pad:-pad] = alpha
            page = np.ones((h, w, 3)) * ground
            page[pad:-pad, pad:-pad] += alpha[..., None] * (rgb - ground)
            page = page * (1 - 0.2 * np.linspace(0, 1, w)[None, :, None]) + rng.normal(0, 3, (h, w, 1))
            Image.fromarray(np.uint8(np.clip(page, 0, 255))).save(f"{folder}/p.png")
            ran = subprocess.run([CLI, "blank", "photo", f"{folder}/p.png", "--length", "100", "--outline", f"{folder}/o.csv",
                                  "--out", f"{folder}/j.nineleaves.json", "--json"], capture_output=True, text=True)
            name = os.path.relpath(f, ROOT)
            if not os.path.exists(f"{folder}/o.csv"):
                print(f"  {name}: refused, {json.loads(ran.stdout)['error']['code']}", flush=True)
                continue
            found = np.loadtxt(f"{folder}/o.csv", delimiter=",", skiprows=1)
            os.remove(f"{folder}/o.csv")
            d = np.array([np.sqrt(((found - p) ** 2).sum(1).min()) for p in edge_of(whole)[::7]]) * 100 / LONG
            rows.append((np.median(d), np.quantile(d, 0.95), d.max()))
            print(f"  {name}: median {rows[-1][0]:.2f} 95 % {rows[-1][1]:.2f} worst {rows[-1][2]:.2f}", flush=True)
    r = np.array(rows)
    print(f"| packaged photographs | {count} | {100 * len(r) / count:.0f} % found | half of the points within {np.median(r[:, 0]):.3f} | "
          f"95 % within 0.2 on {(r[:, 1] < 0.2).sum()} |", flush=True)


if __name__ == "__main__":
    main()
