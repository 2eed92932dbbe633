import type { ForecastSource } from "./source";
import { ServiceRefusal } from "./refusal";

const standIn = (id: string, name: string): ForecastSource => ({
  id,
  name: `${name}, simulated`,
  isSimulated: true,
  async ask({ latitudeDeg, longitudeDeg }, signal) {
    const response = await fetch(
      `/services/forecast/${id}?lat=${latitudeDeg.toFixed(3)}&lon=${longitudeDeg.toFixed(3)}`,
      { signal },
    );
    if (!response.ok) throw new ServiceRefusal(response.status);
    return response.text();
  },
});

/** The three simulated services that ship with the app. */
export const standIns: readonly ForecastSource[] = [
  standIn("tern", "Tern coastal model"),
  standIn("larch", "Larch valley ensemble"),
  standIn("quartz", "Quartz quick look"),
];
