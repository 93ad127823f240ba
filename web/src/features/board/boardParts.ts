import type { Schemas } from '../../api/client';
import type { Block, Board } from './boardQueries';

export type Change = Schemas['PlanChangeView'];

/** Half-hours in a day of this board. */
export const perDay = (board: Board) => board.times.length;

/** Where a job is being carried: over which track, and to which half-hour. */
export interface Carried {
  jobId: number;
  track: string;
  slot: number;
}

export interface Props {
  board: Board;
  fleet: string;
  chosen?: number;
  proposed: Change[];
  stale: boolean;
  mayMove: boolean;
  onSelect: (jobId?: number) => void;
  /** Whether a job is being carried: the keys then move it, not the board. */
  onCarry: (carrying: boolean) => void;
}

export function barsOf({ board, fleet }: Props, which: (b: Block) => boolean): Block[] {
  return board.blocks
    .filter((b) => which(b) && (fleet === '' || b.fleet === fleet))
    .sort((a, b) => a.start - b.start);
}

/** The half-hour that begins at a moment or next after it; undefined outside the days shown. */
export function slotOf(board: Board, iso: string): number | undefined {
  const day = board.days.findIndex((d) => d.date === iso.slice(0, 10));
  if (day < 0) return undefined;
  const at = board.times.findIndex((t) => t.slice(0, 5) >= iso.slice(11, 16));
  return day * perDay(board) + (at < 0 ? perDay(board) : at);
}

/** A proposed place as a bar, where it begins within the days shown. */
export function ghostOf(board: Board, change: Change) {
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
          end: end ?? board.days.length * perDay(board),
        },
      ];
}

export const dayClass = (d: Board['days'][number]) => (d.closed ? 'board-day closed' : 'board-day');
