// Daylight or lamplight: the system's choice until the person makes one.
class Theme {
  dark = $state(false);

  start(): void {
    const chosen = localStorage.getItem('theme');
    this.dark = chosen ? chosen === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches;
    if (chosen) document.documentElement.dataset.theme = chosen;
  }

  turn(): void {
    this.dark = !this.dark;
    const chosen = this.dark ? 'dark' : 'light';
    localStorage.setItem('theme', chosen);
    document.documentElement.dataset.theme = chosen;
  }
}

export const theme = new Theme();
