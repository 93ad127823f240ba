import { Checkbox, Modal } from 'antd';
import { useLocation } from 'react-router';
import type { Schemas } from '../api/client';
import { InterferenceMark, StatusSwatch } from '../drawing/marks';
import { setSingleKeys, singleKeys } from './keyboard';

type Key = [key: string, words: string];
type MarkSet = 'vehicle' | 'work';

interface Place {
  name: string;
  /** What somebody does here, in the words of the trade. */
  what: string;
  keys?: Key[];
  marks?: MarkSet[];
}

const LIST: Key[] = [
  ['arrow up, arrow down', 'walk the list'],
  ['Enter', 'open the selected vehicle'],
];

/** By the beginning of the address, the longest that fits. */
const PLACES: Record<string, Place> = {
  '/': {
    name: 'Desk',
    what: 'Who has to be rung first: every vehicle by what its belt or chain calls for, the worst first, with what to do next about it.',
    keys: [
      ...LIST,
      ['o', 'odometer reading for the selected vehicle'],
      ['e', 'evidence for the selected vehicle'],
      ['c', 'note a call with its owner'],
      ['j', 'build its job'],
      ['n', 'do its next step'],
    ],
    marks: ['vehicle'],
  },
  '/vehicles': {
    name: 'A vehicle',
    what: 'All that is known of one vehicle: how far its clocks have run and why it stands as it does, its readings, what was found and done, its jobs. What is wrong is put right here.',
    keys: [['arrow left, arrow right', 'on the what-if handle: a week; page keys: a month']],
    marks: ['vehicle'],
  },
  '/readings': {
    name: 'Readings',
    what: 'Odometers written down in one go, such as from a yard or a week of keys.',
  },
  '/ahead': {
    name: 'Ahead',
    what: 'Every vehicle by how much of its limits it has used, distance upwards and age to the right: who crosses a limit by the day chosen.',
    keys: [
      ['arrow left, arrow right', 'a week earlier or later; page keys: a month'],
      ['n', 'go on to the next to cross'],
    ],
    marks: ['vehicle'],
  },
  '/board': {
    name: 'Board',
    what: 'Fourteen days of technicians, bays and tool sets: jobs are put on their day, and what a move would break is said before it is made.',
    keys: [
      ['arrow left, arrow right', 'a week; page keys: a month'],
      ['space', 'pick the focused job up; arrows move it, space puts it down'],
    ],
    marks: ['work'],
  },
  '/jobs': {
    name: 'Jobs',
    what: 'What goes in and why, what it costs, what the owner agreed to; then its card for the bench and what became of it.',
  },
  '/fleets': {
    name: 'Fleets',
    what: 'A fleet’s hours of work month by month, who may be off the road when, and what levelling them out would cost.',
  },
  '/engines': {
    name: 'Engines',
    what: 'The books: what each engine family asks for, what stands in the way of what, and whether a card made from it holds.',
  },
  '/stores': {
    name: 'Stores',
    what: 'Parts that booked jobs need and by when to order them, orders under way, tool sets and what is on the shelf.',
  },
  '/month': {
    name: 'Month',
    what: 'What the month brought: jobs done in time and late, minutes against the book, breakdowns against what was expected.',
  },
  '/letters': {
    name: 'Letters',
    what: 'Whom to write to and why; what was sent, and what came back.',
  },
  '/owners': {
    name: 'An owner',
    what: 'How an owner is reached, which vehicles are theirs, what was said and sent.',
    marks: ['vehicle'],
  },
  '/setup': {
    name: 'Setup',
    what: 'How this workshop decides, who works here, its places, letters, lists and backups.',
  },
  '/calculators': {
    name: 'Calculators',
    what: 'The sums of the bench by themselves, with how each comes about.',
  },
  '/practice': {
    name: 'Practice',
    what: 'Cases to judge against the rules before a customer depends on it.',
  },
  '/recall': {
    name: 'Recall',
    what: 'Vehicles that had a part, a batch or a family in common.',
  },
  '/password': {
    name: 'Your account',
    what: 'Your password, and the devices you are signed in on.',
  },
};

