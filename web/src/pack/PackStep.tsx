import { Box, Button, Flex, Heading, Text } from '@chakra-ui/react';
import { countPacking, isBare, layOut, type Packing, partsOfPacking, says, typeOf } from '@saddlebag/core';
import { useNavigate } from 'react-router';
import { useJobView } from '../app/job-context';
import { FindingLine } from '../kit/FindingLine';
import { tell } from '../kit/notices';
import { PackageDrawing } from '../kit/PackageDrawing';
import { Empty, Panel } from '../kit/Panel';
import { GateList } from './GateList';

/** Gates in chips: each package with its inside, which gate sits where, and how sure the count is. */
export default function PackStep() {
  const view = useJobView();
  const { packing, packingPending, packingFindings, reading } = view;
  const broken = reading !== null && reading.design.netlist === null;
  const nothing = packing !== null && reading?.design.outputs.length === 0;
  return (
    <>
      <Panel title="Packages" hint="dashed units are spare; each pin shows what it carries" flex="1">
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
        {packing && !nothing && !packingPending && <Packages packing={packing} />}
      </Panel>
      {packing && !nothing && (
        <Flex direction="column" gap="10px" w="370px" flexShrink={0} minH="0">
          <Summary packing={packing} />
          <Panel title="Gate by gate" hint="where each gate of the sheet sits" flex="1">
            <GateList packing={packing} />
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
          {packing.proved
            ? 'Proved: built gate for gate as the sheet has them, no smaller set of chips will do. Another form of the sheet may need fewer.'
            : 'The best found in the time given; a smaller set may exist.'}
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
