/** One's own account: the password, where one is signed in, and a second factor. */
import { shopRoutes } from '@jutbank/contract/shop';
import { Button, TextField } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useSession, useSignOut } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { counted, dayText, sentence } from '../parts/words.ts';

const asProblem = (error: unknown) => (error instanceof ApiProblem ? error : undefined);

export default function AccountPage() {
  const { person } = useSession();
  const signOut = useSignOut();
  return (
    <div className="page">
      <div className="pagehead">
        <h1>{person.name}</h1>
        <span className="soft">
          {sentence(person.role)}, <span className="mono">{person.email}</span>
        </span>
        <span className="grow" />
        <Button onClick={() => void signOut()}>Sign out</Button>
      </div>
      <div className="twocol">
        <section>
          <Password />
          <SecondFactor />
        </section>
        <Sessions />
      </div>
    </div>
  );
}

function Password() {
  const empty = { current: '', password: '' };
  const [form, setForm] = useState(empty);
  const change = useMutation({
    mutationFn: () => send(shopRoutes.changePassword, { body: form }),
    onSuccess: () => setForm(empty),
  });
  const problem = asProblem(change.error);
  const field = (key: keyof typeof empty, label: string, complete: string) => (
    <TextField
      label={label}
      type="password"
      autoComplete={complete}
      value={form[key]}
      error={!!problem?.at(`/${key}`)}
      helperText={problem?.at(`/${key}`)}
      onChange={(e) => setForm({ ...form, [key]: e.target.value })}
    />
  );
  return (
    <form
      noValidate
      style={{ display: 'grid', gap: 14, marginBottom: 28, maxWidth: 420 }}
      onSubmit={(e) => {
        e.preventDefault();
        change.mutate();
      }}
    >
      <h2 className="sec">
        Password <small>at least ten characters</small>
      </h2>
      {field('current', 'The one you have', 'current-password')}
      {field('password', 'The new one', 'new-password')}
      <div>
        <Button type="submit" variant="contained" disabled={change.isPending || form.password === ''}>
          Change it
        </Button>{' '}
        {change.isSuccess && (
          <span className="soft" role="status">
            Changed.{' '}
            {change.data.ended > 0 && `Elsewhere you are signed out (${counted(change.data.ended)}).`}
          </span>
        )}
      </div>
      {problem && problem.errors.length === 0 && <p className="problem">{problem.message}</p>}
    </form>
  );
}

function SecondFactor() {
  const { person } = useSession();
  const answers = useKeptAnswers();
  const people = useAnswer(shopRoutes.people);
  const taken = people.data?.items.find((p) => p.id === person.id)?.secondFactor;
  const [word, setWord] = useState('');
  const begin = useMutation({
    mutationFn: () => send(shopRoutes.beginSecondFactor),
  });
  const settle = useMutation({
    mutationFn: () =>
      taken
        ? send(shopRoutes.leaveSecondFactor, { body: { password: word } })
        : send(shopRoutes.takeSecondFactor, { body: { code: word } }),
    onSuccess: () => {
      setWord('');
      begin.reset();
      void answers.invalidate(shopRoutes.people);
    },
  });
  const problem = asProblem(settle.error) ?? asProblem(begin.error);
  if (taken === undefined) return null;
  return (
    <section style={{ maxWidth: 420 }}>
      <h2 className="sec">
        Second factor <small>{taken ? 'a code is asked for when you sign in' : 'not in use'}</small>
      </h2>
      {!taken && !begin.data ? (
        <>
          <p className="soft" style={{ marginBottom: 10 }}>
            With an authenticator on your phone nobody signs in with your password alone.
          </p>
          <Button disabled={begin.isPending} onClick={() => begin.mutate()}>
            Use an authenticator
          </Button>
        </>
      ) : (
        <form
          noValidate
          style={{ display: 'grid', gap: 12 }}
          onSubmit={(e) => {
            e.preventDefault();
            settle.mutate();
          }}
        >
          {begin.data && (
            <div style={{ display: 'flex', gap: 16, alignItems: 'center', flexWrap: 'wrap' }}>
              <img src={begin.data.qr} alt="The secret for an authenticator" width={150} height={150} />
              <p style={{ flex: 1, minWidth: 160 }}>
                Show this to your authenticator, or type{' '}
                <span className="mono" style={{ overflowWrap: 'anywhere' }}>
                  {begin.data.secret}
                </span>
                . Then tell the code it shows.
              </p>
            </div>
          )}
          <TextField
            label={taken ? 'Your password' : 'Code'}
            type={taken ? 'password' : 'text'}
            value={word}
            autoComplete={taken ? 'current-password' : 'one-time-code'}
            error={!!(problem?.at('/code') ?? problem?.at('/password'))}
            helperText={problem?.at('/code') ?? problem?.at('/password')}
            slotProps={taken ? {} : { htmlInput: { inputMode: 'numeric', className: 'num' } }}
            onChange={(e) => setWord(e.target.value)}
          />
          <div>
            <Button
              type="submit"
              variant={taken ? 'outlined' : 'contained'}
              disabled={settle.isPending || word === ''}
            >
              {taken ? 'Ask for no code any more' : 'Use it from now on'}
            </Button>
          </div>
        </form>
      )}
      {problem && problem.errors.length === 0 && <p className="problem">{problem.message}</p>}
    </section>
  );
}

/** What a browser says of itself, in a word or two. */
const BROWSERS = ['Firefox', 'Edg', 'Chrome', 'Safari'] as const;
const SYSTEMS = ['Android', 'iPhone', 'iPad', 'Windows', 'Mac OS', 'Linux'] as const;
function agentInWords(agent: string): string {
  const browser = BROWSERS.find((b) => agent.includes(b));
  const system = SYSTEMS.find((s) => agent.includes(s));
  return [browser === 'Edg' ? 'Edge' : browser, system].filter(Boolean).join(' on ') || 'a program';
}

function Sessions() {
  const answers = useKeptAnswers();
  const list = useAnswer(shopRoutes.sessions);
  const end = useMutation({
    mutationFn: (id: string) => send(shopRoutes.endSession, { params: { id } }),
    onSuccess: () => answers.invalidate(shopRoutes.sessions),
  });
  if (list.isPending) return <Loading />;
  if (list.isError) return <Failed error={list.error} retry={() => void list.refetch()} />;
  return (
    <section>
      <h2 className="sec">Where you are signed in</h2>
      <table className="grid">
        <tbody>
          {list.data.items.map((s) => (
            <tr key={s.id}>
              <td>
                {agentInWords(s.agent)} {s.own && <b>here</b>}
                <span className="soft" style={{ display: 'block' }}>
                  since {dayText(s.begunAt)}, last {dayText(s.seenAt)}
                  {s.address !== '' && (
                    <>
                      , from <span className="mono">{s.address}</span>
                    </>
                  )}
                </span>
              </td>
              <td className="r" style={{ whiteSpace: 'nowrap' }}>
                {!s.own && (
                  <button
                    type="button"
                    className="quiet"
                    disabled={end.isPending}
                    onClick={() => end.mutate(s.id)}
                  >
                    End it
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
