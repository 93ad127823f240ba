import { useDraggable } from '@dnd-kit/core';
import type { Schemas } from '../../api/client';
import { DAY, labels, nights, pieces, sideNames, slotWidth, xOf } from '../../drawing/boardTracks';
import { InterferenceMark, interferenceWords } from '../../drawing/marks';
import { formatHours, formatTime, formatWeekday } from '../../shared/format';
import { dayClass, perDay, type Carried, type Props } from './boardParts';
import type { Block, Board } from './boardQueries';

const WORK = {
  PLANNED: 'planned',
  PROMISED: 'promise',
  LATE: 'not begun',
  UNDER_WAY: 'under way',
  DONE: 'done',
} as const;

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

/** One track with its jobs; what is carried over it, and what it was told. */
export function Track(t: TrackProps) {
  const { board, chosen, mayMove, onSelect } = t.props;
  const slots = perDay(board);
  const words: string[] =
    t.kind === 'technician'
      ? labels(
          t.bars.map((b) => ({ start: b.start, letters: noteOf(b).length })),
          slots,
        )
      : t.kind === 'set'
        ? sideNames(t.bars, board.days.length, slots)
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
              style={{ left: xOf(c.from, slots), width: xOf(c.to - c.from, slots) }}
            >
              {xOf(c.to - c.from, slots) >= DAY && c.why}
            </span>
          ))}
        {t.bars.map((b, i) => (
          <BarOnTrack
            key={b.jobId}
            block={b}
            kind={t.kind}
            label={words[i] ?? 'name'}
            days={board.days.length}
            slots={slots}
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
            style={{
              left: xOf(g.start, slots),
              width: Math.max(slotWidth(slots), xOf(g.end - g.start, slots)),
            }}
            title={`${g.registration}, proposed`}
          >
            <i>{g.registration}</i>
          </span>
        ))}
        {here && job && (
          <span
            className={broken ? 'ghost broken' : 'ghost'}
            style={{
              left: xOf(here.slot, slots),
              width: Math.max(slotWidth(slots), (job.minutes / 30) * slotWidth(slots)),
            }}
          >
            {t.asked && (
              <em className={here.slot > (board.days.length * slots) / 2 ? 'say left' : 'say'}>
                {broken
                  ? t.asked.broken[0]?.words
                  : `${t.asked.place ? formatTime(t.asked.place.start) : ''} ${t.asked.place?.technician}, ${t.asked.place?.bay}`}
              </em>
            )}
          </span>
        )}
        {said && (
          <div
            className={said.at.slot > (board.days.length * slots) / 2 ? 'refusal left' : 'refusal'}
            role="alert"
            style={{ left: xOf(said.at.slot, slots) }}
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
    .slice(Math.max(0, span.from / perDay(board)), Math.max(0, span.to / perDay(board)))
    .every((d) => d.closed);

const noteOf = (b: Block) =>
  `${b.work === 'PLANNED' ? '' : `${WORK[b.work]} `}${formatHours(b.minutes)} h`;

/** Begins with what stands on the bar, its mark in words, so that whoever says it aloud is understood. */
const barWords = (b: Block) =>
  `${[b.registration, interferenceWords(b.interference), noteOf(b)].filter(Boolean).join(' ')}, ${b.makeModel}, ${b.work === 'PLANNED' ? 'planned ' : ''}from ${formatWeekday(b.startsAt)} ${formatTime(b.startsAt)} to ${formatWeekday(b.endsAt)} ${formatTime(b.endsAt)}${b.clash.length > 0 ? `. ${b.clash.join(' ')}` : ''}`;

function BarOnTrack({
  block: b,
  kind,
  label,
  days,
  slots,
  chosen,
  leaving,
  fixed,
  onSelect,
}: {
  block: Block;
  kind: TrackProps['kind'];
  label: string;
  days: number;
  /** half-hours in a day */
  slots: number;
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
  const left = xOf(Math.max(0, b.start), slots);
  const parts = pieces(b, days, slots);
  const work = `${b.work.toLowerCase()}${b.clash.length > 0 ? ' clash' : ''}`;
  const worked =
    b.workedTo == null ? 0 : xOf(Math.max(0, b.workedTo - Math.max(0, b.start)), slots);
  return (
    <button
      ref={setNodeRef}
      className={`job-bar ${work} ${label}${chosen ? ' chosen' : ''}${leaving ? ' leaving' : ''}${isDragging ? ' carried' : ''}`}
      style={{
        left,
        width: Math.max(
          slotWidth(slots),
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
        {nights(b, days, slots).map((x) => (
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
