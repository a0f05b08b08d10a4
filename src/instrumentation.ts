/** What the server does once when it starts, before it answers. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { keepOpenFolders } = await import('./server/hosting/open-folders');
  await keepOpenFolders();
}
