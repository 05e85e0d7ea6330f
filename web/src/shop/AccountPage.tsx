/** One's own account: the password, where one is signed in, and a second factor. */
import { shopRoutes } from '@jutbank/contract/shop';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { useSession, useSignOut } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { Submit } from '../parts/fields/Submit.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { useContractForm } from '../parts/fields/useContractForm.ts';
import { counted, dayText, sentence } from '../parts/words.ts';

export default function AccountPage() {
  const { person } = useSession();
  const signOut = useSignOut();
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>{person.name}</PageTitle>
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
  const form = useContractForm(shopRoutes.changePassword, { empty: { current: '', password: '' } });
  return (
    <form className="fields" noValidate style={{ marginBottom: 28, maxWidth: 420 }} onSubmit={form.onSubmit}>
      <h2 className="sec">
        Password <small>at least ten characters</small>
      </h2>
      <TextInput
        label="The one you have"
        type="password"
        autoComplete="current-password"
        {...form.field('current')}
      />
      <TextInput
        label="The new one"
        type="password"
        autoComplete="new-password"
        {...form.field('password')}
      />
      <Submit
        form={form}
        words="Change it"
        disabled={form.values.password === ''}
        said={({ ended }) =>
          `Changed. ${ended > 0 ? `Elsewhere you are signed out (${counted(ended)}).` : ''}`
        }
      />
    </form>
  );
}

function SecondFactor() {
  const { person } = useSession();
  const people = useAnswer(shopRoutes.people);
  const taken = people.data?.items.find((p) => p.id === person.id)?.secondFactor;
  if (taken === undefined) return null;
  return (
    <section style={{ maxWidth: 420 }}>
      <h2 className="sec">
        Second factor <small>{taken ? 'a code is asked for when you sign in' : 'not in use'}</small>
      </h2>
      {taken ? <LeaveSecondFactor /> : <TakeSecondFactor />}
    </section>
  );
}

function LeaveSecondFactor() {
  const answers = useKeptAnswers();
  const form = useContractForm(shopRoutes.leaveSecondFactor, {
    empty: { password: '' },
    onSent: () => answers.invalidate(shopRoutes.people),
  });
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
      <TextInput
        label="Your password"
        type="password"
        autoComplete="current-password"
        {...form.field('password')}
      />
      <Submit form={form} words="Ask for no code any more" disabled={form.values.password === ''} />
    </form>
  );
}

function TakeSecondFactor() {
  const answers = useKeptAnswers();
  const begin = useMutation({ mutationFn: () => send(shopRoutes.beginSecondFactor) });
  const form = useContractForm(shopRoutes.takeSecondFactor, {
    empty: { code: '' },
    onSent: () => answers.invalidate(shopRoutes.people),
  });
  if (!begin.data)
    return (
      <>
        <p className="soft" style={{ marginBottom: 10 }}>
          With an authenticator on your phone nobody signs in with your password alone.
        </p>
        <Button disabled={begin.isPending} onClick={() => begin.mutate()}>
          Use an authenticator
        </Button>
        {begin.isError && <p className="problem">{begin.error.message}</p>}
      </>
    );
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
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
      <TextInput label="Code" autoComplete="one-time-code" inputMode="numeric" {...form.field('code')} />
      <Submit form={form} words="Use it from now on" disabled={form.values.code === ''} />
    </form>
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
                  <Button
                    variant="text"
                    className="quiet"
                    disabled={end.isPending}
                    onClick={() => end.mutate(s.id)}
                  >
                    End it
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
