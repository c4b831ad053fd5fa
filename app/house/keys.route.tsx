import { SHORTCUTS } from "./shortcuts";
import { PageHeader } from "~/kit/shell/page-header";

export const meta = () => [{ title: "Keyboard shortcuts · Yakamoz" }];

export default function Keys() {
  return (
    <>
      <PageHeader title="Keyboard shortcuts" note="Everything can be reached without a mouse" />
      <main className="px-4 py-6 sm:px-6">
        <dl className="grid max-w-[640px] grid-cols-[auto_1fr] gap-x-8 border-t border-hair">
          {SHORTCUTS.map((s) => (
            <div key={s.keys} className="contents">
              <dt className="border-b border-hair py-3 font-semibold">{s.keys}</dt>
              <dd className="border-b border-hair py-3">{s.does}</dd>
            </div>
          ))}
        </dl>
      </main>
    </>
  );
}
