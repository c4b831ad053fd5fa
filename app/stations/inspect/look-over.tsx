import { useFetcher } from "react-router";
import { OFTEN, type SizeByEye, heightsByEye, usualSize } from "#core/models/defects/by-eye";
import { DEFECT_IDS, DEFECT_KINDS, type DefectKind } from "#core/models/defects/kinds";
import { show, showFilm } from "#core/kernel/units/format";
import { DraftForm } from "~/kit/draft/draft-form";
import { useDraft } from "~/kit/draft/use-draft";
import type { FormAnswer } from "~/kit/form/answer";
import { initial } from "~/kit/form/initial";
import { defectMarks } from "~/kit/panel/defect-marks";
import { PanelDrawing } from "~/kit/panel/panel-drawing";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { Field, FieldErrors } from "~/kit/ui/field";
import { middleOf, traceText, useTrace } from "./use-trace";

const NOTHING = { kind: "", size: "", height: "", length: "", width: "", trace: "" };

/**
 * Looking over in place: a tap on the drawing, what it is, how high it stands by things one has in hand or by figures; kept, and on with looking.
 * @param clean what says that nothing was found @param onDone that nothing else was
 */
export function LookOver({ clean, onDone }: { clean: React.ReactNode; onDone: () => void }) {
  const { view } = usePanel();
  const units = useUnits();
  const { panel, state } = view;
  const fetcher = useFetcher<FormAnswer>();
  const errors = fetcher.data?.ok === false ? fetcher.data.errors : {};
  const draft = useDraft("look over", NOTHING, { height: "film", length: "length", width: "length" });
  const { typed } = draft;
  const kind = DEFECT_IDS.find((k) => k === typed.kind) ?? null;
  const { drawn, add, drawAs } = useTrace(typed.trace, (trace) => draft.set("trace", trace));
  const at = middleOf(drawn);
  const heights = kind ? heightsByEye(kind) : [];
  const size = heights.find((h) => h.id === typed.size) ?? null;
  const usual = kind && usualSize(kind);
  const measured = typed.size === "measured";
  const found = state.defects.length > 0;
  const begun = at !== null || kind !== null;
  const choose = (next: DefectKind | null) => {
    draft.set("kind", next ?? "");
    draft.set("size", "");
    // Of what stands singly each tap is one more; of all else the last tap says where.
    if (next && !single(next) && drawn.points.length > 1) drawAs("point");
  };
  const place = (point: readonly [number, number]) => {
    if (kind && single(kind) && drawn.points.length > 0 && drawn.as === "point")
      draft.set("trace", JSON.stringify({ as: "points", points: [...drawn.points, point] }));
    else add([point[0], point[1]]);
  };
  const text = (m: number | null | undefined) => (m === null || m === undefined ? "" : initial("length", m, units));
  const many = Math.max(1, drawn.points.length);
  return (
    <DraftForm draft={draft} fetcher={fetcher} className="grid gap-x-8 gap-y-4 md:grid-cols-[1.1fr_1fr]" data-testid="look-over">
      <input type="hidden" name="intent" value="defect" />
      <input type="hidden" name="formKey" value={`${view.formKey}-look`} />
      <input type="hidden" name="kind" value={kind ?? ""} />
      <input type="hidden" name="measured" value={measured ? "measured" : "judged"} />
      <input type="hidden" name="x" value={at ? initial("length", at[0], units) : ""} />
      <input type="hidden" name="y" value={at ? initial("length", at[1], units) : ""} />
      <input type="hidden" name="trace" value={traceText(drawn)} />
      <input type="hidden" name="count" value={String(many)} />
      {!measured && (
        <>
          <input type="hidden" name="height" value={size ? initial("film", size.height_m, units) : ""} />
          <input type="hidden" name="length" value={text(usual?.length_m)} />
          <input type="hidden" name="width" value={text(usual?.width_m)} />
        </>
      )}
      <PanelDrawing
        shape={panel.shape}
        defects={defectMarks(state.defects, units)}
        onPlace={place}
        placed={drawn.as === "point" ? (drawn.points[0] ?? null) : null}
        drawing={drawn.as === "points" ? { as: "points", at: drawn.points } : null}
        label={`${panel.name}: tap what you see`}
      />
      <div className="space-y-3">
        <Kinds kind={kind} choose={(k) => choose(k === kind ? null : k)} />
        {kind && heights.length > 0 && <Heights heights={heights} chosen={typed.size} choose={(id) => draft.set("size", id)} />}
        {measured && (
          <div className="grid grid-cols-3 gap-2">
            <Field label="Height" unit={units.film} {...draft.field("height")} errors={errors.height} />
            <Field label="Length" unit={units.length} {...draft.field("length")} errors={errors.length} />
            <Field label="Width" unit={units.length} {...draft.field("width")} errors={errors.width} />
          </div>
        )}
        {kind && !measured && (
          <p className="text-[14px] text-ink2" data-testid="by-eye">
            {[
              many > 1 ? `${many} of them` : null,
              size ? `${showFilm(size.height_m, units).text} ${units.film}` : null,
              usual && many === 1
                ? `${show("length", usual.width_m, units).text} × ${show("length", usual.length_m, units).text} ${units.length}`
                : null,
              "by eye",
            ]
              .filter(Boolean)
              .join(", ")}
          </p>
        )}
        <FieldErrors errors={errors.x ?? errors.trace ?? errors.kind} />
        <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
        <div className="grid gap-2">
          {begun && (
            <button className="press min-h-14 text-[17px]" data-kind="main" disabled={fetcher.state !== "idle" || !kind || !at}>
              {!at ? "Tap the place" : !kind ? "Say what it is" : "Keep it, go on looking"}
            </button>
          )}
          {begun && (
            <button
              type="button"
              className="press min-h-12"
              onClick={() => {
                choose(null);
                draft.set("trace", "");
              }}
            >
              It is nothing: take it back
            </button>
          )}
          {found ? (
            <button type="button" className="press min-h-14" {...(begun ? {} : { "data-kind": "main" })} onClick={onDone}>
              Nothing else: done
            </button>
          ) : (
            !begun && clean
          )}
        </div>
      </div>
    </DraftForm>
  );
}

