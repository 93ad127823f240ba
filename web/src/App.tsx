import { LoadingOutlined } from '@ant-design/icons';
import { QueryClient, useQuery } from '@tanstack/react-query';
import { PersistQueryClientProvider } from '@tanstack/react-query-persist-client';
import { ConfigProvider, Modal } from 'antd';
import { lazy, Suspense, useEffect, useState } from 'react';
import { createBrowserRouter, Link, Navigate, RouterProvider, useRouteError } from 'react-router';
import { onLapse, Problem } from './api/client';
import { KeptElsewhere } from './features/card/KeptElsewhere';
import { SignIn, SignInForm } from './features/signin/SignIn';
import { atHand } from './shared/atHand';
import { useMe } from './shared/me';
import { ProblemNote } from './shared/ProblemNote';
import { meQuery } from './shared/queries';
import { Shell } from './shared/Shell';
import { theme } from './theme/tokens';

const Desk = lazy(() => import('./features/desk/Desk'));
const DossierPage = lazy(() => import('./features/dossier/Dossier'));
const VehicleForm = lazy(() => import('./features/dossier/VehicleForm'));
const ReadingSheet = lazy(() => import('./features/desk/ReadingSheet'));
const Ahead = lazy(() => import('./features/ahead/Ahead'));
const Board = lazy(() => import('./features/board/Board'));
const JobList = lazy(() => import('./features/jobs/JobList'));
const JobBuilder = lazy(() => import('./features/jobs/JobBuilder'));
const Engines = lazy(() => import('./features/engines/Engines'));
const NewEngine = lazy(() => import('./features/engines/NewEngine'));
const Engine = lazy(() => import('./features/engines/Engine'));
const Month = lazy(() => import('./features/month/Month'));
const Stores = lazy(() => import('./features/stores/Stores'));
const Needs = lazy(() => import('./features/stores/Needs'));
const Orders = lazy(() => import('./features/stores/Orders'));
const ToolSets = lazy(() => import('./features/stores/ToolSets'));
const Parts = lazy(() => import('./features/stores/Parts'));
const FromPaper = lazy(() => import('./features/card/FromPaper'));
const Owner = lazy(() => import('./features/owners/Owner'));
const Letters = lazy(() => import('./features/letters/Letters'));
const LetterSetup = lazy(() => import('./features/letters/LetterSetup'));
const Find = lazy(() => import('./features/find/Find'));
const Fleets = lazy(() => import('./features/fleets/Fleets'));
const Fleet = lazy(() => import('./features/fleets/Fleet'));
const Recall = lazy(() => import('./features/recall/Recall'));
const JobCard = lazy(() => import('./features/card/JobCard'));
const CalculatorsPage = lazy(() => import('./features/calculators/CalculatorsPage'));
const Practice = lazy(() => import('./features/practice/Practice'));
const Setup = lazy(() => import('./features/setup/Setup'));
const Policy = lazy(() => import('./features/setup/PolicyForm'));
const Assumptions = lazy(() => import('./features/setup/Assumptions'));
const People = lazy(() => import('./features/setup/People'));
const GettingReady = lazy(() => import('./features/setup/GettingReady'));
const OwnPassword = lazy(() => import('./features/signin/OwnPassword'));
const Workshop = lazy(() => import('./features/setup/Workshop'));
const Backups = lazy(() => import('./features/setup/Backups'));
const Everything = lazy(() => import('./features/setup/Everything'));
const Matching = lazy(() => import('./features/setup/Matching'));
const Places = lazy(() => import('./features/setup/Places'));
const Breakdowns = lazy(() => import('./features/setup/Breakdowns'));
const Outside = lazy(() => import('./features/setup/Outside'));
const ImportList = lazy(() => import('./features/setup/ImportList'));

const client = new QueryClient({
  defaultOptions: {
    queries: {
      // what the server refuses it will refuse again; only an unreachable server is worth another try
      retry: (count, error) => count < 2 && error instanceof Problem && error.status === 0,
      refetchOnWindowFocus: true,
    },
  },
});

/** The manager's pages; others find the import there. */
function ManagersOnly({ children }: { children: React.ReactNode }) {
  return useMe().manages ? children : <Navigate to="/setup/import" replace />;
}

/** A fault of the interface itself: said in our words, with the ways out that lose nothing on the server. */
function Broken() {
  const error = useRouteError();
  const unread = error instanceof Error && /module script|imported module/i.test(error.message);
  return (
    <div className="page" role="alert">
      <h1>{unread ? 'This page cannot be read now' : 'This page has stopped working'}</h1>
      <p>
        {unread
          ? 'The server does not answer. What was entered on a card is kept on this tablet and is sent once it does.'
          : 'What was recorded is safe on the server, and what waits on a card is kept on this tablet. What was typed in a form here is lost.'}{' '}
        {error instanceof Error && <span className="hint">({error.message})</span>}
      </p>
      <div className="actions">
        <button className="action" onClick={() => window.location.reload()}>
          Open it again
        </button>
        <a className="action" href="/">
          To the Desk
        </a>
      </div>
    </div>
  );
}

