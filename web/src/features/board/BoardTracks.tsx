import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useSensor,
  useSensors,
  type DragMoveEvent,
  type KeyboardCoordinateGetter,
} from '@dnd-kit/core';
import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Problem, type Schemas } from '../../api/client';
import {
  DAY,
  hangsAt,
  LABEL,
  labels,
  nights,
  pieces,
  sideNames,
  SLOT,
  slotAt,
  SLOTS_PER_DAY,
  xOf,
} from '../../drawing/boardTracks';
import { InterferenceMark, StatusSwatch } from '../../drawing/marks';
import { formatDay, formatHours, formatTime, formatWeekday } from '../../shared/format';
import {
  askQuery,
  usePlace,
  type Block,
  type Board,
  type Spot,
  type Waiting,
} from './boardQueries';

type Change = Schemas['PlanChangeView'];

const WORK = {
  PLANNED: 'planned',
  PROMISED: 'promise',
  LATE: 'not begun',
  UNDER_WAY: 'under way',
  DONE: 'done',
} as const;

const SHELF_ROWS = 3;

/** Where a job is being carried: over which track, and to which half-hour. */
interface Carried {
  jobId: number;
  track: string;
  slot: number;
}

interface Props {
  board: Board;
  fleet: string;
  chosen?: number;
  proposed: Change[];
  stale: boolean;
  mayMove: boolean;
  onSelect: (jobId?: number) => void;
}

const shiftOf: Record<string, [number, number]> = {
  ArrowRight: [SLOT, 0],
  ArrowLeft: [-SLOT, 0],
  PageDown: [DAY, 0],
  PageUp: [-DAY, 0],
  ArrowDown: [0, 44],
  ArrowUp: [0, -44],
};

/** Arrows move a job that was picked up by a half-hour or a track, page keys by a day. */
const byKeys: KeyboardCoordinateGetter = (event, { currentCoordinates }) => {
  const shift = shiftOf[event.code];
  if (!shift) return undefined;
  event.preventDefault();
  return { x: currentCoordinates.x + shift[0], y: currentCoordinates.y + shift[1] };
};

