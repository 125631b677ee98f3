import { Flex, Text } from '@chakra-ui/react';
import { Link } from 'react-router';

/** The mark and the name, or on a narrow screen the mark alone; leads to the shelf. */
export function Brand({ isShort = false }: { readonly isShort?: boolean }) {
  return (
    <Link to="/" aria-label="Saddlebag, to the shelf">
      <Flex align="center" gap="9px">
        <svg width="24" height="24" viewBox="0 0 32 32" aria-hidden="true">
          <rect x="2" y="8" width="28" height="17" rx="4" fill="var(--sb-colors-leather)" />
          <path d="M2 15h28" stroke="#F0D9A8" strokeWidth="1.6" strokeDasharray="2.4 1.8" />
          <rect x="12.5" y="10.5" width="7" height="10" rx="2" fill="#C99A2E" />
        </svg>
        {!isShort && (
          <Text fontFamily="heading" fontWeight="600" fontSize="20px" color={{ base: 'leather', _dark: 'thread' }}>
            Saddlebag
          </Text>
        )}
      </Flex>
    </Link>
  );
}
