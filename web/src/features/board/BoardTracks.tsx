import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragMoveEvent,
  type KeyboardCoordinateGetter,
} from '@dnd-kit/core';
import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Problem, type Schemas } from '../../api/client';
import { DAY, LABEL, slotAt, slotWidth, xOf } from '../../drawing/boardTracks';
import { formatWeekday } from '../../shared/format';
import { barsOf, ghostOf, perDay, slotOf, type Carried, type Props } from './boardParts';
import { askQuery, usePlace, type Block, type Board, type Spot } from './boardQueries';
import { Ruler, TrackGroup } from './Ruler';
import { Shelf } from './Shelf';
import { Track } from './Track';

const shiftOf: Record<string, [number, number]> = {
  PageDown: [DAY, 0],
  PageUp: [-DAY, 0],
  ArrowDown: [0, 44],
  ArrowUp: [0, -44],
};

/** Arrows move a job that was picked up by a half-hour or a track, page keys by a day. */
const byKeys =
  (slot: number): KeyboardCoordinateGetter =>
  (event, { currentCoordinates }) => {
    const halfHour = { ArrowRight: slot, ArrowLeft: -slot }[event.code];
    const shift = halfHour === undefined ? shiftOf[event.code] : [halfHour, 0];
    if (!shift) return undefined;
    event.preventDefault();
    return { x: currentCoordinates.x + shift[0]!, y: currentCoordinates.y + shift[1]! };
  };

/** Ruler, shelf and tracks; jobs are carried from one place to another. */
export function BoardTracks(props: Props) {
  const { board, chosen, proposed, mayMove, onSelect, onCarry } = props;
  const root = useRef<HTMLDivElement>(null);
  const [carried, setCarried] = useState<Carried>();
  const [refused, setRefused] = useState<{ at: Carried; words: string[] }>();
  const place = usePlace();
  const spot = carried && spotOf(board, carried);
  const { data: asked } = useQuery(askQuery(carried?.jobId ?? 0, spot));
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: byKeys(slotWidth(perDay(board))),
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
    return {
      jobId,
      track: over.dataset.track!,
      slot: slotAt(rect.left - box.left - LABEL, perDay(board)),
    };
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
      onDragStart={() => {
        setRefused(undefined);
        onCarry(true);
      }}
      onDragMove={(e) => {
        const next = where(e);
        setCarried((now) =>
          now?.track === next?.track && now?.slot === next?.slot && now?.jobId === next?.jobId
            ? now
            : next,
        );
      }}
      onDragEnd={() => {
        onCarry(false);
        drop(carried);
      }}
      onDragCancel={() => {
        onCarry(false);
        setCarried(undefined);
      }}
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
      <div className="board-scroll">
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

/** What the server is asked about a place: the day and time of a half-hour, and the track's technician or bay. */
function spotOf(board: Board, at: Carried): Spot | undefined {
  const day = board.days[Math.floor(at.slot / perDay(board))];
  if (!day) return undefined;
  const [kind, id] = at.track.split('-');
  return {
    ...(kind === 'technician' ? { technicianId: Number(id) } : { bayId: Number(id) }),
    day: day.date,
    time: board.times[at.slot % perDay(board)] ?? '',
  };
}

/** Before this line the job cannot start: its parts, its owner's answer or its vehicle are not there yet. */
function EarliestLine({ board, jobId }: { board: Board; jobId?: number }) {
  const block = board.blocks.find((b) => b.jobId === jobId);
  const waiting = board.waiting.find((w) => w.jobId === jobId);
  const earliest = waiting?.earliestWhy ? waiting.earliest : block?.earliest;
  const slot = earliest == null ? undefined : slotOf(board, earliest);
  return slot === undefined ? null : (
    <span className="earliest-line" style={{ left: LABEL + xOf(slot, perDay(board)) }}>
      <i>not before</i>
    </span>
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
