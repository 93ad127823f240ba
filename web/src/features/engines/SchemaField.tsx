import { Checkbox, Input, Select } from 'antd';
import { useId, useState } from 'react';
import { Problem } from '../../api/client';
import { amountOf, minorOf } from '../../shared/money';
import { useMe } from '../../shared/me';
import {
  blank,
  codesOf,
  filled,
  isOptional,
  kindOf,
  pointer,
  type Json,
  type JsonSchema,
} from './schemaForm';
import { NumberField } from '../../shared/ui/NumberField';

interface Props {
  schema: JsonSchema;
  value: Json;
  path: (string | number)[];
  family: Json;
  error: unknown;
  onChange: (path: (string | number)[], value: Json) => void;
  /** the value stands alone in a list, so its title is not repeated */
  bare?: boolean;
}

type Fields = Record<string, Json>;

/** One value of a book, drawn from its schema: a control, a group, a list, or a map by code. */
export function SchemaField(props: Props) {
  const { schema } = props;
  if (schema['x-ref']) return <Reference {...props} />;
  if (schema['x-unit'] === 'minor units') return <Money {...props} />;
  switch (kindOf(schema)) {
    case 'object':
      return schema['x-keys'] ? <ByCode {...props} /> : <Group {...props} />;
    case 'array':
      return <List {...props} />;
    case 'boolean':
      return <Yes {...props} />;
    default:
      return <Leaf {...props} />;
  }
}

function Note({ error, path }: { error: unknown; path: (string | number)[] }) {
  const words = error instanceof Problem ? error.at(pointer(path)) : undefined;
  return words ? (
    <span className="field-note" role="alert">
      {words}
    </span>
  ) : null;
}

function Label({ id, schema, bare }: { id: string; schema: JsonSchema; bare?: boolean }) {
  return (
    <label htmlFor={id} className={bare ? 'unseen' : ''}>
      {schema.title}
      {isOptional(schema) && <span className="hint"> if any</span>}
    </label>
  );
}

/** Money is typed in the workshop's currency and kept in minor units. */
function Money({ schema, value, path, error, onChange, bare }: Props) {
  const { currency } = useMe();
  const id = useId();
  const [text, setText] = useState(typeof value === 'number' ? amountOf(value, currency) : '');
  const bad =
    Number.isNaN(minorOf(text, currency)) ||
    (error instanceof Problem && error.at(pointer(path)) !== undefined);
  return (
    <div className="leaf">
      <Label id={id} schema={schema} bare={bare} />
      <Input
        id={id}
        className="amount"
        value={text}
        suffix={currency}
        status={bad ? 'error' : ''}
        onChange={(e) => {
          setText(e.target.value);
          const minor = minorOf(e.target.value, currency);
          if (!Number.isNaN(minor)) onChange(path, minor);
        }}
      />
      <Note error={error} path={path} />
    </div>
  );
}

function Leaf({ schema, value, path, error, onChange, bare }: Props) {
  const id = useId();
  const bad = error instanceof Problem && error.at(pointer(path)) ? 'error' : '';
  const optional = isOptional(schema);
  const kind = kindOf(schema);
  return (
    <div className={kind === 'string' && !schema.enum ? 'leaf wide' : 'leaf'}>
      <Label id={id} schema={schema} bare={bare} />
      {schema.enum ? (
        <Select
          id={id}
          value={value as string}
          status={bad}
          popupMatchSelectWidth={false}
          onChange={(v: string) => onChange(path, v)}
          options={schema.enum.map((e, i) => ({
            value: e,
            label: schema['x-words']?.[i] ?? e,
          }))}
        />
      ) : kind === 'string' ? (
        <Input
          id={id}
          value={(value as string | null) ?? ''}
          maxLength={schema.maxLength}
          status={bad}
          onChange={(e) =>
            onChange(path, optional && e.target.value === '' ? null : e.target.value)
          }
        />
      ) : (
        <NumberField
          id={id}
          value={(value as number | null) ?? undefined}
          decimals={kind === 'integer' ? 0 : 4}
          status={bad}
          suffix={schema['x-unit']}
          onChange={(v) => onChange(path, v ?? (optional ? null : (schema.minimum ?? 0)))}
        />
      )}
      {schema.description && <span className="hint">{schema.description}</span>}
      <Note error={error} path={path} />
    </div>
  );
}

