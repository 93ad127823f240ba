import { useQuery } from '@tanstack/react-query';
import { Button, Input, Popconfirm } from 'antd';
import { useState } from 'react';
import { Problem, type Schemas } from '../../api/client';
import { ProblemNote } from '../../shared/ProblemNote';
import { BookPathPicture, pathWords } from '../../drawing/BookPathPicture';
import { schemaQuery, useDrawPath, useFileBook } from './engineQueries';
import { put, type Json, type JsonSchema } from './schemaForm';
import { SchemaField } from './SchemaField';

/** The parts of a book, in the order one writes it. */
const SECTIONS: { title: string; fields: string[] }[] = [
  {
    title: 'The engine',
    fields: [
      'name',
      'drive',
      'interference',
      'crankFit',
      'reference',
      'tensioner',
      'pinOutBeforeTurns',
      'mountInTheWay',
      'blankingPlugs',
      'coolantLitres',
      'pins',
      'moveOver',
      'cautions',
    ],
  },
  { title: 'How it is built', fields: ['build'] },
  { title: 'Path', fields: ['path'] },
  { title: 'Handling', fields: ['handling'] },
  { title: 'Items', fields: ['items'] },
  { title: 'Access steps', fields: ['accessSteps'] },
  { title: 'Joints', fields: ['joints'] },
  { title: 'Variants', fields: ['variants'] },
  { title: 'Tools and kits', fields: ['tools', 'kits'] },
  { title: 'Repair', fields: ['repair'] },
];

/** Edits the whole of a book; what is filed is its next version. */
export function BookEditor({
  view,
  at = '',
  onClose,
}: {
  view: Schemas['FamilyView'];
  /** pointer, from the family on, of the place to begin at */
  at?: string;
  onClose: () => void;
}) {
  const { data: schema, error: noSchema } = useQuery(schemaQuery);
  const [family, setFamily] = useState<Json>(view.family as Json);
  const [section, setSection] = useState(() =>
    Math.max(
      0,
      SECTIONS.findIndex((s) => s.fields.includes(at.split('/')[1] ?? '')),
    ),
  );
  const [note, setNote] = useState('');
  const file = useFileBook(view.code, onClose);
  const draw = useDrawPath();
  const error = file.error ?? draw.error;
  if (noSchema) return <ProblemNote error={noSchema} />;
  if (!schema) return <p className="hint loading">Reading the form…</p>;
  const changed = family !== view.family;
  const faults = (fields: string[]) =>
    error instanceof Problem
      ? error.errors.filter((e) =>
          fields.some((f) => e.pointer === `/family/${f}` || e.pointer.startsWith(`/family/${f}/`)),
        ).length
      : 0;
  const shown = SECTIONS[section]!;
  return (
    <form
      className="book-editor"
      onSubmit={(e) => {
        e.preventDefault();
        draw.reset();
        file.mutate({
          family: family as Record<string, never>,
          version: view.newest,
          note,
        });
      }}
    >
      <nav aria-label="Parts of the book">
        {SECTIONS.map((s, i) => (
          <button
            key={s.title}
            type="button"
            className={i === section ? 'on' : ''}
            aria-current={i === section}
            onClick={() => setSection(i)}
          >
            {s.title}
            {faults(s.fields) > 0 && <span className="late"> {faults(s.fields)} wrong</span>}
          </button>
        ))}
      </nav>
      <div className="book-section">
        {shown.title === 'Path' && (
          <div className="path-try">
            <Button
              loading={draw.isPending}
              onClick={() => {
                file.reset();
                draw.mutate({ family: family as Record<string, never>, version: view.newest });
              }}
            >
              Draw it as it stands here
            </Button>
            {draw.data && (
              <>
                <BookPathPicture path={draw.data} />
                <p className="hint">{pathWords(draw.data)}</p>
              </>
            )}
          </div>
        )}
        {shown.fields
          .filter((f) => schema.properties?.[f])
          .map((f) => (
            <SchemaField
              key={f}
              schema={schema.properties![f] as JsonSchema}
              value={(family as Record<string, Json>)[f] ?? null}
              path={[f]}
              family={family}
              error={error}
              onChange={(path, value) => setFamily((now) => put(now, path, value))}
            />
          ))}
      </div>
      <div className="book-file">
        {error && !(error instanceof Problem && error.errors.length > 0) && (
          <ProblemNote error={error} />
        )}
        {error instanceof Problem && error.errors.length > 0 && (
          <div className="problem" role="alert">
            <strong>{draw.error ? 'Not drawn.' : 'Not filed.'}</strong>{' '}
            {error.errors.length === 1 ? 'One thing is' : `${error.errors.length} things are`}{' '}
            wrong:
            <ul>
              {error.errors.map((e, i) => (
                <li key={i}>
                  <code>{e.pointer.replace('/family', '')}</code> {e.detail}
                </li>
              ))}
            </ul>
          </div>
        )}
        <label htmlFor="book-note">Why it is changed</label>
        <Input
          id="book-note"
          value={note}
          maxLength={200}
          onChange={(e) => setNote(e.target.value)}
        />
        <div className="actions">
          <Button type="primary" htmlType="submit" disabled={!changed} loading={file.isPending}>
            File version {view.newest + 1}
          </Button>
          {changed ? (
            <Popconfirm
              title="Leave without filing?"
              description="What you changed here is lost."
              okText="Leave it"
              cancelText="Go on"
              onConfirm={onClose}
            >
              <button type="button" className="action">
                Leave it
              </button>
            </Popconfirm>
          ) : (
            <button type="button" className="action" onClick={onClose}>
              Leave it
            </button>
          )}
        </div>
      </div>
    </form>
  );
}
