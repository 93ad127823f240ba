import { lazy, Suspense } from 'react';
import { createBrowserRouter, Link, Navigate, RouterProvider, useRouteError } from 'react-router';
import { KeptElsewhere } from './features/card/KeptElsewhere';
import { BrokenPage } from './shared/Broken';
import { useEscape } from './shared/escape';
import { useScrollers } from './shared/scrollers';
import { useMe } from './shared/me';
import { Shell } from './shared/Shell';
import './theme/desk.css';
import './theme/drawings.css';
import './theme/ahead.css';
import './theme/dossier.css';
import './theme/jobs.css';
import './theme/setup.css';
import './theme/fleets.css';
import './theme/engines.css';
import './theme/bench.css';
import './theme/calculators.css';
import './theme/board.css';
import './theme/stores.css';
import './theme/letters.css';
import './theme/media.css';
import './theme/reflow.css';

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

/** The manager's pages; others find the import there. */
function ManagersOnly({ children }: { children: React.ReactNode }) {
  return useMe().manages ? children : <Navigate to="/setup/import" replace />;
}

function Broken() {
  return <BrokenPage error={useRouteError()} />;
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

/** The places, once somebody is signed in. */
export default function Inside() {
  useEscape();
  useScrollers();
  return (
    <Suspense fallback={<p className="hint loading">Opening…</p>}>
      <RouterProvider router={router} />
    </Suspense>
  );
}
