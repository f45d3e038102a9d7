#pragma once

namespace rigging {

/// One function for each alternative of a variant: `std::visit(Cases{[](const A&) {…}, [](const B&) {…}}, value)`.
template <class... F>
struct Cases : F... {
  using F::operator()...;
};
template <class... F>
Cases(F...) -> Cases<F...>;

}  // namespace rigging
