import { useDraft } from "~/kit/draft/use-draft";
import * as Dialog from "@radix-ui/react-dialog";
import { nanoid } from "nanoid";
import { useEffect, useRef, useState } from "react";
import { useFetcher, type FetcherWithComponents } from "react-router";
import { toast } from "~/kit/ui/toast";
import { PHASES, type Phase } from "#core/record/kinds";
import { useUnits } from "~/kit/root/use-root";
import type { ImportAnswer } from "./readings-import.do";
import { usePanel } from "~/kit/panel/use-panel";
import { SelectField } from "~/kit/ui/field";
import { FilePress } from "~/kit/ui/file-press";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import type { FilePreview } from "#server/interchange/readings-csv";

const ROLE_WORDS = { spot: "Spot", x: "Place x", y: "Place y", phase: "When", film: "Film reading", ignore: "Leave out" } as const;

/** Readings from a file or from the clipboard: a look first, columns matched, then all of it or nothing. */
export function ImportReadings({ phase, open, onOpenChange }: { phase: Phase; open: boolean; onOpenChange: (open: boolean) => void }) {
  const { view } = usePanel();
  const units = useUnits();
  const draft = useDraft(`import ${phase}`, { text: "" });
  const { text } = draft.typed;
  const setText = (value: string) => draft.set("text", value);
  const [roles, setRoles] = useState<string[]>([]);
  const [filmUnit, setFilmUnit] = useState<string>(units.film);
  const [importKey, setImportKey] = useState("");
  const fetcher = useFetcher<ImportAnswer>();
  const undo = useFetcher<ImportAnswer>({ key: "undo import" });
  const { submit, data: answer } = fetcher;
  const url = `/do/panels/${view.panel.id}/import`;
  const preview = answer?.preview ?? null;
  useAnswered({ undo, url, setText, onOpenChange, setRoles, setFilmUnit, fetcher });
  const look = (content: string) => {
    setText(content);
    setImportKey(nanoid()); // one look, one import: sent twice it is stored once
    if (content.trim())
      void submit(JSON.stringify({ step: "preview", text: content }), { method: "post", action: url, encType: "application/json" });
  };
  const commit = (again: boolean) =>
    void submit(JSON.stringify({ step: "import", text, roles, phase, filmUnit, lengthUnit: units.length, clientKey: importKey, again }), {
      method: "post",
      action: url,
      encType: "application/json",
    });
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Trigger className="press">Paste or import</Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/45" />
        <Dialog.Content className="fixed top-[4vh] left-1/2 z-50 max-h-[92vh] w-[min(760px,95vw)] -translate-x-1/2 space-y-4 overflow-y-auto rounded-press border border-edge bg-paper p-5 text-ink">
          <Dialog.Title className="text-xl font-semibold">Readings {PHASES[phase]} from a file</Dialog.Title>
          <Dialog.Description className="text-ink2">
            CSV or text: one row a spot, film in one or more columns. With a spot name the rows find their place; with x and y they bring
            it; with neither they go to the spots in order. One bad cell refuses the whole file.
          </Dialog.Description>
          <FileOrPaste {...{ look, filmUnit, setFilmUnit }} />
          <div>
            <label htmlFor="paste" className="small-label mb-1 block">
              Or paste here
            </label>
            <textarea
              id="paste"
              rows={4}
              className="field font-medium"
              value={text.length > 4000 ? `${text.slice(0, 4000)}…` : text}
              onChange={(e) => look(e.target.value)}
            />
          </div>
          {preview && <FirstRows {...{ preview, roles, setRoles }} />}
          {answer?.thereAlready && (
            <div role="alert" className="space-y-2 rounded-press bg-amber-wash p-3" data-testid="there-already">
              <p className="font-semibold">All of these readings are on the panel already, from a file. Nothing was imported.</p>
              <button type="button" className="press" onClick={() => commit(true)}>
                Import them a second time
              </button>
            </div>
          )}
          {answer && answer.problems.length > 0 && <Refused {...{ answer }} />}
          <Leave {...{ preview, fetcher, commit }} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** What is done once when an answer comes. */
function useAnswered({
  undo,
  url,
  setText,
  onOpenChange,
  setRoles,
  setFilmUnit,
  fetcher,
}: {
  undo: FetcherWithComponents<ImportAnswer>;
  url: string;
  setText: (value: string) => void;
  onOpenChange: (open: boolean) => void;
  setRoles: React.Dispatch<React.SetStateAction<string[]>>;
  setFilmUnit: React.Dispatch<React.SetStateAction<string>>;
  fetcher: FetcherWithComponents<ImportAnswer>;
}) {
  const { data: answer } = fetcher;
  const handled = useRef<ImportAnswer | null>(null);
  useEffect(() => {
    if (!answer || !("step" in answer) || handled.current === answer) return; // a failure is told by the shell
    handled.current = answer;
    if (answer.imported !== null) {
      const { entryIds = [] } = answer;
      toast.success(`${answer.imported} readings imported`, {
        action: {
          label: "Undo",
          onClick: () =>
            void undo.submit(JSON.stringify({ step: "undo", entryIds }), { method: "post", action: url, encType: "application/json" }),
        },
      });
      setText("");
      onOpenChange(false);
    } else if (answer.preview && answer.step === "preview") {
      setRoles(answer.preview.roles);
      if (answer.preview.filmUnit) setFilmUnit(answer.preview.filmUnit);
    }
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each answer
  }, [answer, onOpenChange]);
}

/** A file, or what was copied. */
function FileOrPaste({
  look,
  filmUnit,
  setFilmUnit,
}: {
  look: (content: string) => void;
  filmUnit: string;
  setFilmUnit: React.Dispatch<React.SetStateAction<string>>;
}) {
  return (
    <div className="flex flex-wrap items-center gap-3">
      <FilePress accept=".csv,.txt,.tsv,text/csv,text/plain" onFile={(file) => void file.text().then(look)}>
        Choose a file
      </FilePress>
      <SelectField
        label="Film is in, where no heading says"
        value={filmUnit}
        onChange={(e) => setFilmUnit(e.target.value)}
        className="w-32"
      >
        <option value="µm">µm</option>
        <option value="mil">mil</option>
      </SelectField>
    </div>
  );
}

/** The first rows, and what each column is. */
function FirstRows({
  preview,
  roles,
  setRoles,
}: {
  preview: FilePreview;
  roles: string[];
  setRoles: React.Dispatch<React.SetStateAction<string[]>>;
}) {
  return (
    <ScrollRegion label="First rows">
      <table className="w-full text-left text-sm">
        <caption className="pb-1 text-left text-ink2">
          {preview.rowCount} rows; the first {preview.rows.length} are shown
        </caption>
        <thead>
          <tr>
            {preview.columns.map((c, i) => (
              <th key={i} className="min-w-32 p-1 align-top">
                <SelectField
                  label={c}
                  value={roles[i] ?? "ignore"}
                  onChange={(e) => setRoles((r) => r.map((v, k) => (k === i ? e.target.value : v)))}
                >
                  {Object.entries(ROLE_WORDS).map(([k, w]) => (
                    <option key={k} value={k}>
                      {w}
                    </option>
                  ))}
                </SelectField>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {preview.rows.map((row, r) => (
            <tr key={r} className="border-t border-hair">
              {preview.columns.map((_, i) => (
                <td key={i} className="p-2">
                  {row[i]}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </ScrollRegion>
  );
}

/** Why nothing was read. */
function Refused({ answer }: { answer: ImportAnswer }) {
  return (
    <div role="alert" className="rounded-press bg-stop-wash p-3 text-stop-ink">
      <p className="font-semibold">Nothing was imported.</p>
      <ul className="mt-1 list-disc pl-5 text-sm">
        {answer.problems.map((p, i) => (
          <li key={i}>
            Line {p.line}
            {p.column && `, ${p.column}`}: {p.reason}
          </li>
        ))}
      </ul>
      {answer.problemCount > answer.problems.length && (
        <p className="mt-1 text-sm">and {answer.problemCount - answer.problems.length} more</p>
      )}
    </div>
  );
}

/** Closed, or read in. */
function Leave({
  preview,
  fetcher,
  commit,
}: {
  preview: FilePreview | null;
  fetcher: FetcherWithComponents<ImportAnswer>;
  commit: (again: boolean) => undefined;
}) {
  return (
    <div className="flex justify-end gap-2">
      <Dialog.Close className="press">Close</Dialog.Close>
      <button
        type="button"
        className="press"
        data-kind="main"
        disabled={!preview || fetcher.state !== "idle"}
        onClick={() => commit(false)}
      >
        {fetcher.state === "idle" ? `Import ${preview?.rowCount ?? 0} rows` : "Reading the file…"}
      </button>
    </div>
  );
}
