import { useQuery } from '@tanstack/react-query';
import { Select } from 'antd';
import { useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import type { Schemas } from '../../api/client';
import { AccessGraph } from '../../drawing/AccessGraph';
import type { GraphStep } from '../../drawing/accessGraph';
import { BookPathPicture, LoopFit, pathWords } from '../../drawing/BookPathPicture';
import { InterferenceMark } from '../../drawing/marks';
import { capital, formatMoment, formatMoney } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { BookEditor } from './BookEditor';
import { Learned } from './Learned';
import { Proof } from './Proof';
import { Differences } from './Differences';
import { differencesQuery, engineQuery, schemaQuery } from './engineQueries';
import type { Json, JsonSchema } from './schemaForm';
import { isOptional, kindOf } from './schemaForm';

/** One family's book: the path, what to look at, all of its figures, and its versions. */
export default function Engine() {
  const code = String(useParams().code);
  const [search, setSearch] = useSearchParams();
  const version = search.has('version') ? Number(search.get('version')) : undefined;
  const me = useMe();
  const { data: view, error, refetch } = useQuery(engineQuery(code, version));
  const { data: schema } = useQuery(schemaQuery);
  // what is edited: nothing, the book, or one place of it
  const [editing, setEditing] = useState<string>();
  if (error && !view) {
    return (
      <div className="page">
        <ProblemNote error={error} retry={() => refetch()} />
      </div>
    );
  }
  if (!view) return <p className="hint loading">Reading the book…</p>;
  return (
    <div className="page engine">
      <header className="builder-head">
        <h1>
          {view.name} <span className="count">{view.code}</span>
        </h1>
        <p>
          <InterferenceMark value={view.interference} /> Version {view.version}
          {view.version < view.newest && ` of ${view.newest}`} ·{' '}
          <Link to="/engines">all families</Link>
        </p>
      </header>
      {editing !== undefined ? (
        <BookEditor view={view} at={editing} onClose={() => setEditing(undefined)} />
      ) : (
        <div className="engine-columns">
          <div>
            {view.loops.length > 0 ? (
              <div className="loops">
                {view.loops.map((l) => (
                  <figure key={l.name}>
                    <BookPathPicture path={l.path} />
                    <LoopFit path={l.path} />
                    <figcaption>
                      <b>{l.name}</b> <span className="hint">{pathWords(l.path)}</span>
                    </figcaption>
                  </figure>
                ))}
              </div>
            ) : view.path ? (
              <>
                <BookPathPicture path={view.path} />
                <LoopFit path={view.path} />
                <p className="hint">{pathWords(view.path)}</p>
              </>
            ) : (
              <p className="hint">
                No drawing is on file: runs, lengths and paint marks are not computed, and there is
                nothing to practise on. Cards do not need it. It is typed under “Change the book”,
                Path.
              </p>
            )}
            {view.path && <Wheels path={view.path} />}
          </div>
          <div>
            <div className="actions">
              {me.manages && view.version === view.newest && (
                <button className="button" onClick={() => setEditing('')}>
                  Change the book
                </button>
              )}
              <a
                className="action"
                href={`/api/engines/${view.code}/document?version=${view.version}`}
                download
              >
                Give out as JSON
              </a>
            </div>
            {view.gaps.length > 0 && (
              <>
                <h2>Not on file</h2>
                <dl className="gaps">
                  {view.gaps.map((g) => (
                    <div key={g.what + g.blocks}>
                      <dt>{g.what}</dt>
                      <dd>{g.blocks}</dd>
                    </div>
                  ))}
                </dl>
              </>
            )}
            {view.grown && (
              <p className="hint">
                How this engine is built was worked out from the steps and joints of the book.{' '}
                {me.manages
                  ? 'Look it through, and file it with “Change the book”.'
                  : 'The manager looks it through and files it.'}
              </p>
            )}
            {view.remarks.map((r) => (
              <p key={r.pointer + r.words} className="warning-note">
                {r.words}
              </p>
            ))}
            {schema && <Sheet schema={schema} family={view.family as Record<string, Json>} />}
            <Versions
              key={view.version}
              view={view}
              onShow={(v) => setSearch(v === view.newest ? {} : { version: String(v) })}
            />
          </div>
        </div>
      )}
      {editing === undefined && (
        <section>
          <h2>Cards of this book, and their proof</h2>
          <Proof
            code={view.code}
            version={view.version}
            onChange={
              me.manages && view.version === view.newest
                ? (pointer) => setEditing(pointer)
                : undefined
            }
          />
        </section>
      )}
      {editing === undefined && (
        <section>
          <h2>Access steps, from the outside in</h2>
          <AccessGraph steps={view.family.accessSteps as GraphStep[]} />
          <h2>Book times, and times here</h2>
          <Learned code={view.code} />
        </section>
      )}
    </div>
  );
}

function Wheels({ path }: { path: Schemas['LoopView'] }) {
  return (
    <table className="plain">
      <thead>
        <tr>
          <th>Wheel</th>
          <th className="num">Teeth</th>
          <th className="num">Turns for a crank turn</th>
          <th className="num">One tooth out</th>
        </tr>
      </thead>
      <tbody>
        {path.pulleys.map((p) => (
          <tr key={p.code}>
            <td>
              {p.name}
              {p.marked && <span className="hint"> marked</span>}
            </td>
            <td className="num">{p.teeth || 'smooth'}</td>
            <td className="num">{p.turns ?? ''}</td>
            <td className="num">
              {p.toothDegrees !== undefined && `${Math.round(p.toothDegrees * 100) / 100}°`}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Versions({
  view,
  onShow,
}: {
  view: Schemas['FamilyView'];
  onShow: (version: number) => void;
}) {
  const [from, setFrom] = useState(view.version - 1);
  const { data: differences, error } = useQuery(differencesQuery(view.code, from, view.version));
  return (
    <section>
      <h2>Versions</h2>
      <ul className="log">
        {view.versions.map((v) => (
          <li key={v.version}>
            <button
              className="link"
              disabled={v.version === view.version}
              onClick={() => onShow(v.version)}
            >
              Version {v.version}
            </button>{' '}
            {v.note}
            <span className="second">
              {v.changedBy}, {formatMoment(v.changedAt)}
            </span>
          </li>
        ))}
      </ul>
      {view.versions.length > 1 && (
        <>
          <label htmlFor="from">What changed since</label>{' '}
          <Select
            id="from"
            value={from > 0 ? from : undefined}
            placeholder="choose a version"
            onChange={setFrom}
            options={view.versions
              .filter((v) => v.version !== view.version)
              .map((v) => ({ value: v.version, label: `version ${v.version}` }))}
          />
          <ProblemNote error={error} />
          {differences && <Differences list={differences} />}
        </>
      )}
    </section>
  );
}

/** The book to read: every list a table, every figure with its unit, what is missing said as such. */
function Sheet({ schema, family }: { schema: JsonSchema; family: Record<string, Json> }) {
  const { currency } = useMe();
  const lists = ['items', 'joints', 'variants', 'kits'];
  const plain = Object.entries(schema.properties ?? {}).filter(
    ([name]) =>
      !lists.includes(name) &&
      !['accessSteps', 'path', 'code', 'name', 'handling', 'tools', 'build'].includes(name),
  );
  return (
    <>
      <h2>The engine</h2>
      <dl className="book-facts">
        {plain.map(([name, s]) => (
          <Fact key={name} schema={s} value={family[name] ?? null} />
        ))}
      </dl>
      {/* where the book says how the engine is built, its handling follows from that */}
      {!family.build && (
        <>
          <h2>Handling</h2>
          <dl className="book-facts">
            {Object.entries(schema.properties?.handling?.properties ?? {}).map(([name, s]) => (
              <Fact
                key={name}
                schema={s}
                value={(family.handling as Record<string, Json>)[name] ?? null}
              />
            ))}
          </dl>
        </>
      )}
      {lists.map((name) => {
        const all = (family[name] ?? []) as Record<string, Json>[];
        const item = schema.properties?.[name]?.items;
        if (all.length === 0 || !item) return null;
        return (
          <section key={name}>
            <h2>
              {schema.properties?.[name]?.title} <span className="count">{all.length}</span>
            </h2>
            <ul className="book-list">
              {all.map((one) => (
                <li key={String(one.code ?? one.number)}>
                  <b>{String(one.name ?? one.title)}</b>{' '}
                  <span className="second">
                    {Object.entries(item.properties ?? {})
                      .filter(([f]) => !['code', 'name', 'title'].includes(f))
                      .map(([f, s]) => inWords(s, one[f] ?? null, currency))
                      .filter(Boolean)
                      .join(' · ')}
                  </span>
                </li>
              ))}
            </ul>
          </section>
        );
      })}
      <Built
        schema={schema.properties?.build}
        build={family.build as Record<string, Json> | null}
      />
      <h2>{schema.properties?.tools?.title}</h2>
      <p>{inWords(schema.properties!.tools!, family.tools ?? null, currency)}</p>
    </>
  );
}

/** How the engine is built, list by list; closed until one asks. */
function Built({ schema, build }: { schema?: JsonSchema; build: Record<string, Json> | null }) {
  const { currency } = useMe();
  if (!schema || !build) return null;
  const lists = Object.entries(schema.properties ?? {}).filter(
    ([name, s]) => kindOf(s) === 'array' && ((build[name] ?? []) as Json[]).length > 0,
  );
  return (
    <section>
      <h2>{schema.title}</h2>
      <dl className="book-facts">
        {Object.entries(schema.properties ?? {})
          .filter(([, s]) => kindOf(s) !== 'array')
          .map(([name, s]) => (
            <Fact key={name} schema={s} value={build[name] ?? null} />
          ))}
      </dl>
      {lists.map(([name, s]) => {
        const all = build[name] as Record<string, Json>[];
        return (
          <details key={name} className="built">
            <summary>
              {s.title} <span className="count">{all.length}</span>
            </summary>
            <ul className="book-list">
              {all.map((one, i) => (
                <li key={String(one.code ?? i)}>
                  <b>{String(one.name ?? one.item ?? one.thing ?? one.first)}</b>{' '}
                  <span className="second">
                    {Object.entries(s.items?.properties ?? {})
                      .filter(([f]) => !['code', 'name', 'item', 'drawing'].includes(f))
                      .map(([f, field]) => inWords(field, one[f] ?? null, currency))
                      .filter(Boolean)
                      .join(' · ')}
                  </span>
                </li>
              ))}
            </ul>
          </details>
        );
      })}
    </section>
  );
}

function Fact({ schema, value }: { schema: JsonSchema; value: Json }) {
  const words = inWords({ ...schema, title: '' }, value, useMe().currency);
  if (!words) return null;
  return (
    <div>
      <dt>{schema.title}</dt>
      <dd>{capital(words)}</dd>
    </div>
  );
}

/** A value and its unit, with its title where it would not be understood without. */
function inWords(schema: JsonSchema, value: Json, currency: string): string {
  if (value === null || value === '') {
    return schema.title === 'Tightening' ? 'torque not on file' : '';
  }
  const title = schema.title ? `${schema.title.toLowerCase()} ` : '';
  if (Array.isArray(value)) {
    const all = value
      .map((v) => inWords({ ...schema.items, title: '' }, v, currency))
      .filter(Boolean);
    const things = schema.items !== undefined && kindOf(schema.items) === 'object';
    return all.length > 0 ? `${title}${all.join(things ? '; ' : ', ')}` : '';
  }
  switch (kindOf(schema)) {
    case 'boolean':
      return value === true ? (schema.title ? schema.title.toLowerCase() : 'yes') : '';
    case 'object': {
      const fields = schema.properties
        ? Object.entries(schema.properties)
        : Object.keys(value as object).map(
            (k) => [k, { ...(schema.additionalProperties as JsonSchema), title: k }] as const,
          );
      const object = value as Record<string, Json>;
      const name = typeof object.name === 'string' ? [object.name] : [];
      const words = [
        ...name,
        ...fields
          .filter(([f]) => name.length === 0 || (f !== 'name' && f !== 'code'))
          .map(([f, s]) => inWords(s, object[f] ?? null, currency)),
      ]
        .filter(Boolean)
        .join(', ');
      return words && schema.title && isOptional(schema) ? `${title}${words}` : words;
    }
    case 'string':
      if (schema.enum) {
        return `${title}${schema['x-words']?.[schema.enum.indexOf(value as string)] ?? String(value)}`;
      }
      return `${title}${value as string}`;
    default:
      return schema['x-unit'] === 'minor units'
        ? `${title}${formatMoney(Number(value), currency)}`
        : `${title}${String(value)}${unitOf(schema)}`;
  }
}

/** A unit after its figure; the degree stands close. */
const unitOf = (schema: JsonSchema) =>
  schema['x-unit'] === '°' ? '°' : schema['x-unit'] ? ` ${schema['x-unit']}` : '';
