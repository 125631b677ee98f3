import { Box, Button, Flex, Text } from '@chakra-ui/react';
import {
  countPacking,
  type DrawerEntry,
  jumpersToLay,
  missingFrom,
  type Packing,
  type PackProgress,
  pathOf,
  proofText,
  rippleOf,
  rippleText,
  type Strategy,
  stockOf,
  strategies,
} from '@saddlebag/core';
import { useEffect, useRef } from 'react';
import { useJobView } from '../base/job-context';
import { fixed } from '../base/numbers';
import { says } from '../base/words';
import { Panel } from '../kit/Panel';
import type { Strategies, StrategyState } from './use-strategies';

interface StrategiesPanelProps {
  readonly strategy: Pick<Strategies, 'states' | 'ask' | 'stop'>;
  readonly shown: Strategy | null;
  readonly drawer: readonly DrawerEntry[] | undefined;
  readonly onShow: (strategy: Strategy | null) => void;
  readonly onTake: (packing: Packing) => void;
}

/** The strategies, side by side: each worked out when it is asked for, looked at by pressing it, and taken. */
export function StrategiesPanel({ strategy, shown, drawer, onShow, onTake }: StrategiesPanelProps) {
  const { states, ask, stop } = strategy;
  const working = states.some((s) => s.working);
  const { job } = useJobView();
  const stock = drawer && drawer.length > 0 ? stockOf(drawer, job.family) : null;
  const near = states.find((s) => s.strategy === 'drawer');
  // Where something is missing, what can be built instead is worked out without being asked for.
  const lacking = stock !== null && states.some((s) => s.packing && missingFrom(s.packing, stock).length > 0);
  const askNear = lacking && near !== undefined && !near.working && !near.packing && near.findings.length === 0;
  const asking = useRef(ask);
  asking.current = ask;
  useEffect(() => {
    if (askNear && !working) asking.current(['drawer']);
  }, [askNear, working]);
  const instead = near?.packing ? saysInstead(near) : null;
  const fewest = states.find((s) => s.strategy === 'fewest')?.packing ?? null;
  return (
    <Panel
      title="Strategies"
      flex="1.7"
      actions={
        working ? (
          <Button onClick={stop}>Stop</Button>
        ) : (
          <Button
            onClick={() =>
              ask(strategies.map((w) => w.strategy).filter((w) => w !== 'drawer' || (drawer?.length ?? 0) > 0))
            }
          >
            Work out all
          </Button>
        )
      }
    >
      <Box as="ul" listStyleType="none" overflowY="auto" flex="1" minH="0" aria-label="strategies">
        {states.map((state) => (
          <StrategyLine
            key={state.strategy}
            state={state}
            chosen={shown === state.strategy}
            drawer={drawer}
            instead={instead}
            gatesAlone={fewest}
            onAsk={() => ask([state.strategy])}
            onShow={() => onShow(shown === state.strategy ? null : state.strategy)}
            onTake={onTake}
          />
        ))}
      </Box>
    </Panel>
  );
}

interface StrategyLineProps {
  readonly state: StrategyState;
  readonly chosen: boolean;
  readonly drawer: readonly DrawerEntry[] | undefined;
  readonly instead: string | null;
  /** The fewest chips without larger ones as logic, where that is known. */
  readonly gatesAlone: Packing | null;
  readonly onAsk: () => void;
  readonly onShow: () => void;
  readonly onTake: (packing: Packing) => void;
}

function StrategyLine({ state, chosen, drawer, instead, gatesAlone, onAsk, onShow, onTake }: StrategyLineProps) {
  const { packing: current } = useJobView();
  const { strategy, packing, working } = state;
  const title = strategies.find((w) => w.strategy === strategy)?.title;
  const isTaken = current !== null && (current.strategy ?? 'written') === strategy;
  return (
    <Flex
      as="li"
      gap="8px"
      pl="8px"
      pr="12px"
      py="7px"
      borderTopWidth="1px"
      borderColor="line"
      align="flex-start"
      borderLeftWidth="4px"
      borderLeftColor={chosen ? 'moss' : 'transparent'}
    >
      <Box flex="1" minW="0">
        <Text fontSize="13.5px">
          <b>{title}</b>
          {isTaken && (
            <Text as="span" color="ok" fontWeight="600">
              {' '}
              · taken
            </Text>
          )}
        </Text>
        <Outcome state={state} drawer={drawer} instead={strategy === 'drawer' ? null : instead} />
        {strategy === 'blocks' && packing && gatesAlone && <Saved packing={packing} gatesAlone={gatesAlone} />}
      </Box>
      {packing ? (
        <Flex direction="column" gap="4px">
          <Button aria-pressed={chosen} onClick={onShow} aria-label={`Look at ${title}`}>
            Look
          </Button>
          <Button disabled={isTaken} onClick={() => onTake(packing)} aria-label={`Use ${title}`}>
            Use
          </Button>
        </Flex>
      ) : (
        <Button disabled={working} onClick={onAsk} aria-label={working ? 'working …' : `Find ${title}`}>
          {working ? 'working …' : 'Find'}
        </Button>
      )}
    </Flex>
  );
}

