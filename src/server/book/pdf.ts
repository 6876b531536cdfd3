import { createRequire } from 'node:module';
import { setImmediate as turn } from 'node:timers/promises';
import PDFDocument from 'pdfkit';
import type { Book, BookChapter } from '@/core/book';
import type { Course } from '@/core/course';
import { DETAIL_LENGTH, LABEL_LENGTH, RADIUS, cut, layOut, pathBetween, wordsAt } from '@/core/course/layout';

/* A call-flow book as PDF (ISO 32000): black on white, made for A4, whatever the fonts of the reader's machine. */

type Doc = InstanceType<typeof PDFDocument>;

const MARGIN = 54;
/** Width of what is written, in points, on A4. */
const WIDTH = 595.28 - 2 * MARGIN;
/** Of a table: where its second column begins. */
const SECOND = 170;
const GREY = '#555555';
const LINE = '#999999';
/** A drawing is made no larger than it stands on the screen. */
const LARGEST = 0.8;
/** What must stand together at the foot of a page, in points. */
const TOGETHER = 90;

const fontAt = (name: string) => createRequire(import.meta.url).resolve(`dejavu-fonts-ttf/ttf/${name}.ttf`);

/** Writes a book; others get their turn between chapters. */
export async function bookPdf(book: Book, of: string): Promise<Buffer> {
  const doc = new PDFDocument({
    size: 'A4',
    margins: { top: MARGIN, bottom: MARGIN, left: MARGIN, right: MARGIN },
    bufferPages: true,
    info: { Title: `Call-flow book of ${book.title}`, Author: book.organisation, CreationDate: new Date(book.at) },
  });
  doc.registerFont('plain', fontAt('DejaVuSans')).registerFont('bold', fontAt('DejaVuSans-Bold'));
  const parts: Buffer[] = [];
  doc.on('data', (part: Buffer) => parts.push(part));
  const ended = new Promise((done) => doc.on('end', done));
  front(doc, book, of);
  for (const chapter of book.chapters) {
    await turn();
    doc.addPage();
    chapterOn(doc, chapter);
  }
  await turn();
  lists(doc, book);
  numberPages(doc, book);
  doc.end();
  await ended;
  return Buffer.concat(parts);
}

function heading(doc: Doc, text: string, size: number): void {
  if (doc.y > doc.page.height - MARGIN - TOGETHER) doc.addPage();
  doc.font('bold').fontSize(size).fillColor('black').text(text, MARGIN, doc.y, { width: WIDTH });
  doc.moveDown(0.4);
}

function line(doc: Doc, text: string, colour = 'black'): void {
  doc.font('plain').fontSize(9.5).fillColor(colour).text(text, MARGIN, doc.y, { width: WIDTH });
}

/** Two columns, a thin line above each row; rows are not parted over pages. */
function rows(doc: Doc, list: readonly (readonly [string, string])[]): void {
  doc.fontSize(9.5);
  for (const [left, right] of list) {
    const leftWidth = SECOND - 12;
    const rightWidth = WIDTH - SECOND;
    doc.font('plain');
    const height = Math.max(
      doc.heightOfString(left, { width: leftWidth }),
      doc.heightOfString(right || ' ', { width: rightWidth }),
    );
    if (doc.y + height + 8 > doc.page.height - MARGIN) doc.addPage();
    const top = doc.y + 3;
    doc
      .moveTo(MARGIN, doc.y)
      .lineTo(MARGIN + WIDTH, doc.y)
      .lineWidth(0.4)
      .strokeColor(LINE)
      .stroke();
    doc.fillColor('black').text(left, MARGIN, top, { width: leftWidth });
    doc.fillColor(GREY).text(right, MARGIN + SECOND, top, { width: rightWidth });
    doc.y = top + height + 3;
    doc.x = MARGIN;
  }
  doc.moveDown(0.8);
}

function front(doc: Doc, book: Book, of: string): void {
  doc.font('plain').fontSize(11).fillColor(GREY).text(book.organisation, MARGIN, MARGIN);
  doc.moveDown(0.5);
  heading(doc, `Call-flow book of ${book.title}`, 20);
  line(doc, `${of}, ${book.at.slice(0, 10)} (${book.zone})`, GREY);
  doc.moveDown(1.2);
  const chapters = book.chapters.map((c, i) => [`${i + 1}  ${c.number}`, endsInWords(c)] as const);
  if (chapters.length > 0) {
    heading(doc, 'Numbers with a course of their own', 12);
    rows(doc, chapters);
  }
  if (book.left > 0)
    line(doc, `${book.left} more are not in this book: print the book of a number for each of them.`, GREY);
}

const nameOf = ({ outcome, lands }: BookChapter['ends'][number]) => lands?.label ?? outcome;

