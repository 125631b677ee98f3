import { Box, Button, Flex, type FlexProps } from '@chakra-ui/react';
import { createContext, type ReactNode, useContext, useEffect, useId, useState } from 'react';
import { createPortal } from 'react-dom';
import { NARROW, TOUCHED, useIsNarrow } from '../base/narrow';

/** Where the buttons of what slides over a narrow screen stand, and which of them is open. */
interface Sheets {
  readonly bar: HTMLElement | null;
  readonly open: string | null;
  readonly setOpen: (id: string | null) => void;
}
const SheetsContext = createContext<Sheets>({ bar: null, open: null, setOpen: () => {} });

/**
 * A screen whose panels lie beside one another; where it is narrow, one of them takes it, and those in `Beside` slide over it from a row of buttons at
 * the foot, one at a time.
 */
export function SideBySide({ children, ...rest }: FlexProps) {
  const [bar, setBar] = useState<HTMLElement | null>(null);
  const [open, setOpen] = useState<string | null>(null);
  const isNarrow = useIsNarrow();
  return (
    <Flex position="relative" minH="0" minW="0" {...rest} css={{ [NARROW]: { flexDirection: 'column' } }}>
      <SheetsContext.Provider value={{ bar, open, setOpen }}>
        {children}
        {isNarrow && (
          <Flex
            ref={setBar}
            role="group"
            aria-label="panels"
            gap="8px"
            order={9}
            flexShrink={0}
            _empty={{ display: 'none' }}
          />
        )}
      </SheetsContext.Provider>
    </Flex>
  );
}

interface BesideProps extends FlexProps {
  /** What the button says that brings it up on a narrow screen. */
  readonly title: string;
  readonly children: ReactNode;
}

/** Panels beside the main one: where they are put on a wide screen, a sheet that slides up on a narrow one. */
export function Beside({ title, children, ...wide }: BesideProps) {
  const id = useId();
  const { bar, open, setOpen } = useContext(SheetsContext);
  const isNarrow = useIsNarrow();
  const isOpen = open === id;
  useEffect(() => {
    if (!isNarrow && isOpen) setOpen(null);
  }, [isNarrow, isOpen, setOpen]);
  const button = (
    <Button
      size="md"
      flex="1"
      minW="0"
      minH={TOUCHED}
      aria-expanded={isOpen}
      aria-controls={id}
      aria-pressed={isOpen}
      onClick={() => setOpen(isOpen ? null : id)}
    >
      <Box as="span" truncate>
        {title}
      </Box>
    </Button>
  );
  return (
    <>
      {isNarrow && bar && createPortal(button, bar)}
      <Flex
        id={id}
        {...wide}
        {...(isNarrow && sliding(isOpen))}
        {...(isNarrow && {
          role: 'group',
          'aria-label': title,
          onKeyDown: (e) => e.key === 'Escape' && setOpen(null),
        })}
      >
        {children}
      </Flex>
    </>
  );
}

/** A sheet over the lower part of the screen, above the row of buttons; out of sight nothing of it takes the focus. */
const sliding = (isOpen: boolean): FlexProps => ({
  direction: 'column',
  position: 'absolute',
  insetX: '0',
  bottom: `calc(${TOUCHED} + 8px)`,
  w: 'auto',
  h: 'auto',
  maxH: '62%',
  minH: '0',
  overflowY: 'auto',
  zIndex: 2,
  gap: '8px',
  rounded: '10px',
  boxShadow: '0 -4px 18px rgba(0,0,0,0.28)',
  bg: 'paper',
  p: '6px',
  transform: isOpen ? 'none' : 'translateY(24px)',
  opacity: isOpen ? 1 : 0,
  visibility: isOpen ? 'visible' : 'hidden',
  transition: 'transform 140ms, opacity 140ms',
  css: {
    '& > *': { width: 'auto', flexShrink: 0, maxHeight: '56vh' },
    '@media (prefers-reduced-motion: reduce)': { transition: 'none' },
  },
});
