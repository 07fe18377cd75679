// What is looked at and selected: never part of the job, one for all views.
#pragma once

#include <QObject>

#include "blank/skin.h"

namespace nine::app {

enum class Sides { Left, Both, Right };

class ViewState : public QObject {
    Q_OBJECT
  public:
    using QObject::QObject;

    Sides sides() const { return sides_; }
    /// The side drawn where only one can be.
    Side side() const { return sides_ == Sides::Right ? Side::Right : Side::Left; }
    int station() const { return station_; }
    int element() const { return element_; }
    int mask() const { return mask_; }
    /// Of the sheet that the body is judged for by itself, before any mask.
    const std::string& material() const { return material_; }

    void setSides(Sides sides) { set(sides_, sides); }
    void setStation(int index) { set(station_, index); }
    void setElement(int index) { set(element_, index); }
    void setMask(int index) { set(mask_, index); }
    void setMaterial(const std::string& id) { set(material_, id); }
    /// Units or theme have changed: everything is drawn again.
    void refresh() { emit changed(); }

  signals:
    void changed();

  private:
    template <typename T>
    void set(T& member, T value) {
        if (member == value) return;
        member = value;
        emit changed();
    }
    Sides sides_ = Sides::Left;
    std::string material_ = "tape";
    int station_ = 4, element_ = 0, mask_ = 0;
};

}  // namespace nine::app
