// What is written on the window: inside its place, not over other words, with everything sent through the
// translator.
#include <QAbstractButton>
#include <QFile>
#include <QLabel>
#include <QRegularExpression>
#include <QSet>
#include <QTranslator>
#include <QXmlStreamReader>

#include "app/leaves/masks/masks_page.h"
#include "app/sheet/ink.h"
#include "job/blank_library.h"
#include "tests/app/window_fixture.h"
#include "tests/here.h"

namespace nine::app {
namespace {

constexpr std::array kBuilt{BlankNumber, PatternNumber, ScalesNumber, LayersNumber, MasksNumber,
                            CutNumber,   SprayNumber,   BenchNumber,  LogNumber};

struct Written {
    const QPaintDevice* on;
    QRectF device;  ///< the whole drawing
    QString words;
    QRectF box;
};

/// Everything drawn on the pages while the window is painted once.
std::vector<Written> writtenOn(MainWindow& window) {
    std::vector<Written> all;
    ink::setWitness([&](const QPainter& p, const QString& words, const QRectF& box) {
        const auto* widget = dynamic_cast<const QWidget*>(p.device());
        all.push_back({p.device(), widget ? QRectF(widget->rect()) : QRectF(), words, box});
    });
    for (QWidget* w : window.findChildren<QWidget*>()) {
        if (w->isVisible()) w->repaint();
    }
    ink::setWitness({});
    return all;
}

/// Cards are filled, then laid out, a moment after what they tell.
bool labelsAreLaidOut(const MainWindow& window) {
    const auto labels = window.findChildren<QLabel*>();
    return std::none_of(labels.begin(), labels.end(), [](const QLabel* l) {
        return l->isVisible() && l->wordWrap() && l->height() + 1 < l->heightForWidth(l->width());
    });
}

void expectReadable(MainWindow& window, const std::string& where) {
    (void)QTest::qWaitFor([&] { return labelsAreLaidOut(window); }, 2000);
    const std::vector<Written> all = writtenOn(window);
    EXPECT_GT(all.size(), 20u) << where;
    for (std::size_t i = 0; i < all.size(); ++i) {
        const Written& a = all[i];
        if (a.device.isNull()) continue;
        EXPECT_TRUE(a.device.adjusted(-1, -1, 1, 1).contains(a.box))
            << where << ": \"" << a.words.toStdString() << "\" is cut off";
        for (std::size_t j = i + 1; j < all.size(); ++j) {
            const Written& b = all[j];
            if (a.on != b.on || (a.words == b.words && a.box == b.box)) continue;  // painted twice
            const QRectF shared = a.box & b.box;
            EXPECT_FALSE(shared.width() > 2 && shared.height() > 2)
                << where << ": \"" << a.words.toStdString() << "\" lies over \"" << b.words.toStdString()
                << '"';
        }
    }
    for (const QLabel* label : window.findChildren<QLabel*>()) {
        if (!label->isVisible() || label->text().startsWith('<')) continue;
        const int need =
            label->wordWrap() ? label->heightForWidth(label->width()) : label->sizeHint().height();
        EXPECT_GE(label->height() + 1, need) << where << ": " << label->text().toStdString();
        if (!label->wordWrap()) {
            EXPECT_GE(label->width() + 1, label->sizeHint().width())
                << where << ": " << label->text().toStdString();
        }
    }
    for (const QAbstractButton* button : window.findChildren<QAbstractButton*>()) {
        if (!button->isVisible()) continue;
        EXPECT_GE(button->width() + 1, button->sizeHint().width())
            << where << ": " << button->text().toStdString();
    }
}

using TextTest = WindowTest;

TEST_F(TextTest, NothingIsCutOffOrLiesOverSomethingElse) {
    for (const bool inch : {false, true}) {
        useInches(inch);
        for (const QSize& size : {QSize(1024, 700), QSize(1280, 800), QSize(1920, 1080)}) {
            if (inch && size.width() > 1024) continue;  // other digits, where there is least room
            window.resize(size);
            for (const int leaf : kBuilt) {
                for (const Sides sides : {Sides::Left, Sides::Both, Sides::Right}) {
                    window.showLeaf(leaf);
                    window.view().setSides(sides);
                    window.view().refresh();
                    ASSERT_TRUE(waitUntilSettled(window));
                    expectReadable(window, std::to_string(size.width()) + " leaf " +
                                               std::to_string(leaf + 1) + " sides " +
                                               std::to_string(static_cast<int>(sides)) +
                                               (inch ? " inch" : ""));
                }
            }
        }
    }
    useInches(false);
}

TEST_F(TextTest, LongNamesFindRoom) {
    Job job = window.document().job();
    Element e = *job.get<PatternChapter>().elements[1];
    e.name = "Extraordinarily long-winded red dots along the middle of the side, with halo";
    job = withElement(job, 1, e);
    BlankChapter blankChapter = job.get<BlankChapter>();
    blankChapter.name = "The crankbait that was carved from lime wood on a very long winter evening";
    job = job.with(blankChapter);
    window.document().open(job, {});
    selectElement(1);
    window.resize(1024, 700);
    for (const int leaf : kBuilt) {
        window.showLeaf(leaf);
        ASSERT_TRUE(waitUntilSettled(window));
        expectReadable(window, "leaf " + std::to_string(leaf + 1));
    }
}

/// Every text of the translators' list two fifths longer, with accents, in brackets; placeholders, keys and
/// markup stay. It has no answer for anything else: a text that is not in the list stays English.
class PseudoLocale : public QTranslator {
  public:
    PseudoLocale() {
        QFile file(QString::fromStdString(nine::wordsFile()));
        EXPECT_TRUE(file.open(QIODevice::ReadOnly));
        QXmlStreamReader xml(&file);
        QString context;
        while (xml.readNextStartElement() || !xml.atEnd()) {
            if (!xml.isStartElement()) continue;
            if (xml.name() == QLatin1String("name")) context = xml.readElementText();
            if (xml.name() == QLatin1String("source")) known_.insert({context, xml.readElementText()});
        }
    }
    QString translate(const char* context, const char* source, const char*, int) const override {
        QString text = QString::fromUtf8(source);
        if (!known_.contains({QString::fromUtf8(context), text})) return {};
        if (text.startsWith('<')) return text + "<i>[pseudo]</i>";
        QString out = "[";
        bool key = false;
        for (const QChar c : text) {
            key = c == '{' || (key && c != '}');
            out += key ? c : accented(c);
        }
        return out + QString(static_cast<int>(0.4 * static_cast<double>(text.size())), QChar('~')) + "]";
    }
    bool isEmpty() const override { return false; }
    qsizetype size() const { return known_.size(); }

