import { Box, Flex, Heading } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface SectionProps {
  readonly title: string;
  readonly beside?: ReactNode;
  readonly children: ReactNode;
}

/** A heading of a datasheet with what belongs to it. */
export function Section({ title, beside, children }: SectionProps) {
  return (
    <Box as="section" pt="12px">
      <Flex align="center" gap="12px" pb="4px">
        <Heading as="h3" fontFamily="heading" fontWeight="600" fontSize="15.5px">
          {title}
        </Heading>
        {beside}
      </Flex>
      {children}
    </Box>
  );
}
