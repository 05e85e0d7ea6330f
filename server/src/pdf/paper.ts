/**
 * The layout kit that every paper of the shop is made from: letterhead, running head, numbered pages, sections, pairs,
 * lists, tables and pictures. Nothing is torn apart at the end of a page, and what is drawn is tagged for readers of
 * screens (PDF/UA): headings, lists, tables with their heads, pictures with words.
 */
import { OVER_PICTURE, PALETTES, type Drawing } from '@jutbank/core/drawing';
import { drawOn } from './drawn.ts';
import PDFDocument from 'pdfkit';
import { faceFor, type Voice } from './fonts.ts';

const { ink: INK, soft: SOFT, rule: RULE } = PALETTES.light;
const WIDTH = 595;
const HEIGHT = 842;
const LEFT = 56;
const RIGHT = WIDTH - 56;
const TOP = 74;
const BOTTOM = HEIGHT - 66;
const LINE_GAP = 2;

type Doc = InstanceType<typeof PDFDocument>;
type Element = ReturnType<Doc['struct']>;

export interface Letterhead {
  readonly shop: string;
  /** address, telephone, registration: as it stands under the name */
  readonly lines: readonly string[];
}
export interface PaperHead {
  readonly letterhead: Letterhead;
  readonly title: string;
  /** stands at the foot of every page: the paper's own number, the piece's stock number */
  readonly running: readonly string[];
}
export interface TableColumn {
  readonly head: string;
  /** points */
  readonly width: number;
  readonly figures?: boolean;
}
interface Style {
  readonly voice?: Voice;
  readonly size?: number;
  readonly soft?: boolean;
  readonly align?: 'left' | 'right';
  readonly x?: number;
  readonly width?: number;
}

/** Of PDF/UA; the library knows it, its description of itself does not. */
const ACCESSIBLE: object = { subset: 'PDF/UA' };

/** A paper of any number of pages. @param write draws it; pictures are to be at hand before. */
export function paper(head: PaperHead, write: (on: Paper) => void): Promise<Buffer> {
  const doc = new PDFDocument({
    size: 'A4',
    margins: { top: TOP, bottom: HEIGHT - BOTTOM, left: LEFT, right: WIDTH - RIGHT },
    info: { Title: [head.title, ...head.running].join(' · '), Author: head.letterhead.shop },
    lang: 'en',
    tagged: true,
    ...ACCESSIBLE,
    pdfVersion: '1.7',
    displayTitle: true,
    bufferPages: true,
    font: faceFor('text', ''),
  });
  const chunks: Buffer[] = [];
  const done = new Promise<Buffer>((resolve, reject) => {
    doc.on('data', (chunk: Buffer) => chunks.push(chunk));
    doc.on('end', () => resolve(Buffer.concat(chunks)));
    doc.on('error', reject);
  });
  const on = new Paper(doc, head);
  write(on);
  on.end();
  return done;
}

export class Paper {
  readonly #doc: Doc;
  readonly #head: PaperHead;
  #at: Element;
  readonly #root: Element;

