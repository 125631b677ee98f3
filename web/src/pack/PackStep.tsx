import { Box, Button, Flex, Heading, Text } from '@chakra-ui/react';
import {
  againstRules,
  countPacking,
  emptyBoard,
  freedom,
  isBare,
  type Packing,
  partsListCsv,
  partsOfPacking,
  placeOf,
  proofText,
  rippleOf,
  rippleText,
  rulesOf,
  type Strategy,
  strategies,
  type UnitPlace,
} from '@saddlebag/core';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { ColoursContext, coloursOf, readBoard, signalsOf, useColours, useJobView } from '../base/job-context';
import { useShortcuts } from '../base/shortcuts';
import { useLatest } from '../base/use-latest';
import { says } from '../base/words';
import { Beside } from '../kit/Beside';
import { useDesignFocus } from '../kit/design-focus';
import { download, fileName } from '../kit/download';
import { FindingLine } from '../kit/FindingLine';
import { tell } from '../kit/notices';
import { Empty, Panel } from '../kit/Panel';
import { useLayOut } from '../kit/use-lay-out';
import { useDrawer } from '../store/drawer';
import { DrawerPanel } from './DrawerPanel';
import { FamilyChoice } from './FamilyChoice';
import { GateList } from './GateList';
import { Packages } from './Packages';
import { StrategiesPanel } from './StrategiesPanel';
import { UnitBar } from './UnitBar';
import { type PackingHand, usePackingHand } from './use-packing-hand';
import { type Strategies, useStrategies } from './use-strategies';

const wayList = strategies.map((w) => w.strategy);
const packKeys = [
  { cap: 'Tab', does: 'from unit to unit' },
  { cap: 'Enter', does: 'choose a unit', isFirst: true },
  { cap: 'Esc', does: 'put a dragged gate back' },
] as const;
const noBoard = readBoard(emptyBoard, null);

/** Gates in chips: each package with its inside, the strategies side by side, and how sure each is. */
export default function PackStep() {
  const { packing, reading, netlist } = useJobView();
  useShortcuts('In the packages', packKeys);
  const drawer = useDrawer();
  const strategy = useStrategies(wayList, drawer);
  const hand = usePackingHand();
  const [chosen, choose] = useChosenUnit(packing);
  const [shown, setShown] = useState<Strategy | null>(null);
  const [open, setOpen] = useState(false);
  const looked = strategy.states.find((s) => s.strategy === shown)?.packing ?? null;
  const taken = useColours();
  // A packing that is looked at meets other signals on its chips than the one on the board.
  const colours = useMemo(
    () => (looked ? coloursOf(signalsOf(reading, looked), looked, noBoard) : taken),
    [looked, reading, taken],
  );
  const take = (next: Packing): void => {
    setShown(null);
    hand.take(next);
  };
  if (open) return <DrawerPanel entries={drawer ?? []} onClose={() => setOpen(false)} />;
  const drawn = looked ?? packing;
  return (
    <ColoursContext.Provider value={colours}>
      <PackagesPanel
        drawn={drawn}
        looked={looked ? shown : null}
        hand={hand}
        chosen={chosen}
        onChoose={choose}
        onDrawer={() => setOpen(true)}
      />
      {netlist && netlist.outputs.length > 0 && (
        <Beside title="Strategies and gates" direction="column" gap="10px" w="370px" flexShrink={0} minH="0">
          {packing && <Summary packing={packing} strategy={strategy} onTake={take} />}
          <StrategiesPanel {...{ strategy, shown, drawer }} onShow={setShown} onTake={take} />
          {drawn && (
            <Panel title="Gate by gate" hint="press one to find its unit" flex="0.7">
              <GateList packing={drawn} chosen={looked ? null : chosen} onChoose={looked ? undefined : choose} />
            </Panel>
          )}
        </Beside>
      )}
    </ColoursContext.Provider>
  );
}

/** The unit that is chosen. Whoever comes here from a gate finds it chosen. */
function useChosenUnit(packing: Packing | null) {
  const { gate: lookedAt } = useDesignFocus();
  const [chosen, choose] = useState<UnitPlace | null>(null);
  const choosesGate = useLatest((): void => {
    if (packing && lookedAt !== null) choose(placeOf(packing, lookedAt));
  });
  useEffect(choosesGate, [choosesGate]);
  return [chosen, choose] as const;
}

interface PackagesPanelProps {
  readonly drawn: Packing | null;
  /** The strategy that is looked at; null where the job's own packing is shown, which hands may change. */
  readonly looked: Strategy | null;
  readonly hand: PackingHand;
  readonly chosen: UnitPlace | null;
  readonly onChoose: (place: UnitPlace | null) => void;
  readonly onDrawer: () => void;
}

