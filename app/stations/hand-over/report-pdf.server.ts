import PDFDocument from "pdfkit";
import { shadeOf } from "#core/models/colour/job-colours";
import { showFilm } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { boundingBox } from "#core/kernel/geometry/geometry";
import type { PanelView } from "#server/views/panel-view";
import { type Paper, REGIONS } from "~/kit/words/region";
import { REPORT_FOOT, type ReportReader } from "./report-reader";
import { reportLines } from "./report.words";

const MARGIN = 48;
const INK = "#14202e";
const QUIET = "#566474";
const LABEL_WIDTH = 150;
const DRAWING = { width: 300, height: 190 } as const;
const PHOTO = { width: 150, height: 112 } as const;
/** The built-in fonts of PDF know Latin letters only: signs beyond them are written out. */
const plain = (text: string) => text.replace(/−/g, "-").replace(/[‘’]/g, "'").replace(/→/g, "to").replace(/[≤]/g, "at most ");

/** The hand-over report of a panel as PDF: the same lines as on the page. */
export async function reportPdf(
  view: PanelView,
  o: { units: UnitPreferences; shopName: string; today: string; photos: readonly Uint8Array[]; reader?: ReportReader; paper?: Paper },
): Promise<Buffer> {
  const paper = o.paper ?? REGIONS.british.paper;
  const doc = new PDFDocument({ size: paper.name, margin: MARGIN, info: { Title: `${view.job.vehicle}, ${view.panel.name}` } });
  const chunks: Buffer[] = [];
  const done = new Promise<Buffer>((resolve, reject) => {
    doc.on("data", (c: Buffer) => chunks.push(c));
    doc.on("end", () => resolve(Buffer.concat(chunks)));
    doc.on("error", reject);
  });
  const inner = paper.width - 2 * MARGIN;
  doc
    .fillColor(INK)
    .font("Helvetica-Bold")
    .fontSize(18)
    .text(plain(`${view.job.vehicle}, ${view.panel.name}`), { width: inner - 150 });
  doc
    .font("Helvetica")
    .fontSize(10)
    .fillColor(QUIET)
    .text(plain(shadeOf(view.job, view.panel.colour).name));
  doc.text(plain(`${o.shopName}, ${o.today}`));
  if (view.state.simulated) doc.fillColor(INK).font("Helvetica-Bold").text("Some readings are simulated, not of a real panel");
  doc.moveDown(0.8);
  drawPanel(doc, view, o.units);
  doc.moveDown(0.5);
  for (const { label, value } of reportLines(view, o.units, o.reader)) {
    const y = doc.y;
    const text = plain(value);
    const height = doc
      .font("Helvetica")
      .fontSize(10)
      .heightOfString(text, { width: inner - LABEL_WIDTH });
    if (y + height > paper.height - MARGIN) doc.addPage();
    const top = doc.y;
    doc.fillColor(QUIET).text(plain(label), MARGIN, top, { width: LABEL_WIDTH - 8 });
    doc.fillColor(INK).text(text, MARGIN + LABEL_WIDTH, top, { width: inner - LABEL_WIDTH });
    doc.x = MARGIN;
    doc.y = Math.max(doc.y, top + 13) + 4;
  }
  if (o.photos.length > 0) {
    doc.moveDown(0.5);
    if (doc.y + PHOTO.height > paper.height - MARGIN) doc.addPage();
    const top = doc.y;
    o.photos
      .slice(0, 3)
      .forEach((p, i) => doc.image(Buffer.from(p), MARGIN + i * (PHOTO.width + 12), top, { fit: [PHOTO.width, PHOTO.height] }));
    doc.y = top + PHOTO.height + 8;
  }
  const note = view.state.handedOver?.body.note;
  if (note) doc.moveDown(0.5).fillColor(INK).fontSize(11).text(plain(note), MARGIN, doc.y, { width: inner });
  doc.moveDown(0.8).fillColor(QUIET).fontSize(8.5).text(plain(REPORT_FOOT), MARGIN, doc.y, { width: inner });
  doc.end();
  return done;
}

/** The panel's outline with the clear at its spots. */
function drawPanel(doc: PDFKit.PDFDocument, { panel, state }: PanelView, units: UnitPreferences): void {
  const { x0, y0, x1, y1 } = boundingBox(panel.shape.outline);
  const scale = Math.min(DRAWING.width / (x1 - x0), DRAWING.height / (y1 - y0));
  const top = doc.y;
  const px = (x: number) => MARGIN + (x - x0) * scale;
  const py = (y: number) => top + (y - y0) * scale;
  panel.shape.outline.forEach(([x, y], i) => (i === 0 ? doc.moveTo(px(x), py(y)) : doc.lineTo(px(x), py(y))));
  doc.closePath().lineWidth(1).stroke(INK);
  for (const line of panel.shape.bodyLines) {
    line.forEach(([x, y], i) => (i === 0 ? doc.moveTo(px(x), py(y)) : doc.lineTo(px(x), py(y))));
    doc.lineWidth(0.5).dash(4, { space: 3 }).stroke(QUIET).undash();
  }
  doc.fontSize(8).font("Helvetica-Bold").fillColor(INK);
  for (const s of state.spots)
    doc.text(s.clear ? showFilm(s.clear.clear_m, units).text : s.name, px(s.at[0]) - 15, py(s.at[1]) - 4, { width: 30, align: "center" });
  doc.x = MARGIN;
  doc.y = top + (y1 - y0) * scale + 4;
  doc.font("Helvetica").fontSize(8.5).fillColor(QUIET).text(`Clear at the spots read, in ${units.film}`);
}
