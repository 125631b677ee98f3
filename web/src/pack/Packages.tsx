import { Box, Text } from '@chakra-ui/react';
import { looseNets, type Packing, printPlace, typeOf, type UnitPlace } from '@saddlebag/core';
import { useMemo } from 'react';
import { PackageDrawing } from '../kit/PackageDrawing';
import { Empty } from '../kit/Panel';
import { useGrowingCount } from '../kit/use-growing-count';
import type { PackingHand } from './use-packing-hand';
import { type UnitDrag, useUnitDrag } from './use-unit-drag';

interface PackagesProps {
  readonly packing: Packing;
  /** Null where the packing is only looked at. */
  readonly hand: PackingHand | null;
  readonly chosen: UnitPlace | null;
  readonly onChoose: (place: UnitPlace | null) => void;
}

/** The packages of a packing. Gates can be dragged to other units, and inputs onto equal ones. */
export function Packages({ packing, hand, chosen, onChoose }: PackagesProps) {
  if (packing.packages.length === 0) return <Empty>No gate is needed: each output is an input, or constant.</Empty>;
  if (!hand) return <Grid packing={packing} chosen={null} />;
  return <ByHand packing={packing} hand={hand} chosen={chosen} onChoose={onChoose} />;
}

function ByHand({ packing, hand, chosen, onChoose }: PackagesProps & { readonly hand: PackingHand }) {
  const nameOf = ({ ref, unit }: UnitPlace): string | null =>
    packing.packages.find((p) => p.ref === ref)?.units[unit]?.output ?? null;
  const { drag, handlers } = useUnitDrag({ hand, nameOf }, onChoose);
  const pinned = new Set(hand.locks.pins.map((p) => p.net));
  const isChosen = (p: UnitPlace): boolean => chosen !== null && printPlace(p) === printPlace(chosen);
  return (
    <>
      <Grid
        packing={packing}
        chosen={chosen}
        pinned={pinned}
        drag={drag}
        onChoose={(p) => onChoose(isChosen(p) ? null : p)}
        handlers={handlers}
      />
      {drag && <Ghost drag={drag} />}
    </>
  );
}

/** What is being dragged, beside the pointer: where it would go, or why it cannot. */
function Ghost({ drag }: { readonly drag: UnitDrag }) {
  const refused = drag.over !== null && !drag.can;
  return (
    <Text
      position="fixed"
      pointerEvents="none"
      zIndex="20"
      maxW="300px"
      px="8px"
      py="3px"
      rounded="5px"
      fontSize="12.5px"
      bg="card"
      borderWidth="1px"
      borderColor={refused ? 'bad' : 'moss'}
      color={refused ? 'bad' : 'ink'}
      style={{ left: Math.min(drag.x + 14, window.innerWidth - 310), top: drag.y + 12 }}
      role="status"
    >
      {drag.says}
    </Text>
  );
}

interface GridProps {
  readonly packing: Packing;
  readonly chosen: UnitPlace | null;
  readonly pinned?: ReadonlySet<string>;
  readonly drag?: UnitDrag | null;
  readonly onChoose?: (place: UnitPlace) => void;
  readonly handlers?: object;
}

/** Packages that are drawn at once; the others follow, out of sight. */
const AT_ONCE = { first: 9, more: 6 } as const;

function Grid({ packing, chosen, pinned, drag = null, onChoose, handlers }: GridProps) {
  const over = drag?.over ?? null;
  const loose = useMemo(() => looseNets(packing), [packing]);
  const shown = useGrowingCount(packing.packages.length, AT_ONCE);
  return (
    <Box
      overflowY="auto"
      flex="1"
      minH="0"
      p="8px 14px"
      display="grid"
      gridTemplateColumns="repeat(auto-fill, minmax(300px, 1fr))"
      gap="14px 22px"
      alignContent="start"
      tabIndex={0}
      role="region"
      aria-label="packages"
      userSelect="none"
      {...handlers}
    >
      {packing.packages.slice(0, shown).map((pack) => {
        const used = pack.units.filter((u) => u !== null).length;
        const unitOf = (p: UnitPlace | null): number | null => (p?.ref === pack.ref ? p.unit : null);
        return (
          // Of packages out of sight the browser works out nothing.
          <Box key={pack.ref} contentVisibility="auto" style={{ containIntrinsicHeight: 'auto 240px' }}>
            <PackageDrawing
              pack={pack}
              loose={loose}
              hand={
                onChoose && {
                  chosen: unitOf(chosen),
                  over: unitOf(over),
                  can: drag?.can ?? false,
                  pinned: pinned ?? new Set(),
                  onChoose: (unit) => onChoose({ ref: pack.ref, unit }),
                }
              }
            />
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
