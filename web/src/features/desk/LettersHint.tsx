import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { outboxCountsQuery } from '../letters/letterQueries';

/** The way to the letters, and whether one of them calls for somebody. */
export function LettersHint() {
  const { data: counts } = useQuery(outboxCountsQuery);
  const stuck = counts ? counts.failed + counts.unsure : 0;
  return (
    <span className="hint">
      <Link to="/letters">Letters</Link>
      {counts && counts.toPrint > 0 && `, ${counts.toPrint} to print`}
      {stuck > 0 && <b>, {stuck} to look at</b>}
    </span>
  );
}
