/** What importing a pack would do, before it is done: new, changed field by field, contradicting. */
import { checkPack, PACK_SECTIONS, type PackContents, type ReferencePack } from '@jutbank/core/reference';
import type { Contradiction, PackReview } from '@jutbank/contract/reference';
import { invalid } from '../http/index.ts';
import { canonical } from '../ledger/index.ts';
import { nameOf, noCounts, type Stored } from './queries.ts';

export function reviewPack(pack: ReferencePack, contents: PackContents): PackReview {
  const { errors, warnings } = checkPack(pack, contents);
  if (errors.length > 0) throw invalid(errors);
  const review: PackReview = {
    counts: { created: noCounts(), updated: noCounts(), unchanged: noCounts() },
    created: [],
    changed: [],
    contradicts: contradictions(pack, contents),
    warnings: [...warnings],
  };
  for (const section of PACK_SECTIONS) {
    const known = new Map((contents[section] as Stored[]).map((item) => [item.id, item]));
    for (const item of (pack[section] ?? []) as Stored[]) {
      const before = known.get(item.id);
      const named = { section, id: item.id, name: nameOf(item) };
      if (!before) {
        review.counts.created[section]++;
        review.created.push(named);
      } else if (canonical(before) === canonical(item)) review.counts.unchanged[section]++;
      else {
        review.counts.updated[section]++;
        review.changed.push({ ...named, fields: fieldsChanged(before, item) });
      }
    }
  }
  return review;
}

function fieldsChanged(before: object, after: object): PackReview['changed'][number]['fields'] {
  const was = new Map(Object.entries(before) as [string, unknown][]);
  const is = new Map(Object.entries(after) as [string, unknown][]);
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((field) => {
    const pair = { before: was.get(field) ?? null, after: is.get(field) ?? null };
    return canonical(pair.before) === canonical(pair.after) ? [] : [{ field, ...pair }];
  });
}

/** Windows for the same value and scope, from another source, that begin or end on another day. */
function contradictions(pack: ReferencePack, contents: PackContents): Contradiction[] {
  const key = (w: PackContents['windows'][number]) =>
    JSON.stringify([w.maker ?? null, w.pattern ?? null, w.feature, w.value]);
  const shops = new Map<string, PackContents['windows']>();
  for (const w of contents.windows) {
    const list = shops.get(key(w));
    if (list) list.push(w);
    else shops.set(key(w), [w]);
  }
  const titles = new Map(contents.sources.map((s) => [s.id, s.title]));
  return (pack.windows ?? []).flatMap((w) =>
    (shops.get(key(w)) ?? []).flatMap((own): Contradiction[] => {
      if (own.id === w.id || own.source === w.source || own.window === w.window) return [];
      return [
        {
          window: w.id,
          feature: w.feature,
          value: w.value,
          says: w.window,
          shopSays: own.window,
          shopSource: titles.get(own.source ?? '') ?? null,
        },
      ];
    }),
  );
}
