#include "app/theme/theme.h"

#include <QFontDatabase>
#include <QRegularExpression>
#include <array>
#include <cmath>
#include <string_view>

namespace nine::app {
namespace {

Tokens lightTokens() {
    return {"#F6F4EE", "#ECE9E1", "#E2DED2", "#FBFAF6", "#1D2A25", "#5A665E", "#C9C5B8", "#DDD9CD",
            "#27714F", "#1C6E9C", "#8F5500", "#A3263B", "#F6F4EE", "#D9E4E2", false};
}

Tokens darkTokens() {
    return {"#171D1A", "#1F2723", "#29322D", "#29322D", "#E7EAE1", "#A0ACA3", "#414C46", "#2C3530",
            "#62BE95", "#74B7DE", "#E3A64A", "#F0808E", "#10160F", "#2E3A38", true};
}

Tokens& current() {
    static Tokens tokens = lightTokens();
    return tokens;
}

const std::array<const char*, 6>& stopsOf(Ramp ramp) {
    static const std::array<const char*, 6> stretch{"#F3EBCF", "#E6C98A", "#D39A55",
                                                    "#B0663F", "#7C3B37", "#43202B"};
    static const std::array<const char*, 6> film{"#F2EFE2", "#C9DAC4", "#8DBDB0",
                                                 "#4F93A0", "#2C6284", "#1D3258"};
    static const std::array<const char*, 6> lift{"#EEF1EA", "#CBD3DF", "#9DA9CC",
                                                 "#7A79AF", "#5C4B87", "#3A2455"};
    return ramp == Ramp::Stretch ? stretch : ramp == Ramp::Film ? film : lift;
}

}  // namespace

const Tokens& tokens() {
    return current();
}
void useDarkTheme(bool dark) {
    current() = dark ? darkTokens() : lightTokens();
}

void loadFonts() {
    for (const char* name : {"Regular", "Medium", "SemiBold", "Bold"}) {
        QFontDatabase::addApplicationFont(QString(":/fonts/Inter-%1.otf").arg(name));
    }
}

QFont inter(double pixels, int weight) {
    QFont f("Inter");
    f.setPixelSize(static_cast<int>(
        std::ceil(pixels)));  // whole pixels only; half sizes are rounded up to stay readable
    f.setWeight(static_cast<QFont::Weight>(weight));
    f.setStyleStrategy(QFont::PreferAntialias);
    f.setHintingPreference(QFont::PreferNoHinting);
    return f;
}

QColor materialColour(std::string_view material) {
    if (material == "tape") return "#EFD9A0";
    if (material == "film") return "#DDE9EE";
    if (material == "vinyl") return "#C9D7C6";
    return "#F7F3E6";
}

QColor inkOnSheet() {
    return "#1D2A25";
}

QColor rampColour(Ramp ramp, double t) {
    const auto& stops = stopsOf(ramp);
    const double at = std::clamp(t, 0.0, 1.0) * 5;
    const auto k = std::min<std::size_t>(static_cast<std::size_t>(at), 4);
    const double f = at - static_cast<double>(k);
    const QColor a(stops[k]), b(stops[k + 1]);
    const auto mix = [&](int from, int to) { return static_cast<int>(std::lround(from + f * (to - from))); };
    return QColor(mix(a.red(), b.red()), mix(a.green(), b.green()), mix(a.blue(), b.blue()));
}

QPalette themePalette() {
    const Tokens& t = tokens();
    QPalette p;
    for (const QPalette::ColorGroup group : {QPalette::Active, QPalette::Inactive, QPalette::Disabled}) {
        const QColor ink = group == QPalette::Disabled ? t.muted : t.ink;
        p.setColor(group, QPalette::Window, t.panel);
        p.setColor(group, QPalette::Button, t.panel);
        p.setColor(group, QPalette::Base, t.paper);
        p.setColor(group, QPalette::AlternateBase, t.panel);
        p.setColor(group, QPalette::ToolTipBase, t.panel);
        for (const QPalette::ColorRole role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText,
                                               QPalette::ToolTipText, QPalette::BrightText})
            p.setColor(group, role, ink);
        p.setColor(group, QPalette::PlaceholderText, t.muted);
        p.setColor(group, QPalette::Highlight, t.select);
        p.setColor(group, QPalette::HighlightedText, t.onAccent);
        p.setColor(group, QPalette::Link, t.select);
    }
    return p;
}

