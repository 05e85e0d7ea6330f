/** How far an attribution may go, in the trade's words, always with its reasons. */
import type { ReferenceIndex, Row } from './compile.ts';
import { exchangedParts } from './evidence.ts';
import type { Attribution, Conflict, PutTogetherAnswer, Tier } from './observation.ts';
import type { Posterior } from './posterior.ts';
import type { BenchSettings } from './settings.ts';
import type { Sign } from './sign.ts';

const percent = (p: number) => `${(100 * p).toFixed(p > 0.995 || p < 0.01 ? 1 : 0)} in 100`;

export function attributionOf(
  index: ReferenceIndex,
  signs: readonly Sign[],
  posterior: Posterior,
  conflicts: readonly Conflict[],
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
  const proof = provingSign(index, signs, best, inPlay);
  const twins = inPlay.filter((row) => row !== best && areTwins(index, best, row));
  const withTwins = p(best) + twins.reduce((sum, row) => sum + p(row), 0);
  let fakes = 0;
  for (let r = 0; r < index.counterfeit.length; r++)
    if (index.counterfeit[r]) fakes += posterior.probability[r] ?? 0;
  const name = best.variant.name;
  const unproved: string[] = [];
  if (twins.length > 0) unproved.push('a commercial twin shares every observed feature');
  if (!proof) unproved.push('no mark, code or number was seen that only this variant explains');
  if (posterior.unlisted > t.doubt)
    unproved.push('something not in the reference explains what was seen about as well');

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
  if (conflicts.length > 0 && withTwins >= 0.5)
    doubts.push('What was seen cannot all be from one time; something has to be set aside.');
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

/** A mark, code or number that only the leader explains among the variants still in play. */
function provingSign(
  index: ReferenceIndex,
  signs: readonly Sign[],
  best: Row,
  inPlay: readonly Row[],
): string | undefined {
  for (const sign of signs) {
    if ('feature' in sign.subject || sign.verdict(best) !== 'agrees') continue;
    if (inPlay.every((row) => row === best || sign.verdict(row) === 'disagrees'))
      return `${'mark' in sign.subject ? `The stamp “${index.marks.get(sign.subject.mark)?.lines.join(' / ')}”` : sign.observed} is borne by this variant only, of those still in play.`;
  }
  return undefined;
}
