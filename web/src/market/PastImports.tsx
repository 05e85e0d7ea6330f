/** Lists that went in, and the way back. */
import { Button } from '@mui/material';
import { marketRoutes, type ImportRecord } from '@jutbank/contract/market';
import { useMutation } from '@tanstack/react-query';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { counted, dayText } from '../parts/words.ts';

export function PastImports() {
  const answers = useKeptAnswers();
  const imports = useAnswer(marketRoutes.listImports);
  const undo = useMutation({
    mutationFn: (of: ImportRecord) =>
      send(marketRoutes.undoImport, { params: { id: of.id }, body: { undone: of.undoneAt === null } }),
    onSuccess: () => {
      void answers.invalidateBelow('/comparables');
    },
  });
  if (!imports.data || imports.data.items.length === 0) return null;
  return (
    <details style={{ marginTop: 12 }}>
      <summary className="soft">Lists that went in</summary>
      <table className="grid">
        <tbody>
          {imports.data.items.slice(0, 8).map((i) => (
            <tr key={i.id} className={i.undoneAt === null ? '' : 'soft'}>
              <td className="num">{dayText(i.at)}</td>
              <td>{i.name}</td>
              <td className="r num">{counted(i.rows)}</td>
              <td className="r">
                <Button
                  variant="text"
                  className="quiet"
                  disabled={undo.isPending}
                  onClick={() => undo.mutate(i)}
                >
                  {i.undoneAt === null ? 'Undo' : 'Take back'}
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
