/** The second look: guided like the first, nothing of which is shown; what is with the piece is not asked again. */
import { conditionRoutes, type GradingSheet } from '@jutbank/contract/condition';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { findingInWords, freshInspection } from '@jutbank/core/condition';
import { useKeptAnswers } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { useForms } from '../reference/useForms.ts';
import { Inspect } from './Inspect.tsx';
import { lookList, seenOf, type Body } from './inspecting.ts';

type LookBody = Body & { readonly inspected: boolean };
export function SecondLook({
  grading,
  piece,
  onDone,
}: {
  grading: string;
  piece: GradingSheet['items'][number]['piece'];
  onDone: () => void;
}) {
  const answers = useKeptAnswers();
  const recipe = useForms([piece])(piece);
  const [begun] = useState<LookBody>({
    findings: [],
    completeness: {},
    inspected: false,
    inspection: freshInspection(piece.construction, piece.parts),
  });
  const [steps, setSteps] = useState<readonly LookBody[]>([]);
  const body = steps.at(-1) ?? begun;
  const open = lookList(piece.construction, body.inspection, false).filter(
    (l) => seenOf(l, body) === undefined,
  ).length;
  const save = useMutation({
    mutationFn: () =>
      send(conditionRoutes.lookAgain, {
        params: { id: grading, piece: piece.id },
        body: { findings: body.findings },
      }),
    onSuccess: async () => {
      await answers.invalidate(conditionRoutes.gradings, conditionRoutes.grading);
      onDone();
    },
  });
  return (
    <section aria-label="Second look" className="secondlook">
      <h2 className="sec">
        {piece.stockNumber} {piece.title} <small>what was found before stays hidden until you are done</small>
      </h2>
      <Inspect
        construction={piece.construction}
        body={body}
        may
        items={false}
        parts={piece.parts}
        recipe={recipe}
        onChange={(next) => setSteps([...steps, next])}
        onUndo={() => setSteps(steps.slice(0, -1))}
      />
      <ul>
        {body.findings.map((f, i) => (
          <li key={`${findingInWords(f)} ${i}`}>
            {findingInWords(f)}{' '}
            <Button
              variant="text"
              className="quiet"
              aria-label={`Take away: ${findingInWords(f)}`}
              onClick={() =>
                setSteps([...steps, { ...body, findings: body.findings.filter((_, k) => k !== i) }])
              }
            >
              ×
            </Button>
          </li>
        ))}
      </ul>
      {save.error && (
        <p className="problem" role="alert">
          {save.error.message}
        </p>
      )}
      <div style={{ display: 'flex', gap: 8, alignItems: 'center' }}>
        <Button variant="contained" disabled={save.isPending} onClick={() => save.mutate()}>
          {body.findings.length === 0 ? 'Nothing was found' : 'That is all'}
        </Button>
        <Button onClick={onDone}>Not now</Button>
        {open > 0 && <span className="soft">{open} not looked at count as good</span>}
      </div>
    </section>
  );
}