const single = (kind: DefectKind): boolean => DEFECT_KINDS[kind].reach === "point";

/** What it is: what is seen most as presses, the rest from a list. */
function Kinds({ kind, choose }: { kind: DefectKind | null; choose: (kind: DefectKind) => void }) {
  const more = kind && !OFTEN.includes(kind);
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">What is it?</legend>
      <div className="flex flex-wrap gap-2">
        {OFTEN.map((k) => (
          <button
            key={k}
            type="button"
            className="press !px-3 aria-pressed:border-glow-ink aria-pressed:bg-glow-wash"
            aria-pressed={k === kind}
            onClick={() => choose(k)}
          >
            {DEFECT_KINDS[k].name}
          </button>
        ))}
        <select
          aria-label="Something else"
          className="field !w-auto"
          value={more ? kind : ""}
          onChange={(e) => e.target.value !== "" && choose(e.target.value as DefectKind)}
          data-view
        >
          <option value="">More…</option>
          {DEFECT_IDS.filter((k) => !OFTEN.includes(k)).map((k) => (
            <option key={k} value={k}>
              {DEFECT_KINDS[k].name}
            </option>
          ))}
        </select>
      </div>
    </fieldset>
  );
}

/** How high it stands, by things one has in hand; or figures. */
function Heights({ heights, chosen, choose }: { heights: readonly SizeByEye[]; chosen: string; choose: (id: string) => void }) {
  const units = useUnits();
  const press = "press !px-3 flex-col !gap-0 aria-pressed:border-glow-ink aria-pressed:bg-glow-wash";
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">How high over the panel?</legend>
      <div className="flex flex-wrap gap-2">
        {heights.map((h) => (
          <button key={h.id} type="button" className={press} aria-pressed={chosen === h.id} onClick={() => choose(h.id)}>
            {h.name}
            <span className="text-[13px] font-normal">
              {showFilm(h.height_m, units).text} {units.film}
            </span>
          </button>
        ))}
        <button type="button" className={press} aria-pressed={chosen === "measured"} onClick={() => choose("measured")}>
          measured…
        </button>
      </div>
    </fieldset>
  );
}