/** Ruler, shelf and tracks; jobs are carried from one place to another. */
export function BoardTracks(props: Props) {
  const { board, chosen, proposed, mayMove, onSelect } = props;
  const root = useRef<HTMLDivElement>(null);
  const [carried, setCarried] = useState<Carried>();
  const [refused, setRefused] = useState<{ at: Carried; words: string[] }>();
  const place = usePlace();
  const spot = carried && spotOf(board, carried);
  const { data: asked } = useQuery(askQuery(carried?.jobId ?? 0, spot));
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: byKeys,
      keyboardCodes: { start: ['Space'], cancel: ['Escape'], end: ['Space', 'Enter'] },
    }),
  );

  const where = (event: DragMoveEvent): Carried | undefined => {
    const rect = event.active.rect.current.translated;
    const box = root.current?.getBoundingClientRect();
    if (!rect || !box) return undefined;
    const jobId = Number(String(event.active.id).split('-')[1]);
    // a mouse points; the keys move the job itself
    const pointer = event.activatorEvent instanceof PointerEvent ? event.activatorEvent : undefined;
    const y = pointer ? pointer.clientY + event.delta.y : rect.top + 20;
    const tracks = [...root.current!.querySelectorAll<HTMLElement>('[data-track]')];
    const over = tracks.find((t) => {
      const r = t.getBoundingClientRect();
      return r.top <= y && y < r.bottom;
    });
    if (!over) return undefined;
    return { jobId, track: over.dataset.track!, slot: slotAt(rect.left - box.left - LABEL) };
  };

  const drop = (at: Carried | undefined) => {
    setCarried(undefined);
    if (!at) return;
    const to = spotOf(board, at);
    const block = board.blocks.find((b) => b.jobId === at.jobId);
    const job = block ?? board.waiting.find((w) => w.jobId === at.jobId);
    if (!to || !job) return;
    if (asked && asked.broken.length > 0) {
      setRefused({ at, words: asked.broken.map((b) => b.words) });
      return;
    }
    place.mutate(
      {
        jobId: at.jobId,
        version: job.version,
        promised: block?.work === 'PROMISED',
        technicianId: to.technicianId,
        bayId: to.bayId,
        day: to.day,
        time: to.time,
      },
      {
        onSuccess: () => onSelect(at.jobId),
        onError: (e) =>
          setRefused({
            at,
            words:
              e instanceof Problem && e.errors.length > 0
                ? e.errors.map((x) => x.detail)
                : [e.message],
          }),
      },
    );
  };

  /** What a track needs onto which jobs can be put: its own bars and proposals, and what is carried over it. */
  const droppable = (
    kind: 'technician' | 'bay',
    id: number,
    ofBlock: (b: Block) => number,
    ofPlace: (p: Schemas['PlaceView']) => number,
  ) => ({
    id: `${kind}-${id}`,
    kind,
    bars: barsOf(props, (b) => ofBlock(b) === id),
    ghosts: proposed.filter((c) => c.to && ofPlace(c.to) === id).flatMap((c) => ghostOf(board, c)),
    props,
    carried,
    asked,
    refused,
    onForget: () => setRefused(undefined),
  });

  return (
    <DndContext
      sensors={mayMove ? sensors : []}
      autoScroll={false}
      onDragStart={() => setRefused(undefined)}
      onDragMove={(e) => {
        const next = where(e);
        setCarried((now) =>
          now?.track === next?.track && now?.slot === next?.slot && now?.jobId === next?.jobId
            ? now
            : next,
        );
      }}
      onDragEnd={() => drop(carried)}
      onDragCancel={() => setCarried(undefined)}
      accessibility={{
        announcements: {
          onDragStart: () =>
            'Picked up. Arrows move it by a half-hour or a track, page keys by a day.',
          onDragMove: () => undefined,
          onDragOver: () => undefined,
          onDragEnd: () => 'Put down.',
          onDragCancel: () => 'Left where it was.',
        },
        screenReaderInstructions: {
          draggable: 'Press Space to pick this job up, arrows to move it, Space to put it down.',
        },
      }}
    >
      <div className={props.stale ? 'tracks stale' : 'tracks'} ref={root}>
        <Ruler board={board} />
        <Shelf {...props} />
        <TrackGroup title="Technicians" board={board} sums>
          {board.technicians.map((t) => (
            <Track
              key={t.id}
              {...droppable(
                'technician',
                t.id,
                (b) => b.technicianId,
                (p) => p.technicianId,
              )}
              name={t.name}
              note={t.skills}
              closed={t.away}
            />
          ))}
        </TrackGroup>
        <TrackGroup title="Bays" board={board}>
          {board.bays.map((bay) => (
            <Track
              key={bay.id}
              {...droppable(
                'bay',
                bay.id,
                (b) => b.bayId,
                (p) => p.bayId,
              )}
              name={bay.name}
              note={bay.note}
              closed={bay.closed}
            />
          ))}
        </TrackGroup>
        <TrackGroup title="Tool sets" board={board}>
          {board.toolSets.map((s) => (
            <Track
              key={`${s.code}-${s.number}`}
              kind="set"
              name={s.name}
              note={
                s.copies > 1 ? `${s.number} of ${s.copies}` : s.copies === 1 ? '1' : 'none usable'
              }
              closed={s.out}
              bars={barsOf(props, (b) => b.toolSet === s.code && b.copy === s.number)}
              ghosts={[]}
              props={props}
            />
          ))}
        </TrackGroup>
        <EarliestLine board={board} jobId={carried?.jobId ?? chosen} />
        <Ties key={chosen} chosen={chosen} board={board} root={root} />
      </div>
      <div className="twin" role="status">
        {carried && asked && (
          <p>
            {spot && `${formatWeekday(spot.day)}, ${spot.time}: `}
            {asked.broken.length > 0
              ? asked.broken.map((b) => b.words).join(' ')
              : `free with ${asked.place?.technician} in ${asked.place?.bay}`}
          </p>
        )}
      </div>
    </DndContext>
  );
}