const router = createBrowserRouter([
  { path: '/jobs/:id/card', element: <JobCard />, errorElement: <Broken /> },
  {
    element: <Shell note={<KeptElsewhere />} />,
    errorElement: <Broken />,
    children: [
      { path: '/', element: <Desk /> },
      { path: '/vehicles/new', element: <VehicleForm key="new" /> },
      { path: '/vehicles/:id', element: <DossierPage /> },
      { path: '/vehicles/:id/details', element: <VehicleForm /> },
      { path: '/readings', element: <ReadingSheet /> },
      { path: '/ahead', element: <Ahead /> },
      { path: '/board', element: <Board /> },
      { path: '/jobs', element: <JobList /> },
      { path: '/jobs/:id', element: <JobBuilder /> },
      { path: '/password', element: <OwnPassword /> },
      { path: '/calculators', element: <CalculatorsPage /> },
      { path: '/practice', element: <Practice /> },
      { path: '/recall', element: <Recall /> },
      { path: '/find', element: <Find /> },
      { path: '/fleets', element: <Fleets /> },
      { path: '/fleets/:id', element: <Fleet /> },
      { path: '/month', element: <Month /> },
      { path: '/owners/:id', element: <Owner /> },
      { path: '/letters', element: <Letters /> },
      { path: '/jobs/:id/paper', element: <FromPaper /> },
      { path: '/engines', element: <Engines /> },
      { path: '/engines/new', element: <NewEngine /> },
      { path: '/engines/:code', element: <Engine /> },
      {
        path: '/stores',
        element: <Stores />,
        children: [
          { index: true, element: <Needs /> },
          { path: 'orders', element: <Orders /> },
          { path: 'tool-sets', element: <ToolSets /> },
          { path: 'parts', element: <Parts /> },
        ],
      },
      {
        path: '/setup',
        element: <Setup />,
        children: [
          {
            index: true,
            element: (
              <ManagersOnly>
                <Policy />
              </ManagersOnly>
            ),
          },
          {
            path: 'assumptions',
            element: (
              <ManagersOnly>
                <Assumptions />
              </ManagersOnly>
            ),
          },
          {
            path: 'people',
            element: (
              <ManagersOnly>
                <People />
              </ManagersOnly>
            ),
          },
          {
            path: 'ready',
            element: (
              <ManagersOnly>
                <GettingReady />
              </ManagersOnly>
            ),
          },
          {
            path: 'workshop',
            element: (
              <ManagersOnly>
                <Workshop />
              </ManagersOnly>
            ),
          },
          {
            path: 'matching',
            element: (
              <ManagersOnly>
                <Matching />
              </ManagersOnly>
            ),
          },
          {
            path: 'backups',
            element: (
              <ManagersOnly>
                <Backups />
              </ManagersOnly>
            ),
          },
          {
            path: 'everything',
            element: (
              <ManagersOnly>
                <Everything />
              </ManagersOnly>
            ),
          },
          {
            path: 'places',
            element: (
              <ManagersOnly>
                <Places />
              </ManagersOnly>
            ),
          },
          {
            path: 'breakdowns',
            element: (
              <ManagersOnly>
                <Breakdowns />
              </ManagersOnly>
            ),
          },
          {
            path: 'letters',
            element: (
              <ManagersOnly>
                <LetterSetup />
              </ManagersOnly>
            ),
          },
          {
            path: 'outside',
            element: (
              <ManagersOnly>
                <Outside />
              </ManagersOnly>
            ),
          },
          { path: 'import', element: <ImportList /> },
        ],
      },
      { path: '*', element: <NoSuchPlace /> },
    ],
  },
]);

function NoSuchPlace() {
  return (
    <div className="page">
      <h1>There is no such place</h1>
      <Link to="/">To the Desk</Link>
    </div>
  );
}

/** How long the server may take to say who is signed in before the page opens with what it remembers, ms. */
const PATIENCE = 3_000;

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
        <RouterProvider router={router} />
      </Suspense>
      <Modal
        title="Your sign-in has lapsed"
        open={lapsed || !signedIn}
        footer={null}
        closable={false}
      >
        <p>What you typed is still here. Sign in and send it again.</p>
        <SignInForm onDone={() => setLapsed(false)} />
      </Modal>
    </>
  );
}

export function App() {
  return (
    <ConfigProvider
      theme={theme}
      wave={{ disabled: true }}
      // our lists are short; whole ones can be read aloud and do not shift under a touch
      virtual={false}
      // the icon would stay part of the button's spoken name for as long as it fades
      button={{ loadingIcon: <LoadingOutlined aria-hidden="true" /> }}
    >
      <PersistQueryClientProvider client={client} persistOptions={atHand}>
        <Door />
      </PersistQueryClientProvider>
    </ConfigProvider>
  );
}
