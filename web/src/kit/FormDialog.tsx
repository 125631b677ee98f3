import { Button, Dialog, Flex, Portal } from '@chakra-ui/react';
import type { ReactNode, RefObject } from 'react';

interface FormDialogProps {
  readonly title: string;
  /** What the button says that ends it, and whether it can be pressed. */
  readonly done: string;
  readonly canEnd: boolean;
  readonly onDone: () => void;
  readonly onClose: () => void;
  /** What the first key goes to. */
  readonly first: RefObject<HTMLElement | null>;
  readonly children: ReactNode;
}

/** A dialog that asks for something: its fields, a button that ends it and one that leaves everything as it was. */
export function FormDialog({ title, done, canEnd, onDone, onClose, first, children }: FormDialogProps) {
  return (
    <Dialog.Root open onOpenChange={({ open }) => !open && onClose()} initialFocusEl={() => first.current} size="sm">
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content bg="card" rounded="10px" p="18px">
            <Dialog.Title fontFamily="heading" fontWeight="600" fontSize="18px" mb="12px">
              {title}
            </Dialog.Title>
            <form
              onSubmit={(e) => {
                e.preventDefault();
                if (canEnd) onDone();
              }}
            >
              {children}
              <Flex gap="8px" justify="flex-end" mt="16px">
                <Button size="md" onClick={onClose}>
                  Cancel
                </Button>
                <Button size="md" variant="solid" type="submit" disabled={!canEnd}>
                  {done}
                </Button>
              </Flex>
            </form>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
