/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen } from "@testing-library/react";
import { useState } from "react";
import { announceAnswer, onAnswer } from "~/kit/form/answer-event";
import { renderPage } from "~/kit/testing/render-page";
import { Choices, Toggle } from "./toggle";
import { Field, FieldErrors, SelectField } from "./field";
import { Figure } from "./figure";
import { ScrollRegion } from "./scroll-region";
import { Tag } from "./tag";

test("a field ties label, unit, hint and message together; a message is announced", () => {
  renderPage(<Field label="Film" unit="µm" name="film" hint="total" errors={["Type a number"]} defaultValue="x" />);
  const input = screen.getByLabelText<HTMLInputElement>("Film, µm");
  expect(input.getAttribute("aria-invalid")).toBe("true");
  expect(input.inputMode).toBe("decimal");
  const described = input
    .getAttribute("aria-describedby")!
    .split(" ")
    .map((id) => document.getElementById(id)!.textContent);
  expect(described).toEqual(["total", "Type a number"]);
  expect(screen.getByRole("alert").textContent).toBe("Type a number");
  expect(input.value).toBe("x");
});
test("a field without faults is not marked, and no empty alert stands about", () => {
  renderPage(
    <>
      <Field label="Film" name="film" errors={[]} />
      <FieldErrors errors={undefined} />
      <SelectField label="Kind" name="kind">
        <option>clear</option>
      </SelectField>
    </>,
  );
  expect(screen.getByLabelText("Film").getAttribute("aria-invalid")).toBeNull();
  expect(screen.getByLabelText("Kind").getAttribute("aria-invalid")).toBeNull();
  expect(screen.queryByRole("alert")).toBeNull();
});
test("a figure opens its working: formula, inputs, what changes it most, sources", async () => {
  renderPage(
    <Figure
      label="ready to spray"
      shown={{ text: "636 ± 70", unit: "ml" }}
      note="for 3.2 m²"
      working={{
        title: "How much to mix",
        formula: "Area × film ÷ solids.",
        inputs: [{ name: "area", shown: "3.22 m²" }],
        sources: ["spreading-rate"],
        changesMost: "What lands.",
      }}
    />,
  );
  expect(screen.queryByText("Area × film ÷ solids.")).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "ready to spray: 636 ± 70 ml. Show the working" }));
  for (const text of ["How much to mix", "Area × film ÷ solids.", "3.22 m²", "What lands."])
    expect(await screen.findByText(text)).toBeTruthy();
  expect(screen.getByText(/1604\.17/)).toBeTruthy();
});
const isChosen = (r: HTMLElement) => (r instanceof HTMLInputElement ? r.checked : r.getAttribute("aria-checked") === "true");

test("choices and toggles are radio groups that say what is chosen", () => {
  function Both() {
    const [value, setValue] = useState("a");
    const options = [
      { value: "a", name: "First" },
      { value: "b", name: "Second" },
    ];
    return (
      <>
        <Choices label="Way" value={value} onChange={setValue} options={options} />
        <Toggle label="Same" value={value} onChange={setValue} options={options} />
      </>
    );
  }
  renderPage(<Both />);
  fireEvent.click(screen.getAllByRole("radio", { name: "Second" })[0]!);
  expect(screen.getAllByRole("radio", { name: "Second" }).map(isChosen)).toEqual([true, true]);
  expect(screen.getByRole("radiogroup", { name: "Way" })).toBeTruthy();
});
test("a state is never colour alone: it has a word and a shape; a wide table can be reached by keyboard", () => {
  const { container } = renderPage(
    <>
      <Tag kind="stop">Too near</Tag>
      <ScrollRegion label="Parts">
        <table />
      </ScrollRegion>
    </>,
  );
  expect(screen.getByText("Too near")).toBeTruthy();
  expect(container.querySelector("svg[aria-hidden=true]")).not.toBeNull();
  expect(screen.getByRole("region", { name: "Parts" }).tabIndex).toBe(0);
});
test("an answer is heard by whoever listens until they stop, and anything else is not an answer", () => {
  const heard: (string | null)[] = [];
  const stop = onAnswer((a) => heard.push(a.message));
  announceAnswer({ ok: true, intent: "mix", message: "kept", errors: {} });
  announceAnswer(new Response("x"));
  announceAnswer(null);
  stop();
  announceAnswer({ ok: true, intent: "mix", message: "late", errors: {} });
  expect(heard).toEqual(["kept"]);
});
