import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';

/** What a document says. */
export interface PdfContent {
  title: string;
  rows: readonly { label?: string; text: string }[];
}

const require = createRequire(import.meta.url);
const font = (name: string) => require.resolve(`dejavu-fonts-ttf/ttf/${name}.ttf`);
const INK = '#1c2b36';
const MUTED = '#5a6a64';
/** In points: A4 with margins of two centimetres. */
const MARGIN = 57;
const LABELS = 130;

/** A document as PDF: its title, then each row with what was asked beside what was answered, paged with numbers. */
export function writePdf({ title, rows }: PdfContent, at: Date): Promise<Buffer> {
  const pdf = new PDFDocument({
    size: 'A4',
    margin: MARGIN,
    bufferPages: true,
    // Nothing in it says when it was drawn: the same content is the same file.
    info: { Title: title, Creator: 'Hay Cart', CreationDate: at, ModDate: at },
  });
  const chunks: Buffer[] = [];
  const done = new Promise<Buffer>((resolve, reject) => {
    pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
    pdf.on('end', () => resolve(Buffer.concat(chunks)));
    pdf.on('error', reject);
  });
  pdf.registerFont('text', font('DejaVuSans')).registerFont('bold', font('DejaVuSans-Bold'));
  pdf.font('bold').fontSize(16).fillColor(INK).text(breakable(title)).moveDown(1);
  const width = pdf.page.width - 2 * MARGIN;
  for (const { label, text } of rows) {
    if (label === undefined) {
      pdf
        .font('text')
        .fontSize(10.5)
        .fillColor(INK)
        .text(breakable(text), MARGIN, pdf.y, { width, lineGap: 2 })
        .moveDown(0.6);
      continue;
    }
    // A row begins on the page on which its label fits.
    if (pdf.y > pdf.page.height - MARGIN - 30) pdf.addPage();
    const top = pdf.y;
    const page = pdf.bufferedPageRange().count;
    pdf
      .font('text')
      .fontSize(9.5)
      .fillColor(MUTED)
      .text(breakable(label), MARGIN, top, { width: LABELS - 12 });
    const under = pdf.bufferedPageRange().count === page ? pdf.y : top;
    pdf
      .fontSize(10.5)
      .fillColor(INK)
      .text(breakable(text), MARGIN + LABELS, top, { width: width - LABELS, lineGap: 2 });
    if (pdf.bufferedPageRange().count === page) pdf.y = Math.max(pdf.y, under);
    pdf.x = MARGIN;
    pdf.moveDown(0.45);
  }
  const { count } = pdf.bufferedPageRange();
  for (let page = 0; page < count && count > 1; page += 1) {
    pdf.switchToPage(page);
    // Beneath the margin a text would begin another page.
    pdf.page.margins.bottom = 0;
    pdf
      .font('text')
      .fontSize(9)
      .fillColor(MUTED)
      .text(`${page + 1} / ${count}`, MARGIN, pdf.page.height - 36, { width, align: 'right', lineBreak: false });
  }
  pdf.end();
  return done;
}

/** With places at which a word may be broken that is longer than a line: finding them letter by letter takes long. */
function breakable(text: string): string {
  return text.replaceAll(/\S{40}(?=\S)/gu, '$&\u200b');
}
