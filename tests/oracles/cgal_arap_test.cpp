// Oracle: CGAL Surface_mesh_parameterization, ARAP. Both minimise the same energy, so strains must agree.
#include "tests/oracles/cgal_arap.h"
#include "mask/fit.h"
#include "tests/bodies.h"

namespace nine {
namespace {

TEST(CgalArap, StretchAgreesOnEverySample) {
    for (const char* name : test::kSamples) {
        const Skin skin = test::sampleSkin(name);
        PatchMesh patch = test::need(meshPatch(skin, BandPatch{20, 45, -6, 6}, 500, "patch"));
        // CGAL measures chords: take the arcs out of ours for the comparison.
        for (SurfacePoint& p : patch.mesh.vertices) p.normal = Vec3::UnitX();
        const RestMesh rest = restMesh(patch.mesh);
        const FlatMap ours = test::need(rigidMap(rest, test::need(conformalMap(rest))));
        std::optional<FlatMap> reference = test::cgalArap(patch.mesh);
        ASSERT_TRUE(reference) << name;
        const double a = summarize(rest, strainsOf(rest, ours)).max,
                     b = summarize(rest, strainsOf(rest, *reference)).max;
        EXPECT_NEAR(a, b, 2e-4) << name;
    }
}

}  // namespace
}  // namespace nine
