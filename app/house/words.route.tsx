import { InUnits } from "~/kit/ui/in-units";
import { PageHeader } from "~/kit/shell/page-header";
import { WordDrawing } from "./word-drawing";
import { WORDS } from "./words.texts";

export const meta = () => [{ title: "Words · Yakamoz" }];

/** The trade's words as this program means them, each with a drawing. */
export default function Words() {
  return (
    <>
      <PageHeader title="Words" note="What each word means here, with the film cut through" />
      <main className="px-4 py-6 sm:px-6">
        <ul className="grid max-w-[1080px] gap-x-10 border-t border-hair lg:grid-cols-2" data-figures>
          {WORDS.map(({ id, name, says }) => (
            <li key={id} id={id} className="flex items-center gap-4 border-b border-hair py-3">
              <WordDrawing id={id} />
              <div>
                <h2 className="text-[17px] font-semibold">{name}</h2>
                <p className="text-ink2">
                  <InUnits>{says}</InUnits>
                </p>
              </div>
            </li>
          ))}
        </ul>
      </main>
    </>
  );
}
