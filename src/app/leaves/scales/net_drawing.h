// Pictures of a net that take too long to be painted in passing: its cells on the body, and a few of them
// from near.
#pragma once

#include <QImage>

#include "app/leaves/scales/scales_desk.h"

namespace nine::app {

/// Where a place of the body is in a picture: linear, as orthographic views are.
struct FlatView {
    QPointF origin, perX, perZ;
    QPointF at(const Vec3& p) const { return origin + p.x() * perX + p.z() * perZ; }
};

struct NetPictureWish {
    ScalesStudy study;
    FlatView view;  ///< in device pixels of the picture
    QSize size;     ///< device pixels
    double ratio = 1;
    double allowed_mm = 0.5;
    bool dark = false;
};
/// Cells by how much longer they are one way than the other, threads over them, what stands off too far in
/// red. About 25 ms.
QImage netPicture(const NetPictureWish& wish, const Task& task);

/// Where the ramp of stretch ends.
constexpr double kMostStretchShown = 1.8;

struct NearWish {
    Net net;
    Eigen::Matrix2d stretch = Eigen::Matrix2d::Identity();
    double gap_mm = 0, size_mm = 6;
    MistFrom from;
    bool doubled = false;
    NetShift second;
    int pixels = 200;
};
struct NearPicture {
    QImage image;
    double arrives = 0;
};
/// What is printed on the skin under the net, from near: light where paint arrives. About 20 ms.
NearPicture nearPicture(const NearWish& wish);

}  // namespace nine::app
