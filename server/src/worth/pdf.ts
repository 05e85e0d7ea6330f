/** The appraisal for paper: what it is for, what it is of, what it rests on, what was concluded and why. */
import { formatMoney } from '@jutbank/core/money';
import type { AppraisalRecord, AppraisedRow, Purpose } from '@jutbank/contract/worth';
import {
  body,
  dayOf,
  head,
  INK,
  label,
  LEFT,
  pdf,
  RIGHT,
  rule,
  SOFT,
  strong,
  type Doc,
} from '../pdf/index.ts';

const PURPOSE_WORDS: Record<Purpose, string> = {
  insurance: 'insurance',
  sale: 'a sale',
  estate: 'an estate',
  division: 'a division of property',
  gift: 'a gift',
  loan: 'a loan to an exhibition',
  'own-records': 'the owner’s own records',
};
const percent = (x: number) => `${x < 0 ? '−' : '+'}${Math.abs(x).toFixed(1)} %`;
/** Rows that stand in the table on paper; the record holds them all. */
const MOST_ROWS = 14;
const BOTTOM = 842 - 72;

export function appraisalPdf(record: AppraisalRecord, fingerprint: string): Promise<Buffer> {
  return pdf(`Appraisal ${record.number} · ${record.piece.stockNumber}`, (doc) => {
    head(doc, record.shop, `Appraisal ${record.number}`);
    const pair = (name: string, text: string) => {
      room(doc, 34);
      label(doc, name);
      body(doc, text);
      doc.moveDown(0.5);
    };
    const { piece } = record;
    pair('Piece', `${piece.stockNumber} · ${piece.title}`);
    pair(
      'Purpose, and for whom',
      `For ${PURPOSE_WORDS[record.purpose]}, to be used by ${record.intendedUser}.`,
    );
    pair(
      'Basis of value',
      `${record.definition} As of ${dayOf(record.effectiveDate)}; reported ${dayOf(record.issuedAt)}.`,
    );
    rule(doc, doc.y, 1.6);
    doc.moveDown(0.6);
    label(doc, 'Concluded value');
    doc.font('figures').fontSize(22).fillColor(INK).text(formatMoney(record.concluded));
    body(doc, record.because);
    doc.moveDown(0.4);
    body(
      doc,
      `The regression says ${formatMoney(record.figure)}; four of five such sales fall between ${formatMoney(record.low)} and ${formatMoney(record.high)}. ${record.methods
        .map((m) => `${METHOD_WORDS[m.name] ?? m.name}: ${formatMoney(m.estimate)}`)
        .join(
          '; ',
        )}.${record.corrected ? ` With the appraiser’s corrections of single lines: ${formatMoney(record.corrected)}.` : ''}`,
    );
    rule(doc, doc.y + 6);
    doc.y += 16;
    pair(
      'What it is',
      `${piece.which.label}: ${piece.which.variants.map((v) => `${v.name} (${(100 * v.probability).toFixed(0)} in 100)`).join('; ')}. ${piece.made ? `Made ${piece.made}.` : 'When it was made is not known.'}`,
    );
    pair(
      'Condition',
      piece.condition
        ? `${piece.condition.grade} on the ${piece.condition.scale} scale, condition index ${piece.condition.index.toFixed(1)} of 100${piece.condition.inspected ? '' : '; the inspection is not finished'}.`
        : 'Not graded.',
    );
    list(doc, 'What was found and what must be told', piece.statements);
    list(
      doc,
      'What was not examined',
      piece.scope.notExamined.length > 0 ? piece.scope.notExamined : ['Nothing on the list was left out.'],
    );
    list(
      doc,
      'Assumptions',
      record.assumptions.length === 0
        ? ['None beyond the conditions below.']
        : record.assumptions.map(
            (a) =>
              `${a.extraordinary ? 'Extraordinary: ' : ''}${a.text}${a.effectPct === null ? '' : ` (were it not so: ${percent(a.effectPct)})`}`,
          ),
    );
    pair(
      'The market',
      record.market.lastSale === null
        ? 'No sale is known up to this date.'
        : `${record.market.soldInTwoYears} sales of the two years before it carry what is said of how prices moved; the last of them is of ${dayOf(record.market.lastSale)}${record.market.beyondLastSale ? ', so the date lies beyond what is known' : ''}.`,
    );
    sales(doc, record);
    list(doc, 'Notes', record.notes);
    if (record.corrections.length > 0)
      list(
        doc,
        'Corrections by hand',
        record.corrections.map(
          (c) =>
            `${c.line}: ${c.percent === null ? 'left out' : percent(c.percent)}, ${c.person}, ${dayOf(c.at)}: ${c.reason}`,
        ),
      );
    if (record.limiting !== '') pair('Limiting conditions', record.limiting);
    pair('Interest in the piece', record.interest);
    room(doc, 150);
    doc.moveDown(1);
    rule(doc, doc.y + 26);
    doc.y += 32;
    body(doc, `${record.signature}, appraiser`);
    doc.moveDown(0.6);
    doc
      .font('text')
      .fontSize(8.5)
      .fillColor(SOFT)
      .text(
        'An appraisal for tax, court or insurance may need a licensed appraiser where it is used; this paper does not say that its signer is one. It holds for the purpose, user and date named above and for no other.',
        LEFT,
        doc.y,
        { width: RIGHT - LEFT, lineGap: 1.5 },
      );
    doc.moveDown(0.5);
    doc
      .font('figures')
      .fontSize(7.5)
      .text(
        `record ${fingerprint}\nengine ${record.engine.version} · sales ${record.revisions.comparables} · rates ${record.revisions.rates} · reference ${record.revisions.reference} · rules ${record.revisions.rules}`,
      );
  });
}

