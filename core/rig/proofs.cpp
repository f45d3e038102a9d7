#include "rig/proofs.h"

#include "base/json.h"

namespace rigging {
namespace {

/// In a file an object: place, value.
class FactsKind : public TypeInfo {
  static constexpr std::size_t most_places = 5000;

 public:
  void read(const Json& json, const std::string& where, Span, std::optional<Error>& error, void* value) const override {
    auto& facts = *static_cast<Dependencies*>(value);
    facts.clear();
    if (!json.is_object()) error = Error{where, "is no object", "places of the rig with their values"};
    if (json.size() > most_places)
      error = Error{where, "has " + std::to_string(json.size()) + " members", "at most " + std::to_string(most_places)};
    if (error) return;
    for (const auto& [place, fact] : json.items()) {
      if (fact.is_null())
        facts[place] = {};
      else if (fact.is_boolean())
        facts[place] = fact.get<bool>();
      else if (fact.is_number())
        facts[place] = fact.get<double>();
      else if (fact.is_string())
        facts[place] = fact.get<std::string>();
      else if (!error)
        error = Error{where + "/" + place, "is no single value", "true, false, a number, text or null"};
    }
  }
  OrderedJson write(const void* value) const override {
    OrderedJson json = OrderedJson::object();
    for (const auto& [place, fact] : *static_cast<const Dependencies*>(value))
      std::visit(
          [&, &at = place](const auto& v) {
            if constexpr (std::is_same_v<std::decay_t<decltype(v)>, std::monostate>)
              add_member(json, at, nullptr);
            else
              add_member(json, at, v);
          },
          fact);
    return json;
  }
  OrderedJson schema(Span) const override {
    return {{"type", "object"}, {"additionalProperties", {{"type", {"boolean", "number", "string", "null"}}}}};
  }
  bool equal(const void* a, const void* b) const override {
    return *static_cast<const Dependencies*>(a) == *static_cast<const Dependencies*>(b);
  }
};

}  // namespace

const TypeInfo& TypeOf<Dependencies>::get() {
  static const FactsKind kind;
  return kind;
}

template <>
const Members& Described<CheckId>::members() {
  static const Members all =
      Describe<CheckId>().needed("family", &CheckId::family).member("subject", &CheckId::subject).done();
  return all;
}

template <>
const Members& Described<Proof>::members() {
  static const Members all = Describe<Proof>()
                                 .needed("check", &Proof::check)
                                 .needed("at", &Proof::at)
                                 .member("depends_on", &Proof::depends_on)
                                 .member("provisional", &Proof::provisional)
                                 .member("simulated", &Proof::simulated)
                                 .member("note", &Proof::note)
                                 .member("fingerprint", &Proof::fingerprint)
                                 .member("words", &Proof::words)
                                 .rest(&Proof::unknown_members);
  return all;
}

template <>
const Members& Described<LooseEnd>::members() {
  static const Members all = Describe<LooseEnd>()
                                 .needed("id", &LooseEnd::id)
                                 .needed("text", &LooseEnd::text)
                                 .member("since", &LooseEnd::since)
                                 .rest(&LooseEnd::unknown_members);
  return all;
}

template <>
const Members& Described<LogEntry>::members() {
  static const Members all =
      Describe<LogEntry>().needed("at", &LogEntry::at).needed("text", &LogEntry::text).rest(&LogEntry::unknown_members);
  return all;
}

}  // namespace rigging
