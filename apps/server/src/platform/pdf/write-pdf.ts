import { createRequire } from 'node:module';
import { fileURLToPath } from 'node:url';
import PDFDocument from 'pdfkit';

/** What a document says. */
export interface PdfContent {
  title: string;
  rows: readonly { label?: string; text: string }[];
}

const require = createRequire(import.meta.url);
const font = (name: string) => require.resolve(`dejavu-fonts-ttf/ttf/${name}.ttf`);
/** For what the usual fonts have no letters for: Chinese, Japanese, Korean. It lies beside the bundle, too. */
const EAST_ASIAN = fileURLToPath(new URL('./east-asian.ttc', import.meta.url));
const INK = '#1c2b36';
/** Parts a text into other letters and these, in turn. */
const EAST_ASIAN_RUNS =
  /((?:[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\p{Script=Bopomofo}]|[\u3000-\u303f\uff00-\uffef])+)/u;
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
  pdf.registerFont('east-asian', EAST_ASIAN, 'WenQuanYiMicroHei');
  pdf.fontSize(16).fillColor(INK);
  put(pdf, 'bold', title, [MARGIN, pdf.y], {});
  pdf.moveDown(1);
  const width = pdf.page.width - 2 * MARGIN;
  for (const { label, text } of rows) {
    if (label === undefined) {
      pdf.fontSize(10.5).fillColor(INK);
      put(pdf, 'text', text, [MARGIN, pdf.y], { width, lineGap: 2 });
      pdf.moveDown(0.6);
      continue;
    }
    // A row begins on the page on which its label fits.
    if (pdf.y > pdf.page.height - MARGIN - 30) pdf.addPage();
    const top = pdf.y;
    const page = pdf.bufferedPageRange().count;
    pdf.fontSize(9.5).fillColor(MUTED);
    put(pdf, 'text', label, [MARGIN, top], { width: LABELS - 12 });
    const under = pdf.bufferedPageRange().count === page ? pdf.y : top;
    pdf.fontSize(10.5).fillColor(INK);
    put(pdf, 'text', text, [MARGIN + LABELS, top], { width: width - LABELS, lineGap: 2 });
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

/** A text from a place on, each run of letters in the font that has them. */
function put(
  pdf: PDFKit.PDFDocument,
  usual: string,
  text: string,
  [x, y]: [number, number],
  options: PDFKit.Mixins.TextOptions,
): void {
  const runs = breakable(text)
    .split(EAST_ASIAN_RUNS)
    .map((run, index) => ({ run, font: index % 2 ? 'east-asian' : usual }))
    .filter(({ run }) => run !== '');
  pdf.x = x;
  pdf.y = y;
  runs.forEach(({ run, font: own }, index) =>
    pdf.font(own).text(run, { ...options, continued: index < runs.length - 1 }),
  );
}

/** With places at which a word may be broken that is longer than a line: finding them letter by letter takes long. */
function breakable(text: string): string {
  return text.replaceAll(/\S{40}(?=\S)/gu, '$&\u200b');
}
