"""How well bodies come back from pictures of other hands: made-up bodies, drawn and photographed here by code that shares nothing
with the program, read by its command line, held against what was drawn. Prints a table; pictures that failed are kept.

    scripts/picture-study [COUNT] [SEED] [tracings|photos]...
"""
import json, os, subprocess, sys, tempfile
import numpy as np
from PIL import Image
import paper, photo, shapes

CLI = os.environ["NINE_LEAVES_CLI"]
KEEP = os.environ.get("PICTURE_STUDY_KEEP", "")


def cli(*words):
    ran = subprocess.run([CLI, *map(str, words), "--json"], capture_output=True, text=True)
    return json.loads(ran.stdout) if ran.stdout.strip() else {"error": {"code": "crash", "text": ran.stderr[-300:]}}


def outline_of(job, length, above):
    xs = [round(length * 0.5 * (1 - np.cos(np.pi * i / 160)), 4) for i in range(1, 160)]
    got = cli("blank", "measure", job, "--at", ",".join(map(str, xs)))
    s = got["sections"]
    x = np.array([p["x_mm"] for p in s])
    up = np.array([p["half_width_mm" if above else "top_mm"] for p in s])
    down = np.array([p["half_width_mm" if above else "bottom_mm"] for p in s])
    return x, np.concatenate([np.stack([x, up], 1), np.stack([x, -down], 1)])


def score(body, job, made, above_known):
    """rms and worst distance over the middle 96 %, side (and from above where that was seen)."""
    misses = []
    for above in ([False, True] if above_known else [False]):
        x, points = outline_of(job, made["length_mm"], above)
        keep = np.tile((x > 0.02 * made["length_mm"]) & (x < 0.98 * made["length_mm"]), 2)
        truth = body.outline(above)
        # Where the axis runs is no part of the shape: ends of a body are as round as they are.
        misses.append(shapes.miss(shapes.laid(points[keep], truth), truth))
    d = np.concatenate(misses)
    return float(np.sqrt((d * d).mean())), float(d.max())


def tracing(rng, folder, sheet):
    body = shapes.Body(rng)
    while body.up + body.down > 52 or body.side > 19:
        body = shapes.Body(rng)
    page = sheet.copy()
    frame = (np.array([297.0, 210.0]) - [250, 180]) / 2  # the frame stands in the middle of the paper

    def onto(line, at):
        p = np.asarray(line, float) + at  # mm of the frame, y up
        return np.stack([frame[0] + p[:, 0], 210 - frame[1] - p[:, 1]], 1)

    dark, width = rng.uniform(0.3, 0.75), rng.uniform(0.4, 0.8)
    place = np.array([rng.uniform(20, 225 - body.length), 143 + rng.uniform(-3, 3)])
    for above in (False, True):
        if above and rng.random() < 0.3:
            continue
        centre = np.array([place[0], 82]) if above else place
        line = body.outline(above)
        around = 2.2 * body.length
        gaps = [(g, g + rng.uniform(0.5, 2.4)) for g in rng.uniform(5, around, rng.integers(0, 3))]
        low = rng.uniform(0.3, 0.9)
        pale = [(g, g + rng.uniform(5, 16), rng.uniform(0.3, 0.5)) for g in rng.uniform(5, around, rng.integers(0, 3))]
        gill = 0
        if not above and rng.random() < 0.4:  # a gill line from edge to edge, and the hand lifted just beside it
            x0 = rng.uniform(0.18, 0.32) * body.length
            up, down = float(body.top(np.array([x0]))[0]), float(body.bottom(np.array([x0]))[0])
            a = np.linspace(-1, 1, 40)
            y = np.where(a > 0, a * up, a * down)
            paper.draw(page, onto(np.stack([x0 + 0.04 * body.length * (1 - a * a), y], 1), centre), rng, width, dark, (0.4, 0.9), 0.05, False)
            s = np.concatenate([[0], np.cumsum(np.linalg.norm(np.diff(line, axis=0), axis=1))])
            at = s[np.abs(line[:200, 0] - x0).argmin()] - rng.uniform(1.5, 4)
            gaps.append((at - rng.uniform(1.0, 2.6), at))
            gill = 1
        paper.draw(page, onto(line, centre), rng, width, dark, (low, 1.0), rng.uniform(0.02, 0.08), True, gaps, pale)
        if rng.random() < 0.3:  # gone over twice, in part
            k = len(line) // 3
            i = rng.integers(0, len(line) - k)
            paper.draw(page, onto(line[i:i + k] + rng.normal(0, 0.2, 2), centre), rng, width, dark, (0.4, 0.9), 0.05, False)
        if not above and not gill and rng.random() < 0.6:
            a = np.linspace(-1, 1, 30)
            x0 = 0.25 * body.length
            h = 0.75 * min(float(body.top(np.array([x0]))[0]), float(body.bottom(np.array([x0]))[0]))
            paper.draw(page, onto(np.stack([x0 + 0.05 * body.length * (1 - a * a), h * a], 1), centre), rng, width, dark, (0.4, 0.9), 0.05, False)
        if not above and rng.random() < 0.7:
            a = np.linspace(0, 2 * np.pi, 40)
            paper.draw(page, onto(np.stack([0.13 * body.length + 2.2 * np.cos(a), 0.15 * body.up + 2.2 * np.sin(a)], 1), centre), rng, width, dark, (0.5, 1), 0.03)
    kind = "scan" if rng.random() < 0.4 else "photo"
    picture = paper.seen(page, rng, kind)
    path = f"{folder}/t.jpg"
    Image.fromarray(np.uint8(picture * 255)).save(path, quality=int(rng.integers(70, 95)))
    made = cli("blank", "trace", path, "--out", f"{folder}/t.nineleaves.json", "--ruler_mm", 100)
    return body, path, f"{folder}/t.nineleaves.json", made, made.get("top_traced", False)


