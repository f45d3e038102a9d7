#include "ask/what_if.h"

#include <algorithm>

#include "ask/deeds.h"
#include "base/job.h"
#include "base/number.h"

namespace rigging {
namespace {

/// What is left of the sentence when it is said as a deed; empty where it asks for none.
std::string as_deed(const std::string& text) {
  for (const std::string_view lead :
       {"what happens when i ", "what happens if i ", "what would happen if i ", "what if i ", "can i ", "could i ",
        "may i ", "should i ", "is it ok to ", "what does it do if i "})
    if (text.starts_with(lead)) {
      std::string rest = text.substr(lead.size());
      while (!rest.empty() && (rest.back() == '?' || rest.back() == ' ')) rest.pop_back();
      for (const std::string_view out : {"leave out ", "do without ", "omit ", "fly without "})
        if (rest.starts_with(out)) rest = "remove " + rest.substr(out.size());
      return rest;
    }
  return {};
}

std::string counted(const std::vector<Snag>& all, const char* what) {
  if (all.empty()) return {};
  return std::to_string(all.size()) + (all.size() == 1 ? " snag " : " snags ") + what + ": " + all.front().what +
         (all.size() > 1 ? "; and " + std::to_string(all.size() - 1) + " more" : "");
}

}  // namespace

void find_what_if(const AskedOf& of, const Sentence& in, Found& found) {
  const std::string deed = as_deed(in.text);
  if (deed.empty()) return;
  Found tried;
  find_deeds(of, Sentence(deed), tried);
  const Interpretation* best = nullptr;
  for (const Interpretation& a : tried.all)
    if (!best || a.fit > best->fit) best = &a;
  if (!best) return;
  if (!best->edit) return found.answer(4.2, best->text, best->station, best->subject);
  const Review then = review_after(best->edit->rig, of.review);
  // What is worked out later belongs to it: without its satellite receiver it does not come home.
  std::vector<Snag> now = of.review.snags, after = then.snags;
  if (of.deferred) {
    Progress progress;
    now = with_deferred(std::move(now), of.deferred->snags);
    if (const auto late = deferred_review(then.reports, progress)) after = with_deferred(std::move(after), late->snags);
  }
  const auto comes = only_in(after, now), goes = only_in(now, after);
  std::string text = "Tried on a copy: " + best->text + ". ";
  text += comes.empty() && goes.empty()
              ? "No snag comes or goes with it"
              : counted(comes, "more") + (comes.empty() || goes.empty() ? "" : ". ") + counted(goes, "less");
  std::size_t stale = 0;
  for (const CheckStatus& c : of.review.checks)
    if (const CheckStatus* tried_on = find_check(then.checks, c.id); tried_on && c.stands() && !tried_on->stands())
      ++stale;
  if (stale > 0) text += ". It makes " + std::to_string(stale) + (stale == 1 ? " proof" : " proofs") + " stale";
  found.answer(4.2, text, best->station, best->subject);
}

}  // namespace rigging
