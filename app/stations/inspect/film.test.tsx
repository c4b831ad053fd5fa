/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen } from "@testing-library/react";
import { useState } from "react";
import type { FilmMoment } from "#core/judge/film-history";
import type { SprayedPanel } from "#core/panel/next-time";
import { NibPictureView } from "./nib-picture-view";
import { SettingsChart } from "~/stations/hand-over/settings-chart";
import type { NibMark } from "./use-nib-count";
import { FilmTimeChart } from "./film-time-chart";
import { FilmSection } from "~/kit/panel/film-section";
import { renderPage } from "~/kit/testing/render-page";
import { FilmSlider } from "~/kit/ui/film-slider";

const um = (x: number) => x * 1e-6;

test("film through time says each event with what was predicted and what the readings say", () => {
  const moment = (what: string, kind: FilmMoment["kind"], predicted: number, measured: number | null): FilmMoment => ({
    at_ms: 0,
    kind,
    what,
    simulated: false,
    predicted: { clear_m: um(predicted), u_m: um(8) },
    measured: measured === null ? null : { clear_m: um(measured), u_m: um(2), how: "measured", spots: 3 },
    spots: {},
  });
  const moments = [moment("Coat 1", "coat", 28, null), moment("after clear", "read", 28, 31)];
  renderPage(<FilmTimeChart moments={moments} clearOf={(m) => m.measured} floor_m={um(20)} />);
  expect(screen.getByRole("img").getAttribute("aria-label")).toBe(
    "Clear through time in µm. Coat 1: predicted 28, by readings nothing; after clear: predicted 28, by readings 31.",
  );
  expect(screen.getByText("floor 20")).toBeTruthy();
  expect(screen.getByText("31")).toBeTruthy();
});

test("the section shows the clear of a picked place, its coats in their proportion", () => {
  const clear = (key: string, thickness: number) => ({
    key,
    name: key,
    thickness_m: um(thickness),
    u_m: um(3),
    tone: "clear" as const,
    how: "measured" as const,
  });
  renderPage(
    <FilmSection
      layers={[clear("clear 1", 20), clear("clear 2", 30)]}
      floor_m={um(35)}
      baseColour="#335566"
      preview={{ here: { clear_m: um(40), u_m: um(5), caption: "At the front edge" } }}
      caption="Mean of 6 spots"
    />,
  );
  expect(screen.getByText("At the front edge")).toBeTruthy();
  expect(screen.getByRole("img").getAttribute("aria-label")).toContain("clear 1 16.0, clear 2 24.0. Clear 40.0 in all");
});

test("a film is slid by keys in half micrometres and shown in the screen's unit", () => {
  function BlockedBy() {
    const [value, setValue] = useState(um(9));
    return <FilmSlider label="Take off" value_m={value} most_m={um(40)} onChange={setValue} note="as the ladder takes" />;
  }
  renderPage(<BlockedBy />);
  const thumb = screen.getByRole("slider", { name: /Take off/ });
  expect(thumb.getAttribute("aria-valuetext")).toBe("9.0 µm");
  fireEvent.change(thumb, { target: { value: "19" } });
  expect(thumb.getAttribute("aria-valuetext")).toBe("9.5 µm");
  fireEvent.change(thumb, { target: { value: "0" } });
  expect(thumb.getAttribute("aria-valuetext")).toBe("0.0 µm");
  expect(screen.getByText("as the ladder takes")).toBeTruthy();
});

test("settings against results say each panel with what came of it, each result with its own sign", () => {
  const panel = (what: string, defects: SprayedPanel["defects"], wet: number): SprayedPanel => ({
    coatId: "c",
    panelId: what,
    what,
    at_ms: 0,
    productId: "p",
    air_K: 295.15,
    settings: {
      fluidRate_m3_s: 4e-6,
      fluidFrom: "measured",
      turns: null,
      pressure_Pa: 2e5,
      distance_m: 0.17,
      overlap: 0.5,
      handSpeed_m_s: 0.3,
      fan_m: null,
    },
    reducer: 0,
    wet_m: um(wet),
    rating: null,
    defects,
    causes: [],
    simulated: false,
    told: null,
    forecast: null,
  });
  renderPage(<SettingsChart panels={[panel("bonnet", [], 50), panel("door", ["run"], 80)]} here_K={295.15} />);
  expect(screen.getByRole("img").getAttribute("aria-label")).toBe("bonnet: 50 µm wet at 22 °C, good; door: 80 µm wet at 22 °C, ran");
  expect(screen.getByText("good")).toBeTruthy();
  expect(screen.getByText("ran")).toBeTruthy();
  expect(screen.queryByText("peeled")).toBeNull();
});

test("marks in a photograph are struck, taken back and added from the keyboard; a mark of one's own goes away again", () => {
  const picture = { url: "data:,", blob: new Blob(), width: 400, height: 300, simulated: true, width_m: null, original: null };
  function BlockedBy() {
    const [marks, setMarks] = useState<NibMark[]>([{ x: 200, y: 150, diameter_m: 0.7e-3, atMost: false, by: "found", struck: false }]);
    return <NibPictureView picture={picture} marks={marks} onChange={setMarks} />;
  }
  renderPage(<BlockedBy />);
  const view = screen.getByRole("application");
  const label = () => view.getAttribute("aria-label");
  expect(label()).toContain("1 marks");
  fireEvent.keyDown(view, { key: "Enter" }); // the cross starts in the middle, on the mark
  expect(label()).toContain("0 marks");
  fireEvent.keyDown(view, { key: "Enter" });
  expect(label()).toContain("1 marks");
  for (let i = 0; i < 4; i++) fireEvent.keyDown(view, { key: "ArrowRight", shiftKey: true });
  fireEvent.keyDown(view, { key: "Enter" });
  expect(label()).toContain("2 marks");
  fireEvent.keyDown(view, { key: " " });
  expect(label()).toContain("1 marks");
  expect(screen.getByText("0.7")).toBeTruthy();
});
