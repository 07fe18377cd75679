// The real window with the demo job, as all tests of it start.
#pragma once

#include <QApplication>
#include <QLineEdit>
#include <QMessageBox>
#include <QMouseEvent>
#include <QTest>
#include <QTimer>

#include "app/frame/main_window.h"
#include "app/leaves/blank/blank_leaf.h"
#include "app/leaves/blank/blank_page.h"
#include "app/leaves/cut/cut_leaf.h"
#include "app/leaves/masks/masks_leaf.h"
#include "app/leaves/pattern/pattern_leaf.h"
#include "app/leaves/pattern/pattern_page.h"
#include "app/leaves/spray/spray_leaf.h"
#include "app/pictures.h"
#include "app/sheet/units_text.h"
#include "tests/plain_job.h"
#include "tests/support.h"

namespace nine::app {

/// All windows start from one demo job and remember together what follows from it: solving it anew each time
/// would take most of the time of the tests.
inline const Job& theDemo() {
    static const Job job = test::need(test::plainJob());
    return job;
}
/// A third of what masks are solved with: windows are tested here, not figures.
constexpr int kTestVertices = 700;

inline std::shared_ptr<Derivations> theDerivations() {
    static const auto derived = std::make_shared<Derivations>(kTestVertices);
    return derived;
}

/// Answers the next file dialog with a path, then notes and closes whatever message follows.
struct DialogAnswer {
    explicit DialogAnswer(const QString& path) {
        QTimer::singleShot(300, &guard, [path] {
            QWidget* dialog = QApplication::activeModalWidget();
            if (!dialog) return;
            if (auto* name = dialog->findChild<QLineEdit*>("fileNameEdit")) name->setText(path);
            QTest::keyClick(dialog, Qt::Key_Return);
        });
        for (const int later : {900, 1500}) {
            QTimer::singleShot(later, &guard, [this] {
                if (auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget())) {
                    said += box->text();
                    box->accept();
                }
            });
        }
    }
    QString said;
    QObject guard;  ///< what was not needed any more does not come later
};

class WindowTest : public ::testing::Test {
  protected:
    void SetUp() override {
        useInches(false);
        window.show();
        (void)QTest::qWaitForWindowExposed(&window);
        window.activateWindow();
        window.document().open(theDemo(), {});
        ASSERT_TRUE(waitUntilSettled(window));
        blank = window.findChild<BlankPage*>();
        pattern = window.findChild<PatternPage*>();
    }
    void TearDown() override {
        window.document().history().setClean();  // no question on closing
    }

    std::string bytes() { return jobText(window.document().job()); }
    void drag(QWidget* on, const QPointF& from, const QPointF& by) {
        QTest::mousePress(on, Qt::LeftButton, {}, from.toPoint());
        for (int i = 1; i <= 5; ++i) {
            QMouseEvent move(QEvent::MouseMove, from + by * i / 5, on->mapToGlobal(from + by * i / 5),
                             Qt::NoButton, Qt::LeftButton, {});
            QApplication::sendEvent(on, &move);
        }
        QTest::mouseRelease(on, Qt::LeftButton, {}, (from + by).toPoint());
    }
    /// Elements and masks by their place in the demo.
    void selectElement(int place) {
        const auto& all = window.document().job().get<PatternChapter>().elements;
        if (static_cast<std::size_t>(place) < all.size())
            window.view().setElement(all[static_cast<std::size_t>(place)]->id);
    }
    void selectMask(int place) {
        window.view().setMask(maskSpecs(window.document().job())[static_cast<std::size_t>(place)]->id);
    }
    int elementInView() { return indexOfElement(window.document().job(), window.view().element()); }
    int maskInView() { return indexOfMask(window.document().job(), window.view().mask()); }
    const MaskResult& resultInView() {
        return window.results()
            .masks()
            .masks[static_cast<std::size_t>(indexIn(window.results().masks(), window.view().mask()))];
    }
    ValueChip* chipNow(const QString& name) {
        for (ValueChip* c : window.findChildren<ValueChip*>()) {
            if (c->accessibleName() == name && c->isVisible()) return c;
        }
        return nullptr;
    }
    /// Cards follow a moment later, on a busy machine a long one.
    ValueChip* chip(const QString& name) {
        (void)QTest::qWaitFor([&] { return chipNow(name) != nullptr; }, 10000);
        return chipNow(name);
    }
    void type(ValueChip* c, const QString& text) {
        c->setFocus();
        c->selectAll();
        QTest::keyClicks(c, text);
        QTest::keyClick(c, Qt::Key_Return);
    }

    test::TemporaryFolder state;
    MainWindow window{QString::fromStdString(state.path()), theDerivations()};
    BlankPage* blank = nullptr;
    PatternPage* pattern = nullptr;
};

}  // namespace nine::app
