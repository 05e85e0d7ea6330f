/** The bag: whether one is packed, how old it is, and packing it. */
import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import { useState } from 'react';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { Tick } from '../parts/fields/choices.tsx';
import { counted } from '../parts/words.ts';
import { useVocabulary } from '../reference/vocabulary.ts';
import { ageInWords } from './bag.ts';
import type { Bag } from './useBag.ts';

export function BagLine({ bag }: { bag: Bag }) {
  const mayPack = useMay('work');
  const [choosing, setChoosing] = useState(false);
  if (!mayPack) return null;
  const { label } = bag;
  return (
    <>
      <div className="bagline">
        <span>
          <b>{label ? `Bag packed ${ageInWords(label)}` : 'No bag packed'}</b>
          <small className="soft">
            {bag.packing
              ? 'Packing…'
              : label
                ? `${label.makers.length === 0 ? 'All makers' : `Market of ${counted(label.makers.length)} ${label.makers.length === 1 ? 'maker' : 'makers'}`}; ${label.program ? 'works without a connection' : 'keep this page open: this browser does not keep the program'}`
                : 'Pack it at home, and the fair works without a connection.'}
          </small>
        </span>
        <Button disabled={bag.packing} onClick={() => setChoosing(true)}>
          {label ? 'Pack again' : 'Pack my bag'}
        </Button>
      </div>
      {bag.problem !== undefined && (
        <p className="note bad" role="alert">
          <b>The bag could not be packed. </b>
          {bag.problem}
        </p>
      )}
      {choosing && (
        <PackDialog
          before={label?.makers ?? []}
          onClose={() => setChoosing(false)}
          onPack={(makers) => {
            setChoosing(false);
            bag.pack(makers);
          }}
        />
      )}
    </>
  );
}

/** Whose market goes along: the reference is packed whole, prices only of those one looks for. */
function PackDialog({
  before,
  onClose,
  onPack,
}: {
  before: readonly string[];
  onClose: () => void;
  onPack: (makers: readonly string[]) => void;
}) {
  const vocabulary = useVocabulary();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set(before));
  const change = (id: string, taken: boolean) => {
    const next = new Set(chosen);
    if (taken) next.add(id);
    else next.delete(id);
    setChosen(next);
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="pack-title">
      <DialogTitle id="pack-title">Pack my bag</DialogTitle>
      <DialogContent>
        <p className="soft">
          The whole reference, its drawings, the grading rules and your terms go along. Prices go along for
          the makers you choose; for all of them if you choose none.
        </p>
        {vocabulary.isPending && <Loading />}
        {vocabulary.isError && <Failed error={vocabulary.error} retry={() => void vocabulary.refetch()} />}
        <div className="bagmakers" role="group" aria-label="Makers whose prices go along">
          {vocabulary.data?.makers.map((maker) => (
            <Tick
              key={maker.id}
              label={maker.name}
              value={chosen.has(maker.id)}
              onChange={(taken) => change(maker.id, taken)}
            />
          ))}
        </div>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Not now</Button>
        <Button variant="contained" onClick={() => onPack([...chosen])}>
          {chosen.size === 0 ? 'Pack all makers' : `Pack ${counted(chosen.size)}`}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
