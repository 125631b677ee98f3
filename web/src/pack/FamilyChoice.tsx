import { type FamilyId, families, familyIds, says } from '@saddlebag/core';
import { useJobView } from '../base/job-context';
import { Choice } from '../kit/Choice';
import { tell } from '../kit/notices';
import { stages } from '../workers/stages';

/** The family of the job's chips; another one is taken with one press, by packing and board alike, and undone with one. */
export function FamilyChoice() {
  const { job, session } = useJobView();
  const swap = async (family: FamilyId): Promise<void> => {
    const { edit, changed, findings } = await stages().swapFamily(session.job, family);
    if (!session.dispatch(edit).ok) return;
    const chips =
      changed.length === 0
        ? ''
        : `Changed on the board: ${changed.map(({ ref, to }) => `${ref} is a ${to}`).join(', ')}. `;
    const said = `${chips}${findings.map(says).join(' ')}`.trim();
    if (said !== '') tell(said);
  };
  const title = (id: FamilyId): string => `${id === '74' ? 'no letters' : id}: ${families[id].title}`;
  return (
    <Choice
      label="family of the chips"
      value={title(job.family)}
      width="190px"
      onChange={(chosen) => {
        const family = familyIds.find((id) => title(id) === chosen);
        if (family) swap(family).catch((e: unknown) => tell(`The family could not be changed: ${String(e)}`));
      }}
    >
      {familyIds.map((id) => (
        <option key={id} value={title(id)}>
          {title(id)}
        </option>
      ))}
    </Choice>
  );
}
