import { createToaster, Toast, Toaster } from '@chakra-ui/react';

/** Short notices at the lower edge, beside the foot line so that one of a line covers nothing, with at most one thing to press. */
export const notices = createToaster({ placement: 'bottom-end', max: 3, offsets: '4px', overlap: false });

/** Tells something, optionally with a way back. */
export function tell(text: string, action?: { readonly label: string; readonly onClick: () => void }): void {
  notices.create({ title: text, duration: action ? 9000 : 5000, ...(action && { action }) });
}

/** The place where short notices appear, for all screens at once. */
export function Notices() {
  return (
    <Toaster toaster={notices}>
      {(toast) => (
        <Toast.Root bg="mat" color="#F4EFE4" rounded="8px" px="14px" py="6px" width="auto" minW="260px">
          <Toast.Title fontFamily="body" fontWeight="400" fontSize="14px" letterSpacing="0">
            {toast.title}
          </Toast.Title>
          {toast.action && (
            <Toast.ActionTrigger color="thread" fontWeight="700" cursor="pointer">
              {toast.action.label}
            </Toast.ActionTrigger>
          )}
          <Toast.CloseTrigger color="#F4EFE4" />
        </Toast.Root>
      )}
    </Toaster>
  );
}
