/** Observations as the engine weighs them. */
import type { ReferenceIndex } from './compile.ts';
import { absenceEvidence, measureEvidence, valueEvidence } from './featureEvidence.ts';
import type { Certainty, Observation } from './observation.ts';
import type { BenchSettings } from './settings.ts';
import type { ObservationEvidence } from './observationEvidence.ts';
import { tellsHistory } from './history.ts';
import {
  dateCodeEvidence,
  historyMarkEvidence,
  markEvidence,
  patternNumberEvidence,
  serialEvidence,
} from './stampEvidence.ts';

/** Observations must have been checked (`checkObservations`); what says nothing (`cannot-tell`) gives no sign. */
export function evidenceOf(
  index: ReferenceIndex,
  observations: readonly Observation[],
  settings: BenchSettings,
): ObservationEvidence[] {
  return observations.flatMap((observation) => {
    const sign = signOf(index, observation, settings);
    return sign ? [sign] : [];
  });
}

const errorOf = (certainty: Certainty | null | undefined, settings: BenchSettings) =>
  settings.misreading[certainty ?? 'sure'];

function signOf(
  index: ReferenceIndex,
  o: Observation,
  settings: BenchSettings,
): ObservationEvidence | undefined {
  if ('mark' in o) {
    const error = errorOf(o.certainty, settings);
    const mark = index.marks.get(o.mark);
    return tellsHistory(mark)
      ? historyMarkEvidence(index, mark, error, settings)
      : markEvidence(index, o.mark, error);
  }
  if ('code' in o) {
    const code = index.codes.get(o.code);
    if (!code) return undefined;
    const error = errorOf(o.certainty, settings);
    if (code.kind === 'date')
      return 'reads' in o ? dateCodeEvidence(index, code.id, o.reads, error, settings) : undefined;
    if (!('text' in o)) return undefined;
    return code.kind === 'pattern-number'
      ? patternNumberEvidence(index, code, o.text, error, settings)
      : serialEvidence(index, code, o.text, error);
  }
  if ('number' in o) return undefined;
  const feature = index.features.get(o.feature);
  if (!feature) return undefined;
  if ('measure' in o) {
    const column = index.measures.get(feature.id);
    return (
      column &&
      measureEvidence(
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
    return column && valueEvidence(index, column, o.value, errorOf(o.certainty, settings), settings);
  // no form records it: of those that record something it is a misreading or an exchange, of what is unlisted a trait
  if ('other' in o)
    return (
      column &&
      valueEvidence(index, column, o.other.trim().toLowerCase(), errorOf(o.certainty, settings), settings)
    );
  if (o.state === 'cannot-tell' || !column) return undefined;
  const none = feature.values?.find((v) => v.id === 'none');
  return none
    ? valueEvidence(index, column, 'none', settings.misreading.sure, settings)
    : absenceEvidence(index, column, settings);
}
