import { useCallback, useEffect, useRef, useState } from "react";
import { useForm } from "react-hook-form";
import { type FetcherWithComponents, Form, type FormProps, useActionData, useLocation, useNavigation } from "react-router";
import type { FormAnswer } from "~/kit/form/answer";
import { useBeforePaint } from "~/kit/root/before-paint";
import { useUnits } from "~/kit/root/use-root";
import { FieldsContext, type OwnFields } from "~/kit/ui/fields-context";
import { UnitsField } from "~/kit/ui/units-field";
import { type FieldQuantity, type FieldValue, type Kept, filledInOn, onVersion, shownIn, touched, uponVersion } from "./kept";
import { type Draft, useKept } from "./use-draft";
import { useRefused } from "./use-refused";

type Sends = FetcherWithComponents<FormAnswer>;
interface Common extends FormProps {
  /** What sends it; without one the form navigates. */
  fetcher?: Sends | undefined;
}

/** A form whose fields are a desk's own draft: sent as it stands, given up or stored as a whole. */
export function DraftForm({
  draft,
  fetcher,
  children,
  ...props
}: Common & { draft: Pick<Draft, "left" | "clear" | "kept" | "version" | "standUpon"> }) {
  const sent = useStored(fetcher, draft.kept);
  useShown(fetcher, draft.standUpon);
  const element = useRef<HTMLFormElement>(null);
  return (
    <Sender fetcher={fetcher} version={draft.version} {...props} onSent={sent} element={element}>
      {children}
      {draft.left && <Left onAgain={draft.clear} />}
    </Sender>
  );
}

/**
 * A form of plain fields: each keeps its own text, registered by its name, and starts from its `defaultValue`. What is typed outlives reload,
 * back, an error, a switch of units and other people's entries.
 * @param place name of the form on its page
 * @param version of what its `defaultValue`s show; it sends the one that it was filled in on
 */
export function KeptForm({ place, version, fetcher, children, ...props }: Common & { place: string; version?: string | undefined }) {
  const units = useUnits();
  const { key, fields, keep, forget } = useKept(place);
  const { register, setValue, getValues } = useForm();
  const [left, setLeft] = useState(false);
  const [upon, setUpon] = useState<string>();
  const element = useRef<HTMLFormElement>(null);
  const quantities = useRef(new Map<string, FieldQuantity>());

  /** What somebody has touched stands as it was left. */
  const show = useCallback(() => {
    const kept = fields();
    for (const [name, field] of touched(kept)) setValue(name, shownIn(field, units));
    setUpon(filledInOn(kept));
    setLeft(touched(kept).length > 0);
  }, [fields, setValue, units]);
  useBeforePaint(show, [show, key]);
  /** Every other field as it starts now. What is typed before the browser has taken over stays. */
  const startAgain = useCallback(() => {
    element.current?.reset();
    show();
  }, [show]);
  const started = useRef(version);
  useBeforePaint(() => {
    if (started.current !== version) startAgain();
    started.current = version;
  }, [version, startAgain]);

  const ended = () => {
    startAgain();
    setLeft(false);
  };
  const sent = useStored(fetcher, { key, fields, forget, show: ended });
  useShown(fetcher, (now) => {
    keep(uponVersion(fields(), now));
    setUpon(now);
  });
  const own: OwnFields = {
    register(name, quantity) {
      if (quantity !== undefined) quantities.current.set(name, quantity);
      return register(name, {
        onChange: () => {
          const field = { value: getValues(name) as FieldValue, units, quantity: quantities.current.get(name) };
          const next = onVersion({ ...fields(), [name]: field }, version);
          keep(next);
          setUpon(filledInOn(next));
        },
      });
    },
  };
  return (
    <FieldsContext value={own}>
      <Sender fetcher={fetcher} version={version === undefined ? undefined : (upon ?? version)} {...props} onSent={sent} element={element}>
        {children}
        {left && (
          <Left
            onAgain={() => {
              forget(fields());
              ended();
            }}
          />
        )}
      </Sender>
    </FieldsContext>
  );
}

