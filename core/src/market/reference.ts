/** What the price regression needs of the reference: patterns, and of each variant what a buyer pays for. */
import { periodOf, calendarOf, asDay } from '../dates/index.ts';
import { quantityMade, type Feature, type Pattern, type Variant } from '../reference/index.ts';
import type { MarketReference, MarketVariant } from './comparable.ts';

/** Features whose value is something the piece is made of, or covered with. */
const PAID_FOR = /material|steel|metal|finish|coating|colou?r/i;

export function marketReferenceOf(
  patterns: Iterable<Pattern>,
  variants: Iterable<Variant>,
  features: Iterable<Feature>,
): MarketReference {
  const paidFor = new Set(
    [...features]
      .filter((f) => f.kind === 'category' && (PAID_FOR.test(f.id) || PAID_FOR.test(f.label)))
      .map((f) => f.id),
  );
  return {
    patterns: new Map(
      [...patterns].map((p) => [p.id, { id: p.id, maker: p.maker, construction: p.construction }]),
    ),
    variants: new Map([...variants].map((v) => [v.id, marketVariant(v, paidFor)])),
  };
}

function marketVariant(variant: Variant, paidFor: ReadonlySet<string>): MarketVariant {
  const materials = Object.entries(variant.features ?? {}).flatMap(([feature, values]) =>
    paidFor.has(feature) && values.length === 1 ? [`${feature} ${String(values[0])}`] : [],
  );
  return {
    id: variant.id,
    pattern: variant.pattern,
    kind: variant.kind,
    materials,
    quantity: quantityMade(variant),
    year: firstYear(variant.window),
  };
}

function firstYear(window: string | null | undefined): number | undefined {
  if (window == null) return undefined;
  const from = periodOf(window).strict[0]?.from;
  return from === undefined || !Number.isFinite(from) ? undefined : calendarOf(asDay(from)).year;
}
