/** Who works here: roles, passwords, where somebody is signed in; and accounts given and taken away. */
import { shopRoutes, ROLES, type PersonOnList } from '@jutbank/contract/shop';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { Fragment, useState } from 'react';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { chosen, optionsOf, Select } from '../parts/fields/choices.tsx';
import { Submit } from '../parts/fields/Submit.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { useContractForm } from '../parts/fields/useContractForm.ts';
import { counted, sentence } from '../parts/words.ts';

export function People() {
  const own = useMay('own');
  const people = useAnswer(shopRoutes.people);
  const [open, setOpen] = useState<string>();
  return (
    <section>
      <h2 className="sec">People</h2>
      <table className="grid" style={{ marginBottom: 16 }}>
        <tbody>
          {people.data?.items.map((p) => (
            <Fragment key={p.id}>
              <tr className={open === p.id ? 'on' : ''}>
                <td>
                  {p.name}
                  <span
                    className="soft mono"
                    style={{ display: 'block', fontSize: 12, overflowWrap: 'anywhere' }}
                  >
                    {p.email}
                  </span>
                </td>
                <td className="soft">
                  {sentence(p.role)}
                  <span style={{ display: 'block', fontSize: 12 }}>
                    {p.sessions === 0
                      ? 'not signed in'
                      : `signed in ${counted(p.sessions)} ${p.sessions === 1 ? 'time' : 'times'}`}
                    {p.secondFactor && ', with a code'}
                  </span>
                </td>
                {own && (
                  <td className="r">
                    <Button
                      variant="text"
                      className="quiet"
                      aria-expanded={open === p.id}
                      aria-label={`Change ${p.name}`}
                      onClick={() => setOpen(open === p.id ? undefined : p.id)}
                    >
                      Change
                    </Button>
                  </td>
                )}
              </tr>
              {open === p.id && (
                <tr>
                  <td colSpan={3}>
                    <Change person={p} onDone={() => setOpen(undefined)} />
                  </td>
                </tr>
              )}
            </Fragment>
          ))}
        </tbody>
      </table>
      {own && <Add />}
    </section>
  );
}

/** Every act stands alone: what is done is done, and said. */
function Change({ person, onDone }: { person: PersonOnList; onDone: () => void }) {
  const { person: me } = useSession();
  const answers = useKeptAnswers();
  const fresh = () => void answers.invalidate(shopRoutes.people);
  const params = { id: person.id };
  const who = useContractForm(shopRoutes.changePerson, {
    empty: { name: person.name, role: person.role },
    params,
    onSent: () => {
      fresh();
      onDone();
    },
  });
  const password = useContractForm(shopRoutes.resetPassword, {
    empty: { password: '' },
    params,
    onSent: () => {
      fresh();
      password.reset();
    },
  });
  const [sure, setSure] = useState(false);
  const act = useMutation({
    mutationFn: ({ act }: { act: () => Promise<unknown>; done: string; closes?: boolean }) => act(),
    onSuccess: (_, { closes }) => {
      fresh();
      if (closes) onDone();
    },
  });
  return (
    <div className="note fields">
      <form className="fieldrow" noValidate onSubmit={who.onSubmit}>
        <TextInput label="Name" {...who.field('name')} />
        <Select label="Role" options={optionsOf(ROLES, sentence)} {...chosen(who.field('role'))} />
        <Submit
          form={who}
          words="Keep"
          disabled={who.values.name === person.name && who.values.role === person.role}
        />
      </form>
      {who.values.role !== person.role && (
        <p className="soft">With another role everything {person.name} has open ends.</p>
      )}
      <form className="fieldrow" noValidate onSubmit={password.onSubmit}>
        <TextInput
          label="New password"
          why="Tell it in person. Everything they have open ends."
          type="password"
          autoComplete="new-password"
          {...password.field('password')}
        />
        <Submit
          form={password}
          words="Give it"
          said={() => 'The new password counts.'}
          disabled={password.values.password === ''}
        />
      </form>
      <div className="submit">
        <Button
          disabled={act.isPending || person.sessions === 0}
          onClick={() =>
            act.mutate({
              act: () => send(shopRoutes.endSessionsOf, { params }),
              done: 'All sessions have ended.',
            })
          }
        >
          End all sessions
        </Button>
        {person.secondFactor && (
          <Button
            disabled={act.isPending}
            onClick={() =>
              act.mutate({
                act: () => send(shopRoutes.dropSecondFactor, { params }),
                done: 'No code is asked for any more.',
              })
            }
          >
            Authenticator is lost
          </Button>
        )}
        {person.id !== me.id &&
          (sure ? (
            <Button
              color="error"
              disabled={act.isPending}
              onClick={() =>
                act.mutate({
                  act: () => send(shopRoutes.removePerson, { params }),
                  closes: true,
                  done: 'Taken away.',
                })
              }
            >
              Yes, take {person.name}’s account away
            </Button>
          ) : (
            <Button onClick={() => setSure(true)}>Take the account away</Button>
          ))}
      </div>
      {sure && <p className="soft">The name stays on everything {person.name} did.</p>}
      {act.isSuccess && <p role="status">{act.variables.done}</p>}
      {act.isError && (
        <p className="problem" role="alert">
          {act.error.message}
        </p>
      )}
    </div>
  );
}

function Add() {
  const answers = useKeptAnswers();
  const form = useContractForm(shopRoutes.addPerson, {
    empty: { name: '', email: '', password: '', role: 'clerk' },
    onSent: () => {
      form.reset();
      void answers.invalidate(shopRoutes.people);
    },
  });
  return (
    <form className="askbox" noValidate onSubmit={form.onSubmit}>
      <h2 className="sec">Give somebody an account</h2>
      <div className="fields">
        <TextInput label="Name" {...form.field('name')} />
        <TextInput label="E-mail" type="email" {...form.field('email')} />
        <TextInput
          label="First password"
          type="password"
          autoComplete="new-password"
          {...form.field('password')}
        />
        <Select label="Role" options={optionsOf(ROLES, sentence)} {...chosen(form.field('role'))} />
        <Submit form={form} words="Add" />
      </div>
    </form>
  );
}
