import { useEffect } from "react";
import { useRoot } from "~/kit/root/use-root";

/** A page before anybody is in: one sentence, what is done, and nothing of the shop but its name. */
export function Door({ title, children }: { title: string; children: React.ReactNode }) {
  const { shop, who } = useRoot();
  useEffect(() => void (document.documentElement.dataset.live = ""), []); // scripts run from here on, as the shell says elsewhere
  const page = (
    <div className="mx-auto max-w-[34rem] space-y-5 px-4 py-8 sm:py-14">
      <div>
        <p className="small-label mb-2">{shop.name}</p>
        <h1 className="text-[25px] leading-[1.12] font-semibold tracking-tight sm:text-[31px]">{title}</h1>
      </div>
      {children}
    </div>
  );
  // Somebody who is in sees the shop's pages around it, and they have their landmarks.
  return who === "nobody" ? (
    <main id="page" className="min-h-dvh">
      {page}
    </main>
  ) : (
    <main>{page}</main>
  );
}
