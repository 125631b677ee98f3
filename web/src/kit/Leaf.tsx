import { Button, Dialog, Flex, Portal } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface LeafProps {
  /** What it is called by those who do not see it. */
  readonly label: string;
  readonly title: string;
  /** What stands beside the title. */
  readonly beside?: ReactNode;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** A leaf laid over the screen, with its title, and a button that takes it away; so does Esc. */
export function Leaf({ label, title, beside, onClose, children }: LeafProps) {
  return (
    <Dialog.Root open onOpenChange={(e) => !e.open && onClose()} size="lg" scrollBehavior="inside" motionPreset="none">
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content bg="card" rounded="10px" p="18px" aria-label={label}>
            <Flex align="center" gap="12px" mb="10px">
              <Dialog.Title fontFamily="heading" fontWeight="600" fontSize="18px">
                {title}
              </Dialog.Title>
              {beside}
            </Flex>
            {children}
            <Flex justify="flex-end" mt="14px">
              <Button size="md" variant="solid" onClick={onClose}>
                Close
              </Button>
            </Flex>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
