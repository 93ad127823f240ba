import { useQuery } from '@tanstack/react-query';
import { Button, Input, Popconfirm, Select, message } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { faulty, Field } from '../../shared/forms';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { NumberField } from '../../shared/ui/NumberField';
import {
  letterSetupQuery,
  mailServerQuery,
  useChangeMailServer,
  useChangeRule,
  useChangeWords,
  useRemoveWords,
  useTryMailServer,
} from './letterQueries';

type Text = Schemas['LetterTextView'];
type Own = Schemas['OwnWordsView'];
type Server = Schemas['MailServerView'];

/** When owners are reminded, in which words they are written to, and which server takes the mail. */
export default function LetterSetup() {
  const { data: setup, error, refetch } = useQuery(letterSetupQuery);
  const { data: server, error: serverError } = useQuery(mailServerQuery);
  const [notes, holder] = message.useMessage();
  const kept = () => notes.success('Kept.');
  return (
    <div className="two-columns letter-setup">
      {holder}
      <ProblemNote error={error ?? serverError} retry={() => refetch()} />
      <div>
        {setup && <Rule key={setup.rule.version} rule={setup.rule} onKept={kept} />}
        {server && <MailServer key={server.version} server={server} onKept={kept} />}
      </div>
      {setup && (
        <section>
          <h2>Words</h2>
          <p className="hint">
            What stands in braces is filled in. The words are the app’s own, in English, until you
            keep your own; an owner with a language on file gets those in that language.
          </p>
          {setup.texts.map((t) => (
            <TextWords key={t.text} text={t} onKept={kept} />
          ))}
        </section>
      )}
    </div>
  );
}

function Rule({ rule, onKept }: { rule: Schemas['ReminderRuleView']; onKept: () => void }) {
  const [r, setR] = useState(rule);
  const change = useChangeRule(onKept);
  const field = (key: 'weeksBefore' | 'weeksBetween' | 'most', label: string, unit: string) => (
    <Field id={`rule-${key}`} label={label} error={change.error} at={`/${key}`}>
      <NumberField
        id={`rule-${key}`}
        value={r[key]}
        suffix={unit}
        status={faulty(change.error, `/${key}`)}
        onChange={(value) => setR({ ...r, [key]: value ?? 0 })}
      />
    </Field>
  );
  return (
    <form
      className="form"
      onSubmit={(e) => {
        e.preventDefault();
        change.mutate(r);
      }}
    >
      <h2>Reminders</h2>
      <p className="hint">
        Nobody gets two in a week, nor one while a job is open, after a decline or where the owner
        does not want it.
      </p>
      {field('weeksBefore', 'First, before the act-by day', 'weeks')}
      {field('weeksBetween', 'Again after', 'weeks')}
      {field('most', 'At most, for one renewal', 'times')}
      <ProblemNote error={change.error} beside={['/weeksBefore', '/weeksBetween', '/most']} />
      <div className="actions">
        <Button type="primary" htmlType="submit" loading={change.isPending} disabled={r === rule}>
          Keep the rule
        </Button>
      </div>
    </form>
  );
}

const SERVER_FIELDS = ['/host', '/port', '/userName', '/password', '/sender'];

function MailServer({ server, onKept }: { server: Server; onKept: () => void }) {
  const [s, setS] = useState(server);
  const [password, setPassword] = useState('');
  const [to, setTo] = useState('');
  const change = useChangeMailServer(onKept);
  const test = useTryMailServer();
  const changed = s !== server || password !== '';
  const text = (key: 'host' | 'userName' | 'sender', label: string, hint?: string) => (
    <Field id={`mail-${key}`} label={label} error={change.error} at={`/${key}`} hint={hint}>
      <Input
        id={`mail-${key}`}
        value={s[key]}
        maxLength={200}
        status={faulty(change.error, `/${key}`)}
        onChange={(e) => setS({ ...s, [key]: e.target.value })}
      />
    </Field>
  );
  return (
    <form
      className="form"
      onSubmit={(e) => {
        e.preventDefault();
        change.mutate(
          { ...s, password: password === '' ? undefined : password },
          { onSuccess: () => setPassword('') },
        );
      }}
    >
      <h2>Mail server</h2>
      {text(
        'host',
        'Server that takes your mail (SMTP)',
        `Left empty, each mail is written as a file that a mail program opens, into ${server.folder}`,
      )}
      <div className="pair">
        <Field id="mail-port" label="Port" error={change.error} at="/port">
          <NumberField
            id="mail-port"
            value={s.port}
            status={faulty(change.error, '/port')}
            onChange={(port) => setS({ ...s, port: port ?? 0 })}
          />
        </Field>
        <Field id="mail-security" label="Security">
          <Select
            id="mail-security"
            value={s.security}
            popupMatchSelectWidth={false}
            onChange={(security) => setS({ ...s, security })}
            options={s.securities.map((c) => ({ value: c.code, label: c.words }))}
          />
        </Field>
      </div>
      <div className="pair">
        {text('userName', 'User name')}
        <Field
          id="mail-password"
          label={server.hasPassword ? 'Password, one is on file' : 'Password'}
          error={change.error}
          at="/password"
        >
          <Input.Password
            id="mail-password"
            autoComplete="new-password"
            value={password}
            maxLength={200}
            onChange={(e) => setPassword(e.target.value)}
          />
        </Field>
      </div>
      {text('sender', 'Mail comes from', 'Left empty: the workshop’s own e-mail address')}
      {server.changedBy !== '' && <p className="hint">Last changed by {server.changedBy}.</p>}
      <ProblemNote error={change.error} beside={SERVER_FIELDS} />
      <div className="actions">
        <Button type="primary" htmlType="submit" loading={change.isPending} disabled={!changed}>
          Keep the mail server
        </Button>
      </div>
      {server.host !== '' && (
        <div className="fields">
          <Field id="mail-test" label="Try it: send a test to" error={test.error} at="/to" grow>
            <Input
              id="mail-test"
              type="email"
              value={to}
              onChange={(e) => (test.reset(), setTo(e.target.value))}
            />
            <FieldNote error={test.error} at="/host" />
            {test.isSuccess && <p role="status">Taken. Look whether it arrives.</p>}
          </Field>
          <Button
            loading={test.isPending}
            disabled={to === '' || changed}
            onClick={() => test.mutate(to)}
          >
            Send a test
          </Button>
        </div>
      )}
      <ProblemNote error={test.error} beside={['/to', '/host']} />
    </form>
  );
}

