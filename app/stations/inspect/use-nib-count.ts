import { useCallback, useState } from "react";
import type { Inclusion } from "#core/models/photo/nibs";
import { useTask } from "~/kit/run/use-task";
import { type PictureSource, askPicture, pixelsOf } from "./picture";

export interface NibPicture {
  url: string;
  blob: Blob;
  /** The file as it was chosen; null for the stand-in camera. */
  original: File | null;
  width: number;
  height: number;
  simulated: boolean;
  /** Width of panel seen, where the camera says so itself. */
  width_m: number | null;
}
export interface NibMark {
  x: number;
  y: number;
  diameter_m: number | null;
  atMost: boolean;
  /** By the program, or added by the painter. */
  by: "found" | "added";
  struck: boolean;
}
export type NibCountState =
  | { at: "none"; reason: string | null }
  | { at: "picture"; picture: NibPicture }
  | { at: "looking"; picture: NibPicture }
  | { at: "counted"; picture: NibPicture; marks: NibMark[]; smallest_m: number }
  | { at: "refused"; picture: NibPicture; reason: string };

/** A picture on its way from file to counted marks; the count runs in a worker and can be stopped. */
export function useNibCount() {
  const [state, setState] = useState<NibCountState>({ at: "none", reason: null });
  const { run, progress, cancel } = useTask("photo", "findInclusions");

  const take = useCallback(async (source: PictureSource) => {
    setState({ at: "none", reason: null });
    const { answer, reason } = await askPicture(source);
    if (!answer) return setState({ at: "none", reason });
    const blob = await answer.blob();
    const bitmap = await createImageBitmap(blob);
    const width_m = answer.headers.get("X-Width-M");
    setState({
      at: "picture",
      picture: {
        url: URL.createObjectURL(blob),
        blob,
        original: "file" in source ? source.file : null,
        width: bitmap.width,
        height: bitmap.height,
        simulated: answer.headers.get("X-Simulated") === "1",
        width_m: width_m === null ? null : Number(width_m),
      },
    });
    bitmap.close();
  }, []);

  const count = async (picture: NibPicture, width_m: number) => {
    setState({ at: "looking", picture });
    const answer = await run(async () => {
      const pixels = await pixelsOf(picture.blob);
      return { ...pixels, scale_m_px: width_m / pixels.width };
    });
    if (answer.at === "stopped") return setState({ at: "picture", picture });
    if (answer.at === "failed") return setState({ at: "refused", picture, reason: answer.reason });
    const { output } = answer;
    setState(
      output.ok
        ? { at: "counted", picture, marks: output.found.map(markOf), smallest_m: output.smallest_m }
        : { at: "refused", picture, reason: output.reason },
    );
  };

  const change = useCallback(
    (marks: (list: NibMark[]) => NibMark[]) => setState((s) => (s.at === "counted" ? { ...s, marks: marks(s.marks) } : s)),
    [],
  );
  return { state, take, count, change, progress, cancel, clear: () => setState({ at: "none", reason: null }) };
}

const markOf = (f: Inclusion): NibMark => ({ x: f.x, y: f.y, diameter_m: f.diameter_m, atMost: f.atMost, by: "found", struck: false });
