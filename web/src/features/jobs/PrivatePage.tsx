import { useQuery } from '@tanstack/react-query';
import { Button, Input, Popconfirm } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { formatDate } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import {
  privatePageQuery,
  useMakePrivatePage,
  useRevokePrivatePage,
  useWritePrivatePage,
} from './jobQueries';

/** The address at which the owner answers the newest estimate without an account: made, shown once, taken back. */
export function PrivatePage({ jobId }: { jobId: number }) {
  const { manages } = useMe();
  const { data: page, error, refetch } = useQuery(privatePageQuery(jobId));
  const make = useMakePrivatePage(jobId);
  const revoke = useRevokePrivatePage(jobId);
  const write = useWritePrivatePage(jobId);
  const [copied, setCopied] = useState(false);
  if (error && !page) return <ProblemNote error={error} retry={() => refetch()} />;
  if (!page) return null;
  const newest = page.links[0];
  const open = newest && !newest.ended;
  const address = make.data?.address;
  return (
    <div className="private-page">
      <h3>The owner’s private page</h3>
      {!page.offered && (
        <p className="hint">
          Owners can answer by themselves once{' '}
          {manages ? <Link to="/setup/workshop">Setup</Link> : 'Setup'} says at which address people
          outside reach this server.
        </p>
      )}
      {newest && (
        <p className="hint">
          For estimate {newest.estimateNumber}, made by {newest.madeBy} on{' '}
          {formatDate(newest.madeAt)};{' '}
          {open ? `can be answered until ${formatDate(newest.validUntil)}.` : `${newest.ended}.`}
        </p>
      )}
      {open && address && (
        <div className="address">
          <Input
            readOnly
            aria-label="Address of the private page"
            value={address}
            onFocus={(e) => e.target.select()}
          />
          <Button
            onClick={() => void navigator.clipboard?.writeText(address).then(() => setCopied(true))}
          >
            {copied ? 'Copied' : 'Copy'}
          </Button>
          <p className="hint">
            It is shown this once. Whoever has it can answer in the owner’s name, once.
          </p>
        </div>
      )}
      {page.offered && (
        <div className="actions">
          {open ? (
            <Popconfirm
              title="The address given before will open nothing."
              okText="Make a new one"
              cancelText="Go back"
              onConfirm={() => (setCopied(false), make.mutate())}
            >
              <Button loading={make.isPending}>Make a new address…</Button>
            </Popconfirm>
          ) : (
            <Button loading={make.isPending} onClick={() => (setCopied(false), make.mutate())}>
              Make an address
            </Button>
          )}
          {open && (
            <button type="button" className="action" onClick={() => revoke.mutate()}>
              Take it back
            </button>
          )}
        </div>
      )}
      {page.offered && page.ways.length > 0 && (
        <div className="actions">
          {page.ways.map((w) => (
            <button
              key={w.channel}
              type="button"
              className="action"
              title={w.place}
              disabled={write.isPending}
              onClick={() => write.mutate(w.channel)}
            >
              Send it {w.words}
            </button>
          ))}
        </div>
      )}
      {write.isSuccess && (
        <p role="status">
          Put in the <Link to="/letters">outbox</Link>; its address is made when it goes, and ends
          one that was given before.
        </p>
      )}
      <ProblemNote error={make.error ?? revoke.error ?? write.error} />
    </div>
  );
}
