'use client';
/** Addresses within the workspace that the page is about: `/w/NAME` stands before them, or nothing for the first one. */
import Link from 'next/link';
import { createContext, useContext, type ComponentProps, type ReactNode } from 'react';

const Base = createContext('');

/** `base` is what stands before every address of the workspace. */
export function BaseIn({ base, children }: { base: string; children: ReactNode }) {
  return <Base value={base}>{children}</Base>;
}

const under = (base: string, path: string) => (path === '/' && base !== '' ? base : base + path);

/** Makes addresses for links and navigation. */
export function useAddress(): (path: string) => string {
  const base = useContext(Base);
  return (path) => under(base, path);
}

/** The same outside components, in the browser. */
export function addressHere(path: string): string {
  return under(/^\/w\/[^/]+/.exec(globalThis.location?.pathname ?? '')?.[0] ?? '', path);
}

/** A link to a page of the same workspace. */
export function LinkHere({ href, ...props }: ComponentProps<typeof Link> & { href: string }) {
  return <Link {...props} href={useAddress()(href)} />;
}
