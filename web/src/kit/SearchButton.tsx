import { openSearch } from '../base/searchable';
import { EVERYWHERE, useShortcuts } from '../base/shortcuts';
import { TipButton } from './Tip';

/** Opens the search over actions, jobs, parts and findings; so does Ctrl K, even while one is writing. */
export function SearchButton() {
  useShortcuts(EVERYWHERE, [
    {
      cap: 'Ctrl K',
      does: 'find anything: an action, a step, a finding, a part, a job',
      keys: ['$mod+k'],
      take: () => openSearch(true),
      whileWriting: true,
    },
  ]);
  return (
    <TipButton tip="find an action, a step, a finding, a part, a job: Ctrl K" onClick={() => openSearch(true)}>
      Search
    </TipButton>
  );
}
