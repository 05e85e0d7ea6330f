/** Features, counts and measures as signs. */
import type { Feature, FeatureReading } from '../reference/index.ts';
import type { ReferenceIndex } from './compile.ts';
import { NOT_APPLICABLE, SILENT, type Column, type MeasureColumn } from './compiled.ts';
import { cellsOf, measureCellsOf, type Cells } from './cells.ts';
import { customsOf } from './customs.ts';
import { measureDensity, normalDensity } from './density.ts';
import { DEFAULT_SWAP, type BenchSettings } from './settings.ts';
import {
  alternatives,
  backgroundShare,
  readingProbability,
  undescribedLikelihood,
  type ObservationEvidence,
} from './observationEvidence.ts';

const partOf = (feature: Feature) => ({ part: feature.part, swap: feature.swap ?? DEFAULT_SWAP });

/** Readings asked of one reference again and again, as each new observation asks all the earlier ones anew. */
const MOST_KEPT = 500;
const kept = new WeakMap<ReferenceIndex['rows'], WeakMap<BenchSettings, Map<string, ObservationEvidence>>>();

export function valueEvidence(
  index: ReferenceIndex,
  column: Column,
  value: FeatureReading,
  error: number,
  settings: BenchSettings,
): ObservationEvidence {
  const bySettings = kept.get(index.rows) ?? new WeakMap<BenchSettings, Map<string, ObservationEvidence>>();
  kept.set(index.rows, bySettings);
  const signs = bySettings.get(settings) ?? new Map<string, ObservationEvidence>();
  bySettings.set(settings, signs);
  const key = JSON.stringify([column.feature.id, value, error]);
  const known = signs.get(key);
  if (known) return known;
  if (signs.size >= MOST_KEPT) signs.clear();
  const sign = valueSignOf(index, column, value, error, settings);
  signs.set(key, sign);
  return sign;
}