function barsOf({ board, fleet }: Props, which: (b: Block) => boolean): Block[] {
  return board.blocks
    .filter((b) => which(b) && (fleet === '' || b.fleet === fleet))
    .sort((a, b) => a.start - b.start);
}

/** What the server is asked about a place: the day and time of a half-hour, and the track's technician or bay. */
function spotOf(board: Board, at: Carried): Spot | undefined {
  const day = board.days[Math.floor(at.slot / SLOTS_PER_DAY)];
  if (!day) return undefined;
  const [kind, id] = at.track.split('-');
  return {
    ...(kind === 'technician' ? { technicianId: Number(id) } : { bayId: Number(id) }),
    day: day.date,
    time: board.times[at.slot % SLOTS_PER_DAY] ?? '',
  };
}

/** The half-hour that begins at a moment or next after it; undefined outside the days shown. */
function slotOf(board: Board, iso: string): number | undefined {
  const day = board.days.findIndex((d) => d.date === iso.slice(0, 10));
  if (day < 0) return undefined;
  const at = board.times.findIndex((t) => t.slice(0, 5) >= iso.slice(11, 16));
  return day * SLOTS_PER_DAY + (at < 0 ? SLOTS_PER_DAY : at);
}

/** Before this line the job cannot start: its parts, its owner's answer or its vehicle are not there yet. */
function EarliestLine({ board, jobId }: { board: Board; jobId?: number }) {
  const block = board.blocks.find((b) => b.jobId === jobId);
  const waiting = board.waiting.find((w) => w.jobId === jobId);
  const earliest = waiting?.earliestWhy ? waiting.earliest : block?.earliest;
  const slot = earliest == null ? undefined : slotOf(board, earliest);
  return slot === undefined ? null : (
    <span className="earliest-line" style={{ left: LABEL + xOf(slot) }}>
      <i>not before</i>
    </span>
  );
}

/** A proposed place as a bar, where it begins within the days shown. */
function ghostOf(board: Board, change: Change) {
  if (!change.to) return [];
  const start = slotOf(board, change.to.start);
  const end = slotOf(board, change.to.end);
  return start === undefined
    ? []
    : [
        {
          jobId: change.jobId,
          registration: change.registration,
          start,
          end: end ?? board.days.length * SLOTS_PER_DAY,
        },
      ];
}

function Ruler({ board }: { board: Board }) {
  return (
    <div className="ruler">
      <div className="track-label">
        <b>Waiting {board.waiting.length}</b>
        <span>act-by day passed</span>
      </div>
      {board.days.map((d) => (
        <div key={d.date} className={dayClass(d)}>
          <b>{d.date === board.today ? `${formatWeekday(d.date)}` : formatWeekday(d.date)}</b>
          <span className={d.full.length > 0 && !d.closed ? 'full' : ''}>
            {d.closed
              ? (d.closedWhy ?? 'closed')
              : d.full.length > 0
                ? fullWords(d.full)
                : d.ferryCancelled
                  ? 'no ferry'
                  : d.ferry
                    ? 'ferry'
                    : ''}
            {d.ferry && !d.ferryCancelled && <Ferry />}
          </span>
        </div>
      ))}
      {board.now >= 0 && board.now < board.days.length * SLOTS_PER_DAY && (
        <span className="now-mark" style={{ left: LABEL + xOf(board.now) }} aria-hidden="true" />
      )}
    </div>
  );
}

/** Such as "Post 2 of 2", and how many more fleets are full that day. */
const fullWords = (full: Schemas['FullFleet'][]) =>
  full
    .slice(0, 1)
    .map((f) => `${f.fleet.split(' ')[0]} ${f.off} of ${f.cap}`)
    .join('') + (full.length > 1 ? ` +${full.length - 1}` : '');

const dayClass = (d: Board['days'][number]) => (d.closed ? 'board-day closed' : 'board-day');

