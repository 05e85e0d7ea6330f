/** How far an attribution may go, in the trade's words, always with its reasons. */
import { edtfInWords } from '../dates/index.ts';
import { ENGLISH } from '../words/index.ts';
import type { ReferenceIndex } from './compile.ts';
import type { Row } from './compiled.ts';
import { exchangedParts } from './evidenceTable.ts';
import type { Alert, Attribution, Dating, IdentifyAnswer, PutTogetherAnswer, Tier } from './observation.ts';
import type { Posterior } from './posterior.ts';
import type { BenchSettings } from './settings.ts';
import type { ObservationEvidence } from './observationEvidence.ts';

const percent = (p: number) => `${(100 * p).toFixed(p > 0.995 || p < 0.01 ? 1 : 0)} in 100`;

export function attributionOf(
  index: ReferenceIndex,
  signs: readonly ObservationEvidence[],
  posterior: Posterior,
  dating: Pick<Dating, 'conflicts' | 'made'>,
  together: PutTogetherAnswer | undefined,
  settings: BenchSettings,
): Attribution {
  const t = settings.tiers;
  const { ranked } = posterior;
  const best = ranked[0];
  const p = (row: Row | undefined) => (row ? (posterior.probability[row.index] ?? 0) : 0);
  const answer = (tier: Tier, reasons: string[], unproved: string[] = []): Attribution => ({
    tier,
    reasons,
    cannotBeProvedBecause: unproved,
  });
  if (!best || signs.length === 0)
    return answer('not-enough-seen', ['Nothing has been observed yet that tells variants apart.']);

  const inPlay = ranked.filter((row) => (posterior.probability[row.index] ?? 0) > t.inPlay);
  const proof = provingSigns(index, signs, best, inPlay);
  const twins = inPlay.filter((row) => row !== best && areTwins(index, best, row));
  const withTwins = p(best) + twins.reduce((sum, row) => sum + p(row), 0);
  let fakes = 0;
  for (let r = 0; r < index.counterfeit.length; r++)
    if (index.counterfeit[r]) fakes += posterior.probability[r] ?? 0;
  const name = best.variant.name;
  const unproved: string[] = [];
  if (twins.length > 0) unproved.push(ENGLISH.say('unproved.twin'));
  if (!proof) unproved.push(ENGLISH.say('unproved.noProof'));
  const copies = inPlay.filter((row) => row.variant.kind === 'counterfeit' && row !== best);
  for (const copy of copies)
    unproved.push(
      copy.variant.tells?.length
        ? ENGLISH.say('unproved.counterfeitTells', {
            name: copy.variant.name,
            tells: copy.variant.tells.join('; '),
          })
        : ENGLISH.say('unproved.counterfeit', { name: copy.variant.name }),
    );
  if (posterior.unlisted > t.doubt) unproved.push(ENGLISH.say('unproved.unlisted'));

  if (best.imitation && p(best) >= 0.5)
    return answer('rejected', [
      `The best explanation is ${name}, ${best.variant.kind === 'counterfeit' ? 'a counterfeit' : 'a reproduction'} (${percent(p(best))}).`,
      ...(best.variant.tells ?? []).map((tell) => `Known tell: ${tell}.`),
    ]);
  if (together)
    return answer(
      'doubtful',
      [
        `Its parts belong to two pieces: ${together.pieces
          .map(
            ({ variant, parts }) =>
              `${parts.join(', ')} to ${index.variants.get(variant)?.variant.name ?? variant}`,
          )
          .join('; ')}.`,
      ],
      unproved,
    );
  const doubts: string[] = [];
  if (fakes > t.doubt) doubts.push(`A counterfeit explains it at ${percent(fakes)}.`);
  for (const { part, responsibility } of exchangedParts(index, posterior, best))
    if (responsibility * p(best) > t.doubt) doubts.push(`It fits ${name} only if the ${part} was exchanged.`);
  if (dating.conflicts.length > 0 && withTwins >= 0.5)
    doubts.push('What was seen cannot all be from one time; something has to be set aside.');
  else if (dating.made?.clash && withTwins >= 0.5)
    doubts.push(
      `${name} was made ${edtfInWords(dating.made.clash.window)}, what was seen is of ${edtfInWords(dating.made.clash.bracket)}.`,
    );
  if (doubts.length > 0 && withTwins >= 0.5) return answer('doubtful', doubts, unproved);
  if (p(best) >= t.confirmed && proof)
    return answer('confirmed', [`${name} stands at ${percent(p(best))}.`, proof]);
  if (p(best) >= t.probable) return answer('probable', [`${name} stands at ${percent(p(best))}.`], unproved);
  if (twins.length > 0 && withTwins >= t.twinsTogether)
    return answer(
      'type-consistent',
      [
        `${name} and its twin stand at ${percent(withTwins)} together, neither alone at ${percent(t.probable)}.`,
      ],
      unproved,
    );
  return answer(
    'not-enough-seen',
    [`${name} leads at ${percent(p(best))}; ${inPlay.length} variants are still in play.`],
    unproved,
  );
}