function Sender({
  fetcher,
  version,
  onSent,
  children,
  element,
  ...props
}: Common & { version?: string | undefined; onSent: () => void; element: React.RefObject<HTMLFormElement | null> }) {
  const As = fetcher?.Form ?? Form;
  const page = useActionData<FormAnswer>();
  const refused = useRefused(element, fetcher ? fetcher.data : page);
  return (
    <As
      method="post"
      noValidate
      {...props}
      ref={element}
      onSubmit={(e) => {
        props.onSubmit?.(e);
        if (e.defaultPrevented) return;
        refused.onSubmit();
        onSent();
      }}
    >
      <UnitsField />
      {version !== undefined && <input type="hidden" name="version" value={version} />}
      {children}
      {refused.names.length > 0 && (
        <p role="status" className="basis-full font-medium text-stop-ink">
          Not stored. To be put right: {refused.names.join(", ")}.
        </p>
      )}
    </As>
  );
}

/** A draft that was sent, and how things stood then. */
interface Sent {
  fields: Kept;
  answer: FormAnswer | undefined;
  page: string;
  stored: boolean;
}
/** By where drafts are kept: what an answer changes may take the form away, and the one in its place must know it was stored. */
const onTheWay = new Map<string, Sent>();

/**
 * Ends what was sent of a draft when it is stored: by a fetcher's own answer, or by a navigation that ended without a message. It is forgotten with
 * the answer; the fields follow once the page shows what is stored.
 */
function useStored(fetcher: Sends | undefined, kept: Draft["kept"]): () => void {
  const data = useActionData<FormAnswer>();
  const { state } = useNavigation();
  const page = useLocation().key;
  const answer = fetcher ? fetcher.data : data;
  const idle = fetcher ? fetcher.state === "idle" : state === "idle";
  const { key, fields } = kept;
  const now = useRef(kept);
  useEffect(() => {
    now.current = kept;
  });
  useEffect(() => {
    const sent = onTheWay.get(key);
    if (!sent) return;
    const answered = fetcher ? answer !== sent.answer : idle && (answer !== sent.answer || page !== sent.page);
    if (!answered) return;
    if (!sent.stored && (fetcher ? answer?.ok : answer?.ok !== false)) {
      sent.stored = true;
      now.current.forget(sent.fields);
    }
    if (!idle) return;
    onTheWay.delete(key);
    if (sent.stored) now.current.show();
  }, [answer, idle, page, key, fetcher]);
  useEffect(
    () => () => {
      // A navigation that took the form away was an answer: stored.
      const sent = fetcher ? undefined : onTheWay.get(key);
      if (!sent) return;
      onTheWay.delete(key);
      now.current.forget(sent.fields);
    },
    // eslint-disable-next-line react-hooks/exhaustive-deps -- at the end of the form only
    [],
  );
  return () => void onTheWay.set(key, { fields: fields(), answer, page, stored: false });
}

/** What another window stored meanwhile was shown at the fields: from now on the form stands upon that. */
function useShown(fetcher: Sends | undefined, standUpon: (version: string) => void): void {
  const page = useActionData<FormAnswer>();
  const version = (fetcher ? fetcher.data : page)?.version;
  useEffect(() => {
    if (version !== undefined) standUpon(version);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once an answer
  }, [version, fetcher?.data, page]);
}

/** Tells that what stands here was typed before, and lets it be given up. */
function Left({ onAgain }: { onAgain: () => void }) {
  return (
    <p className="flex flex-wrap items-center gap-x-3 text-[14px] text-ink2" data-testid="half-typed">
      You left this half-typed; it is kept until it is stored.
      <button type="button" className="press" data-kind="quiet" onClick={onAgain}>
        Start again
      </button>
    </p>
  );
}