const METHOD_WORDS: Readonly<Record<string, string>> = {
  'adjustment-grid': 'the grid below',
  'fixed-percentages': 'fixed percentages',
  'median-of-raw': 'the middle of raw prices',
};

/** A new page where what comes next would be torn apart. */
function room(doc: Doc, height: number): void {
  if (doc.y + height > BOTTOM) doc.addPage();
}

function list(doc: Doc, name: string, lines: readonly string[]): void {
  if (lines.length === 0) return;
  room(doc, 40);
  label(doc, name);
  for (const line of lines) {
    room(doc, 16);
    body(doc, `– ${line}`);
  }
  doc.moveDown(0.5);
}

const COLUMNS = [62, 108, 78, 92, 78, 65] as const;

function sales(doc: Doc, record: AppraisalRecord): void {
  const used = record.rows.filter((row) => row.excluded === null);
  room(doc, 120);
  strong(doc, 'Sales that bear on it');
  doc.moveDown(0.3);
  row(doc, ['Sold', 'Where', 'Paid', 'Adjusted by', 'Comes to', 'Weight'], 'strong');
  for (const sale of used.slice(0, MOST_ROWS)) row(doc, cellsOf(sale), 'text');
  row(
    doc,
    [
      '',
      used.length > MOST_ROWS ? `and ${used.length - MOST_ROWS} more` : '',
      '',
      'pattern, maker, kind',
      formatMoney(record.rest.adjusted),
      weightText(record.rest.weight),
    ],
    'text',
  );
  doc.x = LEFT;
  doc.moveDown(0.6);
}

const weightText = (weight: number) => `${(100 * weight).toFixed(1)} %`;

const cellsOf = (sale: AppraisedRow): string[] => [
  sale.saleDate,
  `${sale.venue}${checkText(sale)}`,
  formatMoney(sale.paid),
  `net ${percent(sale.net)}, gross ${sale.gross.toFixed(0)} %${sale.wide ? ' (wide)' : ''}`,
  sale.adjusted ? formatMoney(sale.adjusted) : '',
  weightText(sale.weight),
];

function checkText({ check }: AppraisedRow): string {
  if (!check) return '';
  if (check.rejected !== '') return `; not relied on: ${check.rejected}`;
  const marks = [
    check.seen ? 'seen' : '',
    check.confirmedWith === '' ? '' : `confirmed with ${check.confirmedWith}`,
    check.armsLength === 'yes' ? 'at arm’s length' : check.armsLength === 'no' ? 'not at arm’s length' : '',
    check.lot === 'in-a-lot' ? 'in a lot' : '',
  ].filter((mark) => mark !== '');
  return marks.length === 0 ? '' : `; ${marks.join(', ')}`;
}

function row(doc: Doc, cells: readonly string[], font: 'text' | 'strong'): void {
  doc.font(font).fontSize(8);
  const heights = cells.map((cell, i) => doc.heightOfString(cell, { width: (COLUMNS[i] ?? 60) - 6 }));
  const height = Math.max(...heights) + 5;
  if (doc.y + height > BOTTOM) doc.addPage();
  const top = doc.y;
  let x = LEFT;
  cells.forEach((cell, i) => {
    const width = COLUMNS[i] ?? 60;
    doc
      .font(font)
      .fontSize(8)
      .fillColor(INK)
      .text(cell, x, top, { width: width - 6, align: i >= 4 || i === 2 ? 'right' : 'left' });
    x += width;
  });
  doc.y = top + height;
  rule(doc, doc.y - 2, 0.4);
}
