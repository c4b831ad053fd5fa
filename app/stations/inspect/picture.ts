/** A picture chosen by hand, or the stand-in camera's at an address. */
export type PictureSource = { file: File } | { standIn: string };

/** The picture as it is looked at, with what its sender says of it, or why it was refused. */
export async function askPicture(source: PictureSource): Promise<{ answer: Response; reason: null } | { answer: null; reason: string }> {
  let answer: Response;
  if ("file" in source) {
    const form = new FormData();
    form.set("file", source.file);
    answer = await fetch("/do/photos/look", { method: "POST", body: form });
  } else answer = await fetch(source.standIn);
  if (answer.ok) return { answer, reason: null };
  const told = (await answer.json().catch(() => null)) as { reason?: string } | null;
  return { answer: null, reason: told?.reason ?? "The picture could not be read" };
}

/** Its pixels, four bytes each. */
export async function pixelsOf(blob: Blob): Promise<{ rgba: Uint8ClampedArray; width: number; height: number }> {
  const bitmap = await createImageBitmap(blob);
  const drawing = new OffscreenCanvas(bitmap.width, bitmap.height).getContext("2d")!;
  drawing.drawImage(bitmap, 0, 0);
  const { data: rgba, width, height } = drawing.getImageData(0, 0, bitmap.width, bitmap.height);
  bitmap.close();
  return { rgba, width, height };
}