const EVERYWHERE: Key[] = [
  ['/', 'find: registration, owner, phone, part of a VIN, engine, job'],
  ['1 to 9, then 0', 'open the places, from left to right'],
  ['Esc', 'leave a form, asked first where something was typed; close a dialog'],
  ['?', 'this page'],
];

const placeOf = (path: string): Place => {
  const fits = Object.keys(PLACES).filter(
    (p) => p === path || (p !== '/' && path.startsWith(`${p}/`)) || p === '/',
  );
  return PLACES[fits.reduce((a, b) => (b.length > a.length ? b : a))]!;
};

const STANDS: [Schemas['DeskRow']['status'], string][] = [
  ['STOP', 'STOP: not to be started'],
  ['OVERDUE', 'overdue: a limit has been passed'],
  ['ACT_NOW', 'act now: no time left beyond getting it in'],
  ['COMING', 'coming: in the time one looks ahead'],
  ['CLEAR', 'clear: nothing calls'],
  ['UNKNOWN_HISTORY', 'history unknown: nobody knows when it was last renewed'],
  ['NO_BOOK', 'not in the book: there is no limit to count'],
];

const WORK: [string, string][] = [
  ['', 'has a day'],
  ['promised', 'promised: its owner was told, so it keeps its day'],
  ['under_way', 'under way, filled to the minutes worked'],
  ['done', 'done'],
  ['late', 'should have begun by now'],
  ['clash', 'breaks a rule; the sentence is in the sheet beside it'],
];

/** A bar as the Board draws it. */
function WorkMark({ mark }: { mark: string }) {
  return (
    <span className="work-key" aria-hidden="true">
      <span className={`job-bar ${mark}`}>
        <span className="body">
          <span className="piece">
            {mark === 'under_way' && <span className="worked" style={{ width: '40%' }} />}
          </span>
        </span>
      </span>
    </span>
  );
}

function Keys({ title, keys }: { title: string; keys: Key[] }) {
  return (
    <>
      <h3>{title}</h3>
      <dl className="keys">
        {keys.map(([key, words]) => (
          <div key={key}>
            <dt>{key}</dt>
            <dd>{words}</dd>
          </div>
        ))}
      </dl>
    </>
  );
}

/** What this place is for, its keys and the meaning of its marks. */
export function Help({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { pathname } = useLocation();
  const place = placeOf(pathname);
  return (
    <Modal
      title={place.name}
      open={open}
      onCancel={onClose}
      footer={null}
      width={520}
      style={{ top: 32 }}
    >
      <div className="help">
        <p>{place.what}</p>
        {place.marks?.includes('vehicle') && (
          <>
            <h3>Marks</h3>
            <ul className="mark-key">
              {STANDS.map(([status, words]) => (
                <li key={status}>
                  <StatusSwatch status={status} /> {words}
                </li>
              ))}
              <li>
                <InterferenceMark value="YES" /> interference engine: a belt that lets go wrecks it
              </li>
              <li>
                <InterferenceMark value="NO" /> not an interference engine
              </li>
              <li>
                <InterferenceMark value="UNKNOWN" /> nobody has confirmed which; judged as if it
                were
              </li>
            </ul>
          </>
        )}
        {place.marks?.includes('work') && (
          <>
            <h3>Marks</h3>
            <ul className="mark-key">
              {WORK.map(([mark, words]) => (
                <li key={mark}>
                  <WorkMark mark={mark} /> {words}
                </li>
              ))}
            </ul>
          </>
        )}
        {place.keys && <Keys title="Keys here" keys={place.keys} />}
        <Keys title="Keys everywhere" keys={EVERYWHERE} />
        <Checkbox defaultChecked={singleKeys()} onChange={(e) => setSingleKeys(e.target.checked)}>
          Single keys act on this machine
        </Checkbox>
      </div>
    </Modal>
  );
}
