'use client';
/** A window over the page. What windows stand on is loaded after the page. */
import { chakra } from '@chakra-ui/react';
import { createContext, use, useId, useState, type ReactNode } from 'react';
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

const load = () => import('./window-frame').then((module) => module.WindowFrame);
const Frame = lazily<WindowProps & FrameProps>(load);
inIdleTime(load);

/** What the frame is told besides. */
export interface FrameProps {
  titledBy: string;
  /** What had the focus before it opened, and gets it back. */
  before: HTMLElement | null;
}

const TitleId = createContext('');

export function Window({ children, ...props }: WindowProps) {
  const titledBy = useId();
  const [wanted, setWanted] = useState(props.open);
  if (props.open && !wanted) setWanted(true);
  // Asked here: by the time the frame opens, something within it has the focus.
  const [wasOpen, setWasOpen] = useState(false);
  const [before, setBefore] = useState<HTMLElement | null>(null);
  if (props.open !== wasOpen) {
    setWasOpen(props.open);
    if (props.open) setBefore(document.activeElement as HTMLElement | null);
  }
  // Once it was open it stays, so that it can give the focus back.
  if (!wanted) return null;
  return (
    <Frame {...props} titledBy={titledBy} before={before}>
      <TitleId value={titledBy}>{children}</TitleId>
    </Frame>
  );
}

/** What a window is called; stands within it. */
export function WindowTitle({ children }: { children: ReactNode }) {
  return (
    <chakra.h2 id={use(TitleId)} fontSize="15px" fontWeight={640}>
      {children}
    </chakra.h2>
  );
}
