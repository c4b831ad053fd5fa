export interface ReportLine {
  label: string;
  value: string;
}

/** For whom a report is: the customer reads what there is and what was done, the shop's file also how and why. */
export const REPORT_READERS = { shop: "For the shop's file", customer: "For the customer" } as const;
export type ReportReader = keyof typeof REPORT_READERS;
export const reportReader = (text: string | null): ReportReader => (text === "customer" ? "customer" : "shop");

/** What stands under every report. */
export const REPORT_FOOT =
  "± is 95 %. Film figures are worked out from gauge readings; they are no guarantee. Wash by hand with plenty of water for the first weeks; the product's sheet goes first.";
