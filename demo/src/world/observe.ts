/** What a person would have seen of a piece of a given variant: its features, a little noise in the measures. */
import type { Observation } from '@jutbank/core/bench';
import type { Feature, Mark, Variant } from '@jutbank/core/reference';
import type { Random } from '@jutbank/core/random';
import type { Story } from './pieces.ts';
import { demoPack } from './reference.ts';

export const variantOf = (story: Story): Variant => {
  const found = demoPack.variants?.find((v) => v.id === story.variant);
  if (!found) throw new Error(`the demo has no variant ${story.variant}`);
  return found;
};

export function sharedObservations(story: Story, chance: Random): Observation[] {
  const variant = variantOf(story);
  const pattern = demoPack.patterns?.find((p) => p.id === variant.pattern);
  const twin = demoPack.variants?.find((v) => v.id === variant.twinOf);
  const marks = variant.kind === 'counterfeit' ? twin?.marks : variant.marks;
  const out: Observation[] = [];
  for (const feature of demoPack.features ?? []) {
    if (story.unseen?.includes(feature.id)) continue;
    const observation = see(feature, variant, pattern?.measures, story, chance);
    if (observation) out.push(observation);
  }
  const mark = (demoPack.marks ?? []).find((m: Mark) => m.id === marks?.[0]);
  if (mark) out.push({ mark: mark.id });
  return [...out, ...(story.codes ?? [])];
}

function see(
  feature: Feature,
  variant: Variant,
  measures: Record<string, { value: number }> | null | undefined,
  story: Story,
  chance: Random,
): Observation | undefined {
  const told = story.instead?.[feature.id];
  if (told !== undefined) return { feature: feature.id, value: told };
  if (story.cannotTell?.includes(feature.id)) return { feature: feature.id, state: 'cannot-tell' };
  if (feature.kind === 'measure') {
    const nominal = variant.measures?.[feature.id] ?? measures?.[feature.id];
    if (!nominal) return undefined;
    const resolution = feature.unit === 'g' ? 1 : 0.1;
    const noise =
      feature.unit === 'g'
        ? chance.normal() * 2
        : chance.normal() * 0.4 - (feature.wear === 'shrinks' ? chance.next() * 1.5 : 0);
    const measure = Math.round((nominal.value + noise) / resolution) * resolution;
    return { feature: feature.id, measure: Number(measure.toFixed(2)), resolution };
  }
  const value = variant.features?.[feature.id]?.[0];
  return value === undefined
    ? undefined
    : { feature: feature.id, value, certainty: chance.yes(0.15) ? 'likely' : 'sure' };
}
