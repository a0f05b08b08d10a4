'use client';
/** A window over the page. What windows stand on is loaded after the page. */
import { useState, type ReactNode } from 'react';
import { inIdleTime, lazily } from './lazily';

export interface WindowProps {
  open: boolean;
  onClose: () => void;
  size?: 'sm' | 'md' | 'lg' | 'xl';
  /** As high and wide as the page lets it be. */
  whole?: boolean;
  /** Only its own buttons close it. */
  stays?: boolean;
  children: ReactNode;
}

const load = () => import('./window-frame');
const Frame = lazily<WindowProps>(() => load().then(({ WindowFrame }) => WindowFrame));
const Title = lazily<{ children: ReactNode }>(() => load().then(({ FrameTitle }) => FrameTitle));
inIdleTime(load);

export function Window({ children, ...props }: WindowProps) {
  const [wanted, setWanted] = useState(props.open);
  if (props.open && !wanted) setWanted(true);
  // Once it was open it stays, so that it can give the focus back.
  return wanted ? <Frame {...props}>{children}</Frame> : null;
}

/** What a window is called; stands within it. */
export function WindowTitle({ children }: { children: ReactNode }) {
  return <Title>{children}</Title>;
}
