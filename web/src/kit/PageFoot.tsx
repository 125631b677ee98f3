import { Flex } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { NARROW } from '../base/narrow';
import { FirstKeys } from './FirstKeys';

/** The line at the foot of a page outside a job: the keys that work there, and what else is to be known. Narrow screens have no room for it. */
export function PageFoot({ children }: { readonly children?: ReactNode }) {
  return (
    <Flex
      as="footer"
      px="18px"
      h="42px"
      align="center"
      gap="8px"
      color="soft"
      fontSize="12.5px"
      flexShrink={0}
      css={{ [NARROW]: { display: 'none' } }}
    >
      <FirstKeys />
      {children}
    </Flex>
  );
}
