"""What a DXF file says, read by ezdxf: a line each of units, audit errors, fixes, layers, and x y of the middle and the
area of every closed polyline on layer CUT."""
import sys

import ezdxf

document = ezdxf.readfile(sys.argv[1])
auditor = document.audit()
print("version", document.dxfversion)
print("units", document.header["$INSUNITS"])
print("errors", len(auditor.errors), *[e.message.replace(" ", "_") for e in auditor.errors])
print("fixes", len(auditor.fixes), *[e.message.replace(" ", "_") for e in auditor.fixes])
print("extents", *document.header["$EXTMAX"][:2])
# ezdxf adds Defpoints by itself.
print("layers", *sorted(layer.dxf.name for layer in document.layers if layer.dxf.name != "Defpoints"))
for polyline in document.modelspace().query("LWPOLYLINE[layer=='CUT']"):
    assert polyline.closed
    points = [(x, y) for x, y, *_ in polyline.get_points("xy")]
    twice = mx = my = 0.0
    for (ax, ay), (bx, by) in zip(points, points[1:] + points[:1]):
        cross = ax * by - bx * ay
        twice += cross
        mx += cross * (ax + bx)
        my += cross * (ay + by)
    print("cut", mx / (3 * twice), my / (3 * twice), abs(twice) / 2)
