#include <iostream>
#include <memory>

#include "ask/ask.h"
#include "ask/knowledge.h"
#include "base/data_folder.h"
#include "command.h"
#include "opened.h"
#include "review/deferred.h"
#include "rig/differing.h"
#include "rig/rig_file.h"

namespace rigging::cli {
namespace {

const char* kind_of(const Interpretation& a) {
  return a.edit ? "deed" : a.view != AskedView::none ? "view" : a.leads ? "place" : "answer";
}

/// Writes what an edit made, and says what it is.
void carry_out(const Opened& o, const Edit& edit, const std::string& into, Session& session) {
  if (!into.empty())
    if (const auto ok = save_rig(edit.rig, into); !ok) return session.refuse(ok.error());
  if (session.json)
    session.print({{"label", edit.label}, {"differing", differing_members(o.rig, edit.rig)}});
  else
    std::cout << edit.label << '\n';
}

void ask(const Opened& o, const std::string& sentence, const std::string& into, Session& session) {
  const Review checked = review(o.rig, o.catalogue);
  Progress progress;
  const auto late = deferred_review(checked.reports, progress);
  const std::vector<Term> terms = terms_beside(data_folder());
  const Knowledge knowledge(topics_beside(data_folder()));
  const std::vector<Passage> manual = passages_beside(data_folder());
  const std::vector<Interpretation> meant =
      answers({o.rig, o.catalogue, checked, late ? &*late : nullptr, &terms, &manual, &knowledge}, sentence);
  if (!into.empty() && !meant.empty()) {
    if (!meant.front().edit)
      return session.refuse({"ask --into", "\"" + meant.front().text + "\" changes nothing", "a deed to write"});
    if (const auto ok = save_rig(meant.front().edit->rig, into); !ok) return session.refuse(ok.error());
  }
  session.status = meant.empty() ? found_wrong : good;
  if (session.json) {
    Json json{{"meant", Json::array()}};
    for (const Interpretation& a : meant)
      json["meant"].push_back({{"kind", kind_of(a)},
                               {"words", a.text},
                               {"station", a.station ? Json(name_of(*a.station)) : Json()},
                               {"subject", a.subject.empty() ? Json() : Json(a.subject)}});
    return session.print(json);
  }
  if (meant.empty()) std::cout << "Not understood.\n";
  for (const Interpretation& a : meant)
    std::cout << a.text << (a.station ? " (station " + std::string(name_of(*a.station)) + ")" : "") << '\n';
}

void fix(const Opened& o, const std::string& code, const std::string& subject, const std::string& into,
         Session& session) {
  const Review checked = review(o.rig, o.catalogue);
  Progress progress;
  const auto late = deferred_review(checked.reports, progress);
  const std::vector<Snag> snags = with_deferred(checked.snags, late ? late->snags : std::vector<Snag>());
  std::string of_code, fixable;
  for (const Snag& s : snags) {
    if (s.fix) fixable += (fixable.empty() ? "" : ", ") + s.code + " " + s.subject;
    if (s.code != code) continue;
    of_code += (of_code.empty() ? "" : ", ") + s.subject;
    if (!s.fix || (!subject.empty() && s.subject != subject)) continue;
    const auto edit = s.fix->edit(o.rig, o.catalogue);
    if (!edit) return session.refuse(edit.error());
    return carry_out(o, {edit->rig, s.fix->label}, into, session);
  }
  const std::string expected = fixable.empty() ? "nothing: no snag of this rig has a fix" : "one of " + fixable;
  if (of_code.empty()) return session.refuse({"fix", "this rig has no snag " + code, expected});
  if (!subject.empty() && (", " + of_code + ",").find(", " + subject + ",") == std::string::npos)
    return session.refuse({"fix " + code, "is not about \"" + subject + "\"", of_code});
  session.refuse({"fix " + code, "has no fix without a choice", expected});
}

}  // namespace

void add_ask_commands(CLI::App& app, Session& session) {
  struct Asked {
    std::string sentence, code, subject, into;
  };
  auto asked = std::make_shared<Asked>();
  const char* into = "Rig file to write; without it nothing is written";
  auto* asking = add_rig_command(app, session, "ask", "What a sentence means, as the ask box of the window has it",
                                 [&session, asked](const Opened& o) { ask(o, asked->sentence, asked->into, session); });
  asking->add_option("SENTENCE", asked->sentence, "In your own words")->required();
  asking->add_option("--into", asked->into, into)->check(a_name());
  auto* fixing = add_rig_command(
      app, session, "fix", "Carry out the fix of a snag",
      [&session, asked](const Opened& o) { fix(o, asked->code, asked->subject, asked->into, session); });
  fixing->add_option("CODE", asked->code, "Of the snag, as `check` lists it")->required();
  fixing->add_option("--subject", asked->subject, "Which of several of this code");
  fixing->add_option("--into", asked->into, into)->check(a_name());
}

}  // namespace rigging::cli
