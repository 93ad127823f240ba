import { useQuery } from '@tanstack/react-query';
import { Button, Select } from 'antd';
import { useRef, useState } from 'react';
import { useAddress } from '../../shared/address';
import {
  addDays,
  formatHours,
  formatMoney,
  formatTime,
  formatWeekday,
  formatWhole,
} from '../../shared/format';
import { useKeys } from '../../shared/keyboard';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import {
  boardQuery,
  planQuery,
  spanWords,
  useBeginPlan,
  useUndo,
  type Board as BoardData,
} from './boardQueries';
import { BoardTracks } from './BoardTracks';
import { CalendarSheet } from './CalendarSheet';
import { JobSheet } from './JobSheet';
import { PlanSheet } from './PlanSheet';
import { RulesSheet } from './RulesSheet';
import { WhatIfSheet } from './WhatIfSheet';

const DAYS = 14;

type Open = 'plan' | 'what-if' | 'calendar' | 'rules';

/** Who does which job when: two weeks under one ruler. */
export default function Board() {
  const me = useMe();
  const { params, set } = useAddress();
  const from = params.get('from') ?? undefined;
  const chosen = Number(params.get('job')) || undefined;
  const fleet = params.get('fleet') ?? '';
  const { data: board, error, refetch, isPlaceholderData } = useQuery(boardQuery(from, DAYS));
  const { data: plan } = useQuery(planQuery);
  const [open, setOpen] = useState<Open>();
  const carrying = useRef(false);
  const begin = useBeginPlan();
  const undo = useUndo();
  const select = (jobId?: number) => {
    set('job', jobId === undefined ? '' : String(jobId));
    if (jobId !== undefined) setOpen(undefined);
  };
  useKeys({
    // while a job is carried these keys are its own
    Escape: () => carrying.current || (open ? setOpen(undefined) : select(undefined)),
    ArrowLeft: () => carrying.current || (board && move(addDays(board.from, -7))),
    ArrowRight: () => carrying.current || (board && move(addDays(board.from, 7))),
  });
  const move = (to: string) => {
    if (!board) return;
    const last = addDays(board.last, 1 - DAYS);
    const day = to < board.today ? board.today : to > last ? last : to;
    set('from', day === board.today ? '' : day);
  };
  if (!board)
    return (
      <div className="page">
        <h1>Board</h1>
        {error ? (
          <ProblemNote error={error} retry={() => refetch()} />
        ) : (
          <p className="hint">Laying out the board…</p>
        )}
      </div>
    );
  const proposed = open === 'plan' && plan?.phase === 'DONE' ? plan.changes : [];
  return (
    <div className="board">
      <header className="board-head">
        <h1>Fourteen days from {formatWeekday(board.from)}</h1>
        <FleetFilter board={board} fleet={fleet} onChange={(f) => set('fleet', f)} />
        <button
          className="link"
          disabled={board.from <= board.today}
          onClick={() => move(addDays(board.from, -DAYS))}
        >
          earlier
        </button>
        <button
          className="link"
          disabled={addDays(board.from, DAYS - 1) >= board.last}
          onClick={() => move(addDays(board.from, DAYS))}
        >
          later
        </button>
        <span className="grow" />
        {board.undo && me.desk && (
          <button className="action" disabled={undo.isPending} onClick={() => undo.mutate()}>
            Take back: {board.undo.what}
          </button>
        )}
        {me.manages && (
          <>
            <button className="action" onClick={() => setOpen('what-if')}>
              What if…
            </button>
            <button className="action" onClick={() => setOpen('rules')}>
              Absences and caps
            </button>
          </>
        )}
        <button className="action" onClick={() => setOpen('calendar')}>
          Calendar
        </button>
        {me.desk && (
          <a
            className="action"
            href={`/api/board/list.csv?from=${board.from}&days=${DAYS}`}
            download
          >
            CSV
          </a>
        )}
        <button className="action" onClick={() => window.print()}>
          Print
        </button>
      </header>
      <ProblemNote error={error ?? undo.error} retry={error ? () => refetch() : undefined} />
      <BoardTracks
        board={board}
        fleet={fleet}
        chosen={chosen}
        proposed={proposed}
        stale={isPlaceholderData}
        mayMove={me.desk}
        onSelect={select}
        onCarry={(now) => (carrying.current = now)}
      />
      <div className="board-sheet">
        {open === 'plan' ? (
          <PlanSheet
            plan={plan ?? undefined}
            onClose={() => setOpen(undefined)}
            onSelect={select}
          />
        ) : open === 'what-if' ? (
          <WhatIfSheet board={board} onClose={() => setOpen(undefined)} />
        ) : open === 'calendar' ? (
          <CalendarSheet board={board} onClose={() => setOpen(undefined)} />
        ) : open === 'rules' ? (
          <RulesSheet board={board} onClose={() => setOpen(undefined)} />
        ) : chosen ? (
          <JobSheet key={chosen} board={board} jobId={chosen} onClose={() => select(undefined)} />
        ) : (
          <p className="sheet-hint">
            {board.blocks.length === 0 && board.waiting.length === 0
              ? 'No job waits and none is planned. Build one from the Desk.'
              : me.desk
                ? 'Drag a job to a technician or bay, or select it and use Place. Space picks a focused job up, arrows move it.'
                : 'Select a job to see why it stands where it stands.'}
          </p>
        )}
        {!open && <Sums board={board} />}
        {me.manages && !open && (
          <Button
            type="primary"
            loading={begin.isPending}
            onClick={() => {
              setOpen('plan');
              begin.mutate({});
            }}
          >
            {plan?.phase === 'RUNNING' ? 'See the plan being worked out' : 'Work out a plan'}
          </Button>
        )}
      </div>
      <ProblemNote error={begin.error} />
      <BoardInWords board={board} />
    </div>
  );
}

