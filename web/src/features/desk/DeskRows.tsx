import { useQueries } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { LifeStrip } from '../../drawing/LifeStrip';
import { InterferenceMark, StatusSwatch } from '../../drawing/marks';
import { formatDate, formatDay, formatMoney, formatNumber } from '../../shared/format';
import { useMe } from '../../shared/me';
import { deskQuery, PAGE, type DeskParams, type Status } from './deskQueries';

export type Row = Schemas['DeskRow'];

const ROW = 44;
const HEAD = 25;
/** Below this width of the list a row has two lines, px. */
const NARROW = 700;
const NARROW_ROW = 84;
/** Rows on paper at most; a longer list is better taken as CSV. */
export const PRINTED = 400;

/** Where the list's rows and headings stand: a heading before the first row of each section. */
type Place = { head: Schemas['Section'] } | { row: number };

function placesOf(sections: Schemas['Section'][]): Place[] {
  const places: Place[] = [];
  let row = 0;
  for (const section of sections) {
    places.push({ head: section });
    for (let i = 0; i < section.listed; i++) places.push({ row: row++ });
  }
  return places;
}

/** The list; only what is in sight is asked for and drawn, so that it holds 20,000 vehicles. */
export function DeskRows({
  filter,
  first,
  selected,
  selectedId,
  onSelect,
  onRows,
  next,
}: {
  filter: DeskParams;
  first: Schemas['DeskView'];
  /** Index of the row from which the list is walked. */
  selected: number;
  /** The vehicle whose dossier is open; it may have left the list. */
  selectedId?: number;
  onSelect: (index: number, row: Row) => void;
  /** Told which rows are at hand, by their index. */
  onRows: (rows: Map<number, Row>) => void;
  next: (row: Row) => React.ReactNode;
}) {
  const me = useMe();
  const scroller = useRef<HTMLDivElement>(null);
  const places = useMemo(() => placesOf(first.sections), [first.sections]);
  const [printing, setPrinting] = useState(false);
  const [narrow, setNarrow] = useState(false);
  // eslint-disable-next-line react-hooks/incompatible-library -- nothing is compiled here, so nothing goes stale
  const virtual = useVirtualizer({
    count: places.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => ('head' in places[i]! ? HEAD : narrow ? NARROW_ROW : ROW),
    overscan: 8,
    initialRect: { width: 776, height: 660 },
  });
  useEffect(() => virtual.measure(), [virtual, places, narrow]);
  useEffect(() => {
    const list = scroller.current;
    if (!list) return;
    const watch = new ResizeObserver(() => setNarrow(list.clientWidth < NARROW));
    watch.observe(list);
    return () => watch.disconnect();
  }, [printing]);
  useEffect(() => {
    const before = () => flushSync(() => setPrinting(true));
    const after = () => setPrinting(false);
    window.addEventListener('beforeprint', before);
    window.addEventListener('afterprint', after);
    return () => {
      window.removeEventListener('beforeprint', before);
      window.removeEventListener('afterprint', after);
    };
  }, []);
  const items = virtual.getVirtualItems();
  const wanted = useMemo(() => {
    const pages = new Set<number>();
    const seen = printing ? places.slice(0, PRINTED) : items.map((item) => places[item.index]);
    for (const place of seen) {
      if (place && 'row' in place) pages.add(Math.floor(place.row / PAGE));
    }
    // the first page is at hand
    pages.delete(0);
    return [...pages].sort((a, b) => a - b);
  }, [items, places, printing]);
  const answers = useQueries({ queries: wanted.map((page) => deskQuery(filter, page)) });
  const rows = new Map<number, Row>();
  for (const page of [first, ...answers.map((a) => a.data)]) {
    page?.rows.forEach((r, i) => rows.set(page.offset + i, r));
  }
  useEffect(() => onRows(rows));
  const at = places.findIndex((p) => 'row' in p && p.row === selected);
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
    // only a new selection scrolls; rows that arrive later must not pull the list back
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [selected]);
  const draw = (place: Place) => {
    if ('head' in place) return <SectionHead section={place.head} />;
    const row = rows.get(place.row);
    return row ? (
      <DeskRow
        row={row}
        currency={me.currency}
        today={me.today}
        current={row.vehicleId === selectedId}
        onSelect={() => onSelect(place.row, row)}
        next={next(row)}
      />
    ) : (
      <div className="row waiting">…</div>
    );
  };
  if (printing) {
    return (
      <div className="printed">
        {places.slice(0, PRINTED).map((place, i) => (
          <div key={i}>{draw(place)}</div>
        ))}
        {places.length > PRINTED && (
          <p className="hint">The rest of this list is better taken as CSV.</p>
        )}
      </div>
    );
  }
  return (
    <>
      {!narrow && <RowHeads />}
      <div
        className={narrow ? 'rows narrow' : 'rows'}
        ref={scroller}
        tabIndex={0}
        role="region"
        aria-label="List, walk with the arrow keys"
      >
        <div className="rows-sheet" role="list" style={{ height: virtual.getTotalSize() }}>
          {items.map((item) => {
            const place = places[item.index];
            return (
              place && (
                <div
                  key={item.key}
                  className="placed"
                  role="listitem"
                  aria-posinset={item.index + 1}
                  aria-setsize={places.length}
                  style={{ transform: `translateY(${item.start}px)` }}
                >
                  {draw(place)}
                </div>
              )
            );
          })}
        </div>
      </div>
    </>
  );
}

