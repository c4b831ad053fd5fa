/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen } from "@testing-library/react";
import { useState } from "react";
import { SUBSTRATE_TEXTURE } from "#core/models/flow/constants";
import { FLOW_AXES, flowWindow } from "#core/models/flow/flow-window";
import { simulateCoats } from "#core/models/flow/simulate-coats";
import { FlowMap } from "./flow-map";
import { LightTube } from "~/kit/panel/light-tube";
import { renderPage } from "~/kit/testing/render-page";

const gun = { fluidRate_m3_s: 230e-6 / 60, pressure_Pa: 193053, distance_m: 0.175, overlap: 0.5, handSpeed_m_s: 0.34 };
const setting = {
  conditions: {
    air_K: 295.15,
    speed: "medium" as const,
    volumeSolids: 0.475,
    reducer: 0,
    airSpeed_m_s: 0.3,
    tilt_rad: Math.PI / 2,
    edge: 1,
    below: SUBSTRATE_TEXTURE.basecoat,
  },
  coats: [{ gun, flash_s: 0 }],
};
const swept = flowWindow(setting, { xAxis: "distance", yAxis: "speed", n: 20 });

function Held({ start }: { start: { x: number; y: number } }) {
  const [point, setPoint] = useState(start);
  return <FlowMap window={swept} xAxis="distance" yAxis="speed" point={point} textureLimit={4} onMove={setPoint} />;
}
const slider = () => screen.getByRole("slider");

test("names its regions and says where the point stands, in the shop's units", () => {
  renderPage(<Held start={{ x: 0.175, y: 0.34 }} />);
  for (const word of ["runs", "flows", "peels"]) expect(screen.getByText(word)).toBeTruthy();
  expect(slider().getAttribute("aria-valuetext")).toBe("gun distance 175 mm, hand speed 0.34 m/s");
});
test("arrow keys move the point and stop at the edge; other keys do nothing", () => {
  renderPage(<Held start={{ x: 0.175, y: 0.34 }} />);
  fireEvent.keyDown(slider(), { key: "ArrowRight" });
  fireEvent.keyDown(slider(), { key: "ArrowUp" });
  fireEvent.keyDown(slider(), { key: "x" });
  const { from, to } = FLOW_AXES.distance;
  expect(slider().getAttribute("aria-valuetext")).toContain(`${Math.round((0.175 + (to - from) / 50) * 1000)} mm`);
  for (let i = 0; i < 60; i++) fireEvent.keyDown(slider(), { key: "ArrowRight" });
  expect(slider().getAttribute("aria-valuetext")).toContain(`${to * 1000} mm`);
  expect(slider().getAttribute("aria-valuenow")).toBe("100");
});
test("in inches for a shop that works in inches, and without a window it still shows the point", () => {
  renderPage(
    <FlowMap window={null} xAxis="distance" yAxis="air" point={{ x: 0.1778, y: 295.15 }} textureLimit={4} onMove={() => undefined} />,
    { units: "imperial" },
  );
  expect(slider().getAttribute("aria-valuetext")).toBe("gun distance 7.0 in, air 71.6 °F");
  expect(screen.queryByText("runs")).toBeNull();
});
test("a light tube is a picture with its words", () => {
  renderPage(<LightTube result={simulateCoats(setting.conditions, setting.coats)} label="as you would spray it: texture 3.0" />);
  expect(screen.getByRole("img", { name: "A light tube in this surface: as you would spray it: texture 3.0" })).toBeTruthy();
});
