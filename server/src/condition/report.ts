/** The condition report for paper: in the order of inspection, every finding with its picture, what was not looked at. */
import {
  findingInWords,
  reportOrder,
  treatmentInWords,
  type Finding,
  type GradeAnswer,
  type Inspection,
} from '@jutbank/core/condition';
import type { Drawing } from '@jutbank/core/drawing';
import type { ConditionFile } from '@jutbank/contract/condition';
import { dayInWords, jpegOf, paper, type Letterhead, type Paper, type PaperPicture } from '../pdf/index.ts';
import type { PictureStore, PieceRecord } from '../pieces/index.ts';

export interface ReportFacts {
  readonly letterhead: Letterhead;
  readonly record: PieceRecord;
  readonly inspection: Inspection;
  readonly grade: GradeAnswer;
  readonly file: ConditionFile;
  readonly claim: string;
  /** the piece drawn open; findings that no picture shows are numbered on it */
  readonly drawing: Drawing;
  /** of the record it is made from */
  readonly mark: string;
  readonly measures: readonly { readonly label: string; readonly text: string }[];
  /** what else must be told of the piece: its seal, its state when it came, its parts, what comes along, its date */
  readonly told: readonly string[];
}

const PICTURE_WIDTH = 150;
const DRAWN_HEIGHT = 110;

/** Findings pinned on the drawn piece, by the number they have in the record. */
const onDrawing = (findings: readonly Finding[]) =>
  findings.flatMap(({ pin }, i) =>
    pin && pin.picture == null ? [{ number: i + 1, x: pin.x, y: pin.y }] : [],
  );

export async function conditionReport(facts: ReportFacts, store: PictureStore): Promise<Buffer> {
  const { record, inspection, grade, file, letterhead } = facts;
  const order = reportOrder(record.intake.construction, inspection, record.findings);
  const pictures = await pinnedPictures(record, store);
  const findings = (on: Paper, list: readonly Finding[]) => list.forEach((f) => findingOn(on, f, pictures));
  return paper({ letterhead, title: 'Condition report', running: [record.stockNumber, facts.mark] }, (on) => {
    on.label('Piece');
    on.headline(`${record.stockNumber}  ${record.intake.title}`, 'strong', 12);
    on.body(facts.claim);
    on.space(8);
    on.drawing(facts.drawing, DRAWN_HEIGHT, onDrawing(record.findings));
    on.section('Grades');
    const nothing = order.sections.length === 0 && order.elsewhere.length === 0;
    if (nothing) on.body('Nobody has looked at it yet: there is nothing to grade.');
    else on.headline(`Condition index ${grade.conditionIndex.toFixed(1)} of 100`, 'strong', 11);
    for (const g of nothing ? [] : grade.grades) {
      on.body(`${capital(g.scale)} scale: ${g.grade.replace('-', ' ')}${capsOf(g)}`);
      on.small(`Rules ${g.rules}. ${g.toNextUp}`);
      on.space(2);
    }
    const told = order.sections.filter((section) => section.findings.length > 0);
    for (const section of told) {
      on.section(section.title);
      findings(on, section.findings);
      if (section.nothingFound.length > 0) on.body(`Nothing found: ${section.nothingFound.join(', ')}.`);
    }
    const sound = order.sections.filter(
      (section) => section.findings.length === 0 && section.nothingFound.length > 0,
    );
    if (sound.length > 0) {
      on.section('Looked at, and nothing found');
      on.list(sound.map((section) => `${section.title}: ${section.nothingFound.join(', ')}`));
    }
    if (order.elsewhere.length > 0) {
      on.section('Also found');
      findings(on, order.elsewhere);
    }
    if (facts.measures.length > 0) {
      on.section('Measured');
      for (const m of facts.measures) on.body(`${m.label}: ${m.text}`);
    }
    if (facts.told.length > 0) {
      on.section('Also to be known');
      on.list(facts.told);
    }
    on.section('Treatments');
    on.list([
      ...record.treatments.map((t) => `${treatmentInWords(t)}, by ${t.doneBy}: ${t.reason}`),
      ...file.moves.map(
        (move) =>
          `${capital(move.part)} ${move.to.piece?.id === record.id ? 'from' : 'gone to'} ${placeOf(move.to.piece?.id === record.id ? move.from : move.to)} (${move.why.replaceAll('-', ' ')})`,
      ),
    ]);
    if (record.treatments.length === 0) on.body('None is recorded.');
    on.section('Not examined');
    if (order.notExamined.length === 0) on.body('Everything on the list was examined.');
    else on.list(order.notExamined.map((m) => `${m.section}: ${m.parts.join(', ')}`));
    const last = file.states.at(-1);
    on.space(8);
    on.small(
      `${last ? `Inspected by ${last.notedBy}, ${dayInWords(last.notedAt)}.` : 'The inspection is not finished.'} This states what was seen on the day, by eye and simple gauges, without taking the piece apart; it is not an appraisal for tax, court or insurance, which may need a licensed appraiser.`,
    );
  });
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
const placeOf = (end: ConditionFile['moves'][number]['from']): string =>
  end.piece ? `${end.piece.stockNumber} ${end.piece.title}` : end.where || 'somewhere unknown';
const capsOf = (g: GradeAnswer['grades'][number]): string =>
  g.caps.length === 0
    ? ''
    : `, otherwise ${g.would.replace('-', ' ')} – ${[...new Set(g.caps.map((c) => c.says))].join('; ')}`;

/** Pictures that a finding is pinned on, as paper takes them. */
async function pinnedPictures(record: PieceRecord, store: PictureStore): Promise<Map<string, PaperPicture>> {
  const pinned = new Set(record.findings.flatMap((f) => f.pin?.picture ?? []));
  const found = new Map<string, PaperPicture>();
  for (const { id, hash } of record.pictures.filter((p) => pinned.has(p.id))) {
    const bytes = await store.read(hash, 'thumb');
    if (bytes) found.set(id, await jpegOf(bytes));
  }
  return found;
}

/** A finding in words; where it is pinned on a picture, the picture with a ring around the place, on the same page. */
function findingOn(on: Paper, f: Finding, pictures: ReadonlyMap<string, PaperPicture>): void {
  const picture = pictures.get(f.pin?.picture ?? '');
  const height = picture ? (PICTURE_WIDTH * picture.height) / picture.width : 0;
  on.room(height + 22);
  on.body(findingInWords(f));
  if (!f.pin || !picture) return;
  on.picture(picture.bytes, findingInWords(f), {
    width: PICTURE_WIDTH,
    height,
    rings: [f.pin],
  });
}
