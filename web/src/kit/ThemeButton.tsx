import { Button } from '@chakra-ui/react';
import { changeSettings, useSettings } from '../base/settings';

/** Turns the dim theme for dark labs on and off. */
export function ThemeButton() {
  const { dim } = useSettings();
  return (
    <Button aria-pressed={dim} onClick={() => changeSettings({ dim: !dim })}>
      Dim
    </Button>
  );
}
