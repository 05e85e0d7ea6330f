/** What a shop of the world has met before: drawn as its pieces are. */
import type { Encounters } from '@jutbank/core/bench';
import type { Random } from '@jutbank/core/random';
import { sharesOf } from './piece.ts';
import { drawFrom, PARAMETERS, type World } from './world.ts';

/** Of sold comparables so many name the variant; of decided pieces so many are decided wrongly. */
const NAMED = 0.65;
const WRONG = 0.03;

export function drawEncounters(
  world: World,
  luck: Random,
  size: { readonly own: number; readonly sold: number },
): Encounters {
  const shares = sharesOf(world, 'fair');
  const counted = () => ({ variants: new Map<string, number>(), patterns: new Map<string, number>() });
  const count = (map: Map<string, number>, id: string) => map.set(id, (map.get(id) ?? 0) + 1);
  const own = counted();
  let unlisted = 0;
  for (let i = 0; i < size.own; i++) {
    if (luck.yes(PARAMETERS.unlisted)) unlisted++;
    else {
      const truth = luck.yes(WRONG) ? luck.pick(world.truths) : world.truths[drawFrom(luck, shares)];
      if (truth) count(own.variants, truth.variant.id);
    }
  }
  const sold = counted();
  for (let i = 0; i < size.sold; i++) {
    const truth = world.truths[drawFrom(luck, shares)];
    if (!truth) continue;
    if (luck.yes(NAMED)) count(sold.variants, truth.variant.id);
    else count(sold.patterns, truth.variant.pattern);
  }
  return {
    own: own.variants,
    ownOfPattern: own.patterns,
    sold: sold.variants,
    soldOfPattern: sold.patterns,
    unlisted,
  };
}
