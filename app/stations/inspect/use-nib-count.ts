import { useCallback, useState } from "react";
import type { Inclusion } from "#core/models/photo/nibs";
import { computeClient } from "~/kit/run/compute-client";
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
type State =
  | { at: "none"; reason: string | null }
  | { at: "picture"; picture: NibPicture }
  | { at: "looking"; picture: NibPicture; progress: number }
  | { at: "counted"; picture: NibPicture; marks: NibMark[]; smallest_m: number }
  | { at: "refused"; picture: NibPicture; reason: string };

/** A picture on its way from file to counted marks; the count runs in a worker and can be stopped. */
export function useNibCount() {
  const [state, setState] = useState<State>({ at: "none", reason: null });
  const [controller, setController] = useState<AbortController | null>(null);

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

  const count = useCallback(async (picture: NibPicture, width_m: number) => {
    const abort = new AbortController();
    setController(abort);
    setState({ at: "looking", picture, progress: 0 });
    const pixels = await pixelsOf(picture.blob);
    try {
      const answer = await computeClient("photo").run(
        "findInclusions",
        { ...pixels, scale_m_px: width_m / pixels.width },
        { signal: abort.signal, onProgress: (progress) => setState({ at: "looking", picture, progress }) },
      );
      setState(
        answer.ok
          ? { at: "counted", picture, marks: answer.found.map(markOf), smallest_m: answer.smallest_m }
          : { at: "refused", picture, reason: answer.reason },
      );
    } catch (error) {
      if (error instanceof DOMException && error.name === "AbortError") setState({ at: "picture", picture });
      else setState({ at: "refused", picture, reason: error instanceof Error ? error.message : String(error) });
    }
  }, []);

  const change = useCallback(
    (marks: (list: NibMark[]) => NibMark[]) => setState((s) => (s.at === "counted" ? { ...s, marks: marks(s.marks) } : s)),
    [],
  );
  return { state, take, count, change, cancel: () => controller?.abort(), clear: () => setState({ at: "none", reason: null }) };
}

const markOf = (f: Inclusion): NibMark => ({ x: f.x, y: f.y, diameter_m: f.diameter_m, atMost: f.atMost, by: "found", struck: false });
