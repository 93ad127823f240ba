import { useMutation } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { data, api, Problem } from '../../api/client';
import { formatWhole } from '../../shared/format';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';

const words = (table: string) => table.replaceAll('_', ' ');

/** The whole workshop as files: out to keep, or into an empty one. */
export default function Everything() {
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File>();
  const take = useMutation({
    mutationFn: (body: File) =>
      data(
        api.POST('/api/setup/everything', {
          body: body as never,
          bodySerializer: (b: unknown) => b as BodyInit,
          headers: { 'Content-Type': 'application/zip' },
        }),
      ),
  });
  const atFile = take.error instanceof Problem && take.error.at('/file');
  return (
    <section className="everything">
      <h2>Out</h2>
      <p>
        One folder, zipped: a table for each kind of thing (CSV), each engine’s book (JSON), every
        picture. A text in it says what is what. Passwords are not in it.
      </p>
      <a className="file-button" href="/api/setup/everything" download>
        Everything as files
      </a>
      <h2>In</h2>
      <p>
        Such a file goes into an empty workshop of the same version, and is the same there.
        Afterwards everybody signs in anew: you as before, all others once you have given them a
        password.
      </p>
      <p>
        <label className="file-button">
          {file ? 'Choose another file' : 'Choose a file'}
          <input
            ref={input}
            id="everything-file"
            type="file"
            accept=".zip,application/zip"
            onChange={(e) => {
              take.reset();
              setFile(e.target.files?.[0]);
            }}
          />
        </label>
        {file && !take.isSuccess && (
          <>
            <b>{file.name}</b>, {formatWhole(Math.ceil(file.size / 1024))} kB.{' '}
            <button className="action" disabled={take.isPending} onClick={() => take.mutate(file)}>
              {take.isPending ? 'Taking it in…' : 'Put it into this workshop'}
            </button>
          </>
        )}
      </p>
      <FieldNote error={take.error} at="/file" />
      {!atFile && <ProblemNote error={take.error} />}
      {take.data && (
        <div role="status">
          <p className="done">
            It is in. <a href="/">Sign in anew</a>.
          </p>
          <ul className="plain counts">
            {Object.entries(take.data.rows)
              .filter(([, n]) => n > 0)
              .map(([table, n]) => (
                <li key={table}>
                  {formatWhole(n)} <span className="hint">{words(table)}</span>
                </li>
              ))}
          </ul>
        </div>
      )}
    </section>
  );
}