function areTwins(index: ReferenceIndex, a: Row, b: Row): boolean {
  const isTwin = (x: Row, y: Row) =>
    x.variant.kind === 'commercial-twin' && x.variant.twinOf === y.variant.id;
  const sameOriginal =
    a.variant.kind === 'commercial-twin' &&
    b.variant.kind === 'commercial-twin' &&
    a.variant.twinOf != null &&
    a.variant.twinOf === b.variant.twinOf;
  return isTwin(a, b) || isTwin(b, a) || (sameOriginal && index.variants.has(a.variant.twinOf ?? ''));
}

/**
 * The mark, code or number that only the leader bears, or those that only it bears together: no other variant of the
 * whole reference may show them, and none that is still in play may be silent about them.
 */
function provingSigns(
  index: ReferenceIndex,
  signs: readonly ObservationEvidence[],
  best: Row,
  inPlay: readonly Row[],
): string | undefined {
  const stamps = signs.filter((sign) => !('feature' in sign.subject) && sign.verdict(best) === 'agrees');
  const proves = (some: readonly ObservationEvidence[]) =>
    inPlay.every((row) => row === best || some.some((sign) => sign.verdict(row) === 'disagrees')) &&
    index.rows.every(
      (row) => row === best || copies(row, best) || some.some((sign) => sign.verdict(row) !== 'agrees'),
    );
  // what the reference does not list for a variant is no proof of it
  const told = stamps.filter((sign) => 'code' in sign.subject || sign.expected(best).length > 0);
  const alone = told.find((sign) => proves([sign]));
  if (alone) return `${inWords(index, alone)} is borne by no other variant of the reference.`;
  if (told.length < 2 || !proves(told)) return undefined;
  return `No other variant of the reference bears ${told.map((sign) => inWords(index, sign)).join(' together with ')}.`;
}

/** An imitation of a variant shows its stamps; it is told apart by its tells, not by them. */
const copies = (row: Row, original: Row) => row.imitation && row.judgedAs === original.index;

function inWords(index: ReferenceIndex, { subject, observed }: ObservationEvidence): string {
  if ('mark' in subject) return `The stamp “${index.marks.get(subject.mark)?.lines.join(' / ')}”`;
  const code = 'code' in subject ? index.codes.get(subject.code) : undefined;
  return `${code?.title ?? 'The number'} ${observed}`;
}

/** An alarm on a number forbids certainty, whatever else agrees. */
export function cautioned(attribution: Attribution, alerts: readonly Alert[]): Attribution {
  const alarm = alerts.find((a) => ALARMS.has(a.kind));
  if (!alarm || attribution.tier !== 'confirmed') return attribution;
  return {
    tier: 'probable',
    reasons: attribution.reasons,
    cannotBeProvedBecause: [...attribution.cannotBeProvedBecause, alarm.detail],
  };
}
/** An answer with alarms that only the shop's own records can raise. */
export const withAlerts = (answer: IdentifyAnswer, alerts: readonly Alert[]): IdentifyAnswer => ({
  ...answer,
  alerts: [...answer.alerts, ...alerts],
  attribution: cautioned(answer.attribution, alerts),
});
const ALARMS: ReadonlySet<Alert['kind']> = new Set([
  'serial-beyond-run',
  'serial-seen-before',
  'run-does-not-exist',
]);
