import { useQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { Problem } from '../../api/client';
import { InterferenceMark } from '../../drawing/marks';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { Differences } from './Differences';
import { enginesQuery, useTakeBook } from './engineQueries';

/** The engine book: every family on file, and documents coming in. */
export default function Engines() {
  const me = useMe();
  const { data: families, error, refetch } = useQuery(enginesQuery);
  return (
    <div className="page engines">
      <div className="page-head">
        <h1>Engines</h1>
        <span className="head-links">
          {me.desk && <Link to="/recall">Recall: who has it</Link>}
          {me.manages && (
            <Link className="button" to="/engines/new">
              New family
            </Link>
          )}
        </span>
      </div>
      <ProblemNote error={error} retry={() => refetch()} />
      {families?.length === 0 && (
        <p>
          No engine families yet. A vehicle’s belt is due by its family’s book, and a job is worked
          by it. Write one down with <Link to="/engines/new">New family</Link>, or take one in from
          a document.
        </p>
      )}
      <div className="engines-columns">
        <table className="plain">
          <thead>
            <tr>
              <th>Family</th>
              <th>Drive</th>
              <th className="num">Items</th>
              <th className="num">Tool sets</th>
              <th className="num">Version</th>
              <th>To look at</th>
            </tr>
          </thead>
          <tbody>
            {families?.map((f) => (
              <tr key={f.code}>
                <td>
                  <Link to={`/engines/${f.code}`} className="line-name">
                    {f.name}
                  </Link>{' '}
                  <span className="hint">{f.code}</span>
                </td>
                <td>
                  <InterferenceMark value={f.interference} /> {f.driveWords}
                </td>
                <td className="num">{f.items}</td>
                <td className="num">{f.toolSetCopies}</td>
                <td className="num">{f.version}</td>
                <td className={f.remarks > 0 ? 'warning-note' : ''}>
                  {f.remarks > 0 && `${f.remarks} ${f.remarks === 1 ? 'remark' : 'remarks'}`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {me.manages && <TakeIn />}
      </div>
    </div>
  );
}

/** A document is looked at first; it is filed whole or not at all. */
function TakeIn() {
  const [file, setFile] = useState<File>();
  const preview = useTakeBook(true);
  const take = useTakeBook(false);
  const found = preview.data;
  const error = preview.error ?? take.error;
  return (
    <aside className="take-in">
      <h2>Take in a family</h2>
      <p className="hint">
        A JSON document as this page gives it out; its{' '}
        <a href="/api/engines/schema" target="_blank" rel="noreferrer">
          JSON Schema
        </a>{' '}
        says what it holds.
      </p>
      <label className="file-button" htmlFor="book-file">
        Choose a JSON file
      </label>
      <input
        id="book-file"
        type="file"
        accept=".json,application/json"
        onChange={(e) => {
          const chosen = e.target.files?.[0];
          setFile(chosen);
          take.reset();
          if (chosen) preview.mutate(chosen);
          else preview.reset();
          e.target.value = '';
        }}
      />
      {file && <span className="file-name">{file.name}</span>}
      {error instanceof Problem && error.errors.length > 0 ? (
        <div className="problem" role="alert">
          <strong>Nothing was filed.</strong>{' '}
          {error.errors.length === 1
            ? 'The document has one fault:'
            : `The document has ${error.errors.length} faults:`}
          <ul>
            {error.errors.map((e, i) => (
              <li key={i}>
                <code>{e.pointer || '/'}</code> {e.detail}
              </li>
            ))}
          </ul>
        </div>
      ) : (
        <ProblemNote error={error} />
      )}
      {take.data?.filed && (
        <p className="done" role="status">
          {take.data.name} is filed as version {take.data.version}.{' '}
          <Link to={`/engines/${take.data.code}`}>See it</Link>
        </p>
      )}
      {found && !take.data && (
        <>
          <p>
            <b>{found.name}</b>{' '}
            {found.created
              ? 'is new.'
              : found.differences.length === 0
                ? `is on file just like this, version ${found.version}.`
                : `is on file; ${found.differences.length} ${found.differences.length === 1 ? 'thing differs' : 'things differ'} from version ${found.version}.`}
          </p>
          {found.remarks.map((r) => (
            <p key={r.pointer} className="warning-note">
              {r.words}
            </p>
          ))}
          <Differences list={found.differences} />
          {(found.created || found.differences.length > 0) && (
            <Button
              type="primary"
              loading={take.isPending}
              onClick={() => file && take.mutate(file)}
            >
              File version {found.created ? 1 : found.version + 1}
            </Button>
          )}
        </>
      )}
    </aside>
  );
}
