import { keepPhoto } from "#server/commands/photos";
import type { ServerContext } from "#server/context";

/** The photograph that came with a form, kept; null where none was chosen. @throws Refusal in words for a file that is no picture */
export async function photoOf(ctx: ServerContext, form: FormData): Promise<string | null> {
  const file = form.get("photos");
  return file instanceof File && file.name ? keepPhoto(ctx, { name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) }) : null;
}
