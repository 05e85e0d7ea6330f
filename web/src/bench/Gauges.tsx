/** The gauges at the bench: what they say goes into the size in hand, and the bench moves on. */
import { ButtonBase } from '@mui/material';
import { LineInput } from '../parts/fields/LineInput.tsx';
import { benchRoutes, type GaugeKey, type GaugeLine, type GaugeSummary } from '@jutbank/contract/bench';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import type { Observation } from '@jutbank/core/bench';
import type { Feature } from '@jutbank/core/reference';
import { dimensionOfUnit, formatQuantity, parseQuantity } from '@jutbank/core/units';
import { useAnswer } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';

const NAMES = { caliper: 'Caliper', scales: 'Scales' } as const;

/**
 * The observation a reading stands for, whether it came over the stream or was typed by a keyboard-wedge gauge;
 * undefined when it is no size of this feature.
 */
export function readingOf(feature: Feature, text: string): Observation | undefined {
  const parsed = parseQuantity(text, dimensionOfUnit(feature.unit));
  if (!parsed.ok) return undefined;
  return {
    feature: feature.id,
    measure: Number(parsed.value.value.toFixed(4)),
    resolution: Number(parsed.value.resolution.toFixed(4)),
    text: parsed.value.text,
  };
}

export function Gauges({
  inHand,
  onReading,
}: {
  /** the size that is asked for, if one is */
  inHand: Feature | undefined;
  onReading: (o: Observation) => void;
}) {
  const gauges = useAnswer(benchRoutes.gauges, {}, { staleTime: Infinity });
  const [said, setSaid] = useState<Readonly<Record<string, string>>>({});
  const take = useRef<(line: GaugeLine) => void>(undefined);
  useEffect(() => {
    take.current = ({ gauge, line }) => {
      setSaid((before) => ({ ...before, [gauge]: line.replace(/^!\s*/, '') }));
      if (line.startsWith('!') || !inHand) return;
      const reading = readingOf(inHand, line);
      if (reading) onReading(reading);
    };
  }, [inHand, onReading]);
  useEffect(() => {
    const stream = new EventSource('/api/v1/gauges/stream');
    stream.onmessage = (event: MessageEvent<string>) => take.current?.(JSON.parse(event.data) as GaugeLine);
    return () => stream.close();
  }, []);
  if (!gauges.data || gauges.data.items.length === 0) return null;
  const wanted = inHand?.unit === 'g' ? 'scales' : 'caliper';
  // always there, so that nothing moves when a size takes the focus
  const shown = gauges.data.items.filter((g) => g.kind === wanted);
  return shown.map((gauge) => <GaugeLineOf key={gauge.id} gauge={gauge} said={said[gauge.id]} />);
}

function GaugeLineOf({ gauge, said }: { gauge: GaugeSummary; said: string | undefined }) {
  const [jaws, setJaws] = useState('');
  const press = useMutation({
    mutationFn: (key: GaugeKey) => {
      const size = Number(jaws.replace(',', '.'));
      const set = gauge.simulated && jaws.trim() !== '' && Number.isFinite(size) ? { jaws: size } : {};
      return send(benchRoutes.pressGauge, { params: { id: gauge.id }, body: { key, ...set } });
    },
  });
  const dimension = gauge.kind === 'caliper' ? 'length' : 'mass';
  const parsed = said === undefined ? undefined : parseQuantity(said, dimension);
  const problem = press.error instanceof ApiProblem ? press.error.message : undefined;
  return (
    <div className="gauge" role="group" aria-label={NAMES[gauge.kind]}>
      <span className="soft">{gauge.simulated ? `${NAMES[gauge.kind]} (simulated)` : NAMES[gauge.kind]}</span>
      {gauge.simulated && (
        <LineInput
          style={{ width: 92 }}
          inputMode="decimal"
          label={gauge.kind === 'caliper' ? 'Between the jaws, mm' : 'On the pan, g'}
          hint={gauge.kind === 'caliper' ? 'jaws, mm' : 'pan, g'}
          value={jaws}
          onChange={setJaws}
        />
      )}
      <span className="chips">
        {(['send', 'hold', 'zero', 'unit'] as const).map((key) => (
          <ButtonBase key={key} className="chip" onClick={() => press.mutate(key)}>
            {KEY_WORDS[gauge.kind][key]}
          </ButtonBase>
        ))}
      </span>
      <span className="num" role="status">
        {problem ??
          (parsed?.ok
            ? formatQuantity(parsed.value.value, dimension, parsed.value.resolution)
            : (said ?? ''))}
      </span>
    </div>
  );
}

const KEY_WORDS: Record<GaugeSummary['kind'], Record<GaugeKey, string>> = {
  caliper: { send: 'Take', hold: 'Hold', zero: 'Zero', unit: 'mm / inch' },
  scales: { send: 'Take', hold: 'Hold', zero: 'Zero', unit: 'g / oz' },
};
