// What is looked at and selected: never part of the job, one for all views.
#pragma once

#include <QObject>
#include <memory>
#include <set>

#include "blank/skin.h"
#include "geom/rasteriser.h"

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
    /// Ids of what is selected; empty, or of something that is not in the job, when nothing is.
    const std::string& element() const { return element_; }
    const std::string& mask() const { return mask_; }
    /// Of the recipe.
    const std::string& step() const { return step_; }
    /// The skin as the recipe leaves it, for drawings that show it instead of the pattern's own colours; null
    /// for these.
    const std::shared_ptr<const Image>& paintedSkin() const { return paintedSkin_; }
    /// Elements selected besides that one.
    const std::set<std::string>& alsoSelected() const { return also_; }
    bool isSelected(const std::string& element) const {
        return element == element_ || also_.count(element) > 0;
    }
    /// Elements that are not shown for now.
    const std::set<std::string>& hidden() const { return hidden_; }
    /// Of the sheet that the body is judged for by itself, before any mask.
    const std::string& material() const { return material_; }

    /// The landmark or zone ("zone:ID") in hand; empty when it is a station.
    const std::string& landmark() const { return landmark_; }
    /// What the pointer does on the Blank leaf.
    enum class BlankTool { Stations, Measure, Zone };
    BlankTool blankTool() const { return blankTool_; }
    /// Whether the picture the body was read from lies under its drawing; whether the body wears the map of
    /// how hard it is to wrap, and for a sheet of what size.
    bool pictureUnder() const { return pictureUnder_; }
    bool wrapMap() const { return wrapMap_; }
    double sheetAlong_mm() const { return sheetAlong_; }
    double sheetAcross_mm() const { return sheetAcross_; }

    void setLandmark(const std::string& name) { set(landmark_, name); }
    void setBlankTool(BlankTool tool) { set(blankTool_, tool); }
    void setPictureUnder(bool on) { set(pictureUnder_, on); }
    void setWrapMap(bool on) { set(wrapMap_, on); }
    void setSheetAlong(double mm) { set(sheetAlong_, mm); }
    void setSheetAcross(double mm) { set(sheetAcross_, mm); }

    void setSides(Sides sides) { set(sides_, sides); }
    void setStation(int index) { set(station_, index); }
    void setElement(const std::string& id) {
        const bool others = !also_.empty();
        also_.clear();
        if (element_ == id && others) emit changed();
        set(element_, id);
    }
    /// Takes one more into the selection, or out of it.
    void toggleElement(const std::string& id) {
        if (element_.empty() || id == element_) return setElement(id == element_ ? std::string() : id);
        if (!also_.erase(id)) {
            also_.insert(element_);
            also_.erase(id);
            element_ = id;
        }
        emit changed();
    }
    void setHidden(std::set<std::string> ids) { set(hidden_, std::move(ids)); }
    void setMask(const std::string& id) { set(mask_, id); }
    void setStep(const std::string& id) { set(step_, id); }
    void setPaintedSkin(std::shared_ptr<const Image> skin) { set(paintedSkin_, std::move(skin)); }
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
    std::set<std::string> also_, hidden_;
    std::shared_ptr<const Image> paintedSkin_;
    std::string element_, mask_, step_, material_ = "tape", landmark_;
    BlankTool blankTool_ = BlankTool::Stations;
    bool pictureUnder_ = true, wrapMap_ = false;
    double sheetAlong_ = 20, sheetAcross_ = 14;
    int station_ = 4;
};

}  // namespace nine::app
