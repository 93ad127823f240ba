import { useQuery } from '@tanstack/react-query';
import { Input, Select } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import type { Schemas } from '../../api/client';
import { LifeStrip } from '../../drawing/LifeStrip';
import { InterferenceMark, StatusSwatch } from '../../drawing/marks';
import { formatDate, formatDay, formatMoney, formatTime, formatWhole } from '../../shared/format';
import { useKeys } from '../../shared/keyboard';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { Dossier, type DossierForm } from '../dossier/Dossier';
import { deskQuery, fleetsQuery, filterOf, type Status } from './deskQueries';

type Row = Schemas['DeskRow'];

const DRIVES = [
  { value: 'BELT', label: 'belts' },
  { value: 'BELT_IN_OIL', label: 'belts in oil' },
  { value: 'CHAIN', label: 'chains' },
];

/** What needs a decision, worst first, and beside it the vehicle it is about. */
export default function Desk() {
  const me = useMe();
  const navigate = useNavigate();
  const [params, setParams] = useSearchParams();
  const filter = filterOf(params);
  const desk = useQuery(deskQuery(filter));
  const fleets = useQuery(fleetsQuery);
  const [form, setForm] = useState<DossierForm>();
  const list = useRef<HTMLDivElement>(null);
  const rows = desk.data?.rows ?? [];
  const asked = Number(params.get('sel'));
  const selected = rows.find((r) => r.vehicleId === asked) ?? rows[0];

  const change = (edit: (p: URLSearchParams) => void) => {
    const next = new URLSearchParams(params);
    edit(next);
    setParams(next, { replace: true });
  };
  const set = (name: string, value?: string) =>
    change((p) => {
      if (value) p.set(name, value);
      else p.delete(name);
    });
  const select = (row: Row) => {
    setForm(undefined);
    set('sel', String(row.vehicleId));
  };
  const walk = (step: number) => {
    const at = rows.findIndex((r) => r.vehicleId === selected?.vehicleId);
    const to = rows[Math.min(Math.max(at + step, 0), rows.length - 1)];
    if (to) select(to);
  };
  useKeys({
    ArrowDown: () => walk(1),
    ArrowUp: () => walk(-1),
    Enter: () => selected && navigate(`/vehicles/${selected.vehicleId}`),
    ...(me.readsOnly ? {} : { o: () => setForm('reading'), e: () => setForm('evidence') }),
    ...(me.desk
      ? { j: () => selected && navigate(jobPath(selected)), n: () => selected && step(selected) }
      : {}),
  });
  const step = (row: Row) => {
    const path = nextStepPath(row, me.desk, me.bench);
    if (path) navigate(path);
    else select(row);
  };
  useEffect(() => {
    list.current?.querySelector('[aria-current="true"]')?.scrollIntoView?.({ block: 'nearest' });
  }, [selected?.vehicleId]);

  const filtered = filter.status.length > 0 || filter.fleet || filter.drive || filter.q;
  const needing = (desk.data?.groups ?? [])
    .filter((g) => g.status !== 'CLEAR')
    .reduce((n, g) => n + g.count, 0);
  return (
    <div className="desk">
      <section className="desk-list" aria-label="Vehicles that need a decision">
        <div className="list-head">
          <h1>
            {needing} {needing === 1 ? 'vehicle needs' : 'vehicles need'} a decision
          </h1>
          <Input
            className="narrow"
            allowClear
            placeholder="narrow by word"
            aria-label="Narrow the list by a word"
            value={filter.q}
            onChange={(e) => set('q', e.target.value)}
          />
          <Select
            className="narrow"
            variant="borderless"
            aria-label="Fleet"
            value={filter.fleet ?? 0}
            onChange={(v) => set('fleet', v ? String(v) : undefined)}
            options={[
              { value: 0, label: 'all fleets' },
              ...(fleets.data ?? []).map((f) => ({ value: f.id, label: f.name })),
            ]}
          />
          <Select
            className="narrow"
            variant="borderless"
            aria-label="Drive"
            value={filter.drive ?? ''}
            onChange={(v) => set('drive', v || undefined)}
            options={[{ value: '', label: 'every drive' }, ...DRIVES]}
          />
        </div>
        <Groups
          groups={desk.data?.groups ?? []}
          chosen={filter.status}
          onChoose={(s) =>
            change((p) => {
              p.delete('status');
              s.forEach((x) => p.append('status', x));
            })
          }
        />
        {desk.error && <ProblemNote error={desk.error} retry={() => desk.refetch()} />}
        {desk.isFetching && desk.dataUpdatedAt > 0 && (
          <span className="as-of">
            as of {formatTime(new Date(desk.dataUpdatedAt).toISOString())}
          </span>
        )}
        <div
          className="rows"
          ref={list}
          tabIndex={0}
          role="region"
          aria-label="List, walk with the arrow keys"
        >
          {rows.map((r, i) => (
            <div key={r.vehicleId}>
              {r.status !== rows[i - 1]?.status && (
                <GroupHead status={r.status} groups={desk.data?.groups ?? []} />
              )}
              <DeskRow
                row={r}
                currency={me.currency}
                today={me.today}
                current={r.vehicleId === selected?.vehicleId}
                onSelect={() => select(r)}
                next={<NextStep row={r} path={nextStepPath(r, me.desk, me.bench)} />}
              />
            </div>
          ))}
          {desk.data && rows.length === 0 && (
            <Empty
              desk={desk.data}
              filtered={Boolean(filtered)}
              mayImport={me.desk}
              clear={() => setParams({}, { replace: true })}
            />
          )}
          {desk.data && desk.data.total > rows.length && (
            <p className="hint more">
              {formatWhole(desk.data.total - rows.length)} more; narrow the list to see them.
            </p>
          )}
        </div>
      </section>
      <section className="desk-dossier" aria-label="Selected vehicle">
        {selected && (
          <Dossier key={selected.vehicleId} id={selected.vehicleId} form={form} onForm={setForm} />
        )}
      </section>
    </div>
  );
}

