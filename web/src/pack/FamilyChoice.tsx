import { type FamilyId, families, familyIds, familyWords, mixtureOf } from '@saddlebag/core';
import { useJobView } from '../base/job-context';
import { says, shownValue } from '../base/words';
import { Choice } from '../kit/Choice';
import { tell } from '../kit/notices';
import { useDrawer } from '../store/drawer';
import { stages } from '../workers/stages';

/** The choice of what the drawer has, whatever families that are. */
const MIXTURE = 'drawer';

/** The family of the job's chips; another one, or the drawer's own mixture, is taken with one press, by packing and board alike, and undone with one. */
export function FamilyChoice() {
  const { job, session } = useJobView();
  const drawer = useDrawer() ?? [];
  const mixture = mixtureOf(drawer);
  const swap = async (family: FamilyId, entries?: typeof drawer): Promise<void> => {
    const { edit, changed, pullDowns, findings } = await stages().swapFamily(session.job, family, entries);
    if (!session.dispatch(edit).ok) return;
    const resistors = pullDowns.map(({ ref, to }) => ({ ref, to: shownValue('resistor', to).trim() }));
    const said = `${changedWords([...changed, ...resistors])} ${findings.map(says).join(' ')}`.trim();
    if (said !== '') tell(said);
  };
  const choose = (chosen: string): void => {
    const family = chosen === MIXTURE ? mixture?.family : familyIds.find((id) => id === chosen);
    if (!family) return;
    swap(family, chosen === MIXTURE ? drawer : undefined).catch((e: unknown) =>
      tell(`The family could not be changed: ${String(e)}`),
    );
  };
  return (
    <Choice label="family of the chips" value={job.family} width="190px" onChange={choose}>
      {familyIds.map((id) => (
        <option key={id} value={id}>
          {`${id === '74' ? 'no letters' : id}: ${families[id].title}`}
        </option>
      ))}
      {mixture && (
        <option value={MIXTURE}>
          {`as in the drawer: ${[mixture.family, ...mixture.others].map(familyWords).join(', ')}`}
        </option>
      )}
    </Choice>
  );
}

/** What parts became, those that became the same together: `74LS32: U1 U2; 270 Ω: R1 R3.` */
function changedWords(changed: readonly { readonly ref: string; readonly to: string }[]): string {
  const refs = new Map<string, string[]>();
  for (const { ref, to } of changed) refs.set(to, [...(refs.get(to) ?? []), ref]);
  const words = [...refs].map(([to, all]) => `${to}: ${all.join(' ')}`);
  return words.length === 0 ? '' : `Now on the board: ${words.join('; ')}.`;
}