function Yes({ schema, value, path, error, onChange }: Props) {
  return (
    <div className="leaf yes">
      <Checkbox checked={value === true} onChange={(e) => onChange(path, e.target.checked)}>
        {schema.title}
      </Checkbox>
      <Note error={error} path={path} />
    </div>
  );
}

function Reference({ schema, value, path, family, error, onChange, bare }: Props) {
  const id = useId();
  return (
    <div className="leaf">
      <Label id={id} schema={schema} bare={bare} />
      <Select
        id={id}
        value={(value as string) || undefined}
        allowClear={isOptional(schema)}
        placeholder="choose"
        popupMatchSelectWidth={false}
        status={error instanceof Problem && error.at(pointer(path)) ? 'error' : ''}
        onChange={(v: string | undefined) => onChange(path, v ?? (isOptional(schema) ? null : ''))}
        options={codesOf(family, schema['x-ref']!)}
      />
      <Note error={error} path={path} />
    </div>
  );
}

function Group({ schema, value, path, family, error, onChange, bare }: Props) {
  if (value === null || value === undefined) {
    return (
      <div className="leaf">
        <span className="label">{schema.title}</span>
        <span className="not-on-file">not on file</span>{' '}
        <button type="button" className="link" onClick={() => onChange(path, filled(schema))}>
          write it down
        </button>
        <Note error={error} path={path} />
      </div>
    );
  }
  const fields = value as Fields;
  const only = Object.entries(schema.properties ?? {});
  if (only.length === 1 && !isOptional(schema)) {
    // a value in a wrapper of its own is shown as the value
    const [name, inner] = only[0]!;
    return (
      <SchemaField
        schema={inner}
        value={fields[name] ?? null}
        path={[...path, name]}
        family={family}
        error={error}
        onChange={onChange}
      />
    );
  }
  return (
    <fieldset className={bare ? 'group bare' : 'group'}>
      {!bare && (
        <legend>
          {schema.title}
          {isOptional(schema) && (
            <button type="button" className="link" onClick={() => onChange(path, null)}>
              take out
            </button>
          )}
        </legend>
      )}
      <Note error={error} path={path} />
      <div className="leaves">
        {Object.entries(schema.properties ?? {}).map(([name, s]) => (
          <SchemaField
            key={name}
            schema={s}
            value={fields[name] ?? null}
            path={[...path, name]}
            family={family}
            error={error}
            onChange={onChange}
          />
        ))}
      </div>
    </fieldset>
  );
}

/** Lists of short values stand in a row; lists of things open one at a time. */
function List({ schema, value, path, family, error, onChange }: Props) {
  const all = (value ?? []) as Json[];
  const item = schema.items!;
  const things = kindOf(item) === 'object';
  const [open, setOpen] = useState<number>();
  const one = schema['x-one'] ?? 'entry';
  const move = (from: number, to: number) => {
    const copy = [...all];
    copy.splice(to, 0, ...copy.splice(from, 1));
    onChange(path, copy);
    setOpen(to);
  };
  const faulty = (i: number) =>
    error instanceof Problem &&
    error.errors.some(
      (e) =>
        e.pointer === pointer([...path, i]) || e.pointer.startsWith(pointer([...path, i]) + '/'),
    );
  return (
    <div className="leaf list">
      <span className="label">
        {schema.title} <span className="count">{all.length}</span>
      </span>
      {schema.description && <span className="hint">{schema.description}</span>}
      <Note error={error} path={path} />
      <ol className={things ? 'things' : 'short'}>
        {all.map((v, i) => (
          <li key={i} className={faulty(i) ? 'bad-line' : ''}>
            {things ? (
              <>
                <button
                  type="button"
                  className="thing"
                  aria-expanded={open === i}
                  onClick={() => setOpen(open === i ? undefined : i)}
                >
                  {nameOf(v) || `${one} ${i + 1}`}
                  <span className="hint">{summary(v, item)}</span>
                </button>
                {(open === i || faulty(i)) && (
                  <div className="thing-body">
                    <SchemaField
                      schema={item}
                      value={v}
                      path={[...path, i]}
                      family={family}
                      error={error}
                      onChange={onChange}
                      bare
                    />
                    <div className="actions">
                      <button
                        type="button"
                        className="link"
                        disabled={i === 0}
                        onClick={() => move(i, i - 1)}
                      >
                        earlier
                      </button>
                      <button
                        type="button"
                        className="link"
                        disabled={i === all.length - 1}
                        onClick={() => move(i, i + 1)}
                      >
                        later
                      </button>
                      <button
                        type="button"
                        className="link"
                        onClick={() =>
                          onChange(
                            path,
                            all.filter((_, k) => k !== i),
                          )
                        }
                      >
                        take {nameOf(v) || one} out
                      </button>
                    </div>
                  </div>
                )}
              </>
            ) : (
              <>
                <SchemaField
                  schema={item}
                  value={v}
                  path={[...path, i]}
                  family={family}
                  error={error}
                  onChange={onChange}
                  bare
                />
                <button
                  type="button"
                  className="link"
                  aria-label={`take ${String(v)} out`}
                  onClick={() =>
                    onChange(
                      path,
                      all.filter((_, k) => k !== i),
                    )
                  }
                >
                  ✕
                </button>
              </>
            )}
          </li>
        ))}
      </ol>
      <button
        type="button"
        className="link"
        onClick={() => {
          onChange(path, [...all, blank(item)]);
          setOpen(all.length);
        }}
      >
        add a {one}
      </button>
    </div>
  );
}

