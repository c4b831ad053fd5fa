/**
 * Every source that a figure may cite. A working names keys of this table, so an unknown source does not compile.
 * `kind` says how far to trust it: a published source "from memory" was not read again when the code was written.
 */
export const SOURCES = {
  "common-practice": { kind: "practice", text: "Common practice of the trade, no published source" },
  "yakamoz-default": { kind: "default", text: "A default of this program, not validated on real panels; editable" },
  "house-way": { kind: "practice", text: "A way of this shop's own, as kept in House" },
  "shop-reading": { kind: "measured", text: "This shop's own readings" },
  "product-sheet": { kind: "sheet", text: "The product's own data sheet, as entered on the shelf" },
  "job-record": { kind: "measured", text: "This job's own record" },
  "jcgm-100": { kind: "published", text: "JCGM 100:2008 (GUM), clauses 4–5 and annex G (from memory)" },
  "iso-2431": { kind: "published", text: "ISO 2431, flow cups (from memory)" },
  "astm-d1200": { kind: "published", text: "ASTM D1200, Ford viscosity cups (from memory)" },
  "din-53211": { kind: "published", text: "DIN 53211, 4 mm flow cup (from memory)" },
  "astm-d3960": { kind: "published", text: "ASTM D3960, volatile organic compound content, less water and exempt solvents (from memory)" },
  "iso-2813": { kind: "published", text: "ISO 2813 and ASTM D523, gloss against black glass of index 1.567 (from memory)" },
  "bennett-porteus-1961": { kind: "published", text: "Bennett & Porteus 1961, specular reflectance and roughness (from memory)" },
  "isotonic-1972": {
    kind: "published",
    text: "Barlow and others 1972, pool adjacent violators; Fritsch & Carlson 1980, monotone cubics (from memory)",
  },
  "iso-16610-21": { kind: "published", text: "ISO 16610-21, Gaussian profile filter (from memory)" },
  "levelling-1962": {
    kind: "published",
    text: "Orchard 1962, levelling of a viscous film with surface tension; Doolittle free volume (from memory)",
  },
  arrhenius: { kind: "published", text: "Arrhenius form between two points of the product's own sheet" },
  "shop-cards": { kind: "measured", text: "This shop's own test cards" },
  "iso-8502-4": { kind: "published", text: "ISO 8502-4, dew-point margin before painting (from memory)" },
  magnus: { kind: "published", text: "Magnus formula over water, coefficients 17.62 and 243.12 °C, WMO guide No. 8 (from memory)" },
  "fepa-43": { kind: "published", text: "FEPA 43-1/43-2 and ISO 6344 grain sizes d50 (from memory)" },
  "preston-1927": { kind: "published", text: "Preston 1927, rate of removal in glass polishing (from memory)" },
  "spreading-rate": {
    kind: "published",
    text: "Volume balance: 1 L over 1 m² is 1 mm; 1604.17 ft²·mil per US gallon (ISO 23811 usage, from memory)",
  },
  "orchard-flow": {
    kind: "published",
    text: "Spray deposition model of this program; free-jet and atomisation power laws (from memory), constants set to common practice",
  },
  "matern-kriging": {
    kind: "published",
    text: "Gaussian-process regression with a Matérn 5/2 covariance, Rasmussen & Williams 2006, eq. 2.23–2.24, 4.17 (from memory)",
  },
  "sspc-pa2": { kind: "published", text: "Film readings as the mean of at least three close readings, SSPC-PA 2 (from memory)" },
} as const satisfies Record<string, { kind: "practice" | "default" | "measured" | "sheet" | "published"; text: string }>;

export type SourceKey = keyof typeof SOURCES;
