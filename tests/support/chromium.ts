/** How tests start Debian's Chromium: headless, quiet, without a sandbox of its own since tests may run as root. */
export const CHROMIUM = {
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-dev-shm-usage',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--no-first-run',
  ],
};
