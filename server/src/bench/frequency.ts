/** What was learnt of how often things turn up, with names, for the page that shows it. */
import type { LearntLevel, ReferenceIndex } from '@jutbank/core/bench';
import type { FrequencyAnswer } from '@jutbank/contract/bench';
import type { Queries } from '../db/index.ts';
import type { Library } from '../reference/index.ts';

export async function frequencyAnswer(db: Queries, library: Library): Promise<FrequencyAnswer> {
  const index = await library.index();
  const { frequency } = index;
  const shop = await db.row<{ learns_frequency: number }>('SELECT learns_frequency FROM shop WHERE id = 1');
  return {
    learns: Boolean(shop?.learns_frequency),
    unlisted: frequency.unlisted,
    exponents: [...frequency.exponents].map(([maker, exponent]) => ({
      maker,
      name: index.makers.get(maker)?.name ?? maker,
      exponent,
    })),
    learnt: frequency.learnt.map(({ from, named, unnamed, levels }) => ({
      from,
      named,
      unnamed,
      levels: levels.map((level) => ({
        ...level,
        factors: level.factors
          .map((f) => ({ ...f, name: nameOf(index, level.level, f.id) }))
          .sort((a, b) => Math.abs(Math.log(b.factor)) - Math.abs(Math.log(a.factor)))
          .slice(0, MOST_TOLD),
      })),
    })),
  };
}
/** The factors of a level that moved most; the rest say nearly what was expected. */
const MOST_TOLD = 40;

function nameOf(index: ReferenceIndex, level: LearntLevel['level'], id: string): string {
  switch (level) {
    case 'kind':
      return id;
    case 'maker': {
      const [maker = '', construction = ''] = id.split(' ');
      return `${index.makers.get(maker)?.name ?? maker}, ${construction}`;
    }
    case 'pattern':
      return index.patterns.get(id)?.name ?? id;
    case 'variant':
    case 'counterfeit': {
      const row = index.variants.get(id);
      return row ? `${row.pattern.name}, ${row.variant.name}` : id;
    }
  }
}
