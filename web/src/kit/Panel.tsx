import { Box, Flex, type FlexProps, Heading, Text } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { NARROW } from '../base/narrow';

interface PanelProps extends Omit<FlexProps, 'title'> {
  readonly title: ReactNode;
  readonly hint?: ReactNode;
  readonly actions?: ReactNode;
}

/** A card of paper with a heading, a hint beside it and what can be pressed at its right; its body takes the room that is left. */
export function Panel({ title, hint, actions, children, ...rest }: PanelProps) {
  return (
    <Flex
      as="section"
      direction="column"
      bg="card"
      borderWidth="1px"
      borderColor="line"
      rounded="10px"
      minH="0"
      minW="0"
      overflow="hidden"
      {...rest}
    >
      <Flex
        align="center"
        gap="4px 10px"
        px="12px"
        minH="38px"
        flexShrink={0}
        css={{ [NARROW]: { flexWrap: 'wrap', paddingBlock: '4px' } }}
      >
        <Heading as="h2" fontFamily="heading" fontWeight="600" fontSize="16px" lineHeight="1.2" whiteSpace="nowrap">
          {title}
        </Heading>
        {hint !== undefined && (
          <Text color="soft" fontSize="12.5px" minW="0" truncate title={typeof hint === 'string' ? hint : undefined}>
            {hint}
          </Text>
        )}
        <Flex
          ml="auto"
          gap="6px"
          align="center"
          css={{
            flexShrink: 0,
            [NARROW]: { flexShrink: 1, flexWrap: 'wrap', justifyContent: 'flex-end' },
          }}
        >
          {actions}
        </Flex>
      </Flex>
      <Box flex="1" minH="0" minW="0" position="relative" display="flex" flexDirection="column">
        {children}
      </Box>
    </Flex>
  );
}

/** A quiet line in the middle of an empty panel: what would be here, and how to get it. */
export function Empty({ children }: { readonly children: ReactNode }) {
  return (
    <Flex flex="1" align="center" justify="center" p="24px" color="soft" textAlign="center">
      <Box maxW="420px">{children}</Box>
    </Flex>
  );
}

/** A key as it is printed on the keyboard. */
export function KeyCap({ children }: { readonly children: ReactNode }) {
  return (
    <Box
      as="kbd"
      fontFamily="mono"
      fontSize="11.5px"
      color="soft"
      bg="card"
      borderWidth="1px"
      borderColor="line"
      borderBottomWidth="2px"
      rounded="4px"
      px="5px"
      py="1px"
      whiteSpace="nowrap"
    >
      {children}
    </Box>
  );
}
