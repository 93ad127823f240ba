import { useQuery } from '@tanstack/react-query';
import { Button, Select } from 'antd';
import { useState } from 'react';
import { Problem, type Schemas } from '../../api/client';
import { dateOf, formatHours, formatTime, formatWeekday } from '../../shared/format';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { boardJobQuery } from '../board/boardQueries';
import { Offers } from '../board/Offers';
import { useBook, weekQuery } from './jobQueries';

type Week = Schemas['WeekView'];

const TIMES = [8, 8.5, 9, 9.5, 10, 10.5, 11, 11.5, 13, 13.5, 14, 14.5, 15, 15.5, 16, 16.5].map(
  (h) => `${String(Math.floor(h)).padStart(2, '0')}:${h % 1 ? '30' : '00'}`,
);
const WEEKDAY = ['SUNDAY', 'MONDAY', 'TUESDAY', 'WEDNESDAY', 'THURSDAY', 'FRIDAY', 'SATURDAY'];
const FIELDS = ['/technicianId', '/bayId', '/day', '/time'];

/** `iso` moved by whole days. */
export function plusDays(iso: string, days: number): string {
  const d = dateOf(iso);
  d.setDate(d.getDate() + days);
  return [d.getFullYear(), d.getMonth() + 1, d.getDate()]
    .map((n) => String(n).padStart(2, '0'))
    .join('-');
}

/** The Monday of the week that holds `iso`. */
export function mondayOf(iso: string): string {
  return plusDays(iso, -((dateOf(iso).getDay() + 6) % 7));
}

/** Promises a slot: technician, bay and day on one week of the board. */
export function Booking({ job, today }: { job: Schemas['JobView']; today: string }) {
  const [from, setFrom] = useState(mondayOf(today));
  const { data: week, error } = useQuery(weekQuery(from));
  const [technicianId, setTechnician] = useState<number>();
  const [picked, setBay] = useState<number>();
  const [day, setDay] = useState<string>();
  const [time, setTime] = useState('08:00');
  const [offering, setOffering] = useState(false);
  const { data: onBoard } = useQuery(boardJobQuery(job.id));
  const book = useBook(job.id);
  const skilled = (week?.technicians ?? []).filter((t) => t.skills.includes(job.drive));
  const problem = book.error instanceof Problem ? book.error : undefined;
  // where there is one bay, nothing is to be chosen
  const bayId = picked ?? (week?.bays.length === 1 ? week.bays[0]!.id : undefined);
  const ready = technicianId !== undefined && bayId !== undefined && day !== undefined;
  const pick = (t: number, d: string) => {
    setTechnician(t);
    setDay(d);
    book.reset();
  };
  return (
    <section className="booking">
      <h2>Promise a slot</h2>
      <button className="action" aria-expanded={offering} onClick={() => setOffering(!offering)}>
        Five best slots
      </button>
      {offering && onBoard && <Offers job={onBoard} onDone={() => setOffering(false)} />}
      <div className="week-head">
        <span>Week of {formatWeekday(from)}</span>
        <button
          className="link"
          onClick={() => setFrom(plusDays(from, -7))}
          disabled={from <= mondayOf(today)}
        >
          earlier
        </button>
        <button className="link" onClick={() => setFrom(plusDays(from, 7))}>
          later
        </button>
      </div>
      <ProblemNote error={error} />
      {week && (
        <WeekGrid
          week={week}
          today={today}
          skilled={skilled}
          technicianId={technicianId}
          day={day}
          onPick={pick}
        />
      )}
      <form
        className="form"
        onSubmit={(e) => {
          e.preventDefault();
          if (ready) book.mutate({ technicianId, bayId, day, time, version: job.version });
        }}
      >
        <div className="fields">
          <div className="grow">
            <label htmlFor="technician">Technician</label>
            <Select
              id="technician"
              value={technicianId}
              onChange={(v) => {
                setTechnician(v);
                book.reset();
              }}
              status={problem?.at('/technicianId') ? 'error' : ''}
              placeholder="Choose"
              options={skilled.map((t) => ({ value: t.id, label: t.name }))}
            />
          </div>
          <div className="grow">
            <label htmlFor="bay">Bay</label>
            <Select
              id="bay"
              value={bayId}
              onChange={(v) => {
                setBay(v);
                book.reset();
              }}
              status={problem?.at('/bayId') ? 'error' : ''}
              placeholder="Choose"
              options={(week?.bays ?? []).map((b) => ({
                value: b.id,
                label: `${b.name}, ${b.note}`,
              }))}
            />
          </div>
        </div>
        <FieldNote error={book.error} at="/technicianId" />
        <FieldNote error={book.error} at="/bayId" />
        <div className="fields">
          <div className="grow">
            <label htmlFor="day">Day</label>
            <Select
              id="day"
              value={day}
              onChange={(v) => {
                setDay(v);
                book.reset();
              }}
              status={problem?.at('/day') ? 'error' : ''}
              placeholder="Choose"
              options={(week?.days ?? [])
                .filter((d) => d >= today)
                .map((d) => ({ value: d, label: formatWeekday(d) }))}
            />
          </div>
          <div>
            <label htmlFor="time">Start</label>
            <Select
              id="time"
              value={time}
              onChange={(v) => {
                setTime(v);
                book.reset();
              }}
              options={TIMES.map((t) => ({ value: t, label: t }))}
            />
          </div>
        </div>
        <FieldNote error={book.error} at="/day" />
        <FieldNote error={book.error} at="/time" />
        {!problem?.onlyAt(...FIELDS) && <ProblemNote error={book.error} />}
        <Button type="primary" htmlType="submit" loading={book.isPending} disabled={!ready}>
          Promise {formatHours(job.minutes)} h
        </Button>
      </form>
    </section>
  );
}

