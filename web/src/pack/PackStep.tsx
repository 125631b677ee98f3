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
  rulesOf,
  type Strategy,
  says,
  strategies,
  type UnitPlace,
} from '@saddlebag/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { ColoursContext, coloursOf, readBoard, signalsOf, useColours, useJobView } from '../base/job-context';
import { useShortcuts } from '../base/shortcuts';
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
import { usePackingHand } from './use-packing-hand';
import { useStrategies } from './use-strategies';

const wayList = strategies.map((w) => w.strategy);
const packKeys = [
  { cap: 'Tab', does: 'from unit to unit' },
  { cap: 'Enter', does: 'choose a unit', isFirst: true },
  { cap: 'Esc', does: 'put a dragged gate back' },
] as const;
const noBoard = readBoard(emptyBoard, null);

/** Gates in chips: each package with its inside, the strategies side by side, and how sure each is. */
export default function PackStep() {
  const view = useJobView();
  const { packing, packingPending, packingFindings, reading, netlist, job } = view;
  useShortcuts('In the packages', packKeys);
  const drawer = useDrawer();
  const { states, ask, work, stop } = useStrategies(wayList, drawer);
  const hand = usePackingHand();
  const { gate: lookedAt } = useDesignFocus();
  // Whoever comes here from a gate finds it chosen.
  const [chosen, choose] = useState<UnitPlace | null>(null);
  const gate = useRef(lookedAt);
  gate.current = lookedAt;
  const here = useRef(packing);
  here.current = packing;
  useEffect(() => {
    if (here.current && gate.current !== null) choose(placeOf(here.current, gate.current));
  }, []);
  const [shown, setShown] = useState<Strategy | null>(null);
  const [open, setOpen] = useState(false);
  const nothing = netlist !== null && netlist.outputs.length === 0;
  const looked = states.find((s) => s.strategy === shown)?.packing ?? null;
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
  const again = async (): Promise<void> => {
    const made = await work(packing?.strategy ?? 'written').catch(() => null);
    if (made?.packing) take(made.packing);
    else if (made) tell(made.findings.map(says).join(' '));
  };
  if (open) return <DrawerPanel entries={drawer ?? []} onClose={() => setOpen(false)} />;
  const drawn = looked ?? packing;
  return (
    <ColoursContext.Provider value={colours}>
      <Panel
        title={looked ? (strategies.find((w) => w.strategy === shown)?.title ?? '') : 'Packages'}
        hint="dashed units are spare; each pin shows what it carries"
        flex="1"
        actions={
          <>
            <Button
              disabled={!drawn}
              onClick={() =>
                drawn && download(fileName(job.name, '-parts.csv'), partsListCsv(drawn, drawer ?? []), 'text/csv')
              }
            >
              Parts list
            </Button>
            <FamilyChoice />
            <Button onClick={() => setOpen(true)}>Drawer</Button>
          </>
        }
      >
        <WhyNone />
        {packingFindings.map((f) => (
          <FindingLine key={says(f)} finding={f} />
        ))}
        {drawn && !nothing && !packingPending && (
          <>
            <Packages packing={drawn} hand={looked ? null : hand} chosen={chosen} onChoose={choose} />
            {!looked && <UnitBar packing={drawn} hand={hand} chosen={chosen} onChoose={choose} />}
          </>
        )}
      </Panel>
      {netlist && !nothing && (
        <Flex direction="column" gap="10px" w="370px" flexShrink={0} minH="0">
          {packing && (
            <Summary packing={packing} working={states.some((s) => s.working)} onAgain={() => void again()} />
          )}
          <StrategiesPanel
            states={states}
            shown={shown}
            drawer={drawer}
            onAsk={ask}
            onStop={stop}
            onShow={setShown}
            onTake={take}
          />
          {drawn && (
            <Panel title="Gate by gate" hint="press one to find its unit" flex="0.7">
              <GateList packing={drawn} chosen={looked ? null : chosen} onChoose={looked ? undefined : choose} />
            </Panel>
          )}
        </Flex>
      )}
    </ColoursContext.Provider>
  );
}

interface SummaryProps {
  readonly packing: Packing;
  readonly working: boolean;
  readonly onAgain: () => void;
}

/** What the job's packing takes, how sure it is, and what comes next. */
function Summary({ packing, working, onAgain }: SummaryProps) {
  const { job, id, reading } = useJobView();
  const netlist = reading?.design.netlist;
  const free = netlist && freedom(netlist, packing);
  const navigate = useNavigate();
  const { packages, unitsUsed, unitsSpare } = countPacking(packing);
  const laid = !isBare(job.board);
  const broken = againstRules(packing, rulesOf(job));
  const laying = useLayOut(() => void navigate(`/job/${id}/board`));
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
          {proofText({ ...packing, proof: packing.proof ?? (packing.proved ? 'tried' : 'best') })} {free}
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
          <Button
            size="md"
            variant={laid ? 'outline' : 'solid'}
            disabled={laying.share !== null}
            onClick={laying.afresh}
          >
            {laid ? 'Lay it out afresh' : 'Lay it out on boards'}
          </Button>
          <Button size="md" variant={broken ? 'solid' : 'outline'} disabled={working} onClick={onAgain}>
            {working ? 'packing …' : 'Pack again'}
          </Button>
        </Flex>
      </Box>
    </Panel>
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