  constructor(doc: Doc, head: PaperHead) {
    this.#doc = doc;
    this.#head = head;
    this.#root = doc.struct('Document');
    doc.addStructure(this.#root);
    this.#at = this.#root;
    this.#masthead();
  }

  get width(): number {
    return RIGHT - LEFT;
  }

  /** A new page where what comes next would be torn apart. @param height points */
  room(height: number): void {
    if (this.#doc.y + height > BOTTOM) this.#doc.addPage();
    this.#doc.x = LEFT;
  }

  newPage(): void {
    this.#doc.addPage();
    this.#doc.x = LEFT;
  }

  space(points: number): void {
    this.#doc.y += points;
  }

  rule(weight = 0.6): void {
    this.#artifact(() => this.#line(this.#doc.y, weight));
    this.#doc.y += 7;
  }

  section(text: string): void {
    this.room(56);
    // under the head of a page a line stands already
    if (this.#doc.y > TOP + 4) {
      this.space(5);
      this.#artifact(() => this.#line(this.#doc.y, 0.6));
      this.#doc.y += 6;
    }
    this.#text('H2', text, { voice: 'strong', size: 11 });
    this.space(3);
  }

  label(text: string): void {
    this.#text('P', text, { size: 8, soft: true });
  }

  body(text: string, style: Style = {}): void {
    this.room(this.#heightOf(text, style));
    this.#text('P', text, style);
  }

  /** A few words as large as what they say. */
  headline(text: string, voice: Voice = 'strong', size = 14): void {
    this.room(this.#heightOf(text, { voice, size }));
    this.#text('P', text, { voice, size });
    this.space(2);
  }

  small(text: string): void {
    this.body(text, { size: 8, soft: true });
  }

  pair(name: string, text: string): void {
    this.room(14 + Math.min(this.#heightOf(text, {}), 200));
    this.label(name);
    this.#text('P', text, {});
    this.space(6);
  }

  /** Each line stands whole on one page. */
  list(lines: readonly string[], name?: string): void {
    if (lines.length === 0) return;
    if (name !== undefined) {
      this.room(14 + this.#heightOf(lines[0] ?? '', INDENTED));
      this.label(name);
    }
    this.#group('L', () => {
      for (const line of lines) {
        this.room(this.#heightOf(line, INDENTED));
        this.#group('LI', () => {
          const y = this.#doc.y;
          this.#text('Lbl', '–', { x: LEFT, width: 12 });
          this.#doc.y = y;
          this.#text('LBody', line, INDENTED);
        });
        this.space(1.5);
      }
    });
    this.space(5);
  }

  /** The head stands again on every page. @param last rows that are sums */
  table(
    columns: readonly TableColumn[],
    rows: readonly (readonly string[])[],
    last: readonly (readonly string[])[] = [],
  ): void {
    const headRow = columns.map((c) => c.head);
    this.room(60);
    this.#group('Table', () => {
      this.#row('TH', columns, headRow);
      for (const [cells, voice] of [
        ...rows.map((cells) => [cells, 'text'] as const),
        ...last.map((cells) => [cells, 'strong'] as const),
      ]) {
        if (this.#doc.y + this.#rowHeight(columns, cells, voice) > BOTTOM) {
          this.#doc.addPage();
          this.#artifact(() => this.#cells(columns, headRow, 'strong', true));
        }
        this.#row('TD', columns, cells, voice);
      }
    });
    this.#doc.x = LEFT;
    this.space(6);
  }

  /** A name at the left and a sum at the right. */
  amount(name: string, sum: string, voice: 'text' | 'strong' = 'text'): void {
    this.room(18);
    const y = this.#doc.y;
    const size = voice === 'strong' ? 11 : 9.5;
    this.#text('P', name, { voice, size, width: this.width - 130 });
    const after = this.#doc.y;
    this.#doc.y = y;
    this.#text('P', sum, { voice: 'figures', size, x: RIGHT - 126, width: 126, align: 'right' });
    this.#doc.y = Math.max(after, this.#doc.y) + 3;
  }

  /** @param bytes JPEG or PNG @param says what it shows, for whoever cannot see it */
  picture(
    bytes: Buffer,
    says: string,
    { width, height, x = 0, rings = [], frame = false }: PictureFrame,
  ): void {
    this.room(height + 6);
    const top = this.#doc.y;
    this.#add('Figure', { alt: says }, () => {
      this.#doc.image(bytes, LEFT + x, top, { fit: [width, height] });
      if (frame)
        this.#doc
          .rect(LEFT + x, top, width, height)
          .lineWidth(0.5)
          .strokeColor(RULE)
          .stroke();
      for (const ring of rings)
        this.#doc
          .circle(LEFT + x + ring.x * width, top + ring.y * height, 8)
          .lineWidth(1.4)
          .strokeColor(OVER_PICTURE.finding)
          .stroke();
    });
    this.#doc.y = top + height + 6;
    this.#doc.x = LEFT;
  }

