/** What was seen, where to look and what was decided, as the bench writes it into the record. */
import { checkObservation, ENGINE_VERSION } from '@jutbank/core/bench';
import { benchRoutes } from '@jutbank/contract/bench';
import type { AttributionBody, StoredAttribution } from '@jutbank/contract/pieces';
import { raiseRevision } from '../db/index.ts';
import { invalid, type Mount } from '../http/index.ts';
import { pieceRecord, type Readers, changeByCall, mountChange, writeObservations } from '../pieces/index.ts';

/** What was seen, where to look, and what was decided: the bench's part of the record. */
export function mountObservations(mount: Mount, readers: Readers): void {
  mountChange(mount, readers, benchRoutes.putObservations, async (tx, call) => {
    const index = await readers.library.atHand(tx);
    const { observations } = call.body;
    const problems = observations.flatMap((o, i) =>
      checkObservation(index, o).map((p) => ({
        pointer: `/observations/${i}${p.pointer}`,
        message: p.message,
      })),
    );
    if (problems.length > 0) throw invalid(problems);
    return changeByCall(tx, call, 'observed', async (before) => {
      await writeObservations(tx, index, call.params.id, before.observations, observations);
    });
  });

  mountChange(mount, readers, benchRoutes.putAttribution, async (tx, call) => {
    const index = await readers.library.atHand(tx);
    const decision = call.body.attribution;
    if (decision) checkDecision(decision, index);
    const record = await pieceRecord(tx, call.params.id);
    const engine = (await readers.assessIn(tx, record)).answer;
    const same =
      decision?.variant === engine.candidates[0]?.variant && decision?.tier === engine.attribution.tier;
    const problems: { pointer: string; message: string }[] = [];
    if (decision && !same && decision.reason === '')
      problems.push({
        pointer: '/attribution/reason',
        message: 'This differs from what the evidence says: give your reason.',
      });
    if (
      decision &&
      engine.attribution.tier === 'rejected' &&
      decision.tier !== 'rejected' &&
      decision.evidence === ''
    )
      problems.push({
        pointer: '/attribution/evidence',
        message:
          'The evidence speaks for an imitation: name what overrules it (a document, an examination, whose).',
      });
    if (decision?.made != null && decision.madeReason === '')
      problems.push({ pointer: '/attribution/madeReason', message: 'Say why it is of that date.' });
    if (problems.length > 0) throw invalid(problems);
    const stored: StoredAttribution | null = decision && {
      ...decision,
      decidedBy: call.person.name,
      decidedAt: new Date().toISOString(),
      engineVersion: ENGINE_VERSION,
      referenceRevision: index.revision,
      observations: [...record.observations],
      engineAnswer: {
        candidates: engine.candidates,
        unlisted: engine.unlisted,
        attribution: engine.attribution,
        core: engine.dating.core,
        outer: engine.dating.outer,
      },
    };
    return changeByCall(tx, call, 'attributed', async () => {
      await tx.run('UPDATE piece SET attribution = ? WHERE id = ?', [
        stored === null ? null : JSON.stringify(stored),
        call.params.id,
      ]);
      await raiseRevision(tx, 'encounters');
    });
  });

  mountChange(mount, readers, benchRoutes.putNarrowing, async (tx, call) => {
    const index = await readers.library.atHand(tx);
    const unknown = [
      ...call.body.makers.flatMap((id, i) =>
        index.makers.has(id) ? [] : [{ pointer: `/makers/${i}`, message: `there is no maker “${id}”` }],
      ),
      ...call.body.patterns.flatMap((id, i) =>
        index.patterns.has(id) ? [] : [{ pointer: `/patterns/${i}`, message: `there is no pattern “${id}”` }],
      ),
    ];
    if (unknown.length > 0) throw invalid(unknown);
    const { makers, patterns } = call.body;
    return changeByCall(tx, call, 'narrowed', async () => {
      await tx.run('UPDATE piece SET narrowing = ? WHERE id = ?', [
        makers.length + patterns.length === 0 ? null : JSON.stringify({ makers, patterns }),
        call.params.id,
      ]);
    });
  });
}

function checkDecision(
  decision: AttributionBody,
  index: Awaited<ReturnType<Readers['library']['index']>>,
): void {
  if (decision.variant !== null && index.variants.get(decision.variant)?.pattern.id !== decision.pattern)
    throw invalid([{ pointer: '/attribution/variant', message: 'this variant is not of that pattern' }]);
  if (decision.pattern !== null && !index.patterns.has(decision.pattern))
    throw invalid([
      { pointer: '/attribution/pattern', message: `there is no pattern “${decision.pattern}”` },
    ]);
}