/** What a strategy came to, how far it is, or what it is about; what the drawer lacks for it, and what was found on the way. */
function Outcome({ state, drawer, instead }: Pick<StrategyLineProps, 'state' | 'drawer' | 'instead'>) {
  const { job } = useJobView();
  const { packing, findings, failed } = state;
  const about = strategies.find((w) => w.strategy === state.strategy)?.says;
  return (
    <>
      {packing ? (
        <Figures packing={packing} />
      ) : (
        <Text fontSize="12px" color="soft">
          {state.working && state.progress ? saysProgress(state.progress) : about}
        </Text>
      )}
      {packing && drawer && drawer.length > 0 && findings.length === 0 && (
        <Missing packing={packing} drawer={drawer} family={job.family} instead={instead} />
      )}
      {findings.map((f) => (
        <Text key={says(f)} fontSize="12px" color={f.severity === 'error' ? 'bad' : 'soft'}>
          {says(f)}
        </Text>
      ))}
      {failed !== null && (
        <Text fontSize="12px" color="bad">
          {failed}
        </Text>
      )}
    </>
  );
}

/** What larger chips save beside the fewest of gates alone. */
function Saved({ packing, gatesAlone }: { readonly packing: Packing; readonly gatesAlone: Packing }) {
  const saved = gatesAlone.packages.length - packing.packages.length;
  return (
    <Text fontSize="12px" color={saved > 0 ? 'ok' : 'soft'}>
      {saved > 0
        ? `Saves ${saved} ${saved === 1 ? 'chip' : 'chips'} beside the fewest of gates alone.`
        : 'Saves nothing beside the fewest of gates alone.'}
    </Text>
  );
}

/** What the drawer allows, for whoever looks at a way that it does not. */
function saysInstead({ packing, findings }: StrategyState): string {
  const chips = packing?.packages.length ?? 0;
  const near = `${chips} ${chips === 1 ? 'chip' : 'chips'}`;
  return findings.length > 0 ? `The nearest, of ${near}, lacks some too` : `From the drawer it takes ${near}`;
}

/** What a packing takes, and how sure it is that less will not do. */
function Figures({ packing }: { readonly packing: Packing }) {
  const { packages, unitsUsed, unitsSpare } = countPacking(packing);
  const path = pathOf(packing);
  const ripple = rippleOf(packing);
  return (
    <>
      <Text fontFamily="mono" fontSize="12.5px">
        {packages} {packages === 1 ? 'chip' : 'chips'}, {unitsUsed} {unitsUsed === 1 ? 'unit' : 'units'}, {unitsSpare}{' '}
        spare
      </Text>
      <Text fontSize="12px" color="soft">
        {jumpersToLay(packing)} jumpers · {path.gates} gates deep, {fixed(path.typicalNs, 0)} ns, at most{' '}
        {fixed(path.mostNs, 0)}
      </Text>
      {ripple && (
        <Text fontSize="12px" color="soft">
          {rippleText(ripple)}
        </Text>
      )}
      <Text fontSize="12px" color={packing.proof === 'all' ? 'ok' : 'soft'}>
        {proofText(packing)}
      </Text>
    </>
  );
}

/** How far a way is: chips of the best so far, and the number that none goes below. */
function saysProgress({ best, bound }: PackProgress): string {
  const found = best === null ? 'nothing found yet' : `${best} chips so far`;
  return bound === null ? `${found} …` : `${found}, none with fewer than ${bound} …`;
}

interface MissingProps {
  readonly packing: Packing;
  readonly drawer: readonly DrawerEntry[];
  readonly family: Parameters<typeof stockOf>[1];
  /** What can be built from the drawer in its place, in words; null where that is not known. */
  readonly instead: string | null;
}

function Missing({ packing, drawer, family, instead }: MissingProps) {
  const missing = missingFrom(packing, stockOf(drawer, family));
  if (missing.length === 0)
    return (
      <Text fontSize="12px" color="ok">
        All of it is in the drawer.
      </Text>
    );
  return (
    <Text fontSize="12px" color="warn">
      Not in the drawer: {missing.map((m) => `${m.need - m.have} × ${m.part}`).join(', ')}
      {instead && `. ${instead}`}
    </Text>
  );
}
