import { createWriteStream } from "node:fs";
import { mkdtemp, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import type { ReadableStream as NodeReadableStream } from "node:stream/web";
import busboy from "busboy";
import pLimit from "p-limit";
import { data } from "react-router";
import { PHOTO_LIMITS } from "#server/commands/photos";
import { FORM_BYTES, JOB_FILE_BYTES, PHOTOS_A_FORM, bodyLimit, tooLargeBody } from "#server/http/body-limits";
import { jsonOf } from "./json-lines";

/** Bounds of one form: no page of ours comes near them. */
const LIMITS = { fields: 2000, nameBytes: 200, fieldBytes: FORM_BYTES, files: PHOTOS_A_FORM } as const;
/** Uploads are read so many at a time: each is held in memory once. */
const uploads = pLimit(2);

/** A body that cannot be taken, with the status and the words to answer. */
class Unreadable extends Error {
  constructor(
    readonly status: number,
    words: string,
  ) {
    super(words);
  }
}
const notUnderstood = (what: string) => new Unreadable(400, `The form was not understood: ${what}. Nothing was stored.`);

/** What a body is read as; one that cannot be taken is thrown as its answer. */
async function answered<T>(reading: Promise<T>): Promise<T> {
  try {
    return await reading;
  } catch (error) {
    if (error instanceof Unreadable) throw data(error.message, { status: error.status });
    throw error;
  }
}

/** The form a request carries. @throws 400, 413 or 415 in words for one that cannot be read or is out of bounds */
export const formOf = (request: Request): Promise<FormData> => answered(readForm(request));

async function readForm(request: Request): Promise<FormData> {
  const type = request.headers.get("Content-Type") ?? "";
  if (type.startsWith("application/x-www-form-urlencoded")) return typedForm(await readText(request));
  if (type.startsWith("multipart/form-data")) return uploads(() => uploadedForm(request, type));
  throw new Unreadable(415, "Send a form (application/x-www-form-urlencoded or multipart/form-data).");
}

function typedForm(text: string): FormData {
  const form = new FormData();
  let count = 0;
  for (const [name, value] of new URLSearchParams(text)) {
    if (++count > LIMITS.fields) throw new Unreadable(413, `A form has at most ${LIMITS.fields} fields.`);
    if (name.length > LIMITS.nameBytes) throw notUnderstood("a field's name is too long");
    form.append(name, value);
  }
  return form;
}

/** What becomes of a file of an upload: a member of the form, once its stream has ended. */
type KeepFile = (stream: Readable, info: busboy.FileInfo) => Promise<File | null>;

const inMemory: KeepFile = (stream, info) =>
  new Promise((resolve, reject) => {
    const chunks: Uint8Array<ArrayBuffer>[] = [];
    stream.on("data", (chunk: Uint8Array<ArrayBuffer>) => chunks.push(chunk));
    stream.on("error", reject);
    stream.on("end", () => resolve(new File(chunks, info.filename ?? "", { type: info.mimeType })));
  });

function uploadedForm(request: Request, type: string, keep: KeepFile = inMemory): Promise<FormData> {
  const { body } = request;
  if (!body) throw notUnderstood("it is empty");
  return new Promise((resolve, reject) => {
    const form = new FormData();
    const kept: Promise<void>[] = [];
    let parser: busboy.Busboy;
    try {
      parser = busboy({
        headers: { "content-type": type },
        defParamCharset: "utf8",
        limits: {
          fields: LIMITS.fields,
          fieldNameSize: LIMITS.nameBytes,
          fieldSize: LIMITS.fieldBytes,
          files: LIMITS.files,
          parts: LIMITS.fields + LIMITS.files,
          fileSize: Math.min(bodyLimit(new URL(request.url).pathname), Math.max(JOB_FILE_BYTES, PHOTO_LIMITS.bytes)),
        },
      });
    } catch {
      return reject(notUnderstood("its parts have no boundary"));
    }
    const source = Readable.fromWeb(body as unknown as NodeReadableStream<Uint8Array>);
    const end = (refusal: Unreadable) => {
      source.unpipe(parser);
      source.resume(); // read to its end, which is bounded: a connection torn down in the middle shows no answer
      reject(refusal);
    };
    parser.on("field", (name, value, info) => {
      if (info.nameTruncated || info.valueTruncated)
        return end(new Unreadable(413, "A field of the form is too long. Nothing was stored."));
      form.append(name, value);
    });
    parser.on("file", (name, stream, info) => {
      stream.on("limit", () => end(tooLargeFile()));
      kept.push(
        keep(stream, info).then(
          (file) => void (file && form.append(name, file)),
          () => end(notUnderstood("a file in it is cut off")),
        ),
      );
    });
    const many = () => end(new Unreadable(413, `A form has at most ${LIMITS.fields} fields and ${LIMITS.files} files.`));
    parser.on("fieldsLimit", many).on("filesLimit", many).on("partsLimit", many);
    parser.on("error", () => end(notUnderstood("its parts do not end as they should")));
    parser.on("close", () => void Promise.all(kept).then(() => resolve(form)));
    source.on("error", () => end(notUnderstood("it was cut off")));
    source.pipe(parser);
  });
}

/**
 * The one file that a request carries, written to the disk as it comes and handed to `read`, which may let another thread read it: a file of a
 * hundred megabytes is never held here. Removed afterwards, whatever comes. Null: there is none, or it is empty.
 * @throws 400, 413 or 415 in words
 */
export async function withSentFile<T>(request: Request, read: (path: string | null) => Promise<T>): Promise<T> {
  const type = request.headers.get("Content-Type") ?? "";
  const folder = await mkdtemp(join(tmpdir(), "yakamoz-file-"));
  const path = join(folder, "sent");
  let bytes = 0;
  const toDisk: KeepFile = async (stream) => {
    const target = createWriteStream(path, { flags: "wx" });
    await pipeline(stream, target);
    bytes = target.bytesWritten;
    return null;
  };
  try {
    if (!type.startsWith("multipart/form-data")) throw data("Send a form with a file (multipart/form-data).", { status: 415 });
    await answered(uploads(() => uploadedForm(request, type, toDisk)));
    return await read(bytes > 0 ? path : null);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const tooLargeFile = () => new Unreadable(413, "The file is too large. Nothing was stored.");

/** The text a request carries, at most what its route takes. @throws 400 or 413 in words */
export const textBodyOf = (request: Request): Promise<string> => answered(readText(request));

async function readText(request: Request): Promise<string> {
  const most = bodyLimit(new URL(request.url).pathname);
  const chunks: Uint8Array[] = [];
  let bytes = 0;
  try {
    if (request.body)
      for await (const chunk of Readable.fromWeb(request.body as unknown as NodeReadableStream<Uint8Array>) as AsyncIterable<Uint8Array>) {
        bytes += chunk.length;
        if (bytes > most) throw new Unreadable(413, tooLargeBody(most));
        chunks.push(chunk);
      }
  } catch (error) {
    if (error instanceof Unreadable) throw error;
    throw notUnderstood("it was cut off");
  }
  return Buffer.concat(chunks).toString("utf8");
}

/** The JSON a request carries; null for text that is none: every route checks what it gets. */
export const jsonBodyOf = async (request: Request): Promise<unknown> => jsonOf(await textBodyOf(request));
