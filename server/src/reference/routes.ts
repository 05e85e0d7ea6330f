import { PACK_SECTIONS, type Mark, type ReferencePack } from '@jutbank/core/reference';
import type { ReferenceIndex } from '@jutbank/core/bench';
import { referenceRoutes, type ItemRecord } from '@jutbank/contract/reference';
import { answer, notFound, type Mount } from '../http/index.ts';
import type { Thread } from '../threads/index.ts';
import { itemRecord, putItem, takeOut } from './authoring.ts';
import { availabilityOf, mountAvailability } from './availability.ts';
import type { Library } from './library.ts';
import type { PackWork } from './packWorker.ts';
import { listPacks, packHead, packItems } from './queries.ts';
import { scarcityOfVariant } from './scarcity.ts';

/** @param packs the thread in which packs are read */
export function mountReference(mount: Mount, library: Library, packs: Thread<PackWork>): void {
  const { database } = mount;
  mountAvailability(mount, library);
  mount.handleInThread(
    referenceRoutes.importPack,
    async (document) => {
      const answered = await packs.ask('import', document);
      // made once, before somebody waits for it
      await library.index();
      return answered;
    },
    'writes',
  );
  mount.handleInThread(referenceRoutes.reviewPack, (document) => packs.ask('review', document), 'reads');

  const versioned = (record: ItemRecord) => answer(record, { etag: `"v${record.version}"` });
  mount.handle(referenceRoutes.item, async ({ params }) => versioned(await itemRecord(database, params)));
  mount.handleInTransaction(referenceRoutes.putItem, async (tx, { params, body, ifMatch }) =>
    versioned(await putItem(tx, params, body, ifMatch)),
  );
  mount.handleInTransaction(referenceRoutes.removeItem, async (tx, { params, ifMatch }) => {
    await takeOut(tx, params, ifMatch);
    return answer({ removed: params.id });
  });

  mount.handle(referenceRoutes.maker, async ({ params }) => {
    const { contents, makers } = await library.index();
    const maker = makers.get(params.id);
    if (!maker) throw notFound('maker');
    const patterns = contents.patterns.filter((p) => p.maker === maker.id);
    const own = new Set(patterns.map((p) => p.id));
    const isOwn = (of: { maker?: string | null | undefined; pattern?: string | null | undefined }) =>
      of.maker === maker.id || own.has(of.pattern ?? '');
    return answer({
      maker,
      patterns,
      marks: contents.marks.filter((m) => m.maker === maker.id),
      codes: contents.codes.filter((c) => c.maker === maker.id),
      windows: contents.windows.filter(isOwn),
      stories: contents.stories.filter(isOwn),
    });
  });

  mount.handle(referenceRoutes.listPacks, async () => {
    const items = await listPacks(database);
    return answer({ items, nextCursor: null, total: items.length });
  });

  mount.handle(referenceRoutes.exportPack, async ({ params }) => {
    const head = await packHead(database, params.id);
    if (!head) throw notFound('pack');
    const pack = JSON.parse(head.head) as ReferencePack;
    for (const section of PACK_SECTIONS) {
      const items = await packItems(database, params.id, section);
      if (items.length > 0) (pack[section] as unknown) = items;
    }
    return answer(pack);
  });

  mount.handle(referenceRoutes.vocabulary, async () => {
    const index = await library.index();
    const { contents } = index;
    const variantsOf = new Map<string, number>();
    const most = new Map<string, (typeof index.rows)[number]['variant']>();
    for (const { pattern, variant } of index.rows) {
      variantsOf.set(pattern.id, (variantsOf.get(pattern.id) ?? 0) + 1);
      const before = most.get(pattern.id);
      if (!before || (variant.made?.quantity ?? 0) > (before.made?.quantity ?? 0))
        most.set(pattern.id, variant);
    }
    return answer({
      revision: index.revision,
      makers: contents.makers.map((maker) => {
        const own = contents.patterns.filter((p) => p.maker === maker.id);
        return {
          ...maker,
          patterns: own.length,
          variants: own.reduce((n, p) => n + (variantsOf.get(p.id) ?? 0), 0),
        };
      }),
      patterns: contents.patterns.map((p) => ({
        ...p,
        variants: variantsOf.get(p.id) ?? 0,
        form: most.get(p.id)?.id ?? null,
      })),
      features: contents.features,
      marks: contents.marks,
      codes: contents.codes,
      sources: contents.sources,
    });
  });

  mount.handle(referenceRoutes.pattern, async ({ params }) => {
    const index = await library.index();
    const pattern = index.patterns.get(params.id);
    const maker = index.makers.get(pattern?.maker ?? '');
    if (!pattern || !maker) throw notFound('pattern');
    return answer({
      pattern,
      maker,
      variants: index.rows.filter((row) => row.pattern.id === pattern.id).map((row) => row.variant),
      windows: windowsFor(index, pattern.id, maker.id),
      marks: index.contents.marks.filter((m) => m.maker === maker.id),
      stories: index.contents.stories.filter(
        (s) => s.pattern === pattern.id || index.variants.get(s.variant ?? '')?.pattern.id === pattern.id,
      ),
    });
  });

  mount.handle(referenceRoutes.forms, async ({ query }) => {
    const index = await library.index();
    const ids = [...new Set(query.ids.split(',').filter(Boolean))];
    return answer({
      variants: ids.flatMap((id) => {
        const row = index.variants.get(id);
        if (!row) return [];
        const { name, features, measures, marks } = row.variant;
        return [{ id, pattern: row.pattern.id, name, features, measures, marks }];
      }),
    });
  });

  mount.handle(referenceRoutes.variant, async ({ params }) => {
    const index = await library.index();
    const row = index.variants.get(params.id);
    if (!row) throw notFound('variant');
    const { variant, pattern, maker } = row;
    const windows = windowsFor(index, pattern.id, maker.id).filter((w) =>
      variant.features?.[w.feature]?.includes(w.value),
    );
    const marks = (variant.marks ?? []).flatMap((id): Mark[] => {
      const mark = index.marks.get(id);
      return mark ? [mark] : [];
    });
    const cited = new Set([
      ...windows.map((w) => w.source),
      ...marks.map((m) => m.source),
      ...(variant.claims ?? []).map((c) => c.source),
    ]);
    return answer({
      variant,
      pattern,
      maker,
      marks,
      windows,
      sources: index.contents.sources.filter((s) => cited.has(s.id)),
      scarcity: await scarcityOfVariant(database, index, row),
      availability: await availabilityOf(database, variant.id),
    });
  });
}

const windowsFor = (index: ReferenceIndex, pattern: string, maker: string) =>
  index.contents.windows.filter(
    (w) => w.pattern === pattern || (w.pattern == null && (w.maker == null || w.maker === maker)),
  );