  /** A drawn piece with numbers on it, for findings that no photograph shows. */
  drawing(drawing: Drawing, height: number, numbers: readonly NumberedPlace[] = []): void {
    this.room(height + 6);
    const top = this.#doc.y;
    this.#add('Figure', { alt: drawing.name }, () => {
      const box = { x: LEFT, y: top, width: this.width, height };
      const place = drawOn(this.#doc, drawing, box);
      for (const { number, x, y } of numbers) {
        const at = place({ x: drawing.left + x * drawing.widthMm, y: drawing.top + y * drawing.heightMm });
        this.#doc.circle(at.x, at.y, 6).fillColor(OVER_PICTURE.finding, 1).fill();
        this.#doc
          .font(faceFor('figures', String(number)))
          .fontSize(8)
          .fillColor('#ffffff', 1)
          .text(String(number), at.x - 8, at.y - 4.5, { width: 16, align: 'center', lineBreak: false });
      }
    });
    this.#doc.y = top + height + 6;
    this.#doc.x = LEFT;
  }

  /** Pictures in rows of as many as have room, each with its words beneath. */
  pictures(
    pictures: readonly {
      readonly bytes: Buffer;
      readonly width: number;
      readonly height: number;
      readonly caption: string;
      readonly rings?: readonly Ring[];
    }[],
    inRow: number,
  ): void {
    const gap = 12;
    const width = (this.width - gap * (inRow - 1)) / inRow;
    const height = width * 0.68;
    for (let first = 0; first < pictures.length; first += inRow) {
      this.room(height + 24);
      const top = this.#doc.y;
      let lowest = top + height;
      pictures.slice(first, first + inRow).forEach((picture, column) => {
        const x = column * (width + gap);
        const scale = Math.min(width / picture.width, height / picture.height);
        this.#doc.y = top;
        this.picture(picture.bytes, picture.caption, {
          width: picture.width * scale,
          height: picture.height * scale,
          x,
          rings: picture.rings ?? [],
        });
        this.#doc.y = top + height + 3;
        this.#text('P', picture.caption, { size: 8, soft: true, x: LEFT + x, width });
        lowest = Math.max(lowest, this.#doc.y);
      });
      this.#doc.y = lowest + 8;
      this.#doc.x = LEFT;
    }
  }

  /** A code to be read by a telephone, and what stands beside it. */
  beside(bytes: Buffer, says: string, size: number, draw: (x: number, width: number) => void): void {
    this.room(size + 8);
    const top = this.#doc.y;
    this.picture(bytes, says, { width: size, height: size });
    const under = this.#doc.y;
    this.#doc.y = top;
    draw(LEFT + size + 16, this.width - size - 16);
    this.#doc.y = Math.max(under, this.#doc.y);
    this.#doc.x = LEFT;
  }

  signature(name: string): void {
    this.room(70);
    this.space(34);
    this.#artifact(() =>
      this.#doc
        .moveTo(LEFT, this.#doc.y)
        .lineTo(LEFT + 220, this.#doc.y)
        .lineWidth(0.7)
        .strokeColor(INK)
        .stroke(),
    );
    this.space(5);
    this.body(name);
  }

  end(): void {
    this.#root.end();
    const doc = this.#doc;
    const { start, count } = doc.bufferedPageRange();
    const { letterhead, title, running } = this.#head;
    for (let page = start; page < start + count; page++) {
      doc.switchToPage(page);
      this.#artifact(() => {
        // outside the margins, where text would otherwise begin a page of its own
        doc.page.margins = { top: 0, bottom: 0, left: 0, right: 0 };
        if (page > start) {
          this.#put(`${letterhead.shop} · ${title}`, 8, LEFT, 40);
          this.#line(56, 0.6);
        }
        this.#put([title, ...running].join(' · '), 7.5, LEFT, HEIGHT - 40);
        this.#put(`page ${page - start + 1} of ${count}`, 7.5, RIGHT - 100, HEIGHT - 40, 'right');
      });
    }
    doc.end();
  }

  #masthead(): void {
    const { letterhead, title } = this.#head;
    this.#doc.y = 50;
    this.#text('P', letterhead.shop, { voice: 'strong', size: 11, width: 260 });
    const under = this.#doc.y;
    this.#doc.y = 50;
    if (letterhead.lines.length > 0)
      this.#text('P', letterhead.lines.join('\n'), {
        size: 8,
        soft: true,
        x: RIGHT - 200,
        width: 200,
        align: 'right',
      });
    this.#doc.y = Math.max(this.#doc.y, under) + 12;
    this.#artifact(() => this.#line(this.#doc.y, 1.6));
    this.#doc.y += 14;
    this.#text('H1', title, { voice: 'strong', size: 19 });
    this.space(8);
  }

  #put(text: string, size: number, x: number, y: number, align: 'left' | 'right' = 'left'): void {
    this.#doc
      .font(faceFor('text', text))
      .fontSize(size)
      .fillColor(SOFT)
      .text(text, x, y, {
        width: align === 'right' ? 100 : this.width - 110,
        align,
        height: 12,
        ellipsis: true,
      });
  }

  #style({ voice = 'text', size = 9.5, soft = false }: Style, text: string): void {
    this.#doc
      .font(faceFor(voice, text))
      .fontSize(size)
      .fillColor(soft ? SOFT : INK);
  }

  #heightOf(text: string, style: Style): number {
    this.#style(style, text);
    return this.#doc.heightOfString(text, { width: style.width ?? this.width, lineGap: LINE_GAP });
  }

  #text(tag: string, text: string, style: Style): void {
    const { x = LEFT, width = this.width, align = 'left' } = style;
    this.#add(tag, {}, () => {
      this.#style(style, text);
      this.#doc.text(text, x, this.#doc.y, { width, align, lineGap: LINE_GAP });
    });
    this.#doc.x = LEFT;
  }

  #add(tag: string, options: { alt?: string }, draw: () => void): void {
    const element = this.#doc.struct(tag, options, draw);
    this.#at.add(element);
    element.end();
  }

  #group(tag: string, draw: () => void): void {
    const [outer, element] = [this.#at, this.#doc.struct(tag)];
    outer.add(element);
    this.#at = element;
    draw();
    element.end();
    this.#at = outer;
  }

  /** Drawn for the eye alone. */
  #artifact(draw: () => void): void {
    this.#doc.markContent('Artifact', { type: 'Layout' });
    draw();
    this.#doc.endMarkedContent();
  }

  #line(y: number, weight: number): void {
    this.#doc
      .moveTo(LEFT, y)
      .lineTo(RIGHT, y)
      .lineWidth(weight)
      .strokeColor(weight > 1 ? INK : RULE)
      .stroke();
  }

  #row(
    tag: 'TH' | 'TD',
    columns: readonly TableColumn[],
    cells: readonly string[],
    voice: Voice = 'strong',
  ): void {
    this.#group('TR', () => {
      this.#cells(columns, cells, voice, tag === 'TH', tag);
    });
    this.#artifact(() => this.#line(this.#doc.y, 0.4));
    this.#doc.y += 3;
  }

  #rowHeight(columns: readonly TableColumn[], cells: readonly string[], voice: Voice): number {
    return (
      Math.max(
        ...columns.map((column, i) =>
          this.#heightOf(cells[i] ?? '', { ...cellStyle(column, voice), width: column.width - 8 }),
        ),
      ) + 6
    );
  }

  #cells(
    columns: readonly TableColumn[],
    cells: readonly string[],
    voice: Voice,
    soft: boolean,
    tag?: 'TH' | 'TD',
  ): void {
    const top = this.#doc.y;
    let [x, lowest] = [LEFT, top];
    columns.forEach((column, i) => {
      const style: Style = {
        ...cellStyle(column, voice),
        soft,
        x,
        width: column.width - 8,
        align: column.figures ? 'right' : 'left',
      };
      this.#doc.y = top;
      const text = cells[i] ?? '';
      if (tag) this.#text(tag, text, style);
      else {
        this.#style(style, text);
        this.#doc.text(text, x, top, {
          width: column.width - 8,
          align: style.align ?? 'left',
          lineGap: LINE_GAP,
        });
      }
      lowest = Math.max(lowest, this.#doc.y);
      x += column.width;
    });
    this.#doc.y = lowest + 2;
    this.#doc.x = LEFT;
  }
}

/** A place on a picture, 0–1 of its width and height, that something was found at. */
export interface Ring {
  readonly x: number;
  readonly y: number;
}
/** A number at a place of a drawing, 0–1 of its width and height. */
export interface NumberedPlace extends Ring {
  readonly number: number;
}
export interface PictureFrame {
  readonly width: number;
  readonly height: number;
  readonly x?: number;
  readonly rings?: readonly Ring[];
  readonly frame?: boolean;
}

const INDENTED: Style = { x: LEFT + 12, width: RIGHT - LEFT - 12 };

const cellStyle = (column: TableColumn, voice: Voice): Style => ({
  voice: column.figures && voice === 'text' ? 'figures' : voice,
  size: 8,
});