/** The packages with their insides, or why there are none. */
function PackagesPanel({ drawn, looked, hand, chosen, onChoose, onDrawer }: PackagesPanelProps) {
  const { netlist, packingPending, packingFindings } = useJobView();
  const isEmpty = netlist !== null && netlist.outputs.length === 0;
  return (
    <Panel
      title={looked ? (strategies.find((w) => w.strategy === looked)?.title ?? '') : 'Packages'}
      hint="dashed units are spare; each pin shows what it carries"
      flex="1"
      actions={
        <>
          <PartsListButton packing={drawn} />
          <FamilyChoice />
          <Button onClick={onDrawer}>Drawer</Button>
        </>
      }
    >
      <WhyNone />
      {packingFindings.map((f) => (
        <FindingLine key={says(f)} finding={f} />
      ))}
      {drawn && !isEmpty && !packingPending && (
        <>
          <Packages packing={drawn} hand={looked ? null : hand} chosen={chosen} onChoose={onChoose} />
          {!looked && <UnitBar packing={drawn} hand={hand} chosen={chosen} onChoose={onChoose} />}
        </>
      )}
    </Panel>
  );
}

/** Hands out what a packing takes as CSV. */
function PartsListButton({ packing }: { readonly packing: Packing | null }) {
  const { job } = useJobView();
  const drawer = useDrawer() ?? [];
  const take = (): void => {
    if (packing) download(fileName(job.name, '-parts.csv'), partsListCsv(packing, drawer), 'text/csv');
  };
  return (
    <Button disabled={!packing} onClick={take}>
      Parts list
    </Button>
  );
}

interface SummaryProps {
  readonly packing: Packing;
  readonly strategy: Strategies;
  readonly onTake: (packing: Packing) => void;
}

/** What the job's packing takes, how sure it is, and what comes next. */
function Summary({ packing, strategy: { states, work }, onTake }: SummaryProps) {
  const { job, reading } = useJobView();
  const netlist = reading?.design.netlist;
  const { packages, unitsUsed, unitsSpare } = countPacking(packing);
  const ripple = rippleOf(packing);
  const broken = againstRules(packing, rulesOf(job));
  const isWorking = states.some((s) => s.working);
  const again = async (): Promise<void> => {
    const made = await work(packing.strategy ?? 'written').catch(() => null);
    if (made?.packing) onTake(made.packing);
    else if (made) tell(made.findings.map(says).join(' '));
  };
  return (
    <Panel
      title={`${packages} ${packages === 1 ? 'chip' : 'chips'}`}
      hint={`${unitsUsed} ${unitsUsed === 1 ? 'unit' : 'units'} used, ${unitsSpare} spare`}
      flexShrink={0}
    >
      <Box px="12px" pb="12px">
        <Flex wrap="wrap" gap="4px 14px" mb="8px">
          {partsOfPacking(packing).map(({ part, count }) => (
            <Text key={part} fontFamily="mono" fontSize="13px">
              {count} × {part}
            </Text>
          ))}
        </Flex>
        <Text fontSize="13px" color="soft" mb="10px">
          {proofText({ ...packing, proof: packing.proof ?? (packing.proved ? 'tried' : 'best') })}{' '}
          {netlist && freedom(netlist, packing)} {ripple && rippleText(ripple)}
        </Text>
        <Heading as="h3" srOnly>
          next
        </Heading>
        {broken && (
          <Text fontSize="13px" color="warn" mb="8px">
            {says(broken)}
          </Text>
        )}
        <Flex gap="8px">
          <LayOutButton />
          <Button size="md" variant={broken ? 'solid' : 'outline'} disabled={isWorking} onClick={() => void again()}>
            {isWorking ? 'packing …' : 'Pack again'}
          </Button>
        </Flex>
      </Box>
    </Panel>
  );
}

/** Lays the packing out and turns to the board. */
function LayOutButton() {
  const { job, id } = useJobView();
  const navigate = useNavigate();
  const laying = useLayOut(() => void navigate(`/job/${id}/board`));
  const isLaid = !isBare(job.board);
  return (
    <Button size="md" variant={isLaid ? 'outline' : 'solid'} disabled={laying.share !== null} onClick={laying.afresh}>
      {isLaid ? 'Lay it out afresh' : 'Lay it out on boards'}
    </Button>
  );
}

/** Why no packages are shown, where there are none, and what to do. */
function WhyNone() {
  const { packing, packingPending, packingFindings, reading, netlist, stopPacking, startPacking } = useJobView();
  if (packingPending)
    return (
      <Empty>
        Looking for the fewest packages …
        <Button display="block" mx="auto" mt="12px" onClick={stopPacking}>
          Stop
        </Button>
      </Empty>
    );
  if (reading === null) return null;
  if (reading.design.netlist === null)
    return <Empty>The sheet has a mistake. Mend it at Design, and its gates are packed here.</Empty>;
  if (netlist?.outputs.length === 0) return <Empty>Nothing to pack yet: the sheet has no output.</Empty>;
  if (packing || packingFindings.length > 0) return null;
  return (
    <Empty>
      Stopped before a packing was found.
      <Button display="block" mx="auto" mt="12px" onClick={startPacking}>
        Pack again
      </Button>
    </Empty>
  );
}
