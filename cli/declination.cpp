#include <iostream>
#include <memory>

#include "base/data_folder.h"
#include "base/json.h"
#include "base/number.h"
#include "command.h"
#include "earth/magnetic_model.h"

namespace rigging::cli {

void add_declination(CLI::App& app, Session& session) {
  struct Mounting {
    double latitude = 0, longitude = 0, altitude_km = 0;
    std::string date;
  };
  auto place = std::make_shared<Mounting>();
  auto* command =
      app.add_subcommand("declination", "The earth's magnetic field at a place (World Magnetic Model 2025)");
  command->add_option("--lat", place->latitude, "Latitude in degrees, north positive")->required();
  command->add_option("--lon", place->longitude, "Longitude in degrees, east positive")->required();
  command->add_option("--alt-km", place->altitude_km, "Height above the WGS 84 ellipsoid in kilometres");
  command->add_option("--date", place->date, "YYYY-MM-DD or a decimal year")->required();
  add_json_flag(*command, session);
  command->callback([&session, place] {
    const auto year = decimal_year(place->date);
    if (!year) return session.refuse(year.error());
    const auto model = MagneticModel::load(data_folder() / "magnetic" / "wmm2025.csv");
    if (!model) return session.refuse(model.error());
    const auto f = model->field(place->latitude, place->longitude, place->altitude_km, *year);
    if (!f) return session.refuse(f.error());
    if (session.json)
      session.print({{"declination_deg", f->declination_deg},
                     {"inclination_deg", f->inclination_deg},
                     {"horizontal_nT", f->horizontal_nT},
                     {"total_nT", f->total_nT},
                     {"north_nT", f->north_nT},
                     {"east_nT", f->east_nT},
                     {"down_nT", f->down_nT}});
    else
      std::cout << "Declination " << number_text(std::abs(f->declination_deg), 2) << "° "
                << (f->declination_deg < 0 ? "west" : "east") << ", inclination " << number_text(f->inclination_deg, 2)
                << "°, horizontal field " << number_text(f->horizontal_nT, 0) << " nT\n";
  });
}

}  // namespace rigging::cli
