import { createDeviceProgram } from "~/kit/away/ask-device";
import { SONNER_STYLES } from "~/kit/http/sonner-style";
import { PREPARED } from "~/kit/away/device-names";
import { pagePolicy, policyText } from "#server/http/page-policy";
import { standingNow } from "~/kit/away/device-store";

/**
 * Opens a page where the server does not answer: the program on the device draws it, it is laid down for the service worker, and the page is loaded
 * once more.
 */
async function openCold(): Promise<void> {
  const standing = await standingNow();
  if (!standing) throw new Error("It has not kept anything of the shop yet.");
  const nonce = btoa(String.fromCharCode(...crypto.getRandomValues(new Uint8Array(16))));
  const url = location.href.replace(/#.*/, "");
  const answer = await createDeviceProgram().ask(standing.program, {
    url,
    method: "GET",
    headers: [["Accept", "text/html"]],
    body: null,
    cookie: document.cookie,
    key: "",
    happened_ms: Date.now(),
    nonce,
  });
  const to = answer.headers.find(([name]) => name === "location")?.[1];
  if (to !== undefined) return location.replace(to);
  const policy = policyText(pagePolicy(nonce, SONNER_STYLES));
  const page = new Response(answer.body, {
    status: answer.status,
    headers: { "Content-Type": "text/html; charset=utf-8", "Content-Security-Policy": policy },
  });
  await (await caches.open(PREPARED)).put(url, page);
  location.reload();
}

openCold().catch((error: unknown) => {
  const said = error instanceof Error ? error.message : String(error);
  document.getElementById("said")!.textContent =
    `The shop's server does not answer, and this device cannot go on without it. ${said} Try again when the server is back.`;
});
