import { Input, type InputProps } from '@chakra-ui/react';
import type { Ref } from 'react';

/** A short field for what is typed exactly: pins, holes, expressions, numbers. */
export function MonoInput(props: InputProps & { readonly ref?: Ref<HTMLInputElement> }) {
  return (
    <Input
      h="26px"
      px="8px"
      fontFamily="mono"
      fontSize="12.5px"
      bg="card"
      borderColor="line"
      _placeholder={{ color: 'soft' }}
      {...props}
    />
  );
}
