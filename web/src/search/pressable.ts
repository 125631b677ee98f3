import type { Searchable } from '../base/searchable';

/** The most buttons of a screen that are offered. */
const MOST = 60;
/** Longer ones are lines of lists, not actions. */
const MOST_LETTERS = 40;

/** The buttons that are in sight and can be pressed: each is an action by what it says. Rows of tables and lists are none. */
export function pressable(): readonly Searchable[] {
  const buttons = [...document.querySelectorAll<HTMLElement>('main button:not([data-away] *), header button')];
  const said = new Set<string>();
  return buttons
    .flatMap((button): Searchable[] => {
      const says = (button.getAttribute('aria-label') ?? button.textContent).trim();
      const isAction =
        says.length > 1 &&
        says.length <= MOST_LETTERS &&
        !said.has(says) &&
        !button.matches(':disabled') &&
        !button.closest('[role=table], table, li, [role=listbox]') &&
        (button.checkVisibility?.({ visibilityProperty: true }) ?? true);
      if (!isAction || says === 'Search') return [];
      said.add(says);
      return [{ kind: 'action', title: says, detail: placeOf(button), take: () => button.click() }];
    })
    .slice(0, MOST);
}

/** The panel that a button stands in, by its heading. */
const placeOf = (button: HTMLElement): string =>
  button.closest('section')?.querySelector('h2')?.textContent ?? 'on this screen';
