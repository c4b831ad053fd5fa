import { rolldown } from "rolldown";

/** What a bundler knows of a module after it was read: its script, and whether it does something by being there. */
interface Read {
  code: string | null;
  moduleSideEffects: boolean | "no-treeshake" | null;
}

/** A script that was emitted beside the others is known to the bundler that emitted it alone. */
const EMITTED = /import\.meta\.ROLL\w+_FILE_URL_[\w$]+/g;

/**
 * What of each module is left once what no page uses is taken out: the project's own modules, bundled for a trial in memory.
 * @param entries ids of modules whose exports are all used
 * @param read what is known of a module; null for what is not the project's own, which is left out
 * @param resolve id of what a module asks for
 * @returns script left, by id; nothing for a module of which nothing is left
 */
export async function leftOf(
  entries: readonly string[],
  read: (id: string) => Read | null,
  resolve: (source: string, importer: string) => Promise<{ id: string } | null>,
): Promise<Map<string, string>> {
  const trial = await rolldown({
    input: Object.fromEntries(entries.map((id, n) => [`page-${n}`, id])),
    logLevel: "silent",
    plugins: [
      {
        name: "as read",
        async resolveId(source, importer) {
          if (!importer) return source;
          const id = (await resolve(source, importer))?.id ?? source;
          return { id, external: read(id) === null };
        },
        load(id) {
          const { code, moduleSideEffects } = read(id)!;
          return { code: (code ?? "").replace(EMITTED, '""'), moduleSideEffects: moduleSideEffects ?? undefined, moduleType: "js" };
        },
      },
    ],
  });
  const { output } = await trial.generate({ format: "es", sourcemapIgnoreList: false });
  await trial.close();
  return new Map(
    output.flatMap((chunk) =>
      chunk.type === "chunk" ? Object.entries(chunk.modules).map(([id, m]): [string, string] => [id, m.code ?? ""]) : [],
    ),
  );
}
