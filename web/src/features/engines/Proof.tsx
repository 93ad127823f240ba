import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { ProblemNote } from '../../shared/ProblemNote';
import { proofQuery } from './engineQueries';

type Purpose = Schemas['PurposeView'];

const LISTS: Record<string, string> = {
  assemblies: 'Assemblies',
  loops: 'Loops',
  joints: 'Joints',
  hardware: 'Timing hardware',
  references: 'References',
  looks: 'Looks and measures',
  fluids: 'Fluids',
  openings: 'Openings',
  wheels: 'Wheels',
  shafts: 'Shafts',
  positions: 'Crank positions',
  orders: 'Orders of its own',
  renews: 'What each item renews',
};

/** The cards a book gives, each with its proof: a seam of stitches, open where a law fails. */
export function Proof({
  code,
  version,
  onChange,
}: {
  code: string;
  version: number;
  /** takes one to the place in the book; left out where the book cannot be changed */
  onChange?: (pointer: string) => void;
}) {
  const { data: proof, error, refetch } = useQuery(proofQuery(code, version));
  const [open, setOpen] = useState<string>();
  if (error && !proof) return <ProblemNote error={error} retry={() => refetch()} />;
  if (!proof) return <p className="hint loading">Working the cards out…</p>;
  const bad = proof.purposes.filter((p) => !p.proven).length;
  return (
    <>
      <p>
        {bad === 0
          ? `All ${proof.purposes.length} cards of this book are worked out and proven.`
          : `${bad} of ${proof.purposes.length} cards are not handed out; such a job can be planned, not started.`}
      </p>
      <ol className="proofs">
        {proof.purposes.map((p) => (
          <li key={p.name} className={p.proven ? '' : 'unproven'}>
            <button
              type="button"
              className="proof-head"
              aria-expanded={open === p.name}
              onClick={() => setOpen(open === p.name ? undefined : p.name)}
            >
              <b>{p.name}</b>
              <span className="proof-seam" aria-hidden="true">
                {p.proven
                  ? p.stitches.map((s) => (
                      <i key={s.code} className={s.gate ? 'stitch across' : 'stitch'} />
                    ))
                  : p.breaches.map((_, i) => <i key={i} className="stitch open" />)}
              </span>
              <span className="hint">
                {p.proven ? `proven, ${p.stitches.length} steps` : lawsOf(p)}
              </span>
            </button>
            {open === p.name &&
              (p.proven ? <Card purpose={p} /> : <Breaches purpose={p} onChange={onChange} />)}
          </li>
        ))}
      </ol>
    </>
  );
}

const lawsOf = (p: Purpose) =>
  `not proven: law ${[...new Set(p.breaches.map((b) => b.law))].join(', ')}`;

function Card({ purpose }: { purpose: Purpose }) {
  return (
    <ol className="proof-card">
      {purpose.stitches.map((s, i) => (
        <li key={s.code}>
          {purpose.stitches[i - 1]?.phase !== s.phase && <b className="phase">{s.phase}</b>}
          <span className={s.gate ? 'holds' : ''}>
            {s.title}
            {s.gate && <span className="hint"> gate</span>}
          </span>
          {s.why && <span className="hint"> {s.why}</span>}
        </li>
      ))}
    </ol>
  );
}

function Breaches({
  purpose,
  onChange,
}: {
  purpose: Purpose;
  onChange?: (pointer: string) => void;
}) {
  return (
    <ul className="breaches">
      {purpose.breaches.map((b, i) => (
        <li key={i} className="warning-note">
          Law {b.law}, {b.lawWords}: {b.words}
          {b.at && <span className="hint"> at {b.at}</span>}
          {b.absolute && <span className="hint"> nobody overrides this law</span>}
          {b.pointer && b.list && (
            <>
              {' '}
              <span className="hint">How it is built, {LISTS[b.list] ?? b.list}</span>{' '}
              {onChange && (
                <button type="button" className="link" onClick={() => onChange(b.pointer!)}>
                  put it right there
                </button>
              )}
            </>
          )}
        </li>
      ))}
    </ul>
  );
}
