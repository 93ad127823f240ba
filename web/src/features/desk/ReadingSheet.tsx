import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox, Input, Select } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { Problem, type Schemas } from '../../api/client';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { choicesQuery, deskQuery, filterOf, useBulkReadings } from './deskQueries';
import { DateField } from '../../shared/ui/DateField';
import { numberOf } from '../../shared/ui/spelling';
import { usualUnit } from '../../shared/format';

type Bulk = Schemas['Bulk'];

/** What the server said of one line; it stands until that line is changed. */
interface Fault {
  registration?: string;
  date?: string;
  value?: string;
  mayInsist: boolean;
}

interface Line {
  registration: string;
  who: string;
  value: string;
  date: string;
  insist: boolean;
  fault?: Fault;
}

const FEW = 25;

/** Many readings typed in one go: all of them are recorded, or none. */
export default function ReadingSheet() {
  const [params] = useSearchParams();
  const { data: desk, error } = useQuery(deskQuery(filterOf(params)));
  if (error && !desk) return <ProblemNote error={error} />;
  if (!desk) return <p className="hint loading">Reading the list…</p>;
  return <Sheet rows={desk.rows.slice(0, FEW)} />;
}

function Sheet({ rows }: { rows: Schemas['DeskRow'][] }) {
  const me = useMe();
  const blank: Line = { registration: '', who: '', value: '', date: me.today, insist: false };
  const [lines, setLines] = useState<Line[]>(() => [
    ...rows.map((r) => ({
      ...blank,
      registration: r.registration,
      who: `${r.ownerName}, ${r.makeModel}`,
    })),
    blank,
  ]);
  const [unit, setUnit] = useState<Bulk['unit']>(usualUnit());
  const [source, setSource] = useState<Bulk['source']>('CUSTOMER');
  const [taken, setTaken] = useState<number>();
  const { data: choices } = useQuery(choicesQuery);
  const send = useBulkReadings((count) => {
    setTaken(count);
    setLines([...lines.filter((l) => l.value === '')]);
  });
  const table = useRef<HTMLTableElement>(null);
  useEffect(() => {
    if (send.error)
      table.current?.querySelector('.field-note')?.scrollIntoView?.({ block: 'center' });
  }, [send.error]);
  const problem = send.error instanceof Problem ? send.error : undefined;
  // what is sent are the lines with a value; the answer's pointers count those
  const filled = lines.filter((l) => l.value.trim() !== '');
  const keepFaults = (error: unknown) => {
    if (!(error instanceof Problem)) return;
    setLines((all) =>
      all.map((l) => {
        const at = `/lines/${filled.indexOf(l)}`;
        return filled.includes(l)
          ? {
              ...l,
              fault: {
                registration: error.at(`${at}/registration`),
                date: error.at(`${at}/date`),
                value: error.at(`${at}/value`),
                mayInsist: error.suggestion === 'insist',
              },
            }
          : l;
      }),
    );
  };
  const edit = (line: Line, part: Partial<Line>) => {
    setTaken(undefined);
    setLines((all) => {
      const next = all.map((l) => (l === line ? { ...l, fault: undefined, ...part } : l));
      return next.at(-1)?.registration ? [...next, blank] : next;
    });
  };
  return (
    <form
      className="page sheet"
      onSubmit={(e) => {
        e.preventDefault();
        send.mutate(
          {
            unit,
            source,
            lines: filled.map((l) => ({
              registration: l.registration,
              date: l.date,
              value: numberOf(l.value, 1),
              insist: l.insist,
            })),
          },
          { onError: keepFaults },
        );
      }}
    >
      <h1>Odometer readings</h1>
      <div className="fields">
        <div>
          <label htmlFor="sheet-unit">All in</label>
          <Select
            id="sheet-unit"
            value={unit}
            onChange={setUnit}
            options={[
              { value: 'KM', label: 'km' },
              { value: 'MILES', label: 'miles' },
            ]}
          />
        </div>
        {!me.readsOnly && (
          <div>
            <label htmlFor="sheet-source">All from</label>
            <Select
              id="sheet-source"
              value={source}
              onChange={setSource}
              popupMatchSelectWidth={false}
              options={(choices?.readingSources ?? []).map((c) => ({
                value: c.code as Bulk['source'],
                label: c.words,
              }))}
            />
          </div>
        )}
      </div>
      <table className="plain" ref={table}>
        <thead>
          <tr>
            <th>Registration</th>
            <th>Vehicle</th>
            <th>Read on</th>
            <th>Odometer, {unit === 'KM' ? 'km' : 'miles'}</th>
            <th>
              <span className="unseen">What came of it</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line, i) => {
            const wrong = line.fault?.value ?? localFault(line);
            return (
              <tr key={i}>
                <td>
                  <Input
                    aria-label={`Registration, line ${i + 1}`}
                    className="mono"
                    value={line.registration}
                    status={line.fault?.registration ? 'error' : ''}
                    onChange={(e) => edit(line, { registration: e.target.value, who: '' })}
                  />
                  <Note words={line.fault?.registration} />
                </td>
                <td className="hint">{line.who}</td>
                <td>
                  <DateField
                    max={me.today}
                    label={`Read on, line ${i + 1}`}
                    value={line.date}
                    onChange={(d) => edit(line, { date: d ?? '' })}
                  />
                  <Note words={line.fault?.date} />
                </td>
                <td>
                  <Input
                    aria-label={`Odometer, line ${i + 1}`}
                    inputMode="numeric"
                    value={line.value}
                    status={wrong ? 'error' : ''}
                    onChange={(e) => edit(line, { value: e.target.value, insist: false })}
                  />
                  <Note words={wrong} />
                </td>
                <td>
                  {(line.insist || (line.fault?.value && line.fault.mayInsist)) && (
                    <Checkbox
                      checked={line.insist}
                      onChange={(e) => edit(line, { insist: e.target.checked, fault: line.fault })}
                    >
                      record it all the same
                    </Checkbox>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {problem && !problem.errors.some((e) => e.pointer.startsWith('/lines/')) && (
        <ProblemNote error={problem} />
      )}
      {taken !== undefined && (
        <p className="done" role="status">
          {taken} {taken === 1 ? 'reading' : 'readings'} recorded. <Link to="/">To the Desk</Link>
        </p>
      )}
      <div className="actions">
        <Button
          type="primary"
          htmlType="submit"
          loading={send.isPending}
          disabled={filled.length === 0 || filled.some((l) => localFault(l) !== undefined)}
        >
          Record {filled.length || ''} {filled.length === 1 ? 'reading' : 'readings'}
        </Button>
        <span className="hint">
          All are recorded, or none. Lines without a reading are left out.
        </span>
      </div>
    </form>
  );
}

function Note({ words }: { words?: string }) {
  return words ? (
    <div className="field-note" role="alert">
      {words}
    </div>
  ) : null;
}

const localFault = (line: Line) =>
  line.value.trim() === '' || /^[\d\s,]+(\.\d+)?$/.test(line.value.trim())
    ? undefined
    : `“${line.value}” is not a number.`;
