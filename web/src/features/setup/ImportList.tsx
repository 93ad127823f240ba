import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { Problem, type Schemas } from '../../api/client';
import { ProblemNote } from '../../shared/ProblemNote';
import { useImport, usePreview } from './setupQueries';

const VEHICLE_COLUMNS = [
  ['registration, make_model, owner, phone', 'as they are called'],
  ['usage', 'private, courier van, taxi, minibus, community car, chilled van, plant and works'],
  ['first_registered', 'a date like 2019-04-30'],
  ['engine_family, vin, fleet', 'may be empty'],
  ['conditions', 'dust; towing; mostly short trips …'],
  ['equipment', 'air conditioning; top steering pump'],
  ['odometer, odometer_unit, odometer_date', 'km or miles'],
  ['belt_renewed_on, belt_renewed_odometer', 'in the same unit'],
] as const;

/** A list is looked at line by line first; it is taken whole or not at all. */
export default function ImportList() {
  const [file, setFile] = useState<File>();
  const [taken, setTaken] = useState<Schemas['Imported']>();
  const preview = usePreview();
  const take = useImport((result) => {
    setTaken(result);
    setFile(undefined);
    preview.reset();
  });
  const choose = (chosen?: File) => {
    setFile(chosen);
    setTaken(undefined);
    take.reset();
    if (chosen) preview.mutate(chosen);
    else preview.reset();
  };
  const list = preview.data;
  const atFile = preview.error instanceof Problem ? preview.error.at('/file') : undefined;
  return (
    <section className="import">
      <div>
        <label className="file-button" htmlFor="file">
          Choose a CSV file
        </label>
        <input
          id="file"
          type="file"
          accept=".csv,text/csv"
          onChange={(e) => {
            choose(e.target.files?.[0]);
            e.target.value = '';
          }}
        />
        {file && <span className="file-name">{file.name}</span>}
        {atFile && (
          <div className="field-note" role="alert">
            {atFile}
          </div>
        )}
        {!atFile && <ProblemNote error={preview.error} />}
        {taken && (
          <p className="done" role="status">
            {taken.count} {taken.kind === 'VEHICLES' ? 'vehicles' : 'readings'} taken in.{' '}
            <Link to="/">See the Desk</Link>
          </p>
        )}
        {list && (
          <>
            <p>
              <b>
                {list.lines.length} {list.kind === 'VEHICLES' ? 'vehicles' : 'readings'}
              </b>
              {list.bad > 0
                ? `; ${list.bad} ${list.bad === 1 ? 'line has' : 'lines have'} a problem. Mend the file and choose it again: nothing is taken by halves.`
                : ', every line is good.'}
            </p>
            <ProblemNote error={take.error} />
            <Button
              type="primary"
              disabled={list.bad > 0}
              loading={take.isPending}
              onClick={() => file && take.mutate(file)}
            >
              Take in all {list.lines.length}
            </Button>
            <table className="plain">
              <thead>
                <tr>
                  <th className="num">Line</th>
                  <th>Registration</th>
                  <th>What it says</th>
                </tr>
              </thead>
              <tbody>
                {list.lines.slice(0, 200).map((l) => (
                  <tr key={l.line} className={l.problems.length ? 'bad-line' : ''}>
                    <td className="num">{l.line}</td>
                    <td className="registration">{l.registration}</td>
                    <td>
                      {l.summary}
                      {l.problems.map((p, i) => (
                        <span key={i} className="field-note">
                          {p.column}: {p.detail}
                        </span>
                      ))}
                      {l.warnings.map((p, i) => (
                        <span key={i} className="second warning-note">
                          {p.column}: {p.detail}
                        </span>
                      ))}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            {list.lines.length > 200 && (
              <p className="hint">and {list.lines.length - 200} more lines</p>
            )}
          </>
        )}
      </div>
      <aside>
        <h2>What the list holds</h2>
        <p>Vehicles, one a line, with these columns in any order; the first line names them:</p>
        <dl className="columns">
          {VEHICLE_COLUMNS.map(([columns, words]) => (
            <div key={columns}>
              <dt>{columns}</dt>
              <dd>{words}</dd>
            </div>
          ))}
        </dl>
        <p>
          Or readings of vehicles on file: <code>registration, date, odometer</code>, and if you
          like <code>unit, source</code>.
        </p>
      </aside>
    </section>
  );
}
