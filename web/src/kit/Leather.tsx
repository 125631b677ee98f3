import { Box, Flex, type FlexProps } from '@chakra-ui/react';

/** A piece of leather with its two seams. */
export function Leather({ children, ...rest }: FlexProps) {
  return (
    <Flex
      bg="leather"
      backgroundImage="linear-gradient({colors.leatherLight}, {colors.leather})"
      rounded="10px"
      mx="12px"
      flexShrink={0}
      position="relative"
      {...rest}
    >
      <Box
        position="absolute"
        inset="4px 0"
        borderY="1px dashed"
        borderColor="thread"
        opacity={0.6}
        pointerEvents="none"
      />
      {children}
    </Flex>
  );
}
