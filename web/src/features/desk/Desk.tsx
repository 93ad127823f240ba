import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Dropdown, Input } from 'antd';
import { useCallback, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Schemas } from '../../api/client';
import { formatDate, formatTime, formatWhole } from '../../shared/format';
import { useKeys } from '../../shared/keyboard';
import { useAddress } from '../../shared/address';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { Dossier, type DossierForm } from '../dossier/Dossier';
import { DeskFilters } from './DeskFilters';
import { deskQuery, filterOf, filterText, PAGE, type DeskParams } from './deskQueries';
import { DeskRows, Groups, PRINTED, type Row } from './DeskRows';
import { Moved, SavedViews } from './DeskViews';
import { LettersHint } from './LettersHint';
import { Notices } from './Notices';
import { SilentFeeds } from './SilentFeeds';
import { ToTell } from './ToTell';
import { Unjudged } from './Unjudged';

/** What needs a decision, worst first, and beside it the vehicle it is about. */
export default function Desk() {
  const me = useMe();
  const navigate = useNavigate();
  const { params, change, set, clear } = useAddress();
  const filter = filterOf(params);
  const desk = useQuery(deskQuery(filter));
  const [form, setForm] = useState<DossierForm>();
  const [index, setIndex] = useState(0);
  const [chosen, setChosen] = useState<Row>();
  const rows = useRef(new Map<number, Row>());
  const onRows = useCallback((at: Map<number, Row>) => {
    rows.current = at;
  }, []);
  const first = desk.data?.rows ?? [];
  const asked = Number(params.get('sel'));
  // the row asked for in the address, where it is among the first; else the one walked to; else the worst
  const fresh = [...first, chosen].find((r) => r?.vehicleId === asked);
  const selected = fresh ?? first[0];
  const inFirst = first.findIndex((r) => r.vehicleId === selected?.vehicleId);
  const selectedIndex = inFirst >= 0 ? inFirst : index;

  const select = (at: number, row: Row) => {
    setForm(undefined);
    setIndex(at);
    setChosen(row);
    set('sel', String(row.vehicleId));
  };
  // where the dossier stands below the list it comes into sight
  const beside = useRef<HTMLElement>(null);
  const point = (at: number, row: Row) => {
    select(at, row);
    if (window.matchMedia('(max-width: 900px)').matches)
      requestAnimationFrame(() => beside.current?.scrollIntoView({ block: 'start' }));
  };
  const walk = (step: number) => {
    const to = Math.min(Math.max(selectedIndex + step, 0), (desk.data?.total ?? 1) - 1);
    const row = rows.current.get(to);
    if (row) select(to, row);
  };
  useKeys({
    ArrowDown: () => walk(1),
    ArrowUp: () => walk(-1),
    Enter: () => selected && navigate(`/vehicles/${selected.vehicleId}`),
    ...(me.readsOnly ? {} : { o: () => setForm('reading'), e: () => setForm('evidence') }),
    ...(me.desk
      ? {
          c: () => setForm('call'),
          j: () => selected && navigate(jobPath(selected)),
          n: () => selected && step(selected),
        }
      : {}),
  });
  const step = (row: Row) => {
    const path = nextStepPath(row, me.desk, me.bench);
    if (path) navigate(path);
    else if (me.desk) setForm('call');
  };
  const only = (what: DeskParams['only']) => set('only', filter.only === what ? undefined : what);
  const narrowed = filterText(params) !== '';
  const view = desk.data;
  return (
    <div className="desk">
      <section className="desk-list" aria-label="Vehicles that need a decision">
        <div className="list-head">
          <h1>
            {view === undefined
              ? 'Reading the list…'
              : filter.aside
                ? `${formatWhole(view.aside)} set aside by their owners`
                : `${formatWhole(view.toDecide)} ${view.toDecide === 1 ? 'vehicle needs' : 'vehicles need'} a decision`}
          </h1>
          {view !== undefined && view.callBacks > 0 && (
            <span className="hint">
              <button className="link" onClick={() => only('CALLS')}>
                {view.callBacks} {view.callBacks === 1 ? 'call' : 'calls'} promised for today
              </button>
            </span>
          )}
          {view !== undefined && view.rechecks > 0 && (
            <span className="hint">
              <button className="link" onClick={() => only('RECHECKS')}>
                {view.rechecks} {view.rechecks === 1 ? 'recheck' : 'rechecks'} due
              </button>
            </span>
          )}
          {narrowed && (
            <button className="action quiet-inline" onClick={clear}>
              Show all
            </button>
          )}
          <span className="grow" />
          <Input
            className="narrow"
            allowClear
            placeholder="a word"
            aria-label="Narrow the list by a word"
            value={filter.q ?? ''}
            onChange={(e) => set('q', e.target.value || undefined)}
          />
          <SavedViews />
          <ListMenu query={filterText(params)} filter={filter} total={view?.total ?? 0} />
        </div>
        <DeskFilters filter={filter} set={set} />
        {view && (
          <Groups
            view={view}
            chosen={filter.status ?? []}
            aside={filter.aside ?? false}
            whileHere={filter.only === 'WHILE_HERE'}
            onWhileHere={() => only('WHILE_HERE')}
            onAside={(on) => set('aside', on ? 'true' : undefined)}
            onChoose={(s) =>
              change((p) => {
                p.delete('status');
                s.forEach((x) => p.append('status', x));
              })
            }
          />
        )}
        {me.desk && <Notices />}
        {view && <Unjudged view={view} />}
        {me.desk && <SilentFeeds />}
        {me.desk && <LettersHint />}
        {me.desk && <ToTell />}
        {view?.moved && <Moved moved={view.moved} />}
        {desk.error && <ProblemNote error={desk.error} retry={() => desk.refetch()} />}
        {desk.isFetching && desk.dataUpdatedAt > 0 && (
          <span className="as-of">
            as of {formatTime(new Date(desk.dataUpdatedAt).toISOString())}
          </span>
        )}
        {view && view.total > 0 && (
          <DeskRows
            filter={filter}
            first={view}
            selected={selectedIndex}
            selectedId={selected?.vehicleId}
            onSelect={point}
            onRows={onRows}
            next={(row) => (
              <NextStep
                row={row}
                path={nextStepPath(row, me.desk, me.bench)}
                onCall={
                  me.desk
                    ? () => {
                        select([...rows.current].find(([, r]) => r === row)?.[0] ?? index, row);
                        setForm('call');
                      }
                    : undefined
                }
              />
            )}
          />
        )}
        {view && view.total === 0 && (
          <Empty desk={view} filtered={narrowed} mayImport={me.desk} clear={clear} />
        )}
      </section>
      <section ref={beside} className="desk-dossier" aria-label="Selected vehicle">
        {selected && (
          <Dossier key={selected.vehicleId} id={selected.vehicleId} form={form} onForm={setForm} />
        )}
      </section>
    </div>
  );
}