function WeekGrid({
  week,
  today,
  skilled,
  technicianId,
  day,
  onPick,
}: {
  week: Week;
  today: string;
  skilled: Week['technicians'];
  technicianId?: number;
  day?: string;
  onPick: (technician: number, day: string) => void;
}) {
  const weekdays = week.days.slice(0, 5);
  return (
    <div className="week" role="grid" aria-label="The week">
      <div role="row" className="week-row">
        <span role="columnheader" />
        {weekdays.map((d) => (
          <span key={d} role="columnheader" className={d === today ? 'day now' : 'day'}>
            {formatWeekday(d).replace(/ \w+$/, '')}
          </span>
        ))}
      </div>
      {skilled.map((t) => (
        <div role="row" className="week-row" key={t.id}>
          <span role="rowheader">{t.name}</span>
          {weekdays.map((d) => {
            const off = !t.workingDays.includes(WEEKDAY[dateOf(d).getDay()] as never);
            const jobs = week.jobs.filter(
              (j) =>
                j.technicianId === t.id && j.start.slice(0, 10) <= d && d <= j.end.slice(0, 10),
            );
            const chosen = technicianId === t.id && day === d;
            const words = off
              ? 'away'
              : jobs.map((j) => `${j.registration} from ${formatTime(j.start)}`).join(', ') ||
                'free';
            return (
              <span role="gridcell" key={d} className={off || d < today ? 'cell closed' : 'cell'}>
                <button
                  disabled={off || d < today}
                  aria-pressed={chosen}
                  aria-label={`${t.name}, ${formatWeekday(d)}: ${words}`}
                  className={chosen ? 'on' : ''}
                  onClick={() => onPick(t.id, d)}
                >
                  {off
                    ? 'away'
                    : jobs.map((j) => (
                        <span key={j.jobId} className="placed" title={words}>
                          {j.registration.replace(/^\w+ /, '')}
                        </span>
                      ))}
                </button>
              </span>
            );
          })}
        </div>
      ))}
    </div>
  );
}