function Groups({
  groups,
  chosen,
  onChoose,
}: {
  groups: Schemas['Group'][];
  chosen: Status[];
  onChoose: (s: Status[]) => void;
}) {
  return (
    <div className="group-line" role="group" aria-label="Show only">
      {groups.map((g) => {
        const on = chosen.includes(g.status);
        return (
          <button
            key={g.status}
            className={on ? 'chip on' : 'chip'}
            aria-pressed={on}
            onClick={() =>
              onChoose(on ? chosen.filter((s) => s !== g.status) : [...chosen, g.status])
            }
          >
            {g.words} <span className="count">{g.count}</span>
          </button>
        );
      })}
    </div>
  );
}

function GroupHead({ status, groups }: { status: Status; groups: Schemas['Group'][] }) {
  const group = groups.find((g) => g.status === status);
  return (
    <h2 className="group-head">
      <StatusSwatch status={status} /> {group?.words} <span className="count">{group?.count}</span>
    </h2>
  );
}

function DeskRow({
  row,
  currency,
  today,
  current,
  onSelect,
  next,
}: {
  row: Row;
  currency: string;
  today: string;
  current: boolean;
  onSelect: () => void;
  next: React.ReactNode;
}) {
  const late = row.status === 'STOP' || row.status === 'OVERDUE';
  return (
    <div className="row" aria-current={current} onClick={onSelect}>
      <div className="who">
        <Link
          className="registration"
          to={`/vehicles/${row.vehicleId}`}
          onClick={(e) => e.stopPropagation()}
        >
          {row.registration}
        </Link>
        <span className="second">{row.ownerName}</span>
      </div>
      <InterferenceMark value={row.interference} />
      <div className="what">
        <span>{row.makeModel}</span>
        <span className="second">{driveWords(row.drive)}</span>
      </div>
      <LifeStrip life={row.life} />
      <div className="when">
        <span className={late ? 'figure late' : 'figure'}>
          {row.status === 'STOP' ? 'now' : actBy(row.actBy, today)}
        </span>
        <span className="second">{row.note}</span>
      </div>
      <div className="money">
        <span className="figure">
          {row.exposurePerWeekMinor === undefined
            ? 'not known'
            : formatMoney(row.exposurePerWeekMinor, currency)}
        </span>
        <span className="second">
          {row.exposurePerWeekMinor === undefined ? 'exposure' : 'a week'}
        </span>
      </div>
      <div className="next">{next}</div>
    </div>
  );
}

function NextStep({ row, path }: { row: Row; path?: string }) {
  if (row.nextStep === 'NONE') return null;
  return path ? (
    <Link className="action" to={path} onClick={(e) => e.stopPropagation()}>
      {row.nextStepWords}
    </Link>
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
        No vehicles yet. {mayImport && <Link to="/setup/import">Import a list</Link>}
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
      Nothing to decide.{desk.nextActBy && ` Next act-by: ${formatDate(desk.nextActBy)}.`}
    </p>
  );
}

/** The day, with its year where it is not this one. */
function actBy(day: string | undefined, today: string): string {
  if (!day) return 'no date';
  return day.slice(0, 4) === today.slice(0, 4) ? formatDay(day) : formatDate(day);
}

function driveWords(drive: Row['drive']): string {
  return drive === undefined
    ? 'engine not on file'
    : { BELT: 'belt', BELT_IN_OIL: 'belt in oil', CHAIN: 'chain' }[drive];
}

const jobPath = (row: Row) =>
  row.jobId ? `/jobs/${row.jobId}` : `/vehicles/${row.vehicleId}?job=new`;

/** Where the next step is done; undefined where it is a call, which needs the number in the dossier. */
function nextStepPath(row: Row, desk: boolean, bench: boolean): string | undefined {
  if (row.nextStep === 'PROMISE' && desk) return jobPath(row);
  if ((row.nextStep === 'START' || row.nextStep === 'SIGN') && bench && row.jobId)
    return `/jobs/${row.jobId}/card`;
  return undefined;
}
