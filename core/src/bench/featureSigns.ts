/** Features, counts and measures as signs. */
import type { Feature, FeatureReading } from '../reference/index.ts';
import { NOT_APPLICABLE, SILENT, type Column, type MeasureColumn, type ReferenceIndex } from './compile.ts';
import { customsOf } from './customs.ts';
import { measureDensity } from './density.ts';
import { DEFAULT_SWAP, type BenchSettings } from './settings.ts';
import { alternatives, backgroundShare, readingChance, type Sign } from './sign.ts';

const partOf = (feature: Feature) => ({ part: feature.part, swap: feature.swap ?? DEFAULT_SWAP });

export function valueSign(
  index: ReferenceIndex,
  column: Column,
  value: FeatureReading,
  error: number,
  settings: BenchSettings,
): Sign {
  const n = alternatives(column);
  const at = column.valueIndex.get(value);
  const ofSet = column.sets.map(
    (set) => set.reduce<number>((sum, y) => sum + readingChance(y === value, error, n), 0) / set.length,
  );
  const mixed = (share: number) => share * (1 - error) + (1 - share) * (error / (n - 1));
  const shares = index.groups.map((_, g) => backgroundShare(column, g, at, settings));
  const anyShows = mixed(backgroundShare(column, -1, at, settings));
  const exchange = settings.exchange[column.feature.swap ?? DEFAULT_SWAP];
  const dated = customsOf(index, column, value, { error, n }, { chance: exchange, shows: anyShows });
  const likelihood = new Float64Array(index.rows.length);
  const differing = new Float64Array(index.rows.length);
  // sets × groups: what a relative shows that has none of the set's values
  const otherOf = new Float64Array(column.sets.length * shares.length).fill(error / (n - 1));
  column.sets.forEach((set, s) => {
    if (set.includes(value)) return;
    const members = set.map((y) => column.valueIndex.get(y));
    for (let g = 0; g < shares.length; g++) {
      let own = 0;
      for (const y of members) own += backgroundShare(column, g, y, settings);
      const share = Math.min(1, (shares[g] ?? 0) / Math.max(1e-6, 1 - Math.min(own, 1 - 1e-6)));
      otherOf[s * shares.length + g] = mixed(share);
    }
  });
  const plainOf = Float64Array.from(shares, mixed);
  const classOf = dated?.classOf;
  for (let r = 0; r < likelihood.length; r++) {
    const set = column.setOf[r] ?? SILENT;
    const group = index.groupOf[r] ?? 0;
    const plain = plainOf[group] ?? 0;
    differing[r] = set >= 0 ? (otherOf[set * shares.length + group] ?? plain) : plain;
    if (set >= 0) likelihood[r] = ofSet[set] ?? 0;
    else if (set === NOT_APPLICABLE) likelihood[r] = error / (n - 1);
    else likelihood[r] = classOf && (classOf[r] ?? -1) >= 0 ? 1 : plain;
  }
  return {
    subject: { feature: column.feature.id, value },
    ...partOf(column.feature),
    error,
    observed: value,
    likelihood,
    differing,
    background: anyShows,
    ...(dated ? { dated } : {}),
    expected: (row) => [...(column.sets[column.setOf[row.index] ?? -1] ?? [])],
    verdict: (row) => {
      const set = column.setOf[row.index] ?? -1;
      if (set === NOT_APPLICABLE) return 'disagrees';
      const listed = column.sets[set];
      return listed ? (listed.includes(value) ? 'agrees' : 'disagrees') : 'silent';
    },
  };
}

export function absenceSign(index: ReferenceIndex, column: Column, settings: BenchSettings): Sign {
  const error = settings.misreading.sure;
  const likelihood = new Float64Array(index.rows.length);
  for (const row of index.rows) {
    const set = column.setOf[row.index] ?? -1;
    likelihood[row.index] = set === NOT_APPLICABLE ? 1 - error : set >= 0 ? error : settings.absentWhenSilent;
  }
  return {
    subject: { feature: column.feature.id },
    ...partOf(column.feature),
    error,
    observed: 'not there',
    likelihood,
    differing: new Float64Array(index.rows.length).fill(settings.absentWhenSilent),
    background: settings.absentWhenSilent,
    expected: (row) => [...(column.sets[column.setOf[row.index] ?? -1] ?? [])],
    verdict: (row) => {
      const set = column.setOf[row.index] ?? -1;
      return set === NOT_APPLICABLE ? 'agrees' : set >= 0 ? 'disagrees' : 'silent';
    },
  };
}

/** A measure agrees when new or honestly worn pieces would read so: within three deviations or on the worn side. */
const AGREES_WITHIN = 3;

export function measureSign(
  index: ReferenceIndex,
  column: MeasureColumn,
  measured: number,
  resolution: number,
  error: number,
  settings: BenchSettings,
): Sign {
  const unit = column.feature.unit ?? 'mm';
  const noise = Math.sqrt(settings.instrument[unit] ** 2 + resolution ** 2 / 12);
  const wear = column.feature.wear ?? 'none';
  const outlierShare = Math.max(settings.outlierShare, error);
  const even = 1 / (2 * settings.outlierRange * Math.max(measured, 1e-6));
  const likelihood = new Float64Array(index.rows.length);
  const sums = index.groups.map(() => ({ total: 0, n: 0 }));
  let total = 0;
  let n = 0;
  for (const row of index.rows) {
    const nominal = column.nominal[row.index] ?? NaN;
    if (Number.isNaN(nominal)) continue;
    const density = measureDensity(measured, {
      nominal,
      spread: column.spread[row.index] ?? 0,
      wear,
      noise,
      outlierShare,
      outlierRange: settings.outlierRange,
      wornShare: settings.wornShare,
      wearMean: settings.wearMean,
    });
    likelihood[row.index] = density;
    total += density;
    n++;
    const sum = sums[row.group];
    if (sum) {
      sum.total += density;
      sum.n++;
    }
  }
  const k = settings.backgroundMixing;
  const all = (total + even) / (n + 1);
  const background = sums.map((s) => (s.total + k * all) / (s.n + k));
  const differing = new Float64Array(index.rows.length);
  for (const row of index.rows) {
    const plain = background[row.group] ?? all;
    if (column.notApplicable[row.index]) likelihood[row.index] = error * even;
    else if (Number.isNaN(column.nominal[row.index] ?? NaN)) likelihood[row.index] = plain;
    differing[row.index] = plain;
  }
  return {
    subject: { feature: column.feature.id },
    ...partOf(column.feature),
    error,
    observed: measured,
    likelihood,
    differing,
    background: all,
    expected: (row) => {
      const nominal = column.nominal[row.index] ?? NaN;
      return Number.isNaN(nominal) ? [] : [nominal];
    },
    verdict: (row) => {
      if (column.notApplicable[row.index]) return 'disagrees';
      const nominal = column.nominal[row.index] ?? NaN;
      if (Number.isNaN(nominal)) return 'silent';
      const sigma = Math.sqrt((column.spread[row.index] ?? 0) ** 2 + noise ** 2);
      const distance = measured - nominal;
      const worn = (wear === 'shrinks' && distance < 0) || (wear === 'grows' && distance > 0);
      const reach = AGREES_WITHIN * sigma + (worn ? AGREES_WITHIN * settings.wearMean * nominal : 0);
      return Math.abs(distance) <= reach ? 'agrees' : 'disagrees';
    },
  };
}
