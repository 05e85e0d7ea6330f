/** Museums, firms, services and units by the names they had: the record of owners calls each by the name of the day. */
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { edtfInWords } from '@jutbank/core/dates';
import { pieceRoutes } from '@jutbank/contract/pieces';
import { documentRoutes, type BodyNames, type BodyRecord } from '@jutbank/contract/provenance';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { DateInput, Rows, Submit, TextInput, useContractForm } from '../parts/fields/index.ts';

export default function BodiesPage() {
  const mayWork = useMay('work');
  const [open, setOpen] = useState<BodyRecord | 'new'>();
  const bodies = useAnswer(documentRoutes.bodies);
  if (bodies.isPending) return <Loading />;
  if (bodies.isError) return <Failed error={bodies.error} retry={() => void bodies.refetch()} />;
  const { items } = bodies.data;
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>Bodies and their names</PageTitle>
        <span className="grow" />
        {mayWork && (
          <Button variant="contained" onClick={() => setOpen('new')}>
            Note a body
          </Button>
        )}
      </div>
      <div className={open === undefined ? '' : 'twocol'}>
        <section>
          {items.length === 0 && (
            <p className="soft">
              None is noted yet. A service that was renamed, a museum that was founded late: noted here, an
              owner who did not exist yet is told of.
            </p>
          )}
          <table className="grid">
            <tbody>
              {items.map((body) => (
                <tr key={body.id}>
                  <td>
                    {body.names.map((n) => (
                      <p key={`${n.name} ${n.period}`}>
                        <b>{n.name}</b> <span className="num soft">{edtfInWords(n.period)}</span>
                      </p>
                    ))}
                    {body.note !== '' && <p className="soft">{body.note}</p>}
                  </td>
                  <td className="r">
                    {mayWork && (
                      <Button variant="text" className="quiet" onClick={() => setOpen(body)}>
                        Change
                      </Button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
        {open !== undefined && (
          <section>
            <BodyForm
              key={open === 'new' ? 'new' : `${open.id} ${open.version}`}
              of={open === 'new' ? undefined : open}
              onDone={() => setOpen(undefined)}
            />
          </section>
        )}
      </div>
    </div>
  );
}

function BodyForm({ of, onDone }: { of: BodyRecord | undefined; onDone: () => void }) {
  const answers = useKeptAnswers();
  const onSent = () => {
    // every trail is held against these
    void answers.invalidate(documentRoutes.bodies, pieceRoutes.piece, pieceRoutes.tray);
    onDone();
  };
  const empty: BodyNames = { names: of?.names ?? [{ name: '', period: '' }], note: of?.note ?? '' };
  const toBody = (values: BodyNames) => values;
  const added = useContractForm(documentRoutes.addBody, { empty, toBody, onSent });
  const changed = useContractForm(documentRoutes.putBody, {
    empty,
    params: { id: of?.id ?? '' },
    version: of?.version ?? 0,
    toBody,
    onSent,
  });
  const form = of ? changed : added;
  const remove = useMutation({
    mutationFn: () => send(documentRoutes.removeBody, { params: { id: of?.id ?? '' } }),
    onSuccess: onSent,
  });
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
      <h2 className="sec">{of ? of.names[0]?.name : 'A body'}</h2>
      <Rows
        title="Names, and when it had them"
        items={form.values.names}
        fresh={() => ({ name: '', period: '' })}
        add="another name"
        onChange={(names) => form.set('names', names)}
      >
        {(item, set, i) => (
          <div className="fields across">
            <TextInput
              label="Name"
              value={item.name}
              problem={form.field(`names.${i}.name`).problem}
              onChange={(name) => set({ name })}
            />
            <DateInput
              label="When"
              value={item.period}
              problem={form.field(`names.${i}.period`).problem}
              onChange={(period) => set({ period: period ?? '' })}
            />
          </div>
        )}
      </Rows>
      <TextInput label="Note" {...form.field('note')} />
      <Submit form={form} words="Keep">
        {of && (
          <Button
            variant="text"
            className="quiet"
            disabled={remove.isPending}
            onClick={() => remove.mutate()}
          >
            Take it off the list
          </Button>
        )}
      </Submit>
    </form>
  );
}
