import { Button, Dialog, Flex, Input, Portal } from '@chakra-ui/react';
import { useId, useRef, useState } from 'react';

interface AskProps {
  readonly title: string;
  readonly label: string;
  readonly value: string;
  readonly done: string;
  readonly onDone: (value: string) => void;
  readonly onClose: () => void;
}

/** Asks for one line of text in a dialog. An empty answer cannot be given. */
export function Ask({ title, label, value, done, onDone, onClose }: AskProps) {
  const field = useId();
  const [text, setText] = useState(value);
  const input = useRef<HTMLInputElement>(null);
  const submit = (): void => {
    if (text.trim() === '') return;
    onDone(text.trim());
    onClose();
  };
  return (
    <Dialog.Root open onOpenChange={({ open }) => !open && onClose()} initialFocusEl={() => input.current} size="sm">
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
                submit();
              }}
            >
              <label htmlFor={field}>
                {label}
                <Input
                  id={field}
                  ref={input}
                  mt="4px"
                  bg="paper"
                  borderColor="line"
                  maxLength={200}
                  value={text}
                  onChange={(e) => setText(e.target.value)}
                  onFocus={(e) => e.target.select()}
                />
              </label>
              <Flex gap="8px" justify="flex-end" mt="16px">
                <Button size="md" onClick={onClose}>
                  Cancel
                </Button>
                <Button size="md" variant="solid" type="submit" disabled={text.trim() === ''}>
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
