/** What is done to many pieces at once: moved, labelled, put up, valued, taken out as a list. */
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { inventoryRoutes } from '@jutbank/contract/inventory';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { useShortcuts } from '../base/shortcuts.ts';
import { SuggestInput } from '../parts/fields/index.ts';
import { counted, moneyText } from '../parts/words.ts';
import { putUp, valued, type Listed, type Valued } from './many.ts';

/** Labels fit on so many sheets at once; moves are one transaction. */
const MOST_CHOSEN = 200;

export function Chosen({
  chosen,
  onChoose,
}: {
  chosen: readonly string[];
  onChoose: (chosen: readonly string[]) => void;
}) {
  const answers = useKeptAnswers();
  const mayList = useMay('appraise');
  const places = useAnswer(inventoryRoutes.choices).data?.places ?? [];
  const [place, setPlace] = useState('');
  const [done, setDone] = useState(0);
  const move = useMutation({
    mutationFn: () => send(inventoryRoutes.movePieces, { body: { pieces: [...chosen], place } }),
    onSuccess: () => {
      onChoose([]);
      void answers.invalidate(inventoryRoutes.listRows, inventoryRoutes.choices);
    },
  });
  const list = useMutation({
    mutationFn: () => putUp(chosen, setDone),
    onSuccess: ({ refused }) => {
      onChoose(refused.map(({ id }) => id));
      void answers.invalidate(inventoryRoutes.listRows);
    },
  });
  const value = useMutation({
    mutationFn: () => valued(chosen, setDone),
    onSuccess: () => void answers.invalidate(inventoryRoutes.listRows),
  });
  const problem = move.error instanceof ApiProblem ? move.error : undefined;
  const tooMany = chosen.length > MOST_CHOSEN;
  const busy = move.isPending || list.isPending || value.isPending;
  const few = { disabled: busy || tooMany };
  const some = chosen.slice(0, MOST_CHOSEN).join(',');
  const form = useRef<HTMLFormElement>(null);
  const press = (act: string) => form.current?.querySelector<HTMLElement>(`[data-act=${act}]`)?.click();
  useShortcuts('What is chosen', [
    { key: 'm', does: 'Say where they lie', run: () => form.current?.querySelector('input')?.focus() },
    ...(few.disabled
      ? []
      : [
          { key: 'b', does: 'Labels', run: () => press('labels') },
          ...(mayList ? [{ key: 'u', does: 'Put them up', run: () => list.mutate() }] : []),
          { key: 'v', does: 'Value them', run: () => value.mutate() },
          { key: 'e', does: 'Export them', run: () => press('export') },
        ]),
    { key: 'x', does: 'Choose none', run: () => onChoose([]) },
  ]);
  return (
    <>
      <form
        ref={form}
        className="note chosen"
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          if (!tooMany) move.mutate();
        }}
      >
        <b>
          <span className="num">{chosen.length}</span> chosen
        </b>
        <SuggestInput
          label="They lie from now on"
          suggestions={places}
          value={place}
          problem={tooMany ? `at most ${MOST_CHOSEN} at once` : problem?.at('/place')}
          onChange={setPlace}
        />
        <Button type="submit" {...few}>
          Move them
          <Key of="m" />
        </Button>
        <Button
          component="a"
          href={`/api/v1/labels.pdf?pieces=${some}`}
          target="_blank"
          rel="noreferrer"
          data-act="labels"
          {...few}
        >
          Labels
          <Key of="b" />
        </Button>
        {mayList && (
          <Button {...few} onClick={() => list.mutate()}>
            Put them up
            <Key of="u" />
          </Button>
        )}
        <Button {...few} onClick={() => value.mutate()}>
          Value them
          <Key of="v" />
        </Button>
        <Button component="a" href={`/api/v1/inventory.csv?pieces=${some}`} data-act="export" {...few}>
          Export them
          <Key of="e" />
        </Button>
        <Button variant="text" className="quiet" onClick={() => onChoose([])}>
          Choose none
          <Key of="x" />
        </Button>
        {(list.isPending || value.isPending) && (
          <span role="status" className="soft">
            {counted(done)} of {counted(chosen.length)}
          </span>
        )}
        {problem && problem.errors.length === 0 && <span className="problem">{problem.message}</span>}
        {[list.error, value.error].map(
          (error) =>
            error && (
              <span key={error.message} className="problem">
                {error.message}
              </span>
            ),
        )}
      </form>
      {list.data && <ListedNote listed={list.data} />}
      {value.data && <ValuedNote valued={value.data} />}
    </>
  );
}

const Key = ({ of }: { of: string }) => (
  <kbd className="act-key" aria-hidden>
    {of}
  </kbd>
);

function ListedNote({ listed: { listed, refused } }: { listed: Listed }) {
  return (
    <div className={refused.length > 0 ? 'note bad' : 'note good'} role="status">
      <b>{listed === 1 ? 'One was put up. ' : `${counted(listed)} were put up. `}</b>
      {refused.length > 0 && (
        <>
          These were not; they stay chosen:
          <ul>
            {refused.map(({ id, name, why }) => (
              <li key={id}>
                <Link to={`/pieces/${id}/listing`}>{name}</Link>: {why}
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}

function ValuedNote({ valued: { worth, asked, without } }: { valued: Valued }) {
  return (
    <p className="note" role="status">
      <b>
        Worth{' '}
        {worth.length === 0 ? 'nothing that is known' : worth.map((sum) => moneyText(sum)).join(' and ')}{' '}
      </b>
      together{asked.length > 0 && `, asked ${asked.map((sum) => moneyText(sum)).join(' and ')}`}.
      {without > 0 &&
        ` ${without === 1 ? 'One has no worth yet: nothing says' : `${counted(without)} have no worth yet: nothing says`} which pattern it is, or no sale near it is known.`}
    </p>
  );
}
