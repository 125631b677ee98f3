import { Button, type ButtonProps, Portal, Tooltip } from '@chakra-ui/react';
import type { ReactElement } from 'react';

interface TipProps {
  /** Nothing shows where there is none. */
  readonly text: string | undefined;
  /** A button or another thing that takes the focus. */
  readonly children: ReactElement;
}

/** A line about a thing that shows while the pointer rests on it, or while it has the focus by key; Esc takes it away. */
export function Tip({ text, children }: TipProps) {
  return (
    <Tooltip.Root
      disabled={text === undefined}
      openDelay={500}
      closeDelay={60}
      lazyMount
      unmountOnExit
      positioning={{ placement: 'bottom' }}
    >
      <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
      <Portal>
        <Tooltip.Positioner>
          <Tooltip.Content
            bg="leather"
            color="onLeather"
            rounded="6px"
            px="8px"
            py="4px"
            fontSize="12.5px"
            lineHeight="17px"
            maxW="300px"
            zIndex="tooltip"
          >
            {text}
          </Tooltip.Content>
        </Tooltip.Positioner>
      </Portal>
    </Tooltip.Root>
  );
}

/** A button with a line about what it does. */
export function TipButton({ tip, ...button }: ButtonProps & { readonly tip: string | undefined }) {
  return (
    <Tip text={tip}>
      <Button {...button} />
    </Tip>
  );
}