  private:
    static QChar accented(QChar c) {
        return c == 'a' ? QChar(0x00e5) : c == 'e' ? QChar(0x00e9) : c == 'o' ? QChar(0x00f6) : c;
    }
    QSet<std::pair<QString, QString>> known_;
};

/// With a language that is longer than English everything still works, and nothing is left in English.
TEST(PseudoLocale, EverythingIsTranslatedAndStillWorks) {
    PseudoLocale translator;
    ASSERT_GT(translator.size(), 1000);
    QCoreApplication::installTranslator(&translator);
    {
        const test::TemporaryFolder state;
        MainWindow window(QString::fromStdString(state.path()), theDerivations());
        window.show();
        (void)QTest::qWaitForWindowExposed(&window);
        window.document().open(theDemo(), {});
        ASSERT_TRUE(waitUntilSettled(window));
        const QRegularExpression word("[A-Za-z]{4,}");
        // Names of the demo; those of the library's blanks are on the window once it has been read.
        QStringList data{"Brook char",  "Parr bars", "Red dots", "Pale spots", "Inter",
                         "Nine Leaves", "Back",      "Sides",    "Belly"};
        for (const BlankChapter& blank : demoBlanks()) data += QString::fromStdString(blank.name);
        const auto expectTranslated = [&](QString text, const std::string& where) {
            for (const QString& own : data) {
                text.remove(own, Qt::CaseInsensitive);
                if (text.size() > 4 && text.endsWith(u'\u2026') && own.startsWith(text.chopped(1))) return;
            }
            // What came through the translator, with what it holds, from the inside out.
            static const QRegularExpression innermost("\\[[^\\[\\]]*(\\]|\u2026$)"), markup("<[^>]*>");
            while (innermost.match(text).hasMatch()) text.remove(innermost);
            text.remove(markup);
            EXPECT_FALSE(word.match(text).hasMatch()) << where << ": " << text.toStdString();
        };
        for (const QSize& size : {QSize(1024, 700), QSize(1280, 800)}) {
            window.resize(size);
            for (const int leaf : kBuilt) {
                const std::string where = "leaf " + std::to_string(leaf + 1);
                window.showLeaf(leaf);
                ASSERT_TRUE(waitUntilSettled(window));
                int translated = 0;
                for (const Written& w : writtenOn(window)) {
                    expectTranslated(w.words, where);
                    translated += w.words.contains('[') ? 1 : 0;
                }
                EXPECT_GT(translated, 10) << where;
                for (const QLabel* label : window.findChildren<QLabel*>()) {
                    if (!label->isVisible() || qobject_cast<const Sentence*>(label->parentWidget())) continue;
                    expectTranslated(label->text(), where);
                }
                for (const QAbstractButton* button : window.findChildren<QAbstractButton*>()) {
                    if (button->isVisible()) expectTranslated(button->text(), where);
                }
            }
        }
        window.document().history().setClean();
    }
    QCoreApplication::removeTranslator(&translator);
}

}  // namespace
}  // namespace nine::app
