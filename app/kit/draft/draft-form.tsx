import { useEffect, useRef, useState } from "react";
import { useForm } from "react-hook-form";
import { type FetcherWithComponents, Form, type FormProps, useActionData, useLocation, useNavigation } from "react-router";
import type { FormAnswer } from "~/kit/form/answer";
import { useUnits } from "~/kit/root/use-root";
import { FieldsContext, type OwnFields } from "~/kit/ui/fields-context";
import { UnitsField } from "~/kit/ui/units-field";
import { type FieldQuantity, type FieldValue, filledInOn, onVersion, shownIn, touched, uponVersion } from "./kept";
import { type Draft, useBeforePaint, useKept } from "./use-draft";

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
}: Common & { draft: Pick<Draft, "left" | "clear" | "sending" | "version" | "standUpon"> }) {
  const sent = useStored(fetcher, draft.sending);
  useShown(fetcher, draft.standUpon);
  return (
    <Sender fetcher={fetcher} version={draft.version} {...props} onSent={sent}>
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

  useBeforePaint(() => {
    const kept = fields();
    setLeft(touched(kept).length > 0);
    setUpon(filledInOn(kept));
    for (const [name, field] of touched(kept)) setValue(name, shownIn(field, units));
  }, [key, fields, setValue, units]);

  const sending = () => {
    const then = fields();
    return () => {
      const rest = forget(then);
      setLeft(false);
      setUpon(filledInOn(rest));
      element.current?.reset();
      for (const [name, field] of touched(rest)) setValue(name, shownIn(field, units));
    };
  };
  const sent = useStored(fetcher, sending);
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
      <Sender fetcher={fetcher} version={version === undefined ? undefined : (upon ?? version)} {...props} onSent={sent} ref={element}>
        {children}
        {left && <Left onAgain={() => sending()()} />}
      </Sender>
    </FieldsContext>
  );
}

function Sender({
  fetcher,
  version,
  onSent,
  children,
  ...props
}: Common & { version?: string | undefined; onSent: () => void; ref?: React.Ref<HTMLFormElement> }) {
  const As = fetcher?.Form ?? Form;
  return (
    <As
      method="post"
      noValidate
      {...props}
      onSubmit={(e) => {
        props.onSubmit?.(e);
        if (!e.defaultPrevented) onSent();
      }}
    >
      <UnitsField />
      {version !== undefined && <input type="hidden" name="version" value={version} />}
      {children}
    </As>
  );
}

/** Ends what was sent of a draft when it is stored: by a fetcher's own answer, or by a navigation that ended without a message. */
function useStored(fetcher: Sends | undefined, sending: () => () => void): () => void {
  const page = useActionData<FormAnswer>();
  const { state } = useNavigation();
  const { key } = useLocation();
  /** How things stood when it was sent; null while nothing is on its way. */
  const sent = useRef<{ answer: FormAnswer | undefined; key: string; stored: () => void } | null>(null);
  const answer = fetcher ? fetcher.data : page;
  const idle = fetcher ? fetcher.state === "idle" : state === "idle";
  useEffect(() => {
    const before = sent.current;
    const answered = before !== null && idle && (answer !== before.answer || (!fetcher && key !== before.key));
    if (!answered) return;
    sent.current = null;
    if (fetcher ? answer?.ok : answer?.ok !== false) before.stored();
  }, [answer, idle, key, fetcher]);
  useEffect(
    () => () => {
      // A navigation that took the form away was an answer: stored.
      if (sent.current && !fetcher) sent.current.stored();
    },
    // eslint-disable-next-line react-hooks/exhaustive-deps -- at the end of the form only
    [],
  );
  return () => {
    sent.current = { answer, key, stored: sending() };
  };
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
