/** What leaves the trail of a piece: Linked Art, CSV, and the dossier with everything that is known. */
import { stringify } from 'csv-stringify/sync';
import { formatMoney } from '@jutbank/core/money';
import { evidenceInWords, linkedArt, trailText } from '@jutbank/core/provenance';
import { edtfInWords } from '@jutbank/core/dates';
import { dimensionOfUnit } from '@jutbank/core/units';
import { treatmentInWords } from '@jutbank/core/condition';
import type { Statement } from '@jutbank/core/pieces';
import { claimFor } from '@jutbank/core/listing';
import { documentRoutes } from '@jutbank/contract/provenance';
import { safeCell, type Mount } from '../http/index.ts';
import { recordMark, ledgerOfPiece } from '../ledger/index.ts';
import { dayInWords, jpegOf, paper, type Paper, type PaperPicture } from '../pdf/index.ts';
import { contextOf, factsOf, pieceRecord, type PictureStore, type Readers } from '../pieces/index.ts';
import { letterheadOf } from '../shop/index.ts';
import { documentsOf } from './documents.ts';

const MOST_PICTURES = 12;
const MOST_ENTRIES = 200;
const MOST_SALES = 20;

export function mountExports(mount: Mount, readers: Readers, pictures: PictureStore): void {
  const { database } = mount;
  const known = async (id: string) => {
    const record = await pieceRecord(database, id);
    const assessment = await readers.assess(record);
    return {
      record,
      assessment,
      facts: factsOf(record, assessment, await contextOf(database, id)),
      documents: await documentsOf(database, readers, id),
    };
  };

  mount.handle(documentRoutes.linkedArt, async ({ params, response }) => {
    const { record, assessment, facts, documents } = await known(params.id);
    const graph = linkedArt({
      base: `urn:jutbank:${record.id}`,
      stockNumber: record.stockNumber,
      title: record.intake.title,
      maker: facts.makerName,
      made: assessment.date?.core,
      sizes: record.observations.flatMap((o) => {
        if (!('measure' in o)) return [];
        const feature = assessment.index.features.get(o.feature);
        const dimension = dimensionOfUnit(feature?.unit);
        const unit = dimension === 'mass' ? 'g' : dimension === 'angle' ? 'degree' : 'mm';
        return [{ label: feature?.label ?? o.feature, value: o.measure, unit } as const];
      }),
      statements: facts.statements.map(({ kind, text }) => ({ kind, text })),
      custody: record.custody,
      documents: documents.map((d) => ({
        id: d.id,
        // titles may name whom a letter is by
        title: [d.kind.replaceAll('-', ' '), d.dated === null ? '' : edtfInWords(d.dated)]
          .filter(Boolean)
          .join(', '),
        kind: d.kind,
        fingerprint: d.file?.fingerprint ?? null,
      })),
    });
    response
      .type('application/ld+json')
      .setHeader('Content-Disposition', `attachment; filename="${record.stockNumber}.linked-art.json"`)
      .send(JSON.stringify(graph, null, 2));
    return undefined;
  });

  mount.handle(documentRoutes.custodyCsv, async ({ params, response }) => {
    const { custody, stockNumber } = await pieceRecord(database, params.id);
    const rows = custody.map((e) =>
      [
        e.private ? 'private collection' : e.holder,
        e.place ?? '',
        e.period,
        e.private ? '' : (e.how ?? ''),
        evidenceInWords(e.evidence),
        e.private ? '' : (e.note ?? ''),
      ].map(safeCell),
    );
    response
      .type('text/csv')
      .setHeader('Content-Disposition', `attachment; filename="${stockNumber}-custody.csv"`)
      .send(stringify([['holder', 'place', 'period', 'how', 'evidence', 'note'], ...rows]));
    return undefined;
  });

  mount.handle(documentRoutes.dossier, async ({ params, response }) => {
    const { record, assessment, facts, documents } = await known(params.id);
    const worth = await readers.worth(record).catch(() => undefined);
    const entries = await ledgerOfPiece(database, record.id, undefined, MOST_ENTRIES);
    const shots: (PaperPicture & { caption: string })[] = [];
    for (const { hash, caption } of record.pictures.slice(0, MOST_PICTURES)) {
      const bytes = await pictures.read(hash, 'thumb');
      if (bytes) shots.push({ ...(await jpegOf(bytes)), caption });
    }
    const of = (...kinds: Statement['kind'][]) => facts.statements.filter((s) => kinds.includes(s.kind));
    const decided = record.attribution;
    const head = {
      letterhead: await letterheadOf(database),
      title: 'Dossier',
      running: [record.stockNumber, await recordMark(database, record.id)],
    };
    const pdf = await paper(head, (on) => {
      on.label([record.stockNumber, record.intake.title].join(' · '));
      on.headline(claimFor(facts));
      on.pair('Made', facts.made ?? 'not known');
      on.pictures(shots, 3);
      on.section('What was seen');
      told(on, 'Marks, codes and numbers', of('mark'));
      told(on, 'Features', of('feature'));
      told(on, 'Sizes', of('measure'));
      on.section('What follows, and how it was decided');
      if (decided)
        on.pair(
          `Decided by ${decided.decidedBy}, ${dayInWords(decided.decidedAt)}`,
          [decided.reason, decided.evidence]
            .filter((text) => text != null && text !== '')
            .join(' Evidence: ') || 'As the reference and what was seen lead to it.',
        );
      else on.body('Nothing is decided yet.');
      on.list(assessment.answer.attribution.reasons, 'By what was seen');
      told(on, 'Not excluded', of('not-excluded'));
      told(on, 'Of its date and edition', of('date', 'edition', 'attribution'));
      told(on, 'Questions that are open', of('question'));
      told(on, 'Refuted', of('refuted'));
      on.section('Condition');
      if (facts.gradeLine !== undefined) on.body(facts.gradeLine);
      told(on, 'Found', of('finding', 'part', 'as-found', 'sealed', 'completeness', 'history'));
      told(on, 'Not examined', of('not-examined'));
      on.list(
        record.treatments.map((t) => `${treatmentInWords(t)}, by ${t.doneBy}: ${t.reason}`),
        'Treatments',
      );
      on.section('Who had it');
      on.body(
        record.custody.length === 0 ? 'Nothing is known of earlier owners.' : trailText(record.custody),
      );
      told(on, 'What contradicts itself', of('trail'));
      on.section('Documents');
      if (documents.length === 0) on.body('None is recorded.');
      for (const d of documents) {
        on.room(60);
        on.body(
          [
            d.title,
            d.kind.replaceAll('-', ' '),
            d.dated === null ? '' : edtfInWords(d.dated),
            d.author,
            d.page && `p. ${d.page}`,
          ]
            .filter((part) => part !== '')
            .join(', '),
          { voice: 'strong' },
        );
        on.list(d.checked.map((c) => `${c.says}: ${VERDICT_WORDS[c.verdict]} (${c.because})`));
        if (d.transcription !== '') on.body(d.transcription);
        if (d.file) on.body(`sha256 ${d.file.fingerprint}`, { voice: 'figures', size: 7, soft: true });
        on.space(5);
      }
      const rows = worth?.answer.comparables.filter((c) => c.excluded === null).slice(0, MOST_SALES) ?? [];
      if (worth?.answer.supported && rows.length > 0) {
        on.section('Comparable sales');
        on.body(
          `By them ${formatMoney(worth.answer.estimate)}; four of five such sales fall between ${formatMoney(worth.answer.low)} and ${formatMoney(worth.answer.high)}.`,
        );
        on.table(
          [
            { head: 'Sold', width: 74 },
            { head: 'Where', width: 219 },
            { head: 'Paid', width: 95, figures: true },
            { head: 'Comes to', width: 95, figures: true },
          ],
          rows.map((row) => [
            row.saleDate,
            row.venue,
            formatMoney(row.paid),
            row.adjusted ? formatMoney(row.adjusted) : '',
          ]),
        );
      }
      on.section('From the ledger');
      on.table(
        [
          { head: 'No.', width: 44, figures: true },
          { head: 'Day', width: 74 },
          { head: 'What', width: 130 },
          { head: 'Who', width: 95 },
          { head: 'Fingerprint', width: 140 },
        ],
        entries.map((e) => [
          String(e.seq),
          e.at.slice(0, 10),
          e.kind.replaceAll('-', ' '),
          e.by,
          e.hash.slice(0, 24),
        ]),
      );
      on.small(
        'This states what was examined and on what evidence, for whoever has to judge it; it is not an appraisal for tax, court or insurance, which may need a licensed appraiser.',
      );
    });
    response
      .type('application/pdf')
      .setHeader('Content-Disposition', `inline; filename="dossier-${record.stockNumber}.pdf"`)
      .send(pdf);
    return undefined;
  });
}

const VERDICT_WORDS = {
  agrees: 'agrees',
  contradicts: 'does not hold',
  'not-seen': 'not compared',
  open: 'open',
} as const;

/** Statements with where each comes from. */
function told(on: Paper, name: string, statements: readonly Statement[]): void {
  on.list(
    statements.map((s) =>
      s.source
        ? `${s.text} [${s.source.title}${s.source.page === null ? '' : `, p. ${s.source.page}`}]`
        : s.text,
    ),
    name,
  );
}
