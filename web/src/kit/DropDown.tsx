import { Box, Button, type ButtonProps } from '@chakra-ui/react';
import { type ReactNode, useId, useRef } from 'react';

interface DropDownProps extends ButtonProps {
  /** What it is called by those who do not see it, where its face does not say it. */
  readonly label?: string;
  /** What the button shows. */
  readonly face: ReactNode;
  /** How far from the top of the screen it hangs. */
  readonly top: string;
  readonly children: ReactNode;
}

/** A button with things to press that hang below it, by the browser's own popover: Esc, a press outside and a press on any of them close it. */
export function DropDown({ label, face, top, children, ...button }: DropDownProps) {
  const id = useId();
  const hanging = useRef<HTMLDivElement>(null);
  return (
    <>
      <Button {...button} popoverTarget={id} aria-label={label}>
        {face}
      </Button>
      <Box
        id={id}
        ref={hanging}
        popover="auto"
        position="fixed"
        inset="auto"
        top={top}
        left="12px"
        right="12px"
        m="0"
        ml="auto"
        maxW="420px"
        w="calc(100% - 24px)"
        bg="card"
        color="ink"
        borderWidth="1px"
        borderColor="line"
        rounded="10px"
        p="8px"
        boxShadow="0 6px 24px rgba(0,0,0,0.3)"
        onClick={() => hanging.current?.hidePopover()}
      >
        {children}
      </Box>
    </>
  );
}
