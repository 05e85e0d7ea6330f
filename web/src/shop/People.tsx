/** Who works here: roles, passwords, where somebody is signed in; and accounts given and taken away. */
import { shopRoutes, ROLES, type PersonOnList, type Role } from '@jutbank/contract/shop';
import { Button, MenuItem, TextField } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { Fragment, useState } from 'react';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { counted, sentence } from '../parts/words.ts';

const asProblem = (error: unknown) => (error instanceof ApiProblem ? error : undefined);

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
                    <button
                      type="button"
                      className="quiet"
                      aria-expanded={open === p.id}
                      aria-label={`Change ${p.name}`}
                      onClick={() => setOpen(open === p.id ? undefined : p.id)}
                    >
                      Change
                    </button>
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
  const [name, setName] = useState(person.name);
  const [role, setRole] = useState<Role>(person.role);
  const [password, setPassword] = useState('');
  const [sure, setSure] = useState(false);
  const params = { id: person.id };
  const act = useMutation({
    mutationFn: ({ act }: { act: () => Promise<unknown>; done: string; closes?: boolean }) => act(),
    onSuccess: (_, { closes }) => {
      void answers.invalidate(shopRoutes.people);
      setPassword('');
      if (closes) onDone();
    },
  });
  const problem = asProblem(act.error);
  return (
    <div className="note" style={{ display: 'grid', gap: 12 }}>
      <div style={{ display: 'grid', gap: 10, gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 150px) auto' }}>
        <TextField
          label="Name"
          value={name}
          error={!!problem?.at('/name')}
          helperText={problem?.at('/name')}
          onChange={(e) => setName(e.target.value)}
        />
        <TextField select label="Role" value={role} onChange={(e) => setRole(e.target.value as Role)}>
          {ROLES.map((r) => (
            <MenuItem key={r} value={r}>
              {sentence(r)}
            </MenuItem>
          ))}
        </TextField>
        <Button
          disabled={act.isPending || (name === person.name && role === person.role)}
          onClick={() =>
            act.mutate({
              act: () => send(shopRoutes.changePerson, { params, body: { name, role } }),
              done: 'Kept.',
              closes: true,
            })
          }
        >
          Keep
        </Button>
      </div>
      {role !== person.role && (
        <p className="soft">With another role everything {person.name} has open ends.</p>
      )}
      <div style={{ display: 'grid', gap: 10, gridTemplateColumns: 'minmax(0, 1fr) auto' }}>
        <TextField
          label="New password"
          type="password"
          autoComplete="new-password"
          value={password}
          error={!!problem?.at('/password')}
          helperText={problem?.at('/password') ?? 'Tell it in person. Everything they have open ends.'}
          onChange={(e) => setPassword(e.target.value)}
        />
        <Button
          sx={{ alignSelf: 'start' }}
          disabled={act.isPending || password === ''}
          onClick={() =>
            act.mutate({
              act: () => send(shopRoutes.resetPassword, { params, body: { password } }),
              done: 'The new password counts.',
            })
          }
        >
          Give it
        </Button>
      </div>
      <div style={{ display: 'flex', gap: 10, flexWrap: 'wrap', alignItems: 'center' }}>
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
      {problem && problem.errors.length === 0 && (
        <p className="problem" role="alert">
          {problem.message}
        </p>
      )}
    </div>
  );
}

function Add() {
  const answers = useKeptAnswers();
  const empty: { name: string; email: string; password: string; role: Role } = {
    name: '',
    email: '',
    password: '',
    role: 'clerk',
  };
  const [form, setForm] = useState(empty);
  const add = useMutation({
    mutationFn: () => send(shopRoutes.addPerson, { body: form }),
    onSuccess: () => {
      setForm(empty);
      void answers.invalidate(shopRoutes.people);
    },
  });
  const problem = asProblem(add.error);
  const field = (key: 'name' | 'email' | 'password', label: string, type = 'text') => (
    <TextField
      label={label}
      type={type}
      value={form[key]}
      autoComplete={type === 'password' ? 'new-password' : 'off'}
      error={!!problem?.at(`/${key}`)}
      helperText={problem?.at(`/${key}`)}
      onChange={(e) => setForm({ ...form, [key]: e.target.value })}
    />
  );
  return (
    <form
      className="askbox"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate();
      }}
    >
      <h2 className="sec">Give somebody an account</h2>
      <div style={{ display: 'grid', gap: 12 }}>
        {field('name', 'Name')}
        {field('email', 'E-mail', 'email')}
        {field('password', 'First password', 'password')}
        <TextField
          select
          label="Role"
          value={form.role}
          onChange={(e) => setForm({ ...form, role: e.target.value as Role })}
        >
          {ROLES.map((r) => (
            <MenuItem key={r} value={r}>
              {sentence(r)}
            </MenuItem>
          ))}
        </TextField>
        <div>
          <Button type="submit" variant="contained" disabled={add.isPending}>
            Add
          </Button>
        </div>
      </div>
    </form>
  );
}
