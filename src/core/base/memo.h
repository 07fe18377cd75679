// Remembers the last results of a pure function whose arguments are shared immutable values.
//
// A key is the list of shared pointers the result was computed from, plus a value for plain arguments, which
// is compared whole.
// The memo HOLDS the pointers: an address alone could be freed and reused by another value, and the stale
// result would then be found for it. Least recently used entries beyond `capacity` are dropped; who asks for
// many at a time says so with makeRoomFor(), or the first ones are gone when they are asked for again. Safe
// from several threads; two threads that miss at once both compute, which is only wasted work.
//
//     Memo<Skin> skins(4);
//     auto skin = skins.get({blank}, {}, [&] { return std::make_shared<const Skin>(...); });
#pragma once

#include <algorithm>
#include <list>
#include <memory>
#include <mutex>
#include <vector>

namespace nine {

/// No plain arguments.
struct Nothing {
    bool operator==(const Nothing&) const = default;
};

template <typename Value, typename Plain = Nothing>
class Memo {
  public:
    using Held = std::shared_ptr<const void>;

    explicit Memo(std::size_t capacity) : capacity_(capacity) {}

    /// At least so many are remembered from now on.
    void makeRoomFor(std::size_t count) {
        const std::lock_guard lock(mutex_);
        capacity_ = std::max(capacity_, count);
    }

    /// The remembered value, or null.
    std::shared_ptr<const Value> find(const std::vector<Held>& keys, const Plain& plain) {
        const std::lock_guard lock(mutex_);
        const auto found = std::find_if(entries_.begin(), entries_.end(), [&](const Entry& entry) {
            return entry.keys == keys && entry.plain == plain;
        });
        if (found == entries_.end()) return nullptr;
        entries_.splice(entries_.begin(), entries_, found);
        return found->value;
    }

    /// The remembered value, or what `compute()` (returning shared_ptr<const Value>) gives. A null result
    /// is passed on and not remembered, so a failed or cancelled computation is tried again.
    template <typename Compute>
    std::shared_ptr<const Value> get(std::vector<Held> keys, Plain plain, Compute compute) {
        if (auto known = find(keys, plain)) return known;
        std::shared_ptr<const Value> value = compute();
        if (!value) return value;
        const std::lock_guard lock(mutex_);
        entries_.push_front({std::move(keys), std::move(plain), value});
        if (entries_.size() > capacity_) entries_.pop_back();
        return value;
    }

  private:
    struct Entry {
        std::vector<Held> keys;
        Plain plain;
        std::shared_ptr<const Value> value;
    };
    std::size_t capacity_;
    std::mutex mutex_;
    std::list<Entry> entries_;
};

}  // namespace nine
