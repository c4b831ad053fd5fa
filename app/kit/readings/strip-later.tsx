import { later, useLater } from "~/kit/root/later";

const strip = later(() => import("./strip-desk"));

/** Of plastic alone: a strip is read beside it. It comes after the page, in the room that it takes. */
export function StripLater() {
  const part = useLater(strip, true);
  return <div className="min-h-[320px]">{part && <part.StripDesk />}</div>;
}