/** A small boat: parts come that day. */
function Ferry() {
  return (
    <svg className="ferry" width="16" height="10" viewBox="0 0 16 10" role="img" aria-label="ferry">
      <path d="M1 6h14l-2 4H3z M4 5V2h5v3z M10.5 5V3h2v2z" />
    </svg>
  );
}

function TrackGroup({
  title,
  board,
  sums = false,
  children,
}: {
  title: string;
  board: Board;
  sums?: boolean;
  children: React.ReactNode;
}) {
  return (
    <section className="track-group" aria-label={title}>
      <div className="tracks-head">
        <h2 className="track-label">{title}</h2>
        {sums &&
          board.days.map((d) => (
            <span key={d.date} className="day-sum">
              {!d.closed && `${formatHours(d.freeMinutes)} h free`}
            </span>
          ))}
      </div>
      {children}
    </section>
  );
}

interface TrackProps {
  id?: string;
  kind: 'technician' | 'bay' | 'set';
  name: string;
  note: string;
  closed: Schemas['Span'][];
  bars: Block[];
  ghosts: { jobId: number; registration: string; start: number; end: number }[];
  props: Props;
  carried?: Carried;
  asked?: Schemas['AskedView'];
  refused?: { at: Carried; words: string[] };
  onForget?: () => void;
}

function Track(t: TrackProps) {
  const { board, chosen, mayMove, onSelect } = t.props;
  const words: string[] =
    t.kind === 'technician'
      ? labels(t.bars.map((b) => ({ start: b.start, letters: noteOf(b).length })))
      : t.kind === 'set'
        ? sideNames(t.bars, board.days.length)
        : t.bars.map(() => 'name');
  const here = t.carried && t.carried.track === t.id ? t.carried : undefined;
  const said = t.refused?.at.track === t.id ? t.refused : undefined;
  const broken = here && t.asked && t.asked.broken.length > 0;
  const job = here && [...board.blocks, ...board.waiting].find((j) => j.jobId === here.jobId);
  return (
    <div className={`board-track ${t.kind}`} data-track={t.id}>
      <div className="track-label">
        <b title={t.name}>{t.name}</b>
        <span title={t.note}>{t.note}</span>
      </div>
      <div className="lane">
        {board.days.map((d) => (
          <span key={d.date} className={dayClass(d)} />
        ))}
        {t.closed
          .filter((c) => !onlyClosedDays(board, c))
          .map((c) => (
            <span
              key={c.from}
              className="away"
              style={{ left: xOf(c.from), width: xOf(c.to - c.from) }}
            >
              {xOf(c.to - c.from) >= DAY && c.why}
            </span>
          ))}
        {t.bars.map((b, i) => (
          <BarOnTrack
            key={b.jobId}
            block={b}
            kind={t.kind}
            label={words[i] ?? 'name'}
            days={board.days.length}
            chosen={chosen === b.jobId}
            leaving={t.props.proposed.some((c) => c.jobId === b.jobId)}
            fixed={!mayMove || t.kind === 'set' || b.work === 'DONE' || b.work === 'UNDER_WAY'}
            onSelect={() => onSelect(b.jobId)}
          />
        ))}
        {t.ghosts.map((g) => (
          <span
            key={g.jobId}
            className="ghost proposed"
            style={{ left: xOf(g.start), width: Math.max(SLOT, xOf(g.end - g.start)) }}
            title={`${g.registration}, proposed`}
          >
            <i>{g.registration}</i>
          </span>
        ))}
        {here && job && (
          <span
            className={broken ? 'ghost broken' : 'ghost'}
            style={{ left: xOf(here.slot), width: Math.max(SLOT, (job.minutes / 30) * SLOT) }}
          >
            {t.asked && (
              <em className={here.slot > 112 ? 'say left' : 'say'}>
                {broken
                  ? t.asked.broken[0]?.words
                  : `${t.asked.place ? formatTime(t.asked.place.start) : ''} ${t.asked.place?.technician}, ${t.asked.place?.bay}`}
              </em>
            )}
          </span>
        )}
        {said && (
          <div
            className={said.at.slot > 112 ? 'refusal left' : 'refusal'}
            role="alert"
            style={{ left: xOf(said.at.slot) }}
          >
            {said.words.map((w) => (
              <p key={w}>{w}</p>
            ))}
            <button className="link" onClick={t.onForget}>
              Leave it where it was
            </button>
          </div>
        )}
      </div>
    </div>
  );
}

