/** The appraisal for paper: what it is for, what it is of, what it rests on, what was concluded and why. */
import { formatMoney } from '@jutbank/core/money';
import type { AppraisalRecord, AppraisedRow, Purpose } from '@jutbank/contract/worth';
import { dayInWords, paper, type Letterhead, type Paper } from '../pdf/index.ts';

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

export function appraisalPdf(
  letterhead: Letterhead,
  record: AppraisalRecord,
  fingerprint: string,
): Promise<Buffer> {
  const head = {
    letterhead: { ...letterhead, shop: record.shop },
    title: `Appraisal ${record.number}`,
    running: [record.piece.stockNumber],
  };
  return paper(head, (on) => {
    const { piece } = record;
    on.pair('Piece', `${piece.stockNumber} · ${piece.title}`);
    on.pair(
      'Purpose, and for whom',
      `For ${PURPOSE_WORDS[record.purpose]}, to be used by ${record.intendedUser}.`,
    );
    on.pair(
      'Basis of value',
      `${record.definition} As of ${dayInWords(record.effectiveDate)}; reported ${dayInWords(record.issuedAt)}.`,
    );
    on.rule(1.6);
    on.label('Concluded value');
    on.headline(formatMoney(record.concluded), 'figures', 22);
    on.body(record.because);
    on.space(4);
    on.body(
      `The regression says ${formatMoney(record.figure)}; four of five such sales fall between ${formatMoney(record.low)} and ${formatMoney(record.high)}. ${record.methods
        .map((m) => `${METHOD_WORDS[m.name] ?? m.name}: ${formatMoney(m.estimate)}`)
        .join(
          '; ',
        )}.${record.corrected ? ` With the appraiser’s corrections of single lines: ${formatMoney(record.corrected)}.` : ''}`,
    );
    on.space(6);
    on.rule();
    on.pair(
      'What it is',
      `${piece.which.label}: ${piece.which.variants.map((v) => `${v.name} (${(100 * v.probability).toFixed(0)} in 100)`).join('; ')}. ${piece.made ? `Made ${piece.made}.` : 'When it was made is not known.'}`,
    );
    on.pair(
      'Condition',
      piece.condition
        ? `${piece.condition.grade} on the ${piece.condition.scale} scale, condition index ${piece.condition.index.toFixed(1)} of 100${piece.condition.inspected ? '' : '; the inspection is not finished'}.`
        : 'Not graded.',
    );
    on.list(piece.statements, 'What was found and what must be told');
    on.list(
      piece.scope.notExamined.length > 0 ? piece.scope.notExamined : ['Nothing on the list was left out.'],
      'What was not examined',
    );
    on.list(
      record.assumptions.length === 0
        ? ['None beyond the conditions below.']
        : record.assumptions.map(
            (a) =>
              `${a.extraordinary ? 'Extraordinary: ' : ''}${a.text}${a.effectPct === null ? '' : ` (were it not so: ${percent(a.effectPct)})`}`,
          ),
      'Assumptions',
    );
    on.pair(
      'The market',
      record.market.lastSale === null
        ? 'No sale is known up to this date.'
        : `${record.market.soldInTwoYears} sales of the two years before it carry what is said of how prices moved; the last of them is of ${dayInWords(record.market.lastSale)}${record.market.beyondLastSale ? ', so the date lies beyond what is known' : ''}.`,
    );
    sales(on, record);
    on.list(record.notes, 'Notes');
    on.list(
      record.corrections.map(
        (c) =>
          `${c.line}: ${c.percent === null ? 'left out' : percent(c.percent)}, ${c.person}, ${dayInWords(c.at)}: ${c.reason}`,
      ),
      'Corrections by hand',
    );
    if (record.limiting !== '') on.pair('Limiting conditions', record.limiting);
    on.pair('Interest in the piece', record.interest);
    on.signature(`${record.signature}, appraiser`);
    on.space(6);
    on.small(
      'An appraisal for tax, court or insurance may need a licensed appraiser where it is used; this paper does not say that its signer is one. It holds for the purpose, user and date named above and for no other.',
    );
    on.body(
      `record ${fingerprint}\nengine ${record.engine.version} · sales ${record.revisions.comparables} · rates ${record.revisions.rates} · reference ${record.revisions.reference} · rules ${record.revisions.rules}`,
      { voice: 'figures', size: 7.5, soft: true },
    );
  });
}

const METHOD_WORDS: Readonly<Record<string, string>> = {
  'adjustment-grid': 'the grid below',
  'fixed-percentages': 'fixed percentages',
  'median-of-raw': 'the middle of raw prices',
};

function sales(on: Paper, record: AppraisalRecord): void {
  const used = record.rows.filter((row) => row.excluded === null);
  on.section('Sales that bear on it');
  on.table(
    [
      { head: 'Sold', width: 62 },
      { head: 'Where', width: 112 },
      { head: 'Paid', width: 76, figures: true },
      { head: 'Adjusted by', width: 94 },
      { head: 'Comes to', width: 76, figures: true },
      { head: 'Weight', width: 63, figures: true },
    ],
    [
      ...used.slice(0, MOST_ROWS).map(cellsOf),
      [
        '',
        used.length > MOST_ROWS ? `and ${used.length - MOST_ROWS} more` : '',
        '',
        'pattern, maker, kind',
        formatMoney(record.rest.adjusted),
        weightText(record.rest.weight),
      ],
    ],
  );
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
