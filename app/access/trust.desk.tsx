import { Door } from "./door";

/** What each kind of device asks for before it believes a certificate of the shop's own. From memory of their settings; the words there change. */
const WAYS: { what: string; steps: string[] }[] = [
  {
    what: "Android tablet or telephone",
    steps: [
      "Load the certificate below.",
      "Settings, Security, Encryption and credentials, Install a certificate, CA certificate: choose the file that was loaded.",
      "Close the browser once, then open the safe address.",
    ],
  },
  {
    what: "iPad or iPhone",
    steps: [
      "Load the certificate below in the device's own browser and allow the profile.",
      "Settings, General, VPN and Device Management: install the profile.",
      "Settings, General, About, Certificate Trust Settings: switch it on.",
    ],
  },
  {
    what: "Windows computer",
    steps: ["Load the certificate below and open it.", "Install Certificate, Local Machine, into Trusted Root Certification Authorities."],
  },
  { what: "Mac", steps: ["Load the certificate below and open it: the keychain takes it in.", "Open it there, Trust, Always Trust."] },
  {
    what: "Linux computer",
    steps: ["Load the certificate below.", "Browser settings, Privacy and security, Certificates, Authorities, Import: for websites."],
  },
];

/** Leads a device through trusting the shop's own certificate. */
export function TrustDesk({ secure, links, fingerprint }: { secure: boolean; links: readonly string[]; fingerprint: string | null }) {
  if (!fingerprint)
    return (
      <Door title="There is no certificate to trust here.">
        <p>The program answers this machine alone, or a certificate of your own choice stands before it.</p>
      </Door>
    );
  const [link] = links;
  return (
    <Door title={secure ? "You are on the safe address." : "Trust this shop's certificate once."}>
      {!secure && <p>Then the live camera works, serial devices do, and the pages open without the server.</p>}
      <p>
        <a className="press" data-kind="main" href="/authority.crt" download>
          Load the certificate
        </a>
      </p>
      {WAYS.map(({ what, steps }) => (
        <details key={what} className="border-b border-hair">
          <summary className="flex min-h-12 cursor-pointer items-center font-semibold">{what}</summary>
          <ol className="list-decimal space-y-1 pb-3 pl-6">
            {steps.map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ol>
        </details>
      ))}
      {link && (
        <p>
          Then open{" "}
          <a className="font-medium break-all underline" href={link}>
            {link}
          </a>
        </p>
      )}
      <p className="text-[13px] text-ink2">
        Compare before you trust it. Its fingerprint (SHA-256): <span className="break-all">{fingerprint}</span>. The owner sees the same on
        the shop&rsquo;s machine. Whoever has the file data/tls/authority.pem can make certificates that this device believes: keep it as
        you keep the key to the shop.
      </p>
    </Door>
  );
}
