/** @jest-environment ./scripts/jest-jsdom.mjs */
import { act, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { useEffect } from "react";
import { createRoutesStub, useFetcher, useLoaderData, useRevalidator } from "react-router";
import { IMPERIAL, METRIC, type UnitPreferences } from "#core/kernel/units/quantities";
import type { FormAnswer } from "~/kit/form/answer";
import { initial } from "~/kit/form/initial";
import { useUnits } from "~/kit/root/use-root";
import { Field, OwnInput, SelectField } from "~/kit/ui/field";
import { DraftForm, KeptForm } from "./draft-form";
import { type DraftStorage, readKept, shownIn, writeKept } from "./kept";
import { useDraft } from "./use-draft";

const answer = (over: Partial<FormAnswer>): FormAnswer => ({ ok: true, intent: "", message: null, errors: {}, ...over });

/** What stands on the server, as a page's loader gives it. */
interface There {
  version: string;
  film: string;
  how: string;
}
let there: There = { version: "one", film: "50", how: "air" };

/** A page of one form under a shell whose units may be switched; `stored` answers what is sent. */
function renderForm(form: React.ReactElement, stored: () => FormAnswer | Promise<FormAnswer> = () => answer({ done: "1" })) {
  let current: UnitPreferences = METRIC;
  const live = { again: async () => {} };
  function Page() {
    const { revalidate } = useRevalidator();
    useEffect(() => void (live.again = revalidate));
    return form;
  }
  const Stub = createRoutesStub([
    {
      id: "root",
      path: "/",
      loader: () => ({ prefs: { units: current }, there }),
      HydrateFallback: () => null,
      Component: Page,
      action: stored,
    },
  ]);
  const view = render(<Stub key={current.film} initialEntries={["/"]} />);
  return {
    ...view,
    /** As a live update does. */
    lookAgain: () => act(() => live.again()),
    units(units: UnitPreferences) {
      current = units;
      view.rerender(<Stub key={current.film} initialEntries={["/"]} />);
    },
  };
}

function Desk() {
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const draft = useDraft("desk", { film: initial("film", 50e-6, units), how: "air", name: "" }, { film: "film" });
  return (
    <DraftForm draft={draft} fetcher={fetcher}>
      <Field label="Film" unit={units.film} {...draft.field("film")} />
      <Field label="Name" {...draft.field("name")} />
      <button type="button" onClick={() => draft.set("how", "bake")}>{`dries: ${draft.typed.how}`}</button>
      <button>Store</button>
    </DraftForm>
  );
}

function ListDesk() {
  const draft = useDraft("list", { rows: ["", ""] as readonly string[] });
  const put = (i: number, text: string) => draft.set("rows", (rows) => rows.map((r, k) => (k === i ? text : r)));
  return (
    <button
      type="button"
      onClick={() => {
        put(0, "90");
        put(1, "165");
      }}
    >
      {draft.typed.rows.join(" and ")}
    </button>
  );
}

function Plain() {
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  return (
    <KeptForm place="plain" fetcher={fetcher}>
      <Field label="Film" unit={units.film} name="film" defaultValue={initial("film", 50e-6, units)} />
      <SelectField label="Kind" name="kind" defaultValue="a">
        <option value="a">a</option>
        <option value="b">b</option>
      </SelectField>
      <label>
        <OwnInput type="checkbox" name="gone" /> gone
      </label>
      <button>Store</button>
    </KeptForm>
  );
}
const box = (name: RegExp) => screen.getByLabelText<HTMLInputElement>(name);
const type = (name: RegExp, value: string) => fireEvent.change(box(name), { target: { value } });

beforeEach(() => {
  sessionStorage.clear();
  localStorage.clear();
});
/** Forms that wait half-typed in this tab. */
const halfTyped = () => Object.keys(sessionStorage).filter((key) => key.startsWith("half-typed "));

describe.each([
  ["a desk", <Desk key="d" />],
  ["a form of plain fields", <Plain key="p" />],
])("%s", (_name, form) => {
  test("what is typed is there after a reload, says so, and can be given up", async () => {
    const first = renderForm(form);
    await waitFor(() => expect(box(/Film/).value).toBe("50"));
    expect(screen.queryByTestId("half-typed")).toBeNull();
    type(/Film/, "61,5");
    first.unmount();
    renderForm(form);
    await waitFor(() => expect(box(/Film/).value).toBe("61,5"));
    expect(screen.getByTestId("half-typed").textContent).toContain("half-typed");
    fireEvent.click(screen.getByRole("button", { name: "Start again" }));
    await waitFor(() => expect(box(/Film/).value).toBe("50"));
    expect(halfTyped()).toHaveLength(0);
  });

  test("a switch of units converts it, and back gives the very text; what nobody touched follows its start", async () => {
    const page = renderForm(form);
    await waitFor(() => expect(box(/Film/).value).toBe("50"));
    page.units(IMPERIAL);
    await waitFor(() => expect(box(/Film/).value).toBe("1.969"));
    page.units(METRIC);
    await waitFor(() => expect(box(/Film/).value).toBe("50"));
    type(/Film/, "61,53");
    page.units(IMPERIAL);
    await waitFor(() => expect(box(/Film/).value).toBe("2.422"));
    page.units(METRIC);
    await waitFor(() => expect(box(/Film/).value).toBe("61,53"));
  });

  test("what is typed while the one before is on its way stays when that one is stored", async () => {
    let store = () => {};
    const page = renderForm(form, () => new Promise<FormAnswer>((done) => (store = () => done(answer({ done: "1" })))));
    await waitFor(() => expect(box(/Film/).value).toBe("50"));
    type(/Film/, "61");
    fireEvent.click(screen.getByRole("button", { name: "Store" }));
    await waitFor(() => expect(store.name).not.toBe(""));
    type(/Film/, "72");
    act(() => store());
    await waitFor(() => expect(box(/Film/).value).toBe("72"));
    page.unmount();
    renderForm(form);
    await waitFor(() => expect(box(/Film/).value).toBe("72"));
  });

  test("a refusal keeps it, being stored ends it", async () => {
    let ok = false;
    const page = renderForm(form, () => (ok ? answer({ done: "1" }) : answer({ ok: false, errors: { film: ["Too much"] } })));
    await waitFor(() => expect(box(/Film/).value).toBe("50"));
    type(/Film/, "900");
    fireEvent.click(screen.getByRole("button", { name: "Store" }));
    await new Promise((r) => setTimeout(r, 100));
    expect(box(/Film/).value).toBe("900");
    expect(halfTyped()).toHaveLength(1);
    ok = true;
    fireEvent.click(screen.getByRole("button", { name: "Store" }));
    await waitFor(() => expect(halfTyped()).toHaveLength(0));
    await waitFor(() => expect(box(/Film/).value).toBe("50"));
    page.unmount();
  });
});

test("a choice and a tick are kept as well", async () => {
  const first = renderForm(<Plain />);
  await waitFor(() => expect(box(/Kind/).value).toBe("a"));
  fireEvent.change(box(/Kind/), { target: { value: "b" } });
  fireEvent.click(box(/gone/));
  first.unmount();
  const second = renderForm(<Plain />);
  await waitFor(() => expect([box(/Kind/).value, box(/gone/).checked]).toEqual(["b", true]));
  second.unmount();
  renderForm(<Desk />);
  fireEvent.click(await screen.findByRole("button", { name: "dries: air" }));
  expect(await screen.findByRole("button", { name: "dries: bake" })).toBeTruthy();
});

describe("what is kept of a field", () => {
  test.each([
    ["61.5", "2.421"],
    ["131 128 126", "5.157 5.039 4.961"],
    ["5,1 mil", "5,1 mil"],
    ["about 60", "about 60"],
    ["", ""],
  ])("%s µm is %s in mil", (text, shown) => {
    expect(shownIn({ value: text, units: METRIC, quantity: "film" }, IMPERIAL)).toBe(shown);
  });

  test("rows are converted by their fields", () => {
    const rows = [{ kind: "door", width: "750", both: true }];
    expect(shownIn({ value: rows, units: METRIC, quantity: { width: "length" } }, IMPERIAL)).toEqual([
      { kind: "door", width: "29.5", both: true },
    ]);
  });

  test("what is not ours in the storage is nothing; a storage that refuses is told", () => {
    const full: DraftStorage = {
      getItem: (key) => (key.endsWith("bad") ? "{[" : JSON.stringify({ a: 1, b: { value: "x" } })),
      setItem: () => {
        throw new DOMException("full", "QuotaExceededError");
      },
      removeItem: () => undefined,
    };
    expect([readKept(full, "bad"), readKept(full, "a"), readKept(null, "a")]).toEqual([{}, { b: { value: "x" } }, {}]);
    expect([writeKept(full, "a", { b: { value: "x" } }), writeKept(null, "a", {}), writeKept(full, "a", {})]).toEqual([false, false, true]);
  });
});

test("two changes of a list before it is drawn again: both stay", async () => {
  renderForm(<ListDesk />);
  fireEvent.click(await screen.findByRole("button"));
  expect(await screen.findByText("90 and 165")).toBeDefined();
});

describe("a form over something that another window may change", () => {
  let version = "one";
  function Versioned() {
    const units = useUnits();
    const fetcher = useFetcher<FormAnswer>();
    return (
      <KeptForm place="versioned" fetcher={fetcher} version={version}>
        <Field label="Film" unit={units.film} name="film" defaultValue="50" errors={fetcher.data?.errors.film} />
        <button>Store</button>
      </KeptForm>
    );
  }
  function VersionedDesk() {
    const fetcher = useFetcher<FormAnswer>();
    const draft = useDraft("versioned desk", { film: "50" }, {}, version);
    return (
      <DraftForm draft={draft} fetcher={fetcher}>
        <Field label="Film" {...draft.field("film")} errors={fetcher.data?.errors.film} />
        <button>Store</button>
      </DraftForm>
    );
  }
  const sent = () => document.querySelector<HTMLInputElement>("input[name=version]")!.value;

  test.each([
    ["a form of plain fields", <Versioned key="v" />],
    ["a desk", <VersionedDesk key="w" />],
  ])("%s sends the version it was filled in on, through a reload, until it is told another or is stored", async (_name, form) => {
    version = "one";
    let reply = answer({ ok: false, message: "changed", errors: { film: ["There now: 40"] }, version: "two" });
    const first = renderForm(form, () => reply);
    await waitFor(() => expect(sent()).toBe("one"));
    type(/Film/, "61");
    // Another window stores: the page is drawn anew with what stands there, the half-typed form stays what it was filled in on.
    version = "two";
    first.unmount();
    renderForm(form, () => reply);
    await waitFor(() => expect(box(/Film/).value).toBe("61"));
    expect(sent()).toBe("one");
    fireEvent.click(screen.getByRole("button", { name: "Store" }));
    await waitFor(() => expect(screen.getByText("There now: 40")).toBeTruthy());
    expect(box(/Film/).value).toBe("61");
    await waitFor(() => expect(sent()).toBe("two"));
    reply = answer({ done: "1" });
    fireEvent.click(screen.getByRole("button", { name: "Store" }));
    await waitFor(() => expect(box(/Film/).value).toBe("50"));
    expect(halfTyped()).toHaveLength(0);
    expect(sent()).toBe("two");
  });
});

describe("a form whose page changes with what it stored", () => {
  const HOW = ["air", "bake"];
  function Page({ taken }: { taken: boolean }) {
    const fetcher = useFetcher<FormAnswer>();
    const { there } = useLoaderData<{ there: There }>();
    return (
      <KeptForm place="changing" key={taken ? there.version : "stays"} fetcher={fetcher} version={there.version}>
        <Field label="Film" name="film" defaultValue={there.film} />
        <SelectField label="Dries" name="how" defaultValue={there.how}>
          {HOW.map((h) => (
            <option key={h}>{h}</option>
          ))}
        </SelectField>
        <button>Store</button>
      </KeptForm>
    );
  }
  const values = () => [box(/Film/).value, screen.getByLabelText<HTMLSelectElement>("Dries").value];

  test.each([
    ["stays", false],
    ["is taken away by its own answer", true],
  ])("a form that %s is no longer half-typed when it is stored", async (_name, taken) => {
    there = { version: "one", film: "50", how: "air" };
    renderForm(<Page taken={taken} />, () => {
      there = { version: "two", film: "61", how: "air" };
      return answer({ done: "1" });
    });
    await waitFor(() => expect(values()).toEqual(["50", "air"]));
    type(/Film/, "61");
    fireEvent.click(screen.getByRole("button", { name: "Store" }));
    await waitFor(() => expect(halfTyped()).toHaveLength(0));
    await waitFor(() => expect(values()).toEqual(["61", "air"]));
    expect(screen.queryByTestId("half-typed")).toBeNull();
    expect(document.querySelector<HTMLInputElement>("input[name=version]")!.value).toBe("two");
  });

  test("what another window stored stands in every field that nobody has touched, choices too", async () => {
    there = { version: "one", film: "50", how: "air" };
    const page = renderForm(<Page taken={false} />);
    await waitFor(() => expect(values()).toEqual(["50", "air"]));
    there = { version: "two", film: "61", how: "bake" };
    await page.lookAgain();
    await waitFor(() => expect(values()).toEqual(["61", "bake"]));
  });
});
