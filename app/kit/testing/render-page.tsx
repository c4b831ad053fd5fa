import { render } from "@testing-library/react";
import { createRoutesStub } from "react-router";
import { IMPERIAL, METRIC } from "#core/kernel/units/quantities";

/** Renders a part of the interface inside the shell's data, in one system of units. */
export function renderPage(element: React.ReactElement, { units = "metric" }: { units?: "metric" | "imperial" } = {}) {
  sessionStorage.clear(); // a tab of its own, without what another test left half-typed
  const root = {
    prefs: { theme: "booth", units: units === "metric" ? METRIC : IMPERIAL, sound: false, by: "painter A" },
    shop: { name: "Test shop" },
    clocks: [],
    jobs: [],
    now_ms: 0,
  };
  const Stub = createRoutesStub([{ id: "root", path: "/", Component: () => element }]);
  return render(<Stub hydrationData={{ loaderData: { root } }} />);
}