function FleetFilter({
  board,
  fleet,
  onChange,
}: {
  board: BoardData;
  fleet: string;
  onChange: (f: string) => void;
}) {
  return (
    <Select
      aria-label="Fleet shown"
      variant="borderless"
      className="fleet-shown"
      popupMatchSelectWidth={false}
      value={fleet}
      onChange={onChange}
      options={[
        { value: '', label: 'all fleets and owners' },
        ...board.fleets.map((f) => ({ value: f.name, label: f.name })),
      ]}
    />
  );
}

/** What the board as it stands carries, in money and vehicles. */
function Sums({ board }: { board: BoardData }) {
  const { currency } = useMe();
  return (
    <dl className="sums">
      <div>
        <dt>Waiting, with strandings</dt>
        <dd>{formatMoney(board.cost.exposureMinor, currency)}</dd>
      </div>
      <div>
        <dt>Waiting</dt>
        <dd>{formatWhole(board.cost.unplannedJobs)}</dd>
      </div>
      <div>
        <dt>Days off the road</dt>
        <dd>{formatWhole(board.cost.offRoadDays)}</dd>
      </div>
    </dl>
  );
}

/** The same board as a list, for reading aloud and for print. */
function BoardInWords({ board }: { board: BoardData }) {
  const technician = new Map(board.technicians.map((t) => [t.id, t.name]));
  const bay = new Map(board.bays.map((b) => [b.id, b.name]));
  return (
    <section className="twin board-words" aria-label="The board in words">
      {board.blocks.map((b) => (
        <p key={b.jobId}>
          {b.registration}:{' '}
          {spanWords({ start: b.startsAt, end: b.endsAt }, formatWeekday, formatTime)},{' '}
          {technician.get(b.technicianId)}, {bay.get(b.bayId)},{' '}
          {b.work.toLowerCase().replace('_', ' ')}, {formatHours(b.minutes)} h.
        </p>
      ))}
    </section>
  );
}
