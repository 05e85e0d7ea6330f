/** Observations as the engine weighs them. */
import type { ReferenceIndex } from './compile.ts';
import { absenceSign, measureSign, valueSign } from './featureSigns.ts';
import type { Certainty, Observation } from './observation.ts';
import type { BenchSettings } from './settings.ts';
import type { Sign } from './sign.ts';
import { tellsHistory } from './history.ts';
import { dateCodeSign, historyMarkSign, markSign, patternNumberSign, serialSign } from './stampSigns.ts';

/** Observations must have been checked (`checkObservations`); what says nothing (`cannot-tell`) gives no sign. */
export function signsOf(
  index: ReferenceIndex,
  observations: readonly Observation[],
  settings: BenchSettings,
): Sign[] {
  return observations.flatMap((observation) => {
    const sign = signOf(index, observation, settings);
    return sign ? [sign] : [];
  });
}

const errorOf = (certainty: Certainty | null | undefined, settings: BenchSettings) =>
  settings.misreading[certainty ?? 'sure'];

function signOf(index: ReferenceIndex, o: Observation, settings: BenchSettings): Sign | undefined {
  if ('mark' in o) {
    const error = errorOf(o.certainty, settings);
    const mark = index.marks.get(o.mark);
    return tellsHistory(mark)
      ? historyMarkSign(index, mark, error, settings)
      : markSign(index, o.mark, error);
  }
  if ('code' in o) {
    const code = index.codes.get(o.code);
    if (!code) return undefined;
    const error = errorOf(o.certainty, settings);
    if (code.kind === 'date')
      return 'reads' in o ? dateCodeSign(index, code.id, o.reads, error, settings) : undefined;
    if (!('text' in o)) return undefined;
    return code.kind === 'pattern-number'
      ? patternNumberSign(index, code, o.text, error, settings)
      : serialSign(index, code, o.text, error);
  }
  if ('number' in o) return undefined;
  const feature = index.features.get(o.feature);
  if (!feature) return undefined;
  if ('measure' in o) {
    const column = index.measures.get(feature.id);
    return (
      column &&
      measureSign(
        index,
        column,
        o.measure,
        o.resolution ?? settings.defaultResolution,
        errorOf(o.certainty, settings),
        settings,
      )
    );
  }
  const column = index.columns.get(feature.id);
  if ('value' in o)
    return column && valueSign(index, column, o.value, errorOf(o.certainty, settings), settings);
  if (o.state === 'cannot-tell' || !column) return undefined;
  const none = feature.values?.find((v) => v.id === 'none');
  return none
    ? valueSign(index, column, 'none', settings.misreading.sure, settings)
    : absenceSign(index, column, settings);
}
