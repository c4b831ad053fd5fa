import { render } from "@testing-library/react";
import { Outlet, createRoutesStub } from "react-router";
import type { ShownClock } from "#core/course/clock-hold";
import { IMPERIAL, METRIC } from "#core/kernel/units/quantities";

/** A form that a page sent: where to, and its fields. */
export interface Sent {
  path: string;
  fields: Record<string, string>;
}

/** Renders a part of the interface inside the shell's data, in one system of units; `sent` collects what it posts anywhere. */
export function renderPage(
  element: React.ReactElement,
  {
    units = "metric",
    clocks = [],
    answer = () => ({ ok: true }),
  }: { units?: "metric" | "imperial"; clocks?: ShownClock[]; answer?: (sent: Sent) => unknown } = {},
) {
  localStorage.clear();
  sessionStorage.clear(); // a tab of its own, without what another test left half-typed
  const sent: Sent[] = [];
  const take = async ({ request }: { request: Request }) => {
    const { pathname } = new URL(request.url);
    // jsdom's form goes out as its text: Node's Request does not know the class.
    const text = await request.text();
    const fields = text.startsWith("{") ? (JSON.parse(text) as Record<string, string>) : Object.fromEntries(new URLSearchParams(text));
    sent.push({ path: pathname, fields });
    return answer(sent.at(-1)!);
  };
  const preferred = units === "metric" ? METRIC : IMPERIAL;
  const root = {
    prefs: { theme: "booth", units: preferred, sound: false, by: "painter A" },
    shop: { name: "Test shop", region: null, units: preferred, floor_m: 35e-6, standIns: true, lineProfiles: [] },
    region: units === "metric" ? "british" : "american",
    clocks,
    jobs: [],
    who: null,
    now_ms: 0,
  };
  const Stub = createRoutesStub([
    {
      id: "root",
      path: "/",
      loader: () => root, // asked again after every form
      Component: Outlet,
      children: [
        { index: true, Component: () => element, action: take },
        { path: "*", Component: () => element, action: take },
      ],
    },
  ]);
  return { sent, ...render(<Stub hydrationData={{ loaderData: { root } }} />) };
}