function TextWords({ text, onKept }: { text: Text; onKept: () => void }) {
  const [open, setOpen] = useState(false);
  const [language, setLanguage] = useState<string>();
  const languages = text.own.map((o) => o.language);
  return (
    <div className="text-words">
      <button type="button" className="action" aria-expanded={open} onClick={() => setOpen(!open)}>
        {text.what}
      </button>{' '}
      <span className="hint">
        {languages.length === 0
          ? 'the app’s own words'
          : `your own: ${languages.map((l) => l || 'usual').join(', ')}`}
      </span>
      {open && (
        <>
          {['', ...languages.filter((l) => l !== '')].map((l) => (
            <WordsForm
              key={`${l} ${text.own.find((o) => o.language === l)?.version ?? 0}`}
              text={text}
              language={l}
              own={text.own.find((o) => o.language === l)}
              onKept={onKept}
            />
          ))}
          {language === undefined ? (
            <button type="button" className="action" onClick={() => setLanguage('')}>
              In another language
            </button>
          ) : (
            <WordsForm
              key={`new ${languages.length}`}
              text={text}
              fresh
              language=""
              onKept={() => (setLanguage(undefined), onKept())}
            />
          )}
        </>
      )}
    </div>
  );
}

function WordsForm({
  text,
  language,
  own,
  fresh = false,
  onKept,
}: {
  text: Text;
  language: string;
  own?: Own;
  /** The language is still to be said. */
  fresh?: boolean;
  onKept: () => void;
}) {
  const [tag, setTag] = useState(language);
  const [subject, setSubject] = useState(own?.subject ?? text.subject);
  const [body, setBody] = useState(own?.body ?? text.body);
  const change = useChangeWords(text.text, onKept);
  const remove = useRemoveWords(text.text, onKept);
  const id = `${text.text}-${fresh ? 'new' : language}`;
  return (
    <form
      className="form"
      onSubmit={(e) => {
        e.preventDefault();
        change.mutate({
          language: tag.trim(),
          subject: text.hasSubject ? subject : '',
          body,
          version: own?.version ?? 0,
        });
      }}
    >
      {fresh ? (
        <Field
          id={`${id}-language`}
          label="Language"
          error={change.error}
          at="/language"
          hint="A tag such as de, el or pt-BR, as it stands with the owner"
        >
          <Input
            id={`${id}-language`}
            value={tag}
            maxLength={35}
            status={faulty(change.error, '/language')}
            onChange={(e) => setTag(e.target.value)}
          />
        </Field>
      ) : (
        <h3>{language === '' ? 'Usual words' : `In ${language}`}</h3>
      )}
      {text.hasSubject && (
        <Field id={`${id}-subject`} label="Subject" error={change.error} at="/subject">
          <Input
            id={`${id}-subject`}
            value={subject}
            maxLength={200}
            status={faulty(change.error, '/subject')}
            onChange={(e) => setSubject(e.target.value)}
          />
        </Field>
      )}
      <Field
        id={`${id}-body`}
        label="Words"
        error={change.error}
        at="/body"
        hint={`Fields: ${text.fields.map((f) => `{${f}}`).join(', ')}`}
      >
        <Input.TextArea
          id={`${id}-body`}
          autoSize={{ minRows: 1, maxRows: 16 }}
          value={body}
          maxLength={4000}
          status={faulty(change.error, '/body')}
          onChange={(e) => setBody(e.target.value)}
        />
      </Field>
      {own && <p className="hint">Last changed by {own.changedBy}.</p>}
      <ProblemNote error={change.error} beside={['/language', '/subject', '/body']} />
      <ProblemNote error={remove.error} />
      <div className="actions">
        <Button
          htmlType="submit"
          loading={change.isPending}
          disabled={
            fresh
              ? tag.trim() === ''
              : subject === (own?.subject ?? text.subject) && body === (own?.body ?? text.body)
          }
        >
          Keep these words
        </Button>
        {own && (
          <Popconfirm
            title={
              language === '' ? 'The app’s own words stand again.' : 'They are not used any more.'
            }
            okText="Take mine away"
            cancelText="Keep mine"
            onConfirm={() => remove.mutate({ language, version: own.version })}
          >
            <button type="button" className="action">
              Take them away…
            </button>
          </Popconfirm>
        )}
      </div>
    </form>
  );
}
