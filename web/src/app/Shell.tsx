import { Button } from '@mui/material';
import { shopRoutes } from '@jutbank/contract/shop';
import { lazy, Suspense, useMemo, useState } from 'react';
import { NavLink, Outlet, useNavigation } from 'react-router';
import { useAnswer } from '../base/answers.ts';
import { useServerAway } from '../base/away.ts';
import { keptSession } from '../base/kept.ts';
import { useMode } from '../base/mode.ts';
import { SessionContext, useSessionQuery } from '../base/session.ts';
import { useEscapeLeaves, useShortcuts } from '../base/shortcuts.ts';
import { Failed, Loading } from '../base/states.tsx';
import { BeforeLeaving } from './BeforeLeaving.tsx';
import { Wordmark } from '../base/Wordmark.tsx';

const SignInPage = lazy(() => import('../shop/SignInPage.tsx'));
const SetupPage = lazy(() => import('../shop/SetupPage.tsx'));
const Finder = lazy(() => import('./Finder.tsx'));
const KeysHelp = lazy(() => import('./KeysHelp.tsx'));

export function Shell() {
  const session = useSessionQuery();
  const health = useAnswer(shopRoutes.health, {}, { enabled: session.data === null });
  if (session.isError) return <Failed error={session.error} retry={() => void session.refetch()} />;
  if (session.data === undefined)
    return (
      <>
        <Away />
        <Loading />
      </>
    );
  if (session.data === null) {
    if (health.isError) return <Failed error={health.error} retry={() => void health.refetch()} />;
    if (!health.data) return <Loading />;
    return <Suspense fallback={<Loading />}>{health.data.empty ? <SetupPage /> : <SignInPage />}</Suspense>;
  }
  return (
    <SessionContext value={session.data}>
      <Frame />
    </SessionContext>
  );
}

const PLACES = [
  ['/', 'Tray'],
  ['/pieces', 'Pieces'],
  ['/fair', 'Fair'],
  ['/lots', 'Lots'],
  ['/reference', 'Reference'],
  ['/series', 'Series'],
  ['/comparables', 'Comparables'],
  ['/stock', 'Stock'],
  ['/sales', 'Sales'],
  ['/shop', 'Shop'],
] as const;

function Frame() {
  const navigation = useNavigation();
  const { mode, setMode } = useMode();
  const [open, setOpen] = useState<'find' | 'keys'>();
  const keys = useMemo(
    () => [
      { key: '/', does: 'Find anything', run: () => setOpen('find') },
      { key: '?', does: 'Show the keys of this screen', run: () => setOpen('keys') },
    ],
    [],
  );
  useShortcuts('Everywhere', keys);
  useEscapeLeaves();
  return (
    <div className="frame">
      <a className="skip" href="#main">
        To the content
      </a>
      <header className="head">
        <Wordmark />
        <nav aria-label="Places">
          {PLACES.map(([to, label]) => (
            <NavLink key={to} to={to} end={to === '/'}>
              {label}
            </NavLink>
          ))}
        </nav>
        <span className="grow hide-small" />
        <button type="button" className="find" onClick={() => setOpen('find')}>
          <kbd>/</kbd>Find<span className="hide-small">&nbsp;a piece, mark, number</span>
        </button>
        <Button variant="text" className="quiet hide-small" onClick={() => setOpen('keys')}>
          <kbd>?</kbd> Keys
        </Button>
        <Button
          variant="text"
          className="quiet"
          onClick={() => setMode(mode === 'light' ? 'dark' : 'light')}
          aria-label={mode === 'light' ? 'Use the dark theme' : 'Use the light theme'}
        >
          {mode === 'light' ? 'Dark' : 'Light'}
        </Button>
        <PersonName />
      </header>
      <Away />
      {navigation.state === 'loading' && <Loading />}
      <main className="main" id="main" tabIndex={-1}>
        <Outlet />
      </main>
      <BeforeLeaving />
      <Suspense fallback={null}>
        {open === 'find' && <Finder onClose={() => setOpen(undefined)} />}
        {open === 'keys' && <KeysHelp onClose={() => setOpen(undefined)} />}
      </Suspense>
    </div>
  );
}

/** What is going on while nobody answers; it goes by itself. */
function Away() {
  return useServerAway() ? (
    <p className="note bad away" role="status">
      <b>The server does not answer just now.</b>
      It is asked again by itself; what you typed is kept and saved as soon as it is back.
      {keptSession() && (
        <>
          {' '}
          <NavLink to="/fair">The bag for the fair</NavLink> works without it.
        </>
      )}
    </p>
  ) : null;
}

function PersonName() {
  const session = useSessionQuery();
  return (
    <NavLink
      className="quiet mono person"
      to="/account"
      title={`Signed in as ${session.data?.person.role ?? ''}`}
    >
      {session.data?.person.name}
    </NavLink>
  );
}
