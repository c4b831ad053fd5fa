import { useEffect } from "react";
import { useFetcher } from "react-router";
import { toast } from "~/kit/ui/toast";

/** What may be done with a whole job from the list of jobs; each but the last can be undone. */
export type JobIntent = "putAway" | "bringBack" | "delete" | "takeBack" | "forget";
/** What `/jobs/:jobId` answers when it has carried one out. */
export interface JobActionAnswer {
  ok: true;
  intent: JobIntent;
  jobId: string;
  vehicle: string;
}
const DONE: Record<JobIntent, { words: (vehicle: string) => string; undo: JobIntent | null }> = {
  putAway: { words: (v) => `${v} is archived`, undo: "bringBack" },
  bringBack: { words: (v) => `${v} is back on the floor`, undo: "putAway" },
  delete: { words: (v) => `${v} is deleted; its job file is kept below`, undo: "takeBack" },
  takeBack: { words: (v) => `${v} is back on the floor`, undo: null },
  forget: { words: (v) => `The file of ${v} is gone`, undo: null },
};

/** Carries a job's fate out and says so once the server has it, with the way back. */
export function useJobActions(): (intent: JobIntent, job: { id: string; vehicle: string }) => void {
  const { submit, data } = useFetcher<JobActionAnswer | { ok: false }>();
  const act = (intent: JobIntent, { id, vehicle }: { id: string; vehicle: string }) =>
    void submit({ intent, vehicle }, { method: "post", action: `/jobs/${id}` });
  useEffect(() => {
    if (!data?.ok) return;
    const { words, undo } = DONE[data.intent];
    toast.plain(
      words(data.vehicle),
      undo ? { action: { label: "Undo", onClick: () => act(undo, { id: data.jobId, vehicle: data.vehicle }) } } : {},
    );
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a new answer is told once
  }, [data]);
  return act;
}
