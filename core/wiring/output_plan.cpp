#include "wiring/output_plan.h"

#include <algorithm>
#include <cmath>
#include <functional>

#include "base/number.h"

namespace rigging {
namespace {

using namespace plan_cost;
constexpr double most_ways = 5000;

/// What a timer group may carry. Motors and servos of one rate are kept apart if the groups allow it.
struct Label {
  double rate_hz;
  std::optional<bool> motor;  ///< empty: either
  bool takes(const Output& o) const { return o.rate_hz == rate_hz && (!motor || *motor == drives_motor(o)); }
  bool operator==(const Label&) const = default;
};

class OutputPlanner {
 public:
  OutputPlanner(Plan& plan, const ControllerClass& controller) : plan_(plan), controller_(controller) {
    for (Output& o : plan.rig.outputs) {
      const MotorPath motor = controller.surfaces.motor;
      const bool by_hand = motor == MotorPath::either && o.fixed && o.socket.empty();
      if (drives_motor(o) && (motor == MotorPath::receiver || by_hand)) {
        if (!o.socket.empty() || by_hand)
          plan.choices.push_back(
              {o.id, "", "the receiver",
               by_hand ? "kept on the receiver by hand" : "the throttle lead stays on the receiver with this class",
               !by_hand});
        o.socket.clear();
      } else {
        outputs_.push_back(&o);
      }
    }
    std::map<int, int> capacity;
    for (const Terminal& t : controller.outputs) ++capacity[t.timer_group];
    for (const auto& [group, count] : capacity) groups_.push_back({group, count});
  }

  void run() {
    std::vector<Label> apart, together;
    for (const Output* o : outputs_) {
      const Label own{o->rate_hz, drives_motor(*o)}, any{o->rate_hz, std::nullopt};
      if (std::find(apart.begin(), apart.end(), own) == apart.end()) apart.push_back(own);
      if (std::find(together.begin(), together.end(), any) == together.end()) together.push_back(any);
    }
    labels_ = apart.size();
    try_labels(apart);
    if (best_cost_ >= forbidden) try_labels(together);
    settle();
  }

 private:
  struct Group {
    int number, sockets;
  };

  void try_labels(const std::vector<Label>& labels) {
    if (labels.empty()) return;
    std::map<int, Label> chosen;
    if (std::pow(static_cast<double>(labels.size()), static_cast<double>(groups_.size())) > most_ways) {
      // Too many ways: each group, the largest first, goes to the label that most outputs still ask for.
      std::vector<Group> groups = groups_;
      std::stable_sort(groups.begin(), groups.end(),
                       [](const Group& a, const Group& b) { return a.sockets > b.sockets; });
      std::vector<int> wanting;
      for (const Label& l : labels) wanting.push_back(wanted(l));
      for (const Group& g : groups) {
        const auto at = static_cast<std::size_t>(std::max_element(wanting.begin(), wanting.end()) - wanting.begin());
        chosen.insert_or_assign(g.number, labels[at]);
        wanting[at] = std::max(0, wanting[at] - g.sockets);
      }
      return price(chosen);
    }
    const std::function<void(std::size_t)> choose = [&](std::size_t g) {
      if (g == groups_.size()) {
        if (roomy(chosen, labels)) price(chosen);
        return;
      }
      for (const Label& l : labels) {
        chosen.insert_or_assign(groups_[g].number, l);
        choose(g + 1);
      }
    };
    choose(0);
    // Not room for all: as many as can be.
    if (best_.empty()) {
      strict_ = false;
      choose(0);
      strict_ = true;
    }
  }

  int wanted(const Label& l) const {
    return static_cast<int>(
        std::count_if(outputs_.begin(), outputs_.end(), [&](const Output* o) { return l.takes(*o); }));
  }

  bool roomy(const std::map<int, Label>& chosen, const std::vector<Label>& labels) const {
    if (!strict_) return true;
    return std::all_of(labels.begin(), labels.end(), [&](const Label& l) {
      int room = 0;
      for (const Group& g : groups_)
        if (chosen.at(g.number) == l) room += g.sockets;
      return room >= wanted(l);
    });
  }

  bool socket_fixed(const std::string& socket) const {
    return std::any_of(plan_.rig.leads.begin(), plan_.rig.leads.end(),
                       [&](const Lead& l) { return l.fixed && far_end(l, "controller", socket); });
  }

  void price(const std::map<int, Label>& chosen) {
    std::vector<std::vector<double>> cost(outputs_.size(), std::vector<double>(controller_.outputs.size()));
    for (std::size_t i = 0; i < outputs_.size(); ++i)
      for (std::size_t k = 0; k < controller_.outputs.size(); ++k) {
        const Terminal& t = controller_.outputs[k];
        const Output& o = *outputs_[i];
        const Label& label = chosen.at(t.timer_group);
        const bool stays = o.socket == t.id;
        const bool held = o.fixed && !o.socket.empty() && !stays;
        double c = stays ? 0 : moved + order * static_cast<double>(k > i ? k - i : i - k);
        if (!label.motor && drives_motor(o)) c += shared_with_motor;
        if (held || !label.takes(o) || !socket_takes(t, o) || (!stays && socket_fixed(t.id))) c = forbidden;
        cost[i][k] = c;
      }
    const std::vector<int> got = cheapest_assignment(cost);
    double sum = 0;
    for (std::size_t i = 0; i < got.size(); ++i)
      sum += got[i] < 0 ? forbidden : cost[i][static_cast<std::size_t>(got[i])];
    if (sum < best_cost_) {
      best_cost_ = sum;
      best_ = got;
    }
  }

  void settle() {
    for (std::size_t i = 0; i < outputs_.size(); ++i) {
      Output& o = *outputs_[i];
      const int k = i < best_.size() ? best_[i] : -1;
      if (k < 0) {
        no_socket(o);
        continue;
      }
      const Terminal& t = controller_.outputs[static_cast<std::size_t>(k)];
      const bool changed = o.socket != t.id;
      std::string why = changed ? "free" : o.fixed ? "kept by hand" : "it is there already";
      if (labels_ > 1) why += "; its timer group runs at " + number_text(o.rate_hz, 0) + " Hz";
      if (!t.serves.empty()) why += "; this class keeps it for the " + label_of(t.serves);
      o.socket = t.id;
      plan_.choices.push_back({o.id, "", "controller " + t.label, why, changed});
    }
  }

  void no_socket(const Output& o) {
    const bool too_many = outputs_.size() > controller_.outputs.size();
    std::string what = "Output " + o.id + " finds no socket: ";
    if (too_many)
      what += "the " + controller_.name + " has " + std::to_string(controller_.outputs.size()) + " and " +
              std::to_string(outputs_.size()) + " are wanted";
    else if (labels_ > 1)
      what += "outputs of one timer group share a pulse rate, and " + number_text(o.rate_hz, 0) +
              " Hz finds no group of its own";
    else
      what += "the sockets left are kept for other surfaces";
    plan_.obstacles.push_back({o.id, what, too_many ? "AIRFRAME-02" : labels_ > 1 ? "WIRING-09" : "WIRING-17"});
  }

  Plan& plan_;
  const ControllerClass& controller_;
  std::vector<Output*> outputs_;
  std::vector<Group> groups_;
  std::size_t labels_ = 0;
  bool strict_ = true;
  std::vector<int> best_;
  double best_cost_ = 1e18;
};

}  // namespace

void plan_outputs(Plan& plan, const ControllerClass& controller) { OutputPlanner(plan, controller).run(); }

}  // namespace rigging
