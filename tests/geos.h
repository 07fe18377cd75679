// Oracle for areas of the plane: the GEOS library (GEOSUnion, GEOSDifference, GEOSIntersection, GEOSBuffer,
// GEOSHausdorffDistance).
#pragma once

#ifdef NINE_HAVE_GEOS
#include <geos_c.h>
#include <gtest/gtest.h>

#include "geom/polygon_set.h"

namespace nine::test {

class Geos : public ::testing::Test {
  protected:
    Geos() : context_(GEOS_init_r()) {}
    ~Geos() override { GEOS_finish_r(context_); }
    /// The caller's, as all that the library hands out.
    GEOSGeometry* polygon(const Polygon2& p) {
        GEOSCoordSequence* points = GEOSCoordSeq_create_r(context_, static_cast<unsigned>(p.size() + 1), 2);
        for (std::size_t i = 0; i <= p.size(); ++i) {
            GEOSCoordSeq_setXY_r(context_, points, static_cast<unsigned>(i), p[i % p.size()].x(),
                                 p[i % p.size()].y());
        }
        return GEOSGeom_createPolygon_r(context_, GEOSGeom_createLinearRing_r(context_, points), nullptr, 0);
    }
    double areaOf(GEOSGeometry* g) {
        double a = 0;
        GEOSArea_r(context_, g, &a);
        GEOSGeom_destroy_r(context_, g);
        return a;
    }
    double hausdorff(const GEOSGeometry* a, const GEOSGeometry* b) {
        double d = 0;
        GEOSHausdorffDistance_r(context_, a, b, &d);
        return d;
    }
    GEOSContextHandle_t context_;
};

}  // namespace nine::test
#endif
