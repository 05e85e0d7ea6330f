/** Views of the list that this person kept: each a link; the one in sight can be kept under a name or given up. */
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { inventoryRoutes, type KeptView } from '@jutbank/contract/inventory';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { TextInput } from '../parts/fields/index.ts';
import { Opening } from '../parts/Opening.tsx';
import type { Asking } from './useInventory.ts';

export function Views({ asking }: { asking: Asking }) {
  const views = useAnswer(inventoryRoutes.views);
  const answers = useKeptAnswers();
  const keep = useMutation({
    mutationFn: (items: readonly KeptView[]) =>
      send(inventoryRoutes.putViews, { body: { items: [...items] } }),
    onSuccess: (kept) => answers.set(inventoryRoutes.views, {}, kept),
  });
  const items = views.data?.items ?? [];
  const shown = items.find((view) => view.asks === asking.asks);
  return (
    <div className="views">
      <Button
        variant="text"
        className="quiet"
        aria-pressed={asking.asks === ''}
        onClick={() => asking.show('')}
      >
        All pieces
      </Button>
      {items.map((view) => (
        <Button
          key={view.name}
          variant="text"
          className="quiet"
          aria-pressed={view === shown}
          onClick={() => asking.show(view.asks)}
        >
          {view.name}
        </Button>
      ))}
      {shown ? (
        <Button
          variant="text"
          className="quiet soft"
          disabled={keep.isPending}
          onClick={() => keep.mutate(items.filter((view) => view !== shown))}
        >
          Forget this view
        </Button>
      ) : (
        asking.asks !== '' && (
          <Opening words="Keep this view">
            {(close) => (
              <Name
                onKeep={(name) => {
                  keep.mutate([...items.filter((v) => v.name !== name), { name, asks: asking.asks }]);
                  close();
                }}
              />
            )}
          </Opening>
        )
      )}
      {keep.isError && <span className="problem">{keep.error.message}</span>}
    </div>
  );
}

function Name({ onKeep }: { onKeep: (name: string) => void }) {
  const [name, setName] = useState('');
  const [asked, setAsked] = useState(false);
  return (
    <form
      className="desk-act"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        setAsked(true);
        if (name.trim() !== '') onKeep(name.trim());
      }}
    >
      <TextInput
        label="Called"
        autoFocus
        value={name}
        problem={asked && name.trim() === '' ? 'What is this view called?' : undefined}
        onChange={setName}
      />
      <Button type="submit">Keep</Button>
    </form>
  );
}
