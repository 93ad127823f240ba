import { LoadingOutlined } from '@ant-design/icons';
import { QueryClient, useQuery } from '@tanstack/react-query';
import { PersistQueryClientProvider } from '@tanstack/react-query-persist-client';
import { ConfigProvider } from 'antd';
import darkAlgorithm from 'antd/es/theme/themes/dark';
import { lazy, Suspense, useEffect, useState } from 'react';
import { onLapse, Problem } from './api/client';
import { SignIn } from './features/signin/SignIn';
import { atHand } from './shared/atHand';
import { Boundary } from './shared/Broken';
import { ProblemNote } from './shared/ProblemNote';
import { meQuery } from './shared/queries';
import { useDark } from './theme/look';
import { night, paper, themeOf } from './theme/tokens';

const Inside = lazy(() => import('./Inside'));
const Lapsed = lazy(() => import('./features/signin/Lapsed'));

const client = new QueryClient({
  defaultOptions: {
    queries: {
      // what the server refuses it will refuse again; only an unreachable server is worth another try
      retry: (count, error) => count < 2 && error instanceof Problem && error.status === 0,
      refetchOnWindowFocus: true,
    },
  },
});

/** How long the server may take to say who is signed in before the page opens with what it remembers, ms. */
const PATIENCE = 3_000;

/** When what lies behind the sign-in is fetched, ms. */
const TYPING = 500;
const INSIDE = 'knollfield-was-inside';

function wasInside(): boolean {
  try {
    return localStorage.getItem(INSIDE) !== null;
  } catch {
    return false;
  }
}

function noteInside(): void {
  try {
    localStorage.setItem(INSIDE, 'yes');
  } catch {
    // without a storage it comes a little later
  }
}

const fetchAhead = () =>
  void Promise.allSettled([import('./Inside'), import('./features/signin/Lapsed')]);

function Door() {
  // what the tablet remembers of it is asked anew; without a network it stands
  const {
    data: me,
    error,
    refetch,
    isFetchedAfterMount,
  } = useQuery({
    ...meQuery,
    refetchOnMount: 'always',
  });
  const [lapsed, setLapsed] = useState(false);
  const [inside, setInside] = useState(false);
  const signedIn = me?.id !== undefined;
  const [patient, setPatient] = useState(true);
  // nobody sees what the tablet remembers before the server had a chance to say that nobody is signed in
  const asking = !inside && !isFetchedAfterMount && !error && patient && navigator.onLine;
  useEffect(() => onLapse(() => setLapsed(true)), []);
  useEffect(() => {
    const timer = setTimeout(() => setPatient(false), PATIENCE);
    return () => clearTimeout(timer);
  }, []);
  // who was inside comes in again; for others the rest is fetched while they type their name
  useEffect(() => {
    const ahead = setTimeout(fetchAhead, wasInside() ? 0 : TYPING);
    return () => clearTimeout(ahead);
  }, []);
  useEffect(() => {
    if (inside) noteInside();
  }, [inside]);
  // a sign-in that lapses lays the form over the page, so that what was typed stays
  if (signedIn && !inside && !asking) setInside(true);
  if (error && !me) {
    return (
      <div className="page">
        <ProblemNote error={error} retry={() => refetch()} />
      </div>
    );
  }
  if (!me || asking) return null;
  if (!signedIn && !inside) return <SignIn workshop={me.workshop} firstRun={me.firstRun} />;
  return (
    <>
      <Suspense fallback={<p className="hint loading">Opening…</p>}>
        <Inside />
      </Suspense>
      {(lapsed || !signedIn) && (
        // by itself: where it cannot be fetched, what was typed on the page stays
        <Boundary>
          <Suspense fallback={null}>
            <Lapsed onDone={() => setLapsed(false)} />
          </Suspense>
        </Boundary>
      )}
    </>
  );
}

export function App() {
  const dark = useDark();
  return (
    <ConfigProvider
      theme={dark ? { ...themeOf(night), algorithm: darkAlgorithm } : themeOf(paper)}
      wave={{ disabled: true }}
      // our lists are short; whole ones can be read aloud and do not shift under a touch
      virtual={false}
      // the icon would stay part of the button's spoken name for as long as it fades
      button={{ loadingIcon: <LoadingOutlined aria-hidden="true" /> }}
    >
      <PersistQueryClientProvider client={client} persistOptions={atHand}>
        <Boundary>
          <Door />
        </Boundary>
      </PersistQueryClientProvider>
    </ConfigProvider>
  );
}
