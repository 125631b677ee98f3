import { Box, Button, Flex, Heading, Text } from '@chakra-ui/react';
import {
  countPacking,
  isBare,
  layOut,
  type Packing,
  partsListCsv,
  partsOfPacking,
  says,
  sureness,
  typeOf,
  type Way,
  ways,
} from '@saddlebag/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useJobView } from '../app/job-context';
import { download, fileName } from '../kit/download';
import { FindingLine } from '../kit/FindingLine';
import { tell } from '../kit/notices';
import { PackageDrawing } from '../kit/PackageDrawing';
import { Empty, Panel } from '../kit/Panel';
import { useDrawer } from '../store/drawer';
import { DrawerPanel } from './DrawerPanel';
import { GateList } from './GateList';
import { useWays } from './use-ways';
import { WaysPanel } from './WaysPanel';

const wayList = ways.map((w) => w.way);

/** Gates in chips: each package with its inside, the ways to build side by side, and how sure each is. */
export default function PackStep() {
  const view = useJobView();
  const { packing, packingPending, packingFindings, reading, job, session } = view;
  const drawer = useDrawer();
  const { states, ask, stop } = useWays(wayList, drawer);
  const [shown, setShown] = useState<Way | null>(null);
  const [open, setOpen] = useState(false);
  const broken = reading !== null && reading.design.netlist === null;
  const nothing = packing !== null && reading?.design.outputs.length === 0;
  const looked = states.find((s) => s.way === shown)?.packing ?? null;
  const take = (next: Packing): void => {
    setShown(null);
    const { edit, findings } = isBare(job.board) ? { edit: null, findings: [] } : layOut(next);
    if (findings.length > 0) tell(findings.map(says).join(' '));
    else session.dispatch(edit ?? { kind: 'take-packing', packing: next });
    if (edit) tell('The board is laid out afresh for it. Undo brings the old one back.');
  };
  if (open) return <DrawerPanel entries={drawer ?? []} onClose={() => setOpen(false)} />;
  const drawn = looked ?? packing;
  return (
    <>
      <Panel
        title={looked ? (ways.find((w) => w.way === shown)?.title ?? '') : 'Packages'}
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
            <Button onClick={() => setOpen(true)}>Drawer</Button>
          </>
        }
      >
        {packingPending && (
          <Empty>
            Looking for the fewest packages …
            <Button display="block" mx="auto" mt="12px" onClick={view.stopPacking}>
              Stop
            </Button>
          </Empty>
        )}
        {!packingPending && broken && (
          <Empty>The sheet has a mistake. Mend it at Design, and its gates are packed here.</Empty>
        )}
        {!packingPending && nothing && <Empty>Nothing to pack yet: the sheet has no output.</Empty>}
        {!packingPending && !packing && reading !== null && !broken && packingFindings.length === 0 && (
          <Empty>
            Stopped before a packing was found.
            <Button display="block" mx="auto" mt="12px" onClick={view.startPacking}>
              Pack again
            </Button>
          </Empty>
        )}
        {packingFindings.map((f) => (
          <FindingLine key={says(f)} finding={f} />
        ))}
        {drawn && !nothing && !packingPending && <Packages packing={drawn} />}
      </Panel>
      {packing && !nothing && (
        <Flex direction="column" gap="10px" w="370px" flexShrink={0} minH="0">
          <Summary packing={packing} />
          <WaysPanel
            states={states}
            shown={shown}
            drawer={drawer}
            onAsk={ask}
            onStop={stop}
            onShow={setShown}
            onTake={take}
          />
          <Panel title="Gate by gate" hint="where each gate of the sheet sits" flex="0.7">
            <GateList packing={drawn ?? packing} />
          </Panel>
        </Flex>
      )}
    </>
  );
}

function Packages({ packing }: { readonly packing: Packing }) {
  if (packing.packages.length === 0) return <Empty>No gate is needed: each output is an input, or constant.</Empty>;
  return (
    <Box
      overflowY="auto"
      p="8px 14px"
      display="grid"
      gridTemplateColumns="repeat(auto-fill, minmax(300px, 1fr))"
      gap="14px 22px"
      alignContent="start"
      tabIndex={0}
      role="region"
      aria-label="packages"
    >
      {packing.packages.map((pack) => {
        const used = pack.units.filter((u) => u !== null).length;
        return (
          <Box key={pack.ref}>
            <PackageDrawing pack={pack} />
            <Text fontSize="13.5px" mt="2px">
              <Text as="span" fontFamily="heading" fontWeight="600" fontSize="16px">
                {pack.ref} {pack.part}
              </Text>{' '}
              {typeOf(pack)?.title}, {used} of {pack.units.length} used
            </Text>
          </Box>
        );
      })}
    </Box>
  );
}

function Summary({ packing }: { readonly packing: Packing }) {
  const { job, session, id } = useJobView();
  const navigate = useNavigate();
  const { packages, unitsUsed, unitsSpare } = countPacking(packing);
  const laid = !isBare(job.board);
  const lay = (): void => {
    const { edit, findings } = layOut(packing);
    if (!edit) tell(findings.map(says).join(' '));
    else if (session.dispatch(edit).ok) void navigate(`/job/${id}/board`);
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
          {sureness({ ...packing, sure: packing.sure ?? (packing.proved ? 'tried' : 'best') })}
        </Text>
        <Heading as="h3" srOnly>
          next
        </Heading>
        <Button size="md" variant={laid ? 'outline' : 'solid'} onClick={lay}>
          {laid ? 'Lay it out afresh' : 'Lay it out on boards'}
        </Button>
      </Box>
    </Panel>
  );
}
