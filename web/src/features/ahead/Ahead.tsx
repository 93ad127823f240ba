import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { Button, Slider } from 'antd';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { CrowdPicture } from '../../drawing/CrowdPicture';
import { StatusSwatch } from '../../drawing/marks';
import {
  addDays,
  addMonths,
  daysBetween,
  formatDate,
  formatHours,
  formatMoney,
  formatWhole,
} from '../../shared/format';
import { useKeys } from '../../shared/keyboard';
import { useAddress } from '../../shared/address';
import { useMe } from '../../shared/me';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { DeskFilters } from '../desk/DeskFilters';
import { filterOf } from '../desk/deskQueries';
import { aheadQuery, crossQuery, type Box } from './aheadQueries';
import { DateField } from '../../shared/ui/DateField';

const DAYS_AHEAD = 730;
const BOX = ['ageFrom', 'ageTo', 'distanceFrom', 'distanceTo'] as const;

/** Every vehicle in one due window, moved to any day to come: what crosses by then, in hours and money. */
export default function Ahead() {
  const me = useMe();
  const { params, change, set } = useAddress();
  const { fleet, drive, family, interference } = filterOf(params);
  const date = params.get('date') ?? addDays(me.today, 90);
  const [sliding, setSliding] = useState<number>();
  const [lit, setLit] = useState<number>();
  const box = boxOf(params);
  const asked = { fleet, drive, family, interference, date };
  const { data: view, error, refetch } = useQuery(aheadQuery(asked));
  const list = useInfiniteQuery(crossQuery(asked, box));

  const move = (to: string) => set('date', to < me.today ? me.today : to);
  const setBox = (next?: Box) =>
    change((p) => BOX.forEach((n) => (next ? p.set(n, next[n].toFixed(3)) : p.delete(n))));
  useKeys({
    ArrowRight: () => move(addDays(date, 7)),
    ArrowLeft: () => move(addDays(date, -7)),
    PageUp: () => move(addMonths(date, 1)),
    PageDown: () => move(addMonths(date, -1)),
    n: () => view?.next && move(view.next.date),
    Escape: () => setBox(undefined),
  });
  // while the slider is dragged the picture follows once it rests for a moment
  useEffect(() => {
    if (sliding === undefined) return;
    const timer = setTimeout(() => {
      move(addDays(me.today, sliding));
      setSliding(undefined);
    }, 60);
    return () => clearTimeout(timer);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [sliding]);
  return (
    <div className="ahead">
      <section className="ahead-picture" aria-label="Every vehicle in one due window">
        <div className="list-head">
          <h1>Ahead</h1>
          <span className="sentence">
            {view
              ? `${formatWhole(view.atDistance + view.atAge)} of ${formatWhole(view.vehicles)} cross a limit by ${formatDate(view.date)}`
              : 'Reading every vehicle…'}
          </span>
        </div>
        <DeskFilters filter={{ fleet, drive, family, interference }} set={set} ordered={false} />
        <div className="ahead-day">
          <label htmlFor="ahead-date">On</label>
          <DateField id="ahead-date" min={me.today} value={date} onChange={(d) => d && move(d)} />
          <Button onClick={() => move(addDays(date, -7))} disabled={date <= me.today}>
            A week back
          </Button>
          <Button onClick={() => move(addDays(date, 7))}>A week on</Button>
          <Button disabled={!view?.next} onClick={() => view?.next && move(view.next.date)}>
            Next to cross{view?.next && `: ${formatDate(view.next.date)}`}
          </Button>
          <Slider
            ariaLabelForHandle="Days from today"
            min={0}
            max={DAYS_AHEAD}
            value={sliding ?? Math.min(DAYS_AHEAD, daysBetween(me.today, date))}
            onChange={setSliding}
            tooltip={{ formatter: (d) => formatDate(addDays(me.today, d ?? 0)) }}
          />
        </div>
        <FieldNote error={error} at="/date" />
        {error && <ProblemNote error={error} retry={() => refetch()} />}
        {view && view.vehicles === 0 ? (
          <p className="empty">
            No vehicle has a limit and a known start here, so there is nothing to draw.
          </p>
        ) : (
          view && <CrowdPicture view={view} box={box} onBox={setBox} lit={lit} />
        )}
        {view && view.vehicles > 0 && (
          <p className="hint crowd-key">
            <span className="key-cross">crosses by then</span>
            <span className="key-past">past a limit today</span>
            {view.density
              ? 'So many are drawn as density; those that cross keep marks.'
              : 'Tails begin where vehicles stand today.'}{' '}
            On an edge: no such limit. Drag a box to list it.
          </p>
        )}
        <div className="twin" role="status">
          {view?.words.map((w) => (
            <p key={w}>{w}</p>
          ))}
        </div>
      </section>
      <section className="ahead-list" aria-label="Vehicles">
        <ListHead
          head={list.data?.pages[0]}
          box={box}
          date={date}
          onAll={() => setBox(undefined)}
          csv={csvPath(params, date)}
        />
        <ProblemNote error={list.error} retry={() => list.refetch()} />
        <div className="cross-rows">
          {list.data?.pages.flatMap((page) =>
            page.rows.map((r) => (
              <CrossRow
                key={r.vehicleId}
                r={r}
                currency={me.currency}
                onLit={(on) => setLit(on ? r.vehicleId : undefined)}
              />
            )),
          )}
          {list.hasNextPage && (
            <Button loading={list.isFetchingNextPage} onClick={() => list.fetchNextPage()}>
              Show more
            </Button>
          )}
        </div>
      </section>
    </div>
  );
}

function ListHead({
  head,
  box,
  date,
  onAll,
  csv,
}: {
  head?: Schemas['CrossList'];
  box?: Box;
  date: string;
  onAll: () => void;
  csv: string;
}) {
  const me = useMe();
  return (
    <header className="cross-head">
      <h2>
        {head
          ? `${formatWhole(head.total)} ${box ? 'in the box' : `cross by ${formatDate(date)}`}`
          : 'Reading the list…'}
      </h2>
      {head && (
        <p>
          <span className="figure">{formatWhole(head.minutes / 60)} h</span> of work,{' '}
          <span className="figure">{formatMoney(head.moneyMinor, me.currency)}</span>
        </p>
      )}
      <p>
        {box && (
          <button className="link beside" onClick={onAll}>
            Back to those that cross
          </button>
        )}
        {(me.desk || me.readsOnly) && (
          <a className="link-like" href={csv}>
            This list as CSV
          </a>
        )}
      </p>
    </header>
  );
}

function CrossRow({
  r,
  currency,
  onLit,
}: {
  r: Schemas['CrossRow'];
  currency: string;
  onLit: (on: boolean) => void;
}) {
  return (
    <div
      className="cross-row"
      onMouseEnter={() => onLit(true)}
      onMouseLeave={() => onLit(false)}
      onFocus={() => onLit(true)}
      onBlur={() => onLit(false)}
    >
      <div>
        <Link className="registration" to={`/vehicles/${r.vehicleId}`}>
          {r.registration}
        </Link>
        <span className="second">{r.ownerName}</span>
      </div>
      <div>
        <span>
          <StatusSwatch status={r.status} /> {r.statusWords}
        </span>
        <span className="second">{r.makeModel}</span>
      </div>
      <div>
        <span className="figure">{r.crosses ? formatDate(r.crosses) : 'never'}</span>
        <span className="second">by {r.wall === 'AGE' ? 'age' : 'distance'}</span>
      </div>
      <div className="num">
        <span className="figure">{formatHours(r.minutes)} h</span>
        <span className="second">{formatMoney(r.moneyMinor, currency)}</span>
      </div>
    </div>
  );
}

function boxOf(params: URLSearchParams): Box | undefined {
  if (!BOX.every((n) => params.has(n))) return undefined;
  const [ageFrom, ageTo, distanceFrom, distanceTo] = BOX.map((n) => Number(params.get(n)));
  return { ageFrom: ageFrom!, ageTo: ageTo!, distanceFrom: distanceFrom!, distanceTo: distanceTo! };
}

function csvPath(params: URLSearchParams, date: string): string {
  const query = new URLSearchParams(params);
  query.set('date', date);
  return `/api/ahead/vehicles.csv?${query}`;
}
