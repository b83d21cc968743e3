import { create } from 'zustand';
import { persist } from 'zustand/middleware';

type Theme = 'light' | 'dark' | 'system';

/** The chosen theme, kept in the browser. */
export const useTheme = create<{ theme: Theme; choose: (theme: Theme) => void }>()(
  persist((set) => ({ theme: 'system', choose: (theme) => set({ theme }) }), { name: 'haycart.theme' }),
);

/** Shows the chosen theme, and follows the system where that is the choice. */
export function applyTheme(): void {
  const dark = window.matchMedia('(prefers-color-scheme: dark)');
  const show = () => {
    const { theme } = useTheme.getState();
    document.documentElement.dataset.theme = theme === 'system' ? (dark.matches ? 'dark' : 'light') : theme;
  };
  dark.addEventListener('change', show);
  useTheme.subscribe(show);
  show();
}
