/** One piece taken through the stages, as far as its story goes. */
import type { IdentifyAnswer, Observation } from '@jutbank/core/bench';
import { recipeOfRecords } from '@jutbank/core/drawing';
import type { PieceSheet } from '@jutbank/contract/pieces';
import type { Client } from './client.ts';
import { appraiseForTheBooks } from './fillAppraisals.ts';
import { inspectionOf } from './world/condition.ts';
import { drawBladePicture } from './world/bladePicture.ts';
import { bladeSizeOf } from './world/blades.ts';
import { drawPicture, mmPerPixelOf } from './world/picture.ts';
import { variantOf } from './world/observe.ts';
import type { Story } from './world/pieces.ts';
import type { Random } from '@jutbank/core/random';
import { demoPack } from './world/reference.ts';

const ORDER = ['intake', 'bench', 'condition', 'worth', 'trail', 'listing', 'listed', 'sold'] as const;

export async function fillPiece(
  client: Client,
  story: Story,
  observations: readonly Observation[],
  luck: Random,
): Promise<void> {
  const variant = variantOf(story);
  const pattern = demoPack.patterns?.find((p) => p.id === variant.pattern);
  if (!pattern) throw new Error(`the demo has no pattern ${variant.pattern}`);
  const reached = (stage: Story['until']) => ORDER.indexOf(story.until) >= ORDER.indexOf(stage);
  let sheet = await client.call<PieceSheet>('POST', '/pieces', {
    title: story.title,
    construction: pattern.construction,
    sourceKind: story.source,
    sourceName: story.from,
    sourcePlace: story.place,
    acquired: story.acquired,
    price:
      story.until === 'intake' && luck.yes(0.5) ? null : { amount: story.price, currency: story.currency },
    sellerStatement: story.said,
    cameWith: story.cameWith ?? '',
    asFound: story.asFound ?? 'untouched',
    takenInAs: story.boughtAs ?? null,
  });
  const put = async (path: string, body: unknown) => {
    sheet = await client.call<PieceSheet>('PUT', `/pieces/${sheet.id}/${path}`, body, sheet.version);
  };
  if (story.until !== 'intake' || luck.yes(0.5)) await addPictures(client, sheet.id, story, luck);
  sheet = await client.call<PieceSheet>('GET', `/pieces/${sheet.id}`);
  if (!reached('bench')) return;
  await put('observations', { observations });
  if (!reached('condition')) return;
  const engine = await client.call<IdentifyAnswer>('GET', `/pieces/${sheet.id}/identification`);
  const top = engine.candidates[0];
  const differs = top?.variant !== story.variant || engine.attribution.tier !== story.tier;
  await put('attribution', {
    attribution: {
      variant: story.variant,
      pattern: variant.pattern,
      tier: story.tier ?? 'probable',
      reason: story.reason ?? (differs ? 'Compared with the shop’s own examples.' : ''),
    },
  });
  if (!reached('worth')) return;
  await put('condition', {
    findings: story.findings ?? [],
    completeness: story.completeness ?? {},
    inspected: true,
    inspection: inspectionOf(pattern.construction, story.findings ?? [], observations),
  });
  const early = story.custody !== undefined;
  if (early) await put('custody', { events: story.custody });
  if (!reached('trail')) return;
  await put('pricing', { ask: { amount: story.ask ?? '100.00', currency: 'EUR' }, floor: null, note: '' });
  if (!reached('listed')) return;
  sheet = await client.call<PieceSheet>('POST', `/pieces/${sheet.id}/listing/publish`, {}, sheet.version);
  sheet = await client.call<PieceSheet>('POST', `/pieces/${sheet.id}/listing/messages/fetch`, {});
  const question = sheet.listing?.messages.find((m) => m.kind === 'question');
  if (question && luck.yes(0.5))
    sheet = await client.call<PieceSheet>(
      'POST',
      `/pieces/${sheet.id}/listing/messages/${question.id}/answer`,
      { text: 'Please see the description; I will gladly send another picture.' },
    );
  if (!reached('sold')) return;
  await appraiseForTheBooks(client, sheet.id, luck.whole(20, 340));
  const offer = sheet.listing?.messages.find((m) => m.kind === 'offer');
  await client.call('POST', `/pieces/${sheet.id}/sale`, {
    message: offer?.id ?? null,
    buyerName: offer?.from ?? 'Philippa Dunmere',
    buyerAddress: '4 Slip Lane, Lunde Fold',
    ageChecked: true,
  });
}

/** @param closeUps a picture of each: of the whole, or of a part near by */
export async function addPictures(
  client: Client,
  id: string,
  story: Story,
  luck: Random,
  closeUps: readonly boolean[] = [false, true],
): Promise<void> {
  const variant = variantOf(story);
  const pattern = demoPack.patterns?.find((p) => p.id === variant.pattern);
  if (!pattern) throw new Error(`the demo has no pattern ${variant.pattern}`);
  const shown = Object.entries(story.instead ?? {}).map(([feature, value]) => [feature, [value]]);
  const recipe = recipeOfRecords({
    pattern,
    variant: { ...variant, features: { ...variant.features, ...Object.fromEntries(shown) } },
    features: demoPack.features ?? [],
    marks: demoPack.marks ?? [],
    codes: demoPack.codes ?? [],
  });
  for (const closeUp of closeUps) {
    const form = new FormData();
    form.set('caption', closeUp ? 'Close up' : 'Mark side');
    form.set(
      'file',
      new Blob([new Uint8Array(await drawPicture(recipe, luck, closeUp))], { type: 'image/jpeg' }),
      'picture.jpg',
    );
    const { version, pictures } = await client.call<PieceSheet>('POST', `/pieces/${id}/pictures`, form);
    await client.call(
      'PUT',
      `/pieces/${id}/pictures`,
      {
        pictures: pictures.map(({ id: picture, caption, frame, mmPerPixel }, i) => ({
          id: picture,
          caption,
          frame,
          mmPerPixel: i === pictures.length - 1 ? mmPerPixelOf(recipe, closeUp) : mmPerPixel,
        })),
      },
      version,
    );
  }
  const size = bladeSizeOf(pattern);
  if (!size || !story.bladeWear) return;
  const form = new FormData();
  form.set('caption', 'Blade on the board');
  const picture = await drawBladePicture(size, story.bladeWear, luck);
  form.set('file', new Blob([new Uint8Array(picture)], { type: 'image/jpeg' }), 'blade.jpg');
  await client.call('POST', `/pieces/${id}/pictures`, form);
}
