/** What the stamps say in plain facts, and where an observation disagrees with them. */
import { ENGLISH } from '../words/index.ts';
import { impliedValues, readDateCode, readSerial, type FeatureReading } from '../reference/index.ts';
import type { ReferenceIndex } from './compile.ts';
import type { Row } from './compiled.ts';
import type { Alert, CodeAnswer, Observation } from './observation.ts';
import { inRun, patternNumberReadings, toldRuns, type NumberReading } from './stampEvidence.ts';

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
  const { readings, partly } = patternNumberReadings(index, code, text);
  const contradicts = new Map<string, CodeAnswer['contradicts'][number]>();
  for (const { implies } of partly ? [partly] : readings)
    for (const implied of implies) {
      const said = impliedValues(implied);
      const observed = seen.get(implied.feature);
      if (observed === undefined || said.includes(observed)) continue;
      const value = said.length === 1 && said[0] !== undefined ? said[0] : said.join(', ');
      contradicts.set(`${implied.feature} ${value}`, { feature: implied.feature, value, observed });
    }
  const factsOf = (r: NumberReading) => [
    ...r.implies,
    ...(r.pattern === undefined ? [] : [{ pattern: r.pattern }]),
  ];
  const answer = {
    code: o.code,
    readings: readings.map((r) => ({ window: null, implies: factsOf(r) })),
    contradicts: [...contradicts.values()],
  };
  if (readings.length > 0) return answer;
  return {
    ...answer,
    ...(partly ? { partly: { implies: factsOf(partly), unread: partly.unread } } : {}),
    unread: partly
      ? `“${partly.unread}” at the end is not known to this stamp`
      : `“${text}” cannot be read by this stamp’s segments`,
  };
}

/** Numbers beyond every run of their pattern. */
export function serialAlerts(index: ReferenceIndex, observations: readonly Observation[]): Alert[] {
  return observations.flatMap((o): Alert[] => {
    const code = 'code' in o ? index.codes.get(o.code) : undefined;
    if (code?.kind !== 'serial' || !('code' in o) || !('text' in o)) return [];
    const serial = readSerial(code, o.text);
    if (!serial) return [];
    const editions = index.rows.filter(
      (row: Row) => (code.pattern == null || row.pattern.id === code.pattern) && !row.imitation,
    );
    const alerts: Alert[] = [];
    const runs = editions.flatMap((row) => inRun(row, serial.number) ?? []);
    if (runs.length > 0 && !runs.includes(true))
      alerts.push({
        kind: 'serial-beyond-run',
        detail: ENGLISH.say('unproved.beyondRun', { number: serial.number }),
      });
    const sizes = new Set(editions.flatMap(toldRuns));
    if (serial.run !== undefined && sizes.size > 0 && !sizes.has(serial.run))
      alerts.push({
        kind: 'run-does-not-exist',
        detail: ENGLISH.say('unproved.noSuchRun', {
          run: ENGLISH.number(serial.run),
          known: [...sizes].map((n) => ENGLISH.number(n)).join(', '),
        }),
      });
    return alerts;
  });
}