function ListMenu({ query, filter, total }: { query: string; filter: DeskParams; total: number }) {
  const me = useMe();
  const navigate = useNavigate();
  const client = useQueryClient();
  const print = async () => {
    const pages = Math.ceil(Math.min(total, PRINTED) / PAGE);
    await Promise.all(
      Array.from({ length: pages }, (_, page) => client.ensureQueryData(deskQuery(filter, page))),
    );
    window.print();
  };
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: [
          ...(me.desk || me.readsOnly
            ? [
                {
                  key: 'csv',
                  label: <a href={`/api/desk/list.csv?${query}`}>This list as CSV</a>,
                },
              ]
            : []),
          { key: 'print', label: 'Print this list', onClick: () => void print() },
          ...(me.readsOnly
            ? []
            : [
                {
                  key: 'readings',
                  label: 'Enter readings for this list',
                  onClick: () => navigate(`/readings?${query}`),
                },
              ]),
          ...(me.desk
            ? [{ key: 'add', label: 'Add a vehicle', onClick: () => navigate('/vehicles/new') }]
            : []),
        ],
      }}
    >
      <button className="action quiet-inline">List</button>
    </Dropdown>
  );
}

function NextStep({ row, path, onCall }: { row: Row; path?: string; onCall?: () => void }) {
  if (row.nextStep === 'NONE') return null;
  if (path) {
    return (
      <Link className="action" to={path} onClick={(e) => e.stopPropagation()}>
        {row.nextStepWords}
      </Link>
    );
  }
  return onCall ? (
    <button
      className="action"
      onClick={(e) => {
        e.stopPropagation();
        onCall();
      }}
    >
      {row.nextStepWords}
    </button>
  ) : (
    <span className="step-words">{row.nextStepWords}</span>
  );
}

function Empty({
  desk,
  filtered,
  mayImport,
  clear,
}: {
  desk: Schemas['DeskView'];
  filtered: boolean;
  mayImport: boolean;
  clear: () => void;
}) {
  if (desk.vehicles === 0) {
    return (
      <p className="empty">
        No vehicles yet.{' '}
        {mayImport && (
          <>
            <Link to="/setup/import">Import a list</Link>, or{' '}
            <Link to="/vehicles/new">add one by registration</Link>.
          </>
        )}
      </p>
    );
  }
  if (filtered) {
    return (
      <p className="empty">
        No vehicle fits.{' '}
        <button className="link" onClick={clear}>
          Show all again
        </button>
      </p>
    );
  }
  return (
    <p className="empty">
      Nothing to decide.
      {desk.nextActBy &&
        ` Next act-by: ${formatDate(desk.nextActBy)}, ${desk.nextActByVehicles} ${desk.nextActByVehicles === 1 ? 'vehicle' : 'vehicles'}.`}
    </p>
  );
}

const jobPath = (row: Row) =>
  row.jobId ? `/jobs/${row.jobId}` : `/vehicles/${row.vehicleId}?job=new`;

/** Where the next step is done; undefined where it is a call, which is noted in the dossier. */
function nextStepPath(row: Row, desk: boolean, bench: boolean): string | undefined {
  if (row.nextStep === 'PROMISE' && desk) return jobPath(row);
  if ((row.nextStep === 'START' || row.nextStep === 'SIGN') && bench && row.jobId)
    return `/jobs/${row.jobId}/card`;
  return undefined;
}