/** True where a span covers closed days only: those are drawn closed already. */
const onlyClosedDays = (board: Board, span: Schemas['Span']) =>
  board.days
    .slice(Math.max(0, span.from / SLOTS_PER_DAY), Math.max(0, span.to / SLOTS_PER_DAY))
    .every((d) => d.closed);

const noteOf = (b: Block) =>
  `${b.work === 'PLANNED' ? '' : `${WORK[b.work]} `}${formatHours(b.minutes)} h`;

const barWords = (b: Block) =>
  `${b.registration}, ${b.makeModel}, ${WORK[b.work]}, ${formatHours(b.minutes)} h from ${formatWeekday(b.startsAt)} ${formatTime(b.startsAt)} to ${formatWeekday(b.endsAt)} ${formatTime(b.endsAt)}${b.clash.length > 0 ? `. ${b.clash.join(' ')}` : ''}`;

function BarOnTrack({
  block: b,
  kind,
  label,
  days,
  chosen,
  leaving,
  fixed,
  onSelect,
}: {
  block: Block;
  kind: TrackProps['kind'];
  label: string;
  days: number;
  chosen: boolean;
  /** A plan proposes another place for it. */
  leaving: boolean;
  fixed: boolean;
  onSelect: () => void;
}) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({
    id: `${kind}-${b.jobId}-${b.toolSet}`,
    disabled: fixed,
  });
  const drag = fixed ? {} : { ...attributes, ...listeners };
  const left = xOf(Math.max(0, b.start));
  const parts = pieces(b, days);
  const work = `${b.work.toLowerCase()}${b.clash.length > 0 ? ' clash' : ''}`;
  const worked = b.workedTo == null ? 0 : xOf(Math.max(0, b.workedTo - Math.max(0, b.start)));
  return (
    <button
      ref={setNodeRef}
      className={`job-bar ${work} ${label}${chosen ? ' chosen' : ''}${leaving ? ' leaving' : ''}${isDragging ? ' carried' : ''}`}
      style={{
        left,
        width: Math.max(
          SLOT,
          parts.reduce((w, p) => w + p.width, 0),
        ),
        transform: transform ? `translate(${transform.x}px, ${transform.y}px)` : undefined,
      }}
      data-job={b.jobId}
      {...drag}
      aria-label={barWords(b)}
      aria-pressed={chosen}
      title={barWords(b)}
      onClick={onSelect}
    >
      <span className="name">{b.registration}</span>
      <span className="body">
        {parts.map((p) => (
          <i
            key={p.x}
            className={p.thin ? 'piece thin' : 'piece'}
            style={{ left: p.x - left, width: p.width }}
          />
        ))}
        {worked > 0 && <i className="worked" style={{ width: worked }} />}
        {nights(b, days).map((x) => (
          <i key={x} className="night" style={{ left: x - left }} />
        ))}
      </span>
      {kind === 'technician' && label !== 'name' && (
        <span className="note">
          {label === 'both' && <InterferenceMark value={b.interference} size={9} />}
          {noteOf(b)}
        </span>
      )}
    </button>
  );
}

