import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { outboxCountsQuery } from '../letters/letterQueries';

/** What of the letters calls for somebody; nothing where nothing does. */
export function LettersHint() {
  const { data: counts } = useQuery(outboxCountsQuery);
  if (!counts) return null;
  const stuck = counts.failed + counts.unsure;
  if (counts.toPrint + stuck === 0) return null;
  return (
    <p className="warning-note" role="status">
      <Link to="/letters">
        {[
          counts.toPrint > 0 &&
            `${counts.toPrint} ${counts.toPrint === 1 ? 'letter' : 'letters'} to print`,
          stuck > 0 && `${stuck} ${stuck === 1 ? 'message' : 'messages'} to look at`,
        ]
          .filter(Boolean)
          .join(', ')}
      </Link>
    </p>
  );
}
