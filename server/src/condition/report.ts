/** The condition report for paper: in the order of inspection, every finding with its picture, what was not looked at. */
import {
  findingInWords,
  reportOrder,
  treatmentInWords,
  type Finding,
  type GradeAnswer,
  type Inspection,
} from '@jutbank/core/condition';
import type { ConditionFile } from '@jutbank/contract/condition';
import type { PictureStore, PieceRecord } from '../pieces/index.ts';
import { OVER_PICTURE } from '@jutbank/core/drawing';
import sharp from 'sharp';
import { body, dayOf, head, label, LEFT, pdf, RIGHT, rule, SOFT, strong, type Doc } from '../pdf/index.ts';

export interface ReportFacts {
  readonly shop: string;
  readonly record: PieceRecord;
  readonly inspection: Inspection;
  readonly grade: GradeAnswer;
  readonly file: ConditionFile;
  readonly claim: string;
  readonly measures: readonly { readonly label: string; readonly text: string }[];
  /** what else must be told of the piece: its seal, its state when it came, its parts, what comes along, its date */
  readonly told: readonly string[];
}

const PICTURE_WIDTH = 150;
const BOTTOM = 770;
const room = (doc: Doc, height: number) => {
  if (doc.y + height > BOTTOM) doc.addPage();
  doc.x = LEFT;
};

export function conditionReport(facts: ReportFacts, pictures: PictureStore): Promise<Buffer> {
  const { record, inspection, grade, file } = facts;
  const order = reportOrder(record.intake.construction, inspection, record.findings);
  return pdf(`Condition report ${record.stockNumber}`, async (doc) => {
    head(doc, facts.shop, 'Condition report');
    label(doc, 'Piece');
    strong(doc, `${record.stockNumber}  ${record.intake.title}`);
    body(doc, facts.claim);
    doc.moveDown(0.8);
    label(doc, 'Grades');
    const nothing = order.sections.length === 0 && order.elsewhere.length === 0;
    if (nothing) body(doc, 'Nobody has looked at it yet: there is nothing to grade.');
    else strong(doc, `Condition index ${grade.conditionIndex.toFixed(1)} of 100`);
    for (const g of nothing ? [] : grade.grades) {
      body(doc, `${capital(g.scale)} scale: ${g.grade.replace('-', ' ')}${capsOf(g)}`);
      doc.font('text').fontSize(8).fillColor(SOFT).text(`Rules ${g.rules}. ${g.toNextUp}`);
    }
    doc.moveDown(0.8);
    for (const section of order.sections) {
      room(doc, 50);
      rule(doc, doc.y);
      doc.moveDown(0.4);
      strong(doc, section.title, 10.5);
      for (const f of section.findings) await findingOn(doc, f, record, pictures);
      if (section.nothingFound.length > 0) body(doc, `Nothing found: ${section.nothingFound.join(', ')}.`);
      doc.moveDown(0.4);
    }
    if (order.elsewhere.length > 0) {
      room(doc, 50);
      strong(doc, 'Also found', 10.5);
      for (const f of order.elsewhere) await findingOn(doc, f, record, pictures);
    }
    if (facts.measures.length > 0) {
      room(doc, 40);
      label(doc, 'Measured');
      for (const m of facts.measures) body(doc, `${m.label}: ${m.text}`);
    }
    if (facts.told.length > 0) {
      room(doc, 40);
      doc.moveDown(0.6);
      label(doc, 'Also to be known');
      for (const line of facts.told) body(doc, `– ${line}`);
    }
    room(doc, 60);
    doc.moveDown(0.6);
    label(doc, 'Treatments');
    body(
      doc,
      record.treatments.length > 0
        ? record.treatments.map((t) => `${treatmentInWords(t)}, by ${t.doneBy}: ${t.reason}`).join('\n')
        : 'None is recorded.',
    );
    for (const move of file.moves)
      body(
        doc,
        `${capital(move.part)} ${move.to.piece?.id === record.id ? 'from' : 'gone to'} ${placeOf(move.to.piece?.id === record.id ? move.from : move.to)} (${move.why.replaceAll('-', ' ')})`,
      );
    room(doc, 60);
    doc.moveDown(0.6);
    label(doc, 'Not examined');
    body(
      doc,
      order.notExamined.length === 0
        ? 'Everything on the list was examined.'
        : order.notExamined.map((m) => `${m.section}: ${m.parts.join(', ')}`).join('\n'),
    );
    const last = file.states.at(-1);
    doc.moveDown(0.8);
    doc
      .font('text')
      .fontSize(8)
      .fillColor(SOFT)
      .text(
        `${last ? `Inspected by ${last.notedBy}, ${dayOf(last.notedAt)}.` : 'The inspection is not finished.'} This states what was seen on the day, by eye and simple gauges, without taking the piece apart; it is not an appraisal for tax, court or insurance, which may need a licensed appraiser.`,
        LEFT,
        doc.y,
        { width: RIGHT - LEFT, lineGap: 1.5 },
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

/** A finding in words; where it is pinned on a picture, the picture with a ring around the place. */
async function findingOn(doc: Doc, f: Finding, record: PieceRecord, store: PictureStore): Promise<void> {
  body(doc, findingInWords(f));
  const picture = record.pictures.find((p) => p.id === f.pin?.picture);
  const bytes = picture && (await store.read(picture.hash, 'thumb'));
  if (!f.pin || !bytes) return;
  // paper knows no WebP
  const { data, info } = await sharp(bytes).jpeg({ quality: 82 }).toBuffer({ resolveWithObject: true });
  const height = (PICTURE_WIDTH * info.height) / info.width;
  room(doc, height + 10);
  const top = doc.y + 3;
  doc.image(data, LEFT, top, { width: PICTURE_WIDTH });
  doc
    .circle(LEFT + f.pin.x * PICTURE_WIDTH, top + f.pin.y * height, 8)
    .lineWidth(1.4)
    .strokeColor(OVER_PICTURE.finding)
    .stroke();
  doc.y = top + height + 6;
  doc.x = LEFT;
}