def photograph(rng, folder, _):
    body = shapes.Body(rng)
    picture, per, nose, tail = photo.render(body, rng)
    path = f"{folder}/p.jpg"
    Image.fromarray(np.uint8(picture * 255)).save(path, quality=int(rng.integers(75, 95)))
    made = cli("blank", "photo", path, "--length", round(body.length, 3), "--out", f"{folder}/p.nineleaves.json")
    return body, path, f"{folder}/p.nineleaves.json", made, False


def main():
    words = sys.argv[1:]
    count = int(words[0]) if words else 20
    seed = int(words[1]) if len(words) > 1 else 1
    kinds = words[2:] or ["tracings", "photos"]
    with tempfile.TemporaryDirectory() as folder:
        cli("blank", "sheet", "--out", f"{folder}/sheet.pdf")
        subprocess.run(["pdftoppm", "-r", "254", "-gray", "-singlefile", f"{folder}/sheet.pdf", f"{folder}/sheet"], check=True)
        sheet = np.asarray(Image.open(f"{folder}/sheet.pgm"), float) / 255
        for kind in kinds:
            rms, worst, refused, untold = [], [], [], []
            for i in range(count):
                rng = np.random.default_rng([seed, i, len(kind)])
                body, path, job, made, above = (tracing if kind == "tracings" else photograph)(rng, folder, sheet)
                name = f"{kind} {seed}/{i} {body.length:.0f} mm"
                if "error" in made:
                    refused.append(made["error"]["code"])
                    print(f"  {name}: refused, {made['error']['code']}: {made['error']['text'][:120]}", flush=True)
                    bad = True
                else:
                    r, w = score(body, job, made, above)
                    told = [x["code"] for x in made.get("warnings", [])]
                    rms.append(r)
                    worst.append(w)
                    bad = w > 0.5 or r > (0.12 if kind == "tracings" else 0.25)
                    if w > 0.5:
                        untold.append(told)
                    if bad:
                        print(f"  {name}: rms {r:.3f} worst {w:.2f} length {made['length_mm']:.2f} of {body.length:.2f} {told}", flush=True)
                if bad and KEEP:
                    os.makedirs(KEEP, exist_ok=True)
                    Image.open(path).save(f"{KEEP}/{kind}-{seed}-{i}.jpg", quality=90)
            q = lambda v, p: float(np.quantile(v, p)) if v else float("nan")
            print(f"| {kind} | {count} | {100 * len(rms) / count:.0f} % | {q(rms, .5):.3f} | {q(rms, .95):.3f} | {q(worst, .95):.2f} | {len(untold)} |", flush=True)


if __name__ == "__main__":
    main()
