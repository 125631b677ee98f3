import { NativeSelect } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { BY_TOUCH, TOUCHED } from '../base/narrow';

interface ChoiceProps {
  readonly label: string;
  readonly value: string;
  readonly width: string;
  readonly onChange: (value: string) => void;
  /** The options. */
  readonly children: ReactNode;
}

/** A list to choose from, of the height of a button. */
export function Choice({ label, value, width, onChange, children }: ChoiceProps) {
  return (
    <NativeSelect.Root size="xs" width={width}>
      <NativeSelect.Field
        aria-label={label}
        bg="card"
        borderColor="line"
        h="26px"
        fontSize="13px"
        value={value}
        css={{ [BY_TOUCH]: { minHeight: TOUCHED } }}
        onChange={(e) => onChange(e.target.value)}
      >
        {children}
      </NativeSelect.Field>
      <NativeSelect.Indicator />
    </NativeSelect.Root>
  );
}