/** Jobs without a place hang under the day they should be done by. */
function Shelf(props: Props) {
  const { board, fleet } = props;
  const [opened, setAll] = useState(false);
  // whoever looks at one fleet wants to see all of it
  const all = opened || fleet !== '';
  const days = board.days.map((d) => d.date);
  const shown = board.waiting.filter((w) => fleet === '' || w.fleet === fleet);
  const before = shown.filter((w) => hangsAt(w.actBy ?? undefined, days) === 'before');
  const later = shown.filter((w) => hangsAt(w.actBy ?? undefined, days) === 'later');
  const columns = days.map((_, i) =>
    shown.filter((w) => hangsAt(w.actBy ?? undefined, days) === i),
  );
  const more = (list: Waiting[]) => (all ? list : list.slice(0, SHELF_ROWS));
  const hidden = [before, ...columns].reduce((n, c) => n + c.length - more(c).length, 0);
  return (
    <section className="shelf" aria-label="Jobs that wait, under their act-by day">
      <div className="track-label">
        {more(before).map((w) => (
          <Hanging key={w.jobId} waiting={w} props={props} />
        ))}
      </div>
      {board.days.map((d, i) => (
        <div key={d.date} className={dayClass(d)}>
          {more(columns[i] ?? []).map((w) => (
            <Hanging key={w.jobId} waiting={w} props={props} />
          ))}
          {i === days.length - 1 && later.length > 0 && (
            <button className="link" onClick={() => setAll(!all)}>
              {later.length} hang later
            </button>
          )}
        </div>
      ))}
      {all && later.length > 0 && (
        <div className="later-row">
          <span className="hint">Later:</span>
          {later.map((w) => (
            <Hanging key={w.jobId} waiting={w} props={props} />
          ))}
        </div>
      )}
      {(hidden > 0 || opened) && (
        <button className="link shelf-more" onClick={() => setAll(!all)}>
          {all ? 'fewer' : `${hidden} more wait; show all`}
        </button>
      )}
      {shown.length === 0 && <p className="shelf-empty hint">No job waits for a place.</p>}
    </section>
  );
}

function Hanging({ waiting: w, props }: { waiting: Waiting; props: Props }) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({
    id: `wait-${w.jobId}`,
    disabled: !props.mayMove,
  });
  const drag = props.mayMove ? { ...attributes, ...listeners } : {};
  const words = w.missed
    ? 'missed'
    : w.status === 'OVERDUE' && w.daysOver
      ? `${w.daysOver} days over`
      : w.actBy
        ? `by ${formatDay(w.actBy)}`
        : 'no date';
  return (
    <button
      ref={setNodeRef}
      className={`hanging${props.chosen === w.jobId ? ' chosen' : ''}${isDragging ? ' carried' : ''}`}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
      data-job={w.jobId}
      {...drag}
      aria-pressed={props.chosen === w.jobId}
      aria-label={`${w.registration}, waits, ${words}, ${formatHours(w.minutes)} h${w.earliestWhy ? `, not before ${formatWeekday(w.earliest)}: ${w.earliestWhy}` : ''}`}
      onClick={() => props.onSelect(w.jobId)}
    >
      <StatusSwatch status={w.status} />
      <span className="name">{w.registration}</span>
      <span className="note">
        <InterferenceMark value={w.interference} size={9} /> {formatHours(w.minutes)} h {words}
      </span>
    </button>
  );
}

/** Lines from the chosen job's bar to its bay and its tool set. */
function Ties({
  chosen,
  board,
  root,
}: {
  chosen?: number;
  board: Board;
  root: React.RefObject<HTMLDivElement | null>;
}) {
  const [tie, setTie] = useState<{ x: number; top: number; height: number }>();
  const block = board.blocks.find((b) => b.jobId === chosen);
  const measure = (node: HTMLSpanElement | null) => {
    const box = root.current?.getBoundingClientRect();
    if (!node || !box || !block) return;
    const bars = [...root.current!.querySelectorAll(`[data-job="${block.jobId}"] .body`)].map((b) =>
      b.getBoundingClientRect(),
    );
    if (bars.length < 2) return;
    const top = Math.min(...bars.map((r) => r.bottom)) - box.top;
    const bottom = Math.max(...bars.map((r) => r.bottom)) - box.top;
    const x = Math.max(...bars.map((r) => r.right)) - box.left;
    if (tie?.x !== x || tie.top !== top || tie.height !== bottom - top)
      setTie({ x, top, height: bottom - top });
  };
  if (!block) return null;
  return (
    <span
      ref={measure}
      className="tie"
      style={tie ? { left: tie.x - 1, top: tie.top, height: tie.height } : undefined}
      aria-hidden="true"
    />
  );
}