/** A map whose keys are codes of the family. */
function ByCode({ schema, value, path, family, error, onChange }: Props) {
  const map = (value ?? {}) as Fields;
  const item = schema.additionalProperties as JsonSchema;
  const codes = codesOf(family, schema['x-keys']!);
  const free = codes.filter((c) => !(c.value in map));
  return (
    <div className="leaf list">
      <span className="label">{schema.title}</span>
      <Note error={error} path={path} />
      {Object.keys(map).map((code) => (
        <fieldset key={code} className="group">
          <legend>
            {codes.find((c) => c.value === code)?.label ?? code}
            <button
              type="button"
              className="link"
              onClick={() =>
                onChange(path, Object.fromEntries(Object.entries(map).filter(([k]) => k !== code)))
              }
            >
              take out
            </button>
          </legend>
          <SchemaField
            schema={item}
            value={map[code]!}
            path={[...path, code]}
            family={family}
            error={error}
            onChange={onChange}
            bare
          />
        </fieldset>
      ))}
      {free.length > 0 && (
        <Select
          aria-label={`Add to ${schema.title}`}
          value={null}
          placeholder="add for"
          popupMatchSelectWidth={false}
          onChange={(code: string | null) =>
            code && onChange(path, { ...map, [code]: filled(item) })
          }
          options={free}
        />
      )}
    </div>
  );
}

function nameOf(value: Json): string {
  const v = (value ?? {}) as Fields;
  return String(v.name ?? v.title ?? v.figure ?? '');
}

/** A few figures that tell one thing of a list from another. */
function summary(value: Json, schema: JsonSchema): string {
  const v = (value ?? {}) as Fields;
  const torque = v.torque as Fields | null | undefined;
  const words = [
    typeof v.figure === 'string' ? wordOf(schema.properties?.unit, v.unit) : '',
    typeof v.minutes === 'number' ? `${v.minutes} min` : '',
    typeof v.equipment === 'string' ? `with ${v.equipment}` : '',
    typeof v.teeth === 'number' ? (v.teeth > 0 ? `${v.teeth} teeth` : 'smooth') : '',
    typeof v.bolts === 'number' ? `${v.bolts} ${v.bolts === 1 ? 'bolt' : 'bolts'}` : '',
    torque === null ? 'torque not on file' : '',
    torque && typeof torque.torque === 'object'
      ? `${String((torque.torque as Fields).newtonMetres)} N·m${torque.angleDegrees ? ` + ${String(torque.angleDegrees)}°` : ''}`
      : '',
    typeof v.count === 'number' && typeof v.use === 'string' ? `${v.count}, ${v.use}` : '',
  ].filter(Boolean);
  return words.length > 0 ? ` ${words.join(', ')}` : '';
}

function wordOf(schema: JsonSchema | undefined, value: Json | undefined): string {
  const i = schema?.enum?.indexOf(String(value)) ?? -1;
  return schema?.['x-words']?.[i] ?? '';
}
