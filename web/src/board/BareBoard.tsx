import { Box, Button, Flex, Text } from '@chakra-ui/react';
import { useLayOut, usePackingToLay } from '../kit/use-lay-out';
import { LayingProgress } from './BoardTools';

/** What to do with an empty board. */
export function BareBoard({ onGuide }: { readonly onGuide: () => void }) {
  const ready = usePackingToLay() !== null;
  const laying = useLayOut();
  return (
    <Flex position="absolute" inset="0" align="center" justify="center" pointerEvents="none">
      <Box
        bg="card"
        borderWidth="1px"
        borderColor="line"
        rounded="10px"
        p="18px 22px"
        textAlign="center"
        pointerEvents="auto"
        onPointerDown={(e) => e.stopPropagation()}
      >
        <Text fontFamily="heading" fontWeight="600" fontSize="18px">
          The board is bare
        </Text>
        <Text color="soft" mb="12px" maxW="360px">
          {ready
            ? 'Have everything laid out, be guided through it, or seat parts and lay jumpers yourself.'
            : 'Write a sheet first, or seat parts and lay jumpers yourself.'}
        </Text>
        <Flex gap="8px" justify="center">
          <Button size="md" variant="solid" disabled={!ready || laying.share !== null} onClick={laying.afresh}>
            Lay it all out
          </Button>
          <Button size="md" disabled={!ready} onClick={onGuide}>
            Guide me wire by wire
          </Button>
          <LayingProgress laying={laying} />
        </Flex>
      </Box>
    </Flex>
  );
}
