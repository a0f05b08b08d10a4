/**
 * What a form opened from another asks to be set there, handed from its bench to the parent's: both are pages of this
 * browser, so they talk over a channel of their own.
 */
import { addressHere } from '../../address';
import type { Handed } from './handed';

/** Benches of one workspace. */
const channelName = () => addressHere('tavro.to-parent');

export function handToParent(handed: Handed): void {
  const channel = new BroadcastChannel(channelName());
  channel.postMessage(handed);
  channel.close();
}

/** Listens for values meant for a form; gives what ends listening. What is not of that shape is not for us. */
export function listenToChildren(
  form: string,
  take: (record: string, sets: Handed['sets']) => void,
): () => void {
  const channel = new BroadcastChannel(channelName());
  channel.addEventListener('message', (event: MessageEvent<unknown>) => {
    // Most benches never hear anything, so what reads it comes when they do.
    void import('./handed').then(({ Handed }) => {
      const read = Handed.safeParse(event.data);
      if (read.success && read.data.form === form) take(read.data.record, read.data.sets);
    });
  });
  return () => channel.close();
}
