#include "rig/proofs.h"

#include "base/described.h"

namespace rigging {

template <>
const Members& Described<Proof>::members() {
  static const Members all = Describe<Proof>()
                                 .needed("check", &Proof::check)
                                 .needed("at", &Proof::at)
                                 .needed("fingerprint", &Proof::fingerprint)
                                 .member("depends_on", &Proof::depends_on)
                                 .member("provisional", &Proof::provisional)
                                 .member("simulated", &Proof::simulated)
                                 .member("note", &Proof::note)
                                 .rest(&Proof::extra);
  return all;
}

template <>
const Members& Described<LooseEnd>::members() {
  static const Members all = Describe<LooseEnd>()
                                 .needed("id", &LooseEnd::id)
                                 .needed("text", &LooseEnd::text)
                                 .member("since", &LooseEnd::since)
                                 .rest(&LooseEnd::extra);
  return all;
}

template <>
const Members& Described<LogEntry>::members() {
  static const Members all =
      Describe<LogEntry>().needed("at", &LogEntry::at).needed("text", &LogEntry::text).rest(&LogEntry::extra);
  return all;
}

}  // namespace rigging
