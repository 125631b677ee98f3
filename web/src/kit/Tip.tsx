import { Button, type ButtonProps, Portal, Tooltip } from '@chakra-ui/react';
import { type ReactElement, type TouchEvent, useEffect, useRef, useState } from 'react';

interface TipProps {
  /** Nothing shows where there is none. */
  readonly text: string | undefined;
  /** A button or another thing that takes the focus. */
  readonly children: ReactElement;
}

/** So long a finger rests until the line shows, and so long it stays after that, in milliseconds. */
const HOLD = { restMs: 450, staysMs: 2500 } as const;

/** Shows a line while a finger rests on a thing; letting go of it then presses nothing. */
function useHold() {
  const [isOpen, setOpen] = useState(false);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const isHeld = useRef(false);
  const after = (ms: number, then: () => void): void => {
    clearTimeout(timer.current);
    timer.current = setTimeout(then, ms);
  };
  useEffect(() => () => clearTimeout(timer.current), []);
  return {
    isOpen,
    setOpen,
    onTouchStart: () => {
      isHeld.current = false;
      after(HOLD.restMs, () => {
        isHeld.current = true;
        setOpen(true);
      });
    },
    onTouchMove: () => clearTimeout(timer.current),
    onTouchEnd: (e: TouchEvent) => {
      clearTimeout(timer.current);
      if (!isHeld.current) return;
      e.preventDefault();
      after(HOLD.staysMs, () => setOpen(false));
    },
  };
}

/** A line about a thing that shows while the pointer rests on it, while it has the focus by key, or while a finger is held on it; Esc takes it away. */
export function Tip({ text, children }: TipProps) {
  const { isOpen, setOpen, ...hold } = useHold();
  return (
    <Tooltip.Root
      disabled={text === undefined}
      open={isOpen}
      onOpenChange={(e) => setOpen(e.open)}
      openDelay={500}
      closeDelay={60}
      lazyMount
      unmountOnExit
      positioning={{ placement: 'bottom' }}
    >
      <Tooltip.Trigger asChild {...hold}>
        {children}
      </Tooltip.Trigger>
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
