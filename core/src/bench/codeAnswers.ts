/** What the stamps say in plain facts, and where an observation disagrees with them. */
import { readDateCode, type FeatureReading } from '../reference/index.ts';
import type { ReferenceIndex, Row } from './compile.ts';
import type { Alert, CodeAnswer, Observation } from './observation.ts';
import { inRun, patternNumberReadings, readSerial } from './stampSigns.ts';

export function codeAnswers(index: ReferenceIndex, observations: readonly Observation[]): CodeAnswer[] {
  const seen = new Map<string, FeatureReading>();
  for (const o of observations) if ('value' in o) seen.set(o.feature, o.value);
  return observations.flatMap((o) => ('code' in o ? [answerFor(index, o, seen)] : []));
}

function answerFor(
  index: ReferenceIndex,
  o: Extract<Observation, { code: string }>,
  seen: ReadonlyMap<string, FeatureReading>,
): CodeAnswer {
  const code = index.codes.get(o.code);
  const nothing = (unread: string): CodeAnswer => ({ code: o.code, readings: [], contradicts: [], unread });
  if (!code) return nothing('this code is not in the reference');
  if (code.kind === 'date') {
    const read = readDateCode(code, 'reads' in o ? o.reads : {});
    if (!read.ok) return nothing(read.error.message);
    if (read.value.length === 0) return nothing('no rule of this code covers what was read');
    return {
      code: o.code,
      readings: read.value.map((r) => ({ window: r.window, implies: [] })),
      contradicts: [],
    };
  }
  const text = 'text' in o ? o.text : '';
  if (code.kind === 'serial') {
    const serial = readSerial(code, text);
    if (!serial) return nothing(`“${text}” does not have the form of this serial`);
    const implies = code.pattern == null ? [] : [{ pattern: code.pattern }];
    return { code: o.code, readings: [{ window: null, implies }], contradicts: [] };
  }
  const readings = patternNumberReadings(index, code, text);
  if (readings.length === 0) return nothing(`“${text}” cannot be read completely by this stamp’s segments`);
  const contradicts = new Map<string, CodeAnswer['contradicts'][number]>();
  for (const { implies } of readings)
    for (const { feature, value } of implies) {
      const observed = seen.get(feature);
      if (observed !== undefined && observed !== value)
        contradicts.set(`${feature} ${value}`, { feature, value, observed });
    }
  return {
    code: o.code,
    readings: readings.map((r) => ({
      window: null,
      implies: [...r.implies, ...(r.pattern === undefined ? [] : [{ pattern: r.pattern }])],
    })),
    contradicts: [...contradicts.values()],
  };
}

/** Numbers beyond every run of their pattern. */
export function serialAlerts(index: ReferenceIndex, observations: readonly Observation[]): Alert[] {
  return observations.flatMap((o): Alert[] => {
    const code = 'code' in o ? index.codes.get(o.code) : undefined;
    if (code?.kind !== 'serial' || !('code' in o) || !('text' in o)) return [];
    const serial = readSerial(code, o.text);
    if (!serial) return [];
    const runs = index.rows
      .filter((row) => code.pattern == null || row.pattern.id === code.pattern)
      .flatMap((row: Row) => {
        const holds = inRun(row, serial.number);
        return holds === undefined ? [] : [holds];
      });
    if (runs.length === 0 || runs.includes(true)) return [];
    return [
      {
        kind: 'serial-beyond-run',
        detail: `Number ${serial.number} lies outside every known run of this pattern.`,
      },
    ];
  });
}
