import { Box, Button, Flex, Text } from '@chakra-ui/react';
import { type Job, placeNamed, type TourDifference, UNKNOWN } from '@saddlebag/core';
import type { PowerBench } from '../base/bench';
import { useJobView } from '../base/job-context';
import { useShortcuts } from '../base/shortcuts';
import { FindingLine } from '../kit/FindingLine';
import { KeyCap } from '../kit/Panel';
import { ProgressBar } from '../kit/ProgressBar';
import { Tag } from '../kit/Tag';
import type { TourResult } from '../workers/protocol';
import { useTour } from './use-tour';

/** The tour of a clocked design: every state with every input, seen on the board and held to the sheet. */
export function TourSection() {
  const { job, reading } = useJobView();
  const behaviour = reading?.design.behaviour ?? null;
  const stores = (behaviour?.stored.length ?? 0) > 0;
  const { progress, result, start, stop } = useTour(job.board, stores ? behaviour : null);
  useShortcuts(
    'Under power',
    stores ? [{ cap: 'W', does: 'tour the states', keys: ['w'], take: start, isFirst: true }] : [],
  );
  if (!stores) return null;
  return (
    <Box borderTopWidth="1px" borderColor="line" flexShrink={0} maxH="50%" overflowY="auto">
      {result && <Outcome result={result} />}
      <Flex gap="10px" p="10px 12px" align="center" minH="53px">
        {progress ? (
          <Button onClick={stop}>Stop</Button>
        ) : (
          <Button variant={result ? 'outline' : 'solid'} gap="6px" onClick={start}>
            Tour the states <KeyCap>W</KeyCap>
          </Button>
        )}
        {progress ? (
          <ProgressBar flex="1" value={progress.covered} max={Math.max(1, progress.transitions)} label="tour" />
        ) : (
          <Text role="status" fontSize="13px" color={result?.first ? 'bad' : result?.covered ? 'ok' : 'soft'}>
            {result ? verdict(result) : 'every state, with every input, against the sheet'}
          </Text>
        )}
      </Flex>
    </Box>
  );
}

/** What a tour came to; one that saw nothing agrees with nothing. */
function verdict({ covered, transitions, presses, differing }: TourResult): string {
  if (covered + differing === 0) return 'no transition was seen';
  const seen = `${covered} of ${transitions} transitions seen in ${presses} presses`;
  return differing === 0 ? `${seen}, all agree` : `${seen}, ${differing} differing`;
}

/** What a tour came to beyond its count: where the board first did otherwise, with the presses that lead there. */
function Outcome({ result }: { readonly result: TourResult }) {
  const { bench, job } = useJobView();
  const { first, outputs, findings } = result;
  return (
    <>
      {findings.map((finding) => (
        <FindingLine key={finding.code} finding={finding} />
      ))}
      {first && (
        <Box p="8px 12px 0" fontSize="13px">
          <Flex wrap="wrap" gap="3px 4px" align="center" role="group" aria-label="presses that lead there">
            <Text color="soft">From power up{typeof first.start === 'object' ? ', started by chance,' : ''} press</Text>
            {shortened(first.presses).map((name, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: presses have nothing but their order
              <Flex key={i}>{name === null ? <Text color="soft">…</Text> : <Tag signal={name} />}</Flex>
            ))}
          </Flex>
          <Flex wrap="wrap" gap="3px 10px" mt="5px">
            {outputs.map((name, o) => {
              const [wanted, seen] = [first.wanted[o], first.seen[o]];
              if (wanted === null || wanted === seen) return null;
              return (
                <Text key={name}>
                  <b>{name}</b> should be {wanted}, seen {seen === UNKNOWN ? '?' : seen}
                </Text>
              );
            })}
          </Flex>
          <Button mt="6px" onClick={() => replay(bench, job, first)}>
            Do it on the board
          </Button>
        </Box>
      )}
    </>
  );
}

/** Presses that are shown: the first and the last of many. */
const SHOWN = { first: 6, last: 10 } as const;

function shortened(presses: readonly string[]): (string | null)[] {
  const { first, last } = SHOWN;
  if (presses.length <= first + last) return [...presses];
  return [...presses.slice(0, first), null, ...presses.slice(-last)];
}

/** Powers the board up with its switches off, started as the tour was, and presses them one after the other. */
function replay(bench: PowerBench, job: Job, { presses, start }: Pick<TourDifference, 'presses' | 'start'>): void {
  const called = (name: string): string | undefined => placeNamed(job.board, 'give', name)?.called;
  bench.powerOff();
  bench.setPace({ start });
  const used = [...new Set(presses)].flatMap((name) => called(name) ?? []);
  bench.setSwitches(new Map(used.map((ref) => [ref, false])));
  bench.powerOn();
  for (const name of presses) {
    const ref = called(name);
    if (ref !== undefined) bench.flip(ref);
  }
}