const endsInWords = (chapter: BookChapter) => [...new Set(chapter.ends.map(nameOf))].join(', ');

function chapterOn(doc: Doc, chapter: BookChapter): void {
  heading(doc, chapter.number, 16);
  line(
    doc,
    [chapter.site, chapter.trunk && `comes on ${chapter.trunk}`, chapter.note].filter(Boolean).join(' · '),
    GREY,
  );
  doc.moveDown(1);
  for (const end of chapter.ends) {
    heading(doc, nameOf(end), 11);
    line(doc, end.times, GREY);
    doc.moveDown(0.4);
    drawing(doc, end.course);
  }
  if (chapter.hours.length > 0) {
    heading(doc, 'Opening hours', 11);
    rows(
      doc,
      chapter.hours.map((h) => [h.label, h.words] as const),
    );
  }
  for (const place of chapter.places) {
    if (place.who.length === 0 && place.ways.length === 0) continue;
    heading(doc, place.word ? `${place.label} (${place.word})` : place.label, 11);
    rows(doc, [
      ...(place.who.length > 0 ? [['who', place.who.join(', ')] as const] : []),
      ...place.ways.map((w) => [w.when, w.to] as const),
    ]);
  }
}

/** The course of a call, as wide as the page at most. */
function drawing(doc: Doc, course: Course): void {
  const { nodes, width, height } = layOut(course);
  const scale = Math.min(WIDTH / width, LARGEST);
  if (doc.y + height * scale > doc.page.height - MARGIN) doc.addPage();
  const top = doc.y;
  const at = new Map(nodes.map((n) => [n.id, n]));
  doc.save().translate(MARGIN, top).scale(scale);
  for (const w of course.ways) {
    const [a, b] = [at.get(w.from)!, at.get(w.to)!];
    doc
      .path(pathBetween(a, b))
      .lineWidth(w.walked ? 3 : 1)
      .strokeColor(w.walked ? 'black' : LINE)
      .stroke();
    if (!w.when) continue;
    const { x, y, centred } = wordsAt(a, b);
    words(doc, w.when, { x, y: y - 10, bold: w.walked, size: 10, centred });
  }
  for (const n of nodes) {
    doc
      .circle(n.x, n.y, RADIUS)
      .lineWidth(n.end ? 1.4 : 2)
      .fillAndStroke('white', 'black');
    if (n.end)
      doc
        .circle(n.x, n.y, RADIUS - 4)
        .lineWidth(1)
        .stroke();
    words(doc, cut(n.label, LABEL_LENGTH), { x: n.x, y: n.y + RADIUS + 3, bold: true, size: 10, centred: true });
    words(doc, cut(n.detail, DETAIL_LENGTH), { x: n.x, y: n.y + RADIUS + 16, bold: false, size: 9, centred: true });
  }
  doc.restore();
  doc.x = MARGIN;
  doc.y = top + height * scale + 14;
}

interface Words {
  x: number;
  y: number;
  bold: boolean;
  size: number;
  centred: boolean;
}

/** Words at a place that begin no new line and no new page. */
function words(doc: Doc, text: string, { x, y, bold, size, centred }: Words): void {
  doc
    .font(bold ? 'bold' : 'plain')
    .fontSize(size)
    .fillColor(bold ? 'black' : GREY);
  doc.text(text, centred ? x - doc.widthOfString(text) / 2 : x, y, { lineBreak: false });
}

function lists(doc: Doc, { direct, idle }: Book): void {
  if (direct.length > 0) {
    doc.addPage();
    heading(doc, 'Numbers that ring a phone directly', 12);
    rows(
      doc,
      direct.map((d) => [d.number, [`${d.digits} ${d.name}`, d.then && `then ${d.then}`].filter(Boolean).join(', ')]),
    );
  }
  if (idle.length > 0) {
    doc.addPage();
    heading(doc, 'Numbers that lead nowhere', 12);
    rows(
      doc,
      idle.map((n) => [n.number, n.why]),
    );
  }
}

/** At the foot of each page: what it is of, and which page of how many. */
function numberPages(doc: Doc, book: Book): void {
  const { count } = doc.bufferedPageRange();
  for (let i = 0; i < count; i++) {
    doc.switchToPage(i);
    // Beneath the margin nothing may be written that begins a new page.
    doc.page.margins.bottom = 0;
    doc.font('plain').fontSize(8).fillColor(GREY);
    doc.text(book.title, MARGIN, doc.page.height - 36, { lineBreak: false });
    const said = `${i + 1} of ${count}`;
    doc.text(said, MARGIN + WIDTH - doc.widthOfString(said), doc.page.height - 36, { lineBreak: false });
  }
}