/** What stands in which column. */
function RowHeads() {
  return (
    <div className="row-heads">
      <div className="who">Vehicle</div>
      <div />
      <div>Engine and status</div>
      <div>Share of its limits used</div>
      <div>Act by</div>
      <div className="money">Exposure</div>
      <div className="next">Next step</div>
    </div>
  );
}

function SectionHead({ section }: { section: Schemas['Section'] }) {
  return (
    <h2 className="group-head">
      {section.status && <StatusSwatch status={section.status} />} {section.words}{' '}
      <span className="count">{formatNumber(section.listed)}</span>
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
        <span
          className="second standing"
          title={`${row.statusWords}, ${driveWords(row.drive)}${row.state ? `, ${row.state}` : ''}`}
        >
          <StatusSwatch status={row.status} /> {row.statusWords}, {driveWords(row.drive)}
          {row.state && `, ${row.state}`}
        </span>
      </div>
      <LifeStrip life={row.life} />
      <div className="when">
        <span className={late ? 'figure late' : 'figure'}>
          {row.status === 'STOP' ? 'now' : actBy(row.actBy, today)}
        </span>
        <span
          className="second"
          title={row.whileHere ? 'Not due, but worth doing on a visit for other work' : undefined}
        >
          {row.recheck ?? row.waits ?? row.aside ?? row.note}
        </span>
      </div>
      <div className="money">
        <span className="figure">
          {row.exposurePerWeekMinor === undefined
            ? 'not known'
            : formatMoney(row.exposurePerWeekMinor, currency)}
        </span>
        <span className="second">
          {row.exposurePerWeekMinor === undefined ? 'exposure' : 'bills, a week'}
        </span>
      </div>
      <div className="next">{next}</div>
    </div>
  );
}

/** The day, with its year where it is not this one. */
function actBy(day: string | undefined, today: string): string {
  if (!day) return 'no date';
  return day.slice(0, 4) === today.slice(0, 4) ? formatDay(day) : formatDate(day);
}

export function driveWords(drive: Row['drive']): string {
  return drive === undefined
    ? 'engine not on file'
    : { BELT: 'belt', BELT_IN_OIL: 'belt in oil', CHAIN: 'chain' }[drive];
}

/** The chips that choose statuses, and the vehicles set aside. */
export function Groups({
  view,
  chosen,
  aside,
  whileHere,
  onChoose,
  onAside,
  onWhileHere,
}: {
  view: Schemas['DeskView'];
  chosen: Status[];
  aside: boolean;
  whileHere: boolean;
  onChoose: (s: Status[]) => void;
  onAside: (on: boolean) => void;
  onWhileHere: () => void;
}) {
  return (
    <div className="group-line" role="group" aria-label="Show only">
      {view.groups.map((g) => {
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
            {g.words} <span className="count">{formatNumber(g.count)}</span>
          </button>
        );
      })}
      <button
        className={aside ? 'chip on' : 'chip'}
        aria-pressed={aside}
        onClick={() => onAside(!aside)}
      >
        Set aside <span className="count">{view.aside}</span>
      </button>
      {(view.whileHere > 0 || whileHere) && (
        <button
          className={whileHere ? 'chip on' : 'chip'}
          aria-pressed={whileHere}
          title="Not due: a renewal that pays while the vehicle is in for other work"
          onClick={onWhileHere}
        >
          Worth doing on a visit <span className="count">{view.whileHere}</span>
        </button>
      )}
    </div>
  );
}
