import { Box } from '@chakra-ui/react';
import { type ReactNode, useMemo, useState, useSyncExternalStore } from 'react';
import { useJobView, useSession } from '../base/job-context';
import { inVolts, levelWords } from '../kit/level-words';
import { allChosen, type Hands } from './hand';
import { spokenHole, spokenThing, type Told } from './spoken';

interface SpokenProps {
  readonly hands: Hands;
  /** Whether the hands are on the board: elsewhere nothing is said of it. */
  readonly isOnBoard: boolean;
}

/** What the hands are at and what was done last, each told once to those who do not see it. */
export function Spoken({ hands, isOnBoard }: SpokenProps) {
  const told = useTold();
  const happened = useWhatHappened();
  const { chosen, cursor, laying } = hands;
  const many = allChosen(hands).length;
  const begun = laying === null ? '' : `jumper from ${laying}; `;
  const place = (): string => (chosen === null ? spokenHole(told, cursor) : `chosen: ${spokenThing(told, chosen)}`);
  return (
    <>
      <Said label="at the cursor">{isOnBoard && `${begun}${many > 1 ? `${many} things chosen` : place()}`}</Said>
      <Said label="what was done">{isOnBoard && happened}</Said>
    </>
  );
}

/** A text that is read out when it changes, and not seen. */
function Said({ label, children }: { readonly label: string; readonly children: ReactNode }) {
  return (
    <Box
      role="log"
      aria-live="polite"
      aria-atomic="true"
      aria-label={label}
      position="absolute"
      w="1px"
      h="1px"
      overflow="hidden"
      clipPath="inset(50%)"
    >
      {children}
    </Box>
  );
}

/** The step that was done or taken back last. */
function useWhatHappened(): string {
  const session = useSession();
  const history = useSyncExternalStore(session.subscribe, () => session.snapshot().history);
  const [seen, setSeen] = useState({ history, said: '' });
  if (seen.history !== history) {
    const isBack = history.past.length < seen.history.past.length;
    const step = (isBack ? history.future : history.past).at(-1);
    setSeen({ history, said: step ? `${isBack ? 'undone' : 'done'}: ${step.says}` : '' });
  }
  return seen.said;
}

/** The board to tell of, with what a meter reads while the power is on. */
function useTold(): Told {
  const { board, bench } = useJobView();
  // Not with every picture of a running board: the level is read when the cursor moves.
  const on = useSyncExternalStore(bench.subscribe, () => bench.snapshot().on);
  return useMemo(() => {
    const levelOf = (net: number): string | null => {
      const probed = on ? bench.probe(net) : null;
      if (!probed) return null;
      return `${levelWords[probed.level]}, ${probed.volts === null ? 'open' : `${inVolts(probed.volts)} volts`}`;
    };
    return { board: board.board, nets: board.nets, names: board.names, levelOf };
  }, [board, bench, on]);
}
