/** Lists that stock came in by: where pictures are still to be added, and what can be taken back. */
import { stockListRoutes } from '@jutbank/contract/intake';
import { pieceRoutes } from '@jutbank/contract/pieces';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { counted, dayText } from '../parts/words.ts';

export function PastStockLists({
  shown,
  onShow,
}: {
  shown: string | undefined;
  onShow: (list: string) => void;
}) {
  const lists = useAnswer(stockListRoutes.listStockLists, {});
  const answers = useKeptAnswers();
  const mayAppraise = useMay('appraise');
  const [asked, setAsked] = useState<string>();
  const takeBack = useMutation({
    mutationFn: (id: string) => send(stockListRoutes.takeBackStockList, { params: { id } }),
    onSuccess: () => {
      setAsked(undefined);
      void answers.invalidate(stockListRoutes.listStockLists, pieceRoutes.tray);
    },
  });
  if (!lists.data || lists.data.items.length === 0) return null;
  return (
    <section aria-label="Lists that came in">
      <h2 className="sec">Lists that came in</h2>
      {takeBack.error instanceof ApiProblem && (
        <p className="problem" role="alert">
          {takeBack.error.message}
        </p>
      )}
      {takeBack.data && (
        <p role="status" className="soft">
          {counted(takeBack.data.takenBack)} taken back
          {takeBack.data.kept > 0 && `; ${counted(takeBack.data.kept)} stay, somebody has worked on them`}.
        </p>
      )}
      <div className="scroll">
        <table className="grid">
          <tbody>
            {lists.data.items.map((list) => (
              <tr key={list.id}>
                <td>
                  <b>{list.name}</b>{' '}
                  <span className="soft">
                    {dayText(list.at.slice(0, 10))}, {list.person}
                  </span>
                </td>
                <td className="r num">
                  {counted(list.pieces)} {list.pieces === 1 ? 'piece' : 'pieces'}
                </td>
                <td className="r num">
                  {list.pieces > 0 &&
                    (list.bare === 0 ? 'all with pictures' : `${counted(list.bare)} without a picture`)}
                </td>
                <td className="r after">
                  {asked === list.id ? (
                    <>
                      <span>Take {counted(list.pieces)} pieces out of stock again?</span>
                      <Button disabled={takeBack.isPending} onClick={() => takeBack.mutate(list.id)}>
                        Take them back
                      </Button>
                      <Button onClick={() => setAsked(undefined)}>Leave them</Button>
                    </>
                  ) : (
                    list.pieces > 0 && (
                      <>
                        {list.id !== shown && <Button onClick={() => onShow(list.id)}>Add pictures</Button>}
                        {mayAppraise && (
                          <Button variant="text" className="quiet" onClick={() => setAsked(list.id)}>
                            Take back
                          </Button>
                        )}
                      </>
                    )
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
