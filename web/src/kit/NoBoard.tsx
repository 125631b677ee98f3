import { Link } from 'react-router';
import { Empty } from './Panel';

/** What a later step shows while nothing is on the board, and the way there. */
export function NoBoard({ jobId, why }: { readonly jobId: string; readonly why: string }) {
  return (
    <Empty>
      {why}{' '}
      <Link to={`/job/${jobId}/board`} style={{ textDecoration: 'underline' }}>
        Lay it out at Board
      </Link>{' '}
      first.
    </Empty>
  );
}
