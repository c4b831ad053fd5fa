import { ratioText, readRatio } from "#core/models/product/ratio";
import { Field } from "~/kit/ui/field";
import { ratioWords } from "~/kit/words/ratio-words";

interface RatioDraft {
  typed: { ratio: string };
  set: ((name: "ratio" | "reducer", value: string) => void) & ((name: "meaning", value: "activated") => void);
}

/** The ratio of a mix as people write it, read back in words; a reducer written with it goes to its own field. */
export function MixRatio({ draft, errors }: { draft: RatioDraft; errors: string[] | undefined }) {
  const { ratio } = draft.typed;
  const type = (text: string) => {
    const read = /%\s*$/.test(text) ? readRatio(text) : null;
    if (!read?.ok || !read.reducer || read.reducer.min !== read.reducer.max) return draft.set("ratio", text);
    draft.set("ratio", ratioText(read.parts));
    draft.set("reducer", String(Number((100 * read.reducer.max).toFixed(2))));
    draft.set("meaning", "activated"); // as it was read back: on top
  };
  return (
    <Field
      label="Ratio by volume"
      name="ratio"
      value={ratio}
      onChange={(e) => type(e.target.value)}
      errors={errors}
      hint={ratioWords(ratio) ?? undefined}
    />
  );
}
