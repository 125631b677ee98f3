/** Presses a key as a person does whose focus is nowhere: `binding` as shortcuts have them (`$mod+z`, `Shift+n`, `Delete`). */
export function pressKey(binding: string): void {
  const parts = binding.split('+');
  const key = parts.pop() || '+';
  const isMac = /Mac|iPhone|iPad/.test(navigator.platform);
  const isHeld = (modifier: string): boolean => parts.includes(modifier);
  document.body.dispatchEvent(
    new KeyboardEvent('keydown', {
      key,
      // Longer ones may be names of keys wherever their letter lies, such as `Space`.
      code: key.length > 1 ? key : '',
      bubbles: true,
      cancelable: true,
      shiftKey: isHeld('Shift'),
      altKey: isHeld('Alt'),
      ctrlKey: isHeld('Control') || (isHeld('$mod') && !isMac),
      metaKey: isHeld('Meta') || (isHeld('$mod') && isMac),
    }),
  );
}
