/** A shop writes its own reference, one thing at a time: checked against everything it touches before it stands. */
import {
  checkPack,
  emptyContents,
  PACK_SECTIONS,
  type PackContents,
  type PackSection,
  type ReferencePack,
} from '@jutbank/core/reference';
import { itemSchema, type Item, type ItemRecord } from '@jutbank/contract/reference';
import { raiseRevision, type Queries, type Transaction } from '../db/index.ts';
import { conflict, HttpProblem, invalid, notFound, parsedBody } from '../http/index.ts';
import { canonical } from '../ledger/index.ts';
import {
  comparablesNaming,
  itemWith,
  loadContents,
  packHead,
  packsOfItem,
  piecesNaming,
  removeItem,
  storeItems,
  storePack,
} from './queries.ts';

/** The pack that holds what the shop writes itself; like any pack it can be exported and given away. */
const OWN_PACK = { id: 'own', title: 'Written in this shop', revision: '1' };

export interface Place {
  readonly section: PackSection;
  readonly id: string;
}

export async function itemRecord(
  db: Queries,
  { section, id }: Place,
  warnings: readonly string[] = [],
): Promise<ItemRecord> {
  const stored = await itemWith(db, section, id);
  if (!stored) throw notFound('thing in the reference');
  return {
    section,
    item: JSON.parse(stored.body) as Item,
    version: Number(stored.version),
    packs: await packsOfItem(db, section, id),
    warnings: [...warnings],
  };
}

/** Writers stand in line, so that nobody refers to what another is changing. */
const inLine = (tx: Transaction) => tx.row("SELECT number FROM revision WHERE name = 'reference' FOR UPDATE");

export async function putItem(
  tx: Transaction,
  place: Place,
  body: unknown,
  ifMatch: number | undefined,
): Promise<ItemRecord> {
  const { section, id } = place;
  const item = parsedBody(itemSchema(section), body) as Item;
  if (item.id !== id) throw invalid([{ pointer: '/id', message: `the address says “${id}”` }]);
  await inLine(tx);
  const stored = await itemWith(tx, section, id);
  if (stored && ifMatch === undefined)
    throw invalid([{ pointer: '/id', message: `“${id}” is already in the reference; choose another id` }]);
  if (!stored && ifMatch !== undefined) throw notFound('thing in the reference');
  if (stored && ifMatch !== Number(stored.version))
    throw new HttpProblem(
      412,
      'Somebody changed this meanwhile. Look at it again; what you typed is kept here.',
    );
  if (stored && canonical(JSON.parse(stored.body)) === canonical(item)) return itemRecord(tx, place);

  const contents = withItem(await loadContents(tx), section, item);
  const at = `/${section}/${contents[section].findIndex((other) => other.id === id)}`;
  const { errors, warnings } = checkPack(asPack(contents), emptyContents());
  const own = errors.filter((e) => e.pointer === at || e.pointer.startsWith(`${at}/`));
  if (own.length > 0)
    throw invalid(own.map((e) => ({ pointer: e.pointer.slice(at.length), message: e.message })));
  const elsewhere = errors[0];
  if (elsewhere)
    throw invalid([
      {
        pointer: '',
        message: `${nameAt(contents, elsewhere.pointer)} would no longer hold: ${elsewhere.message}`,
      },
    ]);
  await storeItems(tx, section, [{ item, body: JSON.stringify(item) }]);
  if (!stored) {
    const pack = { format: 'jutbank.reference/1' as const, ...OWN_PACK };
    const head = (await packHead(tx, OWN_PACK.id))?.head ?? JSON.stringify(pack);
    await storePack(tx, { ...pack, [section]: [item] }, head);
  }
  await raiseRevision(tx, 'reference');
  return itemRecord(
    tx,
    place,
    warnings.filter((w) => w.includes(id)),
  );
}

export async function takeOut(tx: Transaction, place: Place, ifMatch: number | undefined): Promise<void> {
  await inLine(tx);
  const stored = await itemWith(tx, place.section, place.id);
  if (!stored) throw notFound('thing in the reference');
  if (ifMatch !== undefined && ifMatch !== Number(stored.version))
    throw new HttpProblem(412, 'Somebody changed this meanwhile. Look at it again.');
  const contents = await loadContents(tx);
  const without: PackContents = {
    ...contents,
    [place.section]: contents[place.section].filter((item) => item.id !== place.id),
  };
  const [first] = checkPack(asPack(without), emptyContents()).errors;
  if (first) throw conflict(`${nameAt(without, first.pointer)} still refers to it: ${first.message}.`);
  const pieces = await piecesNaming(tx, place.id);
  if (pieces > 0)
    throw conflict(`${pieces === 1 ? 'One piece was' : `${pieces} pieces were`} observed with it; it stays.`);
  const prices = await comparablesNaming(tx, place.id);
  if (prices > 0)
    throw conflict(`${prices === 1 ? 'One price is' : `${prices} prices are`} recorded for it; it stays.`);
  await removeItem(tx, place.section, place.id);
  await raiseRevision(tx, 'reference');
}

const asPack = (contents: PackContents): ReferencePack => ({
  format: 'jutbank.reference/1',
  ...OWN_PACK,
  ...contents,
});

function withItem(contents: PackContents, section: PackSection, item: Item): PackContents {
  const items = contents[section] as Item[];
  const known = items.some((other) => other.id === item.id);
  return {
    ...contents,
    [section]: known ? items.map((other) => (other.id === item.id ? item : other)) : [...items, item],
  };
}

/** The thing a pointer into the contents leads to, by kind and id. */
function nameAt(contents: PackContents, pointer: string): string {
  const [, section = '', index = ''] = pointer.split('/');
  const known = PACK_SECTIONS.find((s) => s === section);
  const id = known ? contents[known][Number(index)]?.id : undefined;
  return `${section.replace(/ies$/, 'y').replace(/s$/, '')} “${id ?? index}”`;
}
