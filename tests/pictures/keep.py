"""Keeps a picture of the study, at half its size, with the outline that was drawn: one that was read wrong once stays a test.

    /usr/bin/python3 tests/pictures/keep.py NAME SEED INDEX
"""
import pathlib, sys
import numpy as np
from PIL import Image
import photo, shapes

name, seed, index = sys.argv[1], int(sys.argv[2]), int(sys.argv[3])
folder = pathlib.Path(__file__).resolve().parent / "kept"
folder.mkdir(exist_ok=True)
rng = np.random.default_rng([seed, index, len("photos")])  # as the study numbers them
body = shapes.Body(rng)
picture, per, nose, tail = photo.render(body, rng)
image = Image.fromarray(np.uint8(picture * 255))
image.resize((image.width // 2, image.height // 2), Image.BOX).save(folder / f"{name}.jpg", quality=90, subsampling=0)
nose, tail = np.array(nose), np.array(tail)
along = (tail - nose) / np.linalg.norm(tail - nose)
up = np.array([along[1], -along[0]])
line = body.outline()
pixels = (nose + np.outer(line[:, 0] * per, along) + np.outer(line[:, 1] * per, up)) / 2
rows = [f"# {per / 2:.4f} pixels a millimetre", "x_px,y_px"] + [f"{x:.2f},{y:.2f}" for x, y in pixels]
(folder / f"{name}.csv").write_text("\n".join(rows) + "\n")
