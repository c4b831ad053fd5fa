import { useCallback, useEffect, useMemo, useState } from "react";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import type { OpName, Ops } from "#workers/ops";
import { type WorkLine, computeClient } from "./compute-client";
import { questionText, textName } from "./question-text";
import { useRunClient } from "./run-client";
import { faultInWords } from "./run-fault";

/** How far a calculation has come, whatever it answers. */
export interface RunState {
  /** From the moment the question changes until it is answered, given up or has failed. */
  busy: boolean;
  /** Share of the work that is done, 0 to 1. */
  progress: number;
  /** What went wrong, in words; null while nothing did. */
  fault: string | null;
  cancel: () => void;
}
export interface Run<K extends OpName> extends RunState {
  /** Newest finished answer; kept while the next is worked out, so that nothing jumps. */
  result: Ops[K]["out"] | null;
  /** The question that `result` answers. */
  asked: Ops[K]["in"] | null;
}

/** Waits so long for the question to rest before it starts. */
const REST_MS = 120;
/** Answers are kept so long after the last page that showed them: back on the page, the same question is not worked out again. */
const KEPT_MS = 5 * 60_000;

const keyOf = (line: WorkLine, op: OpName, text: string) => [line, op, textName(text)];

/** A question as the store of answers has it, by its text: the one place where a worker is asked. */
const asking = <K extends OpName>(line: WorkLine, op: K, text: string, onProgress: (share: number) => void = () => {}) => ({
  queryKey: keyOf(line, op, text),
  queryFn: async ({ signal }: { signal: AbortSignal }) => {
    const asked = JSON.parse(text) as Ops[K]["in"];
    onProgress(0);
    return { asked, result: await computeClient(line).run(op, asked, { signal, onProgress }) };
  },
  gcTime: KEPT_MS,
});

/** A page rests so long before what may be asked next is worked out. */
const AHEAD_MS = 600;

/** Works out what a page that may be opened next will ask, once this one rests: opened, it finds the answer. */
export function useAskAhead<K extends OpName>(line: WorkLine, op: K, input: Ops[K]["in"] | null): void {
  const client = useRunClient();
  const question = useMemo(() => questionText(input), [input]);
  const rested = useRested(question, AHEAD_MS);
  useEffect(() => {
    if (rested === null || rested === "null") return;
    const query = asking(line, op, rested);
    // What came to nothing is forgotten: the page asks again, and says why if it comes to nothing there.
    const forget = () => client.removeQueries({ queryKey: query.queryKey, predicate: (q) => q.getObserversCount() === 0 });
    void client.fetchQuery(query).catch(forget);
  }, [client, line, op, rested]);
}

/** Works an answer out in a worker whenever the question changes; an older run is cancelled first. No question, no answer. */
export function useRun<K extends OpName>(line: WorkLine, op: K, input: Ops[K]["in"] | null, rest_ms = REST_MS): Run<K> {
  const client = useRunClient();
  const question = useMemo(() => questionText(input), [input]);
  // What is known already is shown at once.
  const known = useMemo(() => client.getQueryData(keyOf(line, op, question)) !== undefined, [client, line, op, question]);
  const rested = useRested(question, known ? 0 : rest_ms);
  const [progress, setProgress] = useState(0);
  const query = useMemo(() => asking(line, op, rested ?? "null", setProgress), [line, op, rested]);
  const { data, error, isFetching } = useQuery(
    { ...query, enabled: rested !== null && rested !== "null", placeholderData: keepPreviousData },
    client,
  );
  const none = input === null;
  const [result, asked] = none || !data ? [null, null] : [data.result, data.asked];
  const busy = !none && (rested !== question || isFetching);
  const done = isFetching ? progress : data ? 1 : 0;
  const fault = none || isFetching ? null : faultInWords(error);
  const cancel = useCallback(() => void client.cancelQueries({ queryKey: query.queryKey }), [client, query]);
  // The same object as long as it says the same: what shows it need not be drawn again with every figure that is typed.
  return useMemo(() => ({ result, asked, busy, progress: done, fault, cancel }), [result, asked, busy, done, fault, cancel]);
}

/** The question as it was when it last rested; null before the first rest, so that nothing starts on the server or in a half-drawn page. */
function useRested(question: string, rest_ms: number): string | null {
  const [rested, setRested] = useState<string | null>(null);
  useEffect(() => {
    const wait = setTimeout(() => setRested(question), rest_ms);
    return () => clearTimeout(wait);
  }, [question, rest_ms]);
  return rested;
}
