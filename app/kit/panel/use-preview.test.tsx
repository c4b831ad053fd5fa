/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, render, screen, waitFor } from "@testing-library/react";
import { useState } from "react";
import { Link, Outlet, createRoutesStub } from "react-router";
import type { SectionPreview } from "./film-section";
import { usePreview } from "./use-preview";

/** A page that draws a coat to come, and one that draws nothing. */
function Sprays() {
  const [dry_um, setDry] = useState(27);
  usePreview({ coat: { dry_m: dry_um * 1e-6, u_m: 1e-6, name: "coat 2" } });
  return (
    <>
      <button onClick={() => setDry(30)}>thicker</button>
      <Link to="/inspect">Inspect</Link>
    </>
  );
}

test("what a page would do is drawn as it stands, follows its figures, and goes with the page", async () => {
  const drawn: SectionPreview[] = [];
  const Stub = createRoutesStub([
    {
      path: "/",
      Component: () => {
        const [preview, setPreview] = useState<SectionPreview>({});
        drawn.push(preview);
        return (
          <>
            <output>{preview.coat ? `${Math.round(preview.coat.dry_m * 1e6)} µm` : "nothing"}</output>
            <Outlet context={{ setPreview }} />
          </>
        );
      },
      children: [
        { index: true, Component: Sprays },
        { path: "inspect", Component: () => <p>Inspect</p> },
      ],
    },
  ]);
  render(<Stub initialEntries={["/"]} />);
  await waitFor(() => expect(screen.getByRole("status").textContent).toBe("27 µm"));
  fireEvent.click(screen.getByRole("button", { name: "thicker" }));
  await waitFor(() => expect(screen.getByRole("status").textContent).toBe("30 µm"));
  // It is never taken away between two figures.
  expect(drawn.slice(drawn.findIndex((d) => d.coat)).every((d) => d.coat)).toBe(true);
  fireEvent.click(screen.getByRole("link", { name: "Inspect" }));
  await waitFor(() => expect(screen.getByRole("status").textContent).toBe("nothing"));
});