function valueSignOf(
  index: ReferenceIndex,
  column: Column,
  value: FeatureReading,
  error: number,
  settings: BenchSettings,
): ObservationEvidence {
  const n = alternatives(column);
  const at = column.valueIndex.get(value);
  const ofSet = column.sets.map(
    (set) => set.reduce<number>((sum, y) => sum + readingProbability(y === value, error, n), 0) / set.length,
  );
  const mixed = (share: number) => share * (1 - error) + (1 - share) * (error / (n - 1));
  const shares = index.groups.map((_, g) => backgroundShare(column, g, at, settings));
  const anyShows = mixed(backgroundShare(column, -1, at, settings));
  const exchange = settings.exchange[column.feature.swap ?? DEFAULT_SWAP];
  const dated = customsOf(index, column, value, { error, n }, { chance: exchange, shows: anyShows });
  const cells = cellsOf(index, column);
  const likelihood = new Float64Array(cells.set.length);
  const relative = new Float64Array(cells.set.length);
  const stranger = new Float64Array(cells.set.length);
  const spokenFor = dated && scopesSpoken(cells, dated.classOf);
  const m = settings.relativeDiffers;
  for (let c = 0; c < likelihood.length; c++) {
    const at = cells.set[c] ?? SILENT;
    const group = cells.group[c] ?? 0;
    const plain = mixed(shares[group] ?? 0);
    const set = column.sets[at];
    if (!set) {
      // what a variant does not record a relative cannot differ in
      const shown = at === NOT_APPLICABLE ? error / (n - 1) : spokenFor?.[c] ? 1 : plain;
      likelihood[c] = shown;
      relative[c] = shown;
      stranger[c] = shown;
      continue;
    }
    let differing = error / (n - 1);
    if (!set.includes(value)) {
      // what a relative shows that has none of the set's values
      let own = 0;
      for (const y of set) own += backgroundShare(column, group, column.valueIndex.get(y), settings);
      differing = mixed(Math.min(1, (shares[group] ?? 0) / Math.max(1e-6, 1 - Math.min(own, 1 - 1e-6))));
    }
    const shown = ofSet[at] ?? 0;
    likelihood[c] = shown;
    relative[c] = (1 - m) * shown + m * differing;
    stranger[c] = plain;
  }
  return {
    subject: { feature: column.feature.id, value },
    ...partOf(column.feature),
    error,
    observed: value,
    cellOf: cells.cellOf,
    likelihood,
    relative,
    stranger: undescribedLikelihood(stranger, cells.group, index.groups.length),
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

/** Per cell: whether a dated custom speaks of what was seen. */
function scopesSpoken(cells: Cells, classOf: Int32Array): Uint8Array {
  const spoken = new Uint8Array(cells.set.length);
  for (let r = 0; r < classOf.length; r++) if ((classOf[r] ?? -1) >= 0) spoken[cells.cellOf[r] ?? 0] = 1;
  return spoken;
}

export function absenceEvidence(
  index: ReferenceIndex,
  column: Column,
  settings: BenchSettings,
): ObservationEvidence {
  const error = settings.misreading.sure;
  const cells = cellsOf(index, column);
  const likelihood = Float64Array.from(cells.set, (set) =>
    set === NOT_APPLICABLE ? 1 - error : set >= 0 ? error : settings.absentWhenSilent,
  );
  return {
    subject: { feature: column.feature.id },
    ...partOf(column.feature),
    error,
    observed: 'not there',
    cellOf: cells.cellOf,
    likelihood,
    relative: likelihood,
    stranger: undescribedLikelihood(
      Float64Array.from(cells.set, (set) => (set === NOT_APPLICABLE ? 1 - error : settings.absentWhenSilent)),
      cells.group,
      index.groups.length,
    ),
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

export function measureEvidence(
  index: ReferenceIndex,
  column: MeasureColumn,
  measured: number,
  resolution: number,
  error: number,
  settings: BenchSettings,
): ObservationEvidence {
  const unit = column.feature.unit ?? 'mm';
  const noise = Math.sqrt(settings.instrument[unit] ** 2 + resolution ** 2 / 12);
  const wear = column.feature.wear ?? 'none';
  const outlierShare = Math.max(settings.outlierShare, error);
  const even = 1 / (2 * settings.outlierRange * Math.max(measured, 1e-6));
  const cells = measureCellsOf(index, column);
  const likelihood = new Float64Array(cells.nominal.length);
  const sums = new Float64Array(index.groups.length);
  const smooth = new Float64Array(index.groups.length);
  const counts = new Float64Array(index.groups.length);
  let total = 0;
  let smoothed = 0;
  let n = 0;
  const model = {
    nominal: 0,
    spread: 0,
    wear,
    noise,
    outlierShare,
    outlierRange: settings.outlierRange,
    wornShare: settings.wornShare,
    wearMean: settings.wearMean,
  };
  for (let c = 0; c < likelihood.length; c++) {
    model.nominal = cells.nominal[c] ?? NaN;
    if (Number.isNaN(model.nominal)) continue;
    model.spread = cells.spread[c] ?? 0;
    const density = measureDensity(measured, model);
    const size = cells.size[c] ?? 0;
    const group = cells.group[c] ?? 0;
    likelihood[c] = density;
    // a stranger's size lies anywhere about the known ones
    const between = normalDensity(measured - model.nominal, cells.bandwidth[group] ?? 0.1 * model.nominal);
    smooth[group] = (smooth[group] ?? 0) + between * size;
    smoothed += between * size;
    total += density * size;
    n += size;
    sums[group] = (sums[group] ?? 0) + density * size;
    counts[group] = (counts[group] ?? 0) + size;
  }
  const k = settings.backgroundMixing;
  const all = (total + even) / (n + 1);
  const background = sums.map((sum, g) => (sum + k * all) / ((counts[g] ?? 0) + k));
  const anySize = (smoothed + even) / (n + 1);
  const relative = new Float64Array(likelihood.length);
  const stranger = new Float64Array(likelihood.length);
  const m = settings.relativeDiffers;
  for (let c = 0; c < likelihood.length; c++) {
    const group = cells.group[c] ?? 0;
    const plain = background[group] ?? all;
    const silent = Number.isNaN(cells.nominal[c] ?? NaN);
    if (cells.notApplicable[c]) likelihood[c] = error * even;
    else if (silent) likelihood[c] = plain;
    const own = ((smooth[group] ?? 0) + k * anySize) / ((counts[group] ?? 0) + k);
    const off = settings.outlierShare * even;
    const shown = likelihood[c] ?? plain;
    stranger[c] = cells.notApplicable[c] ? error * even : (1 - settings.outlierShare) * own + off;
    relative[c] = silent ? shown : (1 - m) * shown + m * plain;
  }
  return {
    subject: { feature: column.feature.id },
    ...partOf(column.feature),
    error,
    observed: measured,
    cellOf: cells.cellOf,
    likelihood,
    relative,
    stranger: undescribedLikelihood(stranger, cells.group, index.groups.length),
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