QString themeStyleSheet() {
    const Tokens& t = tokens();
    QString css = R"(
* { font-family: Inter; color: INK; }
QMainWindow, QDialog { background: PAPER; }
QToolTip { background: SHEET; color: INK; border: 1px solid LINE; padding: 4px; }
QMenu { background: SHEET; border: 1px solid LINE; padding: 4px; font-size: 12px; }
QMenu::item { padding: 5px 22px; border-radius: 4px; }
QMenu::item:selected { background: ACCENT; color: ONACC; }
QMenu::item:disabled { color: MUTED; }
QLineEdit { background: SHEET; border: 1px solid LINE; border-radius: 4px; padding: 4px 6px; font-size: 12px;
  selection-background-color: SELECT; }
QLineEdit:focus { border: 1px solid SELECT; }
QLineEdit#chip { background: SHEET; border: 1px solid LINE; border-bottom: 2px solid ACCENT; border-radius: 4px;
  padding: 0px 3px; font-weight: 600; font-size: 13px; selection-background-color: SELECT; }
QPushButton#word { background: SHEET; border: 1px solid LINE; border-bottom: 2px solid ACCENT; border-radius: 4px;
  padding: 1px 4px; font-weight: 600; color: INK; text-align: left; }
QPushButton#word:focus { border: 1px solid SELECT; border-bottom: 2px solid SELECT; }
QPushButton#word::menu-indicator { width: 0; }
QLineEdit#chip:focus { border: 1px solid SELECT; border-bottom: 2px solid SELECT; }
QLineEdit#chip[wrong="true"] { border: 1px solid FAULT; border-bottom: 2px solid FAULT; }
QPushButton#primary { background: ACCENT; color: ONACC; border: none; border-radius: 13px; padding: 5px 14px; font-size: 12px;
  font-weight: 600; min-height: 16px; }
QPushButton#primary:focus, QPushButton#second:focus { border: 2px solid SELECT; }
QPushButton#second { background: transparent; border: 1px solid INK; border-radius: 13px; padding: 4px 14px; font-size: 12px;
  font-weight: 500; min-height: 16px; }
QPushButton#second:disabled, QPushButton#primary:disabled { color: MUTED; border: 1px solid LINE; background: transparent; }
QPushButton#link { background: transparent; border: none; border-bottom: 1px solid ACCENT; padding: 1px 0px; font-size: 12px;
  font-weight: 600; text-align: left; }
QPushButton#link:focus { border-bottom: 2px solid SELECT; }
QScrollArea { border: none; background: transparent; }
QScrollBar:vertical { background: transparent; width: 8px; margin: 0px; }
QScrollBar::handle:vertical { background: LINE; border-radius: 3px; min-height: 24px; margin: 1px; }
QScrollBar::add-line:vertical, QScrollBar::sub-line:vertical { height: 0px; }
QScrollBar::add-page:vertical, QScrollBar::sub-page:vertical { background: transparent; }
QLabel { font-size: 12px; }
QTableWidget { background: SHEET; border: 1px solid LINE; border-radius: 4px; gridline-color: LINE; font-size: 12px;
  selection-background-color: SELECT; selection-color: ONACC; }
QTableWidget QLineEdit { background: SHEET; border: 1px solid SELECT; }
QHeaderView, QTableCornerButton::section { background: SHEET; border: none; }
QHeaderView::section { background: SHEET; color: MUTED; border: none; border-bottom: 1px solid LINE; padding: 4px 6px;
  font-size: 12px; }
)";
    for (const auto& [name, colour] : {std::pair{"PAPER", t.paper},
                                       {"SHEET", t.sheet},
                                       {"INK", t.ink},
                                       {"MUTED", t.muted},
                                       {"LINE", t.line},
                                       {"ACCENT", t.accent},
                                       {"SELECT", t.select},
                                       {"FAULT", t.fault},
                                       {"ONACC", t.onAccent}}) {
        css.replace(QRegularExpression(QString("\\b%1\\b").arg(name)), colour.name());
    }
    return css;
}

}  // namespace nine::app
